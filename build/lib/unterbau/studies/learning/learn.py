"""The built machine teaches the model: joints, guides, drives, feet as its tests say they are."""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
import scipy

from unterbau.band import Band
from unterbau.machine.machine import Machine, links, listed_mass
from unterbau.mechanics.arrays import FloatArray
from unterbau.progress import Progress, Silent
from unterbau.shop.build.tests import AXES, Test
from unterbau.structure.parts import Place
from unterbau.studies.learning.fitting import MODEL, Prior, doubts, wanted
from unterbau.studies.learning.springs import ScaledSprings
from unterbau.studies.learning.suspects import TRIED, Case, cases
from unterbau.studies.uncertain import NINETY

LOOSE_BELOW, SURE = 0.5, 0.9
"""A joint is probably loose where so much of what is left possible lies below this share of its likely value."""
MAYBE = 0.1
"""A joint that is so likely loose is told as a suspect where none surely is."""
MOST_TOGETHER = 3
"""So many are named together at the most, where tests do not tell which of them it is."""
ALIKE = 0.97
"""Cosine between what two unknowns do to all tests: more, and no test that was made tells them apart."""
SOLVES = 5 * (TRIED + 1)
"""How many times machines are usually solved anew."""


@dataclass(frozen=True, slots=True)
class Unknown:
    """A group of springs that scatters as one."""

    key: str
    label: str
    prior: Band
    """Against its likely value."""
    posterior: Band
    chance_loose: float
    """That it has less than half of its likely value."""
    together: tuple[str, ...]
    """Keys of those that the tests made cannot tell from it."""

    @property
    def loose(self) -> bool:
        """Whether it is probably loose."""
        return self.chance_loose >= SURE


@dataclass(frozen=True, slots=True)
class Compared:
    """A test beside what is predicted for it, before and after learning."""

    test: Test
    before: float
    after: float
    surprise: float
    """Difference to the prediction before, in standard deviations of both together."""


@dataclass(frozen=True, slots=True)
class Learned:
    """What tests teach."""

    unknowns: tuple[Unknown, ...]
    """Those the tests changed most first."""
    stiffness_before: tuple[Band, Band, Band]
    stiffness: tuple[Band, Band, Band]
    """Of the machine as built, N/m, at the place asked for."""
    compared: tuple[Compared, ...]
    loose: tuple[tuple[str, ...], ...]
    """Groups of keys of which one is probably loose."""
    suspected: tuple[tuple[str, float], ...]
    """Where none surely is: keys of those that may be, and how likely each, the likeliest first."""
    next_test: str
    """The test that narrows the stiffness most, in words; nothing where none does."""
    factors: tuple[tuple[str, float], ...]
    """For each group of springs, its stiffness against the likely one: the machine as built."""
    alone: tuple[tuple[str, float], ...]
    """For each, the doubt of its logarithm that gives the machine its bands where all are taken as independent."""


def learn(
    machine: Machine, tests: tuple[Test, ...], place: Place | None = None, progress: Progress | None = None
) -> Learned:
    """Return what tests on the built machine teach about its joints, guides, drives and feet.

    Normal priors from their bands, and a small chance for each that it was left loose (`suspects`); the sensitivities
    are exact, the machine is solved anew in each round. Without tests the posterior is the prior.

    Raises:
        InputError: The machine cannot be built or solved.
        Cancelled: The progress asked to stop.
    """
    report, done = progress or Silent(), 0
    model, where = ScaledSprings(machine), place or Place()
    useful = tuple(one for one in tests if one.sort != "weigh")
    zero: FloatArray = np.zeros(len(model.keys))
    prior = Prior(zero, model.sigma)
    free: FloatArray = np.diag(model.sigma**2)

    def step() -> None:
        nonlocal done
        done = min(done + 1, SOLVES)
        report.step(done, SOLVES + 1, "learning")

    step()
    told = cases(model, useful, prior, step) if useful else ()
    theta = told[0].fit.theta if told else zero
    cov = told[0].fit.cov if told else free
    report.step(SOLVES, SOLVES + 1, "bands")
    before = _answers(model, where, ((1.0, zero, free),))
    after = _answers(model, where, tuple((one.belief, one.fit.theta, one.fit.cov) for one in told)) if told else before
    J = told[0].fit.J if told else np.zeros((0, len(zero)))
    seen = J / np.sqrt(doubts(useful))[:, None] if useful else J
    unknowns = _unknowns(model, theta, cov, seen, told)
    loose = _loose(model.keys, unknowns, told)
    mass = listed_mass(machine)
    compared = _compared(model, useful, told) + [
        Compared(one, mass, mass, abs(np.log(one.value / mass)) / one.doubt) for one in tests if one.sort == "weigh"
    ]
    return Learned(
        unknowns, before, after, tuple(compared), loose, _suspected(model.keys, told) if not loose else (),
        _next(model, where, theta, cov),
        tuple(zip(model.keys, np.exp(theta).tolist(), strict=True)),
        tuple(zip(model.keys, _alone(model, where, theta, cov).tolist(), strict=True)),
    )  # fmt: skip


