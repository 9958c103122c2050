"""The router's list of parts; its masses are those of the frame."""

import math

from unterbau.catalogue.drives import drive
from unterbau.catalogue.guides import block
from unterbau.machine.bill import Line
from unterbau.machine.joining import joint_kind
from unterbau.machine.kinds.moving_gantry.gantry import FOOT_STRIP
from unterbau.machine.kinds.moving_gantry.geometry import Geometry, feet_places, geometry
from unterbau.machine.kinds.moving_gantry.model import MovingGantry
from unterbau.machine.member import member_lines, plate_line
from unterbau.machine.parts import Drive, Guide, Joint, Place
from unterbau.machine.stand import stand_lines
from unterbau.materials.material import material


def lines(machine: MovingGantry) -> tuple[Line, ...]:
    """Return every item of the machine."""
    at, m = geometry(machine, Place()), machine
    side_beam = at.side_beam_y[1] - at.side_beam_y[0]
    z_height = at.z_plate_z[1] - at.z_plate_z[0]
    return (
        *member_lines("side_beam", m.side_beam, 2, side_beam),
        *member_lines("cross_member", m.cross_member, len(at.cross_y), at.cross_length),
        *member_lines("gantry_beam", m.gantry_beam, 1, at.beam_length),
        plate_line("bed", m.bed, 1, at.bed_width, at.bed_length),
        plate_line("side", m.side, 2, *_side_area(m, at)),
        plate_line("x_plate", m.x_plate, 1, at.x_plate_width, at.x_plate_z[1] - at.x_plate_z[0]),
        plate_line("z_plate", m.z_plate, 1, at.z_plate_width, z_height),
        _joint("cross_joint", m.cross_joint, 2 * len(at.cross_y)),
        _joint("beam_joint", m.beam_joint, 2),
        _joint("bed_fixing", m.bed_fixing, len(at.cross_y) * len(at.grid_x)),
        _joint("spindle_mount", m.spindle_mount, 1),
        *_guide("y_guides", m.y_guides, side_beam),
        *_guide("x_guides", m.x_guides, at.beam_length),
        *_guide("z_guides", m.z_guides, z_height),
        _drive("y_drive", m.y_drive, side_beam),
        _drive("x_drive", m.x_drive, at.beam_length),
        _drive("z_drive", m.z_drive, m.dimensions.travel_z + 0.06),
        Line("spindle", "spindle", 1, 0.0, m.spindle.mass, ("spindle",)),
        Line("cutter", f"cutter ⌀{m.cutter.diameter * 1e3:g}", 1, m.cutter.stick_out, _cutter_mass(m), ("cutter",)),
        *stand_lines(m.stand, feet_places(m, at)),
    )


def plate_widths(machine: MovingGantry) -> dict[str, float]:
    """Return the width of each plate, m."""
    at = geometry(machine, Place())
    return {"bed": at.bed_width, "side": at.side_width, "x_plate": at.x_plate_width, "z_plate": at.z_plate_width}


def moving_masses(machine: MovingGantry) -> dict[str, float]:
    """Return what each drive moves, kg, by axis.

    Rails count to what they are bolted on, motors to what carries them.
    """
    at, m = geometry(machine, Place()), machine
    items = lines(machine)

    def of(*parts: str) -> float:
        return sum(item.mass for item in items if item.part in parts)

    blocks = {
        axis: 4 * block(g.block).block_mass for axis, g in (("X", m.x_guides), ("Y", m.y_guides), ("Z", m.z_guides))
    }
    z_rails = 2 * block(m.z_guides.block).rail_mass * (at.z_plate_z[1] - at.z_plate_z[0])
    z = of("spindle", "cutter", "z_plate") + z_rails
    x = z + of("x_plate", "z_drive") + blocks["Z"] + blocks["X"]
    x_rails = 2 * block(m.x_guides.block).rail_mass * at.beam_length
    y = x + of("gantry_beam", "side", "x_drive") + x_rails + blocks["Y"]
    return {"X": x, "Y": y, "Z": z}


def _side_area(m: MovingGantry, at: Geometry) -> tuple[float, float]:
    """Return width and length with the area of one side plate's strips as modelled."""
    upright = at.side_width * (at.side_top - at.side_foot - FOOT_STRIP / 2)
    foot = FOOT_STRIP / 2 * m.dimensions.y_stance
    return at.side_width, (upright + foot) / at.side_width


def _joint(part: str, joint: Joint, faces: int) -> Line:
    return Line(part, joint_kind(joint).label, faces * joint.count, 0.0, 0.0, (f"joint:{joint.kind}",))


def _guide(part: str, guide: Guide, rail: float) -> tuple[Line, ...]:
    size = block(guide.block)
    rails = Line(part, f"rail {size.label}", 2, rail, 2 * rail * size.rail_mass, (f"rail:{guide.block}",))
    return (rails, Line(part, f"block {size.label}", 4, 0.0, 4 * size.block_mass, (f"block:{guide.block}",)))


def _drive(part: str, chosen: Drive, length: float) -> Line:
    kind = drive(chosen.kind)
    mass = chosen.count * (kind.motor_mass + kind.mass_per_metre * length)
    return Line(part, f"{kind.label} with motor", chosen.count, length, mass, (f"drive:{chosen.kind}",))


def _cutter_mass(m: MovingGantry) -> float:
    c = m.cutter
    return material(c.material).rho * math.pi * c.diameter**2 / 4 * c.stick_out
