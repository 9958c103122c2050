"""A thin line between parts of the window."""

from PyQt6.QtWidgets import QFrame


def hairline(vertical: bool = False) -> QFrame:
    """Return a line across, or upright."""
    line = QFrame()
    line.setStyleSheet("background: palette(mid);")
    if vertical:
        line.setFixedWidth(1)
    else:
        line.setFixedHeight(1)
    return line
