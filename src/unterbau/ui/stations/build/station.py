"""The Build station: steps with their dates, what stands by then, the bench of a step, and what the machine teaches."""

from dataclasses import replace
from datetime import date
from pathlib import Path
from typing import Literal

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QHBoxLayout, QListWidgetItem, QPushButton, QVBoxLayout, QWidget

from unterbau.errors import InputError, UnterbauError
from unterbau.files.atomic import write_atomically
from unterbau.files.pour_calendar import calendar_text
from unterbau.files.steps_pdf import steps_pdf
from unterbau.machine.machine import bodies_of
from unterbau.project import edits
from unterbau.shop.build.hold_points import HoldReading, objections, outside_of, standing, still_needed
from unterbau.shop.build.order import with_order
from unterbau.shop.build.schedule import Schedule, broken_by, doable
from unterbau.shop.build.steps import Step
from unterbau.shop.build.tests import Sort, Test
from unterbau.shop.instruments.reading import Reading
from unterbau.shop.pour.cure import Event
from unterbau.shop.state import ShopState
from unterbau.structure.parts import Place
from unterbau.studies.building import marked_done
from unterbau.studies.learning.as_built import as_built
from unterbau.studies.learning.learn import Learned
from unterbau.ui.document import Document
from unterbau.ui.jobs.asker import Asker
from unterbau.ui.selection import Selection
from unterbau.ui.stations.build.behind import Planned, learned, modes, planned
from unterbau.ui.stations.build.bench_panel import BenchPanel
from unterbau.ui.stations.build.cuts_panel import CutsPanel
from unterbau.ui.stations.build.ears import Ears
from unterbau.ui.stations.build.log_panel import LogPanel
from unterbau.ui.stations.build.lower import Lower
from unterbau.ui.stations.build.proof import ProofView
from unterbau.ui.stations.build.records import Records
from unterbau.ui.stations.build.step_list import StepList
from unterbau.ui.stations.build.step_words import balance_words, when_words
from unterbau.ui.stations.build.tap_panel import TapPanel
from unterbau.ui.stations.build.test_row import TestRow
from unterbau.ui.theme import em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.followed import FollowingPage
from unterbau.ui.widgets.hairline import hairline
from unterbau.ui.widgets.instrument_box import Answer
from unterbau.ui.widgets.labels import heading, label
from unterbau.ui.widgets.save_path import ask_save_path
from unterbau.ui.widgets.scrolled_page import ScrolledPage
from unterbau.ui.widgets.where_view import WhereView


