"""Labels by role."""

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QFont, QFontMetricsF, QResizeEvent
from PyQt6.QtWidgets import QLabel, QSizePolicy, QWidget
from typing_extensions import override

from unterbau.ui.theme import font
from unterbau.ui.widgets.eliding import ElidingLabel
from unterbau.ui.widgets.plain_tip import plain_tip


def label(text: str, role: str = "", size: float = 1.0, bold: bool = False, parent: QWidget | None = None) -> QLabel:
    """Return a label: role is empty, muted, error or heading."""
    found = ElidingLabel(text, parent)
    found.setProperty("role", role)
    found.setFont(font(0.82 if role == "heading" else size, QFont.Weight.DemiBold if bold else QFont.Weight.Normal))
    found.setTextFormat(Qt.TextFormat.PlainText)
    return found


def heading(text: str) -> QLabel:
    """Return a heading of a panel."""
    return label(text.upper(), "heading")


class ElidedLabel(QLabel):
    """A line that ends in dots where there is no room; the whole is its tool tip."""

    def __init__(self, role: str, size: float, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._whole = ""
        self.setProperty("role", role)
        self.setFont(font(size))
        self.setTextFormat(Qt.TextFormat.PlainText)
        self.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)
        self.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignBottom)

    def show_text(self, text: str) -> None:
        """Show a text."""
        self._whole = text
        self._fit()

    @override
    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        self._fit()

    def _fit(self) -> None:
        metrics = QFontMetricsF(self.font())
        shown = metrics.elidedText(self._whole, Qt.TextElideMode.ElideRight, self.width() - 2.0)
        self.setText(shown)
        self.setToolTip(plain_tip(self._whole) if shown != self._whole else "")
