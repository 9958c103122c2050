"""Everything the readout and the load path show, with bands."""

from dataclasses import dataclass, replace

import numpy as np

from unterbau.band import LEVELS, Band, Level
from unterbau.machine.machine import Machine, moving_masses
from unterbau.machine.parts import Place
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.modes import solve_modes
from unterbau.mechanics.moving_contacts import Swept
from unterbau.mechanics.statics import energies, total_mass
from unterbau.progress import Progress, Silent
from unterbau.studies.compliance import Solved, nose_compliance, softest, solve, tip_compliance
from unterbau.studies.hurry import Hurry, hurry_of
from unterbau.studies.reach import counts_of, grid
from unterbau.studies.shares import Shares, shares
from unterbau.studies.travel import Travel

CORNERS = ((0.5, 0.5), (0.0, 0.0), (1.0, 0.0), (0.0, 1.0), (1.0, 1.0))
"""Places of the travel that droop is judged at: centre and corners, Z as given."""
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
    """At these places, N/m."""
    worst_places: tuple[Place, Place, Place]
    """Where it is softest along x, y, z, likely."""
    modes: tuple[Mode, ...]
    hurry: tuple[Hurry, ...]
    """What each driven axis does while it speeds up."""


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
    total = len(LEVELS) * 3 + 1
    steps = iter(range(1, total + 1))
    solved: dict[Level, Solved] = {}
    swept: dict[Level, Swept] = {}
    frequencies: dict[Level, FloatArray] = {}
    zeta: FloatArray = np.zeros(0)
    moves: list[str] = []
    travel = Travel(machine)
    corners = np.array([(x, y, place.z) for x, y in CORNERS])
    everywhere = grid(counts_of(machine))
    whole = travel.answers(np.vstack([corners, everywhere]))
    rows = len(corners) + np.diagonal(whole.compliance, axis1=1, axis2=2)[len(corners) :].argmax(axis=0)
    everyone = np.concatenate([np.arange(len(corners)), rows])
    asked = np.vstack([corners, everywhere[rows - len(corners)]])
    report.step(next(steps), total, "put up")
    for level in LEVELS:
        here = solved[level] = solve(machine, place, level)
        report.step(next(steps), total, f"{level} joints")
        swept[level] = whole.of(everyone) if level == "likely" else travel.answers(asked, level)
        report.step(next(steps), total, f"{level} joints, over the travel")
        modes = solve_modes(here.statics.system, MODES)
        frequencies[level] = modes.frequency
        if level == "likely":
            zeta = modes.zeta
            moves = [_straining(here, shape) for shape in modes.shape]
        report.step(next(steps), total, f"{level} joints, modes")
    sags = {level: tuple(one.sinking[: len(CORNERS), 2].tolist()) for level, one in swept.items()}
    px, py, pz = (Place(*row.tolist()) for row in asked[len(corners) :])
    at_worst = {
        level: np.array([one.compliance[len(corners) + axis, axis, axis] for axis in range(3)])
        for level, one in swept.items()
    }
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
        worst=_per_axis(at_worst),
        worst_places=(px, py, pz),
        modes=tuple(
            Mode(_band({level: float(f[n]) for level, f in frequencies.items()}), float(zeta[n]), moves[n])
            for n in range(min(len(f) for f in frequencies.values()))
        ),
        hurry=hurry_of(machine, solved),
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
