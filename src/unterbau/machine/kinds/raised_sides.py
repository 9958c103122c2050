"""Router with a short gantry on raised side walls, its bed sunk between them."""

from dataclasses import dataclass, field
from typing import Literal

from unterbau.catalogue.guides import block
from unterbau.catalogue.joints import BoltGroup, Face
from unterbau.errors import InputError
from unterbau.hashed import Hashed, hashed_once
from unterbau.machine.assemblies.bed import work_on
from unterbau.machine.assemblies.gantry import (
    FOOT,
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
from unterbau.machine.assemblies.pieces import join, lay_plate, rib
from unterbau.machine.changes.change import Changes
from unterbau.machine.kind import FRAME_JOINTS, STAND_LINK, Link, Related, SizeField
from unterbau.machine.laid_kind import laid_kind
from unterbau.model.bars import stops_of
from unterbau.strict import STRICT
from unterbau.structure.layout import Layout
from unterbau.structure.parts import Cutter, Drive, Guide, Joint, Member, Motor, Plate, Sizes, Spindle, Stand
from unterbau.structure.vectors import X, Y, Z, plus

MARGIN = 0.05


@dataclass(frozen=True, slots=True)
class RaisedSizes(Sizes):
    """Sizes one decides on. Metres."""

    __pydantic_config__ = STRICT

    travel_x: float = 0.6
    travel_y: float = 0.8
    travel_z: float = 0.14
    clearance: float = 0.17
    wall_height: float = 0.08
    """Of the walls over the bed's surface."""
    lowest_tip: float = 0.01
    x_stance: float = 0.18
    y_stance: float = 0.2
    z_stance: float = 0.12
    z_rail_spacing: float = 0.1
    spindle_overhang: float = 0.065
    clamp_height: float = 0.06
    cross_members: int = 4
    feet: int = 2
    """Under each side beam: at its ends, and evenly between."""
    stop: float = 0.01


@hashed_once
@dataclass(frozen=True, slots=True)
class RaisedSides(Hashed):
    """A whole machine of this kind."""

    __pydantic_config__ = STRICT

    kind: Literal["raised-side-router"] = "raised-side-router"
    dimensions: RaisedSizes = field(default_factory=RaisedSizes)
    side_beam: Member = field(default_factory=lambda: Member("rhs-80x40x4", "steel-s235"))
    cross_member: Member = field(default_factory=lambda: Member("rhs-80x40x4", "steel-s235"))
    cross_joint: Joint = field(default_factory=lambda: Joint("weld"))
    bed: Plate = field(default_factory=lambda: Plate(0.018, "birch-ply"))
    bed_fixing: Joint = field(default_factory=lambda: Joint("bolt"))
    wall: Plate = field(default_factory=lambda: Plate(0.02, "aluminium-5083"))
    wall_joint: Joint = field(default_factory=lambda: Joint("bolt", 2))
    y_guides: Guide = field(default_factory=lambda: Guide("20"))
    y_drive: Drive = field(default_factory=lambda: Drive("ballscrew-16"))
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


def put_up(lay: Layout[RaisedSides]) -> None:
    """Put up a machine of this kind."""
    m, d = lay.machine, lay.machine.dimensions
    at = gantry_places(lay)
    room = d.clearance - d.wall_height - block(m.y_guides.block).height - FOOT
    if room < 0.01:
        most = d.wall_height + room - 0.01
        raise InputError("dimensions.wall_height", f"expected at most {most * 1e3:.0f} mm under this beam")
    reach = d.travel_y / 2 + d.stop
    span = (at.reach[0] - reach, at.reach[1] + reach)
    inside = at.side_x - m.wall.thickness / 2
    edge = inside - 0.005
    half = d.travel_y / 2 + MARGIN
    base = ladder(lay, at.side_x, span, edge, half)
    walls = []
    for host, name in zip(base.sides, ("left wall", "right wall"), strict=True):
        low, high = -m.bed.thickness, d.wall_height
        front, back = ((host.start[0], y, (low + high) / 2) for y in base.span)
        plate = lay_plate(lay, "wall", m.wall, name, front, back, high - low, X)
        rib(lay, m.wall, plate, (1.0 if front[0] > 0 else -1.0, 0.0, 0.0), across=True)
        for stop in stops_of(host):
            x, y, z = plus(host.start, host.along, stop)
            held = plate.hold((x, y, low), plate.half_of(Y, 0.1, 0.03))
            join(
                lay,
                "wall_joint",
                m.wall_joint,
                held,
                lay.near(host, (x, y, z)),
                Face(0.1, m.wall.thickness),
                Z,
                X,
            )
        walls.append(plate)
    gantry_on_rails(lay, (walls[0], walls[1]), d.wall_height, base.span, twin=m.y_drive.count == 2)
    work_on(lay, base.bed, 0.0, 0.0, "XY")
    gantry_dimension_lines(lay, at, base.bottom)
    right = at.side_x + 0.02
    lay.size("wall_height", "wall", "front", (right, 0.0), (right, d.wall_height), 1)


KIND = laid_kind(
    RaisedSides, "raised-side-router", "router, raised sides",
    "short stiff gantry with little to move; rails out of the chips", "work goes in over the walls; walls flex too",
    (
        *GANTRY_LINKS,
        Link("wall", "side walls", "part", "carry the Y rails over the bed"),
        Link("wall_joint", "wall feet", "joint", "walls to side beams"),
        *LADDER_LINKS,
        STAND_LINK,
    ),
    (*HEAD_SIZES, SizeField("wall_height", "walls over the bed", 0.02, 1.0), CROSS_MEMBERS, FEET), put_up,
    ends={**HEAD_ENDS, **LADDER_ENDS, "wall": "wall_joint"},
    fitting={**GANTRY_FITTING, **LADDER_FITTING, "wall_joint": ("bolt", "epoxied", "weld", *FRAME_JOINTS)},
    related={
        **GANTRY_RELATED, **LADDER_RELATED, "wall": (Related("wall_height", 0.8, "lower walls"),), "wall_joint": ()
    },
    more=LADDER_MORE,
    most_drives={"y_drive": 2},
    carrying=("gantry_beam",),
    faces=("x_guides", "gantry_beam"),
    ribbed=("side", "wall", "z_plate"),
    gusseted=("beam_joint",),
)  # fmt: skip
