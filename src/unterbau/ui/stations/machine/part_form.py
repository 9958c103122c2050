"""The fields of one part, made from the table in `part_fields`."""

from functools import partial

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QGridLayout, QLabel, QSpinBox, QWidget

from unterbau.errors import InputError
from unterbau.machine.kind import Kind
from unterbau.sections.section import section
from unterbau.sections.solved import CustomSection
from unterbau.structure.parts import Member, Part
from unterbau.ui.stations.machine.part_fields import Field, fields_of, section_from, value_of, with_value
from unterbau.ui.stations.machine.section_box import SectionBox
from unterbau.ui.theme import em
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.choice_box import ChoiceBox
from unterbau.ui.widgets.labels import label
from unterbau.ui.widgets.quantity_field import QuantityField
from unterbau.ui.widgets.typed_line import abandon_in, show_number
from unterbau.units import in_units, length_text


class PartForm(QWidget):
    """Shows a part; tells what the person made of it."""

    edited = pyqtSignal(object, str)
    """The new part and the attribute that changed."""

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._view = view
        self._part: Part | None = None
        self._key = ""
        self._fields: tuple[Field, ...] = ()
        self.controls: dict[str, ChoiceBox | QuantityField | QSpinBox] = {}
        self.messages: dict[str, QLabel] = {}
        self._grid = QGridLayout(self)
        self._grid.setContentsMargins(0, 0, 0, 0)
        self._grid.setHorizontalSpacing(round(0.5 * em()))
        self._grid.setVerticalSpacing(round(0.25 * em()))
        self._grid.setColumnStretch(1, 1)

    def show_part(self, kind: Kind, key: str, part: Part) -> None:
        """Show the part at a link of a machine of some kind."""
        fields = fields_of(kind, key, part)
        if fields != self._fields or key != self._key:
            self._part = None  # what is typed and not yet taken was typed for another part
            if fields != self._fields:
                self._build(fields)
            abandon_in(self)
        self._key = key
        self._part, self._fields = part, fields
        for field in fields:
            self._show(field, value_of(part, field))

    def refuse(self, attribute: str, problem: str) -> None:
        """Say beside a field why its value cannot be used."""
        control = self.controls.get(attribute)
        if isinstance(control, QuantityField):
            control.refuse(problem)
        elif attribute in self.messages:
            self.messages[attribute].setText(problem)
            self.messages[attribute].setVisible(bool(problem))

    def _build(self, fields: tuple[Field, ...]) -> None:
        while self._grid.count():
            item = self._grid.takeAt(0)
            widget = item.widget() if item else None
            if widget is not None:
                widget.hide()
                widget.deleteLater()
        self.controls, self.messages = {}, {}
        for row, field in enumerate(fields):
            control = self._control(field)
            caption = label(field.caption, "muted", 0.92)
            caption.setBuddy(control.edit if isinstance(control, QuantityField) else control)
            self.controls[field.attribute] = control
            caption.setToolTip(field.hint)
            if field.hint:
                (control.edit if isinstance(control, QuantityField) else control).setToolTip(field.hint)
            self._grid.addWidget(caption, 2 * row, 0)
            self._grid.addWidget(control, 2 * row, 1)
            message = label("", "error", 0.86)
            message.setWordWrap(True)
            message.hide()
            self.messages[field.attribute] = message
            self._grid.addWidget(message, 2 * row + 1, 0, 1, 2)

    def _control(self, field: Field) -> ChoiceBox | QuantityField | QSpinBox:
        if field.control == "quantity":
            quantity = QuantityField(field.caption, field.kind, self._view, self, unit=field.unit)
            quantity.committed.connect(partial(self._on_quantity, field))
            return quantity
        if field.control == "count":
            spin = QSpinBox(self)
            spin.setRange(int(field.low), int(field.high))
            spin.setAccessibleName(field.caption)
            spin.setButtonSymbols(QSpinBox.ButtonSymbols.NoButtons)
            spin.setToolTip("arrow keys up and down, or type")
            spin.setKeyboardTracking(False)  # a number is taken whole, not digit by digit
            spin.valueChanged.connect(partial(self._on_value, field))
            return spin
        if field.control == "section":
            sections = SectionBox(field.caption, field.choices(), self)
            sections.typed.connect(partial(self._on_typed_section, field))
            sections.given_up.connect(partial(self._on_given_up, field))
            sections.activated.connect(partial(self._on_chosen, field))
            return sections
        box = ChoiceBox(field.caption, field.choices(), self)
        box.activated.connect(partial(self._on_chosen, field))
        return box

    def _show(self, field: Field, value: object) -> None:
        control = self.controls[field.attribute]
        self.messages[field.attribute].hide()
        control.blockSignals(True)
        if isinstance(control, QuantityField) and isinstance(value, float | int):
            control.set_value(value / field.scale)
        elif isinstance(control, QSpinBox) and isinstance(value, int):
            show_number(control, value)
        elif isinstance(control, ChoiceBox):
            control.show_value(value, section(value).label if isinstance(value, CustomSection) else "")
        control.blockSignals(False)

    def _on_quantity(self, field: Field, value: float) -> None:
        si = value * field.scale
        if not field.low <= si <= field.high:
            self.refuse(
                field.attribute,
                f"expected {self._limit(field, field.low)} to {self._limit(field, field.high)}",
            )
            return
        self._emit(field, si)

    def _limit(self, field: Field, value: float) -> str:
        if field.kind == "length":
            return length_text(value, self._view.units)
        metric = field.unit or ("kg" if field.kind == "mass" else "")
        number, unit = in_units(value / field.scale, metric, self._view.units)
        return f"{number:{'g' if unit == metric else '.4g'}} {unit}".strip()

    def _on_value(self, field: Field, value: int) -> None:
        control = self.controls[field.attribute]
        line = control.lineEdit() if isinstance(control, QSpinBox) else None
        if line is not None:
            line.setModified(False)
        self._emit(field, value)

    def _on_chosen(self, field: Field, index: int) -> None:
        control = self.controls[field.attribute]
        if isinstance(control, ChoiceBox):
            self._emit(field, control.itemData(index))

    def _on_given_up(self, field: Field) -> None:
        if self._part is not None:
            self._show(field, value_of(self._part, field))

    def _on_typed_section(self, field: Field, text: str) -> None:
        control = self.controls.get(field.attribute)
        if not isinstance(control, ChoiceBox) or self._part is None:
            return
        if not isinstance(self._part, Member):
            return
        now = self._part.section
        try:
            wanted = section_from(text, now)
        except InputError as error:
            self.refuse(field.attribute, error.problem)
            return
        self.refuse(field.attribute, "")
        if wanted != now:
            self._emit(field, wanted)

    def _emit(self, field: Field, value: object) -> None:
        if self._part is not None and field in self._fields and value != value_of(self._part, field):
            self.edited.emit(with_value(self._part, field.attribute, value), field.attribute)
