"""The Brief station: what the machine is for, what follows, and kinds to start from."""

from dataclasses import replace

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtGui import QShowEvent
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget
from typing_extensions import override

from unterbau.brief.brief import Brief
from unterbau.brief.targets import targets
from unterbau.errors import InputError
from unterbau.machine.machine import Machine
from unterbau.progress import Progress
from unterbau.project import edits
from unterbau.studies.budget import Budget, Cure, Finding, budget
from unterbau.studies.propose import Proposal
from unterbau.studies.purchase.check import Check
from unterbau.studies.purchase.checks import checks
from unterbau.ui.document import Document
from unterbau.ui.feed import Feed
from unterbau.ui.jobs.asker import Asker
from unterbau.ui.selection import Selection
from unterbau.ui.stations.brief.answers import Findings, TargetsPanel
from unterbau.ui.stations.brief.form import BriefForm
from unterbau.ui.stations.brief.proposing import Proposals
from unterbau.ui.stations.brief.silhouettes import Silhouettes
from unterbau.ui.stations.brief.sketch import BudgetSketch
from unterbau.ui.theme import em
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.hairline import hairline
from unterbau.ui.widgets.labels import heading, label
from unterbau.units import Units


class BriefStation(QWidget):
    """Answers at once, against the candidate that is looked at."""

    trouble = pyqtSignal(str)
    kind_wanted = pyqtSignal(str)
    """A candidate of this kind should be started."""
    cure_wanted = pyqtSignal(str)
    """A link, or a size after `dimensions.`, should be worked on."""

    def __init__(
        self, document: Document, selection: Selection, view: ViewSettings, feed: Feed, parent: QWidget | None = None
    ) -> None:
        super().__init__(parent)
        self._document, self._selection, self._view, self._feed = document, selection, view, feed
        self.form = BriefForm(view, self)
        self.targets = TargetsPanel(self)
        self.sketch = BudgetSketch(view, self)
        self.findings = Findings(self)
        self.chains = label("", "muted", 0.86)
        self.kinds = Silhouettes(self)
        self.proposals = Proposals(self)
        self._checks = Asker(_check, self)
        self._found: Budget | None = None
        self._build()
        self.form.wanted.connect(self._on_wanted)
        self.kinds.chosen.connect(self.kind_wanted)
        self.proposals.taken.connect(self._on_taken)
        self.proposals.trouble.connect(self.trouble)
        self.findings.cure_wanted.connect(self.cure_wanted)
        self.findings.cure_done.connect(self._on_cure)
        self.sketch.cure_wanted.connect(self.cure_wanted)
        document.changed.connect(self._on_changed)
        selection.candidate_changed.connect(self._on_changed)
        feed.bands_ready.connect(self.refresh)
        self._checks.ready.connect(self._show_findings)
        view.changed.connect(self.refresh)

    @override
    def showEvent(self, event: QShowEvent | None) -> None:
        super().showEvent(event)
        self.refresh()

    def refresh(self) -> None:
        """Show the brief and what follows, if the station is open."""
        if not self.isVisible():
            return
        project = self._document.project
        try:
            candidate = project.candidate(self._selection.candidate)
            found = budget(candidate.machine, project.brief, project.prices, self._view.units)
        except InputError as error:
            self.trouble.emit(str(error))
            return
        self.form.show_brief(project.brief)
        self.proposals.show_brief(project.brief, project.prices, self._view.units)
        answers = self._feed.full(candidate.machine)
        self.targets.show_targets(targets(project.brief, self._view.units), answers, candidate.name, self._view.units)
        self.sketch.show_budget(candidate.machine, project.brief, found)
        self._found = found
        asked = (candidate.machine, project.brief, self._view.units)
        self._show_findings(self._checks.known(asked) or ())
        if asked not in self._checks:
            self._checks.ask(asked)
        lines = [*(one.words(self._view.units) for one in found.chains), found.heights]
        self.chains.setText("\n".join(line for line in lines if line))

    def close_station(self) -> None:
        """Stop what is computed behind."""
        self._checks.close()
        self.proposals.close_proposals()

    def _show_findings(self, checked: tuple[Check, ...]) -> None:
        """Show what fits, and of what was checked before buying what fails."""
        if self._found is None:
            return
        failed = tuple(
            Finding(f"{one.name}: {one.asked}; helps: {one.cure}", fits=False, key=one.key)
            for one in checked if one.verdict == "fail"
        )  # fmt: skip
        self.findings.show_findings((*self._found.findings, *failed))

    def _build(self) -> None:
        unit = em()
        self.chains.setWordWrap(True)
        self.form.setMinimumWidth(round(20 * unit))
        self.form.setMaximumWidth(round(27 * unit))
        right = QVBoxLayout()
        right.setContentsMargins(round(1.2 * unit), round(0.7 * unit), round(1.2 * unit), round(0.4 * unit))
        right.setSpacing(round(0.5 * unit))
        right.addWidget(self.targets)
        middle = QHBoxLayout()
        drawn, listed = QVBoxLayout(), QVBoxLayout()
        drawn.addWidget(heading("travel and height"))
        drawn.addWidget(self.sketch, 1)
        drawn.addWidget(self.chains)
        listed.addWidget(heading("does it fit"))
        listed.addWidget(self.findings, 1)
        middle.addLayout(drawn, 5)
        middle.addLayout(listed, 3)
        right.addLayout(middle, 1)
        top = QHBoxLayout()
        top.addWidget(heading("start a candidate"))
        top.addWidget(label("the kinds these builders make; each starts in the brief's size", "muted", 0.86))
        top.addStretch()
        right.addLayout(top)
        right.addWidget(self.kinds)
        right.addWidget(self.proposals)
        box = QHBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        box.addWidget(self.form, 2)
        box.addWidget(hairline(vertical=True))
        box.addLayout(right, 7)

    def _on_wanted(self, brief: Brief, attribute: str) -> None:
        try:
            project = edits.set_brief(self._document.project, brief)
        except InputError as error:
            self.form.refuse(error.where, error.problem)
            return
        key = "brief/last_machine" if attribute == "last_machine" else ""
        self._document.apply(project, "brief", key)

    def _on_taken(self, one: Proposal) -> None:
        """Make a proposal a candidate, and look at it."""
        project, name = edits.add(self._document.project, f"{one.kind.label}, proposed", one.machine)
        self._document.apply(project, f"proposal: {one.kind.label}")
        self._selection.choose_candidate(name)

    def _on_cure(self, cure: Cure) -> None:
        """Change a size as a finding says; where the machine cannot be built so, say why."""
        name = self._selection.candidate
        machine = self._document.project.candidate(name).machine
        sizes = replace(machine.dimensions, **{cure.attribute: cure.value})  # type: ignore[arg-type]
        try:
            project = edits.set_part(self._document.project, name, "dimensions", sizes)
        except InputError as error:
            self.trouble.emit(f"{cure.words} alone does not do it: {error.problem}.")
            return
        self._document.apply(project, cure.words)

    def _on_changed(self) -> None:
        self.refresh()


def _check(asked: tuple[Machine, Brief, Units], progress: Progress) -> tuple[Check, ...]:
    return checks(*asked, progress)
