"""What the lens Change adds under the view: what was added or left out, and where the chosen one stands."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import partial

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QCheckBox, QGridLayout, QHBoxLayout, QListWidget, QPushButton, QVBoxLayout, QWidget
from typing_extensions import override

from unterbau.machine.changes.change import Change, LeftOut, Measured, Partless, footings, name_of
from unterbau.structure.footing import Footing
from unterbau.structure.structure import Structure
from unterbau.ui.stations.machine.spot_row import SpotRow
from unterbau.ui.theme import colour, em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.labels import label
from unterbau.ui.widgets.plain_tip import plain_tip

SORTS = {
    "brace": "a member between two spots", "panel": "a plate over three or four spots",
    "weight": "a body at a spot: motor, vice, hood, box", "chain": "a drag chain from what moves to what stands",
    "left_out": "a piece that you do not want",
}  # fmt: skip
BUTTONS = {"brace": "+ brace", "panel": "+ panel", "weight": "+ weight", "chain": "+ chain", "left_out": "leave out"}
CLICKS = {
    "brace": "click two spots on the machine, or choose them here", "panel": "click three or four spots, in order "
    "round, or choose them here", "weight": "click a spot, or choose it here",
    "chain": "click a spot on what moves, then one beside its way on what stands, or choose them here",
    "left_out": "click a spot of the piece that goes, or choose it here",
}  # fmt: skip
WANTED = {"brace": 2, "panel": 4, "weight": 1, "chain": 2, "left_out": 1}
LEAST = {"brace": 2, "panel": 3, "weight": 1, "chain": 2, "left_out": 1}
MOST = 4


@dataclass(frozen=True, slots=True)
class Draft:
    """A change on its way: its spots as far as they are chosen."""

    sort: str
    spots: tuple[Footing | None, ...]

    @property
    def enough(self) -> bool:
        """Whether it can be put up."""
        return sum(one is not None for one in self.spots) >= LEAST[self.sort]


def change_words(one: Change) -> str:
    """Return a change in a line."""
    if isinstance(one, LeftOut):
        return f"left out: {one.what.replace('_', ' ')}"
    if isinstance(one, Measured):
        return name_of(one)
    pieces = " to ".join(dict.fromkeys(footing.piece for footing in footings(one)))
    return f"{name_of(one)}: {pieces}{', and mirrored' if one.mirrored else ''}"


class ChangeBar(QWidget):
    """Lists changes; shows the spots of the chosen one, or of the one on its way."""

    wanted = pyqtSignal(str)
    """A change of this sort should be begun."""
    given_up = pyqtSignal()
    chosen = pyqtSignal(str)
    """Id of a change."""
    removed = pyqtSignal(str)
    spot_changed = pyqtSignal(int, object)
    """Number of a spot, and its footing."""
    put_up = pyqtSignal()
    mirrored = pyqtSignal(bool)

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._changes: tuple[Change, ...] = ()
        self._id = ""
        self.buttons = {sort: QPushButton(text, self) for sort, text in BUTTONS.items()}
        self.list = _List(self)
        self.hint = label("", size=0.9)
        self.rows = [SpotRow(f"spot {n + 1}", view, self) for n in range(MOST)]
        self.both = QCheckBox("mirrored", self)
        self.standing = QPushButton("put it up", self)
        self.remove = QPushButton("remove", self)
        self._build()
        for sort, button in self.buttons.items():
            button.clicked.connect(partial(self._on_wanted, sort))
        for number, row in enumerate(self.rows):
            row.changed.connect(partial(self.spot_changed.emit, number))
        self.list.currentRowChanged.connect(self._on_row)
        self.list.deleted.connect(self._on_removed)
        self.remove.clicked.connect(self._on_removed)
        self.standing.clicked.connect(self.put_up)
        self.both.toggled.connect(self._on_mirrored)

    def show_changes(
        self, structure: Structure, changes: tuple[Change, ...], chosen: str, draft: Draft | None, problem: str
    ) -> None:
        """Show what there is, and the spots of the chosen one or of the draft."""
        self._id = chosen
        self._list(changes, structure.fallen, chosen)
        one = next((each for each in changes if each.id == chosen), None)
        self.hint.setText(_hint(one, draft, structure.fallen, problem))
        self.hint.setProperty("role", "error" if problem or (one is not None and one.id in structure.fallen) else "")
        spots: tuple[Footing | None, ...] = ()
        if draft is not None:
            spots = draft.spots
        elif one is not None:
            spots = footings(one)
        for number, row in enumerate(self.rows):
            there = number < len(spots)
            for widget in row.widgets():
                widget.setVisible(there)
            if there:
                row.show_spot(structure, spots[number])
        for sort, button in self.buttons.items():
            button.setChecked(draft is not None and draft.sort == sort)
        self.standing.setVisible(draft is not None)
        self.standing.setEnabled(draft is not None and draft.enough)
        self.standing.setText("leave it out" if draft is not None and draft.sort == "left_out" else "put it up")
        self.remove.setVisible(draft is None and one is not None)
        self.both.setVisible(draft is None and one is not None and not isinstance(one, Partless))
        if one is not None and not isinstance(one, Partless):
            self.both.blockSignals(True)
            self.both.setChecked(one.mirrored)
            self.both.blockSignals(False)

    def _list(self, changes: tuple[Change, ...], fallen: Mapping[str, str], chosen: str) -> None:
        self.list.blockSignals(True)
        self._changes = changes
        self.list.clear()
        for one in changes:
            why = fallen.get(one.id)
            self.list.addItem(change_words(one) if why is None else f"does not stand: {change_words(one)}")
            item = self.list.item(self.list.count() - 1)
            if item is not None:
                item.setToolTip(plain_tip(why or change_words(one)))
                if why is not None:
                    item.setForeground(colour("warning"))
        ids = [one.id for one in changes]
        self.list.setCurrentRow(ids.index(chosen) if chosen in ids else -1)
        self.list.blockSignals(False)

    def _on_wanted(self, sort: str, on: bool) -> None:
        if on:
            self.wanted.emit(sort)
        else:
            self.given_up.emit()

    def _on_row(self, row: int) -> None:
        if 0 <= row < len(self._changes):
            self.chosen.emit(self._changes[row].id)

    def _on_removed(self) -> None:
        if self._id:
            self.removed.emit(self._id)

    def _on_mirrored(self, on: bool) -> None:
        self.mirrored.emit(on)

    def _build(self) -> None:
        unit = em()
        self.setFixedHeight(round(11.5 * unit))
        box = QHBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(round(0.8 * unit))
        left, right = QVBoxLayout(), QVBoxLayout()
        ways = QHBoxLayout()
        ways.setSpacing(round(0.2 * unit))
        for sort, button in self.buttons.items():
            button.setCheckable(True)
            button.setFont(font(0.88))
            button.setProperty("small", True)
            button.setToolTip(SORTS[sort])
            button.setAccessibleName(f"{BUTTONS[sort].removeprefix('+ ')}: {SORTS[sort]}")
            ways.addWidget(button)
        left.addLayout(ways)
        self.list.setAccessibleName("What was added to the machine or left out")
        self.list.setFont(font(0.9))
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.list.setTextElideMode(Qt.TextElideMode.ElideRight)
        left.addWidget(self.list, 1)
        self.hint.setWordWrap(True)
        right.addWidget(self.hint)
        grid = QGridLayout()
        grid.setHorizontalSpacing(round(0.3 * unit))
        grid.setVerticalSpacing(round(0.15 * unit))
        for column, stretch in ((1, 6), (2, 4), (3, 3), (4, 5), (5, 4)):
            grid.setColumnStretch(column, stretch)
        for number, row in enumerate(self.rows):
            row.put_into(grid, number)
        right.addLayout(grid)
        orders = QHBoxLayout()
        for button, tip in ((self.standing, "put it up as it is chosen"), (self.remove, "take it away, Delete")):
            button.setFont(font(0.88))
            button.setProperty("small", True)
            button.setToolTip(tip)
        self.both.setFont(font(0.88))
        self.both.setToolTip("once more on the other side, left and right exchanged")
        for one in (self.standing, self.both, self.remove):
            orders.addWidget(one)
        orders.addStretch(1)
        right.addLayout(orders)
        right.addStretch(1)
        box.addLayout(left, 3)
        box.addLayout(right, 8)


def _hint(one: Change | None, draft: Draft | None, fallen: Mapping[str, str], problem: str) -> str:
    if problem:
        return problem
    if draft is not None:
        return CLICKS[draft.sort]
    if one is None:
        return "braces, panels, weights of your own on this machine, and pieces left out; each is a link like any other"
    if one.id in fallen:
        return f"does not stand, and is left away: {fallen[one.id]}"
    return f"{change_words(one)}; drag its spots along their pieces" if footings(one) else change_words(one)


class _List(QListWidget):
    """A list whose chosen line the Delete key takes away."""

    deleted = pyqtSignal()

    @override
    def keyPressEvent(self, e: QKeyEvent | None) -> None:
        if e is not None and e.key() == Qt.Key.Key_Delete:
            self.deleted.emit()
            return
        super().keyPressEvent(e)
