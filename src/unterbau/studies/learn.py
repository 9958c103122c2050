"""The built machine teaches the model: joints, guides, drives, feet as its tests say they are."""

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np
from scipy.stats import norm

from unterbau.band import Band
from unterbau.errors import InputError
from unterbau.machine.machine import Machine, links, listed_mass, to_frame
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.errors import ConditionError, MechanismError
from unterbau.mechanics.frame import JOINT, Frame
from unterbau.mechanics.modes import solve_modes
from unterbau.mechanics.statics import solve_statics
from unterbau.progress import Progress, Silent
from unterbau.shop.build.tests import AXES, Test
from unterbau.structure.parts import Place
from unterbau.studies.bands import SPRINGS, components
from unterbau.studies.compliance import Solved, tip_compliance
from unterbau.studies.loads import TIP, loads_of
from unterbau.studies.shake import shares_at_tool
from unterbau.studies.uncertain import NINETY, logarithms

LOOSE_BELOW, SURE = 0.5, 0.9
"""A joint is probably loose where so much of what is left possible lies below this share of its likely value."""
SUSPECT = 0.75
"""Likely value, of what one would expect, from which on a joint is looked at."""
SHARES, MOST_TOGETHER = -0.15, 3
"""Correlation of those that share what is missing, and how many are named together at the most."""
SEED, DRAWN = 3, 4000
ALIKE = 0.97
"""Cosine between what two unknowns do to all tests: more, and no test that was made tells them apart."""
ROUNDS, SETTLED = 12, 1e-4
MODES = 12
MODEL = 0.02
"""What the model may miss of any answer even with the right joints: joins the tests' doubt."""
FELT = 0.1
WORST = 3.0
"""Widest prior of an unknown, ln: twenty times softer."""


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
    next_test: str
    """The test that narrows the stiffness most, in words; nothing where none does."""
    factors: tuple[tuple[str, float], ...]
    """For each group of springs, its stiffness against the likely one: the machine as built."""


class _Model:
    """A machine at any place with its springs scaled by groups."""

    def __init__(self, machine: Machine) -> None:
        self.machine = machine
        frames = [to_frame(machine, Place(), level).frame for level in ("likely", "low", "high")]
        likely = frames[0]
        lows, highs = np.zeros(len(likely.groups)), np.zeros(len(likely.groups))
        has = np.zeros(len(likely.groups), dtype=bool)
        for rows in ("springs", "seats"):
            ends = logarithms(*(getattr(frame, rows).k for frame in frames))
            group = getattr(likely, rows).group
            if rows == "springs":
                joints = likely.springs.cause == JOINT
                group, ends = group[joints], (ends[0][joints], ends[1][joints])
            np.minimum.at(lows, group, ends[0].min(axis=1))
            np.maximum.at(highs, group, ends[1].max(axis=1))
            has[group] = True
        self.groups = [n for n in range(len(likely.groups)) if has[n] and highs[n] - lows[n] > 1e-3]
        self.keys = [likely.groups[n] for n in self.groups]
        self.sigma = np.array([min((highs[n] - lows[n]) / (2 * NINETY), WORST) for n in self.groups])

    def solved(self, place: Place, theta: FloatArray) -> Solved:
        """Return the machine at a place, the springs of each group e^θ times as stiff."""
        built = to_frame(self.machine, place, "likely")
        frame = self._scaled(built.frame, theta)
        built = replace(built, frame=frame)
        try:
            return Solved(built, solve_statics(frame, loads_of(built)))
        except (MechanismError, ConditionError) as error:
            raise InputError("machine", str(error)) from None

    def _scaled(self, frame: Frame, theta: FloatArray) -> Frame:
        by_group = np.zeros(len(frame.groups))
        for key, value in zip(self.keys, theta, strict=True):
            by_group[frame.groups.index(key)] = value
        joints = (frame.springs.cause == JOINT)[:, None]
        springs = np.where(joints, frame.springs.k * np.exp(by_group[frame.springs.group])[:, None], frame.springs.k)
        seats = frame.seats.k * np.exp(by_group[frame.seats.group])[:, None]
        return replace(frame, springs=replace(frame.springs, k=springs), seats=replace(frame.seats, k=seats))

    def give(self, solved: Solved, axis: int) -> tuple[float, FloatArray]:
        """Return ln C of a pull at the tool and how it goes with each unknown: minus its share."""
        C = float(tip_compliance(solved)[axis, axis])
        u = solved.statics.u[TIP][axis : axis + 1]
        parts = self._of_springs(solved, u)
        return float(np.log(C)), -parts / C

    def modes(self, solved: Solved) -> tuple[FloatArray, FloatArray]:
        """Return ln f of the modes that are felt, and how they go with each unknown: half its share."""
        found = solve_modes(solved.statics.system, MODES)
        felt = shares_at_tool(solved, found) >= FELT
        if not felt.any():
            felt[:] = True
        whole = components(solved, found.shape, found.shape).sum(axis=(1, 2))
        rows = [0.5 * self._of_springs(solved, found.shape[n : n + 1]) / whole[n] for n in np.flatnonzero(felt)]
        return np.log(found.frequency[felt]), np.array(rows)

    def _of_springs(self, solved: Solved, u: FloatArray) -> FloatArray:
        parts = components(solved, u, u)[0]
        groups = list(solved.statics.system.elements.frame.groups)
        return np.array([parts[groups.index(key), SPRINGS].sum() for key in self.keys])


