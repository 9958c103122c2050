"""One reading as an instrument sends it: a line with an optional name, a number and a unit."""

import re
from dataclasses import dataclass
from math import isfinite
from typing import Literal

from unterbau.errors import InputError

Sort = Literal["length", "force", "mass", "temperature"]
LONGEST = 80
"""Letters of a line."""
UNITS: dict[str, tuple[Sort, float]] = {
    "mm": ("length", 1e-3), "um": ("length", 1e-6), "µm": ("length", 1e-6), "in": ("length", 0.0254),
    "thou": ("length", 25.4e-6), "N": ("force", 1.0), "kgf": ("force", 9.80665), "lbf": ("force", 4.4482216152605),
    "kg": ("mass", 1.0), "g": ("mass", 1e-3), "lb": ("mass", 0.45359237), "C": ("temperature", 1.0),
}  # fmt: skip
"""What each unit measures, and what one of it is: m, N, kg, degrees Celsius."""
LINE = re.compile(
    r"(?:(?P<name>[\w -]{1,20}):)?\s*(?P<value>[-+−]?\d*[.,]?\d+(?:[eE][-+]?\d+)?)\s*(?P<unit>[^\s\d]+)\s*"
)
EXPECTED = f"expected a number and a unit, as in +0.012 mm; units are {', '.join(UNITS)}"
SENT: dict[Sort, tuple[str, int]] = {
    "length": ("mm", 4), "force": ("N", 2), "mass": ("kg", 3), "temperature": ("C", 1)
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Reading:
    """What an instrument shows."""

    value: float
    """m, N, kg or degrees Celsius."""
    sort: Sort
    name: str = ""
    """Of the instrument, where it says it."""


def parse_line(line: str) -> Reading:
    """Return the reading of a line.

    Raises:
        InputError: It is none.
    """
    text = line.strip()
    found = LINE.fullmatch(text) if len(text) <= LONGEST else None
    shown = text if len(text) <= LONGEST else text[:LONGEST] + " …"
    if found is None or found["unit"] not in UNITS:
        raise InputError("instrument", f'"{shown}": {EXPECTED}')
    sort, one = UNITS[found["unit"]]
    value = float(found["value"].replace(",", ".").replace("−", "-")) * one
    if not isfinite(value):
        raise InputError("instrument", f'"{shown}": {EXPECTED}')
    return Reading(value, sort, (found["name"] or "").strip())


def line_of(reading: Reading) -> str:
    """Return a reading as a line, without its end."""
    unit, digits = SENT[reading.sort]
    name = f"{reading.name}: " if reading.name else ""
    return f"{name}{reading.value / UNITS[unit][1]:+.{digits}f} {unit}"
