"""A mill's head on upright rails behind the spindle: head plate, arm forward, spindle at its end."""

from unterbau.catalogue.guides import block
from unterbau.catalogue.ropes import rope_for
from unterbau.machine.assemblies.head import FORWARD, spindle
from unterbau.machine.assemblies.motion import carriage, drive, rail
from unterbau.machine.assemblies.needs import MillParts
from unterbau.machine.assemblies.pieces import beam, fasten, lay_plate, rib
from unterbau.machine.assemblies.table import table_dimension_lines
from unterbau.structure.join import Counterweight
from unterbau.structure.layout import Layout
from unterbau.structure.lines import moving_masses
from unterbau.structure.looks import CLAMP
from unterbau.structure.piece import Bar
from unterbau.structure.spot import NUT, Spot
from unterbau.structure.vectors import Y, Z
from unterbau.structure.weights import member_size

IRON = 7200.0
"""Density of a cast-iron counterweight, kg/m³; handbook value of grey iron."""
BELOW_PULLEY, BEHIND_COLUMN = 0.06, 0.02
"""From a pulley down to a counterweight at its highest, and from a column back to it, m."""
THINNEST = 0.05
"""Of a counterweight, m."""


def head_heights(lay: Layout[MillParts]) -> tuple[float, float]:
    """Return the height of the arm's axis with the head lowest, and the top of the rails that this needs, m."""
    m, d = lay.machine, lay.machine.dimensions
    arm = d.lowest_tip + m.cutter.stick_out + d.clamp_height
    size = block(m.z_guides.block)
    return arm, arm + d.z_stance / 2 + size.length / 2 + d.travel_z + d.stop


def mill_head(lay: Layout[MillParts], columns: tuple[Bar, Bar], face_y: float, top: float) -> None:
    """Hang a head on rails on the front of one or two columns.

    Args:
        lay: The machine; parts `head_plate`, `head_arm`, `arm_joint`, `z_guides`, `z_drive`, `mount_plate`.
        columns: Host of the left and the right rail, perhaps the same.
        face_y: The columns' front face.
        top: Upper end of the rails.
    """
    m, d = lay.machine, lay.machine.dimensions
    size = block(m.z_guides.block)
    arm_z = head_heights(lay)[0]
    low = arm_z - d.z_stance / 2 - size.length / 2
    bottom = max(columns[0].start[2], arm_z - d.z_stance / 2 - size.length / 2 - d.stop)
    for side, column in zip((-1, 1), columns, strict=True):
        x = side * d.z_rail_spacing / 2
        rail(lay, "z_guides", m.z_guides, column, (x, face_y, bottom), (x, face_y, top), FORWARD)
    plate_y = face_y - size.height - m.head_plate.thickness / 2
    with lay.moved_by("Z"):
        high = low + d.z_stance + size.length
        wide = d.z_rail_spacing + size.width
        plate = lay_plate(
            lay, "head_plate", m.head_plate, "head plate", (0.0, plate_y, low), (0.0, plate_y, high), wide, Y
        )
        rib(lay, m.head_plate, plate, FORWARD)
        seats = [
            (column, (side * d.z_rail_spacing / 2, face_y, arm_z + end * d.z_stance / 2))
            for side, column in zip((-1, 1), columns, strict=True) for end in (-1, 1)
        ]  # fmt: skip
        carriage(lay, "z_guides", m.z_guides, plate, seats, Z, FORWARD)
        mount_y = m.spindle.diameter / 2 + 0.01 + m.mount_plate.thickness / 2
        arm = beam(lay, "head_arm", m.head_arm, "head arm", (0.0, plate_y, arm_z), (0.0, mount_y, arm_z), Z, pieces=4)
        fasten(lay, "arm_joint", m.arm_joint, arm, False, plate)
        height = member_size(m.head_arm)[0] / 2
        across = m.spindle.diameter + 0.03
        ends = ((0.0, mount_y, arm_z - max(height, CLAMP)), (0.0, mount_y, arm_z + max(height, CLAMP)))
        mount = lay_plate(lay, "mount_plate", m.mount_plate, "mount plate", *ends, across, Y)
        fasten(lay, "mount_joint", m.mount_joint, arm, True, mount)
        nose = arm_z - d.clamp_height
        spindle(lay, mount, arm_z, nose, nose - m.cutter.stick_out)
    nut = lay.near(plate, (0.0, plate_y, arm_z), NUT)
    drive(
        lay,
        "z_drive",
        m.z_drive,
        ("z_motor", m.z_motor),
        nut,
        columns[0].last,
        Z,
        0.0,
        columns[0],
        (0.0, d.travel_z),
        (0.0, m.head_plate.thickness / 2 + size.height / 2, 0.0),
    )


def mill_dimension_lines(lay: Layout[MillParts], face_y: float, bottom: float) -> None:
    """Draw the sizes of a mill with a cross table."""
    m, d = lay.machine, lay.machine.dimensions
    arm_z = head_heights(lay)[0]
    table_dimension_lines(lay, bottom)
    lay.size_across("z_rail_spacing", "Z rails", "front", (0.0, arm_z + d.z_stance / 2), d.z_rail_spacing, 2, "Z")
    lay.size(
        "throat",
        "throat",
        "side",
        (face_y, arm_z + d.z_stance / 2 + 0.05),
        (0.0, arm_z + d.z_stance / 2 + 0.05),
        1,
        moves="Z",
    )
    front = -m.spindle.diameter / 2
    nose = arm_z - d.clamp_height
    lay.size("lowest_tip", "tip, lowest", "side", (front, 0.0), (front, d.lowest_tip), -1)
    lay.size("clamp_height", "nose to arm", "side", (front, nose), (front, arm_z), -2, moves="Z")
    lay.size("travel_z", "travel Z", "side", (front, nose), (front, nose + d.travel_z), -3)
    back = (face_y + 0.05, arm_z - d.z_stance / 2)
    lay.size("z_stance", "Z blocks", "side", back, (back[0], back[1] + d.z_stance), 1, 2.0, "Z")


def counterweight(lay: Layout[MillParts], column: Bar) -> None:
    """Hang a weight as heavy as all that Z moves on a rope over pulleys at a column's top, behind the column."""
    d = lay.machine.dimensions
    mass = moving_masses(lay.so_far())["Z"]
    deep, wide = member_size(column.part)
    x, y, top = column.end
    room = top - BELOW_PULLEY - d.travel_z - column.start[2]
    thick = max(THINNEST, mass / (IRON * wide * room))
    tall = mass / (IRON * wide * thick)
    arm_z = head_heights(lay)[0]
    hook = Spot("head plate", (x, lay_y(lay), arm_z + d.z_stance / 2), NUT)
    rope = rope_for(mass, top - hook.place[2] + deep + 2 * BELOW_PULLEY)
    middle = (x, y + deep / 2 + BEHIND_COLUMN + thick / 2, top - BELOW_PULLEY - tall / 2)
    with lay.moved_by("z"):
        lay.add(Counterweight("z_drive", mass, column.last, hook, rope, (wide, thick, tall), middle, lay.carrier))


def lay_y(lay: Layout[MillParts]) -> float:
    """Return the middle of the head plate from the spindle's axis backwards, m."""
    m, d = lay.machine, lay.machine.dimensions
    return d.throat - block(m.z_guides.block).height - m.head_plate.thickness / 2
