"""Prediction beside measurement on one scale, both with their bands; what the tests taught."""

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QSizePolicy, QWidget
from typing_extensions import override

from unterbau.band import Band
from unterbau.shop.build.tests import Test
from unterbau.studies.learning.learn import Learned
from unterbau.ui.theme import colour, em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.units import stiffness_text

ROW = 1.9  # em
AXES = ("X", "Y", "Z")


class ProofView(QWidget):
    """For each axis: the band before, the band as built, and what was measured."""

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._view = view
        self._found: Learned | None = None
        self._tests: tuple[Test, ...] = ()
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setFixedHeight(round((3 * ROW + 0.4) * em()))
        view.changed.connect(self.update)

    def show_learned(self, found: Learned | None, tests: tuple[Test, ...]) -> None:
        """Show what was learned, and pushes that were read."""
        self._found, self._tests = found, tuple(one for one in tests if one.sort == "push")
        if found is not None:
            units = self._view.units
            told = [
                f"{axis} predicted {stiffness_text(a.likely, units)}, as built {stiffness_text(b.likely, units)}"
                for axis, a, b in zip(AXES, found.stiffness_before, found.stiffness, strict=True)
            ]
            self.setAccessibleName("; ".join(told))
        self.update()

    @override
    def sizeHint(self) -> QSize:
        return QSize(round(30 * em()), self.height())

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        found = self._found
        if found is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        unit = em()
        ends = [band.high for band in (*found.stiffness_before, *found.stiffness)] + [one.value for one in self._tests]
        left, right = 2.2 * unit, self.width() - 17 * unit
        scale = (right - left) / max(ends)
        for n, axis in enumerate(AXES):
            top = n * ROW * unit
            painter.setFont(font(0.94))
            painter.setPen(colour("ink"))
            painter.drawText(QRectF(0, top, 2 * unit, ROW * unit), Qt.AlignmentFlag.AlignVCenter, axis)
            self._band(painter, found.stiffness_before[n], left, top + 0.55 * unit, scale, "muted")
            self._band(painter, found.stiffness[n], left, top + 1.05 * unit, scale, "accent")
            painter.setBrush(colour("ink"))
            for one in self._tests:
                if one.axis == axis:
                    x, y = left + one.value * scale, top + 1.5 * unit
                    painter.setPen(QPen(colour("ink"), 1.2))
                    off = one.value * one.doubt * 2 * scale
                    painter.drawLine(QPointF(x - off, y), QPointF(x + off, y))
                    painter.drawEllipse(QPointF(x, y), 3.0, 3.0)
            units = self._view.units
            a, b = found.stiffness_before[n].likely, found.stiffness[n].likely
            words = f"predicted {stiffness_text(a, units)}, as built {stiffness_text(b, units)}"
            painter.setFont(font(0.86))
            painter.setPen(colour("muted"))
            beside = QRectF(right + 0.5 * unit, top, 16.5 * unit, ROW * unit)
            painter.drawText(beside, Qt.AlignmentFlag.AlignVCenter, words)

    def _band(self, painter: QPainter, band: Band, left: float, y: float, scale: float, role: str) -> None:
        painter.setPen(QPen(colour(role), 3.0))
        painter.drawLine(QPointF(left + band.low * scale, y), QPointF(left + band.high * scale, y))
        painter.setPen(QPen(colour(role), 1.0))
        painter.setBrush(colour("paper"))
        painter.drawEllipse(QPointF(left + band.likely * scale, y), 3.5, 3.5)
