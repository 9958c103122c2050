"""What is seen of every step of a structure, with the head at a place."""

from collections.abc import Iterator
from dataclasses import replace
from functools import singledispatch

from unterbau.catalogue.guides import block
from unterbau.catalogue.screws import screw_size
from unterbau.structure.blocks import shelf_of
from unterbau.structure.bodies import Body, Prism, Sheet, box_ring, round_ring
from unterbau.structure.carrier import Carrier
from unterbau.structure.drag_chain import ChainRun
from unterbau.structure.ends import sawn
from unterbau.structure.join import BasePlateJoin, Collar, Counterweight, EndJoin, GussetJoin, Payload, RibJoin
from unterbau.structure.motion import RAIL_HEIGHT, Blocks, DriveTrain, Rail, SpindleUnit, Ware
from unterbau.structure.parts import Place
from unterbau.structure.piece import Bar, PlatePiece, Rod
from unterbau.structure.screws import Screw, screws_of
from unterbau.structure.stand import stand_bodies
from unterbau.structure.structure import Step, Structure, Turned
from unterbau.structure.train import train_parts
from unterbau.structure.vectors import Vector, Y, Z, cross, plus, scaled
from unterbau.structure.weights import member_rings

COLLAR = 0.012
SEAM = 0.0015
"""Between plates side by side, as it is seen, m."""
HEAD, DISC = 8, 4e-4
"""Corners of a screw's head as drawn, and how thick one that is sunk is seen, m."""
CLAMP = 0.03  # half the height of the spindle clamp
NOSE = 0.012
Found = Iterator[Body]


def looks(
    structure: Structure, place: Place, screws: bool = False, sunk: frozenset[Screw] = frozenset()
) -> tuple[Body, ...]:
    """Return what is drawn of a machine with its head at a place; heads of screws where wanted, sunk ones as discs."""
    way = structure.way(place)
    found = [*_seen(structure, structure.steps, way), *(_heads(structure, way, sunk) if screws else ())]
    if structure.feet and structure.stand is not None:
        names, places = zip(*structure.feet, strict=True)
        found += stand_bodies(structure.stand, list(places), list(names))
    return tuple(found)


def _seen(structure: Structure, steps: tuple[Step, ...], way: Vector) -> Found:
    for step in steps:
        if isinstance(step, Turned):
            for body in _seen(structure, step.steps, way):
                yield _turned(body, step)
            continue
        if isinstance(step, DriveTrain):
            for part in train_parts(step, structure):
                body = Prism(part.key, part.drawn_with, part.start, part.end, part.up, (part.ring,))
                yield _moved(body, part.carrier, way)
            continue
        if isinstance(step, ChainRun):
            yield from step.seen(way)
            continue
        for body in _look(step, structure):
            yield _moved(body, step.carrier, way)


def _heads(structure: Structure, way: Vector, sunk: frozenset[Screw]) -> Found:
    """Yield the heads of screws; those of rails lie in them and are seen as a disc."""
    for one in screws_of(structure):
        key, piece = one.seen_with
        if not piece:
            continue
        size, head = screw_size(one.size), one.head
        for move, how_far in zip(one.ways, way, strict=True):
            head = plus(head, move, how_far)
        top = plus(head, one.out, DISC if one.rail or one in sunk else size.d)
        yield Prism(key, piece, head, top, Y if abs(one.out[1]) < 0.5 else Z, (round_ring(size.head, HEAD),))


def _moved(body: Body, carrier: Carrier, way: Vector) -> Body:
    if isinstance(body, Prism):
        return replace(body, start=carrier.moved(body.start, way), end=carrier.moved(body.end, way))
    return replace(body, corner=carrier.moved(body.corner, way))


def _turned(body: Body, turn: Turned) -> Body:
    if isinstance(body, Prism):
        return replace(body, start=turn.place(body.start), end=turn.place(body.end), up=turn.way(body.up))
    return replace(
        body, corner=turn.place(body.corner), along=turn.way(body.along), across=turn.way(body.across),
        normal=turn.way(body.normal),
    )  # fmt: skip


@singledispatch
def _look(_step: object, _structure: Structure) -> Found:
    yield from ()


@_look.register
def _bar(one: Bar, structure: Structure) -> Found:
    rings, as_cut = member_rings(one.part), sawn(structure)[one.name]
    yield Prism(one.key, one.name, as_cut.start, as_cut.end, one.up, rings[:1] if one.part.fill else rings)


@_look.register
def _plate(one: PlatePiece, _structure: Structure) -> Found:
    half = one.height / 2
    yield Sheet(one.key, one.name, one.corner, one.along, one.across, one.up, one.xs, one.ys, -half, half)
    for n in range(1, one.strips):
        x, level = one.length * n / one.strips, scaled(one.up, half)
        near = min(range(len(one.xs)), key=lambda i, x=x: abs(one.xs[i] - x))  # type: ignore[misc]
        ends = (plus(one.at(x, 0.0), level), plus(one.at(x, one.width), level))
        yield Prism(one.key, f"{one.name} {near},{len(one.ys) // 2}", *ends, one.up, (box_ring(SEAM, DISC),))


