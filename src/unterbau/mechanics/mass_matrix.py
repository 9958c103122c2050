"""The mass matrix of the free freedoms by its entries; a symmetric matrix times vectors."""

from dataclasses import dataclass
from typing import Self

import numpy as np
from numpy.typing import NDArray

from unterbau.mechanics import lapack
from unterbau.mechanics.arrays import FloatArray, IntArray
from unterbau.mechanics.numbering import Numbering


@dataclass(frozen=True, slots=True)
class Pattern:
    """Where a symmetric matrix may have entries, and how they come from those of elements."""

    size: int
    """Rows."""
    count: int
    """Entries of the lower triangle."""
    entry: IntArray
    """Of what the elements have: which entry of the lower triangle it adds to; `count` where it is left out."""
    row: NDArray[np.int32]
    """Of each entry of the whole matrix, row by row."""
    column: NDArray[np.int32]
    lower: NDArray[np.int32]
    """Which of the lower triangle each of them is."""

    @classmethod
    def of(cls, numbering: Numbering, target: IntArray) -> Self:
        """Return the pattern of elements whose entries go to these places of the lower band."""
        n, depth = len(numbering.order), numbering.half_bandwidth + 1
        places, entry = np.unique(target, return_inverse=True)
        inside = places[: np.searchsorted(places, n * depth)]
        column, below = np.divmod(inside, depth)
        beside = np.flatnonzero(below)
        row, every = column + below, np.arange(len(inside))
        rows, columns = np.concatenate([row, column[beside]]), np.concatenate([column, row[beside]])
        order = np.lexsort((columns, rows))
        whole = (rows, columns, np.concatenate([every, beside]))
        return cls(n, len(inside), entry.reshape(-1), *(one[order].astype(np.int32) for one in whole))


class MassMatrix:
    """Kept by rows, without what is zero."""

    def __init__(self, pattern: Pattern, values: FloatArray) -> None:
        """Add up what the elements have.

        Args:
            pattern: Where.
            values: Their entries, in the pattern's order.
        """
        summed = np.bincount(pattern.entry, values, pattern.count + 1)
        every = summed[pattern.lower]
        there = np.flatnonzero(every != 0.0)
        self._values: FloatArray = np.asarray(every[there], dtype=float)
        self._column = pattern.column[there]
        self._start = np.searchsorted(pattern.row[there], np.arange(pattern.size + 1)).astype(np.int32)

    def times(self, rows: FloatArray) -> FloatArray:
        """Return the matrix times vectors, both as rows, shape (m, n)."""
        X = np.ascontiguousarray(rows)
        Y = np.zeros_like(X)
        for x, y in zip(X, Y, strict=True):
            lapack.add_sparse_product(self._start, self._column, self._values, x, y)
        return Y
