"""Links, sizes and cures that many kinds of machine have in common."""

from unterbau.machine.kind import BED_JOINTS, CLAMPS, FRAME_JOINTS, Link, More, Related, SizeField

STAND_LINK = Link("stand", "stand", "part", "under the feet; off the path, but it shakes")
SPINDLE_LINKS = (
    Link("cutter", "cutter", "part", "in the spindle"),
    Link("collet", "collet", "joint", "cutter in the spindle"),
    Link("spindle", "spindle", "part", "bearings between nose and body"),
)
HEAD_LINKS = (
    *SPINDLE_LINKS,
    Link("spindle_mount", "spindle clamp", "joint", "spindle to Z plate"),
    Link("z_plate", "Z plate", "part", "carries the spindle, runs up and down"),
    Link("z_guides", "Z guides", "guide", "Z plate to X plate"),
    Link("z_drive", "Z drive", "drive", "holds the head up"),
    Link("z_motor", "Z motor", "drive", "holds the Z drive still"),
    Link("x_plate", "X plate", "part", "runs along the beam"),
    Link("x_guides", "X guides", "guide", "X plate to beam"),
    Link("x_drive", "X drive", "drive", "along the beam"),
    Link("x_motor", "X motor", "drive", "holds the X drive still"),
    Link("gantry_beam", "gantry beam", "part", "between the sides"),
    Link("beam_joint", "beam ends", "joint", "gantry beam to sides"),
)
GANTRY_LINKS = (
    *HEAD_LINKS,
    Link("side", "side plates", "part", "carry the gantry beam"),
    Link("y_guides", "Y guides", "guide", "side plates to what is below"),
    Link("y_drive", "Y drive", "drive", "pushes the gantry"),
    Link("y_motor", "Y motor", "drive", "holds the Y drive still"),
)
LADDER_LINKS = (
    Link("side_beam", "side beams", "part", "along both sides"),
    Link("cross_joint", "base corners", "joint", "cross members to side beams"),
    Link("cross_member", "cross members", "part", "under the bed"),
    Link("bed_fixing", "bed fixing", "joint", "bed to cross members"),
    Link("bed", "bed", "part", "carries the work"),
)
TABLE_LINKS = (
    Link("y_guides", "Y guides", "guide", "saddle to base"),
    Link("y_drive", "Y drive", "drive", "moves the saddle"),
    Link("y_motor", "Y motor", "drive", "holds the Y drive still"),
    Link("saddle", "saddle", "part", "between table and base"),
    Link("x_drive", "X drive", "drive", "moves the table"),
    Link("x_motor", "X motor", "drive", "holds the X drive still"),
    Link("x_guides", "X guides", "guide", "table to saddle"),
    Link("table", "table", "part", "carries the work"),
)
HEAD_SIZES = (
    SizeField("travel_x", "travel X", 0.05, 6.0),
    SizeField("travel_y", "travel Y", 0.05, 6.0),
    SizeField("travel_z", "travel Z", 0.02, 1.0),
    SizeField("clearance", "bed to beam", 0.02, 1.5),
    SizeField("lowest_tip", "tool tip over bed, lowest", 0.0, 0.5),
    SizeField("x_stance", "stance of X blocks", 0.04, 1.5),
    SizeField("y_stance", "stance of Y blocks", 0.04, 2.0),
    SizeField("z_stance", "stance of Z blocks", 0.03, 1.0),
    SizeField("z_rail_spacing", "between Z rails", 0.03, 0.6),
    SizeField("spindle_overhang", "spindle axis to Z plate", 0.02, 0.4),
    SizeField("clamp_height", "nose to clamp", 0.02, 0.4),
    SizeField("stop", "way left at each end", 0.0, 0.2),
)
FEET = SizeField("feet", "feet a side beam", 2, 8, count=True)
CROSS_MEMBERS = SizeField("cross_members", "cross members", 2, 12, count=True)
HEAD_ENDS = {"gantry_beam": "beam_joint", "side": "beam_joint", "spindle": "spindle_mount"}
LADDER_ENDS = {"cross_member": "cross_joint", "side_beam": "cross_joint", "bed": "bed_fixing"}
HEAD_FITTING = {"beam_joint": FRAME_JOINTS, "spindle_mount": CLAMPS}
LADDER_MORE = More("cross_members", "cross member", ("cross_member", "cross_joint", "bed_fixing", "bed", "side_beam"))
LADDER_FITTING = {"cross_joint": FRAME_JOINTS, "bed_fixing": BED_JOINTS}
_OVERHANG = Related("spindle_overhang", 0.85, "spindle nearer the Z plate")
_CLAMP = Related("clamp_height", 0.75, "clamp nearer the nose")
_Z_STANCE = Related("z_stance", 1.3, "Z blocks further apart")
_X_STANCE = Related("x_stance", 1.3, "X blocks further apart")
_Y_STANCE = Related("y_stance", 1.3, "Y blocks further apart")
_LOWER = Related("clearance", 0.8, "beam lower over the bed")
HEAD_RELATED = {
    "spindle": (_CLAMP,),
    "spindle_mount": (_CLAMP, _OVERHANG),
    "z_plate": (_Z_STANCE, _CLAMP, Related("z_rail_spacing", 1.3, "Z rails further apart")),
    "z_guides": (
        _Z_STANCE, Related("z_stance", 1.6, "Z blocks much further apart"),
        Related("z_rail_spacing", 1.3, "Z rails further apart"), _OVERHANG,
    ),
    "x_plate": (_Z_STANCE, _X_STANCE),
    "x_guides": (_X_STANCE, Related("x_stance", 1.6, "X blocks much further apart"), _OVERHANG),
    "gantry_beam": (_LOWER, _OVERHANG),
    "beam_joint": (_LOWER,),
    "side": (_LOWER, _Y_STANCE),
    "y_guides": (_Y_STANCE, Related("y_stance", 1.6, "Y blocks much further apart"), _LOWER),
}  # fmt: skip
LADDER_RELATED = {"side_beam": (_Y_STANCE,)}
TABLE_SIZES = (
    SizeField("travel_x", "travel X", 0.05, 2.0),
    SizeField("travel_y", "travel Y", 0.05, 1.0),
    SizeField("travel_z", "travel Z", 0.02, 1.0),
    SizeField("lowest_tip", "tool tip over table, lowest", 0.0, 0.5),
    SizeField("throat", "spindle axis to column", 0.05, 1.5),
    SizeField("table_length", "table, length", 0.1, 3.0),
    SizeField("table_width", "table, width", 0.08, 1.0),
    SizeField("x_stance", "stance of X blocks", 0.04, 1.5),
    SizeField("y_stance", "stance of Y blocks", 0.04, 1.0),
    SizeField("rail_spacing", "between Y rails", 0.06, 1.0),
    SizeField("z_stance", "stance of Z blocks", 0.03, 1.0),
    SizeField("z_rail_spacing", "between Z rails", 0.03, 0.8),
    SizeField("clamp_height", "nose to clamp", 0.02, 0.4),
    SizeField("stop", "way left at each end", 0.0, 0.2),
)
TABLE_RELATED = {
    "y_guides": (_Y_STANCE, Related("rail_spacing", 1.3, "Y rails further apart")),
    "x_guides": (_X_STANCE,),
    "saddle": (_X_STANCE,),
    "table": (_X_STANCE,),
    "z_guides": (_Z_STANCE, Related("z_rail_spacing", 1.3, "Z rails further apart")),
    "spindle": (_CLAMP,),
    "spindle_mount": (_CLAMP,),
}
