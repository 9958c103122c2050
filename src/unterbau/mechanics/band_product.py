"""A symmetric band matrix times columns, by its entries that are not zero."""

import numpy as np

from unterbau.mechanics import lapack
from unterbau.mechanics.arrays import FloatArray


class BandProduct:
    """A lower band matrix kept by columns, without its zeros.

    The columns of the lower triangle are the rows of its transpose, so one set of arrays
    serves both halves of the symmetric matrix.
    """

    def __init__(self, band: FloatArray) -> None:
        depth, n = band.shape
        flat = band.T.ravel()
        kept = np.flatnonzero(flat)
        column, below = np.divmod(kept, depth)
        inside = column + below < n
        column, below, values = column[inside], below[inside], flat[kept[inside]]
        self._n = n
        self._start = np.concatenate([[0], np.cumsum(np.bincount(column, minlength=n))]).astype(np.int32)
        self._row = (column + below).astype(np.int32)
        self._lower = values
        self._strict = np.where(below == 0, 0.0, values)

    def times(self, columns: FloatArray) -> FloatArray:
        """Return the matrix times columns, shape (n, m)."""
        X = np.ascontiguousarray(columns)
        Y = np.zeros_like(X)
        lapack.add_sparse_product(self._start, self._row, self._lower, X, Y, by_column=True)
        lapack.add_sparse_product(self._start, self._row, self._strict, X, Y, by_column=False)
        return Y
