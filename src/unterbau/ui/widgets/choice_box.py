"""A list of values to choose from."""

from PyQt6.QtCore import QEvent, QSignalBlocker, Qt
from PyQt6.QtGui import QHelpEvent, QPaintEvent
from PyQt6.QtWidgets import QComboBox, QSizePolicy, QStyle, QStyleOptionComboBox, QStylePainter, QToolTip, QWidget
from typing_extensions import override

from unterbau.ui.theme import font
from unterbau.ui.widgets.typed_line import TypedLine

Choices = tuple[tuple[str | bool | float | None, str], ...]
"""Values with the words for them."""


class ChoiceBox(QComboBox):
    """A list of values with words that give way; the wheel does not change it by accident."""

    def __init__(self, name: str, choices: Choices, parent: QWidget) -> None:
        super().__init__(parent)
        self.setAccessibleName(name)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setMinimumContentsLength(8)
        self.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
        self.setMaxVisibleItems(14)
        self.setFont(font(0.92))
        self.offer(choices)

    def offer(self, choices: Choices) -> None:
        """Offer these and no others."""
        if choices == tuple((self.itemData(n), self.itemText(n)) for n in range(self.count())):
            return
        with QSignalBlocker(self):
            self.clear()
            for value, words in choices:
                self.addItem(words, value)

    def show_value(self, value: object, words: str = "") -> None:
        """Show a value; one that is not in the list is added."""
        place = next((n for n in range(self.count()) if self.itemData(n) == value), -1)
        if place < 0:
            self.addItem(words or str(value), value)
            place = self.count() - 1
        line = self.lineEdit()
        if isinstance(line, TypedLine) and line.pending:
            return
        self.setCurrentIndex(place)
        if line is not None and not line.hasFocus():
            line.setCursorPosition(0)

    def shown_words(self) -> str:
        """Return as much of the chosen value's words as there is room for."""
        option, style = QStyleOptionComboBox(), self.style()
        self.initStyleOption(option)
        if style is None:
            return self.currentText()
        field = QStyle.SubControl.SC_ComboBoxEditField
        room = style.subControlRect(QStyle.ComplexControl.CC_ComboBox, option, field, self).width()
        return self.fontMetrics().elidedText(self.currentText(), Qt.TextElideMode.ElideRight, room)

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        if self.isEditable():
            super().paintEvent(event)
            return
        painter, option = QStylePainter(self), QStyleOptionComboBox()
        self.initStyleOption(option)
        option.currentText = self.shown_words()
        painter.drawComplexControl(QStyle.ComplexControl.CC_ComboBox, option)
        painter.drawControl(QStyle.ControlElement.CE_ComboBoxLabel, option)

    @override
    def event(self, event: QEvent | None) -> bool:
        if isinstance(event, QHelpEvent) and event.type() == QEvent.Type.ToolTip and not self.toolTip():
            whole = self.currentText()
            QToolTip.showText(event.globalPos(), "" if self.shown_words() == whole else whole, self)
            return True
        return super().event(event)

    def wheelEvent(self, event: object) -> None:
        """Leave the wheel to the panel."""
        event.ignore()  # type: ignore[attr-defined]
