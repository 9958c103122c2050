"""Table for light processes: a frame of profiles, belts on both sides, a light bridge with a small head."""

from dataclasses import dataclass, field
from typing import Literal

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

MARGIN = 0.05


@dataclass(frozen=True, slots=True)
class LightSizes(Sizes):
    """Sizes one decides on. Metres."""

    __pydantic_config__ = STRICT

    travel_x: float = 0.9
    travel_y: float = 0.6
    travel_z: float = 0.04
    clearance: float = 0.07
    lowest_tip: float = 0.002
    x_stance: float = 0.08
    y_stance: float = 0.12
    z_stance: float = 0.05
    z_rail_spacing: float = 0.05
    spindle_overhang: float = 0.035
    clamp_height: float = 0.03
    cross_members: int = 3
    feet: int = 2
    """Under each side beam: at its ends, and evenly between."""
    stop: float = 0.01


@hashed_once
@dataclass(frozen=True, slots=True)
class LightTable(Hashed):
    """A whole machine of this kind."""

    __pydantic_config__ = STRICT

    kind: Literal["light-table"] = "light-table"
    dimensions: LightSizes = field(default_factory=LightSizes)
    side_beam: Member = field(default_factory=lambda: Member("tslot-40L-1x2", "aluminium-6060"))
    cross_member: Member = field(default_factory=lambda: Member("tslot-40L-1x1", "aluminium-6060"))
    cross_joint: Joint = field(default_factory=lambda: Joint("bracket", 2))
    bed: Plate = field(default_factory=lambda: Plate(0.012, "birch-ply"))
    bed_fixing: Joint = field(default_factory=lambda: Joint("bolt"))
    y_guides: Guide = field(default_factory=lambda: Guide("mini-12"))
    y_drive: Drive = field(default_factory=lambda: Drive("belt-15-glass", 2))
    y_motor: Motor = field(default_factory=Motor)
    side: Plate = field(default_factory=lambda: Plate(0.008, "aluminium-5083"))
    side_foot: Joint = field(default_factory=lambda: Joint("bolts", bolts=BoltGroup("M4", 1, 2, 0.008)))
    beam_joint: Joint = field(default_factory=lambda: Joint("end-tapped", 2))
    gantry_beam: Member = field(default_factory=lambda: Member("tslot-20-1x2", "aluminium-6060"))
    x_guides: Guide = field(default_factory=lambda: Guide("mini-9"))
    x_drive: Drive = field(default_factory=lambda: Drive("belt-15-glass"))
    x_motor: Motor = field(default_factory=Motor)
    x_plate: Plate = field(default_factory=lambda: Plate(0.006, "aluminium-5083"))
    z_guides: Guide = field(default_factory=lambda: Guide("mini-9"))
    z_drive: Drive = field(default_factory=lambda: Drive("trapezoidal-12"))
    z_motor: Motor = field(default_factory=Motor)
    z_plate: Plate = field(default_factory=lambda: Plate(0.006, "aluminium-5083"))
    spindle_mount: Joint = field(default_factory=lambda: Joint("clamp"))
    spindle: Spindle = field(
        default_factory=lambda: Spindle(mass=0.4, diameter=0.03, length=0.08, radial=5e6, axial=5e6, tilt=500.0)
    )
    cutter: Cutter = field(default_factory=lambda: Cutter(0.006, 0.012, "steel-s235"))
    collet: Joint = field(default_factory=lambda: Joint("collet"))
    stand: Stand = field(default_factory=Stand)
    payload: float = 0.0
    """What the head carries by the brief, kg."""
    changes: Changes = ()


def put_up(lay: Layout[LightTable]) -> None:
    """Put up a machine of this kind."""
    m, d = lay.machine, lay.machine.dimensions
    at = gantry_places(lay)
    reach = d.travel_y / 2 + d.stop
    span = (at.reach[0] - reach, at.reach[1] + reach)
    edge = at.side_x - 0.03
    half = d.travel_y / 2 + MARGIN
    base = ladder(lay, at.side_x, span, edge, half)
    gantry_on_rails(lay, base.sides, -m.bed.thickness, base.span, twin=m.y_drive.count == 2)
    work_on(lay, base.bed, 0.0, 0.0, "XY")
    gantry_dimension_lines(lay, at, base.bottom)


KIND = laid_kind(
    LightTable, "light-table", "table for light processes",
    "laser, knife, pen, plasma: quick, cheap, large", "no cutting force: it shakes and gives under a mill",
    (*GANTRY_LINKS, *LADDER_LINKS, STAND_LINK), (*HEAD_SIZES, CROSS_MEMBERS, FEET), put_up,
    ends={**HEAD_ENDS, **LADDER_ENDS}, fitting={**GANTRY_FITTING, **LADDER_FITTING},
    related={**GANTRY_RELATED, **LADDER_RELATED},
    more=LADDER_MORE,
    most_drives={"y_drive": 2},
    carrying=("gantry_beam",),
    faces=("x_guides", "gantry_beam"),
    ribbed=("side", "z_plate"),
    gusseted=("beam_joint",),
)  # fmt: skip
