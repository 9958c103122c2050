"""Everything the readout and the load path show, with bands."""

from dataclasses import dataclass

import numpy as np

from unterbau.band import LEVELS, Band
from unterbau.machine.machine import Machine, listed_mass, moving_masses
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.modes import Modes, solve_modes
from unterbau.progress import Progress, Silent
from unterbau.structure.parts import Place
from unterbau.studies.bands import Pieces, components, ends_of, frequency_band, pieces, stiffness_band
from unterbau.studies.compliance import Solved, nose_compliance, sag, softest, solve, tip_compliance
from unterbau.studies.hurry import Hurry, hurried, left_behind, pairs_of, sizes
from unterbau.studies.loads import NOSE, TIP, WEIGHT
from unterbau.studies.reach import weakest
from unterbau.studies.shake import all_moves, shares_at_tool
from unterbau.studies.shares import Shares, shares

CORNERS = ((0.5, 0.5), (0.0, 0.0), (1.0, 0.0), (0.0, 1.0), (1.0, 1.0))
"""Places of the travel that droop is judged at: centre and corners, Z as given."""
MODES, SHOWN = 12, 8
"""Natural modes that are told, and those that the screen asks for while the tool feels one of them."""
STEPS = 5
FELT = 0.1
"""Of the static give: a mode that owns less of it is not felt at the tool."""


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
class Early:
    """What of all answers is there long before the rest."""

    stiffness: tuple[Band, Band, Band]
    """Tool tip against work in x, y, z, N/m."""


@dataclass(frozen=True, slots=True)
class Mode:
    """A natural mode."""

    frequency: Band
    """Hz."""
    zeta: float
    """Damping ratio, likely."""
    moves: str
    """What moves, and how, in words."""
    at_tool: float
    """Largest part of the tool's static give that it makes up, along x, y or z."""


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
    sag: Band
    """How far the tool itself sinks against the feet, the bed sinking with it, m."""
    droops: tuple[tuple[float, ...], ...]
    """At each level, at each place of `CORNERS`, m."""
    worst: tuple[Band, Band, Band]
    """At these places, N/m."""
    worst_places: tuple[Place, Place, Place]
    """Where it is softest along x, y, z, likely."""
    modes: tuple[Mode, ...]
    hurry: tuple[Hurry, ...]
    """What each driven axis does while it speeds up."""

    @property
    def headline(self) -> Mode | None:
        """The first mode that owns a tenth of the tool's give; those before it rock the whole on its feet."""
        return next((one for one in self.modes if one.at_tool >= FELT), self.modes[0] if self.modes else None)


def likely_answers(machine: Machine, place: Place) -> tuple[LikelyAnswers, Solved]:
    """Return the first answers and the solution behind them.

    Raises:
        InputError: The machine cannot be built or solved.
    """
    solved = solve(machine, place, "likely")
    return _likely_of(machine, solved), solved


def first_figures(machine: Machine, place: Place, progress: Progress) -> LikelyAnswers:
    """Return the first answers alone.

    Raises:
        InputError: The machine cannot be built or solved.
        Cancelled: The progress asked to stop.
    """
    progress.step(0, 1, "likely")
    return likely_answers(machine, place)[0]


def _likely_of(machine: Machine, solved: Solved) -> LikelyAnswers:
    return LikelyAnswers(
        compliance=tip_compliance(solved),
        nose=nose_compliance(solved),
        shares=shares(machine, solved),
        mass=listed_mass(machine),
        moving=moving_masses(machine),
    )


def answers_shown(machine: Machine, place: Place, progress: Progress) -> Answers:
    """Return all answers that the screen shows: of the modes the lowest, as far as one that the tool feels.

    Raises:
        InputError: The machine cannot be built or solved.
        Cancelled: The progress asked to stop.
    """
    return answers(machine, place, progress, modes=SHOWN)


