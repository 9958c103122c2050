"""Asks one kind of question behind the scenes, the newest first; keeps what was answered."""

from collections.abc import Callable, Hashable
from functools import partial
from typing import Any

from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from unterbau.kept import Kept
from unterbau.progress import Progress
from unterbau.ui.jobs.helper import BEHIND, helper
from unterbau.ui.jobs.one_at_a_time import OneAtATime

KEPT = 100.0  # MB
SETTLED = 40  # ms after the last change: stepping a section stays quick


class Asker(QObject):
    """One question at a time; a newer one replaces it."""

    ready = pyqtSignal(object)
    """The answer to what was asked last."""
    told = pyqtSignal(object)
    """What of it is there already."""
    progressed = pyqtSignal(int, int)
    """Steps done, of how many; 0 of 0 when nothing runs."""
    failed = pyqtSignal(str)

    def __init__(
        self, study: Callable[[Any, Progress], Any], parent: QObject | None = None, beside: bool = False
    ) -> None:
        """Ask.

        Args:
            study: Answers a question.
            parent: Whose it is.
            beside: Answered in a process of its own: the study is known by its name, the answer can be sent.
        """
        super().__init__(parent)
        self._study = partial(_beside, study) if beside else study
        self._kept = Kept(KEPT)
        self._wanted: Hashable = None
        self._jobs = OneAtATime(self)
        self._jobs.succeeded.connect(self._on_succeeded)
        self._jobs.failed.connect(self._on_failed)
        self._jobs.cancelled.connect(self._on_cancelled)
        self._jobs.progressed.connect(self._on_progressed)
        self._jobs.told.connect(self._on_told)
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.setInterval(SETTLED)
        self._soon.timeout.connect(self._start)

    @property
    def busy(self) -> bool:
        """Whether an answer is on its way."""
        return self._jobs.busy or self._soon.isActive()

    def __contains__(self, asked: Hashable) -> bool:
        """Whether the answer is there already."""
        return asked in self._kept

    def known(self, asked: Hashable) -> Any:
        """Return an answer that is there already, or None."""
        return self._kept.get(asked)

    def ask(self, asked: Hashable) -> None:
        """Ask; the answer comes by `ready`, at once if it is known."""
        self._wanted = asked
        if self._jobs.busy and self._jobs.asked != asked:
            self._jobs.cancel()
        if asked in self._kept:
            self._soon.stop()
            self.ready.emit(self._kept[asked])
        elif self._jobs.asked != asked:
            self._soon.start()

    def stop(self) -> None:
        """Stop."""
        self._soon.stop()
        self._wanted = None
        self._jobs.cancel()

    def close(self) -> None:
        """Stop and wait for it."""
        self.stop()
        self._jobs.close()

    def _start(self) -> None:
        if self._jobs.busy or self._wanted is None:
            return
        asked = self._wanted
        self._jobs.run(asked, lambda progress: self._study(asked, progress))

    def _on_succeeded(self, asked: Hashable, answer: object) -> None:
        self.progressed.emit(0, 0)
        self._kept[asked] = answer
        if asked == self._wanted:
            self.ready.emit(answer)
        else:
            self._start()

    def _on_failed(self, asked: Hashable, problem: str) -> None:
        del asked
        self.progressed.emit(0, 0)
        self.failed.emit(problem)

    def _on_cancelled(self, asked: Hashable) -> None:
        del asked
        self.progressed.emit(0, 0)
        self._start()

    def _on_told(self, asked: Hashable, so_far: object) -> None:
        if asked == self._wanted:
            self.told.emit(so_far)

    def _on_progressed(self, asked: Hashable, done: int, total: int) -> None:
        if asked == self._wanted:
            self.progressed.emit(done, total)


def _beside(study: Callable[[Any, Progress], Any], asked: object, progress: Progress) -> Any:
    return helper(BEHIND).compute(study, asked, progress=progress)
