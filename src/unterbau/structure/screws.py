"""Screws of a structure whose heads one has to reach: of rails, blocks, base plates, panels, beds."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import singledispatch
from math import dist

from unterbau.catalogue.guides import block
from unterbau.structure.blocks import shelf_of
from unterbau.structure.carrier import Carrier
from unterbau.structure.join import BasePlateJoin, Join
from unterbau.structure.looks import RAIL_HEIGHT
from unterbau.structure.motion import Blocks, Rail
from unterbau.structure.piece import Bar, PlatePiece
from unterbau.structure.structure import Step, Structure, Turned
from unterbau.structure.vectors import ZERO, Vector, X, Y, Z, cross, dot, plus, scaled

INSET = 0.02
"""From a rail's end to its first screw at the least, m; common practice, no source."""
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
        yield Screw(one.name, name, head, one.up, _ways(one.carrier), (one.name,), into=one.host)


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
