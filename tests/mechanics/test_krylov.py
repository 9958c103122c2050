"""The Krylov space of modes: what it says of itself against dense matrices and SciPy's eigenvalues."""

import numpy as np
import pytest
from scipy.linalg import eigh

from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.krylov import Space
from unterbau.mechanics.mass_matrix import MassMatrix


class Dense(MassMatrix):
    """A mass matrix that is given."""

    def __init__(self, M: FloatArray) -> None:
        self._M = M

    def times(self, rows: FloatArray) -> FloatArray:
        """Return M times vectors."""
        return rows @ self._M


def matrices(n: int, massless: int, seed: int) -> tuple[FloatArray, FloatArray]:
    """Return a stiffness with eigenvalues over five powers of ten, and a mass that some freedoms lack."""
    draw = np.random.default_rng(seed)
    turn, _ = np.linalg.qr(draw.standard_normal((n, n)))
    K = turn @ np.diag(np.logspace(4, 9, n)) @ turn.T
    some = draw.standard_normal((n, n))
    M = some @ some.T + np.eye(n)
    M[:massless] = M[:, :massless] = 0.0
    return K, M


def image(K: FloatArray, rows: FloatArray) -> FloatArray:
    """Return K⁻¹ times vectors, all as rows."""
    return np.asarray(np.linalg.solve(K, rows.T).T, dtype=float)


@pytest.mark.parametrize(("massless", "seed"), [(0, 1), (12, 2), (35, 3)])
def test_residuals_are_those_of_the_vectors_at_every_size(massless: int, seed: int) -> None:
    """K⁻¹M x − λ x of each mixture, worked out from the dense matrices, as long as rounding leaves something of it."""
    K, M = matrices(40, massless, seed)
    space, draw = Space(40, Dense(M)), np.random.default_rng(seed)
    rest = space.rest(image(K, draw.standard_normal((3, 40)) @ M))
    seen = 0
    while added := space.take(rest):
        rest = space.rest(image(K, space.products(added)))
        space.keep(rest)
        values, mix, residual = space.ritz(6)
        x = space.mixed(mix)
        left = np.linalg.solve(K, M @ x.T) - values * x.T
        size = np.sqrt(np.abs(np.sum(left * (M @ left), axis=0)))
        clear = size > 1e-7 * values[0]
        assert np.sqrt(residual[clear]) == pytest.approx(size[clear], rel=1e-4)
        assert (np.sqrt(np.abs(residual[~clear])) < 1.1e-7 * values[0]).all()
        seen += int(clear.sum())
        assert x @ M @ x.T == pytest.approx(np.eye(len(x)), abs=1e-9)
    assert seen >= 3
    massive = 40 - massless
    assert space.size == massive
    values, *_ = space.ritz(massive)
    assert values == pytest.approx(dense_values(K, M, massive), rel=1e-6, abs=0)


def dense_values(K: FloatArray, M: FloatArray, count: int) -> FloatArray:
    """Return the largest eigenvalues of M x = λ K x."""
    return np.asarray(eigh(M, K, eigvals_only=True)[::-1][:count])


def test_a_start_that_has_no_mass_adds_nothing() -> None:
    """Vectors on massless freedoms only."""
    _, M = matrices(20, 5, 4)
    space = Space(20, Dense(M))
    rows = np.zeros((3, 20))
    rows[:, :5] = np.random.default_rng(0).standard_normal((3, 5))
    rest = space.rest(rows)
    assert not rest.massive.any()
    assert space.take(rest) == 0
    assert space.size == 0
