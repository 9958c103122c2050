"""A drag chain: where it lies, how long it has to be, what it fills while its axis moves."""

from collections.abc import Iterator
from dataclasses import dataclass
from math import pi

from unterbau.structure.bodies import Prism, box_ring
from unterbau.structure.carrier import STILL, Carrier
from unterbau.structure.keys import Key
from unterbau.structure.parts import DragChain
from unterbau.structure.vectors import Vector, cross, dot, minus, plus, scaled

BRACKET = 0.004
"""Thickness of the angle that reaches from what moves to the chain's end, m."""
SEEN = 0.005
"""Shorter angles are not drawn, m."""


@dataclass(frozen=True, slots=True)
class ChainRun:
    """A drag chain from what moves to what stands, or moves less."""

    key: Key
    name: str
    part: DragChain
    moving: Vector
    """Where its moving end is held, as laid out."""
    moving_with: Carrier
    still: Vector
    """Where its other end lies, the middle of the chain there."""
    along: Vector
    """The axis it follows; its bend runs ahead that way."""
    rise: Vector
    """From its lower run to its upper one."""
    low: float
    """Least that the moving end stands ahead of the other along the axis on the whole travel, m."""
    high: float
    carrier: Carrier = STILL
    """Of what its other end lies on."""

    @property
    def length(self) -> float:
        """Of the chain, m: the farther of both reaches, and half a turn."""
        return max(abs(self.low), abs(self.high)) + pi * self.part.radius

    @property
    def mass(self) -> float:
        """With what lies in it, kg."""
        return self.length * self.part.per_metre

    @property
    def top(self) -> Vector:
        """From the lower run's middle to the upper one's."""
        return scaled(self.rise, 2 * self.part.radius)

    def bend(self, ahead: float) -> float:
        """Return where the middle of its bend is along the axis from its lying end, m, its moving end so far ahead."""
        return (ahead + max(abs(self.low), abs(self.high))) / 2

    def filled(self) -> tuple[Vector, Vector, tuple[float, float]]:
        """Return the box that it fills over the whole travel: both ends of its middle, how wide and how tall, m."""
        start = min(self.low, 0.0)
        end = self.bend(self.high) + self.part.radius + self.part.height / 2
        middle = plus(self.still, self.top, 0.5)
        size = self.part.width, 2 * self.part.radius + self.part.height
        return plus(middle, self.along, start), plus(middle, self.along, end), size

    def seen(self, way: Vector) -> Iterator[Prism]:
        """Yield what is seen of it when the axes have gone so far, m: two runs, the bend, the angle at its end."""
        still, moving = self.carrier.moved(self.still, way), self.moving_with.moved(self.moving, way)
        ahead = dot(minus(moving, still), self.along)
        part, bend = self.part, self.bend(ahead)
        ring = (box_ring(part.width, part.height),)
        corner, end = plus(still, self.along, bend), plus(plus(still, self.top), self.along, ahead)
        far = part.radius + part.height / 2
        yield Prism(self.key, self.name, still, corner, self.rise, ring)
        yield Prism(self.key, self.name, end, plus(corner, self.top), self.rise, ring)
        turn = (box_ring(part.width, 2 * part.radius + part.height),)
        middle = plus(corner, self.top, 0.5)
        yield Prism(self.key, self.name, middle, plus(middle, self.along, far), self.rise, turn)
        angle = minus(end, moving)
        if dot(angle, angle) > SEEN**2:
            side = cross(self.along, self.rise)
            up = side if abs(dot(angle, side)) < 0.7 * dot(angle, angle) ** 0.5 else self.rise
            yield Prism(self.key, self.name, moving, end, up, (box_ring(BRACKET, part.width),))
