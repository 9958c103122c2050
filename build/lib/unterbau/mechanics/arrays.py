"""The array types of the numerical core, the small matrices of three-space, sums by place."""

from typing import TypeAlias

import numpy as np
from numpy.typing import NDArray

FloatArray: TypeAlias = NDArray[np.float64]
ComplexArray: TypeAlias = NDArray[np.complex128]
IntArray: TypeAlias = NDArray[np.intp]
BoolArray: TypeAlias = NDArray[np.bool_]


def cross_matrices(vectors: FloatArray) -> FloatArray:
    """Return for each vector r, shape (n, 3), the matrix S with S @ a == r × a, shape (n, 3, 3)."""
    x, y, z = vectors.T
    result = np.zeros((len(vectors), 3, 3))
    result[:, 0, 1], result[:, 0, 2] = -z, y
    result[:, 1, 0], result[:, 1, 2] = z, -x
    result[:, 2, 0], result[:, 2, 1] = -y, x
    return result


def axes_from(x: FloatArray, up: FloatArray) -> FloatArray:
    """Return local axes as rows x, y, z, shape (n, 3, 3).

    Local z lies in the plane of x and up, on the side of up; y = z × x.

    Args:
        x: Directions of local x, any length, shape (n, 3).
        up: Vectors not parallel to x, shape (n, 3).
    """
    ex = x / np.linalg.norm(x, axis=1, keepdims=True)
    z = up - np.sum(up * ex, axis=1, keepdims=True) * ex
    ez = z / np.linalg.norm(z, axis=1, keepdims=True)
    return np.stack([ex, (cross_matrices(ez) @ ex[:, :, None])[:, :, 0], ez], axis=1)


def totals(where: IntArray, values: FloatArray, count: int) -> FloatArray:
    """Return the sums of what goes to each of `count` places, shape (m, count), for values (m, n) and places (n,)."""
    sums = [np.bincount(where, row, count) for row in values]
    return np.array(sums, dtype=float).reshape(len(values), count)
