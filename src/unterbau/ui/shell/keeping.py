"""Sets unsaved work aside every minute, so that a crash costs no more than that."""

from collections.abc import Callable
from datetime import datetime
from functools import partial
from pathlib import Path

from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from unterbau.files import recovery
from unterbau.progress import Progress
from unterbau.project.project import Project
from unterbau.ui.document import Document
from unterbau.ui.jobs.job import Job

EVERY = 60_000  # ms
WRITTEN = 30.0  # s that a write to a slow disk is waited for


def _writing(folder: Path, project: Project, origin: Path | None, when: str) -> Callable[[Progress], object]:
    def work(progress: Progress) -> object:
        progress.step(0, 1, "setting work aside")
        return recovery.keep(folder, project, origin, when)

    return work


class Keeper(QObject):
    """Watches a document."""

    kept = pyqtSignal(str)
    """Work was set aside at this time of day."""
    failed = pyqtSignal(str)

    def __init__(self, document: Document, folder: Path, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._document, self._folder = document, folder
        self._last: Project | None = None
        self._job: Job | None = None
        self.timer = QTimer(self)
        self.timer.setInterval(EVERY)
        self.timer.timeout.connect(self.keep_now)
        self.timer.start()
        document.file_changed.connect(self._on_file_changed)

    def left_behind(self) -> list[recovery.Kept]:
        """Return the work that a crash left, newest first."""
        return list(recovery.left_behind(self._folder))

    def keep_now(self) -> None:
        """Set the work aside if it changed since the last time."""
        project = self._document.project
        if not self._document.modified or project is self._last or self._job is not None:
            return
        self._last = project
        when = datetime.now().astimezone().isoformat(timespec="minutes")
        self._job = Job(_writing(self._folder, project, self._document.path, when), self)
        self._job.succeeded.connect(partial(self._on_kept, when))
        self._job.failed.connect(self._on_failed)
        self._job.cancelled.connect(self._on_cancelled)
        self._job.start()

    def close(self) -> None:
        """Stop; the work is in a file, or not wanted."""
        self.timer.stop()
        self._forget()

    def keep_at_once(self) -> None:
        """Set unsaved work aside before this returns: the program is about to be ended."""
        self.timer.stop()
        if self._document.modified:
            when = datetime.now().astimezone().isoformat(timespec="minutes")
            recovery.keep(self._folder, self._document.project, self._document.path, when)

    def _forget(self) -> None:
        if self._job is not None:
            self._job.wait(WRITTEN)
        self._last = None
        recovery.forget(self._folder)

    def _on_file_changed(self) -> None:
        if not self._document.modified:
            self._forget()

    def _on_kept(self, when: str) -> None:
        self._job = None
        if self._document.modified:
            self.kept.emit(when[11:16])
        else:
            self._forget()

    def _on_failed(self, problem: str) -> None:
        self._job = None
        self.failed.emit(f"Unsaved work could not be set aside: {problem}")

    def _on_cancelled(self) -> None:
        self._job = None
