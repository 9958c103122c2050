"""Screws of a structure whose heads one has to reach: of rails, blocks, base plates, panels, beds."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import singledispatch
from math import dist

from unterbau.catalogue.guides import block
from unterbau.catalogue.joints import BOLTS, Face, joint, pattern, usual_across
from unterbau.catalogue.screws import screw_size
from unterbau.sections.section import section
from unterbau.structure.blocks import shelf_of
from unterbau.structure.carrier import Carrier
from unterbau.structure.ends import is_square, sawn
from unterbau.structure.join import BasePlateJoin, EndJoin, Join
from unterbau.structure.motion import RAIL_HEIGHT, Blocks, Rail
from unterbau.structure.parts import Joint
from unterbau.structure.piece import Bar, PlatePiece
from unterbau.structure.spot import Spot
from unterbau.structure.structure import Step, Structure, Turned
from unterbau.structure.vectors import ZERO, Vector, X, Y, Z, cross, dot, minus, plus, scaled
from unterbau.structure.wares import SLOTTED
from unterbau.structure.weights import wall_of

INSET = 0.02
"""From a rail's end to its first screw at the least, m; common practice, no source."""
END_TAPPED, TAPPED = "end-tapped", "M8"
"""Kind of a joint that is screwed into the end of a bar, and its screw."""
FOUR = ("epoxied", "flange")
"""Kinds of joint with four screws into the end of a bar, into a plug where it is hollow."""
LONG = 0.1
"""Through a thicker bar no screw goes into another's end: its flange is screwed to the wall, by eye, m."""
EVERY = 0.1
"""A bond line along an edge has a screw each so far, m; common practice, no source."""
SMALL, SMALL_SCREW = 0.05, "M6"
"""A face with a side shorter than this takes the smaller screw, m; common practice, no source."""
EDGE = 1.5
"""From a bolt to the edge of a face where none is told, in diameters; common practice, no source."""
FLAT = 0.9
"""Of the cosine between a bar and what is square to its neighbour: less, and a screw would meet an edge."""
USUAL = "M6"
"""A screw whose joint does not say its size."""
SIZES = {"bolt": "M8", "bolted-plate": "M8", "wood-screw": "M5"}
"""Screws of the joints that say them."""
SEAMLESS = ("weld",)
"""Kinds of joint without screws."""


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
    seen_with: tuple[str, str] = ("", "")
    """Link, and what of the built frame its head is seen with; nothing where it is seen elsewhere."""


def screws_of(structure: Structure) -> tuple[Screw, ...]:
    """Return the screws that are to be reached, as the machine is laid out."""
    return tuple(_all(structure, structure.steps))


def straight_screws(structure: Structure) -> tuple[Screw, ...]:
    """Return the same screws in the same order, where they are before anything is turned: as pieces are drilled."""
    return tuple(screw for step in structure.flat for screw in _screws(step, structure))


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


def _seen(piece: object, place: Vector) -> str:
    """Return the chain of the built frame that a head at a place of a piece moves with."""
    if isinstance(piece, PlatePiece) and piece.xs and piece.ys:
        away = minus(place, piece.corner)
        x, y = dot(away, piece.along), dot(away, piece.across)
        i = min(range(len(piece.xs)), key=lambda n: abs(piece.xs[n] - x))
        j = min(range(len(piece.ys)), key=lambda n: abs(piece.ys[n] - y))
        return f"{piece.name} {i},{j}"
    return piece.name if isinstance(piece, Bar) else ""


@singledispatch
def _screws(_step: object, _structure: Structure) -> Iterator[Screw]:
    yield from ()


@_screws.register
def _rail(one: Rail, structure: Structure) -> Iterator[Screw]:
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
        yield Screw(
            one.name, name, head, one.up, _ways(one.carrier), (one.name,), into=one.host, rail=tall,
            seen_with=(one.key, _seen(structure.pieces[one.host], foot)),
        )  # fmt: skip


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
                    seen_with=(plate.key, _seen(plate, head)),
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
            one.plate.name, one.host, seen_with=(one.key, _seen(structure.pieces[one.host], head)),
        )  # fmt: skip


@_screws.register
def _join(one: Join, structure: Structure) -> Iterator[Screw]:
    if one.joint.kind in SEAMLESS:
        return
    size = one.joint.group.size if one.joint.bolts is not None else SIZES.get(one.joint.kind, USUAL)
    if one.head is not None:
        below = "" if one.b is None else one.b.piece
        yield Screw(
            "bed", size, one.head, Z, _ways(one.carrier), (one.a.piece, below), one.a.piece, below,
            seen_with=(one.key, one.screw),
        )  # fmt: skip
        return
    plate = structure.pieces.get(one.a.piece)
    if one.wall is None and one.b is not None and isinstance(plate, PlatePiece):
        yield from _into_edge(one, plate, one.b, str(size), structure)
    if one.wall is not None and one.b is not None and isinstance(plate, PlatePiece):
        head = plus(plate.under(one.b.place), one.wall, plate.height / 2)
        yield Screw(
            plate.name, size, head, one.wall, _ways(one.carrier), (plate.name, one.b.piece), plate.name, one.b.piece,
            seen_with=(plate.key, _seen(plate, head)),
        )  # fmt: skip


