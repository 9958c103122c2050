"""Column mill: a C of base and column, a head that moves on the column, a cross table on the base."""

from dataclasses import dataclass, field
from typing import Literal

from unterbau.hashed import Hashed, hashed_once
from unterbau.machine.assemblies.head import SPINDLE_LINKS
from unterbau.machine.assemblies.mill import counterweight, head_heights, mill_dimension_lines, mill_head
from unterbau.machine.assemblies.pieces import BESIDE, beam, fasten, four_feet, gusset
from unterbau.machine.assemblies.table import (
    TABLE_LINKS,
    TABLE_RELATED,
    TABLE_SIZES,
    check_clear_of_column,
    cross_table,
    saddle_reach,
    table_height,
)
from unterbau.machine.changes.change import Changes
from unterbau.machine.kind import CLAMPS, FRAME_JOINTS, STAND_LINK, Link, Related, SizeField
from unterbau.machine.laid_kind import laid_kind
from unterbau.strict import STRICT
from unterbau.structure.gussets import gusset_stops
from unterbau.structure.layout import Layout
from unterbau.structure.parts import Cutter, Drive, Guide, Joint, Member, Motor, Plate, Sizes, Spindle, Stand
from unterbau.structure.vectors import Y, Z
from unterbau.structure.weights import member_size

HEAD = (
    *SPINDLE_LINKS,
    Link("spindle_mount", "spindle clamp", "joint", "spindle to mount plate"),
    Link("mount_plate", "mount plate", "part", "at the front of the arm"),
    Link("mount_joint", "mount", "joint", "mount plate to arm"),
    Link("head_arm", "head arm", "part", "from the head plate forward to the spindle"),
    Link("arm_joint", "arm foot", "joint", "arm to head plate"),
    Link("head_plate", "head plate", "part", "runs up and down the column"),
    Link("z_guides", "Z guides", "guide", "head plate to column"),
    Link("z_drive", "Z drive", "drive", "holds the head up"),
    Link("z_motor", "Z motor", "drive", "holds the Z drive still"),
)


@dataclass(frozen=True, slots=True)
class MillSizes(Sizes):
    """Sizes one decides on. Metres."""

    __pydantic_config__ = STRICT

    travel_x: float = 0.25
    travel_y: float = 0.14
    travel_z: float = 0.2
    lowest_tip: float = 0.03
    throat: float = 0.23
    table_length: float = 0.56
    table_width: float = 0.16
    x_stance: float = 0.2
    y_stance: float = 0.14
    rail_spacing: float = 0.16
    z_stance: float = 0.18
    z_rail_spacing: float = 0.11
    clamp_height: float = 0.05
    counterweight: int = 0
    """One over a pulley at the column's top, as heavy as the head, or none."""
    stop: float = 0.008


