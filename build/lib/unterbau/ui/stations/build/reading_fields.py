"""Fields on the picture of a bench, each where its reading is taken; together they make the bench's line."""

from functools import partial

from PyQt6.QtCore import QRect, QRectF, Qt, pyqtSignal
from PyQt6.QtWidgets import QWidget

from unterbau.shop.measure.slots import Slots, slots_of, values_of
from unterbau.ui.stations.build.reading_spots import FIELD, spots_of
from unterbau.ui.theme import em, font
from unterbau.ui.widgets.typed_line import TypedLine

TALL = 1.55


class ReadingField(TypedLine):
    """One reading."""

    several = pyqtSignal(str)
    """More than one number was put in."""

    def take(self) -> bool:
        """Return whether the field holds one reading; more than one are for the whole line."""
        if len(self.text().replace("/", " ").split()) < 2:
            return True
        text = self.text()
        self.clear()
        self.several.emit(text)
        return False


class ReadingFields(QWidget):
    """Lies over the picture; what is between the fields is clear."""

    read = pyqtSignal(str)
    """A line of readings, when each place has its own."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.slots = Slots("", (0,))
        self.fields: list[ReadingField] = []
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)

    def show_line(self, bench: str, line: str) -> None:
        """Show a bench's fields with what a line says, or empty ones."""
        slots = slots_of(bench, line)
        if slots != self.slots:
            self._make(slots)
        elif not line:
            for one in self.fields:
                one.clear()
        if line:
            for field, value in zip(self.fields, values_of(slots, line), strict=True):
                field.setText(value)

    def place(self, area: QRectF) -> bool:
        """Put the fields where their readings are taken; return whether they have room."""
        spots = spots_of(self.slots, area) if self.slots.bench else []
        wide, tall = round(FIELD * em()), round(TALL * em())
        for field, spot in zip(self.fields, spots, strict=False):
            left = min(max(spot.x() - wide / 2, 0.0), self.width() - wide)
            field.setGeometry(QRect(round(left), round(spot.y() - tall / 2), wide, tall))
        for field in self.fields:
            field.setVisible(bool(spots))
        return bool(spots)

    def _make(self, slots: Slots) -> None:
        for one in self.fields:
            one.setParent(None)
            one.deleteLater()
        self.slots, self.fields = slots, []
        for number, words in enumerate(slots.words):
            field = ReadingField(self)
            field.setFont(font(0.82))
            field.setAlignment(Qt.AlignmentFlag.AlignCenter)
            field.setAccessibleName(f"{slots.bench}: {words}")
            field.setToolTip(words)
            field.setProperty("spot", True)
            field.returnPressed.connect(partial(self._go_on, number))
            field.editingFinished.connect(partial(self._on_typed, field))
            field.several.connect(self.read)
            self.fields.append(field)

    def _on_typed(self, field: ReadingField) -> None:
        if field.isModified() and field.take():
            field.setModified(False)
            line = self.slots.line(tuple(one.text() for one in self.fields))
            if line:
                self.read.emit(line)

    def _go_on(self, number: int) -> None:
        if number + 1 < len(self.fields):
            self.fields[number + 1].setFocus()
            self.fields[number + 1].selectAll()
