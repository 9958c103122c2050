"""Outlines of lines and tangent arcs, and their exact area integrals."""

import math
from dataclasses import dataclass

import numpy as np

Point = tuple[float, float]
_POINTS, _WEIGHTS = np.polynomial.legendre.leggauss(12)


@dataclass(frozen=True, slots=True)
class Line:
    """A straight edge."""

    start: Point
    end: Point


@dataclass(frozen=True, slots=True)
class Arc:
    """A circular edge from angle `first` to angle `last`, rad; the sign of the turn counts."""

    centre: Point
    radius: float
    first: float
    last: float

    def at(self, angle: float) -> Point:
        """Return the point at an angle."""
        return (
            self.centre[0] + self.radius * math.cos(angle),
            self.centre[1] + self.radius * math.sin(angle),
        )


Loop = tuple[Line | Arc, ...]
Outline = tuple[Loop, ...]
"""Closed loops; material lies to the left of each, so holes run clockwise."""


def rounded(corners: list[Point], radii: list[float]) -> Loop:
    """Return a closed loop with a tangent arc of the given radius at each corner."""
    n = len(corners)
    starts: list[Point] = []
    ends: list[Point] = []
    arcs: list[Arc | None] = []
    for index in range(n):
        before, here, after = corners[index - 1], corners[index], corners[(index + 1) % n]
        arc, start, end = _fillet(before, here, after, radii[index])
        arcs.append(arc)
        starts.append(start)
        ends.append(end)
    loop: list[Line | Arc] = []
    for index in range(n):
        arc = arcs[index]
        if arc is not None:
            loop.append(arc)
        loop.append(Line(ends[index], starts[(index + 1) % n]))
    return tuple(loop)


def _fillet(before: Point, here: Point, after: Point, radius: float) -> tuple[Arc | None, Point, Point]:
    if radius == 0.0:
        return None, here, here
    a = _unit(here, before)
    b = _unit(here, after)
    half = math.acos(max(-1.0, min(1.0, a[0] * b[0] + a[1] * b[1]))) / 2
    distance = radius / math.tan(half)
    start = (here[0] + a[0] * distance, here[1] + a[1] * distance)
    end = (here[0] + b[0] * distance, here[1] + b[1] * distance)
    bisector = _unit((0.0, 0.0), (a[0] + b[0], a[1] + b[1]))
    reach = radius / math.sin(half)
    centre = (here[0] + bisector[0] * reach, here[1] + bisector[1] * reach)
    first = math.atan2(start[1] - centre[1], start[0] - centre[0])
    last = math.atan2(end[1] - centre[1], end[0] - centre[0])
    turn = (last - first + math.pi) % (2 * math.pi) - math.pi
    return Arc(centre, radius, first, first + turn), start, end


def _unit(start: Point, end: Point) -> Point:
    x, y = end[0] - start[0], end[1] - start[1]
    size = math.hypot(x, y)
    return (x / size, y / size)


def circle(radius: float, hole: bool = False) -> Loop:
    """Return a circle about the origin."""
    turn = -2 * math.pi if hole else 2 * math.pi
    return tuple(Arc((0.0, 0.0), radius, turn * q / 4, turn * (q + 1) / 4) for q in range(4))


def polygon(points: list[Point]) -> Loop:
    """Return a closed loop of straight edges."""
    return tuple(Line(a, b) for a, b in zip(points, [*points[1:], points[0]], strict=True))


def sampled(loop: Loop, steps: int = 6) -> list[Point]:
    """Return a loop as points for drawing, `steps` chords for each arc."""
    points: list[Point] = []
    for edge in loop:
        if isinstance(edge, Line):
            points.append(edge.start)
        else:
            points += [edge.at(edge.first + (edge.last - edge.first) * s / steps) for s in range(steps)]
    return points


@dataclass(frozen=True, slots=True)
class AreaIntegrals:
    """Area and second moments about the centroid."""

    A: float
    y: float
    """Centroid in the outline's own axes."""
    z: float
    Iy: float
    Iz: float
    Iyz: float


def integrate(outline: Outline) -> AreaIntegrals:
    """Return the area integrals of an outline by Green's theorem, about the origin: ∫y dA = ⅓∮y (y dz - z dy).

    Lines are exact; arcs by Gauss's rule with 12 points, exact to rounding up to a quarter turn.
    """
    sums = [0.0] * 6
    arcs: list[Arc] = []
    for loop in outline:
        for edge in loop:
            if isinstance(edge, Arc):
                arcs.append(edge)
                continue
            (a, b), (c, d) = edge.start, edge.end
            twice = a * d - c * b
            sums[0] += twice / 2
            sums[1] += twice * (a + c) / 6
            sums[2] += twice * (b + d) / 6
            sums[3] += twice * (b * b + b * d + d * d) / 12
            sums[4] += twice * (a * a + a * c + c * c) / 12
            sums[5] += twice * (2 * a * b + a * d + c * b + 2 * c * d) / 24
    if arcs:
        sums = [total + more for total, more in zip(sums, _of_arcs(arcs), strict=True)]
    A, Sy, Sz, Iy, Iz, Iyz = sums
    y0, z0 = Sy / A, Sz / A
    return AreaIntegrals(A, y0, z0, Iy - A * z0**2, Iz - A * y0**2, Iyz - A * y0 * z0)


def _of_arcs(arcs: list[Arc]) -> list[float]:
    """Return what arcs add to area, ∫y, ∫z, ∫z², ∫y² and ∫yz."""
    rows = np.array([(*one.centre, one.radius, one.first, one.last - one.first) for one in arcs])
    cy, cz, radius, first, turn = rows.T[..., None]
    angle = first + turn * (_POINTS + 1) / 2
    cosine, sine = np.cos(angle), np.sin(angle)
    y, z = cy + radius * cosine, cz + radius * sine
    sweep = (y * cosine + z * sine) * radius * turn * _WEIGHTS / 2
    powers = (sweep / 2, y * sweep / 3, z * sweep / 3, z * z * sweep / 4, y * y * sweep / 4, y * z * sweep / 4)
    return [float(one.sum()) for one in powers]
