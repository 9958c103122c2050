"""The Pour station: what is filled, cut open with its lifts on a clock; recipe, form, what it gains."""

from datetime import datetime, timedelta
from pathlib import Path

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QSlider, QVBoxLayout, QWidget

from unterbau.catalogue.cuts import Cut
from unterbau.catalogue.prices import PriceBook, money_text
from unterbau.errors import InputError, UnterbauError
from unterbau.files.atomic import write_atomically
from unterbau.files.pour_calendar import calendar_text
from unterbau.files.pour_pdf import pour_pdf
from unterbau.machine.machine import Machine, lay_out, links
from unterbau.progress import Progress
from unterbau.project import edits
from unterbau.shop.pour.base_mould import mould_of
from unterbau.shop.pour.cavity import cavities_of
from unterbau.shop.pour.plan import MOULD, PourPlan
from unterbau.shop.state import ShopState
from unterbau.studies.cutting import chosen_cut
from unterbau.studies.gain import Gain
from unterbau.studies.pouring import FLAT, Poured, poured, what_is_poured
from unterbau.ui.document import Document
from unterbau.ui.jobs.asker import Asker
from unterbau.ui.selection import Selection
from unterbau.ui.stations.pour.plan_form import PlanForm
from unterbau.ui.stations.pour.pour_view import PourView
from unterbau.ui.stations.pour.recipe import RecipeView
from unterbau.ui.theme import em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.choice_box import ChoiceBox
from unterbau.ui.widgets.followed import FollowingPage
from unterbau.ui.widgets.hairline import hairline
from unterbau.ui.widgets.instrument_box import Answer, InstrumentBox
from unterbau.ui.widgets.labels import heading, label
from unterbau.ui.widgets.save_path import ask_save_path
from unterbau.ui.widgets.scrolled_page import ScrolledPage
from unterbau.units import Units, length_text, mass_text, stiffness_text, told, tolerance_text

Asked = tuple[Machine, ShopState, str, PriceBook, Cut, str]
STEPS = 600
TICK = 600.0  # s between places of the clock
AXES = ("X", "Y", "Z")


def gain_words(found: Gain, units: Units, book: PriceBook) -> str:
    """Return before and after in a line."""
    a, b = found.before, found.after
    axis = min(range(3), key=lambda n: a.stiffness[n])
    stiff = f"{AXES[axis]} {stiffness_text(a.stiffness[axis], units)} → {stiffness_text(b.stiffness[axis], units)}"
    text = (
        f"{stiff}; first mode {a.mode:.0f} → {b.mode:.0f} Hz; damping {a.zeta:.1%} → {b.zeta:.1%}; "
        f"{mass_text(b.mass - a.mass, units)} more, {money_text(b.money - a.money, book)} more; heaviest piece "
        f"{mass_text(b.heaviest, units, 0)}"
    )
    if found.larger is not None:
        larger = found.larger
        text += f"\n{larger.words} instead: {AXES[axis]} {stiffness_text(larger.stiffness[axis], units)}, "
        text += f"{mass_text(larger.mass, units)} more, {money_text(larger.money, book)} more"
    return text