@hashed_once
@dataclass(frozen=True, slots=True)
class ColumnMill(Hashed):
    """A whole machine of this kind."""

    __pydantic_config__ = STRICT

    kind: Literal["column-mill"] = "column-mill"
    dimensions: MillSizes = field(default_factory=MillSizes)
    base: Member = field(default_factory=lambda: Member("box-120x240x15", "iron-gjl-250"))
    column_joint: Joint = field(default_factory=lambda: Joint("flange", 2))
    column: Member = field(default_factory=lambda: Member("box-140x160x12", "steel-s235", turned=True))
    z_guides: Guide = field(default_factory=lambda: Guide("20", "medium"))
    z_drive: Drive = field(default_factory=lambda: Drive("ballscrew-16"))
    z_motor: Motor = field(default_factory=Motor)
    head_plate: Plate = field(default_factory=lambda: Plate(0.03, "steel-s235"))
    arm_joint: Joint = field(default_factory=lambda: Joint("weld"))
    head_arm: Member = field(default_factory=lambda: Member("box-120x100x12", "steel-s235"))
    mount_joint: Joint = field(default_factory=lambda: Joint("weld"))
    mount_plate: Plate = field(default_factory=lambda: Plate(0.025, "steel-s235"))
    spindle_mount: Joint = field(default_factory=lambda: Joint("flange"))
    spindle: Spindle = field(
        default_factory=lambda: Spindle(mass=9.0, diameter=0.09, length=0.25, radial=60e6, axial=60e6, tilt=90e3)
    )
    cutter: Cutter = field(default_factory=lambda: Cutter(0.01, 0.03))
    collet: Joint = field(default_factory=lambda: Joint("collet-large"))
    y_guides: Guide = field(default_factory=lambda: Guide("20", "medium"))
    y_drive: Drive = field(default_factory=lambda: Drive("ballscrew-16"))
    y_motor: Motor = field(default_factory=Motor)
    saddle: Plate = field(default_factory=lambda: Plate(0.03, "iron-gjl-250"))
    x_guides: Guide = field(default_factory=lambda: Guide("20", "medium"))
    x_drive: Drive = field(default_factory=lambda: Drive("ballscrew-16"))
    x_motor: Motor = field(default_factory=Motor)
    table: Plate = field(default_factory=lambda: Plate(0.035, "iron-gjl-250"))
    stand: Stand = field(default_factory=Stand)
    payload: float = 0.0
    """What the head carries by the brief, kg."""
    changes: Changes = ()


def put_up(lay: Layout[ColumnMill]) -> None:
    """Put up a machine of this kind."""
    m, d = lay.machine, lay.machine.dimensions
    check_clear_of_column(lay)
    seat = -table_height(lay)
    height, _ = member_size(m.base)
    deep = member_size(m.column)[0]
    column_y, front = d.throat + deep / 2, -saddle_reach(lay)
    back = column_y + deep / 2 + m.column_joint.overhang
    z = seat - height / 2
    base = beam(
        lay, "base", m.base, "base", (0.0, front, z), (0.0, back, z), Z, (column_y - front, -front), 8, carries=True
    )
    four_feet(lay, base)
    top = head_heights(lay)[1]
    # The column stands on the base's surface; its axis is joined to the base's node below it.
    column = beam(lay, "column", m.column, "column", (0.0, column_y, seat), (0.0, column_y, top), Y,
                  gusset_stops(m.column_joint), 8, carries=True)  # fmt: skip
    under = fasten(lay, "column_joint", m.column_joint, column, False, base)
    gusset(lay, "column_joint", m.column_joint, column, False, under, BESIDE)
    mill_head(lay, (column, column), d.throat, top)
    if d.counterweight:
        counterweight(lay, column)
    cross_table(lay, base, seat)
    mill_dimension_lines(lay, d.throat, seat - height)


COUNTERWEIGHT = SizeField("counterweight", "counterweight, 1 or none", 0, 1, count=True)
KIND = laid_kind(
    ColumnMill, "column-mill", "column mill with cross table",
    "short loop, small work in metal", "the C opens: column foot and head nod; work must fit under the head",
    (
        *HEAD,
        Link("column", "column", "part", "stands behind the table"),
        Link("column_joint", "column foot", "joint", "column to base"),
        Link("base", "base", "part", "under table and column"),
        *TABLE_LINKS,
        STAND_LINK,
    ),
    (*TABLE_SIZES, COUNTERWEIGHT), put_up,
    ends={"column": "column_joint", "head_arm": "arm_joint", "mount_plate": "mount_joint", "spindle": "spindle_mount"},
    fitting={"spindle_mount": CLAMPS, **dict.fromkeys(("column_joint", "arm_joint", "mount_joint"), FRAME_JOINTS)},
    related={**TABLE_RELATED, "column": (Related("throat", 0.9, "column nearer the spindle"),),
             "column_joint": (Related("throat", 0.9, "column nearer the spindle"),),
             "head_arm": (Related("throat", 0.9, "column nearer the spindle"),)},
    carrying=("column", "base"),
    ribbed=("head_plate",),
    gusseted=("column_joint",),
)  # fmt: skip
