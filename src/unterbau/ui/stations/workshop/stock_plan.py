"""The plan of one stock: its name and how good it is, a drawing, and a line that tells what it is cut from."""

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from unterbau.errors import InputError
from unterbau.machine.item_words import text_words
from unterbau.materials.material import material
from unterbau.ui.theme import em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.labels import label
from unterbau.ui.widgets.typed_line import TypedLine, abandon_in


class StockPlan(QWidget):
    """Shows one stock; what is typed wrong is answered below the line and changes nothing."""

    chosen = pyqtSignal(str)
    """Label of a piece."""

    def __init__(self, view: ViewSettings, drawing: QWidget, caption: str, tip: str, parent: QWidget | None) -> None:
        super().__init__(parent)
        self._view, self._drawing = view, drawing
        self._shown = ""
        self.title, self.words = label("", bold=True), label("", "muted", 0.9)
        self.caption = label(caption, "muted", 0.88)
        self.line = TypedLine(self)
        self.line.setToolTip(tip)
        self.button = QPushButton("", self)
        self.button.setFont(font(0.86))
        self.button.setProperty("small", True)
        self.message = label("", "error", 0.86)
        self.message.hide()
        self._build()
        self.line.editingFinished.connect(self._on_typed)
        self.line.given_up.connect(self._on_given_up)

    def say(self, problem: str) -> None:
        """Say something below the line."""
        self.message.setText(problem)
        self.message.setVisible(bool(problem))

    def take(self, text: str) -> None:
        """Take what was typed.

        Raises:
            InputError: It tells no stock.
        """
        raise NotImplementedError

    def show_stock(self, stock: str, made_of: str, words: str, planned: bool) -> None:
        """Show a stock's name and how good its plan is, or why there is none."""
        self.title.setText(f"{text_words(stock, self._view.units)}, {material(made_of).label}")
        self.words.setText(words)
        self.words.setProperty("role", "muted" if planned else "error")
        self._drawing.setVisible(planned)

    def show_line(self, text: str, usual: str, name: str) -> None:
        """Show what it is cut from, as one types it; `usual` where nothing was told."""
        if name != self.line.accessibleName():
            abandon_in(self)
        self._shown = text
        self.line.setPlaceholderText(f"{usual}, as is usual")
        self.line.setAccessibleName(name)
        if self.line.show_text(text):
            self.message.hide()

    def _on_typed(self) -> None:
        if self.line.text() == self._shown:
            self.line.accept_text()
            return
        try:
            self.line.accept_text()
            self.take(self.line.text())
        except InputError as error:
            self.line.setModified(True)
            self.message.setText(error.problem)
            self.message.show()

    def _on_given_up(self) -> None:
        self.line.abandon(self._shown)
        self.message.hide()

    def _build(self) -> None:
        unit = em()
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, round(0.6 * unit))
        box.setSpacing(round(0.25 * unit))
        head = QHBoxLayout()
        head.addWidget(self.title)
        head.addSpacing(round(0.6 * unit))
        self.words.setWordWrap(True)
        head.addWidget(self.words, 1)
        box.addLayout(head)
        box.addWidget(self._drawing)
        row = QHBoxLayout()
        self.caption.setBuddy(self.line)
        self.line.setFont(font(0.9))
        row.addWidget(self.caption)
        row.addWidget(self.line, 1)
        row.addWidget(self.button)
        box.addLayout(row)
        self.message.setWordWrap(True)
        box.addWidget(self.message)
