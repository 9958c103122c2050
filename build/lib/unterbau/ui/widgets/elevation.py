"""A machine seen from the front and from the side: outlines in lines, no 3D needed."""

from dataclasses import dataclass

import numpy as np
from PyQt6.QtCore import QPointF, QRectF

from unterbau.mechanics.arrays import FloatArray, axes_from
from unterbau.structure.bodies import Body, Prism
from unterbau.structure.dimension_line import Flat, View

VIEWS: tuple[tuple[View, str, int], ...] = (("front", "from the front", 0), ("side", "from the side", 1))
"""Name, words, and the axis that runs to the right."""


@dataclass(frozen=True)
class Sheet:
    """Where a view lies on the widget."""

    middle: QPointF
    scale: float
    centre: Flat

    def at(self, place: Flat) -> QPointF:
        """Return a place of the view on the widget."""
        u, v = place
        return QPointF(
            self.middle.x() + (u - self.centre[0]) * self.scale, self.middle.y() - (v - self.centre[1]) * self.scale
        )

    def box(self, left: float, low: float, right: float, high: float) -> QRectF:
        """Return a rectangle of the view on the widget."""
        return QRectF(self.at((left, high)), self.at((right, low)))


def outline(body: Body, across: int) -> tuple[float, QRectF]:
    """Return how near a body is to the viewer, and its outside in a view (y down is −z)."""
    points = _corners(body)
    low, high = points.min(axis=0), points.max(axis=0)
    depth = -low[1] if across == 0 else high[0]
    return float(depth), QRectF(low[across], -high[2], high[across] - low[across], high[2] - low[2])


def elevation(bodies: tuple[Body, ...], across: int) -> list[QRectF]:
    """Return the outsides of bodies in a view, the far ones first."""
    return [box for _, box in sorted((outline(body, across) for body in bodies), key=lambda row: row[0])]


def whole(boxes: list[QRectF]) -> QRectF:
    """Return what contains all of some boxes."""
    found = QRectF()
    for box in boxes:
        found = found.united(box)
    return found


def _corners(body: Body) -> FloatArray:
    if not isinstance(body, Prism):
        return np.array(body.corners())
    start, end = np.array(body.start), np.array(body.end)
    axes = axes_from((end - start)[None], np.array(body.up)[None])[0]
    ring = np.array(body.rings[0])
    flat = ring[:, :1] * axes[1] + ring[:, 1:] * axes[2]
    return np.concatenate([start + flat, end + flat])
