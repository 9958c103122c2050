"""A gantry on two rails along Y: side plates on blocks, a beam between them, the head on the beam."""

from dataclasses import dataclass

from unterbau.catalogue.guides import block
from unterbau.machine.assemblies.edge_foot import edge_foot, foot_thickness
from unterbau.machine.assemblies.head import (
    HEAD_FITTING,
    HEAD_LINKS,
    HEAD_RELATED,
    BeamRail,
    beam_rails,
    beam_seat,
    head_on_beam,
    slide,
)
from unterbau.machine.assemblies.motion import carriage, drive, rail
from unterbau.machine.assemblies.needs import GantryOnRails, GantryParts
from unterbau.machine.assemblies.pieces import Host, beam, fasten, gusset, lay_plate, rib
from unterbau.machine.kind import Link
from unterbau.structure.gussets import gusset_stops
from unterbau.structure.layout import Layout
from unterbau.structure.piece import Bar, PlatePiece
from unterbau.structure.spot import NUT
from unterbau.structure.vectors import X, Y, Z, dot, minus
from unterbau.structure.weights import member_size

GANTRY_LINKS = (
    *HEAD_LINKS,
    Link("side", "side plates", "part", "carry the gantry beam"),
    Link("side_foot", "foot plates", "joint", "sides to their blocks, screws at each"),
    Link("y_guides", "Y guides", "guide", "side plates to what is below"),
    Link("y_drive", "Y drive", "drive", "pushes the gantry"),
    Link("y_motor", "Y motor", "drive", "holds the Y drive still"),
)
GANTRY_FITTING = {**HEAD_FITTING, "side_foot": ("epoxied", "end-tapped")}
GANTRY_RELATED = {**HEAD_RELATED, "side_foot": HEAD_RELATED["y_guides"]}
DOWN = (0.0, 0.0, -1.0)
OUTSIDE = 0.02  # of a side plate, where its screw runs
FOOT = 0.04  # from a side plate's lower edge up to where its nut is bolted on


@dataclass(frozen=True, slots=True)
class GantryPlaces:
    """Where a gantry stands, its head in the middle of its travel."""

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


def gantry_places(lay: Layout[GantryParts]) -> GantryPlaces:
    """Return the places of a gantry with its beam's underside at the clearance over the bed."""
    m, d = lay.machine, lay.machine.dimensions
    beam_h, beam_w = member_size(m.gantry_beam)
    x_block, y_block = block(m.x_guides.block), block(m.y_guides.block)
    beam_z = d.clearance + beam_h / 2
    rails = beam_rails(m, beam_z)
    length = d.travel_x + d.x_stance + x_block.length + 2 * d.stop
    beam_y = beam_seat(m) + beam_w / 2
    width = d.y_stance + y_block.length
    return GantryPlaces(
        length, beam_y, beam_z,
        rails, length / 2 + m.side.thickness / 2,
        beam_y + beam_w / 2 + m.beam_joint.overhang - width / 2, width,
    )  # fmt: skip


def bridge_beam(lay: Layout[GantryParts], at: GantryPlaces, y: float, sides: tuple[PlatePiece, PlatePiece]) -> Bar:
    """Lay the beam between two sides, with its rails on the front face."""
    half = at.beam_length / 2
    where = y + at.beam_y
    stops = gusset_stops(lay.machine.beam_joint)
    both = (*stops, *(at.beam_length - stop for stop in stops))
    laid = beam(
        lay,
        "gantry_beam",
        lay.machine.gantry_beam,
        "gantry beam",
        (-half, where, at.beam_z),
        (half, where, at.beam_z),
        Z,
        both,
        8,
        carries=True,
    )
    for last, host in zip((False, True), sides, strict=True):
        under = fasten(lay, "beam_joint", lay.machine.beam_joint, laid, last, host)
        gusset(lay, "beam_joint", lay.machine.beam_joint, laid, last, under, (DOWN,))
    for one in at.rails:
        rail(
            lay,
            "x_guides",
            lay.machine.x_guides,
            laid,
            (-half, where + one.y, one.z),
            (half, where + one.y, one.z),
            one.up,
        )
    return laid


