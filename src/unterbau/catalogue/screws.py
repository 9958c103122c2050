"""Screws with a socket head: holes for them, heads, washers, lengths on sale."""

from dataclasses import dataclass
from functools import lru_cache

from unterbau.catalogue.tables import table
from unterbau.errors import InputError


@dataclass(frozen=True, slots=True)
class ScrewSize:
    """A size of screw. Metres."""

    id: str
    d: float
    clearance: float
    """Of the hole that it goes through, medium."""
    tap: float
    """Drill of the hole that it is screwed into."""
    counterbore: float
    head: float
    """Diameter of the head; it is as high as the thread is thick."""
    key: float
    """Across the flats of its socket."""
    washer: tuple[float, float]
    """Diameter and thickness."""


@lru_cache(maxsize=1)
def screw_sizes() -> dict[str, ScrewSize]:
    """Return all sizes by name, smallest first."""
    found = {}
    for row in table("screws")["sizes"]:
        plain = {name: row[name] / 1e3 for name in ("d", "clearance", "tap", "counterbore", "head", "key")}
        found[row["id"]] = ScrewSize(row["id"], **plain, washer=(row["washer"][0] / 1e3, row["washer"][1] / 1e3))
    return found


def screw_size(name: str) -> ScrewSize:
    """Return a size of screw.

    Raises:
        InputError: There is no such size.
    """
    found = screw_sizes().get(name)
    if found is None:
        raise InputError("screw", f'there is no screw "{name}"; known are {", ".join(screw_sizes())}')
    return found


def screw_lengths() -> tuple[float, ...]:
    """Return the lengths on sale, m, shortest first."""
    return tuple(length / 1e3 for length in table("screws")["lengths_mm"])


def screw_source() -> str:
    """Return where the sizes are from."""
    return str(table("screws")["source"])
