"""Spots on the machine, shown as dots: pointed at, clicked, dragged."""

from collections.abc import Callable
from typing import TYPE_CHECKING

import numpy as np
from PyQt6.QtCore import QEvent, QObject, QPoint, QPointF, Qt, pyqtSignal
from PyQt6.QtGui import QMouseEvent

from unterbau.mechanics.arrays import FloatArray
from unterbau.ui.theme import colour
from unterbau.ui.viewport.dots import Dots, dot_at

if TYPE_CHECKING:
    from unterbau.ui.viewport.canvas import Canvas

CLICK_DISTANCE = 4
DOT, HELD_DOT = 6.0, 11.0  # px
NAMES = ("dots", "held dots", "dot words")


class Spots(QObject):
    """Draws spots on a canvas and tells what the mouse does to them."""

    clicked = pyqtSignal(int)
    """Number of the spot."""
    moved = pyqtSignal(int, QPointF)
    """A spot that can be dragged, and how far on the screen from where the drag began, px."""
    released = pyqtSignal()

    def __init__(self, canvas: Callable[[], "Canvas"], parent: QObject) -> None:
        super().__init__(parent)
        self._canvas = canvas
        self.dots: Dots | None = None
        """What is shown."""
        self._pointed = -1
        self._drag: tuple[int, QPointF] | None = None

    def show(self, dots: Dots | None) -> None:
        """Show spots that can be clicked; those that are held stand out. Nothing takes them away."""
        if self.dots is None and dots is None:
            return
        canvas = self._canvas()
        for name in NAMES:
            canvas.take(name)
        self.dots, self._pointed = dots, -1
        if dots is None or not len(dots.places):
            return
        canvas.dots("dots", dots.places, colour("muted"), DOT)
        if dots.held:
            canvas.dots("held dots", dots.places[list(dots.held)], colour("accent"), HELD_DOT)

    def seen(self) -> FloatArray:
        """Return where the spots are on the widget, px, shape (n, 2)."""
        if self.dots is None:
            return np.zeros((0, 2))
        eye = self._canvas().eye
        return np.array([eye.on_widget(place) for place in self.dots.places]).reshape(-1, 2)

    def under(self, place: QPointF) -> int:
        """Return the number of the spot under a place of the widget; −1 is none."""
        if self.dots is None:
            return -1
        away = self._canvas().eye.away(self.dots.places)
        return dot_at(self.seen(), away, np.array([place.x(), place.y()]))

    def take(self, event: QMouseEvent, pressed: QPoint) -> bool:
        """Handle what the mouse does to spots and say whether it was meant for one; the rest turns the view."""
        if self.dots is None:
            return False
        kind, place = event.type(), event.position()
        if self._drag is not None:
            self._dragged(kind, place)
            return True
        if kind == QEvent.Type.MouseMove and event.buttons() == Qt.MouseButton.NoButton:
            self._point_at(self.under(place))
            return False
        number = self.under(place) if event.button() == Qt.MouseButton.LeftButton else -1
        if kind == QEvent.Type.MouseButtonPress and number in self.dots.held:
            self._drag = (number, place)
            return True
        click = (event.pos() - pressed).manhattanLength() < CLICK_DISTANCE
        if kind == QEvent.Type.MouseButtonRelease and click and number >= 0:
            self.clicked.emit(number)
            return True
        return False

    def _dragged(self, kind: QEvent.Type, place: QPointF) -> None:
        assert self._drag is not None
        number, began = self._drag
        if kind == QEvent.Type.MouseMove:
            self.moved.emit(number, place - began)
        elif kind == QEvent.Type.MouseButtonRelease:
            self._drag = None
            self.released.emit()

    def _point_at(self, number: int) -> None:
        """Say beside a spot what it is."""
        if number == self._pointed or self.dots is None:
            return
        self._pointed = number
        canvas = self._canvas()
        canvas.take("dot words")
        canvas.setCursor(Qt.CursorShape.PointingHandCursor if number >= 0 else Qt.CursorShape.ArrowCursor)
        if number >= 0:
            canvas.words("dot words", self.dots.places[number], self.dots.words[number], colour("ink"))
        canvas.draw()
