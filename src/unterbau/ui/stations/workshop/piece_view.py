"""One piece drawn to scale with its holes, each face that has some."""

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QWidget
from typing_extensions import override

from unterbau.sections.section import section
from unterbau.shop.pieces import ShopPiece
from unterbau.ui.theme import colour, em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.units import length_text

LEAST = 2.0  # px, of a hole
FACES = {"up": "upper face", "down": "lower face", "side": "side", "other side": "other side"}


class PieceView(QWidget):
    """Draws a plate flat, a bar as its faces below one another."""

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._view = view
        self._piece: ShopPiece | None = None
        self.setMinimumHeight(round(11 * em()))
        view.changed.connect(self.update)

    def show_piece(self, piece: ShopPiece | None) -> None:
        """Show a piece."""
        self._piece = piece
        self.setAccessibleName(f"{piece.stock}, {len(piece.holes)} holes, drawn to scale" if piece else "no piece")
        self.update()

    @override
    def sizeHint(self) -> QSize:
        return QSize(round(20 * em()), round(13 * em()))

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        if self._piece is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        unit = em()
        area = QRectF(self.rect()).adjusted(3.0 * unit, 0.5 * unit, -0.8 * unit, -2.6 * unit)
        if self._piece.sort == "plate":
            self._plate(painter, self._piece, area)
        else:
            self._bar(painter, self._piece, area)

    def _plate(self, painter: QPainter, piece: ShopPiece, area: QRectF) -> None:
        scale = min(area.width() / piece.length, area.height() / piece.width)
        long, wide = piece.length * scale, piece.width * scale
        left, top = area.center().x() - long / 2, area.center().y() - wide / 2
        corners = [(0.0, 0.0), (piece.length, 0.0), (piece.length, piece.width), (0.0, piece.width)]
        if piece.halved:
            corners = [corners[0], corners[1], corners[3]]

        def at(x: float, y: float) -> QPointF:
            return QPointF(left + x * scale, top + wide - y * scale)

        self._outline(painter, [at(x, y) for x, y in corners])
        for hole in piece.holes:
            self._hole(painter, at(hole.x, hole.y), hole.diameter * scale, hole.sort == "clearance")
        self._sizes(painter, QRectF(left, top, long, wide), piece.length, piece.width)

    def _bar(self, painter: QPainter, piece: ShopPiece, area: QRectF) -> None:
        shape = section(piece.section) if piece.section else None
        tall = piece.thickness if shape is None else (shape.width if piece.turned else shape.height)
        wide = piece.thickness if shape is None else (shape.height if piece.turned else shape.width)
        faces = [name for name in FACES if any(hole.face == name for hole in piece.holes)] or ["side"]
        scale = area.width() / piece.length
        sizes = [wide if name in ("up", "down") else tall for name in faces]
        gap = 1.4 * em()
        scale = min(scale, (area.height() - gap * (len(faces) - 1)) / sum(sizes))
        left = area.center().x() - piece.length * scale / 2
        first = top = area.center().y() - (sum(sizes) * scale + gap * len(faces)) / 2
        cut = [0.5 * tall * scale if end.angle else 0.0 for end in piece.ends] or [0.0, 0.0]
        for name, size in zip(faces, sizes, strict=True):
            high, long = size * scale, piece.length * scale
            middle = top + high / 2
            self._outline(painter, [
                QPointF(left + min(cut[0], long / 4), top), QPointF(left + long - min(cut[1], long / 4), top),
                QPointF(left + long, top + high), QPointF(left, top + high),
            ])  # fmt: skip
            for hole in piece.holes:
                if hole.face == name:
                    place = QPointF(left + hole.x * scale, middle - hole.y * scale)
                    self._hole(painter, place, hole.diameter * scale, hole.sort == "clearance")
            painter.setPen(colour("muted"))
            painter.setFont(font(0.8))
            words = QRectF(left, top + high, long, gap)
            painter.drawText(words, Qt.AlignmentFlag.AlignHCenter | Qt.AlignmentFlag.AlignTop, FACES[name])
            top += high + gap
        box = QRectF(left, first, piece.length * scale, top - gap - first)
        self._sizes(painter, box, piece.length, 0.0)

    def _outline(self, painter: QPainter, corners: list[QPointF]) -> None:
        painter.setPen(QPen(colour("ink"), 1.1))
        painter.setBrush(colour("panel"))
        painter.drawPolygon(QPolygonF(corners))

    def _hole(self, painter: QPainter, place: QPointF, size: float, through: bool) -> None:
        radius = max(LEAST, size) / 2
        painter.setPen(QPen(colour("accent"), 1.2))
        painter.setBrush(Qt.BrushStyle.NoBrush if through else colour("accent"))
        painter.drawEllipse(place, radius, radius)

    def _sizes(self, painter: QPainter, box: QRectF, length: float, width: float) -> None:
        painter.setPen(colour("ink"))
        painter.setFont(font(0.86))
        unit, units = em(), self._view.units
        under = box.bottom() + (0.1 if width else 1.2) * unit
        below = QRectF(box.left() - 4 * unit, under, box.width() + 8 * unit, 1.4 * unit)
        painter.drawText(below, Qt.AlignmentFlag.AlignCenter, length_text(length, units))
        if width:
            beside = QRectF(0, box.center().y() - unit, max(box.left() - 0.4 * unit, 2.6 * unit), 2 * unit)
            text = length_text(width, units, with_unit=False)
            painter.drawText(beside, Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignRight, text)
