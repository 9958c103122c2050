"""Asks one kind of question behind the scenes, the newest first; keeps what was answered."""

from collections import OrderedDict
from collections.abc import Callable, Hashable
from typing import Any

from PyQt6.QtCore import QObject, QThreadPool, QTimer, pyqtSignal

from unterbau.progress import Progress
from unterbau.ui.jobs.job import Job

KEPT = 32
SETTLED = 40  # ms after the last change: stepping a section stays quick


class Asker(QObject):
    """One question at a time; a newer one replaces it."""

    ready = pyqtSignal(object)
    """The answer to what was asked last."""
    progressed = pyqtSignal(int, int)
    """Steps done, of how many; 0 of 0 when nothing runs."""
    failed = pyqtSignal(str)

    def __init__(self, study: Callable[[Any, Progress], Any], parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._study = study
        self._kept: OrderedDict[Hashable, Any] = OrderedDict()
        self._wanted: Hashable = None
        self._running: Hashable = None
        self._job: Job | None = None
        self._pool = QThreadPool(self)
        self._pool.setMaxThreadCount(1)
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.setInterval(SETTLED)
        self._soon.timeout.connect(self._start)

    @property
    def busy(self) -> bool:
        """Whether an answer is on its way."""
        return self._job is not None or self._soon.isActive()

    def known(self, asked: Hashable) -> Any:
        """Return an answer that is there already, or None."""
        return self._kept.get(asked)

    def ask(self, asked: Hashable) -> None:
        """Ask; the answer comes by `ready`, at once if it is known."""
        self._wanted = asked
        if self._job is not None and self._running != asked:
            self._job.cancel()
        if asked in self._kept:
            self._soon.stop()
            self.ready.emit(self._kept[asked])
        elif self._running != asked:
            self._soon.start()

    def stop(self) -> None:
        """Stop."""
        self._soon.stop()
        self._wanted = None
        if self._job is not None:
            self._job.cancel()

    def close(self) -> None:
        """Stop and wait for it."""
        self.stop()
        self._pool.waitForDone()

    def _start(self) -> None:
        if self._job is not None or self._wanted is None:
            return
        self._running = asked = self._wanted
        self._job = Job(lambda progress: self._study(asked, progress), self)
        self._job.succeeded.connect(self._on_succeeded)
        self._job.failed.connect(self._on_failed)
        self._job.cancelled.connect(self._on_cancelled)
        self._job.progressed.connect(self._on_progressed)
        self._job.start(self._pool)

    def _on_succeeded(self, answer: object) -> None:
        asked, wanted = self._end(), self._wanted
        self._kept[asked] = answer
        while len(self._kept) > KEPT:
            self._kept.popitem(last=False)
        if asked == wanted:
            self.ready.emit(answer)
        else:
            self._start()

    def _on_failed(self, problem: str) -> None:
        self._end()
        self.failed.emit(problem)

    def _on_cancelled(self) -> None:
        self._end()
        self._start()

    def _on_progressed(self, done: int, total: int, text: str) -> None:
        del text
        if self._running == self._wanted:
            self.progressed.emit(done, total)

    def _end(self) -> Hashable:
        asked, self._running, self._job = self._running, None, None
        self.progressed.emit(0, 0)
        return asked
