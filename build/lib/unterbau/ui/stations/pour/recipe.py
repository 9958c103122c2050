"""The recipe card: buckets drawn by mass, batches, what the resin needs."""

from PyQt6.QtCore import QRectF, QSize, Qt
from PyQt6.QtGui import QFont, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QSizePolicy, QWidget
from typing_extensions import override

from unterbau.shop.pour.mix import Mix
from unterbau.ui.theme import colour, em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.units import mass_text

ROW = 1.75  # em


class RecipeView(QWidget):
    """Draws what is weighed, each as long as it is heavy."""

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._view = view
        self._mix: Mix | None = None
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        view.changed.connect(self.update)

    def show_mix(self, mix: Mix | None) -> None:
        """Show a mix."""
        self._mix = mix
        rows = len(mix.parts) if mix is not None else 1
        self.setFixedHeight(round((rows * ROW + 0.4) * em()))
        if mix is not None:
            told = ", ".join(f"{one.name} {mass_text(one.mass, self._view.units, 2)}" for one in mix.parts)
            self.setAccessibleName(f"Recipe: {told}")
        self.update()

    @override
    def sizeHint(self) -> QSize:
        return QSize(round(20 * em()), self.height())

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        if self._mix is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        unit = em()
        most = max(one.mass for one in self._mix.parts)
        for number, one in enumerate(self._mix.parts):
            top = number * ROW * unit
            bar = QRectF(1, top + 1.05 * unit, max(2.0, (self.width() - 2) * one.mass / most), 0.5 * unit)
            painter.setPen(QPen(colour("ink"), 0.8))
            painter.setBrush(colour("accent_soft"))
            painter.drawRect(bar)
            line = QRectF(0, top, self.width(), 1.05 * unit)
            painter.setPen(colour("ink"))
            painter.setFont(font(0.9))
            painter.drawText(line, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, one.name)
            painter.setFont(font(0.9, QFont.Weight.DemiBold))
            painter.drawText(line, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter,
                             mass_text(one.mass, self._view.units, 2))  # fmt: skip
