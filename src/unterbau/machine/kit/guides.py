"""Rails, blocks, carriages, drives."""

import math
from collections.abc import Sequence
from dataclasses import replace
from functools import lru_cache
from math import dist

from unterbau.band import AtLevels, at_levels
from unterbau.catalogue.drives import drive as drive_kind
from unterbau.catalogue.drives import motor_stiffness, motors
from unterbau.catalogue.guides import Block, Under
from unterbau.catalogue.guides import block as block_size
from unterbau.catalogue.joints import RIGID, Six
from unterbau.machine.bill import Line
from unterbau.machine.built import Driven
from unterbau.machine.frame_builder import Chain
from unterbau.machine.kit.kit import Kit, Laid
from unterbau.machine.kit.plates import INSET, NUT, LaidPlate, away_from
from unterbau.machine.kit.walled import RAIL_HEIGHT, rail_values, wall_rail
from unterbau.machine.member import plate_line, round_values, strip_values
from unterbau.machine.walls import has_walls
from unterbau.materials.material import material
from unterbau.sections.section import section
from unterbau.structure.bodies import Prism, box_ring, round_ring
from unterbau.structure.parts import Drive, Guide, Member, Motor, Plate
from unterbau.structure.vectors import ZERO, Vector, X, Z, cross, minus, plus

SHAFT_PIECES = 12
USUAL_MOTOR = "stepper"
MOTOR_ZETA = 0.03
"""Of a motor's magnetic spring with its driver; common practice, no source."""
SHELF = 0.03
"""A shelf to a block is wider than the block by this; nearer blocks need none, m."""
EDGE = 0.03
"""How far up the bolts of a block reach that carries a plate by its edge, m."""
SLOTTED = ("tslot", "cprofile")
HALF_HELD = 4.0
"""Of E·I/L: a shaft's end supports hold it against turning so that it gives half of pinned, twice of clamped ends."""
BOLTED = 0.7
"""Share of a block's length and width that its bolts span; common practice, no source."""


def rail(kit: Kit, key: str, host: Laid | LaidPlate, start: Vector, end: Vector, up: Vector) -> None:
    """Bolt a rail on a part: its mass, its looks; start and end lie on the seat, `up` points off it.

    On a plate the rail is a beam of its own, bolted every so far; on a beam it adds its weight only.
    """
    guide: Guide = getattr(kit.machine, key)
    size = block_size(guide.block)
    length = dist(start, end)
    middle = RAIL_HEIGHT * size.height / 2
    ring = box_ring(size.rail_width, RAIL_HEIGHT * size.height)
    kit.bodies.append(Prism(key, host.name, plus(start, up, middle), plus(end, up, middle), up, (ring,)))
    if size.free:
        _free_shaft(kit, key, host, start, end, up, middle)
    elif isinstance(host, LaidPlate):
        host.rail(key, start, end, up, rail_values(guide.block), middle)
        # Its ends stick out beyond the last bolts.
        chain, held = host.rails[-1][1], 2 * INSET / length
        kit.frame.mass(chain.nodes[0], size.rail_mass * length * held / 2)
        kit.frame.mass(chain.nodes[-1], size.rail_mass * length * held / 2)
    elif not wall_rail(kit, key, host, start, end, up):
        kit.frame.spread(host.chain.nodes, size.rail_mass * length)
    kit.buy(Line(key, f"rail {size.label}", 1, length, size.rail_mass * length, (f"rail:{guide.block}",)))


def _free_shaft(
    kit: Kit, key: str, host: Laid | LaidPlate, start: Vector, end: Vector, up: Vector, over: float
) -> None:
    """Hold a shaft at its ends only: a beam of its own from end support to end support."""
    size = block_size(getattr(kit.machine, key).block)
    values = replace(round_values(size.free, "steel-drawn"), rho=size.rail_mass / (math.pi * size.free**2 / 4))
    length = dist(start, end)
    line = tuple((b - a) / length for a, b in zip(start, end, strict=True))
    along: Vector = (line[0], line[1], line[2])
    axis = [plus(plus(start, along, length * n / SHAFT_PIECES), up, over) for n in range(SHAFT_PIECES + 1)]
    number = len(kit.shafts) + 1
    nodes = [kit.frame.node(f"{key} shaft {number} {n + 1}", place) for n, place in enumerate(axis)]
    turns = AtLevels(0.0, HALF_HELD * values.E * values.Iy / length, RIGID)
    held = at_levels(lambda level: (RIGID, RIGID, RIGID, RIGID, turns.at(level), turns.at(level)))
    for node, place in ((nodes[0], start), (nodes[-1], end)):
        kit.frame.spring(key, node, kit.near(host, place, NUT), held, along, up, 0.0)
    kit.shafts.append((key, kit.frame.chain(key, nodes, values, up)))


