"""Closed bodies as faces that can be lit up."""

import numpy as np

from unterbau.mechanics.arrays import FloatArray, IntArray


def prism_faces(corners: FloatArray) -> IntArray:
    """Return the faces of a body of two rings of corners, one after the other; as count, then points, flat."""
    n = len(corners) // 2
    faces = [n, *range(n), n, *range(n, 2 * n)]
    for k in range(n):
        after = (k + 1) % n
        faces += [4, k, after, n + after, n + k]
    return np.array(faces)
