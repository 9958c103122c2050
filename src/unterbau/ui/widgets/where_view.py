"""Where a piece sits: the machine as a small line picture, the piece lit."""

from PyQt6.QtCore import QPointF, QRectF, QSize
from PyQt6.QtGui import QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QWidget
from typing_extensions import override

from unterbau.mechanics.arrays import FloatArray
from unterbau.structure.bodies import Body, Prism
from unterbau.ui.theme import colour, em
from unterbau.ui.widgets.thumbnail import outlines, picture_of


class WhereView(QWidget):
    """Draws the machine's outline, some of its bodies filled."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._faces: list[tuple[float, FloatArray]] = []
        self._lit: list[tuple[float, FloatArray]] = []
        self.setFixedHeight(round(8.5 * em()))

    def show_bodies(self, bodies: tuple[Body, ...], names: tuple[str, ...]) -> None:
        """Show a machine, the bodies of these pieces lit."""
        lit = tuple(one for one in bodies if (one.chain if isinstance(one, Prism) else one.name) in names and (
            not isinstance(one, Prism) or _is_piece(one, bodies)))  # fmt: skip
        self._faces, self._lit = outlines(bodies), outlines(lit) if lit else []
        self.setAccessibleName(f"Where it sits: {', '.join(names)}")
        self.update()

    @override
    def sizeHint(self) -> QSize:
        return QSize(round(16 * em()), round(8.5 * em()))

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        if not self._faces:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        area = QRectF(self.rect()).adjusted(4, 4, -4, -4)
        place = picture_of([face for _, face in self._faces], area)
        painter.setPen(QPen(colour("hairline"), 0.8))
        painter.setBrush(colour("panel"))
        for _, face in self._faces:
            painter.drawPolygon(QPolygonF([QPointF(*place(x, y)) for x, y in face.tolist()]))
        painter.setPen(QPen(colour("accent"), 1.2))
        painter.setBrush(colour("accent_soft"))
        for _, face in self._lit:
            painter.drawPolygon(QPolygonF([QPointF(*place(x, y)) for x, y in face.tolist()]))


def _is_piece(body: Prism, bodies: tuple[Body, ...]) -> bool:
    """Return whether a prism is the piece itself, not a rail or a motor on it: the largest that moves with no plate."""
    if any(not isinstance(one, Prism) and one.name == body.chain for one in bodies):
        return False
    same = [one for one in bodies if isinstance(one, Prism) and one.chain == body.chain]
    return body is max(same, key=_extent)


def _extent(body: Prism) -> float:
    length = sum((b - a) ** 2 for a, b in zip(body.start, body.end, strict=True)) ** 0.5
    ys, zs = zip(*body.rings[0], strict=True)
    return float(length * (max(ys) - min(ys)) * (max(zs) - min(zs)))
