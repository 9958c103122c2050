"""Answers for the screen: the likely ones of what is looked at at once, all others behind."""

from collections.abc import Hashable
from functools import partial

from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from unterbau.errors import InputError
from unterbau.kept import Kept
from unterbau.machine.machine import Machine
from unterbau.progress import Progress
from unterbau.structure.parts import Place
from unterbau.studies.answers import Answers, Early, LikelyAnswers, answers_shown, first_figures, likely_answers
from unterbau.studies.compliance import Solved
from unterbau.ui.document import Document
from unterbau.ui.jobs.helper import SOON, helper
from unterbau.ui.jobs.one_at_a_time import OneAtATime
from unterbau.ui.jobs.soon import Soon
from unterbau.ui.selection import Selection

Asked = tuple[Machine, Place]
FIGURES, SOLVED, PREPARED = 10.0, 130.0, 80.0
"""Figures of many, the solved systems behind the last few, those that may be asked for next, MB."""
FIGURE = 8000.0
"""Bytes of a machine's first figures."""
SETTLED = 60  # ms after the last change before anything is computed behind: stepping stays quick
FIRST, ALL = "first", "all"
"""Likely figures of a candidate, all its answers with bands."""


class Feed(QObject):
    """Keeps what was computed by machine, so that going back costs nothing."""

    likely_ready = pyqtSignal()
    """The chosen candidate's first answers are there."""
    waiting = pyqtSignal()
    """They are not, and what is shown is of the machine before."""
    bands_ready = pyqtSignal()
    """Some candidate's figures or bands are there."""
    early_ready = pyqtSignal(object)
    """The bands of the chosen candidate's stiffness (`Early`), the rest is not there yet."""
    failed = pyqtSignal(str)
    progressed = pyqtSignal(str)
    """What is being computed, in a word or two; empty when nothing is."""

    def __init__(self, document: Document, selection: Selection, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._document, self._selection = document, selection
        self._figures, self._full = Kept(FIGURES, lambda _: FIGURE), Kept(FIGURES)
        self._solved = Kept(SOLVED, _solved_bytes)
        self._ahead: tuple[Machine, ...] = ()
        self._prepared, self._begun = Kept(PREPARED, _solved_bytes), set[Asked]()
        self._first = Soon(self)
        self._first.answered.connect(self._on_first)
        self._first.failed.connect(self._on_failed)
        self._early = OneAtATime(self)
        self._early.succeeded.connect(self._on_prepared)
        self._early.failed.connect(self._on_unprepared)
        self._jobs = OneAtATime(self)
        self._jobs.succeeded.connect(self._on_succeeded)
        self._jobs.failed.connect(self._on_refused)
        self._jobs.cancelled.connect(self._on_cancelled)
        self._jobs.progressed.connect(self._on_progressed)
        self._jobs.told.connect(self._on_told)
        self._refused: set[Asked] = set()
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

    @property
    def busy(self) -> bool:
        """Whether anything is being computed."""
        return self._first.busy or self._jobs.busy or self._early.busy or self._soon.isActive()

    def likely(self, machine: Machine) -> tuple[LikelyAnswers, Solved] | None:
        """Return a machine's first answers and what is behind them, if they are there already."""
        found: tuple[LikelyAnswers, Solved] | None = self._solved.get((machine, self._selection.place))
        return found

    def figures(self, machine: Machine) -> LikelyAnswers | None:
        """Return a machine's first answers if they are there already; what is missing comes behind."""
        found: LikelyAnswers | None = self._figures.get((machine, self._selection.place))
        return found

    def full(self, machine: Machine) -> Answers | None:
        """Return a machine's answers with bands, if they are there already."""
        found: Answers | None = self._full.get((machine, self._selection.place))
        return found

    def prepare(self, machines: tuple[Machine, ...]) -> None:
        """Solve machines that may be asked for next, once each, when the chosen one has its bands."""
        if machines != self._ahead:
            self._ahead, self._begun = machines, set()
            self._soon.start()

    def refresh(self) -> None:
        """Answer for the chosen candidate, then see to the others and the bands of all."""
        self._stopped = False
        self._stop_unwanted()
        asked = (self.machine(), self._selection.place)
        self._next_job()  # its bands at once, beside the window
        if asked in self._prepared:
            self._keep(asked, self._prepared.pop(asked))
        if asked in self._solved:
            self._tell()
            return
        try:
            found = self._first.ask(asked, partial(likely_answers, *asked))
        except InputError as error:
            self._refused = {*self._refused, asked}
            self.failed.emit(str(error))
            return
        if found is not None:
            self._keep(asked, found)
            self._tell()
            return
        self.progressed.emit("computing …")
        self.waiting.emit()

    def _keep(self, asked: Asked, found: object) -> None:
        assert isinstance(found, tuple)
        self._figures[asked] = found[0]
        self._solved[asked] = found

    def _tell(self) -> None:
        self.progressed.emit("")
        self.likely_ready.emit()
        self._soon.start()

    def _on_first(self, asked: Asked, found: object) -> None:
        """Keep what came late; tell it where it is still asked for."""
        self._keep(asked, found)
        if not self._closed and asked == (self.machine(), self._selection.place):
            self._tell()

    def stop(self) -> None:
        """Leave the bands for now; the next change asks for them again."""
        self._soon.stop()
        self._stopped = True
        self._jobs.cancel()

    def close(self) -> None:
        """Stop all work and wait for it."""
        self._closed = True
        self._soon.stop()
        self._first.close()
        self._early.close()
        self._jobs.close()

    def _wanted(self) -> tuple[str, Asked] | None:
        """Return what is missing: others' figures, the benchmark's first, then bands, those of the chosen one first."""
        project, place = self._document.project, self._selection.place
        benchmark, chosen = project.candidate(project.benchmark).machine, self.machine()
        every = [c.machine for c in project.candidates]
        for machine in (benchmark, *every):
            asked = (machine, place)
            if machine != chosen and asked not in self._figures and asked not in self._refused:
                return FIRST, asked
        for machine in (chosen, benchmark, *every):
            if (machine, place) not in self._full and (machine, place) not in self._refused:
                return ALL, (machine, place)
        return None

    def _prepare_next(self) -> None:
        """Solve what may be asked for next, here: what is solved cannot be sent from one process to another."""
        place = self._selection.place
        if self._early.busy or (self.machine(), place) not in self._full:
            return
        for machine in self._ahead:
            if not any((machine, place) in known for known in (self._solved, self._prepared, self._begun)):
                self._begun.add((machine, place))
                self._early.run((machine, place), partial(_solved, machine, place))
                return

    def _stop_unwanted(self) -> None:
        """Cancel the running study when the chosen machine waits for its own."""
        chosen = (self.machine(), self._selection.place)
        if self._jobs.busy and self._jobs.asked != (ALL, chosen) and chosen not in self._full:
            self._jobs.cancel()

    def _next_job(self) -> None:
        if self._closed or self._stopped:
            return
        self._prepare_next()
        if self._jobs.busy:
            return
        wanted = self._wanted()
        if wanted is None:
            self.progressed.emit("")
            return
        study = answers_shown if wanted[0] == ALL else first_figures
        self._jobs.run(wanted, lambda progress: helper(SOON).compute(study, *wanted[1], progress=progress))

    def _on_succeeded(self, wanted: tuple[str, Asked], found: Answers | LikelyAnswers) -> None:
        asked = wanted[1]
        if isinstance(found, Answers):
            self._full[asked] = found
            self._figures[asked] = found.likely
        else:
            self._figures[asked] = found
        self.progressed.emit("")
        self.bands_ready.emit()
        self._next_job()

    def _on_prepared(self, asked: Asked, found: object) -> None:
        self._prepared[asked] = found
        self._next_job()

    def _on_unprepared(self, asked: Asked, message: str) -> None:
        """Go on: nobody asked for it yet."""
        del asked, message
        self._next_job()

    def _on_refused(self, wanted: tuple[str, Asked], message: str) -> None:
        """Say why one has no answer, once, and go on with the others."""
        if wanted[1] not in self._refused:
            self._refused = {*self._refused, wanted[1]}
            self._on_failed(wanted, message)
        self._next_job()

    def _on_failed(self, wanted: Hashable, message: str) -> None:
        del wanted
        self.progressed.emit("")
        self.failed.emit(message)

    def _on_told(self, wanted: tuple[str, Asked], so_far: object) -> None:
        if isinstance(so_far, Early) and wanted[1] == (self.machine(), self._selection.place):
            self.early_ready.emit(so_far)

    def _on_progressed(self, wanted: Hashable, done: int, total: int) -> None:
        shown = wanted == (ALL, (self.machine(), self._selection.place))
        self.progressed.emit(f"bands {done / total:.0%}" if shown else "")

    def _on_cancelled(self, wanted: Hashable) -> None:
        del wanted
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


def _solved(machine: Machine, place: Place, progress: Progress) -> tuple[LikelyAnswers, Solved]:
    del progress
    return likely_answers(machine, place)


def _solved_bytes(found: tuple[LikelyAnswers, Solved]) -> float:
    return FIGURE + found[1].nbytes
