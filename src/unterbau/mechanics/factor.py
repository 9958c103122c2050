"""Factor of the stiffness matrix: banded Cholesky, or SuperLU where the band grows wide."""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from unterbau.mechanics import lapack
from unterbau.mechanics.arrays import FloatArray

WIDE = 4e9  # n · half-bandwidth², about the multiplications of a band factor


@dataclass(frozen=True, slots=True)
class Factor:
    """A factored matrix."""

    solve: Callable[[FloatArray], FloatArray]
    """Right-hand sides (n, m) to solutions (n, m)."""
    smallest_pivot: float
    """Of the matrix scaled to unit diagonal; 0 where the factorisation broke down."""


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


def factorise(band: FloatArray, shift: float = 0.0, wide: float = WIDE) -> Factor:
    """Return the factor of a symmetric positive definite lower band matrix.

    Args:
        band: Lower band storage, shape (half-bandwidth + 1, n).
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
    return Factor(lambda right: lapack.band_solve(factor, right), pivot)


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
