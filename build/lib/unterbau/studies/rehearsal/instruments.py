"""Simulated instruments at a machine with hidden faults: indicator, scale, thermometer, microphone."""

import numpy as np

from unterbau.errors import InputError
from unterbau.machine.machine import Machine, listed_mass
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.modes import solve_modes
from unterbau.shop.instruments.reading import Reading
from unterbau.structure.parts import Place
from unterbau.studies.compliance import tip_compliance
from unterbau.studies.learning.springs import MODES, ScaledSprings
from unterbau.studies.rehearsal.hidden import Hidden, hide
from unterbau.studies.shake import shares_at_tool

STEP, NOISE = 0.2e-6, 0.3e-6
"""Of a lever indicator for pushes: smallest step and scatter, m."""
DIAL_STEP, DIAL_NOISE = 1e-6, 1.5e-6
"""Of the indicator at the benches, m."""
TAPE = 0.2e-3
"""Scatter of a tape, m."""
SCALE_STEP, SCALE_NOISE = 0.01, 0.02
"""Of a luggage scale, kg."""
LOOP = (50.0, 75.0, 100.0, 75.0, 50.0, 0.0, -50.0, -75.0, -100.0, -75.0, -50.0, 0.0, 50.0)
"""Forces of a push up and down and back, N."""
RATE, SECONDS = 4000, 2.0
"""Of a recording, 1/s and s."""
WARM = 21.0
"""Of the shop, degrees Celsius."""
AXES = ("X", "Y", "Z")
SPAN, RADIUS, EDGE, PITCH = 0.2, 0.1, 0.8, 0.08
"""Square, sweep, shorter side of a frame that is measured, pitch of bolts, m."""
OWN = 8e-6
"""Of the rehearsed square itself over its length, m."""