def _alone(model: ScaledSprings, place: Place, theta: FloatArray, cov: FloatArray) -> FloatArray:
    """Return standard deviations that, independent, spread the stiffness at a place as the covariance does.

    Tests tell sums better than their parts: with the doubt of each by itself the machine would be far less sure than it
    is. So each has the doubt that is left where all others are known, all widened alike until no axis is surer than it
    is.
    """
    solved = model.solved(place, theta)
    J = np.array([model.give(solved, axis)[1] for axis in range(3)])
    known = 1.0 / np.diag(np.linalg.inv(cov))
    together, apart = np.einsum("ai,ij,aj->a", J, cov, J), np.einsum("ai,i,ai->a", J, known, J)
    return np.asarray(np.sqrt(known * max(1.0, float((together / apart).max()))))


def _compared(model: ScaledSprings, tests: tuple[Test, ...], told: tuple[Case, ...]) -> list[Compared]:
    if not told:
        return []
    y, J = model.predicted(tests, np.zeros(len(model.keys)))
    expected = np.sqrt(doubts(tests) + np.einsum("mi,i,mi->m", J, model.sigma**2, J))
    rows = zip(tests, y, told[0].fit.y, wanted(tests), expected, strict=True)
    return [Compared(one, _value(one, a), _value(one, b), float(abs(w - a) / s)) for one, a, b, w, s in rows]


def _value(test: Test, y: float) -> float:
    return float(np.exp(-y if test.sort == "push" else y))


def _answers(
    model: ScaledSprings, place: Place, accounts: tuple[tuple[float, FloatArray, FloatArray], ...]
) -> tuple[Band, Band, Band]:
    """Return the stiffness at a place as the likeliest account has it, its band by all of them.

    Args:
        model: The machine.
        place: Of the head.
        accounts: Belief, logarithms of the unknowns and their covariance of each, the likeliest first.
    """
    rows = []
    for belief, theta, cov in accounts:
        solved = model.solved(place, theta)
        found = [model.give(solved, axis) for axis in range(3)]
        rows.append((belief, [log for log, _ in found], [float(J @ cov @ J) for _, J in found]))
    bands = []
    whole = sum(belief for belief, _, _ in rows)
    for axis in range(3):
        first = rows[0][1][axis]
        spread = sum(belief * (own[axis] + (logs[axis] - first) ** 2) for belief, logs, own in rows) / whole
        at = NINETY * spread**0.5
        bands.append(Band(float(np.exp(-first - at)), float(np.exp(-first)), float(np.exp(-first + at))))
    return bands[0], bands[1], bands[2]


