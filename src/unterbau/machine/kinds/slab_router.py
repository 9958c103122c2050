"""A granite or cast-iron table bought used, with a gantry on it."""

from dataclasses import dataclass, field
from typing import Literal

from unterbau.catalogue.joints import BoltGroup
from unterbau.errors import InputError
from unterbau.hashed import Hashed, hashed_once
from unterbau.machine.assemblies.bed import bed, work_on
from unterbau.machine.assemblies.gantry import (
    GANTRY_FITTING,
    GANTRY_LINKS,
    GANTRY_RELATED,
    gantry_dimension_lines,
    gantry_on_rails,
    gantry_places,
)
from unterbau.machine.assemblies.head import HEAD_ENDS, HEAD_SIZES
from unterbau.machine.assemblies.pieces import foot
from unterbau.machine.changes.change import Changes
from unterbau.machine.kind import STAND_LINK, Link, SizeField
from unterbau.machine.laid_kind import laid_kind
from unterbau.strict import STRICT
from unterbau.structure.layout import Layout
from unterbau.structure.parts import Cutter, Drive, Guide, Joint, Member, Motor, Plate, Sizes, Spindle, Stand

EDGE = 0.02
FOOT = (0.03, 0.03)  # half the patch over a foot
BETWEEN = 0.02  # from foot to foot, at the least, m


@dataclass(frozen=True, slots=True)
class SlabSizes(Sizes):
    """Sizes one decides on; the table comes as it is. Metres."""

    __pydantic_config__ = STRICT

    travel_x: float = 0.42
    travel_y: float = 0.45
    travel_z: float = 0.1
    clearance: float = 0.13
    lowest_tip: float = 0.01
    x_stance: float = 0.18
    y_stance: float = 0.22
    z_stance: float = 0.12
    z_rail_spacing: float = 0.1
    spindle_overhang: float = 0.06
    clamp_height: float = 0.05
    foot_inset: float = 0.12
    """From the table's corners to its feet."""
    stop: float = 0.01


@hashed_once
@dataclass(frozen=True, slots=True)
class SlabRouter(Hashed):
    """A whole machine of this kind."""

    __pydantic_config__ = STRICT

    kind: Literal["slab-router"] = "slab-router"
    dimensions: SlabSizes = field(default_factory=SlabSizes)
    slab: Plate = field(default_factory=lambda: Plate(0.1, "granite"))
    y_guides: Guide = field(default_factory=lambda: Guide("20"))
    y_drive: Drive = field(default_factory=lambda: Drive("ballscrew-16", 2))
    y_motor: Motor = field(default_factory=Motor)
    side: Plate = field(default_factory=lambda: Plate(0.025, "aluminium-5083"))
    side_foot: Joint = field(default_factory=lambda: Joint("bolts", bolts=BoltGroup("M6", 1, 2, 0.015)))
    beam_joint: Joint = field(default_factory=lambda: Joint("flange"))
    gantry_beam: Member = field(default_factory=lambda: Member("rhs-120x80x5", "steel-s235", "epoxy-granite-10"))
    x_guides: Guide = field(default_factory=lambda: Guide("20"))
    x_drive: Drive = field(default_factory=lambda: Drive("ballscrew-16"))
    x_motor: Motor = field(default_factory=Motor)
    x_plate: Plate = field(default_factory=lambda: Plate(0.025, "aluminium-5083"))
    z_guides: Guide = field(default_factory=lambda: Guide("15"))
    z_drive: Drive = field(default_factory=lambda: Drive("ballscrew-12"))
    z_motor: Motor = field(default_factory=Motor)
    z_plate: Plate = field(default_factory=lambda: Plate(0.025, "aluminium-5083"))
    spindle_mount: Joint = field(default_factory=lambda: Joint("clamp"))
    spindle: Spindle = field(default_factory=lambda: Spindle(mass=5.5, diameter=0.08, length=0.24))
    cutter: Cutter = field(default_factory=Cutter)
    collet: Joint = field(default_factory=lambda: Joint("collet"))
    stand: Stand = field(default_factory=Stand)
    payload: float = 0.0
    """What the head carries by the brief, kg."""
    changes: Changes = ()


def put_up(lay: Layout[SlabRouter]) -> None:
    """Put up a machine of this kind: rails lie on the table's surface along its edges."""
    m, d = lay.machine, lay.machine.dimensions
    at = gantry_places(lay)
    reach = d.travel_y / 2 + d.stop
    front = min(at.reach[0] - reach, -d.travel_y / 2 - EDGE)
    back = max(at.reach[1] + reach, d.travel_y / 2 + EDGE)
    half = at.side_x + m.side.thickness / 2 + EDGE
    most = min(half, (back - front) / 2) - BETWEEN / 2
    if d.foot_inset > most:
        raise InputError("dimensions.foot_inset", f"expected at most {most * 1e3:.0f} mm: the table ends there")
    slab = bed(lay, "slab", m.slab, "table", (-half, half), (front, back), 0.0)
    for x in (-half + d.foot_inset, half - d.foot_inset):
        for y in (front + d.foot_inset, back - d.foot_inset):
            foot(lay, slab.plate, lay.near(slab.plate, (x, y, slab.middle), FOOT))
    gantry_on_rails(lay, (slab.plate, slab.plate), 0.0, (front, back), twin=m.y_drive.count == 2)
    work_on(lay, slab, 0.0, 0.0, "XY")
    gantry_dimension_lines(lay, at, -m.slab.thickness)
    edge = (-half, -m.slab.thickness)
    lay.size("foot_inset", "foot", "front", edge, (edge[0] + d.foot_inset, edge[1]), -2)


KIND = laid_kind(
    SlabRouter, "slab-router", "router on a used stone or cast table",
    "flat, heavy, still; the base is bought ready", "heavy to carry; stone is drilled once, and cracks",
    (*GANTRY_LINKS, Link("slab", "table", "part", "carries work and rails; as bought"), STAND_LINK),
    (*HEAD_SIZES, SizeField("foot_inset", "feet in from the corners", 0.01, 1.0)), put_up,
    ends=HEAD_ENDS, fitting=GANTRY_FITTING, related={**GANTRY_RELATED, "slab": ()}, most_drives={"y_drive": 2},
    carrying=("gantry_beam",),
    faces=("x_guides", "gantry_beam"),
    ribbed=("side", "z_plate"),
    gusseted=("beam_joint",),
)  # fmt: skip
