"""Blows with a hammer that knows its force: the receptance at a place, and what its circles say of each mode."""

from dataclasses import dataclass

import numpy as np

from unterbau.errors import InputError
from unterbau.mechanics.arrays import ComplexArray, FloatArray
from unterbau.shop.measure.tap import LOWEST, tap_test

HEARD = 0.05
"""Of the largest force: a blow begins where it is passed."""
PADDED = 2
AROUND = 1.0
"""Of a peak's half-power width to either side that its circle is fitted over."""
LEAST = 5
"""Lines of the spectrum that a circle needs."""
SHORT = 0.1
"""s."""
COHERENT = 1e-3
"""Of the largest force spectrum: where the blow has less, nothing is known."""


@dataclass(frozen=True, slots=True)
class Circle:
    """A mode by the circle that its receptance draws."""

    frequency: float
    """Hz."""
    zeta: float
    """Damping ratio."""
    give: float
    """What the mode alone gives to a steady push at the place, m/N: its circle's diameter times twice the damping."""


@dataclass(frozen=True, slots=True)
class Struck:
    """What a blow says."""

    frequencies: FloatArray
    receptance: ComplexArray
    """Movement for force, m/N, at each."""
    circles: tuple[Circle, ...]
    """The lowest first."""
    blow: float
    """Largest force, N."""


def hammer_test(force: FloatArray, acceleration: FloatArray, rate: float) -> Struck:
    """Return the receptance of a place that was struck and listened to.

    Args:
        force: Of the hammer, N.
        acceleration: Of the place, m/s².
        rate: Samples a second.

    Raises:
        InputError: No blow, or too short a recording.

    Source:
        Receptance = −A/(ω²·F); each mode draws a circle there (Kennedy & Pancu 1947, from memory): ζ from the angles
        about its middle, give from its diameter, ζ and frequency; least squares by Kåsa.
    """
    f, a = np.asarray(force, float), np.asarray(acceleration, float)
    if len(f) != len(a) or len(f) < SHORT * rate or rate < 200.0:
        raise InputError("recording", "expected force and acceleration side by side, a tenth of a second at the least")
    f = f - float(np.median(f))
    most = float(np.abs(f).max())
    if most <= 0.0 or not np.abs(a).any():
        raise InputError("recording", "no blow is in it, or nothing moved")
    start = max(0, int(np.argmax(np.abs(f) > HEARD * most)) - round(0.002 * rate))
    f, a = f[start:], a[start:] - float(a.mean())
    if len(f) < SHORT * rate:
        raise InputError("recording", "the blow comes too late: expected at least a tenth of a second after it")
    count = PADDED * len(f)
    F, A = np.fft.rfft(f, count), np.fft.rfft(a, count)
    hertz = np.fft.rfftfreq(count, 1 / rate)
    known = (hertz >= LOWEST) & (np.abs(F) > COHERENT * np.abs(F).max())
    w = 2 * np.pi * hertz[known]
    H = -A[known] / (w**2 * F[known])
    circles = [_circle(hertz[known], H, one.frequency, one.half_power) for one in tap_test(a, rate).peaks]
    found = tuple(sorted((one for one in circles if one is not None), key=lambda one: one.frequency))
    return Struck(np.asarray(hertz[known], np.float64), np.asarray(H, np.complex128), found, most)


def _circle(hertz: FloatArray, H: ComplexArray, near: float, zeta: float) -> Circle | None:
    """Return the circle about a peak; None where too few lines draw it."""
    width = max(zeta, 1e-3) * near * 2 * AROUND
    rows = np.flatnonzero(np.abs(hertz - near) <= width)
    if len(rows) < LEAST:
        return None
    z, f = H[rows], hertz[rows]
    size = float(np.abs(z).max())
    x, y = z.real / size, z.imag / size
    # Kåsa: x² + y² = 2·x0·x + 2·y0·y + c.
    basis = np.column_stack([2 * x, 2 * y, np.ones_like(x)])
    (x0, y0, c), *_ = np.linalg.lstsq(basis, x**2 + y**2, rcond=None)
    radius = float(np.sqrt(max(c + x0**2 + y0**2, 0.0)))
    if not 0.0 < radius < 10.0:
        return None
    turned = np.unwrap(np.angle((x - x0) + 1j * (y - y0)))
    speed = np.gradient(turned, f)
    at = int(np.argmax(np.abs(speed)))
    peak = float(f[at])
    if 0 < at < len(f) - 1:
        p, q, r = (float(abs(speed[at + k])) for k in (-1, 0, 1))
        bend = p - 2 * q + r
        peak += 0.5 * (p - r) / bend * float(f[1] - f[0]) if bend else 0.0
    # About the middle the angle θ from resonance goes as tan(θ/2) = (1 − (f/f0)²)/(2ζ·f/f0): slope by least squares.
    theta = turned - float(np.interp(peak, f, turned))
    reach = np.abs(theta) < 0.6 * np.pi
    side = (1 - (f / peak) ** 2) / (2 * f / peak)
    half = np.tan(theta[reach] / 2)
    slope = float(np.sum(side[reach] * half) / max(np.sum(side[reach] ** 2), 1e-30))
    if slope == 0.0:
        return None
    found = 1 / abs(slope)
    return Circle(peak, found, 2 * radius * size * 2 * found)
