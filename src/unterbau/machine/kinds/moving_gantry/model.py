"""The moving-gantry router as the person describes it."""

from dataclasses import dataclass, field
from typing import Literal

from unterbau.machine.kind import FRAME_JOINTS, Link, More, Related
from unterbau.machine.kit.sets import STAND_LINK
from unterbau.machine.parts import Cutter, Drive, Guide, Joint, Member, Plate, Sizes, Spindle, Stand
from unterbau.strict import STRICT


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
    stop: float = 0.01
    """Free way left at each end of an axis."""


@dataclass(frozen=True, slots=True)
class MovingGantry:
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
    side: Plate = field(default_factory=lambda: Plate(0.02, "aluminium-5083"))
    beam_joint: Joint = field(default_factory=lambda: Joint("epoxied"))
    gantry_beam: Member = field(default_factory=lambda: Member("rhs-120x80x5", "steel-s235"))
    x_guides: Guide = field(default_factory=lambda: Guide("15"))
    x_drive: Drive = field(default_factory=lambda: Drive("ballscrew-16"))
    x_plate: Plate = field(default_factory=lambda: Plate(0.02, "aluminium-5083"))
    z_guides: Guide = field(default_factory=lambda: Guide("15"))
    z_drive: Drive = field(default_factory=lambda: Drive("ballscrew-12"))
    z_plate: Plate = field(default_factory=lambda: Plate(0.02, "aluminium-5083"))
    spindle_mount: Joint = field(default_factory=lambda: Joint("clamp"))
    spindle: Spindle = field(default_factory=Spindle)
    cutter: Cutter = field(default_factory=Cutter)
    stand: Stand = field(default_factory=Stand)


LINKS = (
    Link("cutter", "cutter", "part", "in the spindle"),
    Link("spindle", "spindle", "part", "bearings between nose and body"),
    Link("spindle_mount", "spindle clamp", "joint", "spindle to Z plate"),
    Link("z_plate", "Z plate", "part", "carries the spindle, runs up and down"),
    Link("z_guides", "Z guides", "guide", "Z plate to X plate"),
    Link("z_drive", "Z drive", "drive", "holds the head up"),
    Link("x_plate", "X plate", "part", "runs along the gantry beam"),
    Link("x_guides", "X guides", "guide", "X plate to gantry beam"),
    Link("x_drive", "X drive", "drive", "along the gantry beam"),
    Link("gantry_beam", "gantry beam", "part", "between the side plates"),
    Link("beam_joint", "beam ends", "joint", "gantry beam to side plates"),
    Link("side", "side plates", "part", "carry the gantry beam"),
    Link("y_guides", "Y guides", "guide", "side plates to side beams"),
    Link("y_drive", "Y drive", "drive", "pushes the gantry"),
    Link("side_beam", "side beams", "part", "under the Y rails"),
    Link("cross_joint", "base corners", "joint", "cross members to side beams"),
    Link("cross_member", "cross members", "part", "under the bed"),
    Link("bed_fixing", "bed fixing", "joint", "bed to cross members"),
    Link("bed", "bed", "part", "carries the work"),
    STAND_LINK,
)
ENDS = {
    "gantry_beam": "beam_joint", "cross_member": "cross_joint", "side_beam": "cross_joint",
    "bed": "bed_fixing", "side": "beam_joint", "spindle": "spindle_mount",
}  # fmt: skip
"""The joint that holds a part's ends."""
FITTING = {
    "cross_joint": FRAME_JOINTS, "beam_joint": FRAME_JOINTS, "bed_fixing": ("bolt", "wood-screw", "epoxied"),
    "spindle_mount": ("clamp", "flange", "printed"),
}  # fmt: skip
"""Kinds of joint that make sense at each place."""
RELATED = {
    "cutter": (),
    "spindle": (Related("clamp_height", 0.75, "clamp nearer the nose"),),
    "spindle_mount": (
        Related("clamp_height", 0.75, "clamp nearer the nose"),
        Related("spindle_overhang", 0.85, "spindle nearer the Z plate"),
    ),
    "z_plate": (
        Related("z_stance", 1.3, "Z blocks further apart"),
        Related("clamp_height", 0.75, "clamp nearer the nose"),
        Related("z_rail_spacing", 1.3, "Z rails further apart"),
    ),
    "z_guides": (
        Related("z_stance", 1.3, "Z blocks further apart"),
        Related("z_stance", 1.6, "Z blocks much further apart"),
        Related("z_rail_spacing", 1.3, "Z rails further apart"),
        Related("spindle_overhang", 0.85, "spindle nearer the Z plate"),
    ),
    "z_drive": (),
    "x_plate": (Related("z_stance", 1.3, "Z blocks further apart"), Related("x_stance", 1.3, "X blocks further apart")),
    "x_guides": (
        Related("x_stance", 1.3, "X blocks further apart"),
        Related("x_stance", 1.6, "X blocks much further apart"),
        Related("spindle_overhang", 0.85, "spindle nearer the Z plate"),
    ),
    "x_drive": (),
    "gantry_beam": (
        Related("clearance", 0.8, "beam lower over the bed"),
        Related("spindle_overhang", 0.85, "spindle nearer the beam"),
    ),
    "beam_joint": (Related("clearance", 0.8, "beam lower over the bed"),),
    "side": (Related("clearance", 0.8, "beam lower over the bed"), Related("y_stance", 1.3, "Y blocks further apart")),
    "y_guides": (
        Related("y_stance", 1.3, "Y blocks further apart"),
        Related("y_stance", 1.6, "Y blocks much further apart"),
        Related("clearance", 0.8, "beam lower over the bed"),
    ),
    "y_drive": (),
    "side_beam": (Related("y_stance", 1.3, "Y blocks further apart"),),
    "cross_joint": (),
    "cross_member": (),
    "bed_fixing": (),
    "bed": (),
}
"""Sizes of the machine that each link answers to."""
MORE = More("cross_members", "cross member", ("cross_member", "cross_joint", "bed_fixing", "bed", "side_beam"))
MOST_DRIVES = {"y_drive": 2}
"""Axes that can have more than one drive."""
