"""Where a piece sits: the machine as a small picture that can be turned, the piece lit."""

from math import pi

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QWidget
from typing_extensions import override

from unterbau.mechanics.arrays import FloatArray
from unterbau.structure.bodies import Body, Prism
from unterbau.ui.theme import colour, em
from unterbau.ui.widgets.thumbnail import outlines, picture_of

WIDE = 6.0
"""Dragged so far, em, it turns by one radian."""
STEP = pi / 12


class WhereView(QWidget):
    """Draws the machine's outline, some of its bodies filled; dragged, or by arrow keys, it turns."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._faces: list[tuple[float, FloatArray]] = []
        self._lit: list[tuple[float, FloatArray]] = []
        self._shown: tuple[tuple[Body, ...], tuple[Body, ...]] = ((), ())
        self._held: float | None = None
        self.turn = 0.0
        self.setFixedHeight(round(8.5 * em()))
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setToolTip("drag to turn it, or press left and right; Home puts it back")

    def show_bodies(self, bodies: tuple[Body, ...], names: tuple[str, ...]) -> None:
        """Show a machine, the bodies of these pieces lit."""
        lit = tuple(one for one in bodies if (one.chain if isinstance(one, Prism) else one.name) in names and (
            not isinstance(one, Prism) or _is_piece(one, bodies)))  # fmt: skip
        self._shown = bodies, lit
        self.setAccessibleName(f"Where it sits: {', '.join(names)}")
        self.turn_to(self.turn)

    def turn_to(self, turn: float) -> None:
        """Show it turned about the vertical, rad."""
        self.turn = turn
        bodies, lit = self._shown
        self._faces, self._lit = (outlines(some, turn) if some else [] for some in (bodies, lit))
        self.update()

    @override
    def mousePressEvent(self, a0: QMouseEvent | None) -> None:
        if a0 is not None:
            self._held = a0.position().x()

    @override
    def mouseMoveEvent(self, a0: QMouseEvent | None) -> None:
        if a0 is not None and self._held is not None:
            self.turn_to(self.turn + (a0.position().x() - self._held) / (WIDE * em()))
            self._held = a0.position().x()

    @override
    def mouseReleaseEvent(self, a0: QMouseEvent | None) -> None:
        self._held = None

    @override
    def keyPressEvent(self, a0: QKeyEvent | None) -> None:
        way = {Qt.Key.Key_Left: -STEP, Qt.Key.Key_Right: STEP, Qt.Key.Key_Home: -self.turn}
        if a0 is None or a0.key() not in way:
            super().keyPressEvent(a0)
            return
        self.turn_to(self.turn + way[Qt.Key(a0.key())])

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
        if self.hasFocus():
            painter.setPen(QPen(colour("accent"), 1.0, Qt.PenStyle.DotLine))
            painter.drawRect(QRectF(self.rect()).adjusted(1, 1, -1, -1))
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