def learn(
    machine: Machine, tests: tuple[Test, ...], place: Place | None = None, progress: Progress | None = None
) -> Learned:
    """Return what tests on the built machine teach about its joints, guides, drives and feet.

    Gauss and Newton on the logarithms of their stiffnesses with a normal prior from their bands; the sensitivities are
    exact, the machine is solved anew in each round. Without tests the posterior is the prior.

    Raises:
        InputError: The machine cannot be built or solved.
        Cancelled: The progress asked to stop.
    """
    report = progress or Silent()
    model, where = _Model(machine), place or Place()
    useful = tuple(one for one in tests if one.sort != "weigh")
    prior = np.diag(1.0 / model.sigma**2)
    theta: FloatArray = np.zeros(len(model.keys))
    R = np.array([one.doubt**2 + MODEL**2 for one in useful])
    y0, _ = _predicted(model, useful, theta)
    J = np.zeros((len(useful), len(theta)))
    for number in range(ROUNDS if useful else 0):
        report.step(number, ROUNDS, "learning")
        y, J = _predicted(model, useful, theta)
        wanted = _wanted(useful)
        normal = J.T @ (J / R[:, None]) + prior
        step = np.linalg.solve(normal, J.T @ ((wanted - y) / R) - prior @ theta)
        step *= min(1.0, 1.0 / max(float(np.abs(step).max()), 1e-12))
        theta = np.asarray(theta + step, float)
        if float(np.abs(step).max()) < SETTLED:
            break
    y, J = _predicted(model, useful, theta)
    loose: FloatArray = np.asarray(np.linalg.inv(prior), float)
    cov: FloatArray = np.asarray(np.linalg.inv(J.T @ (J / R[:, None]) + prior), float) if useful else loose
    report.step(ROUNDS, ROUNDS + 1, "bands")
    before, after = (
        _answers(model, where, np.zeros(len(theta)), loose),
        _answers(model, where, theta, cov),
    )
    unknowns = _unknowns(model, theta, cov, J / np.sqrt(R)[:, None] if useful else J)
    wanted = _wanted(useful)
    expected = np.sqrt(R + np.einsum("mi,ij,mj->m", J, loose, J)) if useful else R
    compared = [
        Compared(one, _value(one, a), _value(one, b), float(abs(w - a) / s))
        for one, a, b, w, s in zip(useful, y0, y, wanted, expected, strict=True)
    ]
    mass = listed_mass(machine)
    compared += [
        Compared(one, mass, mass, abs(np.log(one.value / mass)) / one.doubt) for one in tests if one.sort == "weigh"
    ]
    return Learned(
        unknowns, before, after, tuple(compared), _loose(model.keys, unknowns, theta, cov),
        _next(model, where, theta, cov),
        tuple(zip(model.keys, np.exp(theta).tolist(), strict=True)),
    )  # fmt: skip


def _wanted(tests: tuple[Test, ...]) -> FloatArray:
    return np.array([-np.log(one.value) if one.sort == "push" else np.log(one.value) for one in tests])


def _value(test: Test, y: float) -> float:
    return float(np.exp(-y if test.sort == "push" else y))


