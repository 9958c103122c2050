"""A project file that is dropped anywhere on the window is opened; other files are not taken as text."""

from collections.abc import Callable
from pathlib import Path

from PyQt6.QtCore import QEvent, QObject
from PyQt6.QtGui import QDragEnterEvent, QDragMoveEvent, QDropEvent
from PyQt6.QtWidgets import QApplication, QWidget

from unterbau.files.project_json import SUFFIX
from unterbau.ui.shell.file_actions import FileActions


class DroppedFiles(QObject):
    """Takes files before the field they are dropped on does."""

    def __init__(self, files: FileActions, say: Callable[[str], None], window: QWidget) -> None:
        super().__init__(window)
        self._files, self._say, self._window = files, say, window
        window.setAcceptDrops(True)
        application = QApplication.instance()
        if application is not None:
            application.installEventFilter(self)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        """Open a dropped project; say what can be dropped where it is none."""
        if not isinstance(event, QDragEnterEvent | QDragMoveEvent | QDropEvent) or not isinstance(watched, QWidget):
            return False
        data = event.mimeData()
        if watched.window() is not self._window or data is None or not data.hasUrls():
            return False
        event.acceptProposedAction()
        if event.type() == QEvent.Type.Drop:
            self._take([Path(url.toLocalFile()) for url in data.urls() if url.isLocalFile()])
        return True

    def _take(self, paths: list[Path]) -> None:
        project = next((path for path in paths if path.suffix.lower() == SUFFIX), None)
        if project is None:
            self._say(f"Only project files (*{SUFFIX}) can be dropped on the window. Nothing was changed.")
        elif self._files.may_leave():
            self._files.open(project)
