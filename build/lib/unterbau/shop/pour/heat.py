"""Temperature in a pour over time, through its thinner way: conduction, curing heat, lifts on one another."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import scipy

from unterbau.mechanics.arrays import FloatArray
from unterbau.progress import Progress, Silent
from unterbau.shop.pour.concrete import LATE, SHAPE
from unterbau.shop.pour.resin import ENERGY, GAS, KELVIN, STARTED

CELLS = 20
"""Of each lift."""
FAST, SLOW = 60.0, 240.0
"""Steps, s: for so many hours after each lift, and later."""
FAST_FOR = 24 * 3600.0
FIRST, SETTLED = 10.0, 6
"""Length, s, and number of steps after a lift that are taken wholly implicit: its jump of temperature must not ring."""
KEPT = 600.0
"""Between states that are kept, s."""
HOT = 600.0
"""Beyond it nothing gets, °C: it would have burnt."""


@dataclass(frozen=True, slots=True)
class Stuff:
    """What is poured."""

    rho: float
    c: float
    """Specific heat, J/kgK."""
    k: float
    """Conductivity, W/mK."""
    heat: float
    """Set free by a whole cure, J/m³."""
    speed: float = 0.0
    """Factor of resin's rate, 1/s; 0 of concrete, which cures by its age."""


@dataclass(frozen=True, slots=True)
class Sides:
    """How heat leaves: through the lower and the upper face, W/m²K."""

    low: float
    high: float


@dataclass(frozen=True, slots=True)
class History:
    """What became of a pour."""

    times: FloatArray
    """s from the first lift."""
    x: FloatArray
    """Middles of cells from the lower face, m."""
    celsius: FloatArray
    """Shape (times, cells); NaN where nothing is poured yet."""
    cured: FloatArray
    """The same: degree of cure of resin; of concrete hours of age at 20 °C."""
    lift: tuple[int, ...]
    """Number of each cell's lift."""
    released: float
    """Heat set free, J/m² of face."""
    lost: float
    """Through the faces."""
    stored: float
    """Left in it, against the air's temperature; less what the lifts brought."""

    @property
    def closes(self) -> float:
        """What is missing in the balance, as a share of what was released."""
        return abs(self.released - self.lost - self.stored) / max(self.released, 1.0)


def through(h: float, thickness: float = 0.0, conductivity: float = 1.0) -> float:
    """Return how heat leaves through a wall and from its outside into the air, W/m²K."""
    return 1.0 / (1.0 / h + thickness / conductivity)


def pour_heat(
    stuff: Stuff, lifts: Sequence[tuple[float, float]], sides: Sides, air: float, until: float, start: float,
    progress: Progress | None = None,
) -> History:  # fmt: skip
    """Return how lifts that are poured on one another warm and cool.

    Args:
        stuff: What is poured.
        lifts: Time, s, and thickness, m, of each; the first at 0.
        sides: How heat leaves.
        air: °C.
        until: Time of the end, s.
        start: Temperature of what is poured, °C.
        progress: Told of each hour.

    Raises:
        Cancelled: The progress asked to stop.

    Source:
        ρc·∂T/∂t = ∂/∂x(k·∂T/∂x) + ρwH·dα/dt by finite volumes, Crank and Nicolson; the cure by Heun's rule in half
        steps before and after (Strang), so that the balance of heat closes to rounding.
    """
    report = progress or Silent()
    run = _Run(stuff, sides, air, start)
    times, states, cures = [], [], []
    waiting = list(lifts)
    at, kept, since = 0.0, -KEPT, 0.0
    while True:
        while waiting and waiting[0][0] <= at + 1e-6:
            run.add(waiting.pop(0)[1])
            since = at
        if at - kept >= KEPT - 1e-6 or at >= until - 1e-6:
            times.append(at)
            states.append(run.T.copy())
            cures.append(run.cured.copy())
            kept = at
            report.step(int(at), int(until) + 1, "heat of the pour")
        if at >= until - 1e-6:
            break
        step = FIRST if run.settling else FAST if at - since < FAST_FOR else SLOW
        ends = [until, kept + KEPT, *(one[0] for one in waiting[:1])]
        step = min(step, *(end - at for end in ends if end - at > 1e-6))
        run.step(step)
        at += step
    count = len(run.T)
    return History(
        np.array(times), run.middles(), _filled(states, count), _filled(cures, count), tuple(run.of_lift),
        run.released, run.lost, run.stored() - run.brought,
    )  # fmt: skip


