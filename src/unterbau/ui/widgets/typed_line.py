"""A line to type in: what is typed stays until it is accepted or abandoned, whatever arrives meanwhile."""

from collections.abc import Mapping
from typing import Any

from PyQt6.QtCore import QEvent, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QLineEdit, QSpinBox, QWidget
from typing_extensions import override


class TypedLine(QLineEdit):
    """Keeps typed text; Esc takes it back, and is kept to itself while there is something to take back."""

    given_up = pyqtSignal()

    @property
    def pending(self) -> bool:
        """Whether a text stands here that is neither accepted nor abandoned, or that was refused."""
        return self.isModified() or bool(self.property("wrong"))

    def show_text(self, text: str) -> bool:
        """Show a text, unless a typed one is pending; return whether it is shown."""
        if self.pending:
            return False
        show_in(self, text)
        return True

    def accept_text(self) -> None:
        """Take what is typed as accepted: the next text that is shown replaces it."""
        self.setModified(False)

    def abandon(self, text: str) -> None:
        """Show a text whatever is typed."""
        self.setProperty("wrong", False)
        self.setText(text)

    @override
    def event(self, event: QEvent | None) -> bool:
        if isinstance(event, QKeyEvent) and event.key() == Qt.Key.Key_Escape and self.pending:
            if event.type() == QEvent.Type.KeyPress:
                self.given_up.emit()
            event.accept()
            return True
        return super().event(event)


def show_in(line: QLineEdit, text: str) -> None:
    """Show a text in a line; where all of the old one was marked, as after Tab, all of the new one is."""
    if text == line.text():
        line.setModified(False)
        return
    marked = line.hasFocus() and line.hasSelectedText() and line.selectedText() == line.text()
    line.setText(text)
    line.setCursorPosition(0) if not line.hasFocus() else None
    if marked:
        line.selectAll()


def show_number(spin: QSpinBox, value: int) -> None:
    """Show a number without telling of it, unless another is being typed."""
    line = spin.lineEdit()
    if line is not None and line.isModified() and spin.hasFocus():
        return
    if value != spin.value():
        blocked = spin.blockSignals(True)
        spin.setValue(value)
        spin.blockSignals(blocked)


def abandon_in(widget: QWidget) -> None:
    """Give up all that is typed and pending within a widget: it was typed for something else."""
    for line in widget.findChildren(TypedLine):
        if line.pending:
            line.setModified(False)
            line.setProperty("wrong", False)
            line.given_up.emit()


Typed = tuple[str, int, bool]
"""A pending text, the place of its cursor, and whether it has the focus."""


def pending_texts(lines: Mapping[Any, TypedLine]) -> dict[Any, Typed]:
    """Return what is typed and pending in lines that are about to be made anew."""
    return {key: (line.text(), line.cursorPosition(), line.hasFocus()) for key, line in lines.items() if line.pending}


def give_back(typed: Mapping[Any, Typed], lines: Mapping[Any, TypedLine]) -> None:
    """Put pending texts into the lines that took the place of those they were typed into."""
    for key, (text, place, focused) in typed.items():
        if key in lines:
            line = lines[key]
            line.setText(text)
            line.setModified(True)
            line.setCursorPosition(place)
            if focused:
                line.setFocus()
