"""Screws of a structure whose heads one has to reach: of rails, blocks, base plates, panels, beds."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import singledispatch
from math import dist

from unterbau.catalogue.guides import block
from unterbau.catalogue.joints import BOLTS, Face, joint, pattern, usual_across
from unterbau.catalogue.screws import screw_size
from unterbau.structure.blocks import shelf_of
from unterbau.structure.carrier import Carrier
from unterbau.structure.ends import is_square, sawn
from unterbau.structure.join import BasePlateJoin, EndJoin, Join
from unterbau.structure.looks import RAIL_HEIGHT
from unterbau.structure.motion import Blocks, Rail
from unterbau.structure.piece import Bar, PlatePiece
from unterbau.structure.structure import Step, Structure, Turned
from unterbau.structure.vectors import ZERO, Vector, X, Y, Z, cross, dot, plus, scaled

INSET = 0.02
"""From a rail's end to its first screw at the least, m; common practice, no source."""
END_TAPPED, TAPPED = "end-tapped", "M8"
"""Kind of a joint that is screwed into the end of a bar, and its screw."""
EDGE = 1.5
"""From a bolt to the edge of a face where none is told, in diameters; common practice, no source."""
FLAT = 0.9
"""Of the cosine between a bar and what is square to its neighbour: less, and a screw would meet an edge."""
USUAL = "M6"
"""A screw whose joint does not say its size."""


@dataclass(frozen=True, slots=True)
class Screw:
    """A screw in its place, as laid out and turned."""

    of: str
    """What it holds, in words; screws of one sort and place together."""
    size: str
    head: Vector
    """Middle of its head's bearing face."""
    out: Vector
    """The way it is taken out."""
    ways: tuple[Vector, Vector, Vector]
    """How far it goes per metre that each axis X, Y, Z goes."""
    on: tuple[str, ...]
    """Solids that it goes through; they do not hide it."""
    through: str = ""
    """Piece that it goes through."""
    into: str = ""
    """Piece that it is screwed into; nothing where that is bought with its thread."""
    rail: float = 0.0
    """Height of the rail that it goes through, m."""


def screws_of(structure: Structure) -> tuple[Screw, ...]:
    """Return the screws that are to be reached, as the machine is laid out."""
    return tuple(_all(structure, structure.steps))


def _all(structure: Structure, steps: tuple[Step, ...]) -> Iterator[Screw]:
    for step in steps:
        if isinstance(step, Turned):
            for one in _all(structure, step.steps):
                x, y, z = (step.way(way) for way in one.ways)
                yield replace(one, head=step.place(one.head), out=step.way(one.out), ways=(x, y, z))
            continue
        yield from _screws(step, structure)


def _ways(carrier: Carrier) -> tuple[Vector, Vector, Vector]:
    return carrier.moved(ZERO, X), carrier.moved(ZERO, Y), carrier.moved(ZERO, Z)


@singledispatch
def _screws(_step: object, _structure: Structure) -> Iterator[Screw]:
    yield from ()


@_screws.register
def _rail(one: Rail, _structure: Structure) -> Iterator[Screw]:
    size = block(one.guide.block)
    if size.rail_screws is None:
        return
    name, pitch = size.rail_screws
    length = dist(one.start, one.end)
    count = max(1, int((length - 2 * INSET) / pitch + 1e-9) + 1)
    first = (length - (count - 1) * pitch) / 2
    along = scaled(plus(one.end, one.start, -1.0), 1 / length)
    for number in range(count):
        foot = plus(one.start, along, first + number * pitch)
        head = plus(foot, one.up, RAIL_HEIGHT * size.height)
        tall = RAIL_HEIGHT * size.height
        yield Screw(one.name, name, head, one.up, _ways(one.carrier), (one.name,), into=one.host, rail=tall)


