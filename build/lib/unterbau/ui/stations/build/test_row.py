"""A row in which tests on the built machine are told: pushes up and down, taps, a weight; or heard from a recording."""

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QWidget

from unterbau.errors import InputError
from unterbau.shop.build.tests import Test
from unterbau.shop.measure.push import push_test, read_loop
from unterbau.ui.theme import em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.choice_box import ChoiceBox
from unterbau.ui.widgets.labels import label
from unterbau.ui.widgets.typed_line import TypedLine
from unterbau.units import in_units, movement_text, stiffness_text

SORTS = (
    ("push X", "push X, N/µm"), ("push Y", "push Y, N/µm"), ("push Z", "push Z, N/µm"), ("tap X", "tap, Hz"),
    ("weigh X", "weighed, kg"),
)  # fmt: skip
SCALE = {"push": 1e6, "tap": 1.0, "weigh": 1.0}
MOST = 1e5
ROUND = (50.0, 75.0, 100.0, 75.0, 50.0, 0.0, -50.0, -75.0, -100.0, -75.0, -50.0, 0.0, 50.0)
"""Forces of a push up and down and back, N."""
TIP = (
    "of the head in the middle of its travel, tool against work; of a push also forces up and down with their readings "
    "in N and µm (lbf and thou): 50 22; 100 45; 0 3; -50 -20; -100 -43; 0 -2"
)


class TestRow(QWidget):
    """Takes tests."""

    __test__ = False
    added = pyqtSignal(str, str, float, float)
    """Sort, axis, value in SI units; of a push up and down the play in it, m."""
    told = pyqtSignal(str)
    """What a push up and down says, in words."""
    cleared = pyqtSignal()
    recording_wanted = pyqtSignal()
    read_wanted = pyqtSignal(str, str)
    """The chosen instrument is to read a test: sort, axis."""

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._view = view
        self.sort = ChoiceBox("What was tested", SORTS, self)
        self.line, self.count = TypedLine(self), label("", "muted", 0.88)
        self.problem = label("", "error", 0.88)
        self.read = QPushButton("read", self)
        self.record, self.clear = QPushButton("recording …", self), QPushButton("forget all", self)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        self.sort.setMinimumWidth(round(9 * em()))
        self.line.setMinimumWidth(round(12 * em()))
        self.line.setAccessibleName("What was read")
        self.line.setToolTip(TIP)
        self.record.setToolTip("a WAV recording of a tap: its loudest frequency")
        for button in (self.read, self.record, self.clear):
            button.setFont(font(0.86))
            button.setProperty("small", True)
        for widget in (self.problem, self.count, self.sort, self.line, self.read, self.record, self.clear):
            row.addWidget(widget)
        self.line.returnPressed.connect(self._on_typed)
        self.line.given_up.connect(self.line.clear)
        self.read.clicked.connect(lambda: self.read_wanted.emit(*str(self.sort.currentData()).split()))
        self.clear.clicked.connect(self.cleared)
        self.record.clicked.connect(self.recording_wanted)

    def show_tests(self, tests: tuple[Test, ...]) -> None:
        """Show how many there are."""
        self.count.setText(f"{len(tests)} test{'s' if len(tests) != 1 else ''}" if tests else "no tests yet")
        self.clear.setEnabled(bool(tests))

    def show_instrument(self, typed: bool) -> None:
        """Show whether there is an instrument to be read."""
        self.read.setEnabled(not typed)
        self.read.setToolTip("choose an instrument at the bench first" if typed else "take what the instrument shows")

    def take_push(self, forces: tuple[float, ...], readings: tuple[float, ...]) -> None:
        """Take a push up and down, N and m, as if it were typed."""
        units = self._view.units
        pairs = (
            f"{in_units(F, 'N', units)[0]:.4g} {in_units(x * 1e6, 'µm', units)[0]:.4g}"
            for F, x in zip(forces, readings, strict=True)
        )
        self.line.setText("; ".join(pairs))
        self._on_typed()

    def take(self, value: float) -> None:
        """Take a frequency, Hz, or a mass, kg, as if it were typed."""
        self.line.setText(f"{value:.5g}")
        self._on_typed()

    def take_more(self, reading: float) -> None:
        """Take one more reading, m, of a push up and down: it goes with the next force of the round."""
        units = self._view.units
        pairs = [one for one in self.line.text().split(";") if one.strip()]
        if len(pairs) >= len(ROUND):
            pairs = []
        force = in_units(ROUND[len(pairs)], "N", units)[0]
        pairs.append(f"{force:.4g} {in_units(reading * 1e6, 'µm', units)[0]:.4g}")
        self.line.setText("; ".join(one.strip() for one in pairs))
        left = ROUND[len(pairs) :]
        following = f"next: pull {in_units(left[0], 'N', units)[0]:.0f} {in_units(1.0, 'N', units)[1]}" if left else ""
        self.told.emit(following or "that is the whole round: Enter takes it")

    def _on_typed(self) -> None:
        sort, axis = str(self.sort.currentData()).split()
        play = 0.0
        try:
            if sort == "push" and ";" in self.line.text():
                value, play = self._loop(axis)
            else:
                value = self._value(self.line.text(), sort)
        except InputError as error:
            self.problem.setText(error.problem)
            return
        self.problem.setText("")
        self.line.clear()
        self.added.emit(sort, axis, value, play)

    def _loop(self, axis: str) -> tuple[float, float]:
        """Return stiffness and play of a push up and down, and tell what it says."""
        units = self._view.units
        per_force, per_reading = in_units(1.0, "N", units)[0], in_units(1.0, "µm", units)[0]
        found = push_test(*read_loop(self.line.text(), 1.0 / per_force, 1e-6 / per_reading))
        loop = f", {found.hysteresis * 1e3:.1f} mJ lost in the loop" if found.hysteresis else ""
        self.told.emit(
            f"push {axis}: {stiffness_text(found.stiffness, units)}, {movement_text(found.play, units)} of play{loop}; "
            f"with the play in it one would have read {stiffness_text(found.naive, units)}"
        )
        return found.stiffness, max(found.play, 0.0)

    def _value(self, text: str, sort: str) -> float:
        try:
            value = float(text.strip().replace(",", "."))
        except ValueError:
            raise InputError("test", f'"{text}" is no number') from None
        if not 0.0 < value < MOST:
            raise InputError("test", "expected more than 0")
        return value * SCALE[sort]
