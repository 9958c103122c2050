"""Both ways to a position: means, reversal, repeatability, accuracy (ISO 230-2, recalled without the document open)."""

from dataclasses import dataclass
from statistics import mean, stdev

from unterbau.errors import InputError


@dataclass(frozen=True, slots=True)
class Position:
    """One position, approached from both sides; m."""

    up: float
    """Mean deviation coming up."""
    down: float
    up_scatter: float
    """Standard deviation."""
    down_scatter: float

    @property
    def reversal(self) -> float:
        """B = |x̄↑ − x̄↓|: backlash and what gives."""
        return abs(self.up - self.down)


@dataclass(frozen=True, slots=True)
class Positioning:
    """A whole axis; m."""

    positions: tuple[Position, ...]

    @property
    def reversal(self) -> float:
        """The largest of all positions."""
        return max(one.reversal for one in self.positions)

    @property
    def repeatability(self) -> float:
        """The largest 4s of either direction."""
        return max(4 * s for one in self.positions for s in (one.up_scatter, one.down_scatter))

    @property
    def accuracy(self) -> float:
        """Bidirectional: max(x̄ + 2s) − min(x̄ − 2s)."""
        pairs = [(m, s) for one in self.positions for m, s in ((one.up, one.up_scatter), (one.down, one.down_scatter))]
        return max(m + 2 * s for m, s in pairs) - min(m - 2 * s for m, s in pairs)


def positioning(runs: tuple[tuple[tuple[float, ...], tuple[float, ...]], ...]) -> Positioning:
    """Return an axis from its deviations, up and down, at each position.

    Raises:
        InputError: Fewer than two readings a direction.
    """
    found = []
    for number, (up, down) in enumerate(runs, 1):
        if min(len(up), len(down)) < 2:
            raise InputError(f"position {number}", "expected at least two readings in each direction")
        found.append(Position(mean(up), mean(down), stdev(up), stdev(down)))
    if not found:
        raise InputError("positions", "expected at least one position")
    return Positioning(tuple(found))
