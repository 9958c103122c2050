"""The Build station: steps with their dates, what stands by then, the bench of a step, and what the machine teaches."""

from dataclasses import replace
from datetime import date
from pathlib import Path
from typing import Literal

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QFileDialog, QHBoxLayout, QListWidget, QListWidgetItem, QPushButton, QVBoxLayout, QWidget

from unterbau.errors import InputError, UnterbauError
from unterbau.files.atomic import write_atomically
from unterbau.files.pour_calendar import calendar_text
from unterbau.files.wav import read_wav
from unterbau.machine.machine import Machine, bodies_of
from unterbau.progress import Progress
from unterbau.project import edits
from unterbau.shop.build.done import Done
from unterbau.shop.build.schedule import Schedule, doable
from unterbau.shop.build.steps import Step
from unterbau.shop.build.tests import Sort, Test
from unterbau.shop.measure.tap import tap_test
from unterbau.shop.pour.cure import Event
from unterbau.shop.state import ShopState
from unterbau.structure.parts import Place
from unterbau.studies.building import build_schedule, build_steps
from unterbau.studies.learning.as_built import as_built
from unterbau.studies.learning.learn import Learned, learn
from unterbau.ui.document import Document
from unterbau.ui.jobs.asker import Asker
from unterbau.ui.selection import Selection
from unterbau.ui.stations.build.bench_panel import BenchPanel
from unterbau.ui.stations.build.proof import ProofView
from unterbau.ui.stations.build.test_row import TestRow
from unterbau.ui.theme import em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.followed import FollowingPage
from unterbau.ui.widgets.hairline import hairline
from unterbau.ui.widgets.labels import heading, label
from unterbau.ui.widgets.plain_tip import plain_tip
from unterbau.ui.widgets.scrolled_page import ScrolledPage
from unterbau.ui.widgets.where_view import WhereView

