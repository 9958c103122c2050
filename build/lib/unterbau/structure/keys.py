"""What links of the load path are called, whatever kind of machine they are in."""

from typing import Literal, NewType

ChangeKey = NewType("ChangeKey", str)
"""Link of a part that was added to a machine, or of what joins it."""
Key = ChangeKey | Literal[
    "cutter", "collet", "spindle", "spindle_mount", "z_plate", "z_guides", "z_drive", "z_motor", "x_plate",
    "x_guides", "x_drive", "x_motor", "gantry_beam", "beam_joint", "side", "y_guides", "y_drive", "y_motor",
    "side_beam", "cross_joint", "cross_member", "bed_fixing", "bed", "stand", "wall", "wall_joint", "side_joint",
    "side_foot", "bridge_foot", "foot_joint", "base_beam", "table", "mount_plate", "mount_joint", "head_arm",
    "arm_joint", "head_plate", "column", "column_joint", "base", "saddle", "arm_end", "arm", "arm_clamp", "post",
    "post_joint", "brace", "brace_joint", "tie", "tie_joint", "tool_post", "cross_slide", "bed_tube",
    "headstock_joint", "headstock", "shaft", "chuck", "tailstock", "centre", "work", "wall_beam", "panel_joint",
    "panel", "anchor", "slab",
]  # fmt: skip
