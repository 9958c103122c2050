"""Pieces that are made: bars cut to length, plates, rods."""

from dataclasses import dataclass
from functools import cached_property
from math import dist

from unterbau.structure.carrier import STILL, Carrier
from unterbau.structure.keys import Key
from unterbau.structure.parts import Member
from unterbau.structure.spot import BOLT, Spot
from unterbau.structure.vectors import Straight, Vector, cross, dot, minus, plus


@dataclass(frozen=True, slots=True)
class Bar(Straight):
    """A member from start to end of its axis."""

    key: Key
    name: str
    part: Member
    start: Vector
    end: Vector
    up: Vector
    height: float
    """Along up, m."""
    width: float
    stops: tuple[float, ...] = ()
    """Where something is fastened along it, m from the start."""
    fineness: int = 6
    """Into at least so many it is cut where it bends."""
    carries: bool = False
    """Whether rails are screwed to it."""
    carrier: Carrier = STILL

    @property
    def first(self) -> Spot:
        """Its start."""
        return Spot(self.name, self.start)

    @property
    def last(self) -> Spot:
        """Its end."""
        return Spot(self.name, self.end)


@dataclass(frozen=True, slots=True)
class Rod(Straight):
    """A round bar: work in a chuck, a cutter."""

    key: Key
    name: str
    diameter: float
    material: str
    start: Vector
    end: Vector
    names: tuple[str, ...]
    """In the price book."""
    stops: tuple[float, ...] = ()
    root: Spot | None = None
    """What its start is part of."""
    fineness: int = 4
    carrier: Carrier = STILL

    @property
    def first(self) -> Spot:
        """Its start."""
        return Spot(self.name, self.start)

    @property
    def last(self) -> Spot:
        """Its end."""
        return Spot(self.name, self.end)


@dataclass(frozen=True)
class PlatePiece(Straight):
    """A rectangular plate from start to end along its middle line, or the triangle on the side of its corner."""

    key: Key
    name: str
    start: Vector
    end: Vector
    up: Vector
    """Its normal."""
    height: float
    """Thickness, m."""
    width: float
    material: str
    text: str
    """What it is, in words, for the list."""
    xs: tuple[float, ...] = ()
    """Crossings along it that are drawn and can carry the work, from its corner, m."""
    ys: tuple[float, ...] = ()
    """The same across it."""
    halved: bool = False
    made: tuple[float, float] | None = None
    """Length and width as cut, where the model counts more: a rib's foot reaches to the middle of its plate."""
    carrier: Carrier = STILL
    strips: int = 0
    """So many extruded plates with T-slots side by side along it, their slots across it; 0 for one plain plate."""
    lower: tuple[str, float] | None = None
    """Material and thickness of a layer glued under it, which its height has in it, m."""
    cast: bool = False
    """Whether it is poured in one with its ribs: it is not cut, and bought by its mass."""

    @cached_property
    def length(self) -> float:
        """From start to end, m."""
        return dist(self.start, self.end)

    @cached_property
    def along(self) -> Vector:
        """Unit vector from start to end."""
        line, length = minus(self.end, self.start), self.length
        return (line[0] / length, line[1] / length, line[2] / length)

    @property
    def layers(self) -> tuple[tuple[str, float], ...]:
        """Material and thickness of each layer, the upper first, m."""
        if self.lower is None:
            return ((self.material, self.height),)
        return ((self.material, self.height - self.lower[1]), self.lower)

    @cached_property
    def across(self) -> Vector:
        """Unit vector in its plane, square to `along`."""
        return cross(self.up, self.along)

    @cached_property
    def corner(self) -> Vector:
        """Where its own x and y begin, in the middle of its thickness."""
        return plus(self.start, self.across, -self.width / 2)

    @property
    def size(self) -> tuple[float, float]:
        """Length and width as cut, m."""
        return self.made or (self.length, self.width)

    @property
    def weighs(self) -> float:
        """Its mass against that of what the model counts."""
        long, wide = self.size
        return long * wide / (self.length * self.width)

    def at(self, x: float, y: float) -> Vector:
        """Return a place of its middle plane by its own x and y."""
        return plus(plus(self.corner, self.along, x), self.across, y)

    def under(self, place: Vector) -> Vector:
        """Return the place of its middle plane that is nearest to a place."""
        away = minus(place, self.corner)
        x, y = min(self.length, max(0.0, dot(away, self.along))), min(self.width, max(0.0, dot(away, self.across)))
        return self.at(x, y)

    def hold(self, place: Vector, half: tuple[float, float] = BOLT) -> Spot:
        """Return where something at a place is fastened to it.

        Args:
            place: Anywhere.
            half: Half the patch that is kept rigid, along and across, m.
        """
        return Spot(self.name, place, half)

    def half_of(self, up: Vector, height: float, width: float) -> tuple[float, float]:
        """Return half the patch under a face whose height lies along `up`."""
        upright = abs(dot(up, self.along)) >= abs(dot(up, self.across))
        return (0.45 * height, 0.45 * width) if upright else (0.45 * width, 0.45 * height)


@dataclass(frozen=True, slots=True)
class Point:
    """A place by itself, that pieces and joins refer to."""

    name: str
    place: Vector
    carrier: Carrier = STILL
