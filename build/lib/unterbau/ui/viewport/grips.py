"""The cross over the head by which it is dragged along its axes: places on the screen, as plain arithmetic."""

from dataclasses import dataclass

import numpy as np

from unterbau.mechanics.arrays import FloatArray

AXES = ("x", "y", "z")
NEAR = 8.0  # px around an arm
STUB = 12.0  # px: an arm seen end on cannot be dragged
HEAD = 0.28  # length of an arrow's head, as a share of the arm


def arms(centre: FloatArray, length: float) -> FloatArray:
    """Return the ends of the three arms, m, shape (3, 2, 3)."""
    unit = np.eye(3) * length
    return np.stack([centre - unit, centre + unit], axis=1)


def strokes(centre: FloatArray, length: float) -> tuple[FloatArray, list[int]]:
    """Return points and lines (count, points, flat) of the cross with its arrow heads."""
    points: list[FloatArray] = []
    lines: list[int] = []
    for axis in range(3):
        side = np.eye(3)[2 if axis < 2 else 0] * HEAD * length * 0.5
        along = np.eye(3)[axis] * length
        for sign in (1.0, -1.0):
            tip = centre + sign * along
            back = centre + sign * along * (1.0 - HEAD)
            start = len(points)
            points += [centre + sign * 0.15 * along, tip, back + side, back - side]
            lines += [2, start, start + 1, 2, start + 1, start + 2, 2, start + 1, start + 3]
    return np.array(points), lines


def grip_at(ends: FloatArray, place: FloatArray) -> str:
    """Return the axis whose arm is under a place of the screen, or nothing.

    Args:
        ends: Ends of the arms on the screen, px, shape (3, 2, 2).
        place: Place on the screen, px, shape (2,).
    """
    found = []
    for axis, (a, b) in zip(AXES, ends, strict=True):
        along = b - a
        size = float(along @ along)
        if size < STUB**2:
            continue
        share = float(np.clip((place - a) @ along / size, 0.0, 1.0))
        # The middle belongs to no arm: all three meet there.
        away = float(np.linalg.norm(place - a - share * along))
        if away < NEAR and abs(share - 0.5) > 0.12:
            found.append((away, axis))
    return min(found)[1] if found else ""


@dataclass(frozen=True, slots=True)
class Drag:
    """One drag of the head along an axis."""

    axis: str
    pressed: FloatArray
    """Where it began on the screen, px."""
    along: FloatArray
    """Movement on the screen per metre along the axis, px/m."""

    def moved(self, place: FloatArray) -> float:
        """Return how far the head went along its axis, m."""
        return float((place - self.pressed) @ self.along / (self.along @ self.along))


def drag(axis: str, ends: FloatArray, length: float, place: FloatArray) -> Drag:
    """Return a drag that begins at a place of the screen; `length` is that of an arm, m."""
    a, b = ends[AXES.index(axis)]
    return Drag(axis, place, (b - a) / (2.0 * length))
