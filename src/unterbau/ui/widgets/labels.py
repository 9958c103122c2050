"""Labels by role."""

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QFont
from PyQt6.QtWidgets import QLabel, QWidget

from unterbau.ui.theme import font


def label(text: str, role: str = "", size: float = 1.0, bold: bool = False, parent: QWidget | None = None) -> QLabel:
    """Return a label: role is empty, muted, error or heading."""
    found = QLabel(text, parent)
    found.setProperty("role", role)
    found.setFont(font(0.82 if role == "heading" else size, QFont.Weight.DemiBold if bold else QFont.Weight.Normal))
    found.setTextFormat(Qt.TextFormat.PlainText)
    return found


def heading(text: str) -> QLabel:
    """Return a heading of a panel."""
    return label(text.upper(), "heading")
