"""A ladder of two side beams along Y and cross members along X, on feet, with a bed on the cross members."""

from dataclasses import dataclass

from unterbau.machine.assemblies.bed import Bed, bed, bolt_down, screw_places, strip_places
from unterbau.machine.assemblies.cures import Y_STANCE
from unterbau.machine.assemblies.needs import LadderParts
from unterbau.machine.assemblies.pieces import beam, fasten, foot
from unterbau.machine.kind import BED_JOINTS, FRAME_JOINTS, Link, More, SizeField
from unterbau.structure.layout import Layout
from unterbau.structure.piece import Bar
from unterbau.structure.vectors import Z
from unterbau.structure.weights import member_size

LADDER_LINKS = (
    Link("side_beam", "side beams", "part", "along both sides"),
    Link("cross_joint", "base corners", "joint", "cross members to side beams"),
    Link("cross_member", "cross members", "part", "under the bed"),
    Link("bed_fixing", "bed fixing", "joint", "bed to cross members"),
    Link("bed", "bed", "part", "carries the work"),
)
FEET = SizeField("feet", "feet a side beam", 2, 8, count=True)
CROSS_MEMBERS = SizeField("cross_members", "cross members", 2, 12, count=True)
LADDER_ENDS = {"cross_member": "cross_joint", "side_beam": "cross_joint", "bed": "bed_fixing"}
LADDER_MORE = More("cross_members", "cross member", ("cross_member", "cross_joint", "bed_fixing", "bed", "side_beam"))
LADDER_FITTING = {"cross_joint": FRAME_JOINTS, "bed_fixing": BED_JOINTS}
LADDER_RELATED = {"side_beam": (Y_STANCE,)}


@dataclass(frozen=True, slots=True)
class Ladder:
    """What stands on a ladder is fastened to these."""

    sides: tuple[Bar, Bar]
    crosses: tuple[Bar, ...]
    bed: Bed
    bottom: float

    @property
    def span(self) -> tuple[float, float]:
        """Front and back end of the side beams."""
        return self.sides[0].start[1], self.sides[0].end[1]


def ladder(lay: Layout[LadderParts], side_x: float, span: tuple[float, float], edge: float, half: float) -> Ladder:
    """Lay a ladder with a bed whose surface is at z = 0; cross members stand under the bed, evenly.

    Args:
        lay: The machine; its parts `side_beam`, `cross_member`, `cross_joint`, `bed`, `bed_fixing`.
        side_x: Middle of the right side beam.
        span: Front and back end of the side beams.
        edge: Right edge of the bed.
        half: Back edge of the bed.
    """
    m, n = lay.machine, lay.machine.dimensions.cross_members
    top = -m.bed.thickness
    height, width = member_size(m.side_beam)
    cross_h, cross_w = member_size(m.cross_member)
    low, high = -half + cross_w / 2, half - cross_w / 2
    rows = [low + (high - low) * k / (n - 1) for k in range(n)]
    plate = bed(lay, "bed", m.bed, "bed", (-edge, edge), (-half, half), 0.0)
    first, last = min(span[0], low - cross_w / 2), max(span[1], high + cross_w / 2)
    pairs = m.dimensions.feet
    feet = [first + (last - first) * k / (pairs - 1) for k in range(pairs)]
    sides = []
    for side, name in ((-1, "left side beam"), (1, "right side beam")):
        ends = ((side * side_x, first, top - height / 2), (side * side_x, last, top - height / 2))
        stops = (*(y - first for y in rows), *(y - first for y in feet))
        laid = beam(lay, "side_beam", m.side_beam, name, *ends, Z, stops, 8, carries=True)
        sides.append(laid)
        for y in feet:
            foot(lay, laid, lay.near(laid, (ends[0][0], y, ends[0][2])))
    lay.corners = tuple(end for line in sides for end in (line.first, line.last))
    reach, z = side_x - width / 2, top - cross_h / 2
    screws = screw_places(min(edge, reach), n)
    if m.bed.strips > 1:
        screws = strip_places(reach, edge, m.bed.strips)
    crosses = []
    for number, y in enumerate(rows, 1):
        inside = tuple(x + reach for x in screws)
        laid = beam(
            lay, "cross_member", m.cross_member, f"cross member {number}", (-reach, y, z), (reach, y, z), Z, inside
        )
        fasten(lay, "cross_joint", m.cross_joint, laid, False, sides[0])
        fasten(lay, "cross_joint", m.cross_joint, laid, True, sides[1])
        bolt_down(lay, "bed_fixing", m.bed_fixing, plate, laid, screws)
        crosses.append(laid)
    return Ladder((sides[0], sides[1]), tuple(crosses), plate, top - height)
