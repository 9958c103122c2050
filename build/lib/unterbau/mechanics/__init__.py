"""Frames as plain numbers: elements, assembly, statics, modes, energies. SI units throughout."""
