"""The price book: per kilogram, metre, piece. Shipped figures are invented and say so."""

from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from unterbau.catalogue.tables import table


@dataclass(frozen=True, slots=True)
class PriceBook:
    """Prices in one currency at one date."""

    currency: str
    date: str
    note: str
    per_kg: dict[str, float]
    slotted_per_kg: float
    plate_factor: float
    """A cut plate costs this much more than its weight as bar."""
    joint: dict[str, float]
    block: dict[str, float]
    rail_per_m: dict[str, float]
    drive: dict[str, tuple[float, float]]
    """Fixed, and per metre."""
    spindle: float
    foot: float
    cutter: float


@lru_cache(maxsize=1)
def shipped_prices() -> PriceBook:
    """Return the price book to start from."""
    data: dict[str, Any] = dict(table("prices"))
    data["drive"] = {name: (float(pair[0]), float(pair[1])) for name, pair in data["drive"].items()}
    return PriceBook(**data)
