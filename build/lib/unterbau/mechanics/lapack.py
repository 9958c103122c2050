"""The few LAPACK, BLAS and sparse routines used, without the rest of SciPy.

Importing `scipy.linalg` takes longer than a whole small solution on the command line, so
its compiled wrappers are loaded from their files; the ordinary import is the fallback.
"""

import importlib.machinery
import importlib.util
from pathlib import Path
from types import ModuleType
from typing import cast

import numpy as np
from numpy.typing import NDArray

from unterbau.mechanics.arrays import FloatArray


def _compiled(package: str, name: str) -> ModuleType:
    full = f"scipy.{package}.{name}"
    spec = importlib.util.find_spec("scipy")
    for folder in spec.submodule_search_locations if spec and spec.submodule_search_locations else ():
        for suffix in importlib.machinery.EXTENSION_SUFFIXES:
            path = Path(folder) / package / f"{name}{suffix}"
            if path.is_file():
                found = importlib.util.spec_from_file_location(full, path)
                if found and found.loader:
                    module = importlib.util.module_from_spec(found)
                    found.loader.exec_module(module)
                    return module
    return importlib.import_module(full)


_flapack = _compiled("linalg", "_flapack")
_fblas = _compiled("linalg", "_fblas")
_sparse = _compiled("sparse", "_sparsetools")


def band_cholesky(band: FloatArray) -> tuple[FloatArray, int]:
    """Return the Cholesky factor of a lower band matrix (`pbtrf`) and LAPACK's info."""
    factor, info = _flapack.dpbtrf(band, lower=1, overwrite_ab=0)
    return cast(FloatArray, factor), int(info)


def band_solve(factor: FloatArray, right: FloatArray) -> FloatArray:
    """Return the solution for right-hand sides (n, m) from a band Cholesky factor (`pbtrs`)."""
    x, _ = _flapack.dpbtrs(factor, right, lower=1)
    return cast(FloatArray, x)


def lower_solve(lower: FloatArray, right: FloatArray) -> None:
    """Solve with a dense lower triangle in place, for right-hand sides (n, m) in C order (`trsm`)."""
    _fblas.dtrsm(1.0, lower, right.T, side=1, lower=1, trans_a=1, overwrite_b=1)


def add_sparse_product(
    start: NDArray[np.int32], column: NDArray[np.int32], values: FloatArray, x: FloatArray, y: FloatArray
) -> None:
    """Add a square sparse matrix times x to y.

    Args:
        start: Where each row begins, shape (n + 1,).
        column: Of each entry.
        values: The entries.
        x: What is multiplied, shape (n,).
        y: Added to in place, contiguous, shape (n,).
    """
    _sparse.csr_matvec(len(x), len(x), start, column, values, x, y)
