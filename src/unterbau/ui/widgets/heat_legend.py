"""The heat scale with its ends written."""

from PyQt6.QtCore import QRectF, QSize, Qt
from PyQt6.QtGui import QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QWidget
from typing_extensions import override

from unterbau.ui.theme import colour, em, font, heat

STEPS = 5


class HeatLegend(QWidget):
    """Share of the tool's movement from none to the largest."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._largest = 0.0
        self.setAccessibleName("Colour scale: share of the tool's movement")

    def show_largest(self, share: float) -> None:
        """Say what the hot end stands for."""
        self._largest = share
        self.update()

    @override
    def sizeHint(self) -> QSize:
        return QSize(round(13 * em()), round(2.9 * em()))

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        unit = em()
        painter.setFont(font(0.86))
        painter.setPen(colour("muted"))
        line = QRectF(0, 0, self.width(), unit)
        painter.drawText(line, Qt.AlignmentFlag.AlignLeft, "share of the tool's movement")
        width = (self.width() - 1) / STEPS
        painter.setPen(QPen(colour("paper"), 0))
        for k in range(STEPS):
            painter.setBrush(heat(k / (STEPS - 1)))
            painter.drawRect(QRectF(k * width, 1.15 * unit, width, 0.6 * unit))
        painter.setPen(colour("muted"))
        ends = QRectF(0, 1.8 * unit, self.width() - 1, unit)
        painter.drawText(ends, Qt.AlignmentFlag.AlignLeft, "0")
        painter.drawText(ends, Qt.AlignmentFlag.AlignRight, f"{self._largest:.0%}")
