"""A line to type in whose Esc takes back what is not taken yet."""

from PyQt6.QtCore import QEvent, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QLineEdit
from typing_extensions import override


class TypedLine(QLineEdit):
    """Keeps Esc to itself while there is something to take back."""

    given_up = pyqtSignal()

    @override
    def event(self, event: QEvent | None) -> bool:
        if isinstance(event, QKeyEvent) and event.key() == Qt.Key.Key_Escape and self._changed():
            if event.type() == QEvent.Type.KeyPress:
                self.given_up.emit()
            event.accept()
            return True
        return super().event(event)

    def _changed(self) -> bool:
        return self.isModified() or bool(self.property("wrong"))