def _unknowns(
    model: ScaledSprings, theta: FloatArray, cov: FloatArray, seen: FloatArray, told: tuple[Case, ...]
) -> tuple[Unknown, ...]:
    labels = {one.key: one.label for one in links(model.machine)}
    size = np.linalg.norm(seen, axis=0) if len(seen) else np.zeros(len(theta))
    rows = []
    for n, key in enumerate(model.keys):
        s, sd = float(model.sigma[n]), float(cov[n, n] ** 0.5)
        together = tuple(
            model.keys[m] for m in range(len(theta))
            if m != n and size[n] * model.sigma[n] > 0.05 and size[m] * model.sigma[m] > 0.05
            and float(seen[:, n] @ seen[:, m]) > ALIKE * size[n] * size[m]
        )  # fmt: skip
        at = float(theta[n])
        rows.append(Unknown(
            key, labels.get(key, key.replace("_", " ")),
            Band(float(np.exp(-NINETY * s)), 1.0, float(np.exp(NINETY * s))),
            Band(float(np.exp(at - NINETY * sd)), float(np.exp(at)), float(np.exp(at + NINETY * sd))),
            _chance(n, told) if told else float(scipy.stats.norm.cdf(np.log(LOOSE_BELOW) / s)), together,
        ))  # fmt: skip
    order = np.argsort([-abs(theta[n]) / model.sigma[n] - (1 - cov[n, n] ** 0.5 / model.sigma[n])
                        for n in range(len(theta))])  # fmt: skip
    return tuple(rows[n] for n in order)


def _chance(n: int, told: tuple[Case, ...]) -> float:
    """Return how likely an unknown has less than half of its likely value, over all accounts."""
    below = ((np.log(LOOSE_BELOW) - one.fit.theta[n]) / one.fit.cov[n, n] ** 0.5 for one in told)
    return float(sum(one.belief * scipy.stats.norm.cdf(at) for one, at in zip(told, below, strict=True)))


def _loose(keys: list[str], unknowns: tuple[Unknown, ...], told: tuple[Case, ...]) -> tuple[tuple[str, ...], ...]:
    """Return who is probably loose: each that surely is, else the fewest of which one surely is.

    Joints that no test tells apart are named with each other.
    """
    together = {one.key: one.together for one in unknowns}
    found: list[tuple[str, ...]] = [(one.key,) for one in unknowns if one.loose]
    if not found:
        accused = [(keys[one.loose], one.belief) for one in told if one.loose is not None][:MOST_TOGETHER]
        group: list[str] = []
        sure = 0.0
        for key, belief in accused:
            group.append(key)
            sure += belief
            if sure >= SURE:
                found = [tuple(group)]
                break
    return tuple(tuple(sorted({*group, *(other for key in group for other in together[key])})) for group in found)


def _suspected(keys: list[str], told: tuple[Case, ...]) -> tuple[tuple[str, float], ...]:
    rows = [(keys[one.loose], one.belief) for one in told if one.loose is not None and one.belief >= MAYBE]
    return tuple(rows[:MOST_TOGETHER])


def _next(model: ScaledSprings, place: Place, theta: FloatArray, cov: FloatArray) -> str:
    """Return which further test would narrow the stiffness at a place most."""
    solved = model.solved(place, theta)
    asked = np.array([model.give(solved, axis)[1] for axis in range(3)])
    now = float(np.einsum("ai,ij,aj->", asked, cov, asked))
    best, words = 0.02 * now, ""
    tries: list[tuple[str, Callable[[], list[FloatArray]]]] = []
    for name, at in (("in the middle", place), ("at the front left end", Place(0.0, 0.0, place.z)),
                     ("at the back right end", Place(1.0, 1.0, place.z))):  # fmt: skip
        there = solved if at == place else model.solved(at, theta)
        for axis in range(3):
            row = model.give(there, axis)[1]
            tries.append((f"push {AXES[axis]} {name}", lambda row=row: [row]))  # type: ignore[misc]
    rows = model.modes(solved)[1]
    tries.append(("tap the head in the middle", lambda: list(rows[:2])))
    for name, make in tries:
        J = np.array(make())
        S = J @ cov @ J.T + np.eye(len(J)) * (0.03**2 + MODEL**2)
        gain = cov @ J.T @ np.linalg.solve(S, J @ cov)
        less = float(np.einsum("ai,ij,aj->", asked, gain, asked))
        if less > best:
            best, words = less, f"{name}: narrows what is left by {1 - (1 - less / now) ** 0.5:.0%}"
    return words
