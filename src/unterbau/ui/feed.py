"""Answers for the screen: the likely ones at once, bands and the other candidates behind."""

from collections import OrderedDict
from collections.abc import Callable

from PyQt6.QtCore import QObject, QThreadPool, QTimer, pyqtSignal

from unterbau.errors import InputError
from unterbau.machine.machine import Machine
from unterbau.progress import Progress
from unterbau.structure.parts import Place
from unterbau.studies.answers import Answers, LikelyAnswers, answers, likely_answers
from unterbau.studies.compliance import Solved
from unterbau.ui.document import Document
from unterbau.ui.jobs.job import Job
from unterbau.ui.selection import Selection

Asked = tuple[Machine, Place]
KEPT = 64
SOLVED = 24
SETTLED = 60  # ms after the last change before bands are computed: stepping stays quick


def _study(machine: Machine, place: Place) -> Callable[[Progress], Answers]:
    return lambda progress: answers(machine, place, progress)


class Feed(QObject):
    """Keeps what was computed by machine, so that going back costs nothing."""

    likely_ready = pyqtSignal()
    """The chosen candidate's first answers are there."""
    bands_ready = pyqtSignal()
    """Some candidate's bands are there."""
    failed = pyqtSignal(str)
    progressed = pyqtSignal(str)
    """What is being computed, in a word or two; empty when nothing is."""

    def __init__(self, document: Document, selection: Selection, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._document, self._selection = document, selection
        self._likely: OrderedDict[Asked, tuple[LikelyAnswers, Solved]] = OrderedDict()
        self._full: OrderedDict[Asked, Answers] = OrderedDict()
        self._pool = QThreadPool(self)
        self._pool.setMaxThreadCount(1)
        self._job: Job | None = None
        self._running: Asked | None = None
        self._closed = self._stopped = False
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.setInterval(SETTLED)
        self._soon.timeout.connect(self._next_job)
        document.changed.connect(self._on_project_changed)
        selection.candidate_changed.connect(self._on_candidate_changed)
        selection.place_changed.connect(self.refresh)

    def machine(self) -> Machine:
        """Return the chosen candidate's machine."""
        return self._document.project.candidate(self._selection.candidate).machine

    def likely(self, machine: Machine) -> tuple[LikelyAnswers, Solved]:
        """Return a machine's first answers, computed now if need be."""
        asked = (machine, self._selection.place)
        if asked not in self._likely:
            self._likely[asked] = likely_answers(*asked)
            while len(self._likely) > SOLVED:
                self._likely.popitem(last=False)
        return self._likely[asked]

    def full(self, machine: Machine) -> Answers | None:
        """Return a machine's answers with bands, if they are there already."""
        return self._full.get((machine, self._selection.place))

    def refresh(self) -> None:
        """Answer for the chosen candidate, then see to the bands of all."""
        try:
            self.likely(self.machine())
        except InputError as error:
            self.failed.emit(str(error))
            return
        self.likely_ready.emit()
        self._stopped = False
        self._stop_unwanted()
        self._soon.start()

    def stop(self) -> None:
        """Leave the bands for now; the next change asks for them again."""
        self._soon.stop()
        self._stopped = True
        if self._job is not None:
            self._job.cancel()

    def close(self) -> None:
        """Stop all work and wait for it."""
        self._closed = True
        self._soon.stop()
        if self._job is not None:
            self._job.cancel()
        self._pool.waitForDone()

    def _wanted(self) -> Asked | None:
        project = self._document.project
        benchmark = project.candidate(project.benchmark).machine
        queue = [self.machine(), benchmark, *(c.machine for c in project.candidates)]
        place = self._selection.place
        return next(((m, place) for m in queue if (m, place) not in self._full), None)

    def _stop_unwanted(self) -> None:
        """Cancel the running study when the chosen machine waits for its own."""
        chosen = (self.machine(), self._selection.place)
        if self._job is not None and self._running != chosen and chosen not in self._full:
            self._job.cancel()

    def _next_job(self) -> None:
        if self._closed or self._stopped:
            return
        wanted = self._wanted()
        if self._job is not None:
            return
        if wanted is None:
            self.progressed.emit("")
            return
        self._running = wanted
        self._job = Job(_study(*wanted), self)
        self._job.succeeded.connect(self._on_succeeded)
        self._job.failed.connect(self._on_failed)
        self._job.cancelled.connect(self._on_cancelled)
        self._job.progressed.connect(self._on_progressed)
        self._job.start(self._pool)

    def _on_succeeded(self, found: Answers) -> None:
        asked = self._running
        self._job = self._running = None
        if asked is not None:
            self._full[asked] = found
            while len(self._full) > KEPT:
                self._full.popitem(last=False)
        self.progressed.emit("")
        self.bands_ready.emit()
        self._next_job()

    def _on_failed(self, message: str) -> None:
        self._job = self._running = None
        self.progressed.emit("")
        self.failed.emit(message)

    def _on_progressed(self, done: int, total: int, text: str) -> None:
        del text
        shown = self._running == (self.machine(), self._selection.place)
        self.progressed.emit(f"bands {done / total:.0%}" if shown else "")

    def _on_cancelled(self) -> None:
        self._job = self._running = None
        self._next_job()

    def _on_project_changed(self, before: object, after: object) -> None:
        del before, after
        names = [c.name for c in self._document.project.candidates]
        if self._selection.candidate not in names:
            self._selection.choose_candidate(names[0])
            return
        self.refresh()

    def _on_candidate_changed(self, name: str) -> None:
        del name
        self.refresh()
