"""The spots that every piece of a machine offers to changes, in words and where they are seen."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import lru_cache

from unterbau.structure.footing import Face, Footing
from unterbau.structure.parts import Place
from unterbau.structure.piece import Bar, PlatePiece
from unterbau.structure.spots import length_of, looks, stands
from unterbau.structure.structure import Structure, Turned
from unterbau.structure.vectors import Vector, dot, minus, plus

Host = Bar | PlatePiece
ALONG = {0.0: "start", 0.25: "a quarter along", 0.5: "middle", 0.75: "three quarters along", 1.0: "end"}
THIRDS = (0.0, 0.5, 1.0)


@dataclass(frozen=True, slots=True)
class Offered:
    """A spot that one can choose."""

    footing: Footing
    place: Vector
    """Where it is seen, with the head at a place, m."""
    words: str


@lru_cache(maxsize=32)
def offered(structure: Structure, place: Place) -> tuple[Offered, ...]:
    """Return the spots of all bars and plates: quarters of bars' faces, their ends, a plate's corners and middles."""
    footings = (footing for piece in hosts(structure) for footing in _footings(piece))
    return tuple(Offered(one, seen(structure, one, place), words_of(one)) for one in footings)


def hosts(structure: Structure) -> tuple[Host, ...]:
    """Return the pieces that something can be fastened to."""
    return tuple(one for one in structure.pieces.values() if isinstance(one, Bar | PlatePiece) and not _half(one))


def faces_of(structure: Structure, name: str) -> tuple[Face, ...]:
    """Return the faces and ends of a piece, and its axis; none where it is not there."""
    piece = structure.pieces.get(name)
    if not isinstance(piece, Bar | PlatePiece):
        return ()
    ends: tuple[Face, ...] = ("start", "end", "axis") if isinstance(piece, Bar) else ("start", "end")
    return (*looks(piece), *ends)


def seen(structure: Structure, footing: Footing, place: Place) -> Vector:
    """Return where a spot is with the head at a place, m.

    Raises:
        InputError: It is not there.
    """
    found = stands(structure, footing)
    piece = structure.pieces[footing.piece]
    moved = piece.carrier.moved(found.place, structure.way(place))
    for step in structure.steps:
        if isinstance(step, Turned) and step.holds(footing.piece):
            return step.place(moved)
    return moved


def along_of(structure: Structure, footing: Footing) -> float:
    """Return how far along its piece a spot is, m from its start."""
    length = length_of(structure, footing)
    return {
        "share": footing.along * length, "start": footing.along, "end": length - footing.along
    }[footing.measured]  # fmt: skip


def measured_anew(structure: Structure, footing: Footing, measured: str, along: float) -> Footing:
    """Return a footing at a distance from its piece's start, told as a share or from one of its ends.

    Args:
        structure: The machine.
        footing: What it was.
        measured: `share`, `start` or `end`.
        along: From the piece's start, m; kept on the piece.
    """
    length = length_of(structure, footing)
    at = min(max(along, 0.0), length)
    if measured == "share" or not length:
        return replace(footing, along=at / length if length else 0.0, measured="share")
    return replace(footing, along=at, measured="start") if measured == "start" else replace(
        footing, along=length - at, measured="end"
    )  # fmt: skip


def moved_along(structure: Structure, footing: Footing, by: float) -> Footing:
    """Return a footing that is moved along its piece, m; told as before."""
    return measured_anew(structure, footing, footing.measured, along_of(structure, footing) + by)


def axis_seen(structure: Structure, footing: Footing, place: Place) -> Vector:
    """Return the way a piece runs at a spot, as it is seen; of unit length."""
    whole = measured_anew(structure, footing, "start", 0.0), measured_anew(structure, footing, "start", 1e9)
    start, end = (seen(structure, replace(one, face="axis"), place) for one in whole)
    line = minus(end, start)
    return plus((0.0, 0.0, 0.0), line, dot(line, line) ** -0.5)


def words_of(footing: Footing) -> str:
    """Return a spot in words."""
    if footing.face in ("start", "end"):
        return f"{footing.piece}, {footing.face}"
    along = ALONG.get(footing.along) if footing.measured == "share" else None
    told = along or (
        f"{footing.along:.0%} along" if footing.measured == "share"
        else f"{footing.along * 1e3:.0f} mm from its {footing.measured}"
    )  # fmt: skip
    aside = {0.0: ", one edge", 1.0: ", other edge"}.get(footing.across, "")
    face = "" if footing.face == "axis" else f", {footing.face}"
    return f"{footing.piece}{face}, {told}{aside}"


def _footings(piece: Host) -> Iterator[Footing]:
    if isinstance(piece, Bar):
        for face in looks(piece):
            for share in ALONG:
                yield Footing(piece.name, face, share)
        yield Footing(piece.name, "start")
        yield Footing(piece.name, "end")
        return
    for face in looks(piece):
        if is_large(piece, face):
            for along in THIRDS:
                for across in THIRDS:
                    yield Footing(piece.name, face, along, across)


def is_large(piece: PlatePiece, face: Face) -> bool:
    """Return whether a face is one of a plate's two large ones."""
    towards = {"left": 0, "right": 0, "front": 1, "back": 1, "bottom": 2, "top": 2}[face]
    return abs(piece.up[towards]) > 0.5


def _half(piece: Host) -> bool:
    return isinstance(piece, PlatePiece) and piece.halved
