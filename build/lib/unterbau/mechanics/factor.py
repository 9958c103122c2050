"""Factor of the stiffness matrix: banded Cholesky, or SuperLU where the band grows wide."""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from unterbau.mechanics import lapack
from unterbau.mechanics.arrays import FloatArray, IntArray

LEAST_BLOCK = 60
PANEL = 96
"""Rows that are solved together where there are many right-hand sides."""
WIDE = 4e9  # n · half-bandwidth², about the multiplications of a band factor


@dataclass(frozen=True, slots=True)
class Factor:
    """A factored matrix."""

    solve: Callable[[FloatArray], FloatArray]
    """Right-hand sides (n, m) to solutions (n, m)."""
    smallest_pivot: float
    """Of the matrix scaled to unit diagonal; 0 where the factorisation broke down."""
    band: FloatArray | None = None
    """The Cholesky factor in lower band storage, where there is one."""
    blocks: tuple[slice, ...] = ()
    """Ranges of rows that do not know of each other."""

    def between(self, right: FloatArray) -> FloatArray:
        """Return rightᵀ·A⁻¹·right for many right-hand sides (n, m), by L⁻¹·right; in dense panels, which is faster.

        Each range of rows is solved for the columns that load it only.
        """
        if self.band is None:
            return np.asarray(right.T @ self.solve(right))
        found = np.zeros((right.shape[1], right.shape[1]))
        for rows in self.blocks or (slice(0, len(right)),):
            part = right[rows]
            loaded = np.flatnonzero(part.any(axis=0))
            if len(loaded):
                found[np.ix_(loaded, loaded)] += _between(self.band[:, rows], part[:, loaded])
        return found


def _between(band: FloatArray, right: FloatArray) -> FloatArray:
    """Return rightᵀ·(L·Lᵀ)⁻¹·right for a factor in lower band storage, Fortran order."""
    y = np.array(right, order="C")
    depth, n = band.shape
    lower = _as_dense(np.asfortranarray(band))
    for start in range(0, n, PANEL):
        end, first = min(start + PANEL, n), max(0, start - depth + 1)
        if first < start:
            y[start:end] -= np.triu(lower[start:end, first:start], start - first - depth + 1) @ y[first:start]
        panel = lower[start:end, start:end]
        if depth < end - start:
            panel = np.triu(panel, 1 - depth)
        lapack.lower_solve(np.asfortranarray(panel), y[start:end])
    return np.asarray(y.T @ y)


def _as_dense(band: FloatArray) -> FloatArray:
    """Return a lower band matrix seen as a dense one, without a copy; only what lies in the band means anything."""
    one, column = band.strides
    return np.lib.stride_tricks.as_strided(band, (band.shape[1],) * 2, (one, column - one), writeable=False)


def unit_scale(diagonal: FloatArray) -> FloatArray:
    """Return the scaling that makes a diagonal one; 1 where the diagonal is not positive."""
    safe = np.where(diagonal > 0.0, diagonal, 1.0)
    return np.asarray(1.0 / np.sqrt(safe))


def scale_band(band: FloatArray, scale: FloatArray) -> FloatArray:
    """Return the band matrix with rows and columns multiplied by `scale`."""
    n, rows = len(scale), band.shape[0]
    padded = np.concatenate([scale, np.zeros(rows)])
    windows = np.lib.stride_tricks.sliding_window_view(padded, n)[:rows]
    return np.asfortranarray(band * windows * scale)


def factorise(band: FloatArray, ends: IntArray | None = None, shift: float = 0.0, wide: float = WIDE) -> Factor:
    """Return the factor of a symmetric positive definite lower band matrix.

    Args:
        band: Lower band storage, shape (half-bandwidth + 1, n).
        ends: Rows that begin what knows nothing of the rows before, and n; where not told, all is one.
        shift: Added to the diagonal as a share of it.
        wide: Above this n · half-bandwidth² SuperLU is used.
    """
    n = band.shape[1]
    scale = unit_scale(band[0])
    if n * band.shape[0] ** 2 > wide:
        return _sparse(band, scale, shift)
    if shift:
        band = band.copy(order="F")
        band[0] += shift / scale**2
    factor, info = lapack.band_cholesky(band)
    pivot = float(np.min(factor[0] * scale) ** 2) if info == 0 and n else 1.0 if n == 0 else 0.0
    blocks = _blocks(ends, n) if ends is not None else []
    if len(blocks) < 2:
        return Factor(lambda right: lapack.band_solve(factor, right), pivot, factor)
    return Factor(lambda right: _solve_blocks(factor, blocks, right), pivot, factor, tuple(blocks))


def _blocks(ends: IntArray, n: int) -> list[slice]:
    """Return the ranges of rows that do not know of each other, small ones together."""
    found, start = [], 0
    for end in ends.tolist():
        if end - start >= LEAST_BLOCK or end == n:
            found.append(slice(start, end))
            start = end
    return found


def _solve_blocks(factor: FloatArray, blocks: list[slice], right: FloatArray) -> FloatArray:
    """Return the solution; each range of rows only for the columns that load it."""
    found = np.zeros_like(right, order="F")
    for rows in blocks:
        part = right[rows]
        loaded = np.flatnonzero(part.any(axis=0))
        if len(loaded):
            found[rows, loaded] = lapack.band_solve(factor[:, rows], part[:, loaded])
    return found


def _sparse(band: FloatArray, scale: FloatArray, shift: float) -> Factor:
    from scipy.sparse import dia_array
    from scipy.sparse.linalg import splu

    scaled, column = scale_band(band, scale), scale[:, None]
    scaled[0] += shift
    n, depth = scaled.shape[1], scaled.shape[0]
    lower = dia_array((scaled, -np.arange(depth)), shape=(n, n)).tocsc()
    lower.eliminate_zeros()
    full = (lower + lower.T - dia_array((scaled[:1], [0]), shape=(n, n))).tocsc()
    try:
        lu = splu(full, permc_spec="MMD_AT_PLUS_A", diag_pivot_thresh=0.0, options={"SymmetricMode": True})
    except RuntimeError:
        return Factor(lambda right: right, 0.0)
    pivot = float(np.min(lu.U.diagonal()))
    return Factor(lambda right: column * lu.solve(column * right), max(pivot, 0.0))
