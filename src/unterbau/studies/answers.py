"""Everything the readout and the load path show, with bands."""

from dataclasses import dataclass, replace

import numpy as np

from unterbau.band import LEVELS, Band, Level
from unterbau.machine.machine import Machine, moving_masses
from unterbau.machine.parts import Place
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.modes import solve_modes
from unterbau.mechanics.statics import energies, total_mass
from unterbau.progress import Progress, Silent
from unterbau.studies.compliance import Solved, droop, nose_compliance, softest, solve, tip_compliance
from unterbau.studies.shares import Shares, shares

CORNERS = ((0.5, 0.5), (0.0, 0.0), (1.0, 0.0), (0.0, 1.0), (1.0, 1.0))
"""Places of the travel that droop and target are judged at: centre and corners, Z as given."""
MODES = 6


@dataclass(frozen=True, slots=True)
class LikelyAnswers:
    """What is on the screen first: one place, likely joints."""

    compliance: FloatArray
    """Tool tip against work, m/N, shape (3, 3)."""
    nose: FloatArray
    shares: Shares
    mass: float
    moving: dict[str, float]


@dataclass(frozen=True, slots=True)
class Mode:
    """A natural mode."""

    frequency: Band
    """Hz."""
    zeta: float
    """Damping ratio, likely."""
    moves: str
    """The link that strains most in it."""


@dataclass(frozen=True, slots=True)
class Answers:
    """All answers of one machine at one place."""

    likely: LikelyAnswers
    stiffness: tuple[Band, Band, Band]
    """Tool tip against work in x, y, z, N/m."""
    nose: tuple[Band, Band, Band]
    softest: Band
    direction: tuple[float, float, float]
    """Softest direction, likely."""
    droop: Band
    """Range over centre and corners, m."""
    droops: tuple[tuple[float, ...], ...]
    """At each level, at each place of `CORNERS`, m."""
    worst: tuple[Band, Band, Band]
    """Softest of centre and corners, N/m."""
    modes: tuple[Mode, ...]


def likely_answers(machine: Machine, place: Place) -> tuple[LikelyAnswers, Solved]:
    """Return the first answers and the solution behind them.

    Raises:
        InputError: The machine cannot be built or solved.
    """
    solved = solve(machine, place, "likely")
    return _likely_of(machine, solved), solved


def _likely_of(machine: Machine, solved: Solved) -> LikelyAnswers:
    mass, _ = total_mass(solved.built.frame)
    return LikelyAnswers(
        compliance=tip_compliance(solved),
        nose=nose_compliance(solved),
        shares=shares(machine, solved),
        mass=mass,
        moving=moving_masses(machine),
    )


def answers(machine: Machine, place: Place, progress: Progress | None = None) -> Answers:
    """Return all answers.

    Raises:
        InputError: The machine cannot be built or solved.
        Cancelled: The progress asked to stop.
    """
    report = progress or Silent()
    total = len(LEVELS) * (len(CORNERS) + 2)
    steps = iter(range(1, total + 1))
    solved: dict[Level, Solved] = {}
    worst: dict[Level, FloatArray] = {}
    sags: dict[Level, tuple[float, ...]] = {}
    frequencies: dict[Level, FloatArray] = {}
    zeta: FloatArray = np.zeros(0)
    moves: list[str] = []
    for level in LEVELS:
        here = solved[level] = solve(machine, place, level)
        report.step(next(steps), total, f"{level} joints")
        at_corners = []
        for x, y in CORNERS:
            same = (x, y) == (place.x, place.y)
            at_corners.append(here if same else solve(machine, Place(x, y, place.z), level))
            report.step(next(steps), total, f"{level} joints, over the travel")
        sags[level] = tuple(droop(one) for one in at_corners)
        worst[level] = np.max([np.diag(tip_compliance(one)) for one in at_corners], axis=0)
        modes = solve_modes(here.statics.system, MODES)
        frequencies[level] = modes.frequency
        if level == "likely":
            zeta = modes.zeta
            moves = [_straining(here, shape) for shape in modes.shape]
        report.step(next(steps), total, f"{level} joints, modes")
    tip = {level: tip_compliance(one) for level, one in solved.items()}
    nose = {level: nose_compliance(one) for level, one in solved.items()}
    direction, _ = softest(tip["likely"])
    return Answers(
        likely=_likely_of(machine, solved["likely"]),
        stiffness=_per_axis({level: np.diag(C) for level, C in tip.items()}),
        nose=_per_axis({level: np.diag(C) for level, C in nose.items()}),
        softest=_band({level: softest(C)[1] for level, C in tip.items()}),
        direction=(float(direction[0]), float(direction[1]), float(direction[2])),
        droop=_band({level: max(values) - min(values) for level, values in sags.items()}),
        droops=tuple(sags[level] for level in LEVELS),
        worst=_per_axis(worst),
        modes=tuple(
            Mode(_band({level: float(f[n]) for level, f in frequencies.items()}), float(zeta[n]), moves[n])
            for n in range(min(len(f) for f in frequencies.values()))
        ),
    )


def _band(values: dict[Level, float]) -> Band:
    return Band(values["low"], values["likely"], values["high"])


def _per_axis(compliance: dict[Level, FloatArray]) -> tuple[Band, Band, Band]:
    x, y, z = (_band({level: float(1.0 / C[axis]) for level, C in compliance.items()}) for axis in range(3))
    return (x, y, z)


def _straining(solved: Solved, shape: FloatArray) -> str:
    """Return the group that holds most of a mode's strain energy."""
    one = replace(solved.statics, u=shape[None])
    by_group = energies(one)[0].sum(axis=1)
    return solved.built.frame.groups[int(np.argmax(by_group))]
