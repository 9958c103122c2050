"""How things are shown; none of it is undone or an edit."""

from PyQt6.QtCore import QObject, pyqtSignal

from unterbau.units import Units


class ViewSettings(QObject):
    """Millimetres or inches, colours, size of the text."""

    changed = pyqtSignal()
    """Units."""
    restyled = pyqtSignal()
    """Colours or text size: everything is drawn anew."""

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._units: Units = "mm"
        self.theme = "light"
        self.text = 1.0
        """Multiple of the desktop's text size."""

    @property
    def units(self) -> Units:
        """How lengths are shown."""
        return self._units

    def set_units(self, units: Units) -> None:
        """Show lengths in millimetres or inches."""
        if units != self._units:
            self._units = units
            self.changed.emit()

    def restyle(self, theme: str, text: float) -> None:
        """Show everything in other colours, or with larger or smaller text."""
        if (theme, text) != (self.theme, self.text):
            self.theme, self.text = theme, text
            self.restyled.emit()