def _filled(rows: list[FloatArray], count: int) -> FloatArray:
    whole = np.full((len(rows), count), np.nan)
    for number, row in enumerate(rows):
        whole[number, : len(row)] = row
    return whole


class _Run:
    """The cells that are poured so far."""

    def __init__(self, stuff: Stuff, sides: Sides, air: float, start: float) -> None:
        self._stuff, self._sides, self._air, self._start = stuff, sides, air, start
        self.T, self.cured, self._dx = np.zeros(0), np.zeros(0), np.zeros(0)
        self.of_lift: list[int] = []
        self.released = self.lost = self.brought = 0.0
        self._steps = 0

    def add(self, thickness: float) -> None:
        """Pour a lift on what is there."""
        number = self.of_lift[-1] + 1 if self.of_lift else 0
        self.T = np.append(self.T, np.full(CELLS, self._start))
        self.cured = np.append(self.cured, np.zeros(CELLS))
        self._dx = np.append(self._dx, np.full(CELLS, thickness / CELLS))
        self.of_lift += [number] * CELLS
        self.brought += self._stuff.rho * self._stuff.c * thickness * (self._start - self._air)
        self._steps = 0

    @property
    def settling(self) -> bool:
        """Whether a lift has just come."""
        return self._steps < SETTLED

    def middles(self) -> FloatArray:
        """Return where the cells are, m."""
        return np.cumsum(self._dx) - self._dx / 2

    def stored(self) -> float:
        """Return the heat in the cells against the air's temperature, J/m²."""
        return float((self._stuff.rho * self._stuff.c * self._dx * (self.T - self._air)).sum())

    def step(self, dt: float) -> None:
        """Go on by a time, s."""
        self._cure(dt / 2)
        self._conduct(dt, 1.0 if self.settling else 0.5)
        self._cure(dt / 2)
        self._steps += 1

    def _cure(self, dt: float) -> None:
        s = self._stuff
        if not s.heat and not s.speed:
            return
        before = self._done(self.cured)
        warms = s.heat / (s.rho * s.c)
        first = self._rate(self.cured, self.T)
        middle = self._bounded(self.cured + dt * first)
        T = np.minimum(self.T + warms * (self._done(middle) - before), HOT)
        after = self._bounded(self.cured + dt / 2 * (first + self._rate(middle, T)))
        gained = self._done(after) - before
        self.cured, self.T = after, self.T + warms * gained
        self.released += float((s.heat * gained * self._dx).sum())

    def _rate(self, cured: FloatArray, T: FloatArray) -> FloatArray:
        s = self._stuff
        if not s.speed:
            return np.exp(13.65 - 4000.0 / (KELVIN + np.minimum(T, HOT))) / 3600.0  # hours of age a second
        warm = np.exp(-ENERGY / GAS / (np.minimum(T, HOT) + KELVIN))
        return np.asarray(s.speed * warm * (STARTED + cured) * (1.0 - cured))

    def _bounded(self, cured: FloatArray) -> FloatArray:
        return np.minimum(cured, 1.0) if self._stuff.speed else cured

    def _done(self, cured: FloatArray) -> FloatArray:
        """Return the share of the heat that is set free so far."""
        if self._stuff.speed:
            return cured
        with np.errstate(divide="ignore"):
            return np.asarray(np.exp(-((LATE / np.maximum(cured, 1e-9)) ** SHAPE)))

    def _conduct(self, dt: float, implicit: float) -> None:
        s, dx, T = self._stuff, self._dx, self.T
        between = s.k / ((dx[1:] + dx[:-1]) / 2)
        ends = [
            1.0 / (1.0 / side + dx[place] / 2 / s.k) for side, place in ((self._sides.low, 0), (self._sides.high, -1))
        ]
        own = np.zeros(len(T))
        own[:-1] += between
        own[1:] += between
        own[0] += ends[0]
        own[-1] += ends[1]
        mass = s.rho * s.c * dx / dt
        flow = -own * T
        flow[:-1] += between * T[1:]
        flow[1:] += between * T[:-1]
        flow[0] += ends[0] * self._air
        flow[-1] += ends[1] * self._air
        banded = np.zeros((3, len(T)))
        banded[0, 1:] = -implicit * between
        banded[1] = mass + implicit * own
        banded[2, :-1] = -implicit * between
        change = scipy.linalg.solve_banded((1, 1), banded, flow)
        mean = T + implicit * change
        self.lost += dt * (ends[0] * (mean[0] - self._air) + ends[1] * (mean[-1] - self._air))
        self.T = T + change
