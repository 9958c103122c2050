"""Two bodies over the whole travel: can they ever meet, where first, what it costs. Convex sums, no steps in time."""

from dataclasses import dataclass

import numpy as np
import scipy

from unterbau.solids.convex import Convex, Floats, depth
from unterbau.solids.solids import Solid

SAME = 1e-12


@dataclass(frozen=True, slots=True)
class Meeting:
    """All positions of the axes at which two bodies touch or reach into each other."""

    depth: float
    """How far apart they would have to be moved to be clear over the whole travel, m."""
    low: tuple[float, float, float]
    """Of each axis, the lowest position at which they meet, m from where the machine is laid out."""
    high: tuple[float, float, float]
    at: tuple[float, float, float]
    """A position at which they meet."""
    moving: tuple[bool, bool, bool]
    """Axes that move the one against the other."""


def against(first: Solid, second: Solid) -> Floats:
    """Return how far the first goes against the second per metre of each axis, a column each, shape (3, 3)."""
    return np.asarray(np.array(first.ways).T - np.array(second.ways).T)


def meeting(first: Solid, second: Solid, low: Floats, high: Floats, least: float) -> Meeting | None:
    """Return where two bodies meet, or nothing where they never do.

    Args:
        first: A body.
        second: Another.
        low: How far each axis can go from where the machine is laid out, m, shape (3,).
        high: The other way.
        least: What counts as touching only, m.

    Source:
        A convex body moved through a box of movements fills its Minkowski sum with it, which is convex; it is parted
        from another by a face of either or by an edge of each.
    """
    ways = against(first, second)
    moving = tuple(bool(np.abs(ways[:, axis]).max() > SAME and high[axis] - low[axis] > SAME) for axis in range(3))
    swept = sweep(first.body, [(ways[:, n], low[n], high[n]) for n in range(3) if moving[n]])
    deep = depth(swept, second.body)
    if deep <= least:
        return None
    found = _positions(first.body.corners, second.body.corners, ways, low, high, moving)
    return None if found is None else Meeting(deep, *found, (moving[0], moving[1], moving[2]))


def sweep(body: Convex, movements: list[tuple[Floats, float, float]]) -> Convex:
    """Return what a body fills while it is moved, along each direction from so far to so far, m."""
    corners, edges, normals = body.corners, body.edges, body.normals
    for way, low, high in movements:
        corners = np.vstack([corners + low * way, corners + high * way])
        unit = way / np.linalg.norm(way)
        crossed = np.cross(edges, unit)
        size = np.linalg.norm(crossed, axis=1)
        normals = np.vstack([normals, crossed[size > 1e-9] / size[size > 1e-9, None]])
        edges = np.vstack([edges, unit])
    return Convex(corners, normals, edges)


def box_of(body: Convex) -> tuple[Floats, Floats]:
    """Return the lowest and highest coordinates of a body."""
    return body.corners.min(axis=0), body.corners.max(axis=0)


Three = tuple[float, float, float]


def _positions(
    first: Floats, second: Floats, ways: Floats, low: Floats, high: Floats, moving: tuple[bool, ...]
) -> tuple[Three, Three, Three] | None:
    """Return the lowest and highest position of each axis at which two bodies share a point, and one such position.

    A point of each as a mean of its corners, the positions beside them: a linear programme for each end.
    """
    n, m = len(first), len(second)
    a = np.zeros((5, n + m + 3))
    a[:3, :n], a[:3, n : n + m], a[:3, n + m :] = first.T, -second.T, ways
    a[3, :n], a[4, n : n + m] = 1.0, 1.0
    b = np.array([0.0, 0.0, 0.0, 1.0, 1.0])
    bounds = [(0.0, 1.0)] * (n + m) + [(lo, hi) if go else (0.0, 0.0)
                                       for lo, hi, go in zip(low, high, moving, strict=True)]  # fmt: skip
    lowest, highest, seen = [0.0] * 3, [0.0] * 3, []
    for axis in range(3):
        if not moving[axis]:
            continue
        for sign, ends in ((1.0, lowest), (-1.0, highest)):
            c = np.zeros(n + m + 3)
            c[n + m + axis] = sign
            found = scipy.optimize.linprog(c, A_eq=a, b_eq=b, bounds=bounds, method="highs")
            if not found.success:
                return None
            ends[axis] = float(found.x[n + m + axis])
            seen.append(found.x[n + m :])
    at = np.mean(seen, axis=0) if seen else np.zeros(3)
    return (lowest[0], lowest[1], lowest[2]), (highest[0], highest[1], highest[2]), (at[0], at[1], at[2])
