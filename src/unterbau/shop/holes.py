"""Holes of pieces, from the screws that go through them and into them: what a bolt joins has its hole in one line."""

from dataclasses import dataclass
from typing import Literal

from unterbau.catalogue.screws import screw_size
from unterbau.sections.section import section
from unterbau.structure.ends import Sawn
from unterbau.structure.piece import Bar, PlatePiece
from unterbau.structure.screws import Screw
from unterbau.structure.vectors import Vector, cross, dot, minus, plus
from unterbau.structure.wares import SLOTTED
from unterbau.structure.weights import wall_of

Sort = Literal["clearance", "tapped", "slot nut", "insert"]
EXACT = 1e-6
WALL = 0.01
"""Depth that is counted of a hole in a bar's wall, at the most, m."""


OF_END = 2.5
"""Depth of a thread in the end of a bar, in diameters; common practice, no source."""


@dataclass(frozen=True, slots=True)
class Hole:
    """A hole in a piece, by the piece's own coordinates."""

    face: str
    """Of bars `up`, `down`, `side`, `other side` as the section lies, `first end`, `last end`; of plates `face` or
    `back`."""
    x: float
    """Along the piece from its first end as cut; in an end, across from its middle, m."""
    y: float
    """Across: of plates from the edge, of bars from the middle of the face, m."""
    sort: Sort
    screw: str
    """Size of the screw, as M6."""
    diameter: float
    """Drilled, m; nothing where a nut lies in a slot."""
    depth: float
    of: str
    """What the screw holds."""

    def key(self) -> tuple[object, ...]:
        """Return what makes two holes alike."""
        return (self.face, round(self.x / EXACT), round(self.y / EXACT), self.sort, self.screw)


def plate_holes(plate: PlatePiece, screws: tuple[Screw, ...]) -> tuple[Hole, ...]:
    """Return the holes of a plate, along it and across from its corner."""
    found = []
    for screw in screws:
        sort = _sort(screw, plate.name)
        if sort is None or abs(dot(screw.out, plate.up)) < 0.5:
            continue
        away = minus(screw.head, plate.corner)
        face = "face" if dot(screw.out, plate.up) > 0 else "back"
        found.append(_hole(screw, sort, face, dot(away, plate.along), dot(away, plate.across), plate.height))
    return _in_order(found)


def bar_holes(bar: Bar, cut: Sawn, screws: tuple[Screw, ...]) -> tuple[Hole, ...]:
    """Return the holes of a bar, along it from its first cut and across its faces."""
    found = []
    side = cross(bar.up, bar.along)
    for screw in screws:
        sort = _sort(screw, bar.name)
        if sort is None:
            continue
        away = minus(screw.head, cut.start)
        along = dot(screw.out, bar.along)
        if abs(along) > 0.5:
            if sort == "tapped":
                deep = OF_END * screw_size(screw.size).d
                end = "last end" if along > 0 else "first end"
                found.append(_hole(screw, sort, end, dot(away, side), dot(away, bar.up), deep))
            continue
        if sort == "tapped":
            sort = into_bar(bar, screw.size)
        upright = abs(dot(screw.out, bar.up)) >= abs(dot(screw.out, side))
        normal, across = (bar.up, side) if upright else (side, bar.up)
        names = ("up", "down") if upright else ("side", "other side")
        face = names[0] if dot(screw.out, normal) > 0 else names[1]
        found.append(_hole(screw, sort, face, dot(away, bar.along), dot(away, across), WALL))
    return _in_order(found)


def into_bar(bar: Bar, screw: str) -> Sort:
    """Return what a screw finds in a bar's face: a slot, a thread, or an insert where the wall is thinner than it."""
    if bar.part.section.startswith(SLOTTED):
        return "slot nut"
    shape = section(bar.part.section)
    if shape.cavity is None or (bar.part.fill and not bar.part.loose):
        return "tapped"
    return "tapped" if wall_of(bar.part) + bar.part.backing >= screw_size(screw).d - EXACT else "insert"


def place_of(piece: Bar | PlatePiece, cut: Sawn | None, hole: Hole) -> Vector:
    """Return where a hole's axis meets the middle of a piece, as the machine is laid out."""
    if isinstance(piece, PlatePiece):
        return piece.at(hole.x, hole.y)
    start = cut.start if cut is not None else piece.start
    if hole.face.endswith(" end"):
        end = start if cut is None or hole.face == "first end" else cut.end
        return plus(plus(end, cross(piece.up, piece.along), hole.x), piece.up, hole.y)
    across = cross(piece.up, piece.along) if hole.face in ("up", "down") else piece.up
    return plus(plus(start, piece.along, hole.x), across, hole.y)


def _sort(screw: Screw, name: str) -> Sort | None:
    if screw.through == name:
        return "clearance"
    return "tapped" if screw.into == name else None


def _hole(screw: Screw, sort: Sort, face: str, x: float, y: float, depth: float) -> Hole:
    size = screw_size(screw.size)
    diameter = {"clearance": size.clearance, "tapped": size.tap, "slot nut": 0.0, "insert": size.insert}[sort]
    return Hole(face, x, y, sort, screw.size, diameter, depth, screw.of)


def _in_order(holes: list[Hole]) -> tuple[Hole, ...]:
    return tuple(sorted(holes, key=lambda one: (one.face, round(one.y, 6), round(one.x, 6))))