def _chain_under(kit: Kit, key: str, host: Laid | LaidPlate, seat: Vector) -> Chain:
    """Return the chain that a block at a seat runs on: a free shaft, a plate's rail, or the beam itself."""
    shafts = [chain for of, chain in kit.shafts if of == key]
    if shafts:
        return min(shafts, key=lambda chain: away_from(kit.frame, chain, seat))
    if isinstance(host, LaidPlate):
        return host.rail_near(key, seat)
    screwed = [chain for of, name, chain in kit.rails if of == key and name == host.name]
    return min(screwed, key=lambda chain: away_from(kit.frame, chain, seat)) if screwed else host.chain


def _spread_blocks(
    seats: Sequence[tuple[Laid | LaidPlate, Vector]], along: Vector, count: int
) -> list[tuple[Laid | LaidPlate, Vector]]:
    """Return as many blocks on each rail as wanted, evenly between its first and last."""
    if count == 2:
        return list(seats)
    rails: dict[tuple[int, tuple[float, ...]], list[tuple[Laid | LaidPlate, Vector]]] = {}
    for host, seat in seats:
        beside = tuple(round(s - a * sum(p * q for p, q in zip(seat, along, strict=True)), 6)
                       for s, a in zip(seat, along, strict=True))  # fmt: skip
        rails.setdefault((id(host), beside), []).append((host, seat))
    found = []
    for rows in rails.values():
        (host, first), (_, last) = rows[0], rows[-1]
        for n in range(count):
            share = 0.5 if count == 1 else n / (count - 1)
            found.append((host, plus(first, minus(last, first), share)))
    return found


def carriage(
    kit: Kit, key: str, carrier: LaidPlate, seats: Sequence[tuple[Laid | LaidPlate, Vector]], along: Vector, up: Vector
) -> None:
    """Set a plate on blocks.

    Args:
        kit: The machine.
        key: The guide.
        carrier: The plate that the blocks are bolted to.
        seats: Host of the rail, and the place on its seat, of each block.
        along: Direction of the rails.
        up: Off the seat.
    """
    guide: Guide = getattr(kit.machine, key)
    size = block_size(guide.block)
    there = sum(name.startswith(f"{key} block ") for name in kit.frame.names)
    for number, (host, seat) in enumerate(_spread_blocks(seats, along, guide.blocks), there + 1):
        place = plus(seat, up, size.height / 2)
        node = kit.frame.node(f"{key} block {number} of {carrier.name}", place)
        on_face = abs(sum(a * b for a, b in zip(up, carrier.up, strict=True))) > 0.5
        half = carrier.half_of(along, BOLTED * size.length, BOLTED * size.width if on_face else EDGE)
        root = carrier.hold(plus(seat, up, size.height), half)
        _hold_block(kit, carrier, node, root, plus(seat, up, size.height), size.length + SHELF)
        kit.frame.mass(node, size.block_mass)
        springs = _block_springs(size, guide, _under(kit, host))
        kit.frame.seat(key, node, _chain_under(kit, key, host, seat), springs, along, up, size.zeta)
        _draw_block(kit, key, carrier, plus(seat, up, 0.65 * size.height), along, up)
        kit.buy(Line(key, f"block {size.label}", 1, 0.0, size.block_mass, (f"block:{guide.block}",)))


GROUNDS: dict[str, Under] = {
    "stone": "granite", "iron": "iron", "steel": "steel", "aluminium": "aluminium", "timber": "timber"
}  # fmt: skip


@lru_cache(maxsize=256)
def _block_springs(size: Block, guide: Guide, under: Under) -> AtLevels[Six]:
    return at_levels(lambda level: size.springs(level, guide.preload, under))


def _under(kit: Kit, host: Laid | LaidPlate) -> Under:
    """Return what a rail lies on, as far as a block's stiffness goes."""
    if isinstance(host, LaidPlate):
        return GROUNDS.get(host.base.kind, "timber")
    member: Member = getattr(kit.machine, host.key)
    shape = section(member.section)
    if member.section.startswith(SLOTTED) or shape.pieces:
        return "profile"
    return "tube" if has_walls(member) else GROUNDS.get(material(member.material).kind, "timber")


