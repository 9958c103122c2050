"""Hanging a weight on a spot: a body that stands off the face there."""

from unterbau.catalogue.joints import Face
from unterbau.machine.changes.change import Weight, joint_key, part_key
from unterbau.machine.changes.standing import Held
from unterbau.structure.bodies import Prism, box_ring
from unterbau.structure.join import Join
from unterbau.structure.join import Weight as Mass
from unterbau.structure.motion import Ware
from unterbau.structure.piece import Bar, Point
from unterbau.structure.spot import Spot
from unterbau.structure.structure import Single
from unterbau.structure.vectors import Vector, X, Y, Z, dot, plus, scaled


def weight_steps(one: Weight, name: str, at: Held) -> tuple[Single, ...]:
    """Return what hangs a weight."""
    place, normal, size, carrier = at.at.place, at.at.normal, one.hung.size, at.host.carrier
    off = scaled(normal, _depth(normal, size) / 2)
    middle, key = plus(place, off), joint_key(one)
    long, wide = (dot((abs(normal[0]), abs(normal[1]), abs(normal[2])), axis) < 0.5 for axis in (X, Y))
    across = [side for side, free in zip(size, (long, wide, abs(normal[2]) < 0.5), strict=True) if free]
    lying = abs(normal[2]) >= 0.5
    up, face = (X, Face(across[0], across[-1])) if lying else (Z, Face(across[-1], across[0]))
    wall = normal if isinstance(at.host, Bar) and at.at.normal != (0.0, 0.0, 0.0) else None
    half, on = size[2] / 2, Spot(at.host.name, place)
    look = Prism(part_key(one), name, plus(middle, Z, -half), plus(middle, Z, half), Y, (box_ring(size[0], size[1]),))
    return (
        Point(name, place, carrier),
        Join(key, one.joint, Spot(name, place), on, face, normal, up, wall=wall, carrier=carrier),
        Mass(Spot(name, place), one.hung.mass, off, carrier),
        Ware(part_key(one), one.words, one.hung.mass, ("weight",), look, carrier),
    )


def _depth(normal: Vector, size: Vector) -> float:
    return abs(normal[0]) * size[0] + abs(normal[1]) * size[1] + abs(normal[2]) * size[2]
