"""A page that shows the chosen candidate, again whenever it changes while the page is seen."""

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtGui import QShowEvent
from PyQt6.QtWidgets import QWidget
from typing_extensions import override

from unterbau.ui.document import Document
from unterbau.ui.selection import Selection
from unterbau.ui.view_settings import ViewSettings


class FollowingPage(QWidget):
    """Calls `show_machine` when there is something new to be seen."""

    trouble = pyqtSignal(str)
    wrote = pyqtSignal(object)
    """A file or folder that was written."""

    def follow(self, document: Document, selection: Selection, view: ViewSettings) -> None:
        """Listen to what changes."""
        document.changed.connect(self._on_changed)
        selection.candidate_changed.connect(self._on_changed)
        view.changed.connect(self._on_changed)

    def show_machine(self) -> None:
        """Show the chosen candidate."""
        raise NotImplementedError

    def _on_changed(self, *_: object) -> None:
        if self.isVisible():
            self.show_machine()

    @override
    def showEvent(self, event: QShowEvent | None) -> None:
        super().showEvent(event)
        self.show_machine()
