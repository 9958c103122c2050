"""Bars to scale with what is sawn from them."""

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QFont, QFontMetricsF, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QWidget
from typing_extensions import override

from unterbau.shop.bars import BarPlan, sawn_alike
from unterbau.shop.cut_plan import SawnBar
from unterbau.ui.stations.workshop.picked_view import PickedView
from unterbau.ui.theme import colour, em, font
from unterbau.units import Units, length_text

ROW, GAP = 1.75, 0.5  # em
SKEW = 5.0  # px, of a mitred end


class BarsView(PickedView):
    """Draws the bars of one section, the longest across the whole width; a piece is chosen by a click."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._plan: BarPlan | None = None
        self._units: Units = "mm"

    def show_plan(self, plan: BarPlan, lit: str, units: Units) -> None:
        """Show a plan, the pieces of one label lit."""
        self._plan, self._lit, self._units = plan, lit, units
        rows = self._grouped()
        self.setFixedHeight(round(max(1, len(rows)) * (ROW + GAP) * em()))
        said = "; ".join(
            f"{count} × {length_text(bar.stock.length, units)}: {' '.join(bar.pieces)}" for bar, count in rows
        )
        self.setAccessibleName(f"Bars of {plan.stock}: {said}")
        self.update()

    def _grouped(self) -> list[tuple[SawnBar, int]]:
        """Return bars that are sawn alike, once each, and how many."""
        return sawn_alike(self._plan) if self._plan is not None else []

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        self._areas = []
        rows = self._grouped()
        if not rows:
            return
        unit = em()
        longest = max(bar.stock.length for bar, _ in rows)
        side = 4.6 * unit
        scale = (self.width() - side - 2) / longest
        for number, (bar, count) in enumerate(rows):
            top = number * (ROW + GAP) * unit + 1
            painter.setFont(font(0.86))
            painter.setPen(colour("muted"))
            name = QRectF(0, top, side - 0.4 * unit, ROW * unit)
            often = f"{count} × " if count > 1 else ""
            painter.drawText(name, Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignRight,
                             f"{often}{length_text(bar.stock.length, self._units)}")  # fmt: skip
            self._draw_bar(painter, bar, QRectF(side, top, bar.stock.length * scale, ROW * unit), scale)

    def _draw_bar(self, painter: QPainter, bar: SawnBar, area: QRectF, scale: float) -> None:
        assert self._plan is not None
        assert self._plan.plan is not None
        plan = self._plan.plan
        painter.setPen(QPen(colour("hairline"), 1.0))
        painter.setBrush(colour("sunken"))
        painter.drawRect(area)
        x = area.left() + plan.trim * scale
        gang: tuple[str, float, int] = ("", x, 0)
        for label in (*bar.pieces, ""):
            if label != gang[0]:
                if gang[2] > 1:
                    self._bracket(painter, gang[1], x - plan.kerf * scale, area.bottom())
                gang = (label, x, 0)
            gang = (gang[0], gang[1], gang[2] + 1)
            if not label:
                break
            piece = self._plan.piece(label)
            wide = piece.length * scale
            box = QRectF(x, area.top(), wide, area.height())
            self._areas.append((box, label))
            skew = [SKEW if end.angle else 0.0 for end in piece.ends] or [0.0, 0.0]
            painter.setBrush(colour("accent_soft" if label == self._lit else "panel"))
            painter.setPen(QPen(colour("accent" if label == self._lit else "ink"), 1.6 if label == self._lit else 0.9))
            painter.drawPolygon(QPolygonF([
                QPointF(box.left() + skew[0], box.top()), QPointF(box.right() - skew[1], box.top()),
                QPointF(box.right(), box.bottom()), QPointF(box.left(), box.bottom()),
            ]))  # fmt: skip
            self._write(painter, box, label, length_text(piece.length, self._units, with_unit=False))
            x += wide + plan.kerf * scale
        left = area.right() - x
        if left > 3 * em():
            painter.setPen(colour("muted"))
            painter.setFont(font(0.82))
            room = QRectF(x, area.top(), left - 4, area.height())
            painter.drawText(room, Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignRight,
                             f"{length_text(bar.left, self._units)} left")  # fmt: skip

    def _bracket(self, painter: QPainter, left: float, right: float, bottom: float) -> None:
        """Bracket pieces that are cut at one stop."""
        if right - left < 1.0:
            return
        painter.setPen(QPen(colour("muted"), 1.0))
        y, tick = bottom + 4.0, 3.0
        painter.drawLine(QPointF(left + 2, y), QPointF(right - 2, y))
        for x in (left + 2, right - 2):
            painter.drawLine(QPointF(x, y), QPointF(x, y - tick))

    def _write(self, painter: QPainter, box: QRectF, label: str, length: str) -> None:
        painter.setPen(colour("ink"))
        both = f"{label}  {length}"
        for text, face in ((both, font(0.86, QFont.Weight.DemiBold)), (label, font(0.86, QFont.Weight.DemiBold))):
            if QFontMetricsF(face).horizontalAdvance(text) < box.width() - 4:
                painter.setFont(face)
                painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)
                return
