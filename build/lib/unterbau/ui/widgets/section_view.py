"""A cross-section drawn to scale, hatched by material, with its outer dimensions."""

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QBrush, QFontMetricsF, QPainter, QPainterPath, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QWidget
from typing_extensions import override

from unterbau.ui.theme import colour, em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.units import length_text

Ring = tuple[tuple[float, float], ...]
HATCH = {
    "steel": Qt.BrushStyle.SolidPattern, "iron": Qt.BrushStyle.Dense2Pattern, "aluminium": Qt.BrushStyle.BDiagPattern,
    "brass": Qt.BrushStyle.FDiagPattern, "stone": Qt.BrushStyle.Dense5Pattern, "timber": Qt.BrushStyle.HorPattern,
    "plastic": Qt.BrushStyle.DiagCrossPattern, "carbide": Qt.BrushStyle.Dense1Pattern,
    "loose": Qt.BrushStyle.Dense6Pattern, "resin": Qt.BrushStyle.CrossPattern,
}  # fmt: skip


class SectionView(QWidget):
    """Shows rings of a section; the scale follows the size."""

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._view = view
        self._rings: tuple[Ring, ...] = ()
        self._hatch = Qt.BrushStyle.SolidPattern
        self._fill = Qt.BrushStyle.NoBrush
        self.setAccessibleName("Cross-section, to scale")
        view.changed.connect(self.update)

    def show_section(self, rings: tuple[Ring, ...], kind: str, fill_kind: str | None) -> None:
        """Show a section (y, z), m, with its material's and fill's kind."""
        self._rings = rings
        self._hatch = HATCH[kind]
        self._fill = HATCH[fill_kind] if fill_kind else Qt.BrushStyle.NoBrush
        self.update()

    @override
    def sizeHint(self) -> QSize:
        return QSize(round(6.6 * em()), round(7.0 * em()))

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        if not self._rings:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        unit = em()
        ys, zs = zip(*self._rings[0], strict=True)
        width, height = max(ys) - min(ys), max(zs) - min(zs)
        beside = QFontMetricsF(font(0.86)).horizontalAdvance(length_text(height, self._view.units, with_unit=False))
        left = max(2.7 * unit, beside + 1.2 * unit)
        area = QRectF(self.rect()).adjusted(left, 0.3 * unit, -0.3 * unit, -1.7 * unit)
        scale = min(area.width() / width, area.height() / height)
        middle = QPointF((max(ys) + min(ys)) / 2, (max(zs) + min(zs)) / 2)
        centre = area.center()

        def at(y: float, z: float) -> QPointF:
            return QPointF(centre.x() + (y - middle.x()) * scale, centre.y() - (z - middle.y()) * scale)

        path = QPainterPath()
        for ring in self._rings:
            path.addPolygon(QPolygonF([at(y, z) for y, z in (*ring, ring[0])]))
        if len(self._rings) > 1 and self._fill != Qt.BrushStyle.NoBrush:
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(QBrush(colour("muted"), self._fill))
            for ring in self._rings[1:]:
                painter.drawPolygon(QPolygonF([at(y, z) for y, z in ring]))
        painter.setPen(QPen(colour("ink"), 1.2))
        painter.setBrush(QBrush(colour("ink"), self._hatch))
        painter.drawPath(path)
        body = QRectF(at(min(ys), max(zs)), at(max(ys), min(zs)))
        self._dimensions(painter, body, width, height)

    def _dimensions(self, painter: QPainter, body: QRectF, width: float, height: float) -> None:
        unit = em()
        painter.setPen(QPen(colour("ghost"), 1))
        x, y = body.left() - 0.7 * unit, body.bottom() + 0.5 * unit
        painter.drawLine(QPointF(x, body.top()), QPointF(x, body.bottom()))
        painter.drawLine(QPointF(body.left(), y), QPointF(body.right(), y))
        for place in (body.top(), body.bottom()):
            painter.drawLine(QPointF(x - 3, place), QPointF(x + 3, place))
        for place in (body.left(), body.right()):
            painter.drawLine(QPointF(place, y - 3), QPointF(place, y + 3))
        painter.setPen(colour("muted"))
        painter.setFont(font(0.86))
        units = self._view.units
        box = QRectF(0, body.center().y() - unit, x - 0.3 * unit, 2 * unit)
        painter.drawText(
            box,
            Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter,
            length_text(height, units, with_unit=False),
        )
        box = QRectF(body.center().x() - 4 * unit, y + 0.1 * unit, 8 * unit, 1.3 * unit)
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, length_text(width, units))
