"""Holes of pieces, from the screws that go through them and into them: what a bolt joins has its hole in one line."""

from dataclasses import dataclass, replace

from unterbau.catalogue.screws import screw_size
from unterbau.sections.section import section
from unterbau.shop.substrate import PILOT, Sort, seat
from unterbau.solids.heads import sink
from unterbau.structure.ends import Sawn
from unterbau.structure.piece import Bar, PlatePiece
from unterbau.structure.screws import Screw, hollow
from unterbau.structure.vectors import Vector, cross, dot, minus, plus
from unterbau.structure.wares import SLOTTED
from unterbau.structure.weights import wall_of

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
    `back`, and their edges: `low edge`, `high edge` along them, `first edge`, `last edge` across."""
    x: float
    """Along the piece from its first end as cut, along an edge from its corner; in an end from its middle, m."""
    y: float
    """Across: of plates from the edge, of bars' faces and plates' edges from the middle, m."""
    sort: Sort
    screw: str
    """Size of the screw, as M6."""
    diameter: float
    """Drilled, m; nothing where a nut lies in a slot."""
    depth: float
    of: str
    """What the screw holds."""
    sunk: float = 0.0
    """How deep the screw's head lies in the piece, m."""

    @property
    def bore(self) -> float:
        """Diameter of the counterbore for a head that is sunk, m."""
        return screw_size(self.screw).counterbore if self.sunk else 0.0

    def key(self) -> tuple[object, ...]:
        """Return what makes two holes alike; drilled right through, a plate's back is its face."""
        through = self.face == "back" and self.sort == "clearance" and not self.sunk
        return (
            "face" if through else self.face,
            round(self.x / EXACT),
            round(self.y / EXACT),
            self.sort,
            self.screw,
            bool(self.sunk),
        )


def plate_holes(plate: PlatePiece, screws: tuple[Screw, ...], sunk: frozenset[Screw] = frozenset()) -> tuple[Hole, ...]:
    """Return the holes of a plate, along it and across from its corner; some of the screws have their heads sunk."""
    found = []
    for screw in screws:
        sort = _sort(screw, plate.name)
        if sort is None:
            continue
        away = minus(screw.head, plate.corner)
        if abs(dot(screw.out, plate.up)) < 0.5:
            if sort == "tapped":
                found.append(_in_edge(plate, screw, away))
            continue
        if sort == "tapped":
            sort = seat(plate.material)
        face = "face" if dot(screw.out, plate.up) > 0 else "back"
        hole = _hole(screw, sort, face, dot(away, plate.along), dot(away, plate.across), plate.height)
        found.append(replace(hole, sunk=sink(screw)) if sort == "clearance" and screw in sunk else hole)
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
                held = "plug" if hollow(bar) else seat(bar.part.material, edge=True)
                found.append(_hole(screw, held, end, dot(away, side), dot(away, bar.up), deep))
            continue
        if sort == "tapped":
            sort = into_bar(bar, screw.size)
        upright = abs(dot(screw.out, bar.up)) >= abs(dot(screw.out, side))
        normal, across = (bar.up, side) if upright else (side, bar.up)
        names = ("up", "down") if upright else ("side", "other side")
        through = sort == "clearance"  # drilled right through, it is told once
        face = names[0] if through or dot(screw.out, normal) > 0 else names[1]
        found.append(_hole(screw, sort, face, dot(away, bar.along), dot(away, across), WALL))
    return _in_order(found)


def _in_edge(plate: PlatePiece, screw: Screw, away: Vector) -> Hole:
    along = dot(screw.out, plate.along)
    lengthwise = abs(along) < 0.5
    beyond = dot(screw.out, plate.across) if lengthwise else along
    names = ("high edge", "low edge") if lengthwise else ("last edge", "first edge")
    at = dot(away, plate.along if lengthwise else plate.across)
    deep = OF_END * screw_size(screw.size).d
    sort = seat(plate.material, edge=True)
    return _hole(screw, sort, names[0] if beyond > 0 else names[1], at, dot(away, plate.up), deep)


def into_bar(bar: Bar, screw: str) -> Sort:
    """Return what a screw finds in a bar's face: a slot, a thread, or an insert where the wall is thinner than it."""
    if bar.part.section_name.startswith(SLOTTED):
        return "slot nut"
    shape, solid = section(bar.part.section), seat(bar.part.material)
    if shape.cavity is None or solid != "tapped" or (bar.part.fill and not bar.part.loose):
        return solid
    return "tapped" if wall_of(bar.part) + bar.part.backing >= screw_size(screw).d - EXACT else "insert"


def place_of(piece: Bar | PlatePiece, cut: Sawn | None, hole: Hole) -> Vector:
    """Return where a hole's axis meets the middle of a piece, as the machine is laid out."""
    if isinstance(piece, PlatePiece):
        edges = {
            "low edge": (hole.x, 0.0), "high edge": (hole.x, piece.width), "first edge": (0.0, hole.x),
            "last edge": (piece.length, hole.x),
        }  # fmt: skip
        if hole.face in edges:
            return plus(piece.at(*edges[hole.face]), piece.up, hole.y)
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
    drilled: dict[Sort, float] = {
        "clearance": size.clearance, "tapped": size.tap, "plug": size.tap, "slot nut": 0.0,
        "wood screw": PILOT * size.d,
    }  # fmt: skip
    diameter = drilled.get(sort, size.insert)
    return Hole(face, x, y, sort, screw.size, diameter, depth, screw.of)


def _in_order(holes: list[Hole]) -> tuple[Hole, ...]:
    return tuple(sorted(holes, key=lambda one: (one.face, round(one.y, 6), round(one.x, 6))))
