"""Screws with a socket head: holes for them, and their heads."""

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
    insert: float
    """Drill of the hole of a blind rivet nut, where a wall is too thin for a thread."""
    washer: float
    """Thickness of its washer."""
    head: float
    """Diameter of the head; it is as high as the thread is thick."""
    counterbore: float
    """Diameter in which the head is sunk."""


@lru_cache(maxsize=1)
def screw_sizes() -> dict[str, ScrewSize]:
    """Return all sizes by name, smallest first."""
    found = {}
    for row in table("screws")["sizes"]:
        plain = {name: row[name] / 1e3 for name in ("d", "clearance", "tap", "insert", "washer", "head", "counterbore")}
        found[row["id"]] = ScrewSize(row["id"], **plain)
    return found


def screw_lengths() -> tuple[float, ...]:
    """Return the lengths that screws are sold in, shortest first, m."""
    return tuple(length / 1e3 for length in table("screws")["lengths"])


def screw_size(name: str) -> ScrewSize:
    """Return a size of screw.

    Raises:
        InputError: There is no such size.
    """
    found = screw_sizes().get(name)
    if found is None:
        raise InputError("screw", f'there is no screw "{name}"; known are {", ".join(screw_sizes())}')
    return found
