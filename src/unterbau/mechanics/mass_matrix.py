"""The mass matrix of the free freedoms by its entries; a symmetric matrix times columns."""

from dataclasses import dataclass
from typing import Self

import numpy as np
from numpy.typing import NDArray

from unterbau.mechanics import lapack
from unterbau.mechanics.arrays import BoolArray, FloatArray, IntArray
from unterbau.mechanics.numbering import Numbering


@dataclass(frozen=True, slots=True)
class Pattern:
    """Where a symmetric matrix has entries, by the columns of its lower triangle."""

    start: NDArray[np.int32]
    """Of each column among the entries, and their number; shape (n + 1,)."""
    row: NDArray[np.int32]
    """Of each entry."""
    diagonal: BoolArray
    """Which entries stand on it."""
    entry: IntArray
    """Where what the elements have is added up; beyond the last where it is left out."""

    @classmethod
    def of(cls, numbering: Numbering, target: IntArray) -> Self:
        """Return the pattern of elements whose entries go to these places of the lower band."""
        n, depth = len(numbering.order), numbering.half_bandwidth + 1
        places, entry = np.unique(target, return_inverse=True)
        inside = places[: np.searchsorted(places, n * depth)]
        column, below = np.divmod(inside, depth)
        start = np.concatenate([[0], np.cumsum(np.bincount(column, minlength=n))])
        return cls(start.astype(np.int32), (column + below).astype(np.int32), below == 0, entry.reshape(-1))


class MassMatrix:
    """Kept by columns of the lower triangle; these are the rows of its transpose, so they serve both halves."""

    def __init__(self, pattern: Pattern, values: FloatArray) -> None:
        """Add up what the elements have.

        Args:
            pattern: Where.
            values: Their entries, in the pattern's order.
        """
        self._pattern = pattern
        count = len(pattern.row)
        self._lower: FloatArray = np.asarray(np.bincount(pattern.entry, values, count + 1)[:count], dtype=float)
        self._strict: FloatArray = np.where(pattern.diagonal, 0.0, self._lower)

    def times(self, columns: FloatArray) -> FloatArray:
        """Return the matrix times columns, shape (n, m)."""
        X = np.ascontiguousarray(columns)
        Y = np.zeros_like(X)
        start, row = self._pattern.start, self._pattern.row
        lapack.add_sparse_product(start, row, self._lower, X, Y, by_column=True)
        lapack.add_sparse_product(start, row, self._strict, X, Y, by_column=False)
        return Y
