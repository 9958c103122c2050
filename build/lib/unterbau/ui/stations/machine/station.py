"""The Machine station: puts its tools together and turns wishes into edits."""

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from unterbau.brief.targets import SHARES, targets
from unterbau.catalogue.cuts import OWN_CUT, OwnCut
from unterbau.errors import InputError
from unterbau.machine.alternatives import Alternative
from unterbau.machine.changes.linked import change_of
from unterbau.machine.machine import Machine, cost_of, kind_of, link, links, not_standing, part
from unterbau.machine.stepping import step
from unterbau.project import edits
from unterbau.project.project import Candidate
from unterbau.structure.parts import Part
from unterbau.studies.advise import Trial
from unterbau.studies.budget import shop_limits
from unterbau.studies.cutting import chosen_cut
from unterbau.studies.explain import explain
from unterbau.studies.missed import may_miss
from unterbau.ui.commands import Command
from unterbau.ui.document import Document
from unterbau.ui.feed import Feed
from unterbau.ui.selection import Selection
from unterbau.ui.stations.machine.accounts import Accounts
from unterbau.ui.stations.machine.advice import Advice
from unterbau.ui.stations.machine.ahead import neighbours
from unterbau.ui.stations.machine.bench import Bench
from unterbau.ui.stations.machine.candidates import Candidates
from unterbau.ui.stations.machine.changing import Changing
from unterbau.ui.stations.machine.commands import link_commands, station_commands
from unterbau.ui.stations.machine.first_steps import FirstSteps
from unterbau.ui.stations.machine.ghosting import Ghosting
from unterbau.ui.stations.machine.load_path import LoadPath
from unterbau.ui.stations.machine.machine_view import MachineView
from unterbau.ui.stations.machine.part_fields import with_value
from unterbau.ui.stations.machine.readout import Readout
from unterbau.ui.stations.machine.shelf import Shelf
from unterbau.ui.theme import em
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.hairline import hairline

SIZES = "dimensions"


