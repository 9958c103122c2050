"""Sheets to scale with the plates that are cut from them."""

from PyQt6.QtCore import QRectF, Qt
from PyQt6.QtGui import QFont, QFontMetricsF, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QWidget
from typing_extensions import override

from unterbau.shop.sheet_plan import Laid
from unterbau.shop.sheets import PlatesPlan
from unterbau.ui.stations.workshop.picked_view import PickedView
from unterbau.ui.theme import colour, em, font

TALL = 13.0  # em, of a row of sheets
MOST = 3
"""Sheets beside one another; further ones follow below."""


class SheetsView(PickedView):
    """Draws the sheets of one thickness and material; a plate is chosen by a click."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._plan: PlatesPlan | None = None

    def show_plan(self, plan: PlatesPlan, lit: str) -> None:
        """Show a plan, the pieces of one label lit."""
        self._plan, self._lit = plan, lit
        count = len(plan.plan.sheets) if plan.plan is not None else 0
        self.setFixedHeight(round(max(1, -(-count // MOST)) * TALL * em()))
        self.setAccessibleName(f"{count} sheets of {plan.stock}, plates drawn to scale")
        self.update()

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        self._areas = []
        if self._plan is None or self._plan.plan is None or not self._plan.plan.sheets:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        found, unit = self._plan.plan, em()
        across = min(MOST, len(found.sheets))
        room = (self.width() - (across - 1) * 0.8 * unit) / across
        scale = min(room / found.sheet.length, (TALL - 0.8) * unit / found.sheet.width)
        for number, sheet in enumerate(found.sheets):
            left = (number % MOST) * (found.sheet.length * scale + 0.8 * unit) + 1
            top = (number // MOST) * TALL * unit + 1
            painter.setPen(QPen(colour("hairline"), 1.0))
            painter.setBrush(colour("sunken"))
            painter.drawRect(QRectF(left, top, found.sheet.length * scale, found.sheet.width * scale))
            for laid in sheet:
                self._draw(painter, laid, left, top + found.sheet.width * scale, scale)

    def _draw(self, painter: QPainter, laid: Laid, left: float, bottom: float, scale: float) -> None:
        assert self._plan is not None
        piece, lit = self._plan.piece(laid.name), laid.name == self._lit
        box = QRectF(left + laid.x * scale, bottom - (laid.y + laid.width) * scale, laid.length * scale,
                     laid.width * scale)  # fmt: skip
        self._areas.append((box, laid.name))
        painter.setPen(QPen(colour("accent" if lit else "ink"), 1.6 if lit else 0.9))
        painter.setBrush(colour("accent_soft" if lit else "panel"))
        if piece.halved:
            painter.drawPolygon(QPolygonF([box.bottomLeft(), box.bottomRight(), box.topLeft()]))
        else:
            painter.drawRect(box)
        face = font(0.9, QFont.Weight.DemiBold)
        if QFontMetricsF(face).horizontalAdvance(laid.name) < box.width() - 3:
            painter.setFont(face)
            painter.setPen(colour("ink"))
            painter.drawText(box, Qt.AlignmentFlag.AlignCenter, laid.name)
