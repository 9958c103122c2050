"""Laying a drag chain between what moves and what stands: which axis it follows, how it lies, how long it is."""

from math import dist

from unterbau.catalogue.joints import Face
from unterbau.errors import InputError
from unterbau.machine.changes.change import Chain, joint_key, part_key
from unterbau.machine.changes.standing import Held
from unterbau.structure.carrier import AXES
from unterbau.structure.drag_chain import ChainRun
from unterbau.structure.join import Join
from unterbau.structure.join import Weight as Mass
from unterbau.structure.parts import Place
from unterbau.structure.piece import Bar, Point
from unterbau.structure.spot import Spot
from unterbau.structure.structure import Single, Structure
from unterbau.structure.vectors import ZERO, Vector, X, Y, Z, cross, dot, minus, plus, scaled

REACH = 0.15
"""Farthest that the angle at a chain's moving end reaches, m; common practice, no source."""
STILL_END = ", lying end"


def chain_steps(one: Chain, name: str, ends: tuple[Held, ...], structure: Structure) -> tuple[Single, ...]:
    """Return what hangs a drag chain.

    Raises:
        InputError: Its ends do not move against each other along one axis, or lie too far beside each other.
    """
    run = _run(one, name, ends, structure)
    steps: list[Single] = [run]
    for held, at, point in ((ends[0], ends[0].at.place, name), (ends[1], run.still, name + STILL_END)):
        place, normal, carrier = held.at.place, held.at.normal, held.host.carrier
        face = Face(one.run.width, one.run.width)
        up = Z if abs(normal[2]) < 0.5 else X
        wall = normal if isinstance(held.host, Bar) and normal != ZERO else None
        on = Spot(held.host.name, place)
        steps.append(Point(point, place, carrier))
        steps.append(
            Join(joint_key(one), one.joint, Spot(point, place), on, face, normal, up, wall=wall, carrier=carrier)
        )
        steps.append(Mass(Spot(point, place), run.mass / 2, minus(at, place), carrier))
    return tuple(steps)


def _run(one: Chain, name: str, ends: tuple[Held, ...], structure: Structure) -> ChainRun:
    moving, still = ends
    a, b = moving.host.carrier, still.host.carrier
    ways = (a.x - b.x, a.y - b.y, a.z - b.z)
    axes = [n for n, way in enumerate(ways) if way]
    if len(axes) != 1:
        told = "do not move against each other" if not axes else (
            f"move against each other along {' and '.join(AXES[n] for n in axes)}"
        )  # fmt: skip
        raise InputError("spots", f"the {moving.host.name} and the {still.host.name} {told}; a chain follows one axis")
    axis = (X, Y, Z)[axes[0]]
    gone = [structure.way(Place(share, share, share))[axes[0]] * ways[axes[0]] for share in (0.0, 1.0)]
    off = minus(moving.at.place, still.at.place)
    ahead, apart = dot(off, axis), plus(off, axis, -dot(off, axis))
    rise, side = _lying(axis, apart)
    lies = _off_face(one, still.at.normal, rise, side)
    beside = plus(apart, lies, -1.0)
    angle = plus(beside, rise, -2 * one.run.radius)
    far = dist(angle, ZERO)
    if far > REACH:
        raise InputError("spots", f"an angle of {far * 1e3:.0f} mm would have to reach to its moving end; "
                         f"expected {REACH * 1e3:.0f} mm or less")  # fmt: skip
    return ChainRun(
        part_key(one), name, one.run, moving.at.place, a, plus(still.at.place, lies), axis, rise,
        ahead + min(gone), ahead + max(gone), b,
    )  # fmt: skip


def _lying(axis: Vector, apart: Vector) -> tuple[Vector, Vector]:
    """Return which way its upper run is from its lower one, and sideways: to where its moving end is farther off."""
    tall = X if abs(axis[2]) > 0.5 else Z
    wide = cross(axis, tall)
    up, out = dot(apart, tall), dot(apart, wide)
    if abs(up) >= abs(out):
        return scaled(tall, -1.0 if up < 0 else 1.0), wide
    return scaled(wide, -1.0 if out < 0 else 1.0), tall


def _off_face(one: Chain, normal: Vector, rise: Vector, side: Vector) -> Vector:
    """Return how far off the face that it lies on its middle is."""
    deep = abs(dot(normal, rise)) * one.run.height + abs(dot(normal, side)) * one.run.width
    return scaled(normal, deep / 2)
