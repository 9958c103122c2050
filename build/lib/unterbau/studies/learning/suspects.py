"""Which joint is loose: each that might be is taken as loose, and the tests say how likely that makes them."""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from unterbau.mechanics.arrays import FloatArray
from unterbau.shop.build.tests import Test
from unterbau.studies.learning.fitting import Fit, Prior, doubts, fitted, wanted
from unterbau.studies.learning.springs import ScaledSprings

ODDS = 0.03
"""That any one joint was left loose, before any test; common practice, no source."""
LOOSE_MIDDLE, LOOSE_SIGMA = float(np.log(0.3)), 0.7
"""Logarithm of what a loose joint has of its likely stiffness; from memory, wide."""
TRIED, BEHIND = 4, 4.0
"""So many suspects are solved anew: the likeliest by a sum without solving, not so far behind having none (ln)."""
GRID = np.linspace(-3.0, -0.2, 57)
WORTH = 1e-3
"""Share of all belief from which on a case counts."""


@dataclass(frozen=True, slots=True)
class Case:
    """One account of the tests: no joint loose, or one."""

    loose: int | None
    """Number of the unknown."""
    fit: Fit
    belief: float
    """0 to 1, all cases together 1."""


def cases(
    springs: ScaledSprings, tests: tuple[Test, ...], prior: Prior, step: Callable[[], None] = lambda: None
) -> tuple[Case, ...]:
    """Return the accounts of the tests worth telling, the likeliest first."""
    start = np.zeros(len(springs.keys))
    y, J = springs.predicted(tests, start)
    plain = fitted(springs, tests, prior, start, step)
    found: list[tuple[int | None, Fit, float]] = [(None, plain, plain.evidence)]
    for n, at in suspects(tests, prior, y, J):
        first = start.copy()
        first[n] = at
        fit = fitted(springs, tests, prior.with_loose(n, LOOSE_MIDDLE, LOOSE_SIGMA), first, step)
        found.append((n, fit, fit.evidence + float(np.log(ODDS))))
    top = max(score for *_, score in found)
    weights = [float(np.exp(score - top)) for *_, score in found]
    rows = [Case(n, fit, weight / sum(weights)) for (n, fit, _), weight in zip(found, weights, strict=True)]
    return tuple(sorted((one for one in rows if one.belief > WORTH), key=lambda one: -one.belief))


def suspects(tests: tuple[Test, ...], prior: Prior, y: FloatArray, J: FloatArray) -> list[tuple[int, float]]:
    """Return the unknowns that would explain the tests best if they were loose, and how loose, without solving anew.

    Softening one spring to e^θ of its stiffness lets what it owns of an answer grow by e^−θ, all others stay: exact for
    springs in series. The others' doubt is in the covariance.
    """
    R, w = doubts(tests), wanted(tests)
    pushes = np.array([one.sort == "push" for one in tests])
    spread = J * prior.sigma
    V = np.diag(R) + spread @ spread.T
    none = -0.5 * float((w - y) @ np.linalg.solve(V, w - y)) - 0.5 * float(np.linalg.slogdet(V)[1])
    found = []
    for n in range(J.shape[1]):
        others = np.delete(spread, n, axis=1)
        V = np.diag(R) + others @ others.T
        share = np.where(pushes, -J[:, n], 2 * J[:, n])
        grown = np.log(np.maximum(1 + share[None, :] * (np.exp(-GRID[:, None]) - 1), 1e-6))
        r = w[None, :] - y[None, :] - np.where(pushes, grown, -0.5 * grown)
        missed = np.einsum("gi,gi->g", r, np.linalg.solve(V, r.T).T) + ((GRID - LOOSE_MIDDLE) / LOOSE_SIGMA) ** 2
        best = int(np.argmin(missed))
        score = -0.5 * float(missed[best]) - 0.5 * float(np.linalg.slogdet(V)[1]) + float(np.log(ODDS))
        found.append((score, n, float(GRID[best])))
    worth = sorted((one for one in found if one[0] > none - BEHIND), reverse=True)
    return [(n, at) for _, n, at in worth[:TRIED]]
