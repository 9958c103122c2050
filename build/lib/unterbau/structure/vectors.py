"""Places and directions in the machine: X to the right, Y to the back, Z up, metres."""

from math import dist

Vector = tuple[float, float, float]
X: Vector = (1.0, 0.0, 0.0)
Y: Vector = (0.0, 1.0, 0.0)
Z: Vector = (0.0, 0.0, 1.0)
ZERO: Vector = (0.0, 0.0, 0.0)


def minus(a: Vector, b: Vector) -> Vector:
    """Return a − b."""
    return (a[0] - b[0], a[1] - b[1], a[2] - b[2])


def plus(a: Vector, b: Vector, times: float = 1.0) -> Vector:
    """Return a + times · b."""
    return (a[0] + times * b[0], a[1] + times * b[1], a[2] + times * b[2])


def scaled(a: Vector, times: float) -> Vector:
    """Return times · a."""
    return (a[0] * times, a[1] * times, a[2] * times)


def dot(a: Vector, b: Vector) -> float:
    """Return a · b."""
    return a[0] * b[0] + a[1] * b[1] + a[2] * b[2]


def cross(a: Vector, b: Vector) -> Vector:
    """Return a × b."""
    return (a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0])


class Straight:
    """What has a start and an end."""

    __slots__ = ()
    start: Vector
    end: Vector

    @property
    def length(self) -> float:
        """From start to end, m."""
        return dist(self.start, self.end)

    @property
    def along(self) -> Vector:
        """Unit vector from start to end."""
        line, length = minus(self.end, self.start), self.length
        return (line[0] / length, line[1] / length, line[2] / length)
