"""A section by its dimensions: a shape and its sizes, typed."""

from functools import partial

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QGridLayout, QWidget

from unterbau.errors import InputError
from unterbau.sections.own import SHAPES, converted, section_of, shape, shape_of, sizes_of
from unterbau.ui.stations.machine.part_form import ChoiceBox
from unterbau.ui.theme import em
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.labels import label
from unterbau.ui.widgets.quantity_field import QuantityField

SIZES = ("height", "width", "side", "diameter", "wall")


class OwnSection(QWidget):
    """Fields for each size of the chosen shape."""

    chosen = pyqtSignal(str)
    """Name of the section."""

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._name = ""
        self.shape = ChoiceBox("Shape of the section", tuple((one.id, one.label) for one in SHAPES), self)
        self.fields = {name: QuantityField(f"Section, {name}", "length", view, self) for name in SIZES}
        self._captions = {name: label(name, "muted", 0.92) for name in SIZES}
        grid = QGridLayout(self)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setHorizontalSpacing(round(0.5 * em()))
        grid.setVerticalSpacing(round(0.2 * em()))
        grid.setColumnStretch(1, 1)
        grid.addWidget(label("shape", "muted", 0.92), 0, 0)
        grid.addWidget(self.shape, 0, 1)
        for row, name in enumerate(SIZES, start=1):
            self._captions[name].setBuddy(self.fields[name].edit)
            grid.addWidget(self._captions[name], row, 0)
            grid.addWidget(self.fields[name], row, 1)
            self.fields[name].committed.connect(partial(self._on_size, name))
        self.shape.activated.connect(self._on_shape)

    def show_section(self, name: str) -> None:
        """Show a section's sizes."""
        self._name = name
        kind = shape_of(name)
        self.shape.show_value(kind.id)
        sizes = sizes_of(name)
        for size, field in self.fields.items():
            field.setVisible(size in kind.sizes)
            self._captions[size].setVisible(size in kind.sizes)
            if size in sizes:
                field.set_value(sizes[size])

    def _on_shape(self, index: int) -> None:
        kind = shape(str(self.shape.itemData(index)))
        if self._name and kind != shape_of(self._name):
            self.chosen.emit(section_of(kind, converted(self._name, kind)).name)

    def _on_size(self, name: str, value: float) -> None:
        kind = shape_of(self._name)
        try:
            found = section_of(kind, {**sizes_of(self._name), name: value})
        except InputError as error:
            at_fault = error.where if error.where in kind.sizes else name
            self.fields[at_fault].refuse(error.problem.partition(": ")[2] or error.problem)
            return
        self.chosen.emit(found.name)
