"""One piece drawn to scale with its holes, each face that has some, and its drilled ends."""

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QWidget
from typing_extensions import override

from unterbau.shop.pieces import ShopPiece
from unterbau.shop.views import View, views_of
from unterbau.ui.theme import colour, em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.units import length_text

LEAST = 2.0  # px, of a hole
GAP = 1.4  # em, below a view, for its name
FACES = {"up": "upper face", "down": "lower face", "face": ""}


class PieceView(QWidget):
    """Draws a plate flat, a bar as its faces below one another."""

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._view = view
        self._piece: ShopPiece | None = None
        self._views: tuple[View, ...] = ()
        self.setMinimumHeight(round(11 * em()))
        view.changed.connect(self.update)

    def show_piece(self, piece: ShopPiece | None) -> None:
        """Show a piece."""
        self._piece = piece
        found = views_of(piece) if piece is not None else ()
        self._views = tuple(one for one in found if one.name != "section") or found
        self.setAccessibleName(f"{piece.stock}, {len(piece.holes)} holes, drawn to scale" if piece else "no piece")
        self.update()

    @override
    def sizeHint(self) -> QSize:
        return QSize(round(20 * em()), round(13 * em()))

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        if not self._views:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        unit = em()
        area = QRectF(self.rect()).adjusted(3.0 * unit, 0.5 * unit, -0.8 * unit, -1.4 * unit)
        gaps = GAP * unit * len(self._views)
        longest = max(one.length for one in self._views)
        scale = min(area.width() / longest, (area.height() - gaps) / sum(one.height for one in self._views))
        tall = sum(one.height for one in self._views) * scale + gaps
        top = area.center().y() - tall / 2
        for view in self._views:
            box = QRectF(area.center().x() - view.length * scale / 2, top, view.length * scale, view.height * scale)
            self._draw(painter, view, box, scale)
            top += view.height * scale + GAP * unit
        first = self._views[0]
        self._sizes(painter, area, first, scale, top)

    def _draw(self, painter: QPainter, view: View, box: QRectF, scale: float) -> None:
        painter.setPen(QPen(colour("ink"), 1.1))
        painter.setBrush(colour("panel"))
        for ring in view.outlines:
            corners = [QPointF(box.left() + x * scale, box.bottom() - y * scale) for x, y in ring]
            painter.drawPolygon(QPolygonF(corners))
            painter.setBrush(colour("sunken"))
        for one in view.holes:
            place = QPointF(box.left() + one.x * scale, box.bottom() - one.y * scale)
            radius = max(LEAST, one.hole.diameter * scale) / 2
            painter.setPen(QPen(colour("accent"), 1.2))
            painter.setBrush(Qt.BrushStyle.NoBrush if one.hole.sort == "clearance" else colour("accent"))
            painter.drawEllipse(place, radius, radius)
            if one.hole.sunk:
                painter.setBrush(Qt.BrushStyle.NoBrush)
                painter.drawEllipse(place, one.hole.bore * scale / 2, one.hole.bore * scale / 2)
        name = FACES.get(view.name, view.name)
        if name:
            painter.setPen(colour("muted"))
            painter.setFont(font(0.8))
            words = QRectF(box.center().x() - 8 * em(), box.bottom(), 16 * em(), GAP * em())
            painter.drawText(words, Qt.AlignmentFlag.AlignHCenter | Qt.AlignmentFlag.AlignTop, name)

    def _sizes(self, painter: QPainter, area: QRectF, view: View, scale: float, under: float) -> None:
        painter.setPen(colour("ink"))
        painter.setFont(font(0.86))
        unit, units = em(), self._view.units
        named = bool(FACES.get(view.name, view.name))
        below = QRectF(area.left(), under - (0.0 if named else 1.3 * unit), area.width(), 1.4 * unit)
        painter.drawText(below, Qt.AlignmentFlag.AlignCenter, length_text(view.length, units))
        if self._piece is not None and self._piece.width:
            left = area.center().x() - view.length * scale / 2
            beside = QRectF(0, area.center().y() - 1.6 * unit, max(left - 0.4 * unit, 2.6 * unit), 2 * unit)
            text = length_text(view.height, units, with_unit=False)
            painter.drawText(beside, Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignRight, text)
