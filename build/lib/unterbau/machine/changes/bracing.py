"""Laying a brace: a bar from spot to spot, both ends joined."""

from math import dist

from unterbau.errors import InputError
from unterbau.machine.changes.change import Brace, joint_key, part_key
from unterbau.machine.changes.standing import Held
from unterbau.structure.ends import BESIDE
from unterbau.structure.footing import Footing
from unterbau.structure.join import EndJoin
from unterbau.structure.piece import Bar
from unterbau.structure.structure import Single
from unterbau.structure.vectors import Vector, X, Y, Z, cross, dot, minus, plus, scaled
from unterbau.structure.weights import member_size

SHORTEST = 0.02
"""Between the spots of a brace, m."""
PIECES = 4


def brace_steps(one: Brace, name: str, a: Held, b: Held) -> tuple[Single, ...]:
    """Return what puts a brace up.

    Raises:
        InputError: Its spots are too near.
    """
    start, end = a.at.place, b.at.place
    if dist(start, end) < SHORTEST:
        raise InputError("spots", f"its ends are {dist(start, end) * 1e3:.0f} mm apart; expected at least 20 mm")
    if a.host.name == b.host.name:
        raise InputError("spots", f"both of its ends are on the {a.host.name}")
    height, width = member_size(one.member)
    faces = ((one.a, a), (one.b, b))
    start, end = (_on_face(one, footing, spot, start, end) for footing, spot in faces)
    carrier = a.host.carrier
    bar = Bar(
        part_key(one), name, one.member, start, end, upright(start, end), height, width, (), PIECES, carrier=carrier
    )
    key = joint_key(one)
    return (
        bar,
        EndJoin(key, one.joint, name, False, a.host.name, carrier),
        EndJoin(key, one.joint, name, True, b.host.name, carrier),
    )


def _on_face(one: Brace, footing: Footing, spot: Held, start: Vector, end: Vector) -> Vector:
    """Return where an end is: a member that runs along a face lies on it with its side, not half in it."""
    line, normal = scaled(minus(end, start), 1 / dist(start, end)), spot.at.normal
    if footing.face in ("axis", "start", "end") or abs(dot(line, normal)) >= BESIDE:
        return spot.at.place
    height, width = member_size(one.member)
    up = upright(start, end)
    half = (abs(dot(up, normal)) * height + abs(dot(cross(up, line), normal)) * width) / 2
    return plus(spot.at.place, normal, half)


def upright(start: Vector, end: Vector) -> Vector:
    """Return which way a brace's height lies: square to it, as near as can be to the axis that it runs least along."""
    line = scaled(minus(end, start), 1 / dist(start, end))
    axis = min((Z, X, Y), key=lambda one: round(abs(dot(one, line)), 6))
    up = minus(axis, scaled(line, dot(axis, line)))
    return scaled(up, 1 / dist(up, (0.0, 0.0, 0.0)))