@_look.register
def _rib(one: RibJoin, structure: Structure) -> Found:
    return _plate(one.rib, structure)


@_look.register
def _base_plate(one: BasePlateJoin, structure: Structure) -> Found:
    return _plate(one.standing, structure)


@_look.register
def _gusset(one: GussetJoin, _structure: Structure) -> Found:
    leg, normal = one.joint.gusset_leg, cross(one.away, one.side)
    low, high = (plus(one.corner, normal, s * one.joint.gusset_thickness / 2) for s in (-1, 1))
    yield Prism(one.key, one.plate.name, low, high, one.side, (((0.0, 0.0), (leg, 0.0), (0.0, leg)),))


@_look.register
def _rod(one: Rod, _structure: Structure) -> Found:
    ring = round_ring(max(one.diameter, 0.003), 16)
    yield Prism(one.key, one.name, one.start, one.end, Z, (ring,))


def _collar(structure: Structure, key: str, name: str, last: bool) -> Found:
    piece = structure.pieces[name]
    if not isinstance(piece, Bar | PlatePiece):
        raise TypeError(f"{name} has no collar")
    ring = box_ring(piece.width + 0.016, piece.height + 0.016)
    place = plus(piece.end, piece.along, -COLLAR) if last else piece.start
    yield Prism(key, name, place, plus(place, piece.along, COLLAR), piece.up, (ring,))


@_look.register
def _end(one: EndJoin, structure: Structure) -> Found:
    return _collar(structure, one.key, one.bar, one.last)


@_look.register
def _around(one: Collar, structure: Structure) -> Found:
    return _collar(structure, one.key, one.piece, one.last)


@_look.register
def _rail(one: Rail, _structure: Structure) -> Found:
    size = block(one.guide.block)
    tall = RAIL_HEIGHT * size.height
    ends = plus(one.start, one.up, tall / 2), plus(one.end, one.up, tall / 2)
    yield Prism(one.key, one.host, *ends, one.up, (box_ring(size.rail_width, tall),))


@_look.register
def _blocks(one: Blocks, structure: Structure) -> Found:
    size = block(one.guide.block)
    ring, half = box_ring(size.width, 0.7 * size.height), size.length / 2
    plate = structure.pieces[one.plate]
    for _, seat in one.seats:
        shelf = shelf_of(structure, one, seat)
        if shelf is not None and isinstance(plate, PlatePiece):
            rings = (box_ring(shelf.width, shelf.thickness),)
            yield Prism(plate.key, one.plate, shelf.start, shelf.end, shelf.normal, rings)
        middle = plus(seat, one.up, 0.65 * size.height)
        ends = plus(middle, one.along, -half), plus(middle, one.along, half)
        yield Prism(one.key, one.plate, *ends, one.up, (ring,))


@_look.register
def _spindle(one: SpindleUnit, structure: Structure) -> Found:
    s, c, plate, x, y = one.spindle, one.cutter, structure.pieces[one.plate], one.x, one.y
    if not isinstance(plate, PlatePiece):
        raise TypeError(f"{one.plate} is no plate")
    depth = plate.start[1] - plate.height / 2 - y
    ring = box_ring(s.diameter + 0.016, depth + 0.004)
    ends = ((x, y + depth / 2, one.clamp_z - 0.025), (x, y + depth / 2, one.clamp_z + 0.025))
    yield Prism("spindle_mount", plate.name, *ends, Y, (ring,))
    nose = one.nose_z
    yield Prism("spindle", "spindle", (x, y, nose), (x, y, nose + s.length), Y, (round_ring(s.diameter),))
    yield Prism("spindle", "spindle", (x, y, nose - NOSE), (x, y, nose), Y, (round_ring(0.4 * s.diameter),))
    if nose - NOSE - one.tip_z > 1e-4:
        thin = (round_ring(max(c.diameter, 0.003), 10),)
        yield Prism("cutter", "cutter", (x, y, one.tip_z), (x, y, nose - NOSE), Y, thin)


@_look.register
def _payload(one: Payload, _structure: Structure) -> Found:
    half = one.side / 2
    x, y, z = one.at.place
    yield Prism("spindle", "spindle", (x, y, z - 2 * half), (x, y, z), Y, (box_ring(2 * half, 2 * half),))


@_look.register
def _counterweight(one: Counterweight, _structure: Structure) -> Found:
    x, y, z = one.middle
    wide, deep, tall = one.size
    ends = (x, y, z - tall / 2), (x, y, z + tall / 2)
    yield Prism(one.key, one.pulley.piece, *ends, Y, (box_ring(wide, deep),))


@_look.register
def _ware(one: Ware, _structure: Structure) -> Found:
    if one.look is not None:
        yield one.look