class Rehearsal:
    """A machine that stands only here; its instruments read as real ones would."""

    def __init__(self, machine: Machine, seed: int) -> None:
        """Draw its faults.

        Raises:
            InputError: The machine cannot be solved.
        """
        self.machine = machine
        self._model = ScaledSprings(machine)
        self.hidden: Hidden = hide(self._model, seed)
        self._theta = np.array(self.hidden.theta)
        self._draw = np.random.default_rng(seed + 1)

    def push(self, axis: str, place: Place | None = None) -> tuple[tuple[float, ...], tuple[float, ...]]:
        """Return forces, N, of a push up and down and back, and what the indicator shows, m."""
        solved = self._model.solved(place or Place(), self._theta)
        number = AXES.index(axis)
        give, most = float(tip_compliance(solved)[number, number]), max(LOOP)
        read, last = [], 0.0
        for force in LOOP:
            going = np.sign(force - last) or 1.0
            lag = self.hidden.hysteresis * give * most / 2
            moved = give * force + np.sign(force) * self.hidden.play / 2 - going * lag
            read.append(self._seen(moved, STEP, NOISE))
            last = force
        return LOOP, tuple(read)

    def weigh(self) -> Reading:
        """Return what the machine weighs."""
        mass = listed_mass(self.machine) * self.hidden.weighs
        return Reading(self._seen(mass, SCALE_STEP, SCALE_NOISE), "mass", "scale")

    def temperature(self) -> Reading:
        """Return how warm the shop is."""
        return Reading(self._seen(WARM, 0.1, 0.2), "temperature", "thermometer")

    def tap(self, place: Place | None = None) -> tuple[FloatArray, float]:
        """Return a recording of a tap at the head, and its rate: what the tool feels of each mode rings and dies."""
        solved = self._model.solved(place or Place(), self._theta)
        found = solve_modes(solved.statics.system, MODES)
        loud = shares_at_tool(solved, found)
        t = np.arange(0.0, SECONDS, 1 / RATE)
        sound = np.zeros_like(t)
        for f, zeta, share in zip(found.frequency, found.zeta * self.hidden.damping, loud, strict=True):
            if f < 0.45 * RATE:
                w = 2 * np.pi * float(f)
                sound += float(share) * np.exp(-float(zeta) * w * t) * np.sin(w * (1 - float(zeta) ** 2) ** 0.5 * t)
        sound /= max(float(np.abs(sound).max()), 1e-12)
        return np.asarray(0.6 * sound + self._draw.normal(0.0, 1e-3, len(t)), np.float64), float(RATE)

    def bench(self, name: str) -> str:
        """Return readings of a bench as they are typed there.

        Raises:
            InputError: There is no such bench.
        """
        benches = {
            "straightness": self._straightness, "parallel": self._parallel, "flatness": self._flatness,
            "both ways": self._both_ways, "tram": self._tram, "crossed strings": self._strings,
            "square reversed": self._square, "column": self._column, "arm": self._arm, "level": self._level,
            "diagonals": self._diagonals,
        }  # fmt: skip
        if name not in benches:
            raise InputError("bench", f'the rehearsal has no readings for "{name}"')
        return benches[name]()

    def _straightness(self) -> str:
        along = np.linspace(0.0, 1.0, 6)
        return self._micro((self.hidden.bent * 4 * along * (1 - along)).tolist())

    def _parallel(self) -> str:
        return self._micro((self.hidden.apart * np.linspace(0.0, 1.0, 6)).tolist())

    def _flatness(self) -> str:
        rows = [[self.hidden.bent * (x + y) / 2 for x in (-1, 0, 1)] for y in (-1, 0, 1)]
        rows[1][1] += self.hidden.bent
        return " / ".join(self._micro(row) for row in rows)

    def _both_ways(self) -> str:
        return f"{self._micro([0.0] * 3)} / {self._micro([-self.hidden.backlash] * 3)}"

    def _tram(self) -> str:
        a, b = self.hidden.leant
        return f"{self._milli([a * RADIUS, b * RADIUS, -a * RADIUS, -b * RADIUS])} {RADIUS * 1e3:g}"

    def _strings(self) -> str:
        return f"{self._milli([self.hidden.twisted, 0.0, 0.0, 0.0])} {EDGE * 1e3:g}"

    def _square(self) -> str:
        off = self.hidden.square * SPAN
        return f"{self._milli([off + OWN, OWN - off])} {SPAN * 1e3:g}"

    def _column(self) -> str:
        lean = self.hidden.leant[0] * SPAN
        return f"{self._milli([0.0, lean + OWN, 0.0, OWN - lean])} {SPAN * 1e3:g} {PITCH * 1e3:g}"

    def _arm(self) -> str:
        places = np.linspace(0.05, 0.2, 4)
        heights = self._milli((places * self.hidden.leant[1]).tolist())
        return f"{' '.join(f'{x * 1e3:g}' for x in places)} / {heights} / {PITCH * 1e3:g}"

    def _level(self) -> str:
        slopes = (self.hidden.twisted / EDGE * 1e3, 0.0)
        return f"{' '.join(f'{self._seen(one, 0.02, 0.01):.2f}' for one in slopes)} {EDGE * 1e3:g}"

    def _diagonals(self) -> str:
        wide, tall = EDGE, 1.25 * EDGE
        mean = (wide**2 + tall**2) ** 0.5
        apart = 2 * wide * tall * self.hidden.square / mean
        read = (self._seen(one, TAPE / 2, TAPE / 4) for one in (mean + apart / 2, mean - apart / 2))
        return f"{' '.join(f'{one * 1e3:.1f}' for one in read)} {wide * 1e3:g} {tall * 1e3:g}"

    def _seen(self, value: float, step: float, noise: float) -> float:
        """Return a value as an instrument of a smallest step shows it."""
        return float(round((value + self._draw.normal(0.0, noise)) / step) * step)

    def _micro(self, values: list[float]) -> str:
        return " ".join(f"{self._seen(one, DIAL_STEP, DIAL_NOISE) * 1e6:.0f}" for one in values)

    def _milli(self, values: list[float]) -> str:
        return " ".join(f"{self._seen(one, DIAL_STEP, DIAL_NOISE) * 1e3:.3f}" for one in values)
