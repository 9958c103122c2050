"""A number one can ask about: by mouse, or by Tab and Return."""

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtGui import QFocusEvent, QFont, QKeyEvent, QMouseEvent
from PyQt6.QtWidgets import QWidget
from typing_extensions import override

from unterbau.ui.theme import font
from unterbau.ui.widgets.eliding import ElidingLabel


class AskedLabel(ElidingLabel):
    """A label that can be pressed."""

    asked = pyqtSignal(str)

    def __init__(
        self, key: str, name: str, parent: QWidget | None = None, role: str = "", size: float = 1.0, bold: bool = False
    ) -> None:
        super().__init__(parent)
        self.setProperty("role", role)
        self.setFont(font(size, QFont.Weight.DemiBold if bold else QFont.Weight.Normal))
        self.key = key
        self.setTextFormat(Qt.TextFormat.PlainText)
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setAccessibleName(f"{name}: why is it this?")

    @override
    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        self.asked.emit(self.key)

    @override
    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            self.asked.emit(self.key)
        else:
            super().keyPressEvent(event)

    @override
    def focusInEvent(self, event: QFocusEvent | None) -> None:
        self._underline(True)
        super().focusInEvent(event)

    @override
    def focusOutEvent(self, event: QFocusEvent | None) -> None:
        self._underline(False)
        super().focusOutEvent(event)

    def _underline(self, on: bool) -> None:
        face = self.font()
        face.setUnderline(on)
        self.setFont(face)
