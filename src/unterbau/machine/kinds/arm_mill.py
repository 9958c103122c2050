"""Arm mill: a round or square column, a horizontal arm clamped to it and turnable, a cross table below."""

from dataclasses import dataclass, field
from typing import Literal

from unterbau.errors import InputError
from unterbau.hashed import Hashed, hashed_once
from unterbau.machine.assemblies.bed import Bed, work_on
from unterbau.machine.assemblies.head import SPINDLE_LINKS, slide, z_slide
from unterbau.machine.assemblies.pieces import BESIDE, beam, fasten, four_feet, gusset, lay_plate, rib
from unterbau.machine.assemblies.table import (
    TABLE_LINKS,
    TABLE_RELATED,
    TABLE_SIZES,
    check_clear_of_column,
    cross_table,
    saddle_reach,
    table_dimension_lines,
    table_height,
)
from unterbau.machine.changes.change import Changes
from unterbau.machine.kind import CLAMPS, FRAME_JOINTS, STAND_LINK, Link, Related, SizeField
from unterbau.machine.laid_kind import laid_kind
from unterbau.strict import STRICT
from unterbau.structure.gussets import gusset_stops
from unterbau.structure.layout import Layout
from unterbau.structure.parts import Cutter, Drive, Guide, Joint, Member, Motor, Plate, Sizes, Spindle, Stand
from unterbau.structure.structure import Turned
from unterbau.structure.vectors import Y, Z
from unterbau.structure.weights import member_size

OVER_ARM = 0.05


@dataclass(frozen=True, slots=True)
class ArmSizes(Sizes):
    """Sizes one decides on. Metres."""

    __pydantic_config__ = STRICT

    travel_x: float = 0.2
    travel_y: float = 0.1
    travel_z: float = 0.07
    lowest_tip: float = 0.02
    throat: float = 0.2
    arm_height: float = 0.24
    """Table to the arm's axis."""
    table_length: float = 0.42
    table_width: float = 0.14
    x_stance: float = 0.14
    y_stance: float = 0.11
    rail_spacing: float = 0.14
    z_stance: float = 0.08
    z_rail_spacing: float = 0.08
    spindle_overhang: float = 0.05
    clamp_height: float = 0.04
    turn: int = 0
    """Arm turned aside about the column, degrees."""
    stop: float = 0.006


@hashed_once
@dataclass(frozen=True, slots=True)
class ArmMill(Hashed):
    """A whole machine of this kind."""

    __pydantic_config__ = STRICT

    kind: Literal["arm-mill"] = "arm-mill"
    dimensions: ArmSizes = field(default_factory=ArmSizes)
    base: Member = field(default_factory=lambda: Member("box-80x220x12", "steel-s235"))
    column_joint: Joint = field(default_factory=lambda: Joint("flange"))
    column: Member = field(default_factory=lambda: Member("chs-114.3x8", "steel-s235"))
    arm_clamp: Joint = field(default_factory=lambda: Joint("clamp", 2))
    arm: Member = field(default_factory=lambda: Member("rhs-100x80x6", "steel-s235"))
    arm_end: Joint = field(default_factory=lambda: Joint("weld"))
    head_plate: Plate = field(default_factory=lambda: Plate(0.02, "steel-s235"))
    z_guides: Guide = field(default_factory=lambda: Guide("15", "medium"))
    z_drive: Drive = field(default_factory=lambda: Drive("ballscrew-12"))
    z_motor: Motor = field(default_factory=Motor)
    z_plate: Plate = field(default_factory=lambda: Plate(0.025, "aluminium-5083"))
    spindle_mount: Joint = field(default_factory=lambda: Joint("clamp"))
    spindle: Spindle = field(default_factory=lambda: Spindle(mass=3.0, diameter=0.065, length=0.18))
    cutter: Cutter = field(default_factory=lambda: Cutter(0.006, 0.02))
    collet: Joint = field(default_factory=lambda: Joint("collet"))
    y_guides: Guide = field(default_factory=lambda: Guide("15", "medium"))
    y_drive: Drive = field(default_factory=lambda: Drive("ballscrew-12"))
    y_motor: Motor = field(default_factory=Motor)
    saddle: Plate = field(default_factory=lambda: Plate(0.02, "steel-s235"))
    x_guides: Guide = field(default_factory=lambda: Guide("15", "medium"))
    x_drive: Drive = field(default_factory=lambda: Drive("ballscrew-12"))
    x_motor: Motor = field(default_factory=Motor)
    table: Plate = field(default_factory=lambda: Plate(0.02, "aluminium-5083"))
    stand: Stand = field(default_factory=Stand)
    payload: float = 0.0
    """What the head carries by the brief, kg."""
    changes: Changes = ()