Planned = tuple[tuple[Step, ...], Schedule | None]
MARKS = {"done": "✓", "now": "▸", "hold": "◇", "later": " "}


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
        self.plans, self.lessons = Asker(_planned, self), Asker(_learned, self)
        self.summary, self.list = label("", "muted", 0.94), QListWidget(self)
        self.dates = QPushButton("dates …", self)
        self.where, self.stands = WhereView(self), label("", "muted", 0.88)
        self.bench, self.proof = BenchPanel(view, self), ProofView(view, self)
        self.tests, self.taught = TestRow(view, self), label("", size=0.92)
        self._loop = ""
        self._learned: Learned | None = None
        self.built = QPushButton("as built: a candidate", self)
        self._build()
        self.list.currentRowChanged.connect(self._on_row)
        self.list.itemActivated.connect(self._on_activated)
        self.bench.done_wanted.connect(self._on_done)
        self.bench.undone_wanted.connect(self._on_undone)
        self.tests.added.connect(self._on_test)
        self.built.clicked.connect(self._on_built)
        self.tests.told.connect(self._on_loop)
        self.tests.cleared.connect(self._on_cleared)
        self.tests.recording_wanted.connect(self._ask_recording)
        self.dates.clicked.connect(self._ask_dates)
        self.plans.ready.connect(self._on_planned)
        self.lessons.ready.connect(self._on_learned)
        for asker in (self.plans, self.lessons):
            asker.failed.connect(self.trouble)
        self.follow(document, selection, view)

    def show_machine(self) -> None:
        """Ask for the steps of the chosen candidate and what its tests taught."""
        project, name = self._document.project, self._selection.candidate
        machine, brief = project.candidate(name).machine, project.brief
        self.plans.ask((machine, project.shop, name, brief.lift, brief.tools, date.today()))
        self.lessons.ask((machine, self._mine()))
        self.tests.show_tests(self._mine())

    def choose(self, step: str) -> None:
        """Show a step by its id."""
        self._chosen = step
        for row in range(self.list.count()):
            item = self.list.item(row)
            if item is not None and item.data(Qt.ItemDataRole.UserRole) == step and row != self.list.currentRow():
                self.list.setCurrentRow(row)
                return
        self._show_step()

    def read_recording(self, path: Path) -> None:
        """Take the lowest frequency of a recording of a tap as a test; a failure is said."""
        try:
            found = tap_test(*read_wav(path))
            if not found.peaks:
                raise InputError(path.name, "nothing stands out in it")
        except UnterbauError as error:
            self.trouble.emit(str(error))
            return
        loudest = max(found.peaks, key=lambda one: one.height)
        self._on_test("tap", "X", loudest.frequency)

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

    def close_station(self) -> None:
        """Stop what is computed behind."""
        self.plans.close()
        self.lessons.close()

    def _mine(self) -> tuple[Test, ...]:
        return tuple(one for one in self._document.project.shop.tests if one.candidate == self._selection.candidate)

    def _done(self) -> frozenset[str]:
        name = self._selection.candidate
        return frozenset(one.step for one in self._document.project.shop.done if one.candidate == name)

    def _on_planned(self, planned: Planned) -> None:
        self._steps, self._schedule = planned
        done, now = self._done(), doable(self._steps, self._done())
        rows = {one.step.id: one for one in self._schedule.rows} if self._schedule is not None else {}
        order = [one for one in self._steps if one.id in done] + [one.step for one in rows.values()]
        if self._chosen not in {one.id for one in self._steps}:
            self._chosen = next(iter(now), self._steps[0].id)
        self.list.blockSignals(True)
        self.list.clear()
        for one in order:
            mark = "done" if one.id in done else "now" if one.id in now else "hold" if one.hold else "later"
            when = f"{rows[one.id].start:%d %b}  " if one.id in rows else ""
            item = QListWidgetItem(f"{MARKS[mark]}  {when}{one.words}", self.list)
            item.setData(Qt.ItemDataRole.UserRole, one.id)
            item.setToolTip(plain_tip(f"{one.words}; {one.hours:.1f} h" + (f"; {one.caution}" if one.caution else "")))
        ids = [one.id for one in order]
        self.list.setCurrentRow(ids.index(self._chosen))
        self.list.blockSignals(False)
        left = sum(one.step.hours for one in rows.values())
        ready = f"; {left:.0f} h left, ready {self._schedule.ready:%d %b %Y}" if self._schedule else ""
        self.summary.setText(f"{len(done & set(ids))} of {len(ids)} done{ready}")
        self._show_step()

    def _show_step(self) -> None:
        step = next((one for one in self._steps if one.id == self._chosen), None)
        rows = self._schedule.rows if self._schedule is not None else ()
        row = next((one for one in rows if one.step.id == self._chosen), None)
        done = self._done()
        told = f"{row.start:%a %d %b}, {row.step.hours:.1f} h" if row is not None else "done"
        if row is not None and row.critical:
            told += "; the whole waits for it"
        self.bench.show_step(step, self._chosen in done, told)
        fitted: list[str] = []
        for one in self._steps:
            if one.id in done or one.id == self._chosen:
                fitted += [name for name in one.pieces if not one.id.startswith("parts")]
        machine = self._document.project.candidate(self._selection.candidate).machine
        self.where.show_bodies(bodies_of(machine, Place()), tuple(fitted))
        self.stands.setText(f"standing then: {', '.join(dict.fromkeys(fitted))}" if fitted else "nothing stands yet")

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

    def _on_done(self, step: Step, value: float, uncertainty: float) -> None:
        shop, name = self._document.project.shop, self._selection.candidate
        one = Done(name, step.id, date.today().isoformat(), value, uncertainty)
        self._set(replace(shop, done=(*shop.done, one)), f"done: {step.words}")

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

    def _ask_recording(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, "A recording of a tap", str(Path.home()), "WAV (*.wav)")
        if name:
            self.read_recording(Path(name))

    def _ask_dates(self) -> None:
        start = str(Path.home() / "build.ics")
        name, _ = QFileDialog.getSaveFileName(self, "Save the dates", start, "iCalendar (*.ics)")
        if name:
            self.save_dates(Path(name))

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
        self.dates.setFont(font(0.88))
        self.dates.setProperty("small", True)
        self.dates.setToolTip("the steps as iCalendar")
        head.addWidget(self.dates)
        left.addLayout(head)
        self.list.setAccessibleName("Steps of the build; Enter marks one as done")
        self.list.setFont(font(0.92))
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.list.setTextElideMode(Qt.TextElideMode.ElideRight)
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
        low = QVBoxLayout()
        low.setContentsMargins(round(1.1 * unit), round(0.4 * unit), round(1.1 * unit), round(0.5 * unit))
        row = QHBoxLayout()
        row.addWidget(heading("prediction and measurement"))
        row.addStretch(1)
        self.built.setFont(font(0.86))
        self.built.setProperty("small", True)
        self.built.setToolTip(
            "the machine with what its tests say of its joints, guides and drives; improve it from there"
        )
        row.addWidget(self.built)
        row.addWidget(self.tests)
        low.addLayout(row)
        low.addWidget(self.proof)
        self.taught.setWordWrap(True)
        low.addWidget(self.taught)
        box.addLayout(low)


def _planned(asked: tuple[Machine, ShopState, str, float, tuple[str, ...], date], progress: Progress) -> Planned:
    machine, shop, name, lift, tools, today = asked
    progress.step(0, 2, "steps")
    steps = build_steps(machine, shop, name, lift, tools, today)
    done = {one.step for one in shop.done if one.candidate == name}
    if all(one.id in done for one in steps):
        return steps, None
    return steps, build_schedule(steps, shop, name, today)


def _learned(asked: tuple[Machine, tuple[Test, ...]], progress: Progress) -> Learned:
    machine, tests = asked
    return learn(machine, tests, None, progress)
