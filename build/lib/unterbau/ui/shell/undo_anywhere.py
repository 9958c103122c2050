"""Undo and redo are the project's, also while a field has the focus."""

from PyQt6.QtCore import QEvent, QObject
from PyQt6.QtGui import QKeyEvent, QKeySequence
from PyQt6.QtWidgets import QApplication, QLineEdit, QSpinBox, QWidget

from unterbau.ui.widgets.quantity_field import QuantityField

KEYS = {QKeySequence(keys) for keys in ("Ctrl+Z", "Ctrl+Shift+Z")}


class UndoAnywhere(QObject):
    """Keeps text fields of a window from taking the keys; what is typed and not yet taken is given up first."""

    def __init__(self, window: QWidget) -> None:
        super().__init__(window)
        self._window = window
        application = QApplication.instance()
        if application is not None:
            application.installEventFilter(self)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        """Let the window's shortcut have the keys."""
        if event is None or event.type() != QEvent.Type.ShortcutOverride or not isinstance(event, QKeyEvent):
            return False
        if not isinstance(watched, QLineEdit | QSpinBox) or watched.window() is not self._window:
            return False
        if QKeySequence(event.keyCombination()) not in KEYS:
            return False
        give_up(watched)
        event.ignore()
        return True


def give_up(field: QWidget) -> None:
    """Show again what a field holds."""
    parent: QWidget | None = field
    while parent is not None:
        if isinstance(parent, QuantityField):
            parent.give_up()
            return
        if isinstance(parent, QSpinBox):
            edit = parent.lineEdit()
            if edit is not None:
                edit.setText(parent.textFromValue(parent.value()))
            return
        parent = parent.parentWidget()