def answers(
    machine: Machine, place: Place, progress: Progress | None = None, solved: Solved | None = None, modes: int = MODES
) -> Answers:  # fmt: skip
    """Return all answers; bands from one solution at each place that is asked for.

    The bands of the stiffness here are told as soon as they are there (`Early`).

    Args:
        machine: The machine.
        place: Of the head.
        progress: Told how far it is.
        solved: The machine there, likely, where it is solved already.
        modes: How many are asked for; `MODES` where the tool feels none of them.

    Raises:
        InputError: The machine cannot be built or solved.
        Cancelled: The progress asked to stop.
    """
    report = progress or Silent()
    here = solved or solve(machine, place, "likely")
    report.step(1, STEPS, "put up")
    uncertain = pieces(machine, place)
    tips = here.statics.u[TIP]
    stiffness = _bands(ends_of(uncertain.drawn(components(here, tips, tips))), tip_compliance(here))
    report.found(Early(stiffness))
    report.step(2, STEPS, "what is uncertain")
    corners = np.array([(x, y, place.z) for x, y in CORNERS])
    whole, give, softest_at = weakest(machine, corners, place)
    x, y, z = (Place(*place) for place in softest_at.tolist())
    report.step(3, STEPS, "over the travel")
    found, felt = _felt(here, modes)
    behind = left_behind(machine, here)
    report.step(4, STEPS, "modes")
    direction, stiffest = softest(tip_compliance(here))
    ends = _ends(here, uncertain, found, direction, behind)
    sags, factor = whole.sinking[:, 2], _sagging(ends["sag"])
    return Answers(
        likely=_likely_of(machine, here),
        stiffness=stiffness,
        nose=_bands(ends["nose"], nose_compliance(here)),
        softest=stiffness_band(1 / stiffest, ends["softest"][0]),
        direction=(float(direction[0]), float(direction[1]), float(direction[2])),
        droop=_times(factor, float(np.ptp(sags))),
        sag=_times(factor, abs(sag(here))),
        droops=tuple(tuple((sags * factor.at(level)).tolist()) for level in LEVELS),
        worst=_elsewhere(stiffness, give),
        worst_places=(x, y, z),
        modes=_modes(machine, here, found, felt, ends["modes"]),
        hurry=tuple(hurried(machine, here, axis, u, ends[axis][0]) for axis, u in behind.items()),
    )


def _ends(
    here: Solved, uncertain: Pieces, modes: Modes, direction: FloatArray, behind: dict[str, FloatArray]
) -> dict[str, FloatArray]:  # fmt: skip
    """Return the ends of all that is drawn, by its name; summed together, for so each plate is gone through once.

    Where parts sink against each other their sizes count: their difference may be nearly nothing.
    """
    u = here.statics.u
    along = np.einsum("a,and->nd", direction, u[TIP])[None]
    pairs = {
        "nose": (u[NOSE], u[NOSE]),
        "softest": (along, along),
        "sag": (u[2:3], u[WEIGHT : WEIGHT + 1]),
        "modes": (modes.shape, modes.shape),
        **{axis: pairs_of(here, moved) for axis, moved in behind.items()},
    }
    first, second = (np.concatenate([pair[side] for pair in pairs.values()]) for side in (0, 1))
    starts = np.cumsum([len(pair[0]) for pair in pairs.values()])[:-1]
    parts = dict(zip(pairs, np.split(components(here, first, second), starts), strict=True))
    parts["sag"] = np.abs(parts["sag"])
    for name in ("sag", "modes"):
        whole = parts[name].sum(axis=(1, 2), keepdims=True)
        parts[name] = np.divide(parts[name], whole, out=np.zeros_like(parts[name]), where=whole != 0.0)
    drawn = dict(zip(pairs, np.split(uncertain.drawn(np.concatenate(list(parts.values()))), starts), strict=True))
    for axis in behind:
        drawn[axis] = sizes(drawn[axis])[None]
    starts = np.cumsum([len(rows) for rows in drawn.values()])[:-1]
    return dict(zip(drawn, np.split(ends_of(np.concatenate(list(drawn.values()))), starts), strict=True))


def _bands(ends: FloatArray, C: FloatArray) -> tuple[Band, Band, Band]:
    x, y, z = (stiffness_band(float(C[axis, axis]), ends[axis]) for axis in range(3))
    return x, y, z


def _elsewhere(here: tuple[Band, Band, Band], give: FloatArray) -> tuple[Band, Band, Band]:
    """Return the bands at other places of the travel: as wide, for their likely value, as that here."""
    x, y, z = (
        _times(band.scaled(1 / band.likely), float(1 / one)) for band, one in zip(here, give, strict=True)
    )  # fmt: skip
    return x, y, z


def _times(factor: Band, value: float) -> Band:
    return Band(factor.low * value, value, factor.high * value)


def _sagging(ends: FloatArray) -> Band:
    """Return the band of what sinks by weight, as a factor on its likely value; that of the tool here serves all."""
    low, high = ends[0].tolist()
    return Band(low, 1.0, high) if ends.any() else Band(1.0, 1.0, 1.0)


def _felt(here: Solved, count: int) -> tuple[Modes, FloatArray]:
    """Return the lowest modes, more of them where the tool feels none, and what of its give each makes up."""
    found = solve_modes(here.statics.system, count)
    felt = shares_at_tool(here, found)
    return (found, felt) if count >= MODES or (felt >= FELT).any() else _felt(here, MODES)


def _modes(machine: Machine, here: Solved, found: Modes, felt: FloatArray, ends: FloatArray) -> tuple[Mode, ...]:
    frame = here.built.frame
    words = all_moves(machine, frame, found.shape[:, : len(frame.nodes)])
    return tuple(
        Mode(frequency_band(float(f), ends[n]), float(found.zeta[n]), words[n], float(felt[n]))
        for n, f in enumerate(found.frequency)
    )
