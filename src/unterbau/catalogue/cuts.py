"""Typical cuts and the force they pull with."""

from dataclasses import dataclass
from functools import lru_cache

from unterbau.band import Band
from unterbau.catalogue.tables import table
from unterbau.errors import InputError

SCATTER = 0.4
"""Of the calculated forces; blunt tools pull up to twice as hard."""


@dataclass(frozen=True, slots=True)
class Cut:
    """A customary cut."""

    id: str
    label: str
    tool: str
    mean: float
    """Force along the cut, averaged, N."""
    peak: float
    """Largest resultant within a turn, N."""
    feed: float
    """Tooth feed × teeth × turns, m/s."""
    source: str

    @property
    def force(self) -> Band:
        """The peak with its scatter, N."""
        return Band(self.peak * (1 - SCATTER), self.peak, self.peak * (1 + SCATTER))


@lru_cache(maxsize=1)
def cuts() -> dict[str, Cut]:
    """Return all cuts by id."""
    data = table("cuts")
    return {
        row["id"]: Cut(
            row["id"],
            row["label"],
            row["tool"],
            float(row["mean"]),
            float(row["peak"]),
            row["feed_mm_min"] / 6e4,
            data["source"],
        )
        for row in data["cuts"]
    }


def cut(name: str) -> Cut:
    """Return a cut.

    Raises:
        InputError: There is no such cut.
    """
    found = cuts().get(name)
    if found is None:
        raise InputError("cut", f'there is no cut "{name}"; known are {", ".join(cuts())}')
    return found
