"""A drawing to scale whose pieces are chosen by a click."""

from PyQt6.QtCore import QPointF, QRectF, QSize, pyqtSignal
from PyQt6.QtGui import QMouseEvent
from PyQt6.QtWidgets import QSizePolicy, QWidget
from typing_extensions import override

from unterbau.ui.theme import em


class PickedView(QWidget):
    """Knows where pieces were drawn; as wide as there is room, as tall as it was told."""

    chosen = pyqtSignal(str)
    """Label of a piece."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._lit = ""
        self._areas: list[tuple[QRectF, str]] = []
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def place_of(self, label: str) -> QPointF:
        """Return where a piece is drawn first."""
        return next(area.center() for area, name in self._areas if name == label)

    @override
    def sizeHint(self) -> QSize:
        return QSize(round(30 * em()), self.height())

    @override
    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        for area, label in self._areas:
            if area.contains(event.position()):
                self.chosen.emit(label)
                return
