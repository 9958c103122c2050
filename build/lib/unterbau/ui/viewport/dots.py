"""Spots on the machine that are pointed at, clicked and dragged: places on the screen, as plain arithmetic."""

from dataclasses import dataclass

import numpy as np

from unterbau.mechanics.arrays import FloatArray

NEAR = 11.0  # px around a dot


@dataclass(frozen=True, slots=True)
class Dots:
    """Spots that are shown."""

    places: FloatArray
    """m, shape (n, 3)."""
    words: tuple[str, ...]
    """Of each."""
    held: tuple[int, ...] = ()
    """Those that can be dragged."""


def dot_at(seen: FloatArray, depth: FloatArray, place: FloatArray) -> int:
    """Return the number of the dot under a place of the screen, the one nearest to the eye; −1 is none.

    Args:
        seen: Dots on the screen, px, shape (n, 2).
        depth: How far each is from the eye, shape (n,).
        place: Place on the screen, px, shape (2,).
    """
    if not len(seen):
        return -1
    away = np.linalg.norm(seen - place, axis=1)
    near = np.flatnonzero(away < NEAR)
    if not len(near):
        return -1
    return int(near[np.argmin(depth[near] + 1e-3 * away[near] / NEAR)])
