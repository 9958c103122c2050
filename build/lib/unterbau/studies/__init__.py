"""Questions asked of a machine: stiffness, shares, droop, modes."""
