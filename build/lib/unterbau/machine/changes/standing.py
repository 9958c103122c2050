"""Where changes stand: their spots found, the other side's, the pieces they are on."""

from dataclasses import dataclass
from math import dist

from unterbau.errors import InputError
from unterbau.structure.footing import Footing
from unterbau.structure.piece import Bar, PlatePiece
from unterbau.structure.spots import Place, stands
from unterbau.structure.structure import Structure, Turned
from unterbau.structure.vectors import Vector, dot, minus, plus, scaled

Host = Bar | PlatePiece
SAME = 1e-3
"""Pieces whose ends are mirrored within this are each other's likeness, m."""


@dataclass(frozen=True, slots=True)
class Held:
    """A spot, and the piece it is on."""

    host: Host
    at: Place


def held(structure: Structure, footing: Footing) -> Held:
    """Return where a footing is.

    Raises:
        InputError: Says what is not there.
    """
    at = stands(structure, footing)
    host = structure.pieces[at.piece]
    if not isinstance(host, Bar | PlatePiece):
        raise TypeError(f"nothing stands on {at.piece}")
    return Held(host, at)


def together(structure: Structure, spots: tuple[Held, ...]) -> Turned | None:
    """Return what turns the pieces of spots that are to be joined, if anything does.

    Raises:
        InputError: They move, or are turned, against each other.
    """
    first = spots[0].host
    for one in spots[1:]:
        if one.host.carrier != first.carrier:
            raise InputError("spots", f"the {first.name} and the {one.host.name} move against each other")
    groups = [
        next((step for step in structure.steps if isinstance(step, Turned) and step.holds(one.host.name)), None)
        for one in spots
    ]
    if any(one is not groups[0] for one in groups):
        raise InputError("spots", "one spot is turned against the other")
    return groups[0]


def apart(structure: Structure, spots: tuple[Held, ...]) -> None:
    """Check that neither of two spots that move against each other is on what is turned.

    Raises:
        InputError: One is.
    """
    for one in spots:
        if any(isinstance(step, Turned) and step.holds(one.host.name) for step in structure.steps):
            raise InputError("spots", f"the {one.host.name} is turned with its arm; a drag chain follows one axis")


def mirrored(structure: Structure, spots: tuple[Held, ...]) -> tuple[Held, ...]:
    """Return spots with left and right exchanged.

    Raises:
        InputError: A piece has no likeness on the other side.
    """
    return tuple(_mirrored(structure, one) for one in spots)


def _mirrored(structure: Structure, one: Held) -> Held:
    host = one.host
    ends = (_flipped(host.start), _flipped(host.end))
    for other in structure.pieces.values():
        if not isinstance(other, type(host)) or other.carrier != host.carrier:
            continue
        straight = max(dist(other.start, ends[0]), dist(other.end, ends[1]))
        back = max(dist(other.start, ends[1]), dist(other.end, ends[0]))
        if min(straight, back) < SAME and _within(other, _flipped(one.at.place)):
            return Held(other, Place(other.name, _flipped(one.at.place), _flipped(one.at.normal)))
    raise InputError("mirrored", f"the {host.name} has no likeness on the other side")


def _within(piece: Host, place: Vector) -> bool:
    """Return whether a place lies on a piece or in it."""
    off = minus(place, piece.start)
    along = dot(off, piece.along)
    rest = minus(off, scaled(piece.along, along))
    return -SAME <= along <= piece.length + SAME and dist(rest, (0.0, 0.0, 0.0)) <= piece.height + piece.width


def _flipped(v: Vector) -> Vector:
    return (-v[0], v[1], v[2])


def middle_of(places: tuple[Vector, ...]) -> Vector:
    """Return the middle of places."""
    total: Vector = (0.0, 0.0, 0.0)
    for one in places:
        total = plus(total, one, 1 / len(places))
    return total
