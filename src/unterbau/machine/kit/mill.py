"""A mill's head on upright rails behind the spindle: head plate, arm forward, spindle at its end."""

from unterbau.catalogue.guides import block
from unterbau.machine.bill import Line
from unterbau.machine.kit.guides import carriage, drive, rail
from unterbau.machine.kit.head import CLAMP, FORWARD, spindle
from unterbau.machine.kit.kit import Kit, Laid
from unterbau.machine.kit.members import beam, fasten
from unterbau.machine.kit.plates import NUT, lay_plate
from unterbau.machine.kit.ribs import rib
from unterbau.machine.kit.table import table_dimension_lines
from unterbau.machine.member import member_size
from unterbau.structure.vectors import Y, Z


def head_heights(kit: Kit) -> tuple[float, float]:
    """Return the height of the arm's axis with the head lowest, and the top of the rails that this needs, m."""
    m, d = kit.machine, kit.machine.dimensions
    arm = d.lowest_tip + m.cutter.stick_out + d.clamp_height
    size = block(m.z_guides.block)
    return arm, arm + d.z_stance / 2 + size.length / 2 + d.travel_z + d.stop


def mill_head(kit: Kit, columns: tuple[Laid, Laid], face_y: float, top: float) -> None:
    """Hang a head on rails on the front of one or two columns.

    Args:
        kit: The machine; parts `head_plate`, `head_arm`, `arm_joint`, `z_guides`, `z_drive`, `mount_plate`.
        columns: Host of the left and the right rail, perhaps the same.
        face_y: The columns' front face.
        top: Upper end of the rails.
    """
    m, d = kit.machine, kit.machine.dimensions
    size = block(m.z_guides.block)
    raised = kit.place.z * d.travel_z
    arm_z = head_heights(kit)[0] + raised
    low = arm_z - d.z_stance / 2 - size.length / 2
    bottom = max(columns[0].start[2], arm_z - raised - d.z_stance / 2 - size.length / 2 - d.stop)
    for side, column in zip((-1, 1), columns, strict=True):
        x = side * d.z_rail_spacing / 2
        rail(kit, "z_guides", column, (x, face_y, bottom), (x, face_y, top), FORWARD)
    plate_y = face_y - size.height - m.head_plate.thickness / 2
    with kit.moved_by("Z"):
        high = low + d.z_stance + size.length
        wide = d.z_rail_spacing + size.width
        plate = lay_plate(kit, "head_plate", "head plate", (0.0, plate_y, low), (0.0, plate_y, high), wide, Y)
        rib(kit, plate, FORWARD)
        seats = [
            (column, (side * d.z_rail_spacing / 2, face_y, arm_z + end * d.z_stance / 2))
            for side, column in zip((-1, 1), columns, strict=True) for end in (-1, 1)
        ]  # fmt: skip
        carriage(kit, "z_guides", plate, seats, Z, FORWARD)
        mount_y = m.spindle.diameter / 2 + 0.01 + m.mount_plate.thickness / 2
        arm = beam(kit, "head_arm", "head arm", (0.0, plate_y, arm_z), (0.0, mount_y, arm_z), Z, pieces=4)
        fasten(kit, "arm_joint", arm, False, plate)
        height = member_size(m.head_arm)[0] / 2
        across = m.spindle.diameter + 0.03
        ends = ((0.0, mount_y, arm_z - max(height, CLAMP)), (0.0, mount_y, arm_z + max(height, CLAMP)))
        mount = lay_plate(kit, "mount_plate", "mount plate", *ends, across, Y)
        fasten(kit, "mount_joint", arm, True, mount)
        nose = arm_z - d.clamp_height
        spindle(kit, mount, (0.0, 0.0), arm_z, nose, nose - m.cutter.stick_out)
    nut = kit.near(plate, (0.0, plate_y, arm_z), NUT)
    drive(kit, "z_drive", nut, columns[0].chain.nodes[-1], Z, d.travel_z + 0.1, columns[0])


def mill_dimension_lines(kit: Kit, face_y: float, bottom: float) -> None:
    """Draw the sizes of a mill with a cross table."""
    m, d = kit.machine, kit.machine.dimensions
    raised = kit.place.z * d.travel_z
    arm_z = head_heights(kit)[0] + raised
    table_dimension_lines(kit, bottom)
    kit.size_across("z_rail_spacing", "Z rails", "front", (0.0, arm_z + d.z_stance / 2), 2)
    kit.size(
        "throat", "throat", "side", (face_y, arm_z + d.z_stance / 2 + 0.05), (0.0, arm_z + d.z_stance / 2 + 0.05), 1
    )
    front = -m.spindle.diameter / 2
    nose = arm_z - d.clamp_height
    kit.size("lowest_tip", "tip, lowest", "side", (front, 0.0), (front, d.lowest_tip), -1)
    kit.size("clamp_height", "nose to arm", "side", (front, nose), (front, arm_z), -2)
    kit.size("travel_z", "travel Z", "side", (front, nose - raised), (front, nose - raised + d.travel_z), -3)
    back = (face_y + 0.05, arm_z - d.z_stance / 2)
    kit.size("z_stance", "Z blocks", "side", back, (back[0], back[1] + d.z_stance), 1, 2.0)


def counterweight(kit: Kit, column: Laid) -> None:
    """Hang a weight as heavy as the head over a pulley at a column's top.

    It is moved with the head and rests on the column's top; the drive holds neither any more. The
    head's own weight stays where the frame has it: the drive's stretch by it is left in, on the safe side.
    """
    mass = kit.moving["Z"]
    kit.frame.mass(column.chain.nodes[-1], mass)
    with kit.moved_by("Z"):
        kit.buy(Line("z_drive", "counterweight with pulley", 1, 0.0, mass, ("counterweight", "bar:iron")))
