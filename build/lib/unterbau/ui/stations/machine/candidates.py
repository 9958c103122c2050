"""What one does with whole candidates: copy, name, measure against, delete; and their cards."""

from functools import partial

from PyQt6.QtCore import QObject, QPoint, Qt, QTimer, pyqtSignal
from PyQt6.QtWidgets import QMenu

from unterbau.brief.brief import Brief
from unterbau.catalogue.prices import money_text
from unterbau.errors import InputError
from unterbau.machine.machine import KINDS, Machine, bodies_of, cost_of, listed_mass
from unterbau.mechanics.arrays import FloatArray
from unterbau.project import edits
from unterbau.project.fresh import untouched
from unterbau.project.project import Candidate
from unterbau.structure.parts import Place
from unterbau.studies.answers import LikelyAnswers
from unterbau.studies.clash import counted
from unterbau.studies.fitted import fitted
from unterbau.ui.commands import Command
from unterbau.ui.document import Document
from unterbau.ui.feed import Feed
from unterbau.ui.jobs.asker import Asker
from unterbau.ui.selection import Selection
from unterbau.ui.stations.machine.shelf import CardFacts, Shelf
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.thumbnail import outlines
from unterbau.units import Units, mass_text, stiffness_text, unit_text

COMING = "…"
"""Figures that are still on their way."""
TIMES = 10.0
"""From here on a change is told as a multiple, so that it fits a card."""


def times(ratio: float) -> str:
    """Return how many times stiffer, in few letters."""
    if ratio >= TIMES:
        return f"×{ratio:.0f}"
    return f"{ratio - 1:+.0%}".replace("-", "−") if abs(ratio - 1) >= 0.005 else "0%"