@_screws.register
def _blocks(one: Blocks, structure: Structure) -> Iterator[Screw]:
    size, plate = block(one.guide.block), structure.pieces[one.plate]
    if size.block_screws is None or not isinstance(plate, PlatePiece):
        return
    name, wide, long = size.block_screws
    across = cross(one.up, one.along)
    for number, (_, seat) in enumerate(one.seats, one.first):
        shelf = shelf_of(structure, one, seat)
        thick = plate.height if shelf is None else shelf.thickness
        if shelf is None and abs(dot(one.up, plate.up)) < 0.5:
            continue  # it stands on them with its edge: how it is held there is not settled
        top = plus(seat, one.up, size.height + thick)
        solid = f"{one.key} block {number}"
        for side in (-1, 1):
            for end in (-1, 1):
                head = plus(plus(top, across, side * wide / 2), one.along, end * long / 2)
                yield Screw(
                    f"{one.plate} on {one.key.replace('_', ' ')}", name, head, one.up, _ways(one.carrier),
                    (solid, one.plate, f"shelf to {solid}"), through=one.plate if shelf is None else "",
                )  # fmt: skip


@_screws.register
def _base_plate(one: BasePlateJoin, structure: Structure) -> Iterator[Screw]:
    bar = structure.pieces[one.bar]
    if not isinstance(bar, Bar):
        return
    out = scaled(bar.along, -1.0 if one.last else 1.0)
    for bolt in one.bolts:
        head = plus(bolt, out, one.plate.height)
        yield Screw(
            one.plate.name, one.joint.group.size, head, out, _ways(one.carrier), (one.plate.name, one.host),
            one.plate.name, one.host,
        )  # fmt: skip


@_screws.register
def _join(one: Join, structure: Structure) -> Iterator[Screw]:
    size = one.joint.group.size if one.joint.bolts is not None else USUAL
    if one.head is not None:
        below = "" if one.b is None else one.b.piece
        yield Screw("bed", size, one.head, Z, _ways(one.carrier), (one.a.piece, below), one.a.piece, below)
        return
    plate = structure.pieces.get(one.a.piece)
    if one.wall is not None and one.b is not None and isinstance(plate, PlatePiece):
        head = plus(plate.under(one.b.place), one.wall, plate.height / 2)
        yield Screw(
            plate.name, size, head, one.wall, _ways(one.carrier), (plate.name, one.b.piece), plate.name, one.b.piece
        )


@_screws.register
def _end(one: EndJoin, structure: Structure) -> Iterator[Screw]:
    """Yield the screws that go through a neighbour into a bar's end; brackets and plates beside it are set by eye."""
    bar, host = structure.pieces[one.bar], structure.pieces[one.host]
    if not isinstance(bar, Bar) or not isinstance(host, Bar | PlatePiece) or one.joint.play:
        return
    tapped = one.joint.kind == END_TAPPED or (one.joint.kind == BOLTS and not one.joint.group.leg)
    as_cut = sawn(structure)[bar.name]
    cut, end = (as_cut.last, as_cut.end) if one.last else (as_cut.first, as_cut.start)
    if not tapped or not is_square(bar, cut) or not cut.against:
        return
    out = scaled(bar.along, 1.0 if one.last else -1.0)
    ways = [(host.up, host.height)]
    if isinstance(host, Bar):
        ways.append((cross(host.up, host.along), host.width))
    through = next((deep for way, deep in ways if abs(dot(way, out)) > FLAT), None)
    if through is None:
        return
    side, face = cross(bar.up, bar.along), Face(bar.height, bar.width)
    if one.joint.kind == BOLTS:
        group = one.joint.group
        size, edge = str(group.size), group.edge or EDGE * screw_size(group.size).d
        places = pattern(group.across * group.along, face, group.across, edge)
    else:
        count, kind = one.joint.count, joint(END_TAPPED)
        size, edge = TAPPED, one.joint.edge or kind.edge
        places = pattern(count, face, one.joint.across or usual_across(count), edge)
    for y, z in places:
        foot = plus(plus(end, side, y), bar.up, z)
        head = plus(foot, out, through)
        yield Screw(
            f"{bar.name} on {host.name}", size, head, out, _ways(one.carrier), (bar.name, host.name), host.name,
            bar.name,
        )  # fmt: skip
