"""Sizes of a machine whose change cures links, in many kinds."""

from unterbau.machine.kind import Related

OVERHANG = Related("spindle_overhang", 0.85, "spindle nearer the Z plate")
CLAMP_NEARER = Related("clamp_height", 0.75, "clamp nearer the nose")
Z_STANCE = Related("z_stance", 1.3, "Z blocks further apart")
X_STANCE = Related("x_stance", 1.3, "X blocks further apart")
Y_STANCE = Related("y_stance", 1.3, "Y blocks further apart")
LOWER = Related("clearance", 0.8, "beam lower over the bed")
