"""First cuts: what was wanted and what was read, beside what was predicted."""

from math import isfinite
from typing import Literal

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QListWidget, QListWidgetItem, QPushButton, QVBoxLayout, QWidget

from unterbau.catalogue.cuts import cuts
from unterbau.shop.build.cuts import FINISHES, Finish, FirstCut
from unterbau.studies.first_cuts import Judged
from unterbau.ui.theme import em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.choice_box import ChoiceBox
from unterbau.ui.widgets.labels import label
from unterbau.ui.widgets.plain_tip import plain_tip
from unterbau.ui.widgets.quantity_field import QuantityField
from unterbau.ui.widgets.typed_line import TypedLine
from unterbau.units import Units, length_text, movement_text

SIDES = ((2.0, "both faces cut"), (1.0, "one face cut"))
AXES = (("X", "along X"), ("Y", "along Y"))


class CutsPanel(QWidget):
    """Takes test pieces and shows them beside their predictions."""

    added = pyqtSignal(object)
    """A first cut, without its candidate and date."""
    removed = pyqtSignal(int)

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._view = view
        self._rows: tuple[Judged, ...] = ()
        names = tuple((name, one.label) for name, one in cuts().items() if one.engagement.milling)
        self.cut = ChoiceBox("Cut", names, self)
        self.sides, self.axis = ChoiceBox("Faces", SIDES, self), ChoiceBox("Measured", AXES, self)
        self.finish = ChoiceBox("Finish", tuple((one, one) for one in FINISHES), self)
        self.problem = label("", "error", 0.88)
        self.deep, self.wanted, self.read = (
            QuantityField(name, "length", view, self, self.problem, fine=fine)
            for name, fine in (("Depth of the cut", False), ("Size wanted", True), ("Size read", True))
        )
        self.settings, self.put = TypedLine(self), QPushButton("put down", self)
        self.remove, self.list = QPushButton("take out", self), QListWidget(self)
        self._build()
        self.put.clicked.connect(self._on_put)
        self.settings.returnPressed.connect(self._on_put)
        self.remove.clicked.connect(self._on_removed)

    def show_cuts(self, rows: tuple[Judged, ...]) -> None:
        """Show cuts beside their predictions."""
        self._rows = rows
        self.list.clear()
        for place, one in enumerate(rows):
            words = _words(one, self._view.units)
            item = QListWidgetItem(words, self.list)
            item.setData(Qt.ItemDataRole.UserRole, place)
            item.setToolTip(plain_tip(words))
        self.remove.setEnabled(bool(rows))

    def say(self, problem: str) -> None:
        """Say what is wrong, beside the fields."""
        self.problem.setText(problem)
        self.problem.setVisible(bool(problem))

    def _on_put(self) -> None:
        finish: Finish = next(one for one in FINISHES if one == self.finish.currentData())
        along: Literal["X", "Y"] = "X" if self.axis.currentData() == "X" else "Y"
        self.added.emit(FirstCut(
            "", str(self.cut.currentData()), self.deep.value, self.wanted.value, self.read.value,
            int(float(self.sides.currentData())), along, finish, self.settings.text().strip(),
        ))  # fmt: skip

    def _on_removed(self) -> None:
        row = self.list.currentRow() if self.list.currentRow() >= 0 else self.list.count() - 1
        if row >= 0:
            self.removed.emit(row)

    def _build(self) -> None:
        unit = em()
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(round(0.25 * unit))
        self.deep.set_value(3e-3)
        self.wanted.set_value(50e-3)
        self.read.set_value(50e-3)
        row = QHBoxLayout()
        for words, widget in (
            ("", self.cut), ("deep", self.deep), ("wanted", self.wanted), ("read", self.read), ("", self.sides),
            ("", self.axis), ("", self.finish),
        ):  # fmt: skip
            if words:
                row.addWidget(label(words, "muted", 0.88))
            row.addWidget(widget, 2 if isinstance(widget, ChoiceBox) else 1)
        self.settings.setAccessibleName("Turns, feed, what else was set")
        self.settings.setPlaceholderText("turns, feed, what else")
        for button in (self.put, self.remove):
            button.setFont(font(0.86))
            button.setProperty("small", True)
        below = QHBoxLayout()
        below.addWidget(self.settings, 1)
        below.addWidget(self.put)
        below.addWidget(self.remove)
        box.addLayout(row)
        box.addLayout(below)
        box.addWidget(self.problem)
        self.problem.hide()
        self.list.setAccessibleName("First cuts beside what was predicted")
        self.list.setFont(font(0.9))
        self.list.setWordWrap(True)
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        box.addWidget(self.list, 1)


def _words(one: Judged, units: Units) -> str:
    cut, p = one.cut, one.predicted
    low, likely, high = (movement_text(value, units) for value in (p.low, p.likely, p.high))
    off, doubt = movement_text(one.error, units), movement_text(2 * cut.doubt, units)
    chatter = f"; chatter from {length_text(one.limit, units)}" if isfinite(one.limit) else ""
    settings = f" [{cut.settings}]" if cut.settings else ""
    return (
        f"{cut.when}  {one.label}, {length_text(cut.depth, units)} deep: {off.split()[0]} ± {doubt} off along "
        f"{cut.axis}, predicted {likely} ({low.split()[0]} – {high.split()[0]}){chatter}; {cut.finish}: "
        f"{one.verdict}{settings}"
    )
