"""Where everything sits, from the dimensions. Metres, the machine's axes."""

from dataclasses import dataclass

from unterbau.catalogue.guides import block
from unterbau.errors import InputError
from unterbau.machine.frame_builder import merged, subdivided
from unterbau.machine.kinds.moving_gantry.model import MovingGantry
from unterbau.machine.kit.checks import check_parts, check_sizes, within
from unterbau.machine.kit.sets import CROSS_MEMBERS, HEAD_SIZES
from unterbau.machine.member import member_size
from unterbau.machine.parts import Place

CLAMP = 0.03  # half the height of the spindle clamp
BED_MARGIN = 0.05
SIZES = (*HEAD_SIZES, CROSS_MEMBERS)


@dataclass(frozen=True, slots=True)
class Geometry:
    """All derived places for one head place."""

    head_x: float
    head_y: float
    tip_z: float
    nose_z: float
    clamp_z: float
    z_plate_y: float
    x_plate_y: float
    rail_y: float
    """Seat of the X rails: the beam's front face."""
    beam_y: float
    beam_z: float
    beam_length: float
    x_rail_z: tuple[float, float]
    z_block_z: tuple[float, float]
    z_plate_z: tuple[float, float]
    x_plate_z: tuple[float, float]
    x_plate_width: float
    z_plate_width: float
    side_x: float
    side_y: float
    side_width: float
    side_foot: float
    """Underside of the side plates."""
    side_top: float
    side_beam_top: float
    side_beam_y: tuple[float, float]
    bed_width: float
    bed_length: float
    cross_length: float
    cross_y: tuple[float, ...]
    grid_x: tuple[float, ...]
    grid_y: tuple[float, ...]


def check(machine: MovingGantry) -> None:
    """Check that the dimensions make a machine.

    Raises:
        InputError: Names the dimension and says what was expected.
    """
    check_sizes(machine.dimensions, SIZES)
    check_parts(machine)
    for name in ("bed", "side", "x_plate", "z_plate"):
        within(f"{name}.thickness", getattr(machine, name).thickness, 0.002, 0.12)
    for name, most in (("x_drive", 1), ("y_drive", 2), ("z_drive", 1)):
        count = getattr(machine, name).count
        if count > most:
            raise InputError(f"{name}.count", f"expected 1 to {most}, got {count}")


def geometry(machine: MovingGantry, place: Place) -> Geometry:
    """Return all places of a machine with its head at a place."""
    d = machine.dimensions
    x_block, y_block, z_block = (block(g.block) for g in (machine.x_guides, machine.y_guides, machine.z_guides))
    beam_h, beam_w = member_size(machine.gantry_beam)
    _, side_beam_w = member_size(machine.side_beam)
    tx, tz = machine.x_plate.thickness, machine.z_plate.thickness
    tip0 = d.lowest_tip
    clamp0 = tip0 + machine.cutter.stick_out + d.clamp_height
    raised = place.z * d.travel_z
    z_low = clamp0 - CLAMP + d.travel_z + z_block.length / 2 + d.stop
    z_blocks = (z_low, z_low + d.z_stance)
    beam_z = d.clearance + beam_h / 2
    spacing = max(beam_h - x_block.width, 0.6 * beam_h)
    rails = (beam_z - spacing / 2, beam_z + spacing / 2)
    head_y = (place.y - 0.5) * d.travel_y
    z_plate_y = head_y + d.spindle_overhang
    x_plate_y = z_plate_y + tz / 2 + z_block.height + tx / 2
    rail_y = x_plate_y + tx / 2 + x_block.height
    beam_y = rail_y + beam_w / 2
    side_width = d.y_stance + y_block.length
    side_y = beam_y + beam_w / 2 - side_width / 2
    beam_length = d.travel_x + d.x_stance + x_block.length + 2 * d.stop
    side_x = beam_length / 2 + machine.side.thickness / 2
    top = -machine.bed.thickness
    bed_width = 2 * side_x - side_beam_w - 2 * max(0.005, (y_block.width - side_beam_w) / 2 + 0.01)
    bed_length = d.travel_y + 2 * BED_MARGIN
    reach = side_width / 2 + d.stop + d.travel_y / 2
    middle = side_y - head_y
    _, cross_w = member_size(machine.cross_member)
    end = bed_length / 2 - cross_w / 2
    n = d.cross_members
    cross = tuple(-end + 2 * end * k / (n - 1) for k in range(n))
    grid_y = merged([*cross, -bed_length / 2, bed_length / 2, -d.travel_y / 2, 0.0, d.travel_y / 2])
    inner = [d.travel_x * f for f in (-0.5, -0.25, 0.0, 0.25, 0.5)]
    grid_x = merged([-bed_width / 2, bed_width / 2, *(x for x in inner if abs(x) < bed_width / 2 - 1e-3)])
    return Geometry(
        head_x=(place.x - 0.5) * d.travel_x, head_y=head_y,
        tip_z=tip0 + raised, nose_z=tip0 + machine.cutter.stick_out + raised, clamp_z=clamp0 + raised,
        z_plate_y=z_plate_y, x_plate_y=x_plate_y, rail_y=rail_y, beam_y=beam_y, beam_z=beam_z,
        beam_length=beam_length, x_rail_z=rails, z_block_z=z_blocks,
        z_plate_z=(clamp0 - CLAMP + raised, z_blocks[1] + z_block.length / 2 + d.stop + raised),
        x_plate_z=(
            min(z_blocks[0] - z_block.length / 2, rails[0] - x_block.width / 2),
            max(z_blocks[1] + z_block.length / 2, rails[1] + x_block.width / 2),
        ),
        x_plate_width=d.x_stance + x_block.length, z_plate_width=d.z_rail_spacing + z_block.width,
        side_x=side_x, side_y=side_y, side_width=side_width,
        side_foot=top + y_block.height, side_top=beam_z + beam_h / 2, side_beam_top=top,
        side_beam_y=(min(middle - reach, -bed_length / 2), max(middle + reach, bed_length / 2)),
        bed_width=bed_width, bed_length=bed_length, cross_length=2 * side_x - side_beam_w,
        cross_y=cross, grid_x=tuple(subdivided(grid_x, 6)), grid_y=tuple(subdivided(grid_y, 6)),
    )  # fmt: skip


def feet_places(machine: MovingGantry, at: Geometry) -> list[tuple[float, float, float]]:
    """Return where the feet stand, in the order of the frame's."""
    z = at.side_beam_top - member_size(machine.side_beam)[0]
    return [(side * at.side_x, y, z) for side in (-1, 1) for y in at.side_beam_y]
