"""The frame of the window: header, station bar, command finder, files."""
