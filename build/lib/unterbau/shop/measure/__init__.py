"""Measuring benches: readings in, value with uncertainty out, what to shim and by how much."""
