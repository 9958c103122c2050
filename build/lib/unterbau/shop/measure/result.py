"""What a measuring bench says: value ± uncertainty, within its tolerance or not, or it cannot tell."""

from dataclasses import dataclass
from math import sqrt
from typing import Literal

from uncertainties import UFloat, ufloat

Verdict = Literal["within", "not within", "cannot tell"]
EXPANDED = 2.0
"""k of the uncertainty that is told, about 95 %."""


@dataclass(frozen=True, slots=True)
class Instrument:
    """What readings are taken with; start values are an indicator's of a hundredth, common practice, no source."""

    resolution: float = 0.01e-3
    """Smallest step, m."""
    hysteresis: float = 0.003e-3
    """Between a reading from above and from below, m."""

    @property
    def standard(self) -> float:
        """Standard uncertainty of a reading: half widths over √3 (type B)."""
        return sqrt((self.resolution / 2) ** 2 + (self.hysteresis / 2) ** 2) / sqrt(3)


@dataclass(frozen=True, slots=True)
class Measured:
    """A result."""

    value: float
    uncertainty: float
    """Expanded, k = 2."""
    unit: str

    def verdict(self, tolerance: float) -> Verdict:
        """Return whether its size lies within a tolerance, beyond doubt."""
        size = abs(self.value)
        if size + self.uncertainty <= tolerance:
            return "within"
        return "not within" if size - self.uncertainty > tolerance else "cannot tell"


def read(values: tuple[float, ...], instrument: Instrument) -> UFloat:
    """Return the mean of repeated readings with its standard uncertainty: scatter (type A) and instrument (type B)."""
    mean = sum(values) / len(values)
    scatter = 0.0
    if len(values) > 1:
        scatter = sqrt(sum((one - mean) ** 2 for one in values) / (len(values) - 1) / len(values))
    return ufloat(mean, sqrt(scatter**2 + instrument.standard**2))


def measured(found: UFloat, unit: str) -> Measured:
    """Return a propagated value as it is told."""
    return Measured(float(found.nominal_value), EXPANDED * float(found.std_dev), unit)
