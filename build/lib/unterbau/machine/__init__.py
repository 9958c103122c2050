"""Machines as people describe them, and the frames that follow from them."""
