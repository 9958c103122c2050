"""The head: plates that run on a beam or a column, spindle, cutter."""

from dataclasses import dataclass
from typing import Any, Protocol

from unterbau.band import AtLevels, Level, at_levels
from unterbau.catalogue.guides import block
from unterbau.catalogue.joints import Face
from unterbau.machine.bill import Line
from unterbau.machine.kit.guides import carriage, drive, rail
from unterbau.machine.kit.kit import Kit, Laid
from unterbau.machine.kit.members import join
from unterbau.machine.kit.plates import NUT, LaidPlate, lay_plate
from unterbau.machine.kit.ribs import rib
from unterbau.machine.member import fluted_values, member_size, round_values
from unterbau.structure.bodies import Prism, box_ring, round_ring
from unterbau.structure.parts import Cutter, Plate, Spindle
from unterbau.structure.vectors import Vector, X, Y, Z

SPINDLE_SPREAD: dict[Level, float] = {"low": 0.6, "likely": 1.0, "high": 1.6}
"""Common practice, no source."""
SPINDLE_ZETA = 0.02
SHORT = 1e-4
CLAMP = 0.03  # half the height of the spindle clamp
FORWARD = (0.0, -1.0, 0.0)
DOWN = (0.0, 0.0, -1.0)
LIP = 0.015  # of a carriage over blocks on a top or bottom face


class SlideSizes(Protocol):
    """Sizes that a Z slide needs."""

    travel_z: float
    lowest_tip: float
    z_stance: float
    z_rail_spacing: float
    spindle_overhang: float
    clamp_height: float
    stop: float


@dataclass(frozen=True, slots=True)
class Slide:
    """Where a Z slide has its parts; y counts from the spindle's axis backwards."""

    tip_z: float
    nose_z: float
    clamp_z: float
    z_plate_y: float
    carrier_y: float
    """Middle of the plate that carries the blocks."""
    z_block_z: tuple[float, float]
    z_plate_z: tuple[float, float]


def slide(machine: Any, raised: float, carrier: Plate) -> Slide:
    """Return the places of a Z slide on a plate, raised by a part of its travel."""
    d: SlideSizes = machine.dimensions
    size = block(machine.z_guides.block)
    tip = d.lowest_tip
    clamp = tip + machine.cutter.stick_out + d.clamp_height
    low = clamp - CLAMP + d.travel_z + size.length / 2 + d.stop
    blocks = (low, low + d.z_stance)
    z_plate = d.spindle_overhang
    return Slide(
        tip + raised, tip + machine.cutter.stick_out + raised, clamp + raised, z_plate,
        z_plate + machine.z_plate.thickness / 2 + size.height + carrier.thickness / 2, blocks,
        (clamp - CLAMP + raised, blocks[1] + size.length / 2 + d.stop + raised),
    )  # fmt: skip


def beam_seat(machine: Any) -> float:
    """Return how far behind the spindle's axis the rails on a beam's front face have their seat, m."""
    carrier: Plate = machine.x_plate
    return slide(machine, 0.0, carrier).carrier_y + carrier.thickness / 2 + block(machine.x_guides.block).height


@dataclass(frozen=True, slots=True)
class BeamRail:
    """A rail along a beam."""

    y: float
    """Its seat from the beam's middle, m."""
    z: float
    up: Vector
    """Off the seat."""


def beam_rails(machine: Any, beam_z: float) -> tuple[BeamRail, BeamRail]:
    """Return the two rails of a beam, by the faces they lie on: lower one first."""
    height, width = member_size(machine.gantry_beam)
    spacing = max(height - block(machine.x_guides.block).width, 0.6 * height)
    low = BeamRail(-width / 2, beam_z - spacing / 2, FORWARD)
    top = BeamRail(0.0, beam_z + height / 2, Z)
    mount = machine.x_guides.mount
    if mount == "top-front":
        return low, top
    if mount == "top-bottom":
        return BeamRail(0.0, beam_z - height / 2, DOWN), top
    if mount == "front-edges":
        spacing = height - block(machine.x_guides.block).rail_width
        low = BeamRail(-width / 2, beam_z - spacing / 2, FORWARD)
    return low, BeamRail(-width / 2, beam_z + spacing / 2, FORWARD)


def head_on_beam(
    kit: Kit, beam: Laid, rails: tuple[BeamRail, BeamRail], x: float, y: float, raised: float, carried: str = "Y"
) -> None:
    """Hang a head with X plate, Z plate and spindle on the front of a beam along X; its spindle stands at x, y.

    `carried` are the axes that move the beam.
    """
    m, d = kit.machine, kit.machine.dimensions
    at = slide(m, raised, m.x_plate)
    size = block(m.x_guides.block)
    reach = [one.z + side * size.width / 2 if one.up is FORWARD else one.z + one.up[2] * (size.height + LIP)
             for one in rails for side in (-1, 1)]  # fmt: skip
    low = min(at.z_block_z[0] - block(m.z_guides.block).length / 2, *reach)
    high = max(at.z_block_z[1] + block(m.z_guides.block).length / 2, *reach)
    with kit.moved_by("X" + carried):
        place = (x, y + at.carrier_y)
        plate = lay_plate(kit, "x_plate", "X plate", (*place, low), (*place, high), d.x_stance + size.length, Y)
        for one in rails:
            seats = [(beam, (x + side * d.x_stance / 2, beam.start[1] + one.y, one.z)) for side in (-1, 1)]
            carriage(kit, "x_guides", plate, seats, X, one.up)
    with kit.moved_by(carried):
        nut = kit.near(plate, (x, place[1], (rails[0].z + rails[1].z) / 2 + m.x_drive.offset), NUT)
        drive(kit, "x_drive", nut, beam.chain.nodes[0], X, beam.length, beam)
    z_slide(kit, plate, at, (x, y), "X" + carried)


