"""The head: plates that run on a beam or a column, spindle, cutter."""

from dataclasses import dataclass

from unterbau.catalogue.drives import drive as drive_kind
from unterbau.catalogue.guides import block
from unterbau.machine.assemblies.cures import CLAMP_NEARER, LOWER, OVERHANG, X_STANCE, Y_STANCE, Z_STANCE
from unterbau.machine.assemblies.motion import carriage, drive, motor_width, rail
from unterbau.machine.assemblies.needs import HeadParts, SlideParts, SpindleParts
from unterbau.machine.assemblies.pieces import lay_plate, rib
from unterbau.machine.assemblies.rims import rim
from unterbau.machine.kind import CLAMPS, FRAME_JOINTS, Link, Related, SizeField
from unterbau.structure.join import Payload
from unterbau.structure.layout import Layout
from unterbau.structure.looks import CLAMP
from unterbau.structure.motion import SpindleUnit
from unterbau.structure.parts import Plate
from unterbau.structure.piece import Bar, PlatePiece
from unterbau.structure.spot import NUT, Spot
from unterbau.structure.vectors import Vector, X, Y, Z
from unterbau.structure.weights import member_size

BEHIND = 0.004
"""Between a Z motor and the plate before it, m."""
SPINDLE_LINKS = (
    Link("cutter", "cutter", "part", "in the spindle"),
    Link("collet", "collet", "joint", "cutter in the spindle"),
    Link("spindle", "spindle", "part", "bearings between nose and body"),
)
HEAD_LINKS = (
    *SPINDLE_LINKS,
    Link("spindle_mount", "spindle clamp", "joint", "spindle to Z plate"),
    Link("z_plate", "Z plate", "part", "carries the spindle, runs up and down"),
    Link("z_guides", "Z guides", "guide", "Z plate to X plate"),
    Link("z_drive", "Z drive", "drive", "holds the head up"),
    Link("z_motor", "Z motor", "drive", "holds the Z drive still"),
    Link("x_plate", "X plate", "part", "runs along the beam"),
    Link("x_guides", "X guides", "guide", "X plate to beam"),
    Link("x_drive", "X drive", "drive", "along the beam"),
    Link("x_motor", "X motor", "drive", "holds the X drive still"),
    Link("gantry_beam", "gantry beam", "part", "between the sides"),
    Link("beam_joint", "beam ends", "joint", "gantry beam to sides"),
)
HEAD_SIZES = (
    SizeField("travel_x", "travel X", 0.05, 6.0),
    SizeField("travel_y", "travel Y", 0.05, 6.0),
    SizeField("travel_z", "travel Z", 0.02, 1.0),
    SizeField("clearance", "bed to beam", 0.02, 1.5),
    SizeField("lowest_tip", "tool tip over bed, lowest", 0.0, 0.5),
    SizeField("x_stance", "stance of X blocks", 0.04, 1.5),
    SizeField("y_stance", "stance of Y blocks", 0.04, 2.0),
    SizeField("z_stance", "stance of Z blocks", 0.03, 1.0),
    SizeField("z_rail_spacing", "between Z rails", 0.03, 0.6),
    SizeField("spindle_overhang", "spindle axis to Z plate", 0.02, 0.4),
    SizeField("clamp_height", "nose to clamp", 0.02, 0.4),
    SizeField("stop", "way left at each end", 0.0, 0.2),
)
HEAD_ENDS = {"gantry_beam": "beam_joint", "side": "beam_joint", "spindle": "spindle_mount"}
HEAD_FITTING = {"beam_joint": FRAME_JOINTS, "spindle_mount": CLAMPS}
HEAD_RELATED = {
    "spindle": (CLAMP_NEARER,),
    "spindle_mount": (CLAMP_NEARER, OVERHANG),
    "z_plate": (Z_STANCE, CLAMP_NEARER, Related("z_rail_spacing", 1.3, "Z rails further apart")),
    "z_guides": (
        Z_STANCE, Related("z_stance", 1.6, "Z blocks much further apart"),
        Related("z_rail_spacing", 1.3, "Z rails further apart"), OVERHANG,
    ),
    "x_plate": (Z_STANCE, X_STANCE),
    "x_guides": (X_STANCE, Related("x_stance", 1.6, "X blocks much further apart"), OVERHANG),
    "gantry_beam": (LOWER, OVERHANG),
    "beam_joint": (LOWER,),
    "side": (LOWER, Y_STANCE),
    "y_guides": (Y_STANCE, Related("y_stance", 1.6, "Y blocks much further apart"), LOWER),
}  # fmt: skip
FORWARD = (0.0, -1.0, 0.0)
DOWN = (0.0, 0.0, -1.0)
UNDER_BEARING = 0.02  # of the nut at its highest
LIP = 0.015  # of a carriage over blocks on a top or bottom face


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


def slide(machine: SlideParts, carrier: Plate) -> Slide:
    """Return the places of a Z slide on a plate, as low as it goes."""
    d = machine.dimensions
    size = block(machine.z_guides.block)
    tip = d.lowest_tip
    clamp = tip + machine.cutter.stick_out + d.clamp_height
    low = clamp - CLAMP + d.travel_z + size.length / 2 + d.stop
    blocks = (low, low + d.z_stance)
    z_plate = d.spindle_overhang
    return Slide(
        tip, tip + machine.cutter.stick_out, clamp, z_plate,
        z_plate + machine.z_plate.thickness / 2 + size.height + carrier.thickness / 2, blocks,
        (clamp - CLAMP, blocks[1] + size.length / 2 + d.stop),
    )  # fmt: skip


def beam_seat(machine: HeadParts) -> float:
    """Return how far behind the spindle's axis the rails on a beam's front face have their seat, m."""
    carrier: Plate = machine.x_plate
    return slide(machine, carrier).carrier_y + carrier.thickness / 2 + block(machine.x_guides.block).height


