"""A small line picture of a machine for its card, by painter, no 3D needed."""

import numpy as np
from PyQt6.QtCore import QPointF, QRectF
from PyQt6.QtGui import QPainter, QPen, QPolygonF

from unterbau.machine.bodies import Body, Prism
from unterbau.mechanics.arrays import FloatArray, axes_from
from unterbau.ui.theme import colour

VIEW = np.array([[0.77, -0.64, 0.0], [0.28, 0.34, 0.9]])
"""Model axes to picture right and up."""
TOWARDS = np.array([-0.57, -0.69, 0.44])


def outlines(bodies: tuple[Body, ...]) -> list[tuple[float, FloatArray]]:
    """Return boxes' faces that look at the viewer, far ones first: depth and corners (4, 2)."""
    faces = []
    for body in bodies:
        corners = _corners(body)
        for rows in ((0, 1, 2, 3), (4, 7, 6, 5), (0, 4, 5, 1), (1, 5, 6, 2), (2, 6, 7, 3), (3, 7, 4, 0)):
            face = corners[list(rows)]
            normal = np.cross(face[1] - face[0], face[2] - face[0])
            away = face.mean(axis=0) - corners.mean(axis=0)
            if normal @ away < 0:
                normal = -normal
            if normal @ TOWARDS > 0:
                faces.append((float(corners.mean(axis=0) @ TOWARDS), face @ VIEW.T))
    return sorted(faces, key=lambda row: row[0])


def _corners(body: Body) -> FloatArray:
    if isinstance(body, Prism):
        start, end = np.array(body.start), np.array(body.end)
        axes = axes_from((end - start)[None], np.array(body.up)[None])[0]
        flat = np.array(body.rings[0])
        (y0, z0), (y1, z1) = flat.min(axis=0), flat.max(axis=0)
        ring = [(y0, z0), (y1, z0), (y1, z1), (y0, z1)]
        return np.array([p + y * axes[1] + z * axes[2] for p in (start, end) for y, z in ring])
    xs, ys = (body.xs[0], body.xs[-1]), (body.ys[0], body.ys[-1])
    ring = [(xs[0], ys[0]), (xs[1], ys[0]), (xs[1], ys[1]), (xs[0], ys[1])]
    return np.array([(x, y, z) for z in (body.low, body.high) for x, y in ring])


def paint(painter: QPainter, faces: list[tuple[float, FloatArray]], area: QRectF) -> None:
    """Draw the faces into an area."""
    if not faces:
        return
    every = np.vstack([face for _, face in faces])
    low, high = every.min(axis=0), every.max(axis=0)
    scale = float(min(area.width() / (high[0] - low[0]), area.height() / (high[1] - low[1])))
    middle = (low + high) / 2
    painter.setPen(QPen(colour("ink"), 0.7))
    painter.setBrush(colour("panel"))
    for _, face in faces:
        points = [
            QPointF(area.center().x() + (x - middle[0]) * scale, area.center().y() - (y - middle[1]) * scale)
            for x, y in face.tolist()
        ]
        painter.drawPolygon(QPolygonF(points))