def _hold_block(kit: Kit, carrier: LaidPlate, node: int, root: int, top: Vector, width: float) -> None:
    """Bolt a block to a plate; where it stands off the plate, a shelf of the same plate reaches over to it."""
    places = kit.frame.places
    gap = minus(top, places[root])
    off = sum(a * b for a, b in zip(gap, carrier.up, strict=True))
    sideways = abs(sum(a * b for a, b in zip(minus(top, places[node]), carrier.up, strict=True)))
    if sideways > 1e-6 or abs(off) < SHELF:
        kit.frame.spring(carrier.key, node, root, (RIGID,) * 6, X, Z, 0.0)
        return
    plate: Plate = getattr(kit.machine, carrier.key)
    end = plus(places[root], carrier.up, off)
    normal = cross(carrier.up, carrier.across)
    kit.frame.beam(carrier.key, root, node, strip_values(plate, width), normal, offset_j=minus(end, places[node]))
    kit.buy(plate_line(carrier.key, plate, 1, width, abs(off)))
    half = box_ring(width, plate.thickness)
    kit.bodies.append(Prism(carrier.key, carrier.name, places[root], end, normal, (half,)))


def _draw_block(kit: Kit, key: str, carrier: LaidPlate, middle: Vector, along: Vector, up: Vector) -> None:
    guide: Guide = getattr(kit.machine, key)
    size = block_size(guide.block)
    half = size.length / 2
    ring = box_ring(size.width, 0.7 * size.height)
    kit.bodies.append(Prism(key, carrier.name, plus(middle, along, -half), plus(middle, along, half), up, (ring,)))


def drive(
    kit: Kit,
    key: str,
    nut: int,
    bearing: int,
    along: Vector,
    length: float,
    host: Laid | LaidPlate,
    beside: Vector = ZERO,
) -> None:
    """Hold a nut along its screw or belt; the motor weighs on the bearing, the screw along its host.

    Args:
        kit: The machine.
        key: The drive.
        nut: Node that is moved.
        bearing: Node of the fixed bearing.
        along: Direction of the axis.
        length: Of the screw or belt path, m.
        host: What the bearing is on; the screw is drawn with it.
        beside: From the nut's node to where the screw is drawn.
    """
    chosen: Drive = getattr(kit.machine, key)
    kind = drive_kind(chosen.kind)
    places = kit.frame.places
    gap = minus(places[nut], places[bearing])
    away = sum(g * a for g, a in zip(gap, along, strict=True))
    distance = abs(away)
    up = Z if abs(along[2]) < 0.5 else X
    end = _shaft_end(kit, key, bearing, along, up)
    held = Driven(len(kit.frame.springs), kind, away, length, chosen.free)
    k = at_levels(lambda level: (held.stiffness(level, away), 0.0, 0.0, 0.0, 0.0, 0.0))
    kit.drives.append(held)
    kit.frame.spring(key, nut, end, k, along, up, kind.zeta)
    mass = kind.motor_mass + kind.mass_per_metre * length
    line = Line(key, f"{kind.label} with motor", 1, length, mass, (f"drive:{chosen.kind}",))
    if kind.tension is not None and kit.corners:
        kit.frame.mass(kit.corners[0], mass)
        with kit.moved_by(""):
            kit.buy(line)
    else:
        kit.frame.mass(bearing, kind.motor_mass)
        _spread_screw(kit, host, kind.mass_per_metre * length, bearing)
        kit.buy(line)
    sign = 1.0 if away >= 0 else -1.0
    level = plus(places[nut], beside)
    start = plus(level, along, -sign * distance)
    side = cross(along, up)
    thick = 0.016 if kind.nut else 0.006
    kit.bodies.append(Prism(key, host.name, start, plus(start, along, sign * length), side, (round_ring(thick, 8),)))


def _shaft_end(kit: Kit, key: str, bearing: int, along: Vector, up: Vector) -> int:
    """Return the node that a drive's motor holds, next to its fixed bearing."""
    chosen: Drive = getattr(kit.machine, key)
    own = key.replace("_drive", "_motor")
    motor: Motor = getattr(kit.machine, own)
    kind = motors()[motor.kind]
    if motor.kind != USUAL_MOTOR:
        kit.buy(Line(own, f"{kind.label} instead of a stepper", 1, 0.0, 0.0, (f"motor:{kind.id}",)))
    stiff = at_levels(lambda level: motor_stiffness(drive_kind(chosen.kind), kind, motor.torque, level))
    if chosen.free or stiff.likely == RIGID:
        return bearing
    end = kit.frame.node(f"{own} {len(kit.drives)}", kit.frame.places[bearing])
    k = at_levels(lambda level: (stiff.at(level), RIGID, RIGID, RIGID, RIGID, RIGID))
    kit.frame.spring(own, end, bearing, k, along, up, MOTOR_ZETA)
    return end


def _spread_screw(kit: Kit, host: Laid | LaidPlate, mass: float, bearing: int) -> None:
    """Let a screw weigh all along a beam, or on a plate where its fixed bearing is."""
    if isinstance(host, Laid):
        kit.frame.spread(host.chain.nodes, mass)
    else:
        kit.frame.mass(bearing, mass)
