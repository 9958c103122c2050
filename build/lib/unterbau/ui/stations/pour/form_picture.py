"""The boards of a form as they bow under a wet mix, far larger than they do, between their braces."""

from math import ceil

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPen, QPolygonF

from unterbau.shop.pour.formwork import Panel
from unterbau.ui.theme import colour, em, font
from unterbau.units import Units, length_text, tolerance_text

TALL = 0.9  # em, how far the largest bow is drawn at the most
TIMES = (1000, 500, 200, 100, 50, 20, 10, 5, 2, 1)
POINTS = 24
BRACE = 0.5  # em


def bowed(points: int = POINTS) -> list[float]:
    """Return the shape of a board held at both ends under an even load, 1 in its middle: 16/5·(x − 2x³ + x⁴)."""
    x = np.linspace(0.0, 1.0, points)
    return [float(v) for v in 3.2 * (x - 2 * x**3 + x**4)]


def times(largest: float, scale: float) -> int:
    """Return how many times larger than it is a bow is drawn, so that it stays within its room.

    Args:
        largest: The bow, m.
        scale: Pixels of a metre.
    """
    room = TALL * em()
    return next((one for one in TIMES if largest * scale * one <= room), 1)


def draw_form(painter: QPainter, panels: tuple[Panel, ...], box: QRectF, scale: float, units: Units) -> None:
    """Draw the bed's hump between its braces and the sides' bow under the head, with how much larger they are drawn."""
    sides, bed = panels[0], panels[-1]
    largest = max(sides.bows, bed.bows, 1e-9)
    factor = times(largest, scale)
    painter.setPen(QPen(colour("warning"), 1.4))
    spans = max(1, ceil(box.width() / max(bed.brace * scale, 4.0) - 1e-9))
    step, shape = box.width() / spans, bowed()
    for n in range(spans):
        left = box.left() + n * step
        curve = [
            QPointF(left + step * k / (POINTS - 1), box.bottom() + v * bed.bows * scale * factor)
            for k, v in enumerate(shape)
        ]
        painter.drawPolyline(QPolygonF(curve))
    for side in (-1.0, 1.0):
        x = box.left() if side < 0 else box.right()
        # The pressure grows with depth: the bow of a strip there goes with it.
        curve = [
            QPointF(
                x + side * v * (1 - k / (POINTS - 1)) * 1.5 * sides.bows * scale * factor,
                box.bottom() - box.height() * k / (POINTS - 1),
            )
            for k, v in enumerate(shape)
        ]
        painter.drawPolyline(QPolygonF(curve))
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(colour("ink"))
    for n in range(spans + 1):
        x = box.left() + n * step
        size = BRACE * em()
        foot = box.bottom() + 1.1 * em()
        painter.drawPolygon(
            QPolygonF([QPointF(x, foot), QPointF(x - size / 2, foot + size), QPointF(x + size / 2, foot + size)])
        )
    painter.setPen(colour("warning"))
    painter.setFont(font(0.84))
    apart = length_text(bed.brace, units)
    words = f"form drawn × {factor}: hump {tolerance_text(bed.bows, units)} between braces {apart} apart"
    line = QRectF(box.left(), box.bottom() + 1.7 * em(), box.width() + 10 * em(), 1.3 * em())
    painter.drawText(line, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop, words)