def put_up(lay: Layout[ArmMill]) -> None:
    """Put up a machine of this kind, the arm straight over the table."""
    m, d = lay.machine, lay.machine.dimensions
    check_clear_of_column(lay)
    at = slide(m, m.head_plate)
    arm_h = member_size(m.arm)[0]
    lowest = slide(m, m.head_plate).z_block_z[0] - 0.02
    if d.arm_height - arm_h / 2 < lowest - 0.03:
        expected = f"expected at least {(lowest - 0.03 + arm_h / 2) * 1e3:.0f} mm over this slide"
        raise InputError("dimensions.arm_height", expected)
    seat = -table_height(lay)
    height = member_size(m.base)[0]
    deep = member_size(m.column)[0]
    column_y, front = d.throat + deep / 2, -saddle_reach(lay)
    z = seat - height / 2
    ends = ((0.0, front, z), (0.0, column_y + deep / 2 + m.column_joint.overhang, z))
    base = beam(lay, "base", m.base, "base", *ends, Z, (column_y - front, -front), 8, carries=True)
    four_feet(lay, base)
    top = d.arm_height + arm_h / 2 + OVER_ARM
    column = beam(lay, "column", m.column, "column", (0.0, column_y, seat), (0.0, column_y, top), Y,
                  (d.arm_height - seat, *gusset_stops(m.column_joint)), 8, carries=True)  # fmt: skip
    under = fasten(lay, "column_joint", m.column_joint, column, False, base)
    gusset(lay, "column_joint", m.column_joint, column, False, under, BESIDE)
    with lay.turned(d.turn, (0.0, column_y)):
        arm = beam(
            lay, "arm", m.arm, "arm", (0.0, column_y, d.arm_height), (0.0, at.carrier_y, d.arm_height), Z, pieces=5
        )
        fasten(lay, "arm_clamp", m.arm_clamp, arm, False, column)
        low, high = at.z_block_z[0] - 0.03, max(at.z_block_z[1] + 0.03, d.arm_height + arm_h / 2)
        wide = d.z_rail_spacing + 0.05
        ends = ((0.0, at.carrier_y, low), (0.0, at.carrier_y, high))
        plate = lay_plate(lay, "head_plate", m.head_plate, "head plate", *ends, wide, Y)
        rib(lay, m.head_plate, plate, Y)
        fasten(lay, "arm_end", m.arm_end, arm, True, plate)
        z_slide(lay, plate, at, "")
    _work(lay, cross_table(lay, base, seat), column_y)
    bottom = seat - height
    table_dimension_lines(lay, bottom)
    over = at.z_plate_z[1]
    lay.size_across("z_rail_spacing", "Z rails", "front", (0.0, over), d.z_rail_spacing, 1, "Z")
    lay.size("throat", "throat", "side", (0.0, top), (d.throat, top), 1)
    lay.size("arm_height", "arm", "side", (d.throat + 0.02, 0.0), (d.throat + 0.02, d.arm_height), 1)
    lay.size("spindle_overhang", "overhang", "side", (at.z_plate_y, over), (0.0, over), 1, moves="Z")
    ahead = -m.spindle.diameter / 2
    lay.size("lowest_tip", "tip, lowest", "side", (ahead, 0.0), (ahead, d.lowest_tip), -1)
    lay.size("clamp_height", "nose to clamp", "side", (ahead, at.nose_z), (ahead, at.clamp_z), -2, moves="Z")
    low = at.nose_z
    lay.size("travel_z", "travel Z", "side", (ahead, low), (ahead, low + d.travel_z), -3)


def _work(lay: Layout[ArmMill], table: Bed, column_y: float) -> None:
    """Let the work stand under the tool, wherever the arm is turned to."""
    d = lay.machine.dimensions
    x, y, _ = Turned(d.turn, (0.0, column_y), ()).place((0.0, 0.0, 0.0))
    reach = ((d.table_length - d.travel_x) / 2, (d.table_width - d.travel_y) / 2)
    if d.turn and not (abs(x) <= reach[0] and abs(y) <= reach[1]):
        expected = f"expected less than {abs(d.turn)}°: somewhere on the travel the tool leaves the table"
        raise InputError("dimensions.turn", expected)
    work_on(lay, table, x, y)


KIND = laid_kind(
    ArmMill, "arm-mill", "arm mill: column with a turnable arm",
    "reaches over odd work; small, quick to set", "arm and column bend and twist: light cuts",
    (
        *SPINDLE_LINKS,
        Link("spindle_mount", "spindle clamp", "joint", "spindle to Z plate"),
        Link("z_plate", "Z plate", "part", "carries the spindle, runs up and down"),
        Link("z_guides", "Z guides", "guide", "Z plate to head plate"),
        Link("z_drive", "Z drive", "drive", "holds the head up"),
        Link("z_motor", "Z motor", "drive", "holds the Z drive still"),
        Link("head_plate", "head plate", "part", "at the front of the arm"),
        Link("arm_end", "arm front", "joint", "head plate to arm"),
        Link("arm", "arm", "part", "from the column over the table"),
        Link("arm_clamp", "arm clamp", "joint", "around the column; turns when loose"),
        Link("column", "column", "part", "stands behind the table"),
        Link("column_joint", "column foot", "joint", "column to base"),
        Link("base", "base", "part", "under table and column"),
        *TABLE_LINKS,
        STAND_LINK,
    ),
    (
        *TABLE_SIZES, SizeField("arm_height", "table to arm", 0.05, 1.5),
        SizeField("turn", "arm turned aside, degrees", -75, 75, count=True),
        SizeField("spindle_overhang", "spindle axis to Z plate", 0.02, 0.4),
    ), put_up,
    ends={"column": "column_joint", "arm": "arm_clamp", "spindle": "spindle_mount"},
    fitting={"column_joint": FRAME_JOINTS, "arm_clamp": CLAMPS, "arm_end": FRAME_JOINTS, "spindle_mount": CLAMPS},
    related={**TABLE_RELATED, **dict.fromkeys(
        ("column", "column_joint", "arm", "arm_clamp"),
        (Related("throat", 0.9, "column nearer the spindle"), Related("arm_height", 0.9, "arm lower over the table")),
    )},
    carrying=("base",),
    ribbed=("z_plate", "head_plate"),
    gusseted=("column_joint",),
)  # fmt: skip
