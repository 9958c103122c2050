"""What a machine looks like: prisms along chains of frame nodes, and sheets over a grid."""

from dataclasses import dataclass
from functools import lru_cache
from math import cos, pi, sin

from unterbau.structure.vectors import Vector

Ring = tuple[tuple[float, float], ...]


@dataclass(frozen=True, slots=True)
class Prism:
    """A cross-section drawn from start to end; moves with a chain of the built frame."""

    key: str
    """Link that it belongs to."""
    chain: str
    """Name in `Built.chains`."""
    start: Vector
    end: Vector
    up: Vector
    rings: tuple[Ring, ...]
    """Outline about the axis, (y, z) in the beam's own axes, m; the first is the outside."""


@dataclass(frozen=True, slots=True)
class Sheet:
    """A flat plate over a grid of nodes named `NAME i,j`."""

    key: str
    name: str
    corner: Vector
    along: Vector
    across: Vector
    normal: Vector
    xs: tuple[float, ...]
    """Of the grid, from the corner along, m."""
    ys: tuple[float, ...]
    low: float
    """Faces, from the corner along the normal, m."""
    high: float

    def place(self, x: float, y: float, level: float) -> Vector:
        """Return a place by the sheet's own coordinates."""
        rows = zip(self.corner, self.along, self.across, self.normal, strict=True)
        first, second, third = (c + x * a + y * b + level * n for c, a, b, n in rows)
        return (first, second, third)

    def corners(self) -> tuple[Vector, ...]:
        """Return the eight corners: the lower face round, then the upper."""
        x0, x1, y0, y1 = self.xs[0], self.xs[-1], self.ys[0], self.ys[-1]
        ring = ((x0, y0), (x1, y0), (x1, y1), (x0, y1))
        return tuple(self.place(x, y, level) for level in (self.low, self.high) for x, y in ring)


Body = Prism | Sheet


def box_ring(width: float, height: float) -> Ring:
    """Return a rectangle, width along y and height along z."""
    y, z = width / 2, height / 2
    return ((-y, -z), (y, -z), (y, z), (-y, z))


@lru_cache(maxsize=512)
def round_ring(diameter: float, corners: int = 20) -> Ring:
    """Return a circle as a polygon."""
    return tuple(
        (diameter / 2 * cos(2 * pi * c / corners), diameter / 2 * sin(2 * pi * c / corners)) for c in range(corners)
    )
