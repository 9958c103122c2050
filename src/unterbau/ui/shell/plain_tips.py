"""Hints are words: what a name holds is never taken as markup."""

from html import escape

from PyQt6.QtCore import QEvent, QObject
from PyQt6.QtGui import QHelpEvent
from PyQt6.QtWidgets import QToolTip, QWidget
from typing_extensions import override


class PlainTips(QObject):
    """Shows the hints of all widgets as they are written."""

    @override
    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if isinstance(event, QHelpEvent) and event.type() == QEvent.Type.ToolTip and isinstance(watched, QWidget):
            text = watched.toolTip()
            if "<" in text:
                QToolTip.showText(event.globalPos(), as_markup(text), watched)
                return True
        return False


def as_markup(text: str) -> str:
    """Return markup that shows a text as it is."""
    return f"<span>{escape(text)}</span>".replace("\n", "<br>")
