"""Why is it this? How a number of the readout came about, on the bench."""

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from unterbau.studies.account import Account
from unterbau.ui.theme import em
from unterbau.ui.widgets.labels import heading, label


class AccountPage(QWidget):
    """A page of the bench."""

    closed = pyqtSignal()
    samples_wanted = pyqtSignal()
    frame_wanted = pyqtSignal()
    """Save the analysis model as a file."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.quantity = ""
        self.title = label("", size=1.1, bold=True)
        self.lines = label("", size=0.95)
        self.rest = label("", "muted", 0.86)
        self.back = QPushButton("back to the part", self)
        self.samples = QPushButton("draw 200 samples", self)
        self.samples.setToolTip("draw joints, guides, drives and materials at random, each on its own; Esc stops")
        self.frame = QPushButton("save the frame file …", self)
        self.frame.setToolTip("the analysis model as plain JSON, to be solved by another program")
        self._table = QGridLayout()
        self._cells: list[QLabel] = []
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(round(0.35 * em()))
        top = QHBoxLayout()
        top.addWidget(heading("why is it this?"))
        top.addStretch()
        top.addWidget(self.back)
        box.addLayout(top)
        box.addWidget(self.title)
        buttons = QHBoxLayout()
        buttons.addWidget(self.samples)
        buttons.addWidget(self.frame)
        buttons.addStretch()
        box.addLayout(buttons)
        box.addWidget(self.lines)
        self._table.setHorizontalSpacing(round(0.7 * em()))
        self._table.setVerticalSpacing(round(0.1 * em()))
        self._table.setColumnStretch(0, 1)
        box.addLayout(self._table)
        box.addWidget(self.rest)
        box.addStretch(1)
        for text in (self.lines, self.rest):
            text.setWordWrap(True)
            text.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        self.back.clicked.connect(self.closed)
        self.samples.clicked.connect(self.samples_wanted)
        self.frame.clicked.connect(self.frame_wanted)

    def show_account(self, found: Account) -> None:
        """Show how a number came about."""
        self.quantity = found.quantity
        self.title.setText(found.title[0].upper() + found.title[1:])
        self.lines.setText("\n".join(found.lines))
        for cell in self._cells:
            cell.hide()
            cell.deleteLater()
        self._cells = []
        for row, (left, right) in enumerate(found.rows):
            first, second = label(left, size=0.9), label(right, "muted", 0.9)
            first.setWordWrap(True)
            second.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignTop)
            self._table.addWidget(first, row, 0)
            self._table.addWidget(second, row, 1)
            self._cells += [first, second]
        self.rest.setText("\n".join(["Assumed: " + " ".join(found.assumptions), *found.sources]))
        self.samples.setVisible(found.sampled)

    def show_waiting(self, done: int, total: int) -> None:
        """Say how many samples are drawn."""
        self.samples.setText(f"sample {done} of {total}" if total else "draw 200 samples")
        self.samples.setEnabled(not total)

    def texts(self) -> list[str]:
        """Return everything that is said."""
        return [self.lines.text(), *(cell.text() for cell in self._cells), self.rest.text()]
