"""From a structure to a frame: what bends, how it is held, where it is split."""
