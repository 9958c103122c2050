"""How things are shown; none of it is undone or an edit."""

from PyQt6.QtCore import QObject, pyqtSignal

from unterbau.units import Units


class ViewSettings(QObject):
    """Millimetres or inches."""

    changed = pyqtSignal()

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._units: Units = "mm"

    @property
    def units(self) -> Units:
        """How lengths are shown."""
        return self._units

    def set_units(self, units: Units) -> None:
        """Show lengths in millimetres or inches."""
        if units != self._units:
            self._units = units
            self.changed.emit()