class Candidates(QObject):
    """Works the shelf."""

    trouble = pyqtSignal(str)
    told = pyqtSignal(str)
    """How a candidate was started."""
    copied = pyqtSignal()
    started = pyqtSignal(str)
    """A candidate of this kind should be started."""

    def __init__(
        self,
        document: Document,
        selection: Selection,
        view: ViewSettings,
        feed: Feed,
        shelf: Shelf,
        parent: QObject,
    ) -> None:
        super().__init__(parent)
        self._document, self._selection, self._feed, self._shelf = document, selection, feed, shelf
        self._view = view
        self.marks = Asker(counted, self, beside=True)
        self._shown: tuple[str, ...] = ()
        self._later = QTimer(self)
        self._later.setSingleShot(True)
        self._later.timeout.connect(self._show_now)
        """How many pairs of pieces collide, of each candidate's machine."""
        self._faces: dict[Machine, tuple[tuple[float, FloatArray], ...]] = {}
        self.marks.ready.connect(self._on_marks)
        shelf.chosen.connect(selection.choose_candidate)
        shelf.new_wanted.connect(self._on_new)
        shelf.renamed.connect(self._on_renamed)
        shelf.menu_wanted.connect(self._on_menu)

    def commands(self) -> list[Command]:
        """Return what one can do with a candidate."""
        return [
            *self._on_card(),
            Command("next-candidate", "Next candidate", partial(self._walk, 1), "Ctrl+PgDown"),
            Command("previous-candidate", "Previous candidate", partial(self._walk, -1), "Ctrl+PgUp"),
        ]

    def duplicate(self) -> None:
        """Copy the chosen candidate and go on with the copy."""
        project, name = edits.duplicate(self._document.project, self._selection.candidate)
        self._document.apply(project, f"duplicate {self._selection.candidate}")
        self._selection.choose_candidate(name)
        self.copied.emit()

    def start(self, kind_id: str, units: Units = "mm", as_it_comes: bool = False) -> None:
        """Add a candidate of a kind in the brief's size, and look at it; one that nobody touched yet gives way."""
        kind = next(one for one in KINDS if one.id == kind_id)
        before = self._document.project
        found = fitted(kind, Brief() if as_it_comes else before.brief, before.prices, units)
        project, name = edits.add(before, kind.label, found.machine)
        if untouched(before):
            project = edits.delete(project, before.candidates[0].name)
        self._document.apply(project, f"start {kind.label}")
        self._selection.choose_candidate(name)
        self.told.emit(found.words() if found.changed or found.conflicts else "")

    def make_benchmark(self) -> None:
        """Measure the others against the chosen candidate."""
        name = self._selection.candidate
        self._document.apply(edits.set_benchmark(self._document.project, name), f"benchmark {name}")

    def rename(self) -> None:
        """Ask for another name on the card."""
        self._shelf.ask_name(self._selection.candidate)

    def delete(self) -> None:
        """Remove the chosen candidate; undo brings it back."""
        name = self._selection.candidate
        names = [c.name for c in self._document.project.candidates]
        place = names.index(name)
        project = edits.delete(self._document.project, name)
        self._selection.choose_candidate(names[place - 1] if place else names[1])
        self._document.apply(project, f"delete {name}")

    def show_cards(self) -> None:
        """Show every candidate's card: at once where others are there or chosen, else after the numbers."""
        if self._asked() != self._shown:
            self._show_now()
        elif not self._later.isActive():
            self._later.start()

    def _asked(self) -> tuple[str, ...]:
        return (self._selection.candidate, *(one.name for one in self._document.project.candidates))

    def _show_now(self) -> None:
        project = self._document.project
        self._later.stop()
        self._shown = self._asked()
        try:
            bench = self._feed.figures(project.candidate(project.benchmark).machine)
            facts = [self._card(c, project.benchmark, bench) for c in project.candidates]
        except InputError as error:
            self.trouble.emit(str(error))
            return
        self._shelf.show_cards(facts, self._selection.candidate)
        machines = self._machines()
        if machines not in self.marks:
            self.marks.ask(machines)
        there = {candidate.machine for candidate in project.candidates}
        self._faces = {machine: face for machine, face in self._faces.items() if machine in there}

    def _machines(self) -> tuple[Machine, ...]:
        return tuple(candidate.machine for candidate in self._document.project.candidates)

    def _mark(self, machine: Machine) -> int:
        """Return how many pairs of a machine's pieces collide, as far as it is known."""
        counts: dict[Machine, int] = self.marks.known(self._machines()) or {}
        return counts.get(machine, 0)

    def _on_marks(self, counts: object) -> None:
        del counts
        self.show_cards()

    def _on_card(self) -> list[Command]:
        copying = "copy the chosen candidate and go on with the copy"
        return [
            Command("duplicate", "Duplicate candidate", self.duplicate, "Ctrl+D", copying),
            Command("benchmark", "Make this candidate the benchmark", self.make_benchmark, "Ctrl+B"),
            Command("rename", "Rename candidate", self.rename, "F2"),
            Command("delete", "Delete candidate", self.delete, "Ctrl+Delete", enabled=self._can_delete),
        ]

    def _can_delete(self) -> bool:
        return len(self._document.project.candidates) > 1

    def _walk(self, step_by: int) -> None:
        names = [c.name for c in self._document.project.candidates]
        place = names.index(self._selection.candidate) + step_by
        self._selection.choose_candidate(names[max(0, min(len(names) - 1, place))])

    def _on_renamed(self, name: str, new: str) -> None:
        try:
            project = edits.rename(self._document.project, name, new)
        except InputError as error:
            self.trouble.emit(f"the candidate keeps its name: {error.problem}")
            return
        if self._selection.candidate == name:
            self._selection.candidate = new.strip()
        self._document.apply(project, f"rename {name}")

    def new_menu(self) -> QMenu:
        """Return what a new candidate can be: a copy of the chosen one, or a kind of machine in the brief's size."""
        menu = QMenu(self._shelf)
        menu.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        copy = menu.addAction(f"a copy of “{self._selection.candidate}”")
        if copy is not None:
            copy.triggered.connect(self.duplicate)
        menu.addSeparator()
        for kind in KINDS:
            action = menu.addAction(kind.label)
            if action is not None:
                action.setToolTip(f"good: {kind.good}; but: {kind.bad}")
                action.triggered.connect(partial(self._on_kind, kind.id))
        plain = QMenu("as it comes, whatever the brief says", menu)
        for kind in KINDS:
            action = plain.addAction(kind.label)
            if action is not None:
                action.triggered.connect(partial(self._on_plain, kind.id))
        menu.addSeparator()
        menu.addMenu(plain)
        return menu

    def _on_new(self, place: QPoint) -> None:
        menu = self.new_menu()
        menu.popup(place - QPoint(0, menu.sizeHint().height()))

    def _on_kind(self, kind: str, checked: bool = False) -> None:
        del checked
        self.started.emit(kind)

    def _on_plain(self, kind: str, checked: bool = False) -> None:
        del checked
        self.start(kind, as_it_comes=True)

    def _on_menu(self, name: str, place: QPoint) -> None:
        self._selection.choose_candidate(name)
        menu = QMenu(self._shelf)
        menu.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        for command in self._on_card():
            action = menu.addAction(command.text)
            if action is not None:
                action.setEnabled(command.enabled())
                action.triggered.connect(command.run)
        menu.popup(place)

    def _card(self, candidate: Candidate, benchmark: str, against: LikelyAnswers | None) -> CardFacts:
        """Return what a card shows; figures that are still on their way are dots."""
        likely = self._feed.figures(candidate.machine)
        prices, units = self._document.project.prices, self._view.units
        money = money_text(cost_of(candidate.machine, prices).money, prices)
        star = candidate.name == benchmark
        stiffness, change = COMING, ""
        if likely is not None:
            stiff = 1 / likely.compliance.diagonal()
            stiffness = " · ".join(stiffness_text(k, units).split(" ")[0] for k in stiff.tolist())
            if against is not None:
                change = "  ".join(times(r) for r in (stiff * against.compliance.diagonal()).tolist())
        if candidate.machine not in self._faces:
            self._faces[candidate.machine] = tuple(outlines(bodies_of(candidate.machine, Place())))
        return CardFacts(
            candidate.name, star, stiffness, unit_text("N/µm", units), "★ benchmark" if star else change,
            mass_text(listed_mass(candidate.machine), units), money,
            self._faces[candidate.machine], self._mark(candidate.machine),
        )  # fmt: skip
