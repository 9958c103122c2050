"""A push test: forces up and down, the indicator's readings; give, play, hysteresis."""

from dataclasses import dataclass

import numpy as np

from unterbau.errors import InputError

UPPER = 0.5
"""Of the largest force: readings below it are in the play, where the line bends."""


@dataclass(frozen=True, slots=True)
class Pushed:
    """What a push test says."""

    stiffness: float
    """N/m, of the two sides' mean give."""
    play: float
    """Between the two lines where they meet no force, m."""
    hysteresis: float
    """Area of the loop, N·m; 0 where it was not closed."""
    naive: float
    """Largest force over its reading: what one would take it for with the play in it, N/m."""


def push_test(forces: tuple[float, ...], readings: tuple[float, ...]) -> Pushed:
    """Return give and play from forces, N, both ways, and readings, m.

    A line is fitted to each side from half the largest force on; play is the difference of their intercepts.

    Raises:
        InputError: Too few readings on a side, or none that move.
    """
    if len(forces) != len(readings) or len(forces) < 4:
        raise InputError("push", "expected at least four forces with a reading each, some of them pulling")
    F, x = np.array(forces), np.array(readings)
    slopes, starts = [], []
    for side in (1.0, -1.0):
        mine = side * F >= UPPER * np.abs(F).max() - 1e-9
        if mine.sum() < 2 or np.ptp(F[mine]) == 0.0:
            raise InputError("push", "expected two different forces from half the largest on, on both sides")
        slope, start = np.polyfit(F[mine], x[mine], 1)
        slopes.append(float(slope))
        starts.append(float(start))
    give = sum(slopes) / 2
    if give <= 0.0:
        raise InputError("push", "the readings do not follow the force: mind the indicator's sign")
    last = int(np.argmax(np.abs(F)))
    closed = bool(np.isclose(F[0], F[-1], atol=0.05 * np.abs(F).max()))
    area = abs(float(np.sum((F[1:] + F[:-1]) / 2 * np.diff(x)))) if closed else 0.0
    return Pushed(1 / give, starts[0] - starts[1], area, float(abs(F[last] / x[last])) if x[last] else float("inf"))


def read_loop(text: str, newton: float = 1.0, micro: float = 1e-6) -> tuple[tuple[float, ...], tuple[float, ...]]:
    """Return forces, N, and readings, m, from pairs as they are typed: `50 22; 100 45; 0 3; -50 -20; -100 -43; 0 -2`.

    Args:
        text: Pairs of force and reading, apart by semicolons or lines.
        newton: Of a force as it is read.
        micro: Of a reading as it is read, m.

    Raises:
        InputError: Names the pair.
    """
    forces, readings = [], []
    for pair in (one.split() for one in text.replace("\n", ";").split(";") if one.strip()):
        try:
            force, reading = (float(word.replace(",", ".")) for word in pair)
        except ValueError:
            raise InputError(
                "push", f'"{" ".join(pair)}": expected a force and a reading, as in 50 22; 100 45'
            ) from None
        if not (np.isfinite(force) and np.isfinite(reading)):
            raise InputError("push", f'"{" ".join(pair)}": expected finite numbers')
        forces.append(force * newton)
        readings.append(reading * micro)
    return tuple(forces), tuple(readings)
