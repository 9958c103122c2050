"""The lens Change at work: spots are clicked or typed, braces stand, spots are dragged; all of it undoable."""

from dataclasses import replace

import numpy as np
from PyQt6.QtCore import QObject, QPointF, pyqtSignal

from unterbau.errors import InputError
from unterbau.machine.changes.change import Brace, Chain, Change, LeftOut, Measured, Panel, Partless, Weight, footings
from unterbau.machine.changes.linked import change_of, free_id, with_change
from unterbau.machine.changes.offered import Offered, axis_seen, moved_along, offered, seen, words_of
from unterbau.machine.machine import Machine, lay_out, not_standing
from unterbau.project import edits
from unterbau.structure.footing import Footing
from unterbau.structure.structure import Structure
from unterbau.ui.document import Document
from unterbau.ui.selection import Selection
from unterbau.ui.stations.machine.change_bar import WANTED, ChangeBar, Draft
from unterbau.ui.viewport.dots import Dots
from unterbau.ui.viewport.viewport import Viewport


class Changing(QObject):
    """Turns clicks on spots into changes of the chosen candidate's machine."""

    trouble = pyqtSignal(str)
    shown = pyqtSignal()
    """What is shown changed; the picture should be drawn again."""

    def __init__(
        self, document: Document, selection: Selection, viewport: Viewport, bar: ChangeBar, parent: QObject
    ) -> None:
        super().__init__(parent)
        self._document, self._selection, self._viewport, self.bar = document, selection, viewport, bar
        self.draft: Draft | None = None
        self.chosen = ""
        """Id of the change whose spots are shown."""
        self._problem = ""
        self._open = False
        self._offered: tuple[Offered, ...] = ()
        self._grabbed: tuple[int, Footing] | None = None
        bar.wanted.connect(self.begin)
        bar.given_up.connect(self.give_up)
        bar.chosen.connect(self.choose)
        bar.removed.connect(self.remove)
        bar.spot_changed.connect(self._on_spot_typed)
        bar.put_up.connect(self._put_up)
        bar.mirrored.connect(self._on_mirrored)
        viewport.spots.clicked.connect(self._on_spot_clicked)
        viewport.spots.moved.connect(self._on_spot_moved)
        viewport.spots.released.connect(self._on_spot_released)

    @property
    def spots(self) -> tuple[Offered, ...]:
        """What can be clicked."""
        return self._offered

    @property
    def machine(self) -> Machine:
        """The chosen candidate's machine."""
        return self._document.project.candidate(self._selection.candidate).machine

    def show(self, on: bool) -> None:
        """Show spots and changes, or take the spots away."""
        if not on:
            if self._open:
                self._open, self.draft, self._problem = False, None, ""
                self._viewport.spots.show(None)
            return
        self._open = True
        machine = self.machine
        structure = lay_out(machine)
        if all(one.id != self.chosen for one in machine.changes):
            self.chosen = machine.changes[-1].id if machine.changes else ""
        self._offered = offered(structure, self._selection.place)
        held = self._held(structure)
        places = [one.place for one in self._offered] + [place for _, place in held]
        words = [one.words for one in self._offered] + [words_of(footing) for footing, _ in held]
        first = len(self._offered)
        self._viewport.spots.show(Dots(np.array(places), tuple(words), tuple(range(first, first + len(held)))))
        self.bar.show_changes(structure, machine.changes, self.chosen, self.draft, self._problem)

    def begin(self, sort: str) -> None:
        """Begin a change; its spots follow."""
        self.draft, self._problem = Draft(sort, (None,) * WANTED[sort]), ""
        self._refresh()
        self.bar.rows[0].piece.setFocus()

    def give_up(self) -> None:
        """Leave the change on its way."""
        self.draft, self._problem = None, ""
        self._refresh()

    def choose(self, name: str) -> None:
        """Show a change's spots, and put it on the bench."""
        self.chosen, self.draft, self._problem = name, None, ""
        if change_of(self.machine.changes, name) is not None:
            self._selection.choose_link(name)
        self._refresh()

    def remove(self, name: str) -> None:
        """Take a change away."""
        left = tuple(one for one in self.machine.changes if one.id != name)
        self._apply(left, f"remove {name.replace('_', ' ')}")

    def _held(self, structure: Structure) -> list[tuple[Footing, tuple[float, float, float]]]:
        """Return the spots that can be dragged, or are chosen already, and where they are seen."""
        one = next((each for each in self.machine.changes if each.id == self.chosen), None)
        spots = footings(one) if one is not None else ()
        if self.draft is not None:
            spots = tuple(spot for spot in self.draft.spots if spot is not None)
        found = []
        for footing in spots:
            try:
                found.append((footing, seen(structure, footing, self._selection.place)))
            except InputError:
                continue
        return found

    def _refresh(self) -> None:
        if self._open:
            self.show(True)
            self.shown.emit()

    def _on_spot_clicked(self, number: int) -> None:
        if self.draft is None or number >= len(self._offered):
            return
        empty = next((n for n, spot in enumerate(self.draft.spots) if spot is None), None)
        if empty is not None:
            self._on_spot_typed(empty, self._offered[number].footing)
            if self.draft is not None and all(spot is not None for spot in self.draft.spots):
                self._put_up()

    def _on_spot_typed(self, number: int, footing: Footing) -> None:
        if self.draft is not None:
            spots = list(self.draft.spots)
            spots[number] = footing
            self.draft, self._problem = replace(self.draft, spots=tuple(spots)), ""
            self._refresh()
            return
        self._move_spot(number, footing, "")

    def _move_spot(self, number: int, footing: Footing, key: str) -> None:
        one = next((each for each in self.machine.changes if each.id == self.chosen), None)
        if one is None:
            return
        changed = with_footing(one, number, footing)
        self._apply(with_change(self.machine.changes, changed), f"{one.id.replace('_', ' ')}: spot {number + 1}", key)

    def _put_up(self) -> None:
        """Make the change on its way one of the machine's; where it would not stand, say why and keep on choosing."""
        if self.draft is None or not self.draft.enough:
            return
        machine = self.machine
        made = made_of(self.draft, machine)
        changes = (*machine.changes, made)
        try:
            fallen = not_standing(replace(machine, changes=changes))
        except InputError as error:
            self._problem = error.problem
            self._refresh()
            return
        if made.id in fallen:
            self._problem = f"it would not stand: {fallen[made.id]}"
            kept = self.draft.spots[: max(0, len(self.draft.spots) - 1)]
            self.draft = replace(self.draft, spots=(*kept, None))
            self._refresh()
            return
        self.draft, self.chosen = None, made.id
        self._apply(changes, f"add {made.id.replace('_', ' ')}")
        if not isinstance(made, Partless):
            self._selection.choose_link(made.id)

    def _apply(self, changes: tuple[Change, ...], text: str, key: str = "") -> None:
        project, name = self._document.project, self._selection.candidate
        try:
            after = edits.set_machine(project, name, replace(self.machine, changes=changes))
        except InputError as error:
            self._problem = error.problem
            self._refresh()
            return
        self._problem = ""
        self._document.apply(after, text, key)
        self._refresh()

    def _on_mirrored(self, on: bool) -> None:
        one = change_of(self.machine.changes, self.chosen)
        if one is not None:
            words = "mirrored" if on else "on one side only"
            changed = replace(one, mirrored=on)
            self._apply(with_change(self.machine.changes, changed), f"{one.id.replace('_', ' ')}: {words}")

    def _on_spot_moved(self, number: int, moved: QPointF) -> None:
        one = next((each for each in self.machine.changes if each.id == self.chosen), None)
        index = number - len(self._offered)
        if one is None or self.draft is not None or not 0 <= index < len(footings(one)):
            return
        if self._grabbed is None:
            self._grabbed = (index, footings(one)[index])
        index, before = self._grabbed
        structure, eye = lay_out(self.machine), self._viewport.canvas.eye
        try:
            place = np.array(seen(structure, before, self._selection.place))
            along = np.array(axis_seen(structure, before, self._selection.place))
        except InputError:
            return
        pixels = np.array(eye.on_widget(place + along)) - np.array(eye.on_widget(place))
        size = float(pixels @ pixels)
        if size < 1.0:
            return
        by = float(np.array([moved.x(), moved.y()]) @ pixels) / size
        key = f"spot/{self._selection.candidate}/{one.id}/{index}"
        self._move_spot(index, moved_along(structure, before, by), key)

    def _on_spot_released(self) -> None:
        self._grabbed = None
        self._document.end_gesture()


def made_of(draft: Draft, machine: Machine) -> Change:
    """Return the change that a draft makes."""
    spots = tuple(spot for spot in draft.spots if spot is not None)
    name = free_id(machine.changes, draft.sort)
    match draft.sort:
        case "brace":
            return Brace(name, spots[0], spots[1])
        case "panel":
            return Panel(name, spots)
        case "weight":
            return Weight(name, spots[0])
        case "chain":
            return Chain(name, spots[0], spots[1])
        case _:
            return LeftOut(name, spots[0].piece)


def with_footing(one: Change, number: int, footing: Footing) -> Change:
    """Return a change with one of its spots elsewhere."""
    match one:
        case Brace() | Chain():
            return replace(one, a=footing) if number == 0 else replace(one, b=footing)
        case Panel():
            return replace(one, corners=tuple(footing if n == number else f for n, f in enumerate(one.corners)))
        case Weight():
            return replace(one, at=footing)
        case LeftOut():
            return replace(one, what=footing.piece)
        case Measured():
            return one
