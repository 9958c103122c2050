"""The measuring bench of a step: readings typed where they are taken, drawn along the thing, judged at once."""

from pathlib import Path

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QFileDialog, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from unterbau.errors import InputError, UnterbauError
from unterbau.files.readings_csv import read_readings
from unterbau.shop.build.hold_points import HoldReading
from unterbau.shop.build.steps import Step
from unterbau.shop.measure.reading_words import HINTS, Read, read_bench
from unterbau.shop.measure.result import Instrument
from unterbau.ui.stations.build.bench_view import BenchView
from unterbau.ui.theme import em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.choice_box import ChoiceBox
from unterbau.ui.widgets.instrument_box import InstrumentBox
from unterbau.ui.widgets.labels import heading, label
from unterbau.ui.widgets.typed_line import TypedLine
from unterbau.units import mass_text, tolerance_text

DIAL = Instrument()
MICRO = ("straightness", "parallel", "flatness", "both ways")
"""Benches that are read in µm; the others in mm."""
NOT_LENGTHS = ("level",)


class BenchPanel(QWidget):
    """Shows a step and its bench."""

    done_wanted = pyqtSignal(object, object, str)
    """A step is done: the step, the `HoldReading` of its hold point or None, the reason why all the same."""
    undone_wanted = pyqtSignal(object)
    read_wanted = pyqtSignal(str)
    """The chosen instrument is to read a bench."""

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._view = view
        self._step: Step | None = None
        self._read: Read | None = None
        self._is_done = self._simulated = False
        self.reason = TypedLine(self)
        self.title, self.words = label("", size=1.1, bold=True), label("", size=0.94)
        self.hold, self.hint = label("", size=0.94), label("", "muted", 0.86)
        self.line, self.drawn = TypedLine(self), BenchView(view, self)
        self.instrument, self.read = InstrumentBox(self), QPushButton("read", self)
        self.table = QPushButton("CSV …", self)
        self.how = ChoiceBox("Measured by", tuple((one, f"by {one}") for one in HINTS), self)
        self.result, self.problem = label("", size=0.96), label("", "error", 0.9)
        self.caution, self.done = label("", "error", 0.9), QPushButton("done", self)
        self._build()
        self.line.editingFinished.connect(self._on_typed)
        self.drawn.read.connect(self._take_drawn)
        self.reason.given_up.connect(self.reason.clear)
        self.done.clicked.connect(self._on_done)
        self.how.activated.connect(self._on_how)
        self.read.clicked.connect(lambda: self.read_wanted.emit(self.bench))
        self.instrument.changed.connect(self._show_instrument)
        self.table.clicked.connect(self._ask_table)

    @property
    def bench(self) -> str:
        """The bench that is chosen."""
        return str(self.how.currentData())

    def take(self, text: str) -> None:
        """Take readings of an instrument or a file."""
        self._simulated = self.instrument.is_rehearsed
        self._take_drawn(text)

    def ask_reason(self, objections: tuple[str, ...]) -> None:
        """Say why the step is not done by itself, and ask for a reason."""
        self.problem.setText(
            " ".join(objections) + " To mark it done all the same, give a reason: it goes into the log."
        )
        self.problem.show()
        self.reason.show()
        self.reason.setFocus()

    def refuse(self, problem: str) -> None:
        """Say why the step cannot be done."""
        self.problem.setText(problem)
        self.problem.show()

    def _take_drawn(self, text: str) -> None:
        self.line.setText(text)
        self._on_typed()

    def take_table(self, path: Path) -> None:
        """Take readings from a file; what is wrong with it is said beside the line."""
        grid = self.bench == "flatness"
        try:
            rows = read_readings(path, grid, "µm" if self.bench in MICRO else "mm")
        except UnterbauError as error:
            self.problem.setText(error.problem if isinstance(error, InputError) else str(error))
            self.problem.show()
            return
        apart = " / " if grid else " "
        self.take(apart.join(" ".join(f"{value:g}" for value in row) for row in rows))

    def _ask_table(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, "Readings", str(Path.home()), "Tables (*.csv *.txt)")
        if name:
            self.take_table(Path(name))

    def take_more(self, length: float) -> None:
        """Take one more length, m, from an instrument, in the unit of the bench."""
        if self.bench in NOT_LENGTHS:
            self.problem.setText(f"this bench wants no length: {HINTS[self.bench]}")
            self.problem.show()
            return
        self._simulated = self._simulated or self.instrument.is_rehearsed
        shown = f"{length * 1e6:.1f}" if self.bench in MICRO else f"{length * 1e3:.3f}"
        self.line.setText(f"{self.line.text()} {shown}".strip())

    def _show_instrument(self) -> None:
        typed = self.instrument.is_typed
        self.read.setEnabled(not typed)
        self.read.setToolTip("choose an instrument first" if typed else "take what the instrument shows")

    def show_step(self, step: Step | None, is_done: bool, told: str) -> None:
        """Show a step; `told` is when it can be done, in words."""
        fresh = step is None or self._step is None or step.id != self._step.id
        self._step, self._is_done = step, is_done
        if fresh:
            self.line.clear()
            self.reason.clear()
            self.reason.hide()
            self._read, self._simulated = None, False
            self.result.setText("")
            self.problem.setText("")
        self.done.setEnabled(step is not None)
        self.done.setText("not done after all" if is_done else "done")
        if step is None:
            return
        self.title.setText(step.words)
        words = [told]
        heavy = mass_text(step.lifted, self._view.units, 0)
        words += [f"lifts {heavy}: {step.people}"] if step.people else []
        words += ["no way back from here: take apart once more first"] if not step.reversible else []
        self.words.setText("; ".join(words))
        self.caution.setText(step.caution)
        self.caution.setVisible(bool(step.caution))
        hold = step.hold
        for one in (self.hold, self.how, self.hint, self.line, self.read, self.table, self.drawn, self.result):
            one.setVisible(hold is not None)
        if hold is not None:
            within = tolerance_text(hold.within, self._view.units)
            self.hold.setText(f"hold: {hold.words}, within {within} ({hold.why})")
            if fresh:
                self.how.show_value(hold.bench)
                self._show_hint()
                self.drawn.show_bench(self.bench, None, hold.within)

    def _show_hint(self) -> None:
        hint = HINTS[self.bench]
        self.hint.setText(hint)
        self.line.setAccessibleName(f"Readings: {hint}")

    def _on_how(self, _index: int) -> None:
        """Measure another way: what was read before counts no more."""
        self._read, self._simulated = None, False
        self.line.clear()
        self.result.setText("")
        self.problem.hide()
        self._show_hint()
        if self._step is not None and self._step.hold is not None:
            self.drawn.show_bench(self.bench, None, self._step.hold.within)

    def _on_typed(self) -> None:
        if self._step is None or self._step.hold is None or not self.line.text().strip():
            return
        hold = self._step.hold
        try:
            self._read = read_bench(self.bench, self.line.text(), hold.within, DIAL)
        except InputError as error:
            self.problem.setText(error.problem)
            self.problem.show()
            return
        self.problem.hide()
        value = self._read.value
        off, doubt = (tolerance_text(one, self._view.units) for one in (value.value, value.uncertainty))
        told = f"{off} ± {doubt} (k = 2)"
        self.result.setText(f"{self._read.verdict}: {told}. {self._read.words}")
        self.drawn.show_bench(self.bench, self._read, hold.within, self.line.text())

    def _on_done(self) -> None:
        if self._step is None:
            return
        if self._is_done:
            self.undone_wanted.emit(self._step)
            return
        reading = None
        if self._read is not None:
            value = self._read.value
            reading = HoldReading(value.value, value.uncertainty, self._simulated)
        self.done_wanted.emit(self._step, reading, self.reason.text().strip())

    def _build(self) -> None:
        unit = em()
        box = QVBoxLayout(self)
        box.setContentsMargins(round(1.1 * unit), round(0.5 * unit), round(1.1 * unit), round(0.5 * unit))
        box.setSpacing(round(0.35 * unit))
        box.addWidget(heading("the step"))
        self.line.setFont(font(0.94))
        for one in (self.title, self.words, self.caution, self.hold, self.hint, self.result, self.problem):
            one.setWordWrap(True)
        taken = QHBoxLayout()
        taken.addWidget(self.line, 1)
        self.table.setToolTip("readings from a table: one a line, of flatness a row a line")
        for button in (self.read, self.table):
            button.setFont(font(0.88))
            button.setProperty("small", True)
            taken.addWidget(button)
        self._show_instrument()
        for widget in (self.title, self.words, self.caution, self.hold, self.instrument, self.how, self.hint):
            box.addWidget(widget)
        box.addLayout(taken)
        self.reason.setAccessibleName("Reason why the step is done all the same")
        self.reason.setPlaceholderText("reason why it is done all the same")
        self.reason.setMaxLength(1000)
        self.reason.hide()
        for below in (self.problem, self.reason, self.drawn, self.result, self.done):
            box.addWidget(below)
        self.problem.hide()
        box.addStretch(1)