def z_slide(kit: Kit, carrier: LaidPlate, at: Slide, place: tuple[float, float], moved_by: str) -> None:
    """Put a Z plate with its rails on the blocks of a carrier plate, and the spindle on it.

    Args:
        kit: The machine.
        carrier: The plate that carries the blocks.
        at: The slide's places.
        place: The spindle's axis.
        moved_by: The axes that move the carrier.
    """
    m, d = kit.machine, kit.machine.dimensions
    size = block(m.z_guides.block)
    (bottom, top), (x, y) = at.z_plate_z, place
    behind = y + at.z_plate_y
    with kit.moved_by(f"{moved_by}Z"):
        wide = d.z_rail_spacing + size.width
        plate = lay_plate(kit, "z_plate", "Z plate", (x, behind, bottom), (x, behind, top), wide, Y)
        rib(kit, plate, FORWARD)
        back = behind + m.z_plate.thickness / 2
        for side in (-1, 1):
            across = x + side * d.z_rail_spacing / 2
            rail(kit, "z_guides", plate, (across, back, bottom), (across, back, top), Y)
    with kit.moved_by(moved_by):
        seats = [(plate, (x + side * d.z_rail_spacing / 2, back, z)) for z in at.z_block_z for side in (-1, 1)]
        carriage(kit, "z_guides", carrier, seats, Z, Y)
        aside = x + m.z_drive.offset
        nut = kit.near(plate, (aside, behind, (bottom + top) / 2), NUT)
        bearing = kit.near(carrier, (aside, carrier.end[1], carrier.end[2]), NUT)
        drive(kit, "z_drive", nut, bearing, Z, d.travel_z + 0.06, carrier)
    with kit.moved_by(f"{moved_by}Z"):
        spindle(kit, plate, place, at.clamp_z, at.nose_z, at.tip_z)


def spindle_springs(likely: tuple[float, ...]) -> AtLevels[tuple[float, ...]]:
    """Return a spindle's springs at each level from the likely ones."""
    return at_levels(lambda level: tuple(SPINDLE_SPREAD[level] * one for one in likely))


def spindle(
    kit: Kit, plate: LaidPlate, place: tuple[float, float], clamp_z: float, nose_z: float, tip_z: float
) -> None:
    """Clamp a spindle to a plate that stands behind it, and put a cutter in."""
    s: Spindle = kit.machine.spindle
    c: Cutter = kit.machine.cutter
    (x, y), frame = place, kit.frame
    body = frame.node("spindle body", (x, y, clamp_z))
    nose = frame.node("spindle nose", (x, y, nose_z))
    tip = frame.node("tool tip", (x, y, tip_z))
    clamp = kit.near(plate, (x, plate.start[1], clamp_z), plate.half_of(Z, 2 * CLAMP, s.diameter))
    join(kit, "spindle_mount", body, clamp, Face(2 * CLAMP, s.diameter), Y, Z)
    r = s.diameter / 2
    across = s.mass * (3 * r**2 + s.length**2) / 12
    to_centre = nose_z + s.length / 2 - clamp_z
    frame.mass(body, s.mass, (0.0, 0.0, to_centre), (across, across, s.mass * r**2 / 2))
    k = spindle_springs((s.axial, s.radial, s.radial, s.tilt, s.tilt, s.tilt))
    frame.spring("spindle", nose, body, k, Z, X, SPINDLE_ZETA)
    root = frame.node("cutter root", (x, y, nose_z))
    join(kit, "collet", root, nose, Face(c.diameter, c.diameter), Z, X)
    chain = [root, tip]
    if c.fluted < c.stick_out - SHORT:
        chain.insert(1, frame.node("cutter shank", (x, y, tip_z + c.fluted)))
        frame.beam("cutter", root, chain[1], round_values(c.shank or c.diameter, c.material), X)
    frame.beam("cutter", chain[-2], tip, fluted_values(c), X)
    kit.nose, kit.tip = nose, tip
    kit.chains["spindle"], kit.chains["cutter"] = (body,), tuple(chain)
    _buy(kit, s, c)
    depth = plate.start[1] - plate.height / 2 - y
    ring = box_ring(s.diameter + 0.016, depth + 0.004)
    ends = ((x, y + depth / 2, clamp_z - 0.025), (x, y + depth / 2, clamp_z + 0.025))
    kit.bodies += [
        Prism("spindle_mount", plate.name, *ends, Y, (ring,)),
        Prism("spindle", "spindle", (x, y, nose_z), (x, y, nose_z + s.length), Y, (round_ring(s.diameter),)),
        Prism("spindle", "spindle", (x, y, nose_z - 0.012), (x, y, nose_z), Y, (round_ring(0.4 * s.diameter),)),
    ]
    if nose_z - 0.012 - tip_z > 1e-4:
        thin = (round_ring(max(c.diameter, 0.003), 10),)
        kit.bodies.append(Prism("cutter", "cutter", (x, y, tip_z), (x, y, nose_z - 0.012), Y, thin))


def _buy(kit: Kit, s: Spindle, c: Cutter) -> None:
    shank = round_values(c.shank or c.diameter, c.material)
    long = 0.0 if c.stick_out - c.fluted <= SHORT else c.stick_out - c.fluted
    mass = shank.mass_per_metre * long + fluted_values(c).mass_per_metre * (c.stick_out - long)
    kit.buy(Line("spindle", "spindle", 1, 0.0, s.mass, ("spindle",)))
    kit.buy(Line("cutter", f"cutter ⌀{c.diameter * 1e3:g}", 1, c.stick_out, mass, ("cutter",)))
