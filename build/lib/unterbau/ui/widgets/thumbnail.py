"""A small line picture of a machine for its card, by painter, no 3D needed."""

from collections.abc import Callable
from math import cos, sin

import numpy as np
from PyQt6.QtCore import QPointF, QRectF
from PyQt6.QtGui import QPainter, QPen, QPolygonF

from unterbau.mechanics.arrays import FloatArray, axes_from
from unterbau.structure.bodies import Body, Prism, Sheet
from unterbau.ui.theme import colour

VIEW = np.array([[0.77, -0.64, 0.0], [0.28, 0.34, 0.9]])
"""Model axes to picture right and up."""
TOWARDS = np.array([-0.57, -0.69, 0.44])


SIDES = np.array([(0, 1, 2, 3), (4, 7, 6, 5), (0, 4, 5, 1), (1, 5, 6, 2), (2, 6, 7, 3), (3, 7, 4, 0)])
TOO_SMALL = 0.02
"""Bodies shorter than this and no wider, m, are left out."""


def outlines(bodies: tuple[Body, ...], turn: float = 0.0) -> list[tuple[float, FloatArray]]:
    """Return boxes' faces that look at the viewer, far ones first: depth and corners (4, 2).

    Args:
        bodies: To be drawn.
        turn: How far the machine is turned about the vertical, rad.
    """
    prisms = [body for body in bodies if isinstance(body, Prism)]
    corners = np.concatenate([_of_prisms(prisms), *(_of_sheet(b)[None] for b in bodies if isinstance(b, Sheet))])
    corners = corners[np.ptp(corners, axis=1).max(axis=1) > TOO_SMALL]
    if turn:
        corners = corners @ np.array([[cos(turn), sin(turn), 0.0], [-sin(turn), cos(turn), 0.0], [0.0, 0.0, 1.0]])
    faces = corners[:, SIDES]
    middle = corners.mean(axis=1)
    normals = np.cross(faces[:, :, 1] - faces[:, :, 0], faces[:, :, 2] - faces[:, :, 0])
    outward = np.sign(np.sum(normals * (faces.mean(axis=2) - middle[:, None]), axis=2))
    seen = outward * (normals @ TOWARDS) > 0
    depth, flat = middle @ TOWARDS, faces @ VIEW.T
    rows = [(float(depth[b]), flat[b, f]) for b, f in np.argwhere(seen)]
    return sorted(rows, key=lambda row: row[0])


def _of_prisms(prisms: list[Prism]) -> FloatArray:
    if not prisms:
        return np.zeros((0, 8, 3))
    start, end = np.array([p.start for p in prisms]), np.array([p.end for p in prisms])
    axes = axes_from(end - start, np.array([p.up for p in prisms]))
    flat = [np.array(p.rings[0]) for p in prisms]
    low, high = np.array([f.min(axis=0) for f in flat]), np.array([f.max(axis=0) for f in flat])
    ys = np.stack([low[:, 0], high[:, 0], high[:, 0], low[:, 0]], axis=1)
    zs = np.stack([low[:, 1], low[:, 1], high[:, 1], high[:, 1]], axis=1)
    ring = ys[:, :, None] * axes[:, None, 1] + zs[:, :, None] * axes[:, None, 2]
    return np.concatenate([start[:, None] + ring, end[:, None] + ring], axis=1)


def _of_sheet(sheet: Sheet) -> FloatArray:
    return np.array(sheet.corners())


def picture_of(faces: list[FloatArray], area: QRectF) -> Callable[[float, float], tuple[float, float]]:
    """Return where places of the picture plane are in an area that all faces fit into."""
    every = np.vstack(faces)
    low, high = every.min(axis=0), every.max(axis=0)
    scale = float(min(area.width() / (high[0] - low[0]), area.height() / (high[1] - low[1])))
    across, up = ((low + high) / 2).tolist()
    centre = area.center()
    return lambda x, y: (centre.x() + (x - across) * scale, centre.y() - (y - up) * scale)


def paint(painter: QPainter, faces: list[tuple[float, FloatArray]], area: QRectF) -> None:
    """Draw the faces into an area."""
    if not faces:
        return
    place = picture_of([face for _, face in faces], area)
    painter.setPen(QPen(colour("ink"), 0.7))
    painter.setBrush(colour("panel"))
    for _, face in faces:
        painter.drawPolygon(QPolygonF([QPointF(*place(x, y)) for x, y in face.tolist()]))
