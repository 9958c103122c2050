"""Solid finite elements of real parts: quadratic bricks, solved with calculix-ccx, by hand; results are stored."""
