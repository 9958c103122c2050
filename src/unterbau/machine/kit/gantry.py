"""A gantry on two rails along Y: side plates on blocks, a beam between them, the head on the beam."""

from dataclasses import dataclass

from unterbau.catalogue.guides import block
from unterbau.machine.joining import overhang_of
from unterbau.machine.kit.guides import carriage, drive, rail
from unterbau.machine.kit.gussets import gusset, gusset_stops
from unterbau.machine.kit.head import BeamRail, beam_rails, beam_seat, head_on_beam, slide
from unterbau.machine.kit.kit import Kit, Laid
from unterbau.machine.kit.members import beam, fasten
from unterbau.machine.kit.plates import NUT, LaidPlate, lay_plate
from unterbau.machine.kit.ribs import rib
from unterbau.machine.member import member_size
from unterbau.structure.vectors import X, Y, Z

DOWN = (0.0, 0.0, -1.0)
FOOT = 0.04  # from a side plate's lower edge up to where its nut is bolted on


@dataclass(frozen=True, slots=True)
class GantryPlaces:
    """Where a gantry stands; y for the head in the middle of its travel."""

    head_x: float
    head_y: float
    beam_length: float
    beam_y: float
    """Middle of the beam behind the spindle's axis."""
    beam_z: float
    rails: tuple[BeamRail, BeamRail]
    """Along the beam, from its middle."""
    side_x: float
    side_y: float
    """Middle of the side plates behind the spindle's axis."""
    side_width: float

    @property
    def reach(self) -> tuple[float, float]:
        """From the spindle's axis to the front and back edge of the side plates."""
        return self.side_y - self.side_width / 2, self.side_y + self.side_width / 2


def gantry_places(kit: Kit) -> GantryPlaces:
    """Return the places of a gantry with its beam's underside at the clearance over the bed."""
    m, d = kit.machine, kit.machine.dimensions
    beam_h, beam_w = member_size(m.gantry_beam)
    x_block, y_block = block(m.x_guides.block), block(m.y_guides.block)
    beam_z = d.clearance + beam_h / 2
    rails = beam_rails(m, beam_z)
    length = d.travel_x + d.x_stance + x_block.length + 2 * d.stop
    beam_y = beam_seat(m) + beam_w / 2
    width = d.y_stance + y_block.length
    return GantryPlaces(
        (kit.place.x - 0.5) * d.travel_x, (kit.place.y - 0.5) * d.travel_y, length, beam_y, beam_z,
        rails, length / 2 + m.side.thickness / 2,
        beam_y + beam_w / 2 + overhang_of(m.beam_joint) - width / 2, width,
    )  # fmt: skip


def bridge_beam(kit: Kit, at: GantryPlaces, y: float, sides: tuple[LaidPlate, LaidPlate]) -> Laid:
    """Lay the beam between two sides, with its rails on the front face."""
    half = at.beam_length / 2
    where = y + at.beam_y
    stops = gusset_stops(kit.machine.beam_joint)
    both = (*stops, *(at.beam_length - stop for stop in stops))
    laid = beam(
        kit, "gantry_beam", "gantry beam", (-half, where, at.beam_z), (half, where, at.beam_z), Z, both, 8, carries=True
    )
    for last, host in zip((False, True), sides, strict=True):
        under = fasten(kit, "beam_joint", laid, last, host)
        gusset(kit, "beam_joint", laid, last, under, (DOWN,))
    for one in at.rails:
        rail(kit, "x_guides", laid, (-half, where + one.y, one.z), (half, where + one.y, one.z), one.up)
    return laid


def gantry_on_rails(
    kit: Kit, hosts: tuple[Laid | LaidPlate, Laid | LaidPlate], seat_z: float, span: tuple[float, float],
    twin: bool = True,
) -> GantryPlaces:  # fmt: skip
    """Put a moving gantry with its head on rails along Y that lie on two hosts at a height, over a span of y."""
    m, d = kit.machine, kit.machine.dimensions
    at = gantry_places(kit)
    y_block = block(m.y_guides.block)
    y, x = at.head_y, at.side_x
    foot = seat_z + y_block.height
    for host, side in zip(hosts, (-1, 1), strict=True):
        rail(kit, "y_guides", host, (side * x, span[0], seat_z), (side * x, span[1], seat_z), Z)
    sides = []
    with kit.moved_by("Y"):
        for host, side in zip(hosts, (-1, 1), strict=True):
            high = at.beam_z + member_size(m.gantry_beam)[0] / 2 + overhang_of(m.beam_joint)
            name = "left side" if side < 0 else "right side"
            place = (side * x, y + at.side_y)
            plate = lay_plate(kit, "side", name, (*place, foot), (*place, high), at.side_width, X)
            rib(kit, plate, (float(side), 0.0, 0.0))
            sides.append(plate)
            seats = [(host, (side * x, place[1] + end * d.y_stance / 2, seat_z)) for end in (-1, 1)]
            carriage(kit, "y_guides", plate, seats, Y, Z)
        laid = bridge_beam(kit, at, y, (sides[0], sides[1]))
    head_on_beam(kit, laid, at.rails, at.head_x, y, kit.place.z * d.travel_z)
    for host, plate in zip(hosts, sides, strict=True) if twin else ((hosts[0], sides[0]),):
        nut = kit.near(plate, (plate.start[0], plate.start[1], foot + FOOT), NUT)
        bearing = kit.near(host, (plate.start[0], span[1], seat_z), NUT)
        drive(kit, "y_drive", nut, bearing, Y, span[1] - span[0], host)
    return at


def gantry_dimension_lines(kit: Kit, at: GantryPlaces, bottom: float) -> None:
    """Draw the sizes of a gantry and its head."""
    m, d = kit.machine, kit.machine.dimensions
    raised = kit.place.z * d.travel_z
    head = slide(m, raised, m.x_plate)
    top, y = head.z_plate_z[1], at.head_y
    kit.size_across("travel_x", "travel X", "front", (0.0, bottom), -1)
    kit.size_across("x_stance", "X blocks", "front", (at.head_x, top), 2)
    kit.size_across("z_rail_spacing", "Z rails", "front", (at.head_x, top), 1)
    left = -at.side_x + 0.1 * at.beam_length
    kit.size("clearance", "bed to beam", "front", (left, 0.0), (left, d.clearance))
    kit.size_across("travel_y", "travel Y", "side", (0.0, bottom), -1)
    if hasattr(d, "y_stance"):
        kit.size_across("y_stance", "Y blocks", "side", (y + at.side_y, bottom), -2)
    front = y - m.spindle.diameter / 2
    kit.size("lowest_tip", "tip, lowest", "side", (front, 0.0), (front, d.lowest_tip), -1)
    kit.size("clamp_height", "nose to clamp", "side", (front, head.nose_z), (front, head.clamp_z), -2)
    low = head.nose_z - raised
    kit.size("travel_z", "travel Z", "side", (front, low), (front, low + d.travel_z), -3)
    kit.size("spindle_overhang", "overhang", "side", (y + head.z_plate_y, top), (y, top), 1)
    back, middle = y + at.side_y + at.side_width / 2, sum(head.z_block_z) / 2
    kit.size("z_stance", "Z blocks", "side", (back, middle - d.z_stance / 2), (back, middle + d.z_stance / 2), 1, 2.0)
