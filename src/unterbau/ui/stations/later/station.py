"""What a station will be, in one line, until it is built."""

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from unterbau.ui.widgets.labels import label

COMING = {
    "Build": "Assembly steps, measuring, and prediction beside measurement on the built machine will be here.",
}


class LaterStation(QWidget):
    """An empty station that says what will be here."""

    def __init__(self, name: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        box = QVBoxLayout(self)
        box.addStretch()
        for text in (
            label(name, size=1.5, bold=True),
            label(COMING[name], "muted"),
            label("Not built yet.", "muted", 0.92),
        ):
            text.setAlignment(Qt.AlignmentFlag.AlignCenter)
            text.setWordWrap(True)
            box.addWidget(text)
        box.addStretch()
