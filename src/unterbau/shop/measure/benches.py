"""Squares, straights, planes, tram: what readings mean. Metres and radians; the indicator rises with the surface.

Formulas as in a handbook of alignment; each is checked against its worked example in the tests.
"""

from dataclasses import dataclass
from math import hypot, sqrt

import numpy as np
import scipy
from uncertainties import umath

from unterbau.errors import InputError
from unterbau.mechanics.arrays import FloatArray
from unterbau.shop.measure.result import Instrument, Measured, measured, read

Readings = tuple[float, ...]
BELIEVED = 0.02
"""Share by which diagonals and sides of a rectangle may disagree: tapes do by less."""


def diagonals(first: float, second: float, width: float, height: float, tape: Instrument) -> Measured:
    """Return how far a rectangle is out of square, rad: sin δ = (d1² − d2²)/(4WH).

    Raises:
        InputError: They are not the diagonals of a parallelogram of these sides: d1² + d2² = 2(W² + H²).
    """
    expected = hypot(width, height)
    mean = sqrt((first**2 + second**2) / 2)
    if abs(mean - expected) > BELIEVED * expected:
        problem = f"expected diagonals of about {expected * 1e3:.0f} mm with these sides, got {first * 1e3:g} and "
        raise InputError("diagonals", f"{problem}{second * 1e3:g} mm")
    a, b = read((first,), tape), read((second,), tape)
    share = (a**2 - b**2) / (4 * width * height)
    if abs(share.nominal_value) >= 1.0:
        raise InputError("diagonals", "these cannot be the diagonals of such a rectangle")
    return measured(umath.asin(share), "rad")


def square_reversal(
    direct: float, reversed_: float, length: float, instrument: Instrument
) -> tuple[Measured, Measured]:
    """Return how far machine and square are out of square over a length, rad: half the difference, half the sum."""
    a, b = read((direct,), instrument), read((reversed_,), instrument)
    return measured((a - b) / 2 / length, "rad"), measured((a + b) / 2 / length, "rad")


@dataclass(frozen=True, slots=True)
class Straightness:
    """A line of readings."""

    slope: float
    """Of the line of least squares."""
    least_squares: Measured
    """Range about it, m."""
    zone: Measured
    """Least distance of two parallel lines that hold all, m."""
    residuals: tuple[float, ...]
    """From the line of least squares, m: what to shim or scrape, and where."""


def straightness(places: Readings, heights: Readings, instrument: Instrument) -> Straightness:
    """Return how straight a line is, by least squares and by the minimum zone (a linear programme)."""
    x, y = _pair(places, heights, 3)
    slope, offset = np.polyfit(x, y, 1)
    left = y - slope * x - offset
    zone = _zone(np.column_stack([x, np.ones_like(x)]), y)
    spread = 2 * 2**0.5 * instrument.standard
    return Straightness(
        float(slope), Measured(float(np.ptp(left)), spread, "m"), Measured(zone, spread, "m"), tuple(left.tolist())
    )  # fmt: skip


def parallel(places: Readings, first: Readings, second: Readings, length: float, instrument: Instrument) -> Measured:
    """Return how far two lines run apart over a length, m: difference of their slopes times the length."""
    x, a = _pair(places, first, 2)
    b = _pair(places, second, 2)[1]
    slope = np.polyfit(x, b - a, 1)[0]
    scale = float(np.sum((x - x.mean()) ** 2)) ** 0.5
    return Measured(float(slope) * length, 2 * 2**0.5 * instrument.standard / scale * length, "m")


def twist(
    fl: float, fr: float, bl: float, br: float, width: float, instrument: Instrument
) -> tuple[Measured, Measured]:
    """Return the twist of four corners as an angle, rad, and the gap of two crossed strings, m.

    t = FL − FR + BR − BL; crossed strings from corner to corner are t/2 apart where they cross.
    """
    a, b, c, d = (read((one,), instrument) for one in (fl, fr, bl, br))
    t = a - b + d - c
    return measured(t / width, "rad"), measured(t / 2, "m")


