"""One spot of a change as one types it: piece, face, how far along and across."""

from dataclasses import replace
from typing import Any

from PyQt6.QtCore import QObject, pyqtSignal
from PyQt6.QtWidgets import QGridLayout, QWidget

from unterbau.machine.changes.offered import along_of, faces_of, hosts, measured_anew
from unterbau.structure.footing import Footing
from unterbau.structure.structure import Structure
from unterbau.ui.theme import font
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.choice_box import ChoiceBox
from unterbau.ui.widgets.labels import label
from unterbau.ui.widgets.quantity_field import QuantityField

MEASURED = (("share", "as share"), ("start", "from start"), ("end", "from end"))
ACROSS = ((0.0, "edge"), (0.25, "quarter"), (0.5, "middle"), (0.75, "¾ across"), (1.0, "far edge"))
NOT_CHOSEN = "choose …"


class SpotRow(QObject):
    """The controls of a spot, in a row of a grid."""

    changed = pyqtSignal(object)
    """The footing that was made of it."""

    def __init__(self, name: str, view: ViewSettings, parent: QWidget) -> None:
        super().__init__(parent)
        self._structure: Structure | None = None
        self._footing: Footing | None = None
        self.caption = label(name, "muted", 0.88)
        self.piece = ChoiceBox(f"{name}, piece", (), parent)
        self.face = ChoiceBox(f"{name}, face", (), parent)
        self.along = QuantityField(f"{name}, along", "length", view, parent, label("", "error", 0.8))
        self.measured = ChoiceBox(f"{name}, measured", MEASURED, parent)
        self.across = ChoiceBox(f"{name}, across", ACROSS, parent)
        for box in (self.piece, self.face, self.measured, self.across):
            box.setFont(font(0.86))
            box.setMinimumContentsLength(4)
        self.along.edit.setFont(font(0.86))
        self.piece.activated.connect(self._on_piece)
        self.face.activated.connect(self._on_face)
        self.measured.activated.connect(self._on_measured)
        self.across.activated.connect(self._on_across)
        self.along.committed.connect(self._on_along)

    def put_into(self, grid: QGridLayout, row: int) -> None:
        """Take a row of a grid."""
        for column, one in enumerate(self.widgets()):
            grid.addWidget(one, row, column)

    def widgets(self) -> tuple[QWidget, ...]:
        """Return the controls, in order."""
        return (self.caption, self.piece, self.face, self.along, self.measured, self.across)

    def show_spot(self, structure: Structure, footing: Footing | None) -> None:
        """Show a spot, or none that is chosen yet."""
        self._structure, self._footing = structure, footing
        names: tuple[tuple[str, str], ...] = tuple((one.name, one.name) for one in hosts(structure))
        _fill(self.piece, names if footing is not None else (("", NOT_CHOSEN), *names))
        self.piece.show_value("" if footing is None else footing.piece)
        faces = faces_of(structure, footing.piece) if footing is not None else ()
        _fill(self.face, tuple((one, one) for one in faces))
        lengthwise = footing is not None and footing.face not in ("start", "end")
        for box in (self.face, self.measured):
            box.setEnabled(footing is not None)
        self.along.setEnabled(lengthwise)
        self.measured.setEnabled(lengthwise)
        self.across.setEnabled(lengthwise and footing is not None and footing.face != "axis")
        if footing is None:
            return
        self.face.show_value(footing.face)
        self.along.set_value(along_of(structure, footing))
        self.measured.show_value(footing.measured)
        self.across.show_value(footing.across, f"{footing.across:.0%} across")

    def _emit(self, footing: Footing) -> None:
        if footing != self._footing:
            self.changed.emit(footing)

    def _on_piece(self, index: int) -> None:
        name = self.piece.itemData(index)
        if not name or self._structure is None:
            return
        faces = faces_of(self._structure, name)
        before = self._footing or Footing(name, faces[0])
        face = before.face if before.face in faces else faces[0]
        self._emit(replace(before, piece=name, face=face, along=0.5, measured="share"))

    def _on_face(self, index: int) -> None:
        changed: dict[str, Any] = {"face": self.face.itemData(index)}
        if self._footing is not None:
            self._emit(replace(self._footing, **changed))

    def _on_along(self, value: float) -> None:
        if self._footing is None or self._structure is None:
            return
        told = "start" if self._footing.measured == "share" else self._footing.measured
        self._emit(measured_anew(self._structure, self._footing, told, value))

    def _on_measured(self, index: int) -> None:
        if self._footing is None or self._structure is None:
            return
        now = along_of(self._structure, self._footing)
        self._emit(measured_anew(self._structure, self._footing, str(self.measured.itemData(index)), now))

    def _on_across(self, index: int) -> None:
        if self._footing is not None:
            self._emit(replace(self._footing, across=float(self.across.itemData(index))))


def _fill(box: ChoiceBox, choices: tuple[tuple[str, str], ...]) -> None:
    """Offer other choices, where they are others."""
    if tuple(box.itemData(n) for n in range(box.count())) == tuple(value for value, _ in choices):
        return
    box.clear()
    for value, words in choices:
        box.addItem(words, value)
