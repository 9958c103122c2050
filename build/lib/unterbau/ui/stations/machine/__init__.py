"""The Machine station: load path, 3D view, readout, bench, shelf."""