@dataclass(frozen=True, slots=True)
class Flatness:
    """A grid of readings."""

    least_squares: Measured
    zone: Measured
    residuals: tuple[tuple[float, ...], ...]
    """From the plane of least squares, rows as read, m."""
    tilt: tuple[float, float]
    """Of that plane along x and y, rad."""


def flatness(pitch: tuple[float, float], rows: tuple[Readings, ...], instrument: Instrument) -> Flatness:
    """Return how flat a grid is, by least squares and by the minimum zone."""
    z = np.array(rows)
    if z.ndim != 2 or min(z.shape) < 2 or z.size < 4:
        raise InputError("flatness", "expected a grid of at least 2 by 2 readings, rows of one length")
    y, x = np.meshgrid(np.arange(z.shape[0]) * pitch[1], np.arange(z.shape[1]) * pitch[0], indexing="ij")
    basis = np.column_stack([x.ravel(), y.ravel(), np.ones(z.size)])
    plane = np.linalg.lstsq(basis, z.ravel(), rcond=None)[0]
    left = (z.ravel() - basis @ plane).reshape(z.shape)
    spread = 2 * 2**0.5 * instrument.standard
    residuals = tuple(tuple(row) for row in left.tolist())
    return Flatness(
        Measured(float(np.ptp(left)), spread, "m"), Measured(_zone(basis, z.ravel()), spread, "m"), residuals,
        (float(plane[0]), float(plane[1])),
    )  # fmt: skip


def _zone(basis: FloatArray, heights: FloatArray) -> float:
    """Return the least distance of two parallel lines or planes that hold all points, m.

    min t with |z − B·p| ≤ t/2: a linear programme.
    """
    scale = max(float(np.ptp(heights)), 1e-12)
    n, count = basis.shape[1], len(heights)
    sized = basis / np.maximum(np.abs(basis).max(axis=0), 1e-12)
    upper = np.hstack([sized, -0.5 * np.ones((count, 1))])
    lower = np.hstack([-sized, -0.5 * np.ones((count, 1))])
    z = heights / scale
    found = scipy.optimize.linprog(
        np.r_[np.zeros(n), 1.0], np.vstack([upper, lower]), np.r_[z, -z], bounds=[(None, None)] * n + [(0, None)]
    )  # fmt: skip
    return float(found.fun) * scale


@dataclass(frozen=True, slots=True)
class Tram:
    """How a spindle stands over its bed."""

    about_x: Measured
    """Tilt seen along x, rad: readings at 0 and 180 degrees."""
    about_y: Measured
    warped: float
    """What four readings of a plane would not leave: bed error, m."""

    def shims(self, pitch: float) -> tuple[float, float]:
        """Return what shims under bolts of a pitch cure it, m: θ × pitch."""
        return self.about_x.value * pitch, self.about_y.value * pitch


def tram(readings: tuple[float, float, float, float], radius: float, instrument: Instrument) -> Tram:
    """Return how a sweep reads: at 0, 90, 180, 270 degrees on a radius."""
    r0, r90, r180, r270 = (read((one,), instrument) for one in readings)
    warped = (r0 + r180 - r90 - r270) / 4
    return Tram(
        measured((r0 - r180) / (2 * radius), "rad"), measured((r90 - r270) / (2 * radius), "rad"),
        abs(float(warped.nominal_value)),
    )  # fmt: skip


def arm_shim(places: Readings, heights: Readings, pitch: float, instrument: Instrument) -> tuple[Measured, Measured]:
    """Return the slope of an arm or column by least squares, rad, and the shim under bolts of a pitch, m."""
    x, y = _pair(places, heights, 2)
    slope = float(np.polyfit(x, y, 1)[0])
    scale = float(np.sum((x - x.mean()) ** 2)) ** 0.5
    spread = 2 * instrument.standard / scale
    return Measured(slope, spread, "rad"), Measured(slope * pitch, spread * pitch, "m")


def _pair(places: Readings, heights: Readings, least: int) -> tuple[FloatArray, FloatArray]:
    if len(places) != len(heights) or len(places) < least:
        raise InputError("readings", f"expected at least {least} places with a reading each")
    x = np.array(places)
    if np.ptp(x) <= 0.0:
        raise InputError("readings", "expected readings at different places")
    return x, np.array(heights)
