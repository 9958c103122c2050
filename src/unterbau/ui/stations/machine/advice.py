"""Asks for alternatives to the part on the bench, behind the scenes; keeps what was answered."""

from collections import OrderedDict
from collections.abc import Callable

from PyQt6.QtCore import QObject, QThreadPool, QTimer, pyqtSignal

from unterbau.catalogue.prices import PriceBook
from unterbau.machine.machine import Machine
from unterbau.machine.parts import Place
from unterbau.progress import Progress
from unterbau.studies.advise import Trial, try_instead
from unterbau.ui.jobs.job import Job

Asked = tuple[Machine, str, Place, PriceBook]
KEPT = 32
SETTLED = 40  # ms after the last change: stepping a section stays quick


def _study(asked: Asked) -> Callable[[Progress], tuple[Trial, ...]]:
    machine, key, place, book = asked
    return lambda progress: try_instead(machine, key, place, book, progress)


class Advice(QObject):
    """One question at a time; a newer one replaces it."""

    ready = pyqtSignal(object)
    """Trials for what was asked last."""
    progressed = pyqtSignal(str)
    failed = pyqtSignal(str)

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._kept: OrderedDict[Asked, tuple[Trial, ...]] = OrderedDict()
        self._wanted: Asked | None = None
        self._running: Asked | None = None
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

    def ask(self, machine: Machine, key: str, place: Place, book: PriceBook) -> None:
        """Ask for a link's alternatives; the answer comes by `ready`, at once if it is known."""
        asked = (machine, key, place, book)
        self._wanted = asked
        if self._job is not None and self._running != asked:
            self._job.cancel()
        if asked in self._kept:
            self._soon.stop()
            self.ready.emit(self._kept[asked])
        elif self._running != asked:
            self._soon.start()

    def stop(self) -> None:
        """Stop looking."""
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
        self._running = self._wanted
        self._job = Job(_study(self._running), self)
        self._job.succeeded.connect(self._on_succeeded)
        self._job.failed.connect(self._on_failed)
        self._job.cancelled.connect(self._on_cancelled)
        self._job.progressed.connect(self._on_progressed)
        self._job.start(self._pool)

    def _on_succeeded(self, trials: tuple[Trial, ...]) -> None:
        asked, wanted = self._end(), self._wanted
        if asked is not None:
            self._kept[asked] = trials
            while len(self._kept) > KEPT:
                self._kept.popitem(last=False)
        if asked == wanted:
            self.ready.emit(trials)
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
            self.progressed.emit(f"solving {done} of {total}")

    def _end(self) -> Asked | None:
        asked, self._running, self._job = self._running, None, None
        self.progressed.emit("")
        return asked