class BuildStation(FollowingPage):
    """What is built, measured and learned."""

    def __init__(
        self, document: Document, selection: Selection, view: ViewSettings, parent: QWidget | None = None
    ) -> None:
        super().__init__(parent)
        self._document, self._selection, self._view = document, selection, view
        self._steps: tuple[Step, ...] = ()
        self._schedule: Schedule | None = None
        self._chosen = ""
        self.plans, self.lessons = Asker(planned, self), Asker(learned, self)
        self.summary, self.list = label("", "muted", 0.94), StepList(self)
        self.dates, self.paper = QPushButton("dates …", self), QPushButton("print …", self)
        self.where, self.stands = WhereView(self), label("", "muted", 0.88)
        self.bench, self.proof = BenchPanel(view, self), ProofView(view, self)
        self.tests, self.taught = TestRow(view, self), label("", size=0.92)
        self._loop, self.ears = "", Ears(view, self)
        self._learned: Learned | None = None
        self.tap, self.modes = TapPanel(self), Asker(modes, self)
        self.records = Records(document, selection, LogPanel(self), CutsPanel(view, self), self)
        self.records.trouble.connect(self.trouble)
        self.records.wrote.connect(self.wrote)
        self.built, self.revealed = QPushButton("as built: a candidate", self), QPushButton("what was hidden?", self)
        self._build()
        self.list.currentRowChanged.connect(self._on_row)
        self.list.itemActivated.connect(self._on_activated)
        self.list.moved.connect(self._on_moved)
        self.bench.done_wanted.connect(self._on_done)
        self.bench.undone_wanted.connect(self._on_undone)
        self.tests.added.connect(self._on_test)
        self.built.clicked.connect(self._on_built)
        self.tests.told.connect(self._on_loop)
        self.tests.cleared.connect(self._on_cleared)
        self.tests.recording_wanted.connect(self.ears.ask)
        self.ears.heard.connect(self._on_heard)
        self.ears.listened.connect(self.tap.show_heard)
        self.modes.ready.connect(self.tap.show_modes)
        self.ears.recorded.connect(self.records.keep_recording)
        self.ears.trouble.connect(self.trouble)
        self.dates.clicked.connect(self._ask_dates)
        self.paper.clicked.connect(self._ask_paper)
        instrument = self.bench.instrument
        self.bench.read_wanted.connect(lambda bench: instrument.ask("bench", bench))
        self.tests.read_wanted.connect(instrument.ask)
        instrument.said.connect(self._on_said)
        instrument.trouble.connect(self.trouble)
        instrument.changed.connect(self._on_instrument)
        self.revealed.clicked.connect(lambda: instrument.ask("hidden"))
        self._on_instrument()
        self.plans.ready.connect(self._on_planned)
        self.lessons.ready.connect(self._on_learned)
        for asker in (self.plans, self.lessons, self.modes):
            asker.failed.connect(self.trouble)
        self.follow(document, selection, view)

    def show_machine(self) -> None:
        """Ask for the steps of the chosen candidate and what its tests taught."""
        project, name = self._document.project, self._selection.candidate
        machine = project.candidate(name).machine
        self.bench.instrument.show_machine(machine)
        self.plans.ask((machine, project.shop, name, project.brief, date.today()))
        self.lessons.ask((machine, self._mine()))
        self.tests.show_tests(self._mine())
        self.records.show()
        self.modes.ask(machine)

    def choose(self, step: str) -> None:
        """Show a step by its id."""
        self._chosen = step
        for row in range(self.list.count()):
            item = self.list.item(row)
            if item is not None and item.data(Qt.ItemDataRole.UserRole) == step and row != self.list.currentRow():
                self.list.setCurrentRow(row)
                return
        self._show_step()

    def save_dates(self, path: Path) -> None:
        """Write the steps as iCalendar; a failure is said."""
        rows = self._schedule.rows if self._schedule is not None else ()
        text = calendar_text(self._selection.candidate, tuple(Event(one.start, one.step.words) for one in rows), "1")
        try:
            write_atomically(path, text)
        except UnterbauError as error:
            self.trouble.emit(str(error))
            return
        self.wrote.emit(path)

    def print_steps(self, path: Path) -> None:
        """Write the steps as PDF; a failure is said."""
        rows = {one.step.id: one for one in self._schedule.rows} if self._schedule is not None else {}
        by_id = {one.id: one for one in self._steps}
        order = tuple(by_id[name] for name in self.list.ids())
        data = steps_pdf(self._selection.candidate, order, rows, self._done(), self._view.units)
        try:
            write_atomically(path, data)
        except UnterbauError as error:
            self.trouble.emit(str(error))
            return
        self.wrote.emit(path)

    def close_station(self) -> None:
        """Stop what is computed behind."""
        self.plans.close()
        self.lessons.close()
        self.bench.instrument.asker.close()
        self.records.judging.close()
        self.modes.close()

    def _mine(self) -> tuple[Test, ...]:
        return tuple(one for one in self._document.project.shop.tests if one.candidate == self._selection.candidate)

    def _done(self) -> frozenset[str]:
        """Return the steps that are done and whose needs are done."""
        return standing(self._steps, self._document.project.shop.done, self._selection.candidate)

    def _on_planned(self, planned: Planned) -> None:
        self._steps, self._schedule = planned
        done, now = self._done(), doable(self._steps, self._done())
        rows = {one.step.id: one for one in self._schedule.rows} if self._schedule is not None else {}
        order = [one for one in self._steps if one.id in done] + [one.step for one in rows.values()]
        order += [one for one in self._steps if one not in order]  # taken back while these were planned
        if self._chosen not in {one.id for one in self._steps}:
            self._chosen = next(iter(now), self._steps[0].id)
        outside = outside_of(self._document.project.shop.done, self._selection.candidate)
        self.list.show_steps(order, rows, done, now, self._chosen, outside)
        ids = [one.id for one in order]
        left = sum(one.step.hours for one in rows.values())
        when = self._schedule.ready if self._schedule is not None else None
        year = f" {when:%Y}" if when is not None and when.year != date.today().year else ""
        ready = f"; {left:.0f} h left, ready {when:%d %b}{year}" if when is not None else ""
        self.summary.setText(f"{len(done & set(ids))} of {len(ids)} done{ready}")
        self._show_step()

    def _show_step(self) -> None:
        step = next((one for one in self._steps if one.id == self._chosen), None)
        rows = self._schedule.rows if self._schedule is not None else ()
        row = next((one for one in rows if one.step.id == self._chosen), None)
        done = self._done()
        name, shop = self._selection.candidate, self._document.project.shop
        told = when_words(row, shop.done, name, self._chosen, self._view.units)
        self.bench.show_step(step, self._chosen in done, told)
        fitted: list[str] = []
        for one in self._steps:
            if one.id in done or one.id == self._chosen:
                fitted += [name for name in one.pieces if not one.id.startswith("parts")]
        machine = self._document.project.candidate(self._selection.candidate).machine
        self.where.show_bodies(bodies_of(machine, Place()), tuple(fitted))
        stands = f"standing then: {', '.join(dict.fromkeys(fitted))}" if fitted else "nothing stands yet"
        tips = balance_words(step.balance, self._view.units) if step is not None and step.balance is not None else ""
        self.stands.setText("\n\n".join(one for one in (stands, tips) if one))

    def _on_learned(self, found: Learned) -> None:
        tests = self._mine()
        self._learned = found
        self.built.setEnabled(bool(tests))
        self.proof.show_learned(found, tests)
        labels = {one.key: one.label for one in found.unknowns}
        words = [f"probably loose: {' or '.join(labels[key] for key in group)}" for group in found.loose]
        if found.suspected:
            maybe = ", ".join(f"{labels[key]} ({chance:.0%})" for key, chance in found.suspected)
            words.append(f"perhaps loose, the tests do not tell yet: {maybe}")
        words += [f"next test: {found.next_test}"] if found.next_test else []
        odd = [one for one in found.compared if one.surprise > 3.0]
        words += [f"{len(odd)} readings are far from what was predicted"] if odd else []
        self.taught.setText("; ".join([self._loop, *words] if self._loop else words))

    def _on_row(self, row: int) -> None:
        item = self.list.item(row)
        if item is not None:
            self.choose(str(item.data(Qt.ItemDataRole.UserRole)))

    def _on_activated(self, _item: QListWidgetItem) -> None:
        self.bench.done.click()

    def _on_moved(self, order: tuple[str, ...]) -> None:
        """Take another order of the steps; one that breaks what they need is refused, and said."""
        broken = broken_by(self._steps, order)
        if broken:
            more = f", and {len(broken) - 1} more" if len(broken) > 1 else ""
            self.trouble.emit(f"not in this order: {broken[0]}{more}")
            self._on_planned((self._steps, self._schedule))
            return
        shop, name = self._document.project.shop, self._selection.candidate
        self._set(replace(shop, orders=with_order(shop.orders, name, order)), "order of the steps")

    def _on_done(self, step: Step, reading: HoldReading | None, reason: str) -> None:
        shop, name = self._document.project.shop, self._selection.candidate
        needed = still_needed(step, self._steps, self._done())
        if needed:
            more = f" (and {len(needed) - 1} more)" if len(needed) > 1 else ""
            self.bench.refuse(f"This step needs another first: “{needed[0].words}”{more}.")
            return
        against = objections(step, self._steps, shop.done, name, reading, self._view.units)
        if against and not reason:
            self.bench.ask_reason(against)
            return
        marked = marked_done(shop, name, step, reading, against, reason, date.today())
        self._set(marked, f"done: {step.words}")

    def _on_undone(self, step: Step) -> None:
        shop, name = self._document.project.shop, self._selection.candidate
        rest = tuple(one for one in shop.done if (one.candidate, one.step) != (name, step.id))
        self._set(replace(shop, done=rest), f"not done: {step.words}")

    def _on_test(self, sort: str, axis: str, value: float, play: float = 0.0) -> None:
        shop = self._document.project.shop
        sorts: dict[str, tuple[Sort, float]] = {"push": ("push", 0.03), "tap": ("tap", 0.01), "weigh": ("weigh", 0.02)}
        known: dict[str, Literal["X", "Y", "Z"]] = {"X": "X", "Y": "Y", "Z": "Z"}
        kind, doubt = sorts[sort]
        one = Test(self._selection.candidate, kind, value, doubt, known[axis], play=play, when=date.today().isoformat())
        self._set(replace(shop, tests=(*shop.tests, one)), f"test: {sort}")

    def _on_built(self) -> None:
        """Put the machine as built beside the others, and look at it."""
        name = self._selection.candidate
        if self._learned is None:
            return
        try:
            machine = as_built(self._document.project.candidate(name).machine, self._learned)
            project, known = edits.add(self._document.project, f"{name}, as built", machine)
        except InputError as error:
            self.trouble.emit(str(error))
            return
        self._document.apply(project, f"as built: {name}")
        self._selection.choose_candidate(known)

    def _on_instrument(self) -> None:
        instrument = self.bench.instrument
        self.tests.show_instrument(instrument.is_typed)
        self.revealed.setVisible(instrument.is_rehearsed)

    def _on_said(self, answer: Answer) -> None:
        """Put what an instrument says where it belongs."""
        what, reading = answer.asked.what, answer.reading
        if what == "hidden":
            self.taught.setText(answer.text)
        elif reading is not None:
            self._on_reading(what, reading)
        elif what == "bench":
            if answer.asked.name == self.bench.bench:
                self.bench.take(answer.text)
        elif what == "push":
            self.tests.take_push(answer.forces, answer.readings)
        else:
            if answer.heard is not None:
                self.tap.show_heard(answer.heard)
            self.tests.take(answer.value)

    def _on_reading(self, what: str, reading: Reading) -> None:
        """Put one reading of a serial port where it belongs; one of another sort is refused."""
        if what in ("bench", "push") and reading.sort == "length":
            (self.bench if what == "bench" else self.tests).take_more(reading.value)
        elif what == "weigh" and reading.sort == "mass":
            self.tests.take(reading.value)
        else:
            wanted = {"bench": "a length", "push": "a length", "weigh": "a mass"}.get(what, "a recording")
            self.trouble.emit(f"the instrument sent a {reading.sort}; expected {wanted} here")

    def _on_loop(self, words: str) -> None:
        self._loop = words

    def _on_cleared(self) -> None:
        shop, name = self._document.project.shop, self._selection.candidate
        self._set(replace(shop, tests=tuple(one for one in shop.tests if one.candidate != name)), "tests forgotten")

    def _set(self, shop: ShopState, text: str) -> None:
        try:
            self._document.apply(edits.set_shop(self._document.project, shop), text)
        except InputError as error:
            self.trouble.emit(str(error))

    def _on_heard(self, frequency: float, words: str) -> None:
        self._loop = words or self._loop
        self._on_test("tap", "X", frequency)

    def _ask_paper(self) -> None:
        path = ask_save_path(self, "Print the steps", Path.home() / "steps.pdf", "PDF (*.pdf)")
        if path is not None:
            self.print_steps(path)

    def _ask_dates(self) -> None:
        path = ask_save_path(self, "Save the dates", Path.home() / "build.ics", "iCalendar (*.ics)")
        if path is not None:
            self.save_dates(path)

    def _build(self) -> None:
        unit = em()
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        top = QHBoxLayout()
        top.setSpacing(0)
        left = QVBoxLayout()
        left.setContentsMargins(round(1.1 * unit), round(0.5 * unit), round(0.6 * unit), round(0.4 * unit))
        head = QHBoxLayout()
        head.addWidget(heading("steps"))
        head.addSpacing(round(0.6 * unit))
        head.addWidget(self.summary, 1)
        for button, tip in ((self.paper, "the steps as PDF, to tick"), (self.dates, "the steps as iCalendar")):
            button.setFont(font(0.88))
            button.setProperty("small", True)
            button.setToolTip(tip)
            head.addSpacing(round(0.3 * unit))
            head.addWidget(button)
        left.addLayout(head)
        left.addWidget(self.list, 1)
        top.addLayout(left, 5)
        top.addWidget(hairline(vertical=True))
        middle = QVBoxLayout()
        middle.setContentsMargins(round(0.8 * unit), round(0.5 * unit), round(0.8 * unit), round(0.4 * unit))
        middle.addWidget(heading("what stands then"))
        self.where.setFixedHeight(round(17 * unit))
        middle.addWidget(self.where)
        self.stands.setWordWrap(True)
        middle.addWidget(self.stands)
        middle.addStretch(1)
        top.addLayout(middle, 4)
        top.addWidget(hairline(vertical=True))
        self.bench.setMinimumWidth(round(21 * unit))
        top.addWidget(ScrolledPage(self.bench, self), 4)
        box.addLayout(top, 1)
        box.addWidget(hairline())
        proved, low, row = QWidget(self), QVBoxLayout(), QHBoxLayout()
        low.setContentsMargins(0, 0, 0, 0)
        for button, tip in (
            (self.revealed, "what was wrong with the rehearsed machine, to compare with what was found"),
            (self.built, "the machine with what its tests say of its joints, guides and drives; improve it from there"),
        ):
            button.setFont(font(0.86))
            button.setProperty("small", True)
            button.setToolTip(tip)
        row.addWidget(self.tests, 1)
        row.addWidget(self.revealed)
        row.addWidget(self.built)
        low.addLayout(row)
        low.addWidget(self.proof)
        self.taught.setWordWrap(True)
        low.addWidget(self.taught)
        low.addStretch(1)
        proved.setLayout(low)
        self.below = Lower((proved, self.records.cuts, self.records.log, self.tap), self)
        box.addWidget(self.below)
