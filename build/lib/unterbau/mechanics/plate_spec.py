"""A plate as content: its mesh lines, where it is held, where it is looked at."""

from bisect import bisect_left
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from unterbau.hashed import Hashed, hashed_once
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.plate_element import PlateMaterial

ON_LINE = 1e-6
SNAP = 2e-4
"""An edge of a patch this near to another line of the mesh lies on it, m: slivers would spoil the sums."""


@dataclass(frozen=True, slots=True)
class Patch:
    """A rectangle that something fastened keeps rigid; of no size, a single point."""

    x: float
    y: float
    half_x: float = 0.0
    half_y: float = 0.0


@hashed_once
@dataclass(frozen=True, slots=True)
class PlateSpec(Hashed):
    """A rectangular plate, corner at its origin, as content; equal specs share their matrices."""

    xs: tuple[float, ...]
    """Mesh lines from 0 to its length, m."""
    ys: tuple[float, ...]
    thickness: float
    material: PlateMaterial
    patches: tuple[Patch, ...]
    """Where it is held."""
    points: tuple[tuple[float, float], ...]
    """Crossings of mesh lines that are looked at or pushed on."""
    halved: bool = False
    """Only the triangle between the corner at its origin and the diagonal is there, as in a gusset."""
    slits: tuple[float, ...] = ()
    """Lines of the mesh along x from each of which to the next the plate is cut through, m: plates side by side."""

    @property
    def area(self) -> float:
        """Of its face, m²."""
        return self.xs[-1] * self.ys[-1] * (0.5 if self.halved else 1.0)

    @property
    def middle(self) -> tuple[float, float]:
        """Its centre of mass from its origin, m."""
        share = 1 / 3 if self.halved else 0.5
        return (share * self.xs[-1], share * self.ys[-1])

    def covered(self) -> FloatArray:
        """Return the share of each element that is there, shape (n_x, n_y)."""
        if self.slits:
            there = np.ones((len(self.xs) - 1, len(self.ys) - 1))
            there[[int(np.argmin(np.abs(np.array(self.xs) - one))) for one in self.slits]] = 0.0
            return there
        if not self.halved:
            return np.ones((len(self.xs) - 1, len(self.ys) - 1))
        x, y = np.array(self.xs) / self.xs[-1], np.array(self.ys) / self.ys[-1]
        beyond = np.maximum(0.0, 1.0 - x[:, None] - y[None, :]) ** 2 / 2
        inside = beyond[:-1, :-1] - beyond[1:, :-1] - beyond[:-1, 1:] + beyond[1:, 1:]
        return np.asarray(inside / (np.diff(x)[:, None] * np.diff(y)[None, :]))


def nearest(stops: Sequence[float], place: float) -> float:
    """Return the stop nearest to a place, the first of two as near; the stops ascend."""
    right = bisect_left(stops, place)
    if right in (0, len(stops)):
        return stops[min(right, len(stops) - 1)]
    before, after = stops[right - 1], stops[right]
    return before if place - before <= after - place else after


def lines(length: float, exact: tuple[float, ...], edges: list[float], widest: float) -> tuple[float, ...]:
    """Return mesh lines from 0 to a length at stops and edges of patches, no two further apart than `widest`.

    Edges that lie within `SNAP` of a stop or of each other share a line; stops stay where they are.
    """
    fixed, kept = sorted((0.0, *exact, length)), [0.0]
    for edge in sorted(edges):
        if SNAP < edge < length - SNAP and abs(edge - nearest(fixed, edge)) > SNAP and abs(edge - kept[-1]) > SNAP:
            kept.append(edge)
    inside = sorted(stop for stop in (*fixed, *kept) if ON_LINE < stop < length - ON_LINE)
    found = [0.0]
    for stop in [*inside, length]:
        gap = stop - found[-1]
        if gap < ON_LINE:
            continue
        pieces = int(np.ceil(gap / widest - 1e-9))
        start = found[-1]
        found += [start + gap * k / pieces for k in range(1, pieces)] + [stop]
    return tuple(found)
