"""What the lens Clash adds under the view: which pieces are in each other's way, what it costs, which screws hide."""

from dataclasses import dataclass

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QListWidget, QListWidgetItem, QWidget

from unterbau.machine.machine import Machine
from unterbau.structure.parts import Place
from unterbau.studies.access import LONG, Access, reach_words
from unterbau.studies.clash import ASSUMED, Clash, Clashes, Together, cures_of, grouped, spoken, where_words
from unterbau.ui.stations.machine.list_beside import lay_list_beside
from unterbau.ui.theme import colour
from unterbau.ui.widgets.labels import label
from unterbau.ui.widgets.plain_tip import plain_tip
from unterbau.units import Units, length_text


@dataclass(frozen=True, slots=True)
class Collisions:
    """What the lens shows of a machine."""

    clashes: Clashes
    screws: tuple[Access, ...]


def head_words(found: Collisions) -> str:
    """Return how it came out, in a line."""
    pairs = f"{found.clashes.pairs} pairs looked at over the whole travel"
    hidden = sum(one.never for one in found.screws)
    screws = f"; {hidden} screws have to be put in before something else" if hidden else ""
    count = len(found.clashes.found)
    if not count:
        return f"nothing collides: {pairs}{screws}"
    return f"{count} pair{'s collide' if count > 1 else ' collides'}; {pairs}{screws}"


MOST_ALSO = 4
"""Pairs that are named; the others a hover away."""


class ClashBar(QWidget):
    """A list of clashes, then of screws, and what is to be said of the chosen one."""

    chosen = pyqtSignal(object)
    """A clash, or nothing."""
    head_wanted = pyqtSignal(Place)

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._found: Collisions | None = None
        self._machine: Machine | None = None
        self._units: Units = "mm"
        self._rows: tuple[Together | Access, ...] = ()
        self.list = QListWidget(self)
        self.list.setAccessibleName("What collides on the travel, then screws that are hard to reach")
        self.head = label("", "muted", 0.86)
        self.where, self.cures, self.also = label("", size=0.92), label("", size=0.92), label("", "muted", 0.86)
        self.assumed = label(ASSUMED, "muted", 0.82)
        lay_list_beside(self, self.head, self.list, (self.where, self.cures, self.also, self.assumed))
        self.list.currentRowChanged.connect(self._on_row)

    @property
    def clash(self) -> Clash | None:
        """The clash that is chosen."""
        row = self.list.currentRow()
        one = self._rows[row] if 0 <= row < len(self._rows) else None
        return one.worst if isinstance(one, Together) else None

    def show_collisions(self, machine: Machine, found: Collisions, units: Units) -> None:
        """Show what collides; the chosen one stays where it is there still."""
        if (found, units) == (self._found, self._units):
            return
        before = self.list.item(self.list.currentRow())
        now = before.text() if before is not None else ""
        self._found, self._machine, self._units = found, machine, units
        self._rows = (*grouped(found.clashes.found), *(one for one in found.screws if one.never or one.sometimes))
        self.list.blockSignals(True)
        self.list.clear()
        for one in self._rows:
            item = QListWidgetItem(_title(one), self.list)
            item.setToolTip(plain_tip(_title(one)))
            if isinstance(one, Together):
                item.setForeground(colour("warning"))
        self.head.setText(head_words(found))
        texts = [_title(one) for one in self._rows]
        row = texts.index(now) if now in texts else (0 if found.clashes.found else -1)
        self.list.setCurrentRow(row)
        self.list.blockSignals(False)
        self._show(row)

    def show_waiting(self, done: int, total: int) -> None:
        """Say that pieces are being looked at."""
        if total and self._found is None:
            self.head.setText(f"pieces are being moved past each other, {done} of {total} …")

    def _show(self, row: int) -> None:
        one = self._rows[row] if 0 <= row < len(self._rows) else None
        if self._machine is None or one is None:
            self.where.setText("choose a line to have it lit, the head put there")
            self.cures.setText("")
            self.also.setText("")
            return
        if isinstance(one, Access):
            self.where.setText(f"{one.size} of {spoken(one.of)}: {reach_words(one)}")
            room = length_text(LONG, self._units)
            self.cures.setText(f"a key and a hand need {room} before a head, twice as wide as it; common practice")
            self.also.setText("")
            return
        self.where.setText(f"{_pair(one.worst)}, {where_words(one.worst, self._units)}")
        self.cures.setText("helps: " + "; or ".join(cures_of(one.worst, self._machine, self._units)))
        pairs = list(dict.fromkeys(_pair(also) for also in one.also))
        names = ", ".join(pairs[:MOST_ALSO]) + (f" and {len(pairs) - MOST_ALSO} more" if len(pairs) > MOST_ALSO else "")
        self.also.setText(f"then out of the way as well: {names}" if names else "")
        self.also.setToolTip(", ".join(pairs))

    def _on_row(self, row: int) -> None:
        self._show(row)
        one = self._rows[row] if 0 <= row < len(self._rows) else None
        if isinstance(one, Together):
            self.head_wanted.emit(one.worst.place)
        elif one is not None and one.place is not None:
            self.head_wanted.emit(one.place)
        self.chosen.emit(self.clash)


def _title(one: Together | Access) -> str:
    if isinstance(one, Access):
        return f"·  {one.size} of {spoken(one.of)}: {reach_words(one)}"
    more = f", and {len(one.also)} more" if one.also else ""
    return f"✕  {_pair(one.worst)}{more}"


def _pair(one: Clash) -> str:
    return f"{spoken(one.first)} and {spoken(one.second)}"
