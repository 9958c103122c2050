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

    count: int
    """Entries of the lower triangle."""
    kept: IntArray
    """Which of what the elements have goes there."""
    entry: IntArray
    """To which of its entries."""
    start: IntArray
    """Where each row of the whole matrix begins, and the end, shape (n + 1,)."""
    column: NDArray[np.int32]
    """Of each of its entries, row by row."""
    lower: IntArray
    """Which of the lower triangle each of them is."""

    @classmethod
    def of(cls, numbering: Numbering, target: IntArray) -> Self:
        """Return the pattern of elements whose entries go to these places of the lower band."""
        n, depth = len(numbering.order), numbering.half_bandwidth + 1
        kept = np.flatnonzero(target < n * depth)
        inside, entry = np.unique(target[kept], return_inverse=True)
        column, below = np.divmod(inside, depth)
        beside = np.flatnonzero(below)
        row, every = column + below, np.arange(len(inside))
        rows, columns = np.concatenate([row, column[beside]]), np.concatenate([column, row[beside]])
        order = np.lexsort((columns, rows))
        start = np.searchsorted(rows[order], np.arange(n + 1))
        lower = np.concatenate([every, beside])[order]
        return cls(len(inside), kept, entry.reshape(-1), start, columns[order].astype(np.int32), lower)


class MassMatrix:
    """Kept by rows, without what is zero."""

    def __init__(self, pattern: Pattern, values: FloatArray) -> None:
        """Add up what the elements have.

        Args:
            pattern: Where.
            values: Their entries, in the pattern's order.
        """
        every = np.bincount(pattern.entry, values[pattern.kept], pattern.count)[pattern.lower]
        there = np.flatnonzero(every)
        self._values: FloatArray = np.asarray(every[there], dtype=float)
        self._column = pattern.column[there]
        self._start = np.searchsorted(there, pattern.start).astype(np.int32)

    def times(self, rows: FloatArray) -> FloatArray:
        """Return the matrix times vectors, both as rows, shape (m, n)."""
        X = np.ascontiguousarray(rows)
        Y = np.zeros_like(X)
        for x, y in zip(X, Y, strict=True):
            lapack.add_sparse_product(self._start, self._column, self._values, x, y)
        return Y