class PourStation(FollowingPage):
    """What is poured."""

    def __init__(
        self, document: Document, selection: Selection, view: ViewSettings, parent: QWidget | None = None
    ) -> None:
        super().__init__(parent)
        self._document, self._selection, self._view = document, selection, view
        self._part: str | None = None
        self.made: Poured | None = None
        self.answers, self.gains = Asker(_quick, self), Asker(_whole, self)
        self.what = ChoiceBox("What is filled or cast", (), self)
        self.gain, self.worth = label("", size=0.94), label("", "muted", 0.9)
        self.picture, self.clock = PourView(view, self), QSlider(Qt.Orientation.Horizontal, self)
        self.now, self.events = label("", size=0.94), label("", "muted", 0.9)
        self.recipe, self.form = RecipeView(view, self), PlanForm(view, self)
        self.batches, self.holds = label("", size=0.94), label("", "muted", 0.88)
        self.warnings, self.caution = label("", "error", 0.9), label("", "muted", 0.84)
        self.instrument, self.read = InstrumentBox(self), QPushButton("read how warm it is", self)
        self.card, self.dates = QPushButton("recipe card …", self), QPushButton("dates …", self)
        self._build()
        self.what.activated.connect(self._on_what)
        self.clock.valueChanged.connect(self._on_clock)
        self.picture.lift_dragged.connect(self._on_lift)
        self.form.planned.connect(self._on_planned)
        self.answers.ready.connect(self._on_quick)
        self.answers.failed.connect(self.trouble)
        self.gains.ready.connect(self._on_whole)
        self.gains.failed.connect(self.trouble)
        self.card.clicked.connect(self._ask_card)
        self.dates.clicked.connect(self._ask_dates)
        self.read.clicked.connect(lambda: self.instrument.ask("warmth"))
        self.instrument.changed.connect(self._show_instrument)
        self.instrument.said.connect(self._on_said)
        self.instrument.trouble.connect(self.form.say)
        self._show_instrument()
        self.follow(document, selection, view)

    def show_machine(self) -> None:
        """Show the chosen candidate's pour, and ask for its answers."""
        project, name = self._document.project, self._selection.candidate
        machine = project.candidate(name).machine
        self.instrument.show_machine(machine)
        cavities = cavities_of(lay_out(machine))
        labels = {one.key: one.label for one in links(machine)}
        if self._part not in (MOULD, *(one.part for one in cavities)):
            self._part = None
        try:
            plan = what_is_poured(machine, project.shop, name, self._part)
        except InputError as error:
            self.trouble.emit(str(error))
            return
        self.what.blockSignals(True)
        self.what.clear()
        for one in cavities:
            filled = ", filled" if one.filled else ""
            self.what.addItem(f"{labels.get(one.part, one.part)}, {one.volume * 1e3:.1f} l{filled}", one.part)
        self.what.addItem("a cast piece by itself", MOULD)
        self.what.show_value(plan.part)
        self.what.blockSignals(False)
        self.form.show_plan(plan, mould_of(lay_out(machine), plan.mould))
        self.answers.ask(self._asked(plan.part))
        self.gains.ask(self._asked(plan.part))

    def choose(self, part: str) -> None:
        """Show the pour of a part, or `mould`."""
        self._part = part
        self.show_machine()

    def show_time(self, hours: float) -> None:
        """Set the clock, hours from the first lift."""
        self.clock.setValue(round(hours * 3600 / TICK))

    def close_station(self) -> None:
        """Stop what is computed behind."""
        self.answers.close()
        self.gains.close()
        self.instrument.asker.close()

    def save_card(self, path: Path) -> None:
        """Write the recipe card; a failure is said."""
        made = self.made
        if made is not None:
            units = self._view.units
            self._write(path, pour_pdf(made.plan, made.mix, made.cure, made.problems, made.caution, units))

    def save_dates(self, path: Path) -> None:
        """Write the dates as iCalendar; a failure is said."""
        made = self.made
        if made is not None:
            stamp = datetime.now().strftime("%Y%m%dT%H%M%S")
            self._write(path, calendar_text(f"{made.plan.candidate}, {made.plan.sort}", made.cure.events, stamp))

    def _write(self, path: Path, content: str | bytes) -> None:
        try:
            write_atomically(path, content)
        except UnterbauError as error:
            self.trouble.emit(str(error))
            return
        self.wrote.emit(path)

    def _asked(self, part: str) -> Asked:
        project, name = self._document.project, self._selection.candidate
        cut = chosen_cut(project.cut, project.own_cut)
        return project.candidate(name).machine, project.shop, name, project.prices, cut, part

    def _on_quick(self, made: Poured) -> None:
        first = self.made is None or self.made.plan != made.plan
        self.made, units = made, self._view.units
        self.picture.show_pour(made)
        self.recipe.show_mix(made.mix)
        mix, book = made.mix, self._document.project.prices
        needed = f"; the voids take {mix.needed:.1%}" if mix.needed else ""
        strength = f"; about {mix.strength / 1e6:.0f} MPa after 28 days" if mix.strength else ""
        batches = f"{mix.batches} batches of" if mix.batches > 1 else "one batch of"
        self.batches.setText(
            f"{mix.volume * 1e3:.1f} l, {mass_text(mix.mass, units)}, {money_text(mix.money, book)}: {batches} "
            f"{mass_text(mix.batch, units)}, by {mix.ends_by}{needed}{strength}"
        )
        self.events.setText(" · ".join(f"{one.when:%a %d %b %H:%M} {one.words}" for one in made.cure.events))
        self.warnings.setText("\n".join(made.problems))
        self.warnings.setVisible(bool(made.problems))
        self.holds.setText(_holding(made, units))
        self.holds.setVisible(bool(self.holds.text()))
        self.caution.setText(made.caution)
        self.clock.setMaximum(round(made.cure.history.times[-1] / TICK) + _later(made))
        if first:
            hottest = max(made.cure.lifts, key=lambda one: one.peak)
            self.clock.setValue(round((hottest.at + hottest.peak_at) / TICK))
        self._on_clock(self.clock.value())

    def _on_whole(self, made: Poured) -> None:
        if made.gain is None:
            self.gain.setText("what it gains is not counted: this machine stands on no feet of its own")
            self.worth.setText("")
            return
        self.gain.setText(gain_words(made.gain, self._view.units, self._document.project.prices))
        self.worth.setText(made.gain.words)

    def _on_clock(self, place: int) -> None:
        seconds = place * TICK
        self.picture.show_time(seconds)
        if self.made is None:
            return
        when = datetime.fromisoformat(self.made.plan.start) + timedelta(seconds=seconds)
        warm = [self.picture.temperature(one.number) for one in self.made.cure.lifts]
        hot = max((one for one in warm if one is not None), default=self.made.plan.shop)
        self.now.setText(
            f"{when:%a %d %b %H:%M}, {seconds / 3600:.1f} h after the first lift: {hot:.0f} °C at the most"
        )

    def _on_what(self, index: int) -> None:
        self.choose(str(self.what.itemData(index)))

    def _show_instrument(self) -> None:
        typed = self.instrument.is_typed
        self.read.setEnabled(not typed)
        self.read.setToolTip("choose an instrument first" if typed else "take the shop's temperature from it")

    def _on_said(self, answer: Answer) -> None:
        """Take what a thermometer shows; what is no temperature is refused."""
        reading = answer.reading
        if reading is None or reading.sort != "temperature":
            self.form.say(
                f"the instrument sent {'a ' + reading.sort if reading else 'nothing'}; expected a temperature"
            )
            return
        self.form.change("shop", round(reading.value, 1))

    def _on_lift(self, thick: float) -> None:
        self.form.change("lift", thick)

    def _on_planned(self, plan: PourPlan, words: str) -> None:
        try:
            shop = self._document.project.shop.with_pour(plan)
            self._document.apply(edits.set_shop(self._document.project, shop), f"pour: {words}")
        except InputError as error:
            self.form.say(error.problem)

    def _ask_card(self) -> None:
        path = ask_save_path(self, "Save the recipe card", Path.home() / "pour.pdf", "PDF (*.pdf)")
        if path is not None:
            self.save_card(path)

    def _ask_dates(self) -> None:
        path = ask_save_path(self, "Save the dates", Path.home() / "pour.ics", "iCalendar (*.ics)")
        if path is not None:
            self.save_dates(path)

    def _build(self) -> None:
        unit = em()
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        head = QHBoxLayout()
        head.setContentsMargins(round(1.1 * unit), round(0.5 * unit), round(1.1 * unit), round(0.4 * unit))
        self.what.setMinimumWidth(round(17 * unit))
        head.addWidget(self.what)
        words = QVBoxLayout()
        words.setSpacing(0)
        for one in (self.gain, self.worth):
            one.setWordWrap(True)
            words.addWidget(one)
        head.addSpacing(round(unit))
        head.addLayout(words, 1)
        box.addLayout(head)
        box.addWidget(hairline())
        middle = QHBoxLayout()
        middle.setSpacing(0)
        left = QVBoxLayout()
        left.setContentsMargins(round(1.1 * unit), round(0.5 * unit), round(1.1 * unit), round(0.6 * unit))
        left.addWidget(self.picture, 1)
        self.now.setWordWrap(True)
        left.addWidget(self.now)
        self.clock.setAccessibleName("Clock of the pour, from the first lift")
        self.clock.setPageStep(6)
        left.addWidget(self.clock)
        for one in (self.events, self.warnings):
            one.setWordWrap(True)
            left.addWidget(one)
        middle.addLayout(left, 7)
        middle.addWidget(hairline(vertical=True))
        middle.addWidget(ScrolledPage(self._side(), self), 4)
        box.addLayout(middle, 1)

    def _side(self) -> QWidget:
        unit = em()
        side = QWidget(self)
        side.setMinimumWidth(round(22 * unit))
        column = QVBoxLayout(side)
        column.setContentsMargins(round(1.1 * unit), round(0.5 * unit), round(1.1 * unit), round(0.5 * unit))
        column.setSpacing(round(0.35 * unit))
        column.addWidget(heading("recipe card"))
        column.addWidget(self.recipe)
        column.addWidget(self.batches)
        row = QHBoxLayout()
        for button, tip in ((self.card, "weighed parts, lifts, dates, what to mind, on A4"),
                            (self.dates, "lifts, stripping, loading, sealing as iCalendar")):  # fmt: skip
            button.setFont(font(0.88))
            button.setProperty("small", True)
            button.setToolTip(tip)
            row.addWidget(button)
        row.addStretch(1)
        column.addLayout(row)
        warmth = QHBoxLayout()
        warmth.addWidget(self.instrument, 1)
        warmth.addWidget(self.read)
        self.read.setFont(font(0.88))
        self.read.setProperty("small", True)
        column.addWidget(heading("the pour"))
        column.addWidget(self.form)
        column.addLayout(warmth)
        for one in (self.batches, self.holds, self.caution):
            one.setWordWrap(True)
        column.addWidget(self.holds)
        column.addWidget(self.caution)
        column.addStretch(1)
        return side


def _later(made: Poured) -> int:
    """Return how much longer than its heat is followed a sideways pour's clock runs, in ticks."""
    return round(made.cure.lifts[-1].at / TICK) if made.room.sideways else 0


def _holding(made: Poured, units: Units) -> str:
    words = []
    if made.panels:
        panel = made.panels[0]
        load, flat = told(panel.pressure / 1e6, "N/mm²", units), tolerance_text(FLAT, units)
        words.append(
            f"the form: {load} at its lowest; boards bow {tolerance_text(panel.bows, units)} between braces; braces "
            f"every {length_text(panel.for_flatness, units)} keep the face flat to {flat}"
        )
    for one in made.pull_outs:
        low, high = (min(one.bond[n], one.cone[n]) / 1e3 for n in (0, 1))
        words.append(f"insert {one.thread} pulls out at some {low:.0f} to {high:.0f} kN, by order of size")
    return "\n".join(words)


def _quick(asked: Asked, progress: Progress) -> Poured:
    machine, shop, name, book, cut, part = asked
    return poured(machine, shop, name, book, cut, part, False, progress)


def _whole(asked: Asked, progress: Progress) -> Poured:
    machine, shop, name, book, cut, part = asked
    return poured(machine, shop, name, book, cut, part, True, progress)