def _predicted(model: _Model, tests: tuple[Test, ...], theta: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Return ln C of pushes and ln f of taps, and how they go with the unknowns; a tap is the mode nearest to it."""
    y, J = np.zeros(len(tests)), np.zeros((len(tests), len(theta)))
    places: dict[Place, Solved] = {}
    modes: dict[Place, tuple[FloatArray, FloatArray]] = {}
    for n, one in enumerate(tests):
        place = Place(one.x, one.y, one.z)
        if place not in places:
            places[place] = model.solved(place, theta)
        if one.sort == "push":
            y[n], J[n] = model.give(places[place], AXES.index(one.axis))
        else:
            if place not in modes:
                modes[place] = model.modes(places[place])
            logs, rows = modes[place]
            nearest = int(np.argmin(np.abs(logs - np.log(one.value))))
            y[n], J[n] = logs[nearest], rows[nearest]
    return y, J


def _answers(model: _Model, place: Place, theta: FloatArray, cov: FloatArray) -> tuple[Band, Band, Band]:
    """Return the stiffness at a place, its band by the covariance of the unknowns."""
    solved = model.solved(place, theta)
    bands = []
    for axis in range(3):
        log, J = model.give(solved, axis)
        spread = NINETY * float(J @ cov @ J) ** 0.5
        bands.append(Band(np.exp(-log - spread), np.exp(-log), np.exp(-log + spread)))
    return bands[0], bands[1], bands[2]


def _unknowns(model: _Model, theta: FloatArray, cov: FloatArray, told: FloatArray) -> tuple[Unknown, ...]:
    labels = {one.key: one.label for one in links(model.machine)}
    size = np.linalg.norm(told, axis=0) if len(told) else np.zeros(len(theta))
    rows = []
    for n, key in enumerate(model.keys):
        s, sd = float(model.sigma[n]), float(cov[n, n] ** 0.5)
        together = tuple(
            model.keys[m] for m in range(len(theta))
            if m != n and size[n] * model.sigma[n] > 0.05 and size[m] * model.sigma[m] > 0.05
            and float(told[:, n] @ told[:, m]) > ALIKE * size[n] * size[m]
        )  # fmt: skip
        at = float(theta[n])
        chance = float(norm.cdf((np.log(LOOSE_BELOW) - at) / sd))
        rows.append(Unknown(
            key, labels.get(key, key.replace("_", " ")),
            Band(float(np.exp(-NINETY * s)), 1.0, float(np.exp(NINETY * s))),
            Band(float(np.exp(at - NINETY * sd)), float(np.exp(at)), float(np.exp(at + NINETY * sd))), chance, together,
        ))  # fmt: skip
    order = np.argsort([-abs(theta[n]) / model.sigma[n] - (1 - cov[n, n] ** 0.5 / model.sigma[n])
                        for n in range(len(theta))])  # fmt: skip
    return tuple(rows[n] for n in order)


def _loose(
    keys: list[str], unknowns: tuple[Unknown, ...], theta: FloatArray, cov: FloatArray
) -> tuple[tuple[str, ...], ...]:
    """Return who is probably loose: the fewest of which one surely is, with those that no test tells from them.

    Joints that no test tells apart share what is missing between them: then each alone may look sound, but that one of
    them is below half its likely value has nine chances in ten. Drawn from the posterior.
    """
    drawn = np.random.default_rng(SEED).multivariate_normal(theta, cov, DRAWN) < np.log(LOOSE_BELOW)
    spread = np.sqrt(np.diag(cov))
    alike = cov / np.outer(spread, spread)
    found: list[tuple[str, ...]] = []
    taken: set[int] = set()
    for n in np.argsort(theta).tolist():
        if theta[n] > np.log(SUSPECT) or n in taken:
            continue
        group = [n]
        others = [m for m in np.argsort(alike[n]).tolist() if m != n and m not in taken and alike[n, m] < SHARES]
        while drawn[:, group].any(axis=1).mean() < SURE and others and len(group) < MOST_TOGETHER:
            group.append(others.pop(0))
        if drawn[:, group].any(axis=1).mean() >= SURE:
            names = {keys[m] for m in group}
            names |= {other for one in unknowns if one.key in names for other in one.together}
            found.append(tuple(sorted(names)))
            taken |= set(group)
    return tuple(found)


def _next(model: _Model, place: Place, theta: FloatArray, cov: FloatArray) -> str:
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