def gantry_on_rails(
    lay: Layout[GantryOnRails], hosts: tuple[Host, Host], seat_z: float, span: tuple[float, float], twin: bool = True
) -> GantryPlaces:
    """Put a moving gantry with its head on rails along Y that lie on two hosts at a height, over a span of y."""
    m, d = lay.machine, lay.machine.dimensions
    at = gantry_places(lay)
    y_block = block(m.y_guides.block)
    y, x = 0.0, at.side_x
    foot = seat_z + y_block.height
    for host, side in zip(hosts, (-1, 1), strict=True):
        rail(lay, "y_guides", m.y_guides, host, (side * x, span[0], seat_z), (side * x, span[1], seat_z), Z)
    sides = []
    with lay.moved_by("Y"):
        for host, side in zip(hosts, (-1, 1), strict=True):
            high = at.beam_z + member_size(m.gantry_beam)[0] / 2 + m.beam_joint.overhang
            name = "left side" if side < 0 else "right side"
            place = (side * x, y + at.side_y)
            low = foot + foot_thickness(y_block, m.side_foot)
            plate = lay_plate(lay, "side", m.side, name, (*place, low), (*place, high), at.side_width, X)
            rib(lay, m.side, plate, (float(side), 0.0, 0.0))
            sides.append(plate)
            seats = [(host, (side * x, place[1] + end * d.y_stance / 2, seat_z)) for end in (-1, 1)]
            ends = [dot(minus(seat, plate.start), plate.across) for _, seat in seats]
            standing = edge_foot(lay, "side_foot", m.side_foot, plate, y_block, ends, Z) if low > foot else plate
            carriage(lay, "y_guides", m.y_guides, standing, seats, Y, Z)
        laid = bridge_beam(lay, at, y, (sides[0], sides[1]))
    head_on_beam(lay, laid, at.rails)
    for host, plate in zip(hosts, sides, strict=True) if twin else ((hosts[0], sides[0]),):
        nut = lay.near(plate, (plate.start[0], plate.start[1], foot + FOOT), NUT)
        bearing = lay.near(host, (plate.start[0], span[1], seat_z), NUT)
        drive(
            lay,
            "y_drive",
            m.y_drive,
            ("y_motor", m.y_motor),
            nut,
            bearing,
            Y,
            span[1] - span[0],
            host,
            (-d.travel_y / 2, d.travel_y / 2),
            ((m.side.thickness / 2 + OUTSIDE) * (1.0 if plate.start[0] > 0 else -1.0), 0.0, 0.0),
        )
    return at


def gantry_dimension_lines(lay: Layout[GantryParts], at: GantryPlaces, bottom: float, with_head: bool = True) -> None:
    """Draw the sizes of a gantry and its head; the gantry moves with it along Y, or stands."""
    m, d = lay.machine, lay.machine.dimensions
    head = slide(m, m.x_plate)
    top, beam = head.z_plate_z[1], "Y" if with_head else ""
    lay.size_across("travel_x", "travel X", "front", (0.0, bottom), d.travel_x, -1)
    lay.size_across("x_stance", "X blocks", "front", (0.0, top), d.x_stance, 2, "XZ")
    lay.size_across("z_rail_spacing", "Z rails", "front", (0.0, top), d.z_rail_spacing, 1, "XZ")
    left = -at.side_x + 0.1 * at.beam_length
    lay.size("clearance", "bed to beam", "front", (left, 0.0), (left, d.clearance))
    lay.size_across("travel_y", "travel Y", "side", (0.0, bottom), d.travel_y, -1)
    lay.size_across("y_stance", "Y blocks", "side", (at.side_y, bottom), d.y_stance, -2, beam)
    front = -m.spindle.diameter / 2
    lay.size("lowest_tip", "tip, lowest", "side", (front, 0.0), (front, d.lowest_tip), -1, moves=beam)
    lay.size("clamp_height", "nose to clamp", "side", (front, head.nose_z), (front, head.clamp_z), -2, moves=beam + "Z")
    low = head.nose_z
    lay.size("travel_z", "travel Z", "side", (front, low), (front, low + d.travel_z), -3, moves=beam)
    lay.size("spindle_overhang", "overhang", "side", (head.z_plate_y, top), (0.0, top), 1, moves=beam + "Z")
    back, middle = at.side_y + at.side_width / 2, sum(head.z_block_z) / 2
    lay.size(
        "z_stance", "Z blocks", "side", (back, middle - d.z_stance / 2), (back, middle + d.z_stance / 2), 1, 2.0, beam
    )
