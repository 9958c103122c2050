"""Router with a moving gantry: low rails, tall sides."""

from dataclasses import dataclass, field
from typing import Literal

from unterbau.catalogue.guides import block
from unterbau.catalogue.joints import BoltGroup
from unterbau.hashed import Hashed, hashed_once
from unterbau.machine.assemblies.bed import work_on
from unterbau.machine.assemblies.gantry import (
    GANTRY_FITTING,
    GANTRY_LINKS,
    GANTRY_RELATED,
    gantry_dimension_lines,
    gantry_on_rails,
    gantry_places,
)
from unterbau.machine.assemblies.head import HEAD_ENDS, HEAD_SIZES
from unterbau.machine.assemblies.ladder import (
    CROSS_MEMBERS,
    FEET,
    LADDER_ENDS,
    LADDER_FITTING,
    LADDER_LINKS,
    LADDER_MORE,
    LADDER_RELATED,
    ladder,
)
from unterbau.machine.changes.change import Changes
from unterbau.machine.kind import STAND_LINK
from unterbau.machine.laid_kind import laid_kind
from unterbau.strict import STRICT
from unterbau.structure.layout import Layout
from unterbau.structure.parts import Cutter, Drive, Guide, Joint, Member, Motor, Plate, Sizes, Spindle, Stand
from unterbau.structure.weights import member_size

BED_MARGIN = 0.05
BESIDE = 0.005  # between bed and blocks, at the least


@dataclass(frozen=True, slots=True)
class Dimensions(Sizes):
    """Sizes one decides on; everything else follows. Metres."""

    __pydantic_config__ = STRICT

    travel_x: float = 0.65
    travel_y: float = 0.5
    travel_z: float = 0.16
    clearance: float = 0.18
    """Bed surface to the underside of the beam."""
    lowest_tip: float = 0.01
    """Tool tip above the bed with Z all the way down."""
    x_stance: float = 0.17
    y_stance: float = 0.22
    z_stance: float = 0.11
    z_rail_spacing: float = 0.1
    spindle_overhang: float = 0.065
    """Middle of the Z plate to the spindle's axis."""
    clamp_height: float = 0.07
    """Spindle nose to the middle of its clamp."""
    cross_members: int = 4
    feet: int = 2
    """Under each side beam: at its ends, and evenly between."""
    stop: float = 0.01
    """Free way left at each end of an axis."""


@hashed_once
@dataclass(frozen=True, slots=True)
class MovingGantry(Hashed):
    """A whole machine of this kind."""

    __pydantic_config__ = STRICT

    kind: Literal["moving-gantry-router"] = "moving-gantry-router"
    dimensions: Dimensions = field(default_factory=Dimensions)
    side_beam: Member = field(default_factory=lambda: Member("rhs-120x80x5", "steel-s235"))
    cross_member: Member = field(default_factory=lambda: Member("rhs-80x40x4", "steel-s235"))
    cross_joint: Joint = field(default_factory=lambda: Joint("epoxied"))
    bed: Plate = field(default_factory=lambda: Plate(0.02, "birch-ply"))
    bed_fixing: Joint = field(default_factory=lambda: Joint("bolt"))
    y_guides: Guide = field(default_factory=lambda: Guide("20"))
    y_drive: Drive = field(default_factory=lambda: Drive("ballscrew-16", 2))
    y_motor: Motor = field(default_factory=Motor)
    side: Plate = field(default_factory=lambda: Plate(0.02, "aluminium-5083"))
    side_foot: Joint = field(default_factory=lambda: Joint("bolts", bolts=BoltGroup("M6", 1, 2, 0.015)))
    beam_joint: Joint = field(default_factory=lambda: Joint("epoxied"))
    gantry_beam: Member = field(default_factory=lambda: Member("rhs-120x80x5", "steel-s235"))
    x_guides: Guide = field(default_factory=lambda: Guide("15"))
    x_drive: Drive = field(default_factory=lambda: Drive("ballscrew-16"))
    x_motor: Motor = field(default_factory=Motor)
    x_plate: Plate = field(default_factory=lambda: Plate(0.02, "aluminium-5083"))
    z_guides: Guide = field(default_factory=lambda: Guide("15"))
    z_drive: Drive = field(default_factory=lambda: Drive("ballscrew-12"))
    z_motor: Motor = field(default_factory=Motor)
    z_plate: Plate = field(default_factory=lambda: Plate(0.02, "aluminium-5083"))
    spindle_mount: Joint = field(default_factory=lambda: Joint("clamp"))
    spindle: Spindle = field(default_factory=Spindle)
    cutter: Cutter = field(default_factory=Cutter)
    collet: Joint = field(default_factory=lambda: Joint("collet"))
    stand: Stand = field(default_factory=Stand)
    payload: float = 0.0
    """What the head carries by the brief, kg."""
    changes: Changes = ()


def put_up(lay: Layout[MovingGantry]) -> None:
    """Put up a machine of this kind: the gantry runs on the side beams, the bed lies between them."""
    m, d = lay.machine, lay.machine.dimensions
    at = gantry_places(lay)
    beam_w, y_block = member_size(m.side_beam)[1], block(m.y_guides.block)
    edge = at.side_x - beam_w / 2 - max(BESIDE, (y_block.width - beam_w) / 2 + 0.01)
    half, reach = d.travel_y / 2 + BED_MARGIN, d.travel_y / 2 + d.stop
    span = (at.reach[0] - reach, at.reach[1] + reach)
    base = ladder(lay, at.side_x, span, edge, half)
    gantry_on_rails(lay, base.sides, -m.bed.thickness, base.span, twin=m.y_drive.count == 2)
    work_on(lay, base.bed, 0.0, 0.0, "XY")
    gantry_dimension_lines(lay, at, base.bottom)


KIND = laid_kind(
    MovingGantry, "moving-gantry-router", "router, moving gantry", "large bed in little space, easy to build",
    "tall sides nod and rack; the whole gantry is moved",
    (*GANTRY_LINKS, *LADDER_LINKS, STAND_LINK), (*HEAD_SIZES, CROSS_MEMBERS, FEET), put_up,
    ends={**HEAD_ENDS, **LADDER_ENDS}, fitting={**GANTRY_FITTING, **LADDER_FITTING},
    related={**GANTRY_RELATED, **LADDER_RELATED}, more=LADDER_MORE, most_drives={"y_drive": 2},
    carrying=("gantry_beam", "side_beam"),
    faces=("x_guides", "gantry_beam"),
    ribbed=("side", "z_plate"),
    gusseted=("beam_joint",),
)  # fmt: skip