class MachineStation(QWidget):
    """See which link gives, swap it, feel the answer change."""

    trouble = pyqtSignal(str)

    def __init__(
        self, document: Document, selection: Selection, view: ViewSettings, feed: Feed, parent: QWidget | None = None
    ) -> None:
        super().__init__(parent)
        self._document, self._selection, self._settings = document, selection, view
        self.feed = feed
        self.load_path = LoadPath(selection, view, self)
        self.view = MachineView(selection, view, self)
        self.readout = Readout(view, self)
        self.bench = Bench(view, self)
        self.shelf = Shelf(self)
        self.candidates = Candidates(document, selection, view, feed, self.shelf, self)
        self.advice = Advice(self)
        self.accounts = Accounts(document, selection, view, feed, self.view.behind, self)
        self.first_steps = FirstSteps(self)
        self.changing = Changing(document, selection, self.view.viewport, self.view.change_bar, self)
        self.ghosting = Ghosting(document, selection, self.view, self.view.bottom, self)
        self._trials: tuple[Trial, ...] = ()
        self._advised: object = None
        self._build()
        self._connect()
        self._show_cut()

    def commands(self) -> list[Command]:
        """Return what one can do here."""
        return station_commands(self, self._selection)

    def link_commands(self) -> list[Command]:
        """Return a command for each link of the load path."""
        return link_commands(self, self._candidate().machine)

    def begin_change(self, sort: str) -> None:
        """Look through the lens Change and begin one."""
        self.view.use_lens("change")
        self.view.draw_now()
        self.changing.begin(sort)

    def step_part(self, up: bool) -> None:
        """Put in one size smaller or larger of the part on the bench."""
        self._on_stepped(up)

    def choose_link(self, key: str) -> None:
        """Put a link of the chosen machine on the bench."""
        if key in self._known():
            self._selection.choose_link(key)

    def show_sizes(self, attribute: str = "") -> None:
        """Draw the machine's sizes and put them on the bench, one of them to be typed."""
        self.view.use_lens("sizes")
        if attribute:
            self.bench.type_into(attribute)

    def show_cures(self) -> None:
        """List what is worth doing over the whole machine."""
        self.choose_link(SIZES)
        self.bench.show_advice()

    def show_why(self) -> None:
        """Tell why the link on the bench gives."""
        machine, key = self.feed.machine(), self.bench.key
        if key == SIZES:
            key = self.load_path.strip.weakest()
            self.choose_link(key)
        self._explain(machine, key)
        self.bench.show_why()

    def stop(self) -> None:
        """Take back what is being dragged, or stop what is being computed behind the scenes."""
        if self.view.viewport.cancel_drag():
            return
        for asker in (self.advice, *self.view.behind.askers, self.accounts.samples, self.candidates.marks):
            asker.stop()
        self.feed.stop()

    def choose_weakest(self) -> None:
        """Put the weakest link on the bench."""
        self.choose_link(self.load_path.strip.weakest())

    def close_view(self) -> None:
        """Stop looking for alternatives; give the graphics back."""
        self.advice.close()
        self.accounts.samples.close()
        self.candidates.marks.close()
        self.bench.own.solving.close()
        self.view.close_view()

    def _candidate(self) -> Candidate:
        return self._document.project.candidate(self._selection.candidate)

    def _build(self) -> None:
        unit = em()
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        right = QWidget(self)
        right.setProperty("surface", "panel")
        right.setMinimumWidth(round(22.5 * unit))
        right.setMaximumWidth(round(32 * unit))
        column = QVBoxLayout(right)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.readout)
        column.addWidget(hairline())
        self.bench.setMinimumHeight(round(9 * unit))
        column.addWidget(self.bench, 1)
        middle = QHBoxLayout()
        middle.setSpacing(0)
        middle.addWidget(self.view, 7)
        middle.addWidget(hairline(vertical=True))
        middle.addWidget(right, 3)
        box.addWidget(self.load_path)
        box.addWidget(hairline())
        box.addWidget(self.first_steps)
        box.addLayout(middle, 1)
        box.addWidget(hairline())
        box.addWidget(self.shelf)

    def _connect(self) -> None:
        self._document.changed.connect(self._on_project_changed)
        self._selection.link_changed.connect(self._on_link_changed)
        self._selection.place_changed.connect(self._on_place_changed)
        self.feed.likely_ready.connect(self._on_likely)
        self.feed.waiting.connect(self._on_waiting)
        self.feed.bands_ready.connect(self._on_bands)
        self.feed.early_ready.connect(self.readout.show_early)
        self.feed.failed.connect(self.trouble)
        self.feed.progressed.connect(self.readout.busy.setText)
        self.load_path.chosen.connect(self._on_link_clicked)
        self.load_path.pointed.connect(self._selection.point_at)
        self.view.chosen.connect(self._on_link_clicked)
        self.view.lens_changed.connect(self._on_lens_changed)
        self.view.drawn.connect(self._on_drawn)
        self.view.checks_bar.cure_wanted.connect(self._on_cure)
        self.changing.shown.connect(self.view.draw_later.start)
        self.changing.trouble.connect(self.trouble)
        self.view.drawing.dragged.connect(self._on_dragged)
        self.view.drawing.released.connect(self._document.end_gesture)
        self.view.drawing.typing_wanted.connect(self._on_typing_wanted)
        self.load_path.cut_chosen.connect(self._on_cut_chosen)
        self.bench.cut.changed.connect(self._on_own_cut)
        self.bench.why_wanted.connect(self.show_why)
        self.bench.advice.chosen.connect(self._on_trial_chosen)
        self.bench.advice.whole_wanted.connect(self.show_cures)
        self.advice.ready.connect(self._on_advice)
        self.advice.told.connect(self._on_advice)
        self.advice.waiting.connect(self.bench.advice.show_waiting)
        for source in (self.readout, self.load_path):
            source.asked.connect(self.accounts.ask)
        self.view.reach_bar.words.asked.connect(self.accounts.ask)
        self.view.shake_bar.limit.asked.connect(self.accounts.ask)
        self.accounts.ready.connect(self.bench.show_account)
        self.accounts.trouble.connect(self.trouble)
        self.accounts.samples.progressed.connect(self.bench.account.show_waiting)
        self.bench.account.samples_wanted.connect(self.accounts.draw)
        self.bench.account.frame_wanted.connect(self.accounts.save_frame)
        for asker in (self.advice, *self.view.behind.askers):
            asker.failed.connect(self.trouble)
        self._selection.pull_changed.connect(self._on_pull_changed)
        self._settings.changed.connect(self._on_units)
        self.view.behind.limit_found.connect(self.load_path.show_limit)
        self.view.pointed.connect(self._selection.point_at)
        self.candidates.trouble.connect(self.trouble)
        self.candidates.copied.connect(self._on_copied)
        self.bench.edited.connect(self._on_edited)
        self.bench.stepped.connect(self._on_stepped)

    def _on_link_clicked(self, key: str) -> None:
        self.choose_link(key)
        self.first_steps.follow("link")

    def _on_edited(self, key: str, changed: Part, attribute: str) -> None:
        name = self._selection.candidate
        label = link(self._candidate().machine, key).label
        try:
            project = edits.set_part(self._document.project, name, key, changed)
        except InputError as error:
            self.bench.refuse(attribute, error.problem)
            return
        self._document.apply(project, f"{label}: {attribute}")

    def _on_stepped(self, up: bool) -> None:
        key, name = self.bench.key, self._selection.candidate
        changed = step(part(self._candidate().machine, key), up)
        if changed is None:
            return
        try:
            project = edits.set_part(self._document.project, name, key, changed)
        except InputError as error:
            self.trouble.emit(str(error))
            return
        self._document.apply(project, f"{key.replace('_', ' ')}: {'larger' if up else 'smaller'}", f"step/{name}/{key}")

    def _on_project_changed(self, before: object, after: object) -> None:
        if before != after:
            self.first_steps.follow("edit")
        self.candidates.show_cards()
        self._show_cut()

    def _show_cut(self) -> None:
        project = self._document.project
        chosen = chosen_cut(project.cut, project.own_cut)
        self.load_path.show_cut(chosen, SHARES[project.brief.finish] * project.brief.accuracy)
        self.view.show_cut(chosen)
        self.view.show_brief(project.brief)
        self.bench.cut.show_cut(project.own_cut)

    def _show_bench(self, machine: Machine, key: str) -> None:
        project = self._document.project
        limit = shop_limits(machine, project.brief, self._settings.units).get(key, "")
        limit = f"brief: {limit}" if limit else ""
        added = change_of(machine.changes, key)
        if added is not None and added.id in not_standing(machine):
            limit = f"does not stand, and is left away: {not_standing(machine)[added.id]}"
        self.bench.own.belong_to(self._selection.candidate)
        self.bench.show_part(machine, key, project.prices, limit)
        wanted = self._selection.axis if key == SIZES else key
        advised = (wanted, machine.kind, self._selection.candidate)
        if advised != self._advised:
            self._advised = advised
            self._on_advice(())
        self.advice.ask_for(machine, wanted, self._selection.place, project.prices)
        self.feed.prepare(neighbours(machine, key))
        if self.bench.explains and key != SIZES:
            self._explain(machine, key)

    def _explain(self, machine: Machine, key: str) -> None:
        known = self.feed.likely(machine)
        if known is None:
            return  # told when the answers are there
        found = explain(machine, known[1], key, self._selection.axis, self._settings.units)
        self.bench.why.show_explanation(found, self._selection.axis, self._selection.load)

    def _on_advice(self, trials: tuple[Trial, ...]) -> None:
        self._trials = trials
        self.bench.advice.show_trials(
            trials, self._selection.axis, self._document.project.prices.currency, self._settings.units
        )

    def _on_units(self) -> None:
        """Say everything again, as it is read now."""
        self._show_cut()
        self._on_likely()
        self._on_advice(self._trials)

    def _on_pull_changed(self) -> None:
        self._on_advice(self._trials)
        self.first_steps.follow("pull")
        if self.bench.key == SIZES:
            self._show_bench(self.feed.machine(), SIZES)
        if self.bench.explains:
            self._explain(self.feed.machine(), self.bench.key)

    def _on_trial_chosen(self, trial: Trial) -> None:
        self._on_cure(trial.alternative)
        self.first_steps.follow("try")

    def _on_cure(self, cure: Alternative) -> None:
        name = self._selection.candidate
        machine = cure.applied(self._candidate().machine)
        try:
            project = edits.set_machine(self._document.project, name, machine)
        except InputError as error:
            self.trouble.emit(str(error))
            return
        self._document.apply(project, cure.text)

    def _on_cut_chosen(self, cut: str) -> None:
        self._document.apply(edits.set_cut(self._document.project, cut), "cut to be judged by", "cut")
        if cut == OWN_CUT:
            self.bench.show_own_cut()

    def _on_own_cut(self, own: OwnCut) -> None:
        self._document.apply(edits.set_own_cut(self._document.project, own), "a cut of your own", "own cut")

    def _on_lens_changed(self, lens: str) -> None:
        if lens == "sizes":
            self.choose_link(SIZES)

    def _on_dragged(self, attribute: str, value: float) -> None:
        name, machine = self._selection.candidate, self._candidate().machine
        changed = with_value(machine.dimensions, attribute, value)
        words = kind_of(machine).words(attribute)
        try:
            project = edits.set_part(self._document.project, name, SIZES, changed)
        except InputError as error:
            self.view.drawing.refuse(f"{words}: {error.problem}")
            return
        self._document.apply(project, words, f"drag/{name}/{attribute}")

    def _on_drawn(self, lens: str) -> None:
        self.changing.show(lens == "change")

    def _on_typing_wanted(self, attribute: str) -> None:
        self.choose_link(SIZES)
        self.bench.type_into(attribute)

    def _on_link_changed(self, key: str) -> None:
        self._show_bench(self._candidate().machine, key or self.load_path.strip.weakest())

    def _on_copied(self) -> None:
        self.first_steps.follow("copy")

    def _on_place_changed(self) -> None:
        self.first_steps.follow("head")

    def _known(self) -> set[str]:
        machine = self._candidate().machine
        return {one.key for one in (*links(machine), kind_of(machine).size_link)}

    def _on_waiting(self) -> None:
        """Show the changed machine on the bench while its numbers are on their way."""
        key = self._selection.link
        self._show_bench(self.feed.machine(), key if key in self._known() else SIZES)
        self.candidates.show_cards()

    def _on_likely(self) -> None:
        machine = self.feed.machine()
        found = self.feed.likely(machine)
        if found is None:
            return
        likely, solved = found
        project = self._document.project
        same = project.benchmark == self._selection.candidate
        against = None if same else self.feed.figures(project.candidate(project.benchmark).machine)
        self.readout.show_likely(likely, against, "" if same else project.benchmark, self._selection.place)
        self.readout.show_cost(cost_of(machine, project.prices), project.prices)
        self.readout.show_bands(self.feed.full(machine), targets(project.brief), may_miss(machine))
        self.load_path.show_answers(machine, likely)
        if self._selection.link not in self._known():
            self.choose_weakest()
        self._show_bench(machine, self._selection.link)
        self.view.show_answers(machine, likely, solved, self.feed.full(machine) is not None)
        if self.bench.accounts:
            self.accounts.ask(self.bench.accounts)
        self.candidates.show_cards()

    def _on_bands(self) -> None:
        if self.bench.accounts and not self.accounts.waiting:
            self.accounts.ask(self.bench.accounts)
        machine, project = self.feed.machine(), self._document.project
        if project.benchmark != self._selection.candidate and (likely := self.feed.figures(machine)) is not None:
            against = self.feed.figures(project.candidate(project.benchmark).machine)
            self.readout.show_likely(likely, against, project.benchmark, self._selection.place)
        full = self.feed.full(machine)
        self.readout.show_bands(full, targets(project.brief), may_miss(machine))
        self.candidates.show_cards()
        if full is not None:
            self.view.draw_later.bands_are_there()
            self.view.behind.ask_shakes()
