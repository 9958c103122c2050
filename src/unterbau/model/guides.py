"""Rails, blocks, drives."""

import math
from dataclasses import replace
from functools import lru_cache
from math import dist

from unterbau.band import AtLevels, at_levels
from unterbau.catalogue.drives import drive as drive_kind
from unterbau.catalogue.drives import motor_stiffness, motors
from unterbau.catalogue.guides import Block, Under
from unterbau.catalogue.guides import block as block_size
from unterbau.catalogue.joints import RIGID, Six
from unterbau.materials.material import material
from unterbau.model.built import Driven
from unterbau.model.frame_builder import Chain
from unterbau.model.laid_plate import INSET, LaidPlate, away_from
from unterbau.model.member import round_values, strip_values
from unterbau.model.modelled import Laid, Model
from unterbau.model.walled import rail_values, wall_rail
from unterbau.model.walls import has_walls
from unterbau.sections.section import section
from unterbau.structure.blocks import SHELF
from unterbau.structure.motion import RAIL_HEIGHT, Blocks, DriveTrain, Rail
from unterbau.structure.parts import Guide, Plate
from unterbau.structure.spot import NUT
from unterbau.structure.train import corner_of, train_parts
from unterbau.structure.vectors import ZERO, Vector, X, Z, cross, dot, minus, plus, scaled

SHAFT_PIECES = 12
MOTOR_ZETA = 0.03
"""Of a motor's magnetic spring with its driver; common practice, no source."""
EDGE = 0.03
"""How far up the bolts of a block reach that carries a plate by its edge, m."""
SLOTTED = ("tslot", "cprofile")
HALF_HELD = 4.0
"""Of E·I/L: a shaft's end supports hold it against turning so that it gives half of pinned, twice of clamped ends."""
BOLTED = 0.7
"""Share of a block's length and width that its bolts span; common practice, no source."""
GROUNDS: dict[str, Under] = {
    "stone": "granite", "iron": "iron", "steel": "steel", "aluminium": "aluminium", "timber": "timber"
}  # fmt: skip


def rail(one: Rail, model: Model) -> None:
    """Bolt a rail on a piece: on a plate and on a wall it is a beam of its own, else it only weighs."""
    host, size = model.host(one.host), block_size(one.guide.block)
    start, end = model.moved(one.start, one.carrier), model.moved(one.end, one.carrier)
    length, middle = dist(start, end), RAIL_HEIGHT * size.height / 2
    if size.free:
        _free_shaft(model, one, host, start, end, middle)
    elif isinstance(host, LaidPlate):
        host.rail(one.key, start, end, one.up, rail_values(one.guide.block), middle)
        # Its ends stick out beyond the last bolts.
        chain, held = host.rails[-1][1], 2 * INSET / length
        model.frame.mass(chain.nodes[0], size.rail_mass * length * held / 2)
        model.frame.mass(chain.nodes[-1], size.rail_mass * length * held / 2)
    elif not wall_rail(model, one.key, one.guide, host, start, end, one.up):
        model.frame.spread(host.chain.nodes, size.rail_mass * length)


def _free_shaft(model: Model, one: Rail, host: Laid | LaidPlate, start: Vector, end: Vector, over: float) -> None:
    """Hold a shaft at its ends only: a beam of its own from end support to end support."""
    size, key, up = block_size(one.guide.block), one.key, one.up
    values = replace(round_values(size.free, "steel-drawn"), rho=size.rail_mass / (math.pi * size.free**2 / 4))
    length = dist(start, end)
    line = tuple((b - a) / length for a, b in zip(start, end, strict=True))
    along: Vector = (line[0], line[1], line[2])
    axis = [plus(plus(start, along, length * n / SHAFT_PIECES), up, over) for n in range(SHAFT_PIECES + 1)]
    number = len(model.shafts) + 1
    nodes = [model.frame.node(f"{key} shaft {number} {n + 1}", place) for n, place in enumerate(axis)]
    turns = AtLevels(0.0, HALF_HELD * values.E * values.Iy / length, RIGID)
    held = at_levels(lambda level: (RIGID, RIGID, RIGID, RIGID, turns.at(level), turns.at(level)))
    for node, place in ((nodes[0], start), (nodes[-1], end)):
        support = host.hold(place, NUT) if isinstance(host, LaidPlate) else model.near(host, place)
        model.frame.spring(key, node, support, held, along, up, 0.0)
    model.shafts.append((key, model.frame.chain(key, nodes, values, up)))


def _chain_under(model: Model, key: str, host: Laid | LaidPlate, seat: Vector) -> Chain:
    """Return the chain that a block at a seat runs on: a free shaft, a plate's rail, or the beam itself."""
    shafts = [chain for of, chain in model.shafts if of == key]
    if shafts:
        return min(shafts, key=lambda chain: away_from(model.frame, chain, seat))
    if isinstance(host, LaidPlate):
        return host.rail_near(key, seat)
    screwed = [chain for of, name, chain in model.rails if of == key and name == host.name]
    return min(screwed, key=lambda chain: away_from(model.frame, chain, seat)) if screwed else host.chain


