"""A prediction or a value with its spread."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Generic, Literal, TypeVar

T = TypeVar("T")
A = TypeVar("A", covariant=True)
Level = Literal["low", "likely", "high"]
LEVELS: tuple[Level, ...] = ("low", "likely", "high")


@dataclass(frozen=True, slots=True)
class AtLevels(Generic[A]):
    """Something at each level."""

    low: A
    likely: A
    high: A

    def at(self, level: Level) -> A:
        """Return it at a level."""
        value: A = getattr(self, level)
        return value


def at_levels(of: Callable[[Level], T]) -> AtLevels[T]:
    """Return what a function gives at each level."""
    return AtLevels(of("low"), of("likely"), of("high"))


@dataclass(frozen=True, slots=True)
class Band:
    """Low, likely and high; low means soft joints, not always the smaller number."""

    low: float
    likely: float
    high: float

    def at(self, level: Level) -> float:
        """Return the value at a level."""
        value: float = getattr(self, level)
        return value

    @property
    def ends(self) -> tuple[float, float]:
        """The smallest and the largest of the three; a difference can be least with likely joints."""
        three = (self.low, self.likely, self.high)
        return min(three), max(three)

    def map(self, change: Callable[[float], float]) -> "Band":
        """Return the band with a function applied to each value."""
        return Band(change(self.low), change(self.likely), change(self.high))

    def scaled(self, factor: float) -> "Band":
        """Return the band times a factor."""
        return Band(self.low * factor, self.likely * factor, self.high * factor)
