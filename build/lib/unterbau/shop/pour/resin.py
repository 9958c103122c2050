"""Resin: how it cures with time and warmth, calibrated by the maker's pot life."""

from dataclasses import dataclass
from functools import lru_cache
from math import exp

import scipy

from unterbau.errors import InputError
from unterbau.strict import STRICT

RESIN_RHO, STONE_RHO = 1120.0, 2650.0
"""kg/m³; from memory."""
GAS = 8.314
ENERGY = 53e3
"""Activation, J/mol: twice as fast for 10 K more."""
STARTED = 0.05
"""Of the cure that is there from the start (autocatalysis); from memory."""
KELVIN = 273.15
CUP_START, CUP_HEAT, CUP_LOSS = 25.0, 1600.0, 6e-4
"""A cup of 100 g: where it starts, °C, its specific heat, J/kgK, and what it loses, 1/s; from memory."""
GELLED = 0.5
"""Cured so far at the end of the pot life."""


@dataclass(frozen=True, slots=True)
class Resin:
    """A resin with its hardener, as the maker's sheet tells it."""

    __pydantic_config__ = STRICT

    name: str = "laminating resin, slow hardener"
    ratio: float = 0.35
    """Hardener for one of resin, by mass."""
    pot_life: float = 45.0
    """Of 100 g from 25 °C, minutes."""
    heat: float = 450e3
    """Set free by curing, J/kg of resin with hardener."""
    price: float = 9.0
    """A kilogram of resin."""
    hardener_price: float = 14.0
    age: float = 0.0
    """Months since it was made."""
    keeps: float = 24.0
    """Months that it keeps."""

    def life_at(self, celsius: float) -> float:
        """Return the pot life of a cup at a temperature, s: half as long for 10 K more."""
        return self.pot_life * 60 * exp(ENERGY / GAS * (1 / (celsius + KELVIN) - 1 / (CUP_START + KELVIN)))


def rate(alpha: float, celsius: float, speed: float) -> float:
    """Return how fast resin cures, 1/s, with `speed` the factor that the pot life calibrates."""
    return speed * exp(-ENERGY / GAS / (celsius + KELVIN)) * (STARTED + alpha) * (1.0 - alpha)


@lru_cache(maxsize=64)
def speed_of(pot_life: float, heat: float) -> float:
    """Return the factor of the cure's rate, 1/s, by which a cup is half cured at its pot life.

    Args:
        pot_life: Minutes.
        heat: Set free, J/kg.

    A cup heats itself: taken as isothermal it would come out three to five times too fast.
    """

    def gels(factor: float) -> float:
        def change(_: float, state: list[float]) -> list[float]:
            alpha, celsius = min(state[0], 1.0), state[1]
            faster = rate(alpha, min(celsius, 400.0), factor)
            return [faster, heat / CUP_HEAT * faster - CUP_LOSS * (celsius - CUP_START)]

        def half(_: float, state: list[float]) -> float:
            return state[0] - GELLED

        half.terminal = True  # type: ignore[attr-defined]
        found = scipy.integrate.solve_ivp(
            change, (0.0, 40 * pot_life * 60), [0.0, CUP_START], "LSODA", events=half, rtol=1e-8
        )
        times = found.t_events[0]
        return float(times[0]) if len(times) else 40 * pot_life * 60

    start = 1.0 / (exp(-ENERGY / GAS / (CUP_START + KELVIN)) * pot_life * 60)
    power = scipy.optimize.brentq(lambda power: gels(start * 10**power) - pot_life * 60, -2.0, 2.0, xtol=1e-9)
    return float(start * 10**power)


def check_resin(resin: Resin) -> None:
    """Check a resin.

    Raises:
        InputError: With the field at fault.
    """
    for name, low, high, unit in (
        ("ratio", 0.02, 2.0, ""), ("pot_life", 2.0, 2000.0, " min"), ("heat", 0.0, 2e6, " J/kg"),
        ("price", 0.0, 1e4, ""), ("hardener_price", 0.0, 1e4, ""), ("age", 0.0, 600.0, " months"),
        ("keeps", 1.0, 600.0, " months"),
    ):  # fmt: skip
        value = getattr(resin, name)
        if not low <= value <= high:
            raise InputError(f"resin.{name}", f"expected {low:g} to {high:g}{unit}, got {value:g}")