def blocks(one: Blocks, model: Model) -> None:
    """Set a plate on blocks."""
    size, carrier = block_size(one.guide.block), model.sheets[one.plate]
    up, along = one.up, one.along
    for number, (name, laid_out) in enumerate(one.seats, one.first):
        host, seat = model.host(name), model.moved(laid_out, one.carrier)
        node = model.frame.node(f"{one.key} block {number} of {carrier.name}", plus(seat, up, size.height / 2))
        on_face = abs(dot(up, carrier.up)) > 0.5
        half = carrier.half_of(along, BOLTED * size.length, BOLTED * size.width if on_face else EDGE)
        top = plus(seat, up, size.height)
        _hold_block(model, carrier, node, carrier.hold(top, half), top, size.length + SHELF)
        model.frame.mass(node, size.block_mass)
        springs = _block_springs(size, one.guide, _under(host))
        model.frame.seat(one.key, node, _chain_under(model, one.key, host, seat), springs, along, up, size.zeta)


@lru_cache(maxsize=256)
def _block_springs(size: Block, guide: Guide, under: Under) -> AtLevels[Six]:
    return at_levels(lambda level: size.springs(level, guide.preload, under))


def _under(host: Laid | LaidPlate) -> Under:
    """Return what a rail lies on, as far as a block's stiffness goes."""
    if isinstance(host, LaidPlate):
        return GROUNDS.get(host.base.kind, "timber")
    member = host.member
    if member.section_name.startswith(SLOTTED) or section(member.section).pieces:
        return "profile"
    return "tube" if has_walls(member) else GROUNDS.get(material(member.material).kind, "timber")


def _hold_block(model: Model, carrier: LaidPlate, node: int, root: int, top: Vector, width: float) -> None:
    """Bolt a block to a plate; where it stands off the plate, a shelf of the same plate reaches over to it."""
    places = model.frame.places
    off = dot(minus(top, places[root]), carrier.up)
    sideways = abs(dot(minus(top, places[node]), carrier.up))
    if sideways > 1e-6 or abs(off) < SHELF:
        model.frame.spring(carrier.key, node, root, (RIGID,) * 6, X, Z, 0.0)
        return
    end = plus(places[root], carrier.up, off)
    strip = strip_values(Plate(carrier.height, carrier.base.id), width)
    offset = minus(end, places[node])
    model.frame.beam(carrier.key, root, node, strip, cross(carrier.up, carrier.across), offset_j=offset)


def drive(one: DriveTrain, model: Model) -> None:
    """Hold a nut against its bearing along an axis."""
    kind, along, places = drive_kind(one.drive.kind), one.along, model.frame.places
    nut, bearing = model.node(one.nut), model.node(one.bearing)
    away = dot(minus(places[nut], places[bearing]), along)
    up = Z if abs(along[2]) < 0.5 else X
    end = _shaft_end(model, one, bearing, up)
    held = Driven(
        len(model.frame.springs), kind, away, one.length, one.drive.free, model.structure.measured.get(one.key),
        one.drive.ends == "fixed",
    )  # fmt: skip
    k = at_levels(lambda level: (held.stiffness(level, away), 0.0, 0.0, 0.0, 0.0, 0.0))
    model.drives.append(held)
    model.frame.spring(one.key, nut, end, k, along, up, kind.zeta)
    _weigh(one, model, nut, bearing)


def _weigh(one: DriveTrain, model: Model, nut: int, bearing: int) -> None:
    """Put a drive's parts where they weigh; what hangs on the far end of a plate counts at the bearing."""
    host, places = model.host(one.host), model.frame.places
    for part in train_parts(one, model.structure):
        middle = model.moved(scaled(plus(part.start, part.end), 0.5), part.carrier)
        if part.sort == "screw" and part.at == "far" and isinstance(host, Laid):
            model.frame.spread(host.chain.nodes, part.mass)
            continue
        if part.at == "nut":
            node = nut
        elif part.at == "corner":
            node = model.node(corner_of(one, model.structure))
        elif part.at == "far" and isinstance(host, Laid):
            node = min(host.chain.nodes, key=lambda n: dist(places[n], middle))
        else:
            node = bearing
        model.frame.mass(node, part.mass, ZERO if part.sort == "screw" else minus(middle, places[node]))


def _shaft_end(model: Model, one: DriveTrain, bearing: int, up: Vector) -> int:
    """Return the node that a drive's motor holds, next to its fixed bearing."""
    kind, torque = motors()[one.motor.kind], one.motor.torque
    stiff = at_levels(lambda level: motor_stiffness(drive_kind(one.drive.kind), kind, torque, level))
    if one.drive.free or stiff.likely == RIGID:
        return bearing
    end = model.frame.node(f"{one.motor_key} {len(model.drives)}", model.frame.places[bearing])
    k = at_levels(lambda level: (stiff.at(level), RIGID, RIGID, RIGID, RIGID, RIGID))
    model.frame.spring(one.motor_key, end, bearing, k, one.along, up, MOTOR_ZETA)
    return end
