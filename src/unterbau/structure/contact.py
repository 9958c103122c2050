"""Do the parts of a machine touch where they are fastened? Distances between pieces, rails, blocks and joints."""

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass
from itertools import product
from math import dist, hypot, inf

from unterbau.catalogue.guides import block
from unterbau.structure.blocks import shelf_of
from unterbau.structure.join import BasePlateJoin, EndJoin, Join
from unterbau.structure.motion import Blocks, Rail
from unterbau.structure.parts import Place
from unterbau.structure.piece import Bar, PlatePiece, Point, Rod
from unterbau.structure.structure import Piece, Structure
from unterbau.structure.vectors import Vector, cross, dot, minus, plus

TOUCHING = 0.5e-3
"""Parts nearer than this touch, m."""
PROJECTIONS = 200
"""Projections from one body onto the other and back, at most, until their distance stands still."""
STILL = 1e-7
SQUARE = 1.0 - 1e-6
"""Cosine of an angle that counts as none."""
ASKEW = 0.03
"""Share of its width by which the mitred end of a brace reaches further than its square end would."""
ENDS = tuple(Place(*place) for place in product((0.0, 1.0), repeat=3))


@dataclass(frozen=True, slots=True)
class Gap:
    """Two things that are to be fastened to each other and do not touch."""

    key: str
    """Load-path element that fastens them."""
    what: str
    """What does not reach, in words."""
    to: str
    """Name of the piece that it is to touch."""
    distance: float
    """m."""


def repeated_names(structure: Structure) -> tuple[str, ...]:
    """Return the names that more than one piece has."""
    names = Counter(step.name for step in structure.flat if isinstance(step, Piece))
    return tuple(name for name, count in names.items() if count > 1)


def gaps(structure: Structure, least: float = TOUCHING) -> tuple[Gap, ...]:
    """Return what does not touch where it is fastened, over the whole travel; the widest gap of a kind once.

    Args:
        structure: The machine.
        least: Gaps up to this are none, m.
    """
    widest: dict[tuple[str, str, str], Gap] = {}
    for gap in (*_of_rails(structure), *_of_blocks(structure), *_of_joints(structure)):
        known = widest.get((gap.key, gap.what, gap.to))
        if gap.distance > least and (known is None or gap.distance > known.distance):
            widest[gap.key, gap.what, gap.to] = gap
    return tuple(widest.values())


def _of_rails(structure: Structure) -> Iterator[Gap]:
    for rail in structure.flat:
        if isinstance(rail, Rail):
            host = structure.pieces[rail.host]
            for end in (rail.start, rail.end):
                yield Gap(rail.key, "a rail", rail.host, dist(end, nearest(host, end)))


def _of_blocks(structure: Structure) -> Iterator[Gap]:
    rails = [step for step in structure.flat if isinstance(step, Rail)]
    ways = [structure.way(place) for place in ENDS]
    for blocks in structure.flat:
        if not isinstance(blocks, Blocks):
            continue
        plate, height = structure.pieces[blocks.plate], block(blocks.guide.block).height
        for host, seat in blocks.seats:
            mine = [rail for rail in rails if (rail.key, rail.host) == (blocks.key, host)]
            for way in ways:
                at = blocks.carrier.moved(seat, way)
                off = min((_from_rail(rail, at, way) for rail in mine), default=inf)
                yield Gap(blocks.key, "a block", f"its rail on {host}", off)
            if shelf_of(structure, blocks, seat) is None:
                top = plus(seat, blocks.up, height)
                yield Gap(blocks.key, "a block", blocks.plate, dist(top, nearest(plate, top)))


def _from_rail(rail: Rail, place: Vector, way: Vector) -> float:
    start, end = (rail.carrier.moved(one, way) for one in (rail.start, rail.end))
    line, length = minus(end, start), dist(start, end)
    along = dot(minus(place, start), line) / length
    return dist(place, plus(start, line, min(max(along, 0.0), length) / length))


def _of_joints(structure: Structure) -> Iterator[Gap]:
    pieces = structure.pieces
    for step in structure.flat:
        if isinstance(step, Join):
            for spot in (step.a, step.b):
                if spot is not None:
                    piece = pieces[spot.piece]
                    yield Gap(step.key, "a joint", spot.piece, dist(spot.place, nearest(piece, spot.place)))
            if step.b is not None:
                apart = _apart(pieces[step.a.piece], pieces[step.b.piece], step.a.place)
                yield Gap(step.key, step.a.piece, step.b.piece, max(0.0, apart - step.reach))
        elif isinstance(step, EndJoin | BasePlateJoin):
            bar, host = pieces[step.bar], pieces[step.host]
            if isinstance(bar, Bar):
                end = bar.end if step.last else bar.start
                apart = _end_from(bar, end, host) - _cut_askew(bar, host)
                yield Gap(step.key, f"the end of {step.bar}", step.host, max(0.0, apart))


def _cut_askew(bar: Bar, host: Piece) -> float:
    """Return how much nearer the cut end of a bar comes than its square end where it runs askew to its host, m."""
    if not isinstance(host, Bar | PlatePiece):
        return 0.0
    axes = (host.along, host.up, cross(host.up, host.along))
    square = max(abs(dot(bar.along, axis)) for axis in axes) > SQUARE
    return 0.0 if square else ASKEW * max(bar.height, bar.width)


def _end_from(bar: Bar, end: Vector, host: Piece) -> float:
    """Return the distance from the end face of a bar to a piece."""
    across = cross(bar.up, bar.along)

    def on_face(place: Vector) -> Vector:
        off = minus(place, end)
        right = _within(dot(off, across), bar.width / 2)
        high = _within(dot(off, bar.up), bar.height / 2)
        return plus(plus(end, across, right), bar.up, high)

    place = end
    for _ in range(PROJECTIONS):
        before, place = place, on_face(nearest(host, place))
        if dist(before, place) < STILL:
            break
    return dist(place, nearest(host, place))


def _apart(a: Piece, b: Piece, start: Vector) -> float:
    """Return the distance between two convex pieces, by projecting from one onto the other until it stands still."""
    if isinstance(a, Point) or isinstance(b, Point):
        return 0.0
    place = start
    for _ in range(PROJECTIONS):
        before, place = place, nearest(a, nearest(b, place))
        if dist(before, place) < STILL:
            break
    return dist(place, nearest(b, place))


def nearest(piece: Piece, place: Vector) -> Vector:
    """Return the point of a piece's body that is nearest to a place; bars as their outlines' rectangles."""
    match piece:
        case Point():
            return place
        case Rod():
            off = minus(place, piece.start)
            along = dot(off, piece.along)
            radial = minus(off, plus((0.0, 0.0, 0.0), piece.along, along))
            out = hypot(*radial)
            axis = plus(piece.start, piece.along, min(max(along, 0.0), piece.length))
            return plus(axis, radial, min(1.0, piece.diameter / 2 / out) if out else 0.0)
        case Bar() | PlatePiece():
            across, off = cross(piece.up, piece.along), minus(place, piece.start)
            found = plus(piece.start, piece.along, min(max(dot(off, piece.along), 0.0), piece.length))
            found = plus(found, across, _within(dot(off, across), piece.width / 2))
            return plus(found, piece.up, _within(dot(off, piece.up), piece.height / 2))


def _within(value: float, half: float) -> float:
    return min(max(value, -half), half)
