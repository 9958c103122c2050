"""Version 1 to 2: the price book and the cut the machine is judged by joined the project."""

import dataclasses
from typing import Any

from unterbau.catalogue.prices import shipped_prices
from unterbau.errors import InputError

ADDED = ("prices", "cut")


def upgrade(data: dict[str, Any]) -> dict[str, Any]:
    """Return the data of a version 1 file as version 2: the shipped prices, marked as invented.

    Raises:
        InputError: The file holds keys that version 1 did not know.
    """
    for key in ADDED:
        if key in data:
            raise InputError(f"$.{key}", "unknown key in version 1")
    prices = dataclasses.asdict(shipped_prices())
    return {**data, "version": 2, "prices": prices, "cut": "hardwood"}
