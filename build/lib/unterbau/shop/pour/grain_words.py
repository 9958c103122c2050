"""Sieve fractions as they are typed: `0.1-0.5 at 0.40; 0.5-2 at 0.35; 2-8 at 0.30 wet 2 %`."""

import re

from unterbau.errors import InputError
from unterbau.shop.pour.packing import Grain
from unterbau.shop.typed_list import typed_list, typed_number

GRAIN = re.compile(
    r"(?P<low>\d+(?:[.,]\d+)?)\s*(?:-|–|to|/)\s*(?P<high>\d+(?:[.,]\d+)?)\s*(?:mm)?"
    r"(?:\s+at\s+(?P<price>\d+(?:[.,]\d+)?))?(?:\s+wet\s+(?P<wet>\d+(?:[.,]\d+)?)\s*%)?"
)
EXPECTED = "expected fractions in mm as 0.1-0.5 at 0.40; 2-8 at 0.30 wet 2 %"


def read_grains(text: str) -> tuple[Grain, ...]:
    """Return the fractions that a text tells.

    Raises:
        InputError: Says which of them cannot be read.
    """
    found = []
    for told in typed_list(text, GRAIN, "grains", "fraction", EXPECTED):
        low, high, price, wet = (typed_number(told[name]) for name in ("low", "high", "price", "wet"))
        found.append(Grain(f"{low:g} to {high:g} mm", low / 1e3, high / 1e3, price, wet / 100))
    if not found:
        raise InputError("grains", EXPECTED)
    return tuple(found)


def grains_text(grains: tuple[Grain, ...]) -> str:
    """Return fractions as one types them."""
    words = []
    for one in grains:
        text = f"{one.low * 1e3:g}-{one.high * 1e3:g}"
        text += f" at {one.price:g}" if one.price else ""
        text += f" wet {one.moisture * 100:g} %" if one.moisture else ""
        words.append(text)
    return "; ".join(words)
