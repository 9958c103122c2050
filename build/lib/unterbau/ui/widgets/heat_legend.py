"""The heat scale with its ends written."""

from PyQt6.QtCore import QRectF, QSize, Qt
from PyQt6.QtGui import QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QWidget
from typing_extensions import override

from unterbau.ui.theme import colour, em, font, heat

STEPS = 5
SHARE = "share of the tool's movement"


class HeatLegend(QWidget):
    """What the colours from pale to rust stand for."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.title, self.ends = SHARE, ("0", "")
        self.setAccessibleName(f"Colour scale: {SHARE}")

    def show_largest(self, share: float) -> None:
        """Say what share of the movement the hot end stands for."""
        self.show_ends(SHARE, "0", f"{share:.0%}")

    def show_ends(self, title: str, low: str, high: str) -> None:
        """Say what the scale shows and what its ends stand for."""
        self.title, self.ends = title, (low, high)
        self.setAccessibleName(f"Colour scale: {title}, {low} to {high}")
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
        painter.drawText(line, Qt.AlignmentFlag.AlignLeft, self.title)
        width = (self.width() - 1) / STEPS
        painter.setPen(QPen(colour("paper"), 0))
        for k in range(STEPS):
            painter.setBrush(heat(k / (STEPS - 1)))
            painter.drawRect(QRectF(k * width, 1.15 * unit, width, 0.6 * unit))
        painter.setPen(colour("muted"))
        ends = QRectF(0, 1.8 * unit, self.width() - 1, unit)
        painter.drawText(ends, Qt.AlignmentFlag.AlignLeft, self.ends[0])
        painter.drawText(ends, Qt.AlignmentFlag.AlignRight, self.ends[1])
