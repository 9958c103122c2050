"""The lower part of the Build station: pages of what the built machine says, one at a time."""

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QButtonGroup, QHBoxLayout, QPushButton, QStackedWidget, QVBoxLayout, QWidget

from unterbau.ui.theme import em, font

PAGES = ("prediction and measurement", "first cuts", "log", "tap")
TALL = 10.6  # em


class Lower(QWidget):
    """Pages under buttons."""

    turned = pyqtSignal(int)
    """Another page is shown."""

    def __init__(self, pages: tuple[QWidget, QWidget, QWidget, QWidget], parent: QWidget | None = None) -> None:
        super().__init__(parent)
        unit = em()
        self.stack, group = QStackedWidget(self), QButtonGroup(self)
        box, row = QVBoxLayout(self), QHBoxLayout()
        box.setContentsMargins(round(1.1 * unit), round(0.4 * unit), round(1.1 * unit), round(0.5 * unit))
        box.setSpacing(round(0.3 * unit))
        self.buttons = tuple(QPushButton(name, self) for name in PAGES)
        for number, (button, page) in enumerate(zip(self.buttons, pages, strict=True)):
            button.setCheckable(True)
            button.setProperty("small", True)
            button.setFont(font(0.88))
            group.addButton(button, number)
            row.addWidget(button)
            self.stack.addWidget(page)
        row.addStretch(1)
        self.stack.setFixedHeight(round(TALL * unit))
        box.addLayout(row)
        box.addWidget(self.stack)
        group.idClicked.connect(self.show_page)
        self.show_page(0)

    def show_page(self, number: int) -> None:
        """Show a page."""
        self.buttons[number].setChecked(True)
        self.stack.setCurrentIndex(number)
        self.turned.emit(number)
