"""The few LAPACK and BLAS routines used, without the rest of SciPy.

Importing `scipy.linalg` takes longer than a whole small solution on the command line, so
its compiled wrappers are loaded from their files; the ordinary import is the fallback.
"""

import importlib.machinery
import importlib.util
from pathlib import Path
from types import ModuleType
from typing import cast

import numpy as np

from unterbau.mechanics.arrays import FloatArray


def _compiled(name: str) -> ModuleType:
    full = f"scipy.linalg.{name}"
    spec = importlib.util.find_spec("scipy")
    for folder in spec.submodule_search_locations if spec and spec.submodule_search_locations else ():
        for suffix in importlib.machinery.EXTENSION_SUFFIXES:
            path = Path(folder) / "linalg" / f"{name}{suffix}"
            if path.is_file():
                found = importlib.util.spec_from_file_location(full, path)
                if found and found.loader:
                    module = importlib.util.module_from_spec(found)
                    found.loader.exec_module(module)
                    return module
    return importlib.import_module(full)


_flapack = _compiled("_flapack")
_fblas = _compiled("_fblas")


def band_cholesky(band: FloatArray) -> tuple[FloatArray, int]:
    """Return the Cholesky factor of a lower band matrix (`pbtrf`) and LAPACK's info."""
    factor, info = _flapack.dpbtrf(band, lower=1, overwrite_ab=0)
    return cast(FloatArray, factor), int(info)


def band_solve(factor: FloatArray, right: FloatArray) -> FloatArray:
    """Return the solution for right-hand sides (n, m) from a band Cholesky factor (`pbtrs`)."""
    x, _ = _flapack.dpbtrs(factor, right, lower=1)
    return cast(FloatArray, x)


def band_multiply(band: FloatArray, columns: FloatArray) -> FloatArray:
    """Return a symmetric lower band matrix times columns (n, m) (`sbmv`)."""
    k = band.shape[0] - 1
    result = np.empty_like(columns, order="F")
    for c in range(columns.shape[1]):
        result[:, c] = _fblas.dsbmv(k, 1.0, band, columns[:, c], lower=1)
    return result
