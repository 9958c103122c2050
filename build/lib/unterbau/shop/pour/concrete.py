"""Concrete over time: age by temperature, strength, stiffness, heat of the cement."""

from math import exp, log, sqrt

KELVIN = 273.0
DAY = 86400.0
SLOW: dict[str, float] = {"32.5N": 0.38, "32.5R": 0.25, "42.5N": 0.25, "42.5R": 0.20, "52.5": 0.20}
"""s of EN 1992-1-1 by class of cement (recalled without the document open)."""
HYDRATION = 350e3
"""Heat of a kilogram of cement, J; from memory."""
LATE, SHAPE = 14.0, 0.9
"""Hours and power of how far cement has come, exp(−(late/age)^shape); from memory."""


def aging(celsius: float) -> float:
    """Return how much faster concrete ages than at 20 °C.

    Source:
        EN 1992-1-1, annex B: exp(13.65 − 4000/(273 + T)) (recalled without the document open).
    """
    return exp(13.65 - 4000.0 / (KELVIN + celsius))


def strength_share(days: float, cement: str) -> float:
    """Return the share of its strength at 28 days that concrete has at an age, days at 20 °C.

    Source:
        EN 1992-1-1, 3.1.2: β = exp(s·(1 − √(28/t))).
    """
    return exp(SLOW[cement] * (1.0 - sqrt(28.0 / days))) if days > 0.0 else 0.0


def stiffness_share(days: float, cement: str) -> float:
    """Return the share of its E at 28 days that concrete has at an age, days at 20 °C: β^.3, as above."""
    return float(strength_share(days, cement) ** 0.3)


def stiffness_at(days: float, cement: str, mean: float) -> float:
    """Return E at an age, Pa, for a mean strength at 28 days, Pa: 22·(fcm/10)^.3 GPa, times β^.3."""
    return float(22e9 * (mean / 10e6) ** 0.3) * stiffness_share(days, cement)


def days_for(share: float, cement: str) -> float:
    """Return after how many days at 20 °C concrete has a share of its strength."""
    return 28.0 / (1.0 - log(share) / SLOW[cement]) ** 2
