"""A cut of one's own: what is cut, with what, how much; on the bench."""

from dataclasses import replace
from functools import partial
from typing import Any

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QPushButton, QSpinBox, QVBoxLayout, QWidget

from unterbau.catalogue.cuts import STUFFS, OwnCut, stuff_label
from unterbau.errors import InputError
from unterbau.studies.cutting import own_cut
from unterbau.ui.theme import em
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.choice_box import ChoiceBox
from unterbau.ui.widgets.labels import heading, label
from unterbau.ui.widgets.quantity_field import QuantityField
from unterbau.ui.widgets.typed_line import show_number
from unterbau.units import Kind, force_text, forces_text, length_text

QUANTITIES: tuple[tuple[str, str, Kind, float, str], ...] = (
    ("diameter", "tool, diameter", "length", 1.0, ""), ("width", "width of cut", "length", 1.0, ""),
    ("depth", "depth of cut", "length", 1.0, ""), ("chip", "feed a tooth", "length", 1.0, ""),
    ("turns", "turns a minute", "plain", 1 / 60, ""),
)  # fmt: skip
"""Attribute, words, kind, SI value per shown number, unit."""
MILLING = ("diameter", "teeth", "width", "turns")
"""What counts only where the tool turns."""


class OwnCutPage(QWidget):
    """Fields of the cut; each change is tried at once."""

    changed = pyqtSignal(object)
    """The new cut."""
    closed = pyqtSignal()

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._own, self._view = OwnCut(), view
        stuffs = tuple((one, stuff_label(one)) for one in STUFFS)
        self.material = ChoiceBox("What is cut", stuffs, self)
        self.turning = ChoiceBox("What turns", ((False, "the tool"), (True, "the work")), self)
        self.straight = ChoiceBox("Flutes", ((False, "helical flutes"), (True, "straight flutes")), self)
        self.teeth = QSpinBox(self)
        self.teeth.setRange(0, 99)  # what cannot be is said, not swallowed
        self.teeth.setAccessibleName("teeth")
        self.teeth.setButtonSymbols(QSpinBox.ButtonSymbols.NoButtons)
        self.fields = {
            name: QuantityField(words, kind, view, self, unit=unit) for name, words, kind, _, unit in QUANTITIES
        }
        self._captions = {name: label(words, "muted", 0.92) for name, words, *_ in QUANTITIES}
        self._captions["teeth"] = label("teeth", "muted", 0.92)
        self.wrong = label("", "error", 0.9)
        self.forces = label("", size=0.95)
        self.forces.setWordWrap(True)
        self.back = QPushButton("back to the part", self)
        self._build()
        self.material.activated.connect(partial(self._on_choice, self.material, "material"))
        self.turning.activated.connect(partial(self._on_choice, self.turning, "turning"))
        self.straight.activated.connect(partial(self._on_choice, self.straight, "straight"))
        self.teeth.valueChanged.connect(self._on_teeth)
        self.back.clicked.connect(self.closed)
        for name, _, _, scale, _ in QUANTITIES:
            self.fields[name].committed.connect(partial(self._on_quantity, name, scale))

    def show_cut(self, own: OwnCut) -> None:
        """Show a cut and what it pulls with."""
        self._own = own
        self.material.show_value(own.material)
        self.turning.show_value(own.turning)
        self.straight.show_value(own.straight)
        self.straight.setVisible(not own.turning)
        show_number(self.teeth, own.teeth)
        for name, _, _, scale, _ in QUANTITIES:
            self.fields[name].set_value(getattr(own, name) / scale)
        for name, caption in self._captions.items():
            field = self.teeth if name == "teeth" else self.fields[name]
            for one in (caption, field):
                one.setVisible(not (own.turning and name in MILLING))
        self._captions["chip"].setText("feed a turn" if own.turning else "feed a tooth")
        cut = own_cut(own)
        low, high = cut.force.ends
        units = self._view.units
        text = f"{force_text(cut.force.likely, units)} at most within a turn ({forces_text(low, high, units)}), "
        text += f"{force_text(cut.mean, units)} on average"
        if not own.turning:
            text += f"; {length_text(round(cut.feed * 6e4) / 1e3, units)}/min"
        self.forces.setText(f"{text}. {cut.source}.")

    def _build(self) -> None:
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(round(0.35 * em()))
        top = QHBoxLayout()
        top.addWidget(heading("a cut of your own"))
        top.addStretch()
        top.addWidget(self.back)
        box.addLayout(top)
        grid = QGridLayout()
        grid.setHorizontalSpacing(round(0.5 * em()))
        grid.setVerticalSpacing(round(0.2 * em()))
        grid.setColumnStretch(1, 1)
        rows: list[tuple[QWidget, QWidget]] = [
            (label("in", "muted", 0.92), self.material), (label("what turns", "muted", 0.92), self.turning),
            (label("with", "muted", 0.92), self.straight),
        ]  # fmt: skip
        rows += [(self._captions["diameter"], self.fields["diameter"]), (self._captions["teeth"], self.teeth)]
        rows += [(self._captions[name], self.fields[name]) for name in ("width", "depth", "chip", "turns")]
        for row, (caption, field) in enumerate(rows):
            grid.addWidget(caption, row, 0)
            grid.addWidget(field, row, 1)
        box.addLayout(grid)
        box.addWidget(self.wrong)
        box.addWidget(self.forces)
        box.addStretch(1)

    def _on_choice(self, control: ChoiceBox, name: str, index: int) -> None:
        self._try(name, control.itemData(index))

    def _on_teeth(self, value: int) -> None:
        self._try("teeth", value)

    def _on_quantity(self, name: str, scale: float, value: float) -> None:
        self._try(name, value * scale)

    def _try(self, name: str, value: Any) -> None:
        changed: dict[str, Any] = {name: value}
        own = replace(self._own, **changed)
        try:
            own_cut(own)
        except InputError as error:
            field = self.fields.get(error.where) or self.fields["width"]
            if error.where == "teeth":
                self.wrong.setText("a tool has 1 to 20 teeth")
            else:
                (self.fields.get(name) or field).refuse(error.problem)
            return
        self.wrong.setText("")
        self.changed.emit(own)
