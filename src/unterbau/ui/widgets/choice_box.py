"""A list of values to choose from."""

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QComboBox, QSizePolicy, QWidget

from unterbau.ui.theme import font

Choices = tuple[tuple[str | bool | float | None, str], ...]
"""Values with the words for them."""


class ChoiceBox(QComboBox):
    """A list of values with words; the wheel does not change it by accident."""

    def __init__(self, name: str, choices: Choices, parent: QWidget) -> None:
        super().__init__(parent)
        self.setAccessibleName(name)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setMinimumContentsLength(8)
        self.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
        self.setMaxVisibleItems(14)
        self.setFont(font(0.92))
        for value, words in choices:
            self.addItem(words, value)

    def show_value(self, value: object, words: str = "") -> None:
        """Show a value; one that is not in the list is added."""
        place = next((n for n in range(self.count()) if self.itemData(n) == value), -1)
        if place < 0:
            self.addItem(words or str(value), value)
            place = self.count() - 1
        self.setCurrentIndex(place)
        line = self.lineEdit()
        if line is not None:
            line.setCursorPosition(0)

    def wheelEvent(self, event: object) -> None:
        """Leave the wheel to the panel."""
        event.ignore()  # type: ignore[attr-defined]
