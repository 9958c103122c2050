"""Where the head stands, by numbers along its travel."""

from dataclasses import replace
from functools import partial

from PyQt6.QtWidgets import QHBoxLayout, QWidget

from unterbau.machine.machine import Machine, travel
from unterbau.ui.selection import Selection
from unterbau.ui.theme import em
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.labels import label
from unterbau.ui.widgets.quantity_field import QuantityField
from unterbau.units import length_text

FROM = {"x": "from the left end", "y": "from the front end", "z": "up from the lowest"}


class HeadPlace(QWidget):
    """Three fields, each from one end of its travel."""

    def __init__(self, selection: Selection, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._selection, self._view = selection, view
        self._travel = dict.fromkeys(FROM, 0.0)
        self.message = label("", "error", 0.86)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(round(0.3 * em()))
        row.addWidget(self.message)
        row.addWidget(label("head", "muted", 0.92))
        self.fields: dict[str, QuantityField] = {}
        for axis, words in FROM.items():
            field = QuantityField(f"Head {axis.upper()}, {words}", "length", view, self, self.message)
            field.edit.setFixedWidth(round(4.8 * em()))
            field.edit.setToolTip(f"head along {axis.upper()}, {words} of its travel")
            field.committed.connect(partial(self._on_committed, axis))
            caption = label(axis.upper(), "muted", 0.92)
            caption.setBuddy(field.edit)
            row.addWidget(caption)
            row.addWidget(field)
            self.fields[axis] = field

    def show_machine(self, machine: Machine) -> None:
        """Show the head's place in a machine."""
        self._travel = dict(zip(FROM, travel(machine), strict=True))
        for axis, field in self.fields.items():
            field.set_value(getattr(self._selection.place, axis) * self._travel[axis])

    def _on_committed(self, axis: str, value: float) -> None:
        most = self._travel[axis]
        if not -1e-9 <= value <= most + 1e-9:
            self.fields[axis].refuse(f"expected 0 to {length_text(most, self._view.units)}")
            return
        if not most:
            self.fields[axis].give_up()  # an axis that does not travel stays where it is
            return
        share = min(1.0, max(0.0, value / most))
        self._selection.move_head(replace(self._selection.place, **{axis: share}))
