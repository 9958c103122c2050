"""What may vary, as chips on the machine's outline: one for each part, with a line to where it is."""

from dataclasses import dataclass
from functools import partial

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QPainter, QPaintEvent, QPen, QPolygonF, QResizeEvent
from PyQt6.QtWidgets import QPushButton, QWidget
from typing_extensions import override

from unterbau.mechanics.arrays import FloatArray
from unterbau.structure.bodies import Body
from unterbau.ui.theme import colour, em, font
from unterbau.ui.widgets.plain_tip import plain_tip
from unterbau.ui.widgets.thumbnail import outlines, picture_of

GAP = 0.22
"""Between chips, em."""
DOT = 2.2


@dataclass(frozen=True, slots=True)
class Chip:
    """A part, or a size, that may vary."""

    key: str
    words: str
    tip: str
    at: str
    """Link where it is; the whole machine where there is no such."""


class OutlineChips(QWidget):
    """Draws a machine's outline between two columns of chips."""

    toggled = pyqtSignal(str, bool)
    """A chip's key, and whether it may vary now."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._faces: list[tuple[float, FloatArray]] = []
        self._middles: dict[str, FloatArray] = {}
        self._chips: tuple[Chip, ...] = ()
        self.buttons: dict[str, QPushButton] = {}
        self.setAccessibleName("What may vary, on the machine's outline")

    def show_machine(self, bodies: tuple[Body, ...], chips: tuple[Chip, ...]) -> None:
        """Show a machine with its chips, none of them pressed."""
        self._faces = outlines(bodies)
        self._middles = {}
        for key in {one.at for one in chips}:
            own = outlines(tuple(body for body in bodies if body.key == key)) if self._faces else []
            if own:
                self._middles[key] = np.mean([face.mean(axis=0) for _, face in own], axis=0)
        self._chips = chips
        for button in self.buttons.values():
            button.deleteLater()
        self.buttons = {one.key: self._button(one) for one in chips}
        rows = -(-len(chips) // 2)
        self.setFixedHeight(max(round(11 * em()), rows * (self._tall() + round(GAP * em()))))
        self._place()
        self.update()

    def _button(self, one: Chip) -> QPushButton:
        button = QPushButton(one.words, self)
        button.setFont(font(0.84))
        button.setProperty("small", True)
        button.setCheckable(True)
        button.setToolTip(plain_tip(one.tip))
        button.setAccessibleName(f"{one.words} may vary")
        button.toggled.connect(partial(self._on_toggled, one.key))
        button.show()
        return button

    def _on_toggled(self, key: str, on: bool) -> None:
        self.update()
        self.toggled.emit(key, on)

    def _tall(self) -> int:
        return max((one.sizeHint().height() for one in self.buttons.values()), default=0)

    def _sides(self) -> tuple[list[Chip], list[Chip]]:
        """Return chips for the left and the right, from above."""

        def middle(one: Chip) -> tuple[float, float]:
            x, y = self._middles.get(one.at, np.zeros(2)).tolist()
            return float(x), float(y)

        across = sorted(self._chips, key=lambda one: middle(one)[0])
        half = -(-len(across) // 2)
        left, right = (sorted(some, key=lambda one: -middle(one)[1]) for some in (across[:half], across[half:]))
        return left, right

    def _place(self) -> None:
        step = self._tall() + round(GAP * em())
        for side, chips in enumerate(self._sides()):
            top = (self.height() - len(chips) * step) // 2
            for row, one in enumerate(chips):
                button = self.buttons[one.key]
                wide = min(button.sizeHint().width(), round(0.46 * self.width()))
                button.setGeometry(0 if side == 0 else self.width() - wide, top + row * step, wide, self._tall())

    @override
    def resizeEvent(self, a0: QResizeEvent | None) -> None:
        self._place()
        super().resizeEvent(a0)

    @override
    def sizeHint(self) -> QSize:
        return QSize(round(22 * em()), self.height())

    @override
    def paintEvent(self, a0: QPaintEvent | None) -> None:
        if not self._faces:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        inset = 0.16 * self.width()
        place = picture_of([face for _, face in self._faces], QRectF(self.rect()).adjusted(inset, 4, -inset, -4))
        painter.setPen(QPen(colour("hairline"), 0.8))
        painter.setBrush(colour("panel"))
        for _, face in self._faces:
            painter.drawPolygon(QPolygonF([QPointF(*place(x, y)) for x, y in face.tolist()]))
        for one in self._chips:
            button, middle = self.buttons[one.key], self._middles.get(one.at)
            if middle is None:
                continue
            on = button.isChecked()
            at, box = QPointF(*place(*middle.tolist())), QRectF(button.geometry())
            edge = QPointF(box.right() if box.center().x() < self.width() / 2 else box.left(), box.center().y())
            painter.setPen(QPen(colour("accent" if on else "muted"), 1.4 if on else 0.7, Qt.PenStyle.SolidLine))
            painter.drawLine(edge, at)
            painter.setBrush(colour("accent" if on else "panel"))
            painter.drawEllipse(at, DOT, DOT)
