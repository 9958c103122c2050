"""Pieces of machines: each puts its elements, its looks, its mass and its money in place at once."""
