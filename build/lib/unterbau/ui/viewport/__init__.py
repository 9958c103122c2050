"""The machine in 3D; nothing outside this folder knows VTK."""
