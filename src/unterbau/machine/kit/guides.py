"""Rails, blocks, carriages, drives."""

from dataclasses import replace
from math import dist

from unterbau.catalogue.drives import drive as drive_kind
from unterbau.catalogue.guides import block as block_size
from unterbau.catalogue.joints import RIGID
from unterbau.machine.bill import Line
from unterbau.machine.bodies import Prism, box_ring, round_ring
from unterbau.machine.frame_builder import ZERO, Vector, X, Z, minus
from unterbau.machine.kit.kit import Kit, Laid, cross, plus
from unterbau.machine.member import plate_line, strip_values
from unterbau.machine.parts import Drive, Guide, Plate

ARM_MARGIN = 0.03


def rail(kit: Kit, key: str, host: Laid, start: Vector, end: Vector, up: Vector) -> None:
    """Bolt a rail on a part: its mass, its looks; start and end lie on the seat, `up` points off it."""
    guide: Guide = getattr(kit.machine, key)
    size = block_size(guide.block)
    length = dist(start, end)
    middle = 0.3 * size.height
    ring = box_ring(size.rail_width, 0.6 * size.height)
    kit.bodies.append(Prism(key, host.name, plus(start, up, middle), plus(end, up, middle), up, (ring,)))
    kit.frame.spread(host.chain.nodes, size.rail_mass * length)
    kit.buy(Line(key, f"rail {size.label}", 1, length, size.rail_mass * length, (f"rail:{guide.block}",)))


def carriage(
    kit: Kit, key: str, carrier: Laid, plate_key: str, seats: list[tuple[Laid, Vector]], along: Vector, up: Vector,
    arm_width: float | None = None, arm_share: float = 0.0,
) -> None:  # fmt: skip
    """Set a part on blocks.

    Args:
        kit: The machine.
        key: The guide.
        carrier: The part that the blocks are bolted to; a plate that reaches out to them.
        plate_key: The plate whose strips reach from the carrier's axis to the blocks.
        seats: Host of the rail, and the place on its seat, of each block.
        along: Direction of the rails.
        up: Off the seat.
        arm_width: Width of those strips; about a block's length where none is given.
        arm_share: Share of a strip's own mass that is not counted in the carrier already.
    """
    guide: Guide = getattr(kit.machine, key)
    plate: Plate = getattr(kit.machine, plate_key)
    size = block_size(guide.block)
    wide = arm_width or size.length + ARM_MARGIN
    arm = strip_values(plate, wide, mass_share=arm_share)
    for number, (host, seat) in enumerate(seats, 1):
        place = plus(seat, up, size.height / 2)
        node = kit.frame.node(f"{key} block {number} of {carrier.name}", place)
        root = kit.near(carrier, place)
        towards = kit.frame.places[root]
        # The strip lies in the carrier's plane, square to its axis.
        foot = plus(towards, cross(carrier.up, carrier.along), _sideways(minus(place, towards), carrier))
        if dist(foot, towards) < 1e-4:
            kit.frame.spring(plate_key, node, root, (RIGID,) * 6, X, Z, 0.0)
        else:
            kit.frame.beam(plate_key, root, node, arm, carrier.up, offset_j=minus(foot, place))
            if arm_share:
                whole = plate_line(plate_key, plate, 0, wide, carrier.length)
                mass = arm.mass_per_metre * dist(foot, towards)
                kit.buy(replace(whole, mass=mass))
        kit.frame.mass(node, size.block_mass)
        springs = size.springs(kit.level, guide.preload)
        kit.frame.seat(key, node, host.chain, springs, along, up, size.zeta)
        _draw_block(kit, key, carrier, plus(seat, up, 0.65 * size.height), along, up)
        kit.buy(Line(key, f"block {size.label}", 1, 0.0, size.block_mass, (f"block:{guide.block}",)))


def _sideways(way: Vector, carrier: Laid) -> float:
    """Return how far a way goes sideways in a carrier's plane."""
    return sum(w * a for w, a in zip(way, cross(carrier.up, carrier.along), strict=True))


def _draw_block(kit: Kit, key: str, carrier: Laid, middle: Vector, along: Vector, up: Vector) -> None:
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
    host: Laid,
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
    distance = abs(sum(g * a for g, a in zip(gap, along, strict=True)))
    k = (kind.stiffness(kit.level, distance, length), 0.0, 0.0, 0.0, 0.0, 0.0)
    up = Z if abs(along[2]) < 0.5 else X
    kit.frame.spring(key, nut, bearing, k, along, up, kind.zeta)
    mass = kind.motor_mass + kind.mass_per_metre * length
    line = Line(key, f"{kind.label} with motor", 1, length, mass, (f"drive:{chosen.kind}",))
    if kind.tension is not None and kit.corners:
        kit.frame.mass(kit.corners[0], mass)
        with kit.moved_by(""):
            kit.buy(line)
    else:
        kit.frame.mass(bearing, kind.motor_mass)
        kit.frame.spread(host.chain.nodes, kind.mass_per_metre * length)
        kit.buy(line)
    sign = 1.0 if sum(g * a for g, a in zip(gap, along, strict=True)) >= 0 else -1.0
    level = plus(places[nut], beside)
    start = plus(level, along, -sign * distance)
    side = cross(along, up)
    thick = 0.016 if kind.nut else 0.006
    kit.bodies.append(Prism(key, host.name, start, plus(start, along, sign * length), side, (round_ring(thick, 8),)))
