"""Joints as tests say they are: Gauss and Newton on the logarithms of their stiffnesses, with normal priors."""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from unterbau.mechanics.arrays import FloatArray
from unterbau.shop.build.tests import Test
from unterbau.studies.learning.springs import ScaledSprings

ROUNDS, SETTLED = 12, 5e-3
MODEL = 0.02
"""What the model may miss of any answer even with the right joints: joins the tests' doubt."""


@dataclass(frozen=True, slots=True)
class Prior:
    """What is taken of the logarithms before any test: independent, normal."""

    middle: FloatArray
    sigma: FloatArray

    def with_loose(self, n: int, middle: float, sigma: float) -> "Prior":
        """Return it with one unknown taken as loose."""
        middles, sigmas = self.middle.copy(), self.sigma.copy()
        middles[n], sigmas[n] = middle, sigma
        return Prior(middles, sigmas)


@dataclass(frozen=True, slots=True)
class Fit:
    """The likeliest machine under one prior, and what is left possible around it."""

    theta: FloatArray
    cov: FloatArray
    J: FloatArray
    """How answers go with the unknowns there, shape (tests, unknowns)."""
    y: FloatArray
    """Logarithms of what is predicted for the tests."""
    evidence: float
    """Logarithm of how likely the tests' values are under this prior, but for a constant (Laplace's approximation)."""


def wanted(tests: tuple[Test, ...]) -> FloatArray:
    """Return the logarithms of what tests told: ln C of pushes, ln f of taps."""
    return np.array([-np.log(one.value) if one.sort == "push" else np.log(one.value) for one in tests])


def doubts(tests: tuple[Test, ...]) -> FloatArray:
    """Return the variance of each test's logarithm, the model's own doubt with it."""
    return np.array([one.doubt**2 + MODEL**2 for one in tests])


def fitted(
    springs: ScaledSprings, tests: tuple[Test, ...], prior: Prior, start: FloatArray,
    step: Callable[[], None] = lambda: None,
) -> Fit:  # fmt: skip
    """Return the likeliest logarithms of the unknowns under a prior.

    Source:
        Gauss and Newton; evidence after Laplace (MacKay, Information Theory, Inference, and Learning Algorithms, 2003,
        chapter 27; from memory).
    """
    R, w = doubts(tests), wanted(tests)
    P = 1.0 / prior.sigma**2
    theta = start.copy()
    y, J = springs.predicted(tests, theta)
    for _ in range(ROUNDS):
        normal = J.T @ (J / R[:, None]) + np.diag(P)
        move = np.linalg.solve(normal, J.T @ ((w - y) / R) - P * (theta - prior.middle))
        move *= min(1.0, 1.0 / max(float(np.abs(move).max()), 1e-12))
        theta = np.asarray(theta + move, float)
        step()
        y, J = springs.predicted(tests, theta)
        if float(np.abs(move).max()) < SETTLED:
            break
    inside = J.T @ (J / R[:, None])
    cov: FloatArray = np.asarray(np.linalg.inv(inside + np.diag(P)), float)
    _, volume = np.linalg.slogdet(np.eye(len(theta)) + prior.sigma[:, None] ** 2 * inside)
    missed = float(((w - y) ** 2 / R).sum() + (P * (theta - prior.middle) ** 2).sum())
    return Fit(theta, cov, J, y, -0.5 * (missed + float(volume)))
