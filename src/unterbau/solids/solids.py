"""A structure as closed solids, with the head at a place."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from functools import lru_cache, partial, singledispatch

from unterbau.catalogue.guides import block
from unterbau.solids.convex import Convex, convex, shifted
from unterbau.structure.blocks import shelf_of
from unterbau.structure.bodies import Ring, box_ring, round_ring
from unterbau.structure.carrier import Carrier
from unterbau.structure.drag_chain import ChainRun
from unterbau.structure.ends import Cut, Sawn, sawn
from unterbau.structure.join import BasePlateJoin, Counterweight, GussetJoin, RibJoin
from unterbau.structure.motion import RAIL_HEIGHT, Blocks, DriveTrain, Rail, SpindleUnit, Ware
from unterbau.structure.parts import Place
from unterbau.structure.piece import Bar, PlatePiece, Point, Rod
from unterbau.structure.structure import Step, Structure, Turned
from unterbau.structure.train import train_parts
from unterbau.structure.vectors import ZERO, Vector, X, Y, Z, cross, dot, minus, plus, scaled
from unterbau.structure.weights import member_rings

CORNERS = 16
"""Of a circle as a polygon."""


@dataclass(frozen=True, slots=True)
class Solid:
    """One piece as a closed body; hollow ones count as full."""

    name: str
    key: str
    sort: str
    """What it is: bar, plate, rib, gusset, rod, rail, block, shelf, screw, motor, mount, bracket, coupling, bearing,
    nut, pulley, pinion, gearbox, spindle, cutter, weight, chain, head."""
    body: Convex
    carrier: Carrier
    made: bool
    """Whether it is cut from stock, else bought."""
    drive: str = ""
    """Of a drive's parts: which one's, with its number."""
    ways: tuple[Vector, Vector, Vector] = (ZERO, ZERO, ZERO)
    """How far it goes per metre that each axis X, Y, Z goes."""


Found = Iterator[Solid]


def solids(structure: Structure, place: Place) -> tuple[Solid, ...]:
    """Return all pieces as closed bodies, with the head at a place."""
    return tuple(_all(structure, structure.steps, structure.way(place)))


def solids_of(step: Step, structure: Structure) -> tuple[Solid, ...]:
    """Return the bodies of one step, as it is laid out straight."""
    return tuple(_solid(step, structure))


def placed(structure: Structure, place: Place) -> Iterator[tuple[Step, Callable[[Vector], Vector]]]:
    """Yield every step with the map from where it is laid out straight to where it is, the head at a place."""
    yield from _placed(structure.steps, structure.way(place))


def _placed(steps: tuple[Step, ...], way: Vector) -> Iterator[tuple[Step, Callable[[Vector], Vector]]]:
    for step in steps:
        if isinstance(step, Turned):
            for inner, put in _placed(step.steps, way):
                yield inner, partial(_after, put, step.place)
        else:
            yield step, partial(step.carrier.moved, way=way)


def _after(first: Callable[[Vector], Vector], then: Callable[[Vector], Vector], place: Vector) -> Vector:
    return then(first(place))


def _all(structure: Structure, steps: tuple[Step, ...], way: Vector) -> Found:
    for step in steps:
        if isinstance(step, Turned):
            for one in _all(structure, step.steps, way):
                x, y, z = (step.way(v) for v in one.ways)
                turned = replace(one, ways=(x, y, z))
                yield _changed(turned, [step.place(_vector(p)) for p in one.body.corners.tolist()])
            continue
        for one in _solid(step, structure):
            x, y, z = (one.carrier.moved(ZERO, axis) for axis in (X, Y, Z))
            yield replace(one, ways=(x, y, z), body=shifted(one.body, one.carrier.moved(ZERO, way)))


def _vector(p: list[float]) -> Vector:
    return (p[0], p[1], p[2])


def _changed(one: Solid, corners: list[Vector]) -> Solid:
    half = len(corners) // 2
    return replace(one, body=convex(corners[:half], corners[half:]))


@singledispatch
def _solid(_step: object, _structure: Structure) -> Found:
    yield from ()


@lru_cache(maxsize=2048)
def extruded(ring: Ring, start: Vector, end: Vector, up: Vector, cuts: tuple[Cut, Cut] | None = None) -> Convex:
    """Return a ring (y, z about an axis) drawn from start to end, its ends on planes that need not be square."""
    axis = minus(end, start)
    length = dot(axis, axis) ** 0.5
    along = scaled(axis, 1 / length)
    side = cross(up, along)
    ends = []
    for place, normal in ((start, cuts[0].normal if cuts else along), (end, cuts[1].normal if cuts else along)):
        flat = dot(along, normal)
        corners = []
        for y, z in ring:
            off = plus(scaled(side, y), up, z)
            corners.append(plus(plus(place, off), along, -dot(off, normal) / flat))
        ends.append(corners)
    return convex(ends[0], ends[1])


@_solid.register
def _bar(one: Bar, structure: Structure) -> Found:
    as_cut: Sawn = sawn(structure)[one.name]
    outside = _hull(member_rings(one.part)[0])
    body = extruded(outside, as_cut.start, as_cut.end, one.up, (as_cut.first, as_cut.last))
    yield Solid(one.name, one.key, "bar", body, one.carrier, True)


def _hull(ring: Ring) -> Ring:
    """Return the convex outline of a ring (monotone chain)."""
    points = sorted(set(ring))

    def half(order: list[tuple[float, float]]) -> list[tuple[float, float]]:
        found: list[tuple[float, float]] = []
        for p in order:
            while len(found) > 1 and _turn(found[-2], found[-1], p) <= 1e-15:
                found.pop()
            found.append(p)
        return found[:-1]

    return tuple(half(points) + half(points[::-1]))


def _turn(a: tuple[float, float], b: tuple[float, float], c: tuple[float, float]) -> float:
    return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])


def _board(one: PlatePiece, sort: str, off: float = 0.0) -> Solid:
    """Return a plate as cut; what its model reaches further on one side is left away from the other by `off`."""
    (long, wide), half = one.size, one.height / 2
    low = one.width - wide if off < 0.0 else 0.0
    ring = [(0.0, low), (long, low), (long, low + wide), (0.0, low + wide)]
    if one.halved:
        ring = [(0.0, 0.0), (long, 0.0), (0.0, wide)]
    faces = [[plus(one.at(x, y), one.up, level) for x, y in ring] for level in (-half, half)]
    return Solid(one.name, one.key, sort, convex(faces[0], faces[1]), one.carrier, True)


@_solid.register
def _plate(one: PlatePiece, _structure: Structure) -> Found:
    yield _board(one, "plate")


@_solid.register
def _rib(one: RibJoin, structure: Structure) -> Found:
    plate = structure.pieces[one.plate]
    # The rib's foot lies on the plate's face: away from the plate its own y grows or shrinks.
    away = minus(one.rib.start, one.foot)
    yield _board(one.rib, "rib", -1.0 if dot(away, one.rib.across) > 0.0 else 1.0)
    assert isinstance(plate, PlatePiece)


@_solid.register
def _base_plate(one: BasePlateJoin, _structure: Structure) -> Found:
    yield _board(one.standing, "plate")


@_solid.register
def _gusset(one: GussetJoin, _structure: Structure) -> Found:
    leg, normal = one.joint.gusset_leg, cross(one.away, one.side)
    ring = [one.corner, plus(one.corner, one.side, leg), plus(one.corner, one.away, leg)]
    half = one.joint.gusset_thickness / 2
    faces = [[plus(p, normal, s * half) for p in ring] for s in (-1, 1)]
    yield Solid(one.plate.name, one.key, "gusset", convex(faces[0], faces[1]), one.carrier, True)


@_solid.register
def _rod(one: Rod, _structure: Structure) -> Found:
    body = extruded(round_ring(one.diameter, CORNERS), one.start, one.end, Z)
    yield Solid(one.name, one.key, "rod", body, one.carrier, True)


@_solid.register
def _rail(one: Rail, _structure: Structure) -> Found:
    size = block(one.guide.block)
    tall = RAIL_HEIGHT * size.height
    ends = plus(one.start, one.up, tall / 2), plus(one.end, one.up, tall / 2)
    yield Solid(one.name, one.key, "rail", extruded(box_ring(size.rail_width, tall), *ends, one.up), one.carrier, False)


@_solid.register
def _blocks(one: Blocks, structure: Structure) -> Found:
    size, plate = block(one.guide.block), structure.pieces[one.plate]
    low, half = RAIL_HEIGHT * size.height, size.length / 2
    ring = box_ring(size.width, size.height - low)
    for number, (_, seat) in enumerate(one.seats, one.first):
        middle = plus(seat, one.up, (size.height + low) / 2)
        ends = plus(middle, one.along, -half), plus(middle, one.along, half)
        name = f"{one.key} block {number}"
        yield Solid(name, one.key, "block", extruded(ring, *ends, one.up), one.carrier, False)
        shelf = shelf_of(structure, one, seat)
        if shelf is not None:
            body = extruded(box_ring(shelf.width, shelf.thickness), shelf.start, shelf.end, shelf.normal)
            yield Solid(f"shelf to {name}", plate.name, "shelf", body, one.carrier, True)


@_solid.register
def _drive(one: DriveTrain, structure: Structure) -> Found:
    for part in train_parts(one, structure):
        body = extruded(part.ring, part.start, part.end, part.up)
        yield Solid(part.name, part.key, part.sort, body, part.carrier, False, f"{one.key} {one.number}")


@_solid.register
def _spindle(one: SpindleUnit, _structure: Structure) -> Found:
    top = (one.x, one.y, one.nose_z + one.spindle.length)
    body = extruded(round_ring(one.spindle.diameter, CORNERS), (one.x, one.y, one.nose_z), top, Y)
    yield Solid("spindle", "spindle", "spindle", body, one.carrier, False)
    ends = (one.x, one.y, one.tip_z), (one.x, one.y, one.nose_z)
    thin = extruded(round_ring(one.cutter.diameter, CORNERS), *ends, Y)
    yield Solid("cutter", "cutter", "cutter", thin, one.carrier, False)


@_solid.register
def _chain(one: ChainRun, _structure: Structure) -> Found:
    """Yield the box that a drag chain fills over its travel."""
    start, end, size = one.filled()
    yield Solid(one.name, one.key, "chain", extruded(box_ring(*size), start, end, one.rise), one.carrier, False)


@_solid.register
def _counterweight(one: Counterweight, _structure: Structure) -> Found:
    x, y, z = one.middle
    wide, deep, tall = one.size
    body = extruded(box_ring(wide, deep), (x, y, z - tall / 2), (x, y, z + tall / 2), Y)
    yield Solid("counterweight", one.key, "weight", body, one.carrier, False)


@_solid.register
def _weight(one: Ware, structure: Structure) -> Found:
    if one.look is not None:
        look = one.look
        body = extruded(_hull(look.rings[0]), look.start, look.end, look.up)
        by_itself = isinstance(structure.pieces.get(look.chain), Point)
        yield Solid(look.chain if by_itself else one.text, one.key, "weight", body, one.carrier, False)
