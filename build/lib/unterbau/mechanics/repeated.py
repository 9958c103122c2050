"""Elements that repeat: a member in equal pieces, the screws of a rail. Their matrices are worked out once."""

import numpy as np

from unterbau.mechanics.arrays import FloatArray, IntArray

PLACES = 13
"""Decimals, m, that lengths and directions are told apart by."""


def sorts(shape: FloatArray, numbers: FloatArray) -> tuple[IntArray, IntArray]:
    """Return the first element of each sort, (s,), and which sort each element is, (n,).

    Args:
        shape: Lengths and directions of each, told apart to rounding, shape (n, a).
        numbers: What else they differ by, told apart exactly, shape (n, b).
    """
    rows = np.concatenate([shape.round(PLACES) + 0.0, numbers], axis=1)
    raw, width = rows.tobytes(), rows.shape[1] * rows.itemsize
    seen: dict[bytes, int] = {}
    sort = np.array([seen.setdefault(raw[k : k + width], len(seen)) for k in range(0, len(raw), width)], dtype=np.intp)
    first = np.empty(len(seen), dtype=np.intp)
    first[sort[::-1]] = np.arange(len(sort))[::-1]
    return first, sort