@dataclass(frozen=True, slots=True)
class BeamRail:
    """A rail along a beam."""

    y: float
    """Its seat from the beam's middle, m."""
    z: float
    up: Vector
    """Off the seat."""


def beam_rails(machine: HeadParts, beam_z: float) -> tuple[BeamRail, BeamRail]:
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


def head_on_beam(lay: Layout[HeadParts], beam: Bar, rails: tuple[BeamRail, BeamRail], carried: str = "Y") -> None:
    """Hang a head with X plate, Z plate and spindle on the front of a beam along X; its spindle stands at x = y = 0.

    `carried` are the axes that move the beam.
    """
    m, d = lay.machine, lay.machine.dimensions
    at = slide(m, m.x_plate)
    size = block(m.x_guides.block)
    half = size.width / 2 + rim(size, m.x_plate.material)
    reach = [one.z + side * half if one.up is FORWARD else one.z + one.up[2] * (size.height + LIP)
             for one in rails for side in (-1, 1)]  # fmt: skip
    low = min(at.z_block_z[0] - block(m.z_guides.block).length / 2, *reach)
    high = max(at.z_block_z[1] + block(m.z_guides.block).length / 2, *reach)
    with lay.moved_by("X" + carried):
        place = (0.0, at.carrier_y)
        plate = lay_plate(
            lay, "x_plate", m.x_plate, "X plate", (*place, low), (*place, high), d.x_stance + size.length, Y
        )
        for one in rails:
            seats = [(beam, (side * d.x_stance / 2, beam.start[1] + one.y, one.z)) for side in (-1, 1)]
            carriage(lay, "x_guides", m.x_guides, plate, seats, X, one.up)
    with lay.moved_by(carried):
        nut = lay.near(plate, (0.0, place[1], (rails[0].z + rails[1].z) / 2 + m.x_drive.offset), NUT)
        way, gap = (-d.travel_x / 2, d.travel_x / 2), (0.0, m.x_plate.thickness / 2 + size.height / 2, 0.0)
        kind = drive_kind(m.x_drive.kind)
        length = beam.length + (sum(kind.ends) if kind.nut else 0.0)  # bearings stand beyond the beam's ends
        drive(lay, "x_drive", m.x_drive, ("x_motor", m.x_motor), nut, beam.first, X, length, beam, way, gap)
    z_slide(lay, plate, at, "X" + carried)


def z_slide(lay: Layout[SlideParts], carrier: PlatePiece, at: Slide, moved_by: str) -> None:
    """Put a Z plate with its rails on the blocks of a carrier plate, and the spindle on it, its axis at x = y = 0.

    Args:
        lay: The machine.
        carrier: The plate that carries the blocks.
        at: The slide's places.
        moved_by: The axes that move the carrier.
    """
    m, d = lay.machine, lay.machine.dimensions
    size = block(m.z_guides.block)
    (bottom, top), behind = at.z_plate_z, at.z_plate_y
    with lay.moved_by(f"{moved_by}Z"):
        wide = d.z_rail_spacing + size.width
        plate = lay_plate(lay, "z_plate", m.z_plate, "Z plate", (0.0, behind, bottom), (0.0, behind, top), wide, Y)
        rib(lay, m.z_plate, plate, FORWARD)
        back = behind + m.z_plate.thickness / 2
        for side in (-1, 1):
            across = side * d.z_rail_spacing / 2
            rail(lay, "z_guides", m.z_guides, plate, (across, back, bottom), (across, back, top), Y)
    with lay.moved_by(moved_by):
        seats = [(plate, (side * d.z_rail_spacing / 2, back, z)) for z in at.z_block_z for side in (-1, 1)]
        carriage(lay, "z_guides", m.z_guides, carrier, seats, Z, Y)
        aside = m.z_drive.offset
        away = (size.height + motor_width(m.z_drive, m.z_motor)) / 2 + carrier.height + BEHIND
        behind_carrier = (0.0, away, 0.0)  # the Z plate rises past where a motor over the screw would be
        highest = carrier.end[2] - d.travel_z - drive_kind(m.z_drive.kind).nut_length / 2 - UNDER_BEARING
        nut = lay.near(plate, (aside, behind, max(bottom, min((bottom + top) / 2, highest))), NUT)
        bearing = lay.near(carrier, (aside, carrier.end[1], carrier.end[2]), NUT)
        drive(
            lay,
            "z_drive",
            m.z_drive,
            ("z_motor", m.z_motor),
            nut,
            bearing,
            Z,
            0.0,
            carrier,
            (0.0, d.travel_z),
            (0.0, m.z_plate.thickness / 2 + size.height / 2, 0.0),
            behind_carrier,
        )
    with lay.moved_by(f"{moved_by}Z"):
        spindle(lay, plate, at.clamp_z, at.nose_z, at.tip_z)


def spindle(lay: Layout[SpindleParts], plate: PlatePiece, clamp_z: float, nose_z: float, tip_z: float) -> None:
    """Clamp a spindle to a plate that stands behind it, and put a cutter in; its axis is at x = y = 0."""
    m = lay.machine
    lay.add(
        SpindleUnit(
            m.spindle, m.cutter, m.spindle_mount, m.collet, plate.name, 0.0, 0.0, clamp_z, nose_z, tip_z, lay.carrier
        )
    )
    if m.payload:
        lay.add(Payload(Spot("spindle nose", (0.0, 0.0, nose_z)), m.payload, lay.carrier))
    lay.nose, lay.tip = Spot("spindle nose", (0.0, 0.0, nose_z)), Spot("tool tip", (0.0, 0.0, tip_z))
