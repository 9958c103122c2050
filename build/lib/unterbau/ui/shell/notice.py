"""One line under the header: what went wrong, or what is offered; no dialog in the way."""

from collections.abc import Callable
from functools import partial

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QWidget

from unterbau.ui.theme import em
from unterbau.ui.widgets.labels import label

Offer = tuple[str, Callable[[], object]]


class Notice(QWidget):
    """Hidden while there is nothing to say."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setProperty("surface", "sunken")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.message = label("", "error", parent=self)
        self.message.setWordWrap(True)
        self.dismiss = QPushButton("understood", self)
        self.buttons: list[QPushButton] = []
        self._row = QHBoxLayout(self)
        self._row.setContentsMargins(round(1.1 * em()), round(0.3 * em()), round(1.1 * em()), round(0.3 * em()))
        self._row.addWidget(self.message, 1)
        self._row.addWidget(self.dismiss, 0, Qt.AlignmentFlag.AlignTop)
        self.dismiss.clicked.connect(self.clear)
        self.hide()

    def say(self, text: str, role: str = "error", offers: tuple[Offer, ...] = (), dismiss: str = "understood") -> None:
        """Say something, with buttons for what can be done about it; an empty text says nothing."""
        self.message.setText(text)
        self.message.setProperty("role", role)
        style = self.message.style()
        if style is not None:
            style.unpolish(self.message)
            style.polish(self.message)
        for button in self.buttons:
            button.hide()
            button.deleteLater()
        self.buttons = []
        for words, run in offers:
            button = QPushButton(words, self)
            button.clicked.connect(partial(self._on_offer, run))
            self._row.insertWidget(self._row.count() - 1, button, 0, Qt.AlignmentFlag.AlignTop)
            self.buttons.append(button)
        self.dismiss.setText(dismiss)
        self.setVisible(bool(text))

    def clear(self) -> None:
        """Say nothing."""
        self.say("")

    def overtake(self) -> None:
        """Take back what only told something: its numbers are read otherwise now."""
        if not self.buttons and self.message.property("role") != "error":
            self.clear()

    def _on_offer(self, run: Callable[[], object], checked: bool = False) -> None:
        del checked
        self.clear()
        run()