def _into_edge(one: Join, plate: PlatePiece, below: Spot, size: str, structure: Structure) -> Iterator[Screw]:
    """Yield the screws that go through a bar or a plate into the edge of a plate that stands on it."""
    host = structure.pieces.get(below.piece)
    if not isinstance(host, Bar | PlatePiece) or plate.height < 2 * screw_size(size).d:
        return
    faces = [(host.up, host.height)]
    if isinstance(host, Bar):
        faces.append((cross(host.up, host.along), host.width))
    away = minus(below.place, plate.corner)
    for way, beyond, length in (
        (plate.along, dot(away, plate.along), plate.length), (plate.across, dot(away, plate.across), plate.width),
    ):  # fmt: skip
        if 0.0 <= beyond <= length:
            continue
        out = scaled(way, -1.0 if beyond < 0.0 else 1.0)
        deep = next((d for w, d in faces if abs(dot(w, out)) > FLAT), None)
        off = dot(away, plate.up)
        if deep is None or abs(off) > plate.height / 2 - screw_size(size).d:
            return
        head = plus(below.place, out, deep / 2)
        for aside, onwards in _over_edge(one, size):
            place = plus(plus(head, plate.up, aside), one.up, onwards)
            yield Screw(
                f"{plate.name} on {host.name}", size, place, out, _ways(one.carrier),
                (host.name, plate.name), host.name, plate.name, seen_with=(one.key, _seen(host, head)),
            )  # fmt: skip
        return


def _over_edge(one: Join, size: str) -> tuple[tuple[float, float], ...]:
    """Return where screws stand over an edge, from its middle: across it and along it, m."""
    if one.joint.kind in FOUR:
        places = pattern(max(1, round(one.face.height / EVERY)), one.face, 1, EDGE * screw_size(size).d)
        return tuple((0.0, z) for _, z in places)
    many = one.joint.group.across if one.joint.kind == BOLTS else 1
    room = max(0.0, one.face.width / 2 - EDGE * screw_size(size).d)
    return tuple((room * (2 * n / (many - 1) - 1), 0.0) for n in range(many)) if many > 1 else ((0.0, 0.0),)


@_screws.register
def _end(one: EndJoin, structure: Structure) -> Iterator[Screw]:
    """Yield the screws that go through a neighbour into a bar's end; brackets and plates beside it are set by eye."""
    bar, host = structure.pieces[one.bar], structure.pieces[one.host]
    if not isinstance(bar, Bar) or not isinstance(host, Bar | PlatePiece) or one.joint.play:
        return
    tapped = one.joint.kind in (END_TAPPED, *FOUR) or (one.joint.kind == BOLTS and not one.joint.group.leg)
    as_cut = sawn(structure)[bar.name]
    cut, end = (as_cut.last, as_cut.end) if one.last else (as_cut.first, as_cut.start)
    if not tapped or not is_square(bar, cut) or not cut.against:
        return
    out = scaled(bar.along, 1.0 if one.last else -1.0)
    ways = [(host.up, host.height)]
    if isinstance(host, Bar):
        ways.append((cross(host.up, host.along), host.width))
    through = next((deep for way, deep in ways if abs(dot(way, out)) > FLAT), None)
    if through is None or (one.joint.kind in FOUR and isinstance(host, Bar) and through > LONG):
        return
    side = cross(bar.up, bar.along)
    size, places = _end_screws(bar, one.joint)
    for y, z in places:
        foot = plus(plus(end, side, y), bar.up, z)
        head = plus(foot, out, through)
        yield Screw(
            f"{bar.name} on {host.name}", size, head, out, _ways(one.carrier), (bar.name, host.name), host.name,
            bar.name, seen_with=(one.key, _seen(host, head)),
        )  # fmt: skip


def _end_screws(bar: Bar, chosen: Joint) -> tuple[str, tuple[tuple[float, float], ...]]:
    """Return the size of the screws into a bar's end, and where they are from its middle, across and up, m."""
    face = Face(bar.height, bar.width)
    if chosen.kind == BOLTS:
        group = chosen.group
        edge = group.edge or EDGE * screw_size(group.size).d
        return str(group.size), pattern(group.across * group.along, face, group.across, edge)
    if chosen.kind in FOUR:
        size = TAPPED if min(bar.height, bar.width) >= SMALL else SMALL_SCREW
        d, wall = screw_size(size).d, wall_of(bar.part) if hollow(bar) else 0.0
        return size, pattern(4, face, 2, wall + EDGE * d)
    return TAPPED, pattern(
        chosen.count, face, chosen.across or usual_across(chosen.count), chosen.edge or joint(END_TAPPED).edge
    )


def hollow(bar: Bar) -> bool:
    """Return whether a bar's end has nothing to cut a thread into: a tube that is not filled with what holds one."""
    shape = section(bar.part.section)
    return shape.cavity is not None and not bar.part.section_name.startswith(SLOTTED)
