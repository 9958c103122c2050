"""A queue of one: a study on a worker thread, and whose question it answers."""

from collections.abc import Callable, Hashable

from PyQt6.QtCore import QObject, pyqtSignal

from unterbau.progress import Progress
from unterbau.ui.jobs.job import Job

Work = Callable[[Progress], object]
LONGEST = 2.0
"""Seconds that closing waits for a study that was asked to stop."""


class OneAtATime(QObject):
    """Runs one study at a time; exactly one of succeeded, failed, cancelled follows, when the next may start."""

    succeeded = pyqtSignal(object, object)
    """What was asked, and the answer."""
    failed = pyqtSignal(object, str)
    cancelled = pyqtSignal(object)
    progressed = pyqtSignal(object, int, int)
    told = pyqtSignal(object, object)
    """What was asked, and what of the answer is there already."""

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._job: Job | None = None
        self._asked: Hashable = None

    @property
    def busy(self) -> bool:
        """Whether something runs."""
        return self._job is not None

    @property
    def asked(self) -> Hashable:
        """What is being answered, or None."""
        return self._asked

    def run(self, asked: Hashable, work: Work) -> None:
        """Start a study; nothing may be running."""
        if self._job is not None:
            raise RuntimeError("one study at a time")
        self._asked, self._job = asked, Job(work, self)
        self._job.succeeded.connect(self._on_succeeded)
        self._job.failed.connect(self._on_failed)
        self._job.cancelled.connect(self._on_cancelled)
        self._job.progressed.connect(self._on_progressed)
        self._job.told.connect(self._on_told)
        self._job.start()

    def cancel(self) -> None:
        """Ask what runs to stop."""
        if self._job is not None:
            self._job.cancel()

    def close(self) -> None:
        """Stop and wait for it, but not for ever: a study that does not hear is left to end with the program."""
        self.cancel()
        if self._job is not None:
            self._job.wait(LONGEST)

    def _end(self) -> Hashable:
        asked, self._asked, self._job = self._asked, None, None
        return asked

    def _on_succeeded(self, answer: object) -> None:
        self.succeeded.emit(self._end(), answer)

    def _on_failed(self, problem: str) -> None:
        self.failed.emit(self._end(), problem)

    def _on_cancelled(self) -> None:
        self.cancelled.emit(self._end())

    def _on_told(self, so_far: object) -> None:
        self.told.emit(self._asked, so_far)

    def _on_progressed(self, done: int, total: int, text: str) -> None:
        del text
        self.progressed.emit(self._asked, done, total)
