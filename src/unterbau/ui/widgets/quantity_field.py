"""A field for a quantity as people type it; wrong input is answered beside it."""

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QLabel, QVBoxLayout, QWidget

from unterbau.errors import InputError
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.typed_line import TypedLine
from unterbau.units import Kind, in_units, length_text, parse, unit_text

UNIT = {"force": "N", "mass": "kg", "money": "", "plain": ""}


class QuantityField(QWidget):
    """Shows a quantity in the chosen units; keeps what was typed when it is wrong."""

    committed = pyqtSignal(float)
    """A new value, SI."""

    def __init__(
        self, name: str, kind: Kind, view: ViewSettings, parent: QWidget | None = None, message: QLabel | None = None,
        unit: str = "", optional: bool = False, fine: bool = False,
    ) -> None:  # fmt: skip
        """Take the label that wrong input is answered in; without one it stands below the field.

        A plain number may be shown with a unit, which may be typed behind it or left out. An
        optional field may be emptied, which means nothing, 0. A fine length is shown to the
        micrometre.
        """
        super().__init__(parent)
        self._kind, self._view = kind, view
        self._value = 0.0
        self._optional, self._fine = optional, fine
        self._unit = unit or UNIT.get(kind, "")
        self.edit = TypedLine(self)
        self.edit.setAccessibleName(name)
        self.message = message or QLabel(self)
        self.message.setProperty("role", "error")
        self.message.setWordWrap(message is None)
        self.message.hide()
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(1)
        layout.addWidget(self.edit)
        if message is None:
            layout.addWidget(self.message)
        self.edit.editingFinished.connect(self._on_finished)
        self.edit.given_up.connect(self.give_up)
        view.changed.connect(self._on_units_changed)

    @property
    def value(self) -> float:
        """The value shown, SI."""
        return self._value

    def set_value(self, value: float) -> None:
        """Show a value; a text that is typed and pending stays, with its message."""
        self._value = value
        if self.edit.show_text(self._text()):
            self._say("")

    def give_up(self) -> None:
        """Show the value again, whatever was typed."""
        self.edit.abandon(self._text())
        self._say("")

    def refuse(self, problem: str) -> None:
        """Say why a value that could be read cannot be used."""
        self._say(problem)

    def _text(self) -> str:
        if self._optional and self._value == 0.0:
            return ""
        if self._fine:
            metric = self._view.units == "mm"
            return f"{self._value * 1e3:.4g} mm" if metric else f"{self._value / 0.0254:.3g} in"
        if self._kind == "length":
            return length_text(self._value, self._view.units)
        if self._view.units == "mm":
            return f"{self._value:.6g} {self._unit}".strip()
        number, name = in_units(self._value, self._unit, self._view.units)
        return f"{number:.{6 if name == self._unit else 4}g} {name}".strip()

    def _say(self, problem: str) -> None:
        self.edit.setProperty("wrong", bool(problem))
        style = self.edit.style()
        if style is not None:
            style.unpolish(self.edit)
            style.polish(self.edit)
        self.message.setText(problem)
        self.message.setVisible(bool(problem))
        self.edit.setAccessibleDescription(problem)

    def _on_finished(self) -> None:
        if self.edit.text() == self._text():
            self._accept()
            return
        if self._optional and not self.edit.text().strip():
            self._accept()
            self.committed.emit(0.0)
            return
        try:
            typed, metric = self.edit.text(), False
            if self._kind == "plain" and self._unit:
                own = unit_text(self._unit, self._view.units)
                metric = typed.strip().endswith(self._unit) and own != self._unit
                typed = typed.strip().removesuffix(self._unit if metric else own)
            value = parse(typed, self._kind, self._view.units)
            if self._kind == "plain" and not metric:
                value /= in_units(1.0, self._unit, self._view.units)[0]
        except InputError as error:
            self._say(error.problem)
            return
        self._accept()
        self.committed.emit(value)
        if self.edit.hasFocus() and not self.edit.pending:
            self.edit.selectAll()  # what is typed next replaces it

    def _accept(self) -> None:
        self._say("")
        self.edit.accept_text()

    def _on_units_changed(self) -> None:
        self.edit.show_text(self._text())
