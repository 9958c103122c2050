"""The steps of a build as a list: dragged, or moved by keys, into the order one wants them in."""

from PyQt6.QtCore import QSignalBlocker, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QAbstractItemView, QListWidget, QListWidgetItem, QWidget
from typing_extensions import override

from unterbau.shop.build.schedule import Dated
from unterbau.shop.build.steps import Step
from unterbau.ui.theme import font
from unterbau.ui.widgets.plain_tip import plain_tip

MARKS = {"done": "✓", "outside": "!", "now": "▸", "hold": "◇", "later": " "}


class StepList(QListWidget):
    """Shows steps with their dates; tells another order that is wanted."""

    moved = pyqtSignal(object)
    """Ids of all steps in the order wanted."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setAccessibleName("Steps of the build; Enter marks one as done, Ctrl+Up and Ctrl+Down move it")
        self.setFont(font(0.92))
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setTextElideMode(Qt.TextElideMode.ElideRight)
        self.setDragDropMode(QAbstractItemView.DragDropMode.InternalMove)
        model = self.model()
        if model is not None:
            model.rowsMoved.connect(lambda *_: self.moved.emit(self.ids()))

    def ids(self) -> tuple[str, ...]:
        """Return the steps by id, as they stand."""
        rows = (self.item(row) for row in range(self.count()))
        return tuple(str(item.data(Qt.ItemDataRole.UserRole)) for item in rows if item is not None)

    def show_steps(
        self, steps: list[Step], dated: dict[str, Dated], done: frozenset[str], now: tuple[str, ...], chosen: str,
        outside: frozenset[str] = frozenset(),
    ) -> None:  # fmt: skip
        """Show steps in an order, the chosen one marked; `outside` are done without a reading within their limit."""
        with QSignalBlocker(self):
            self.clear()
            for one in steps:
                mark = "now" if one.id in now else "hold" if one.hold else "later"
                if one.id in done:
                    mark = "outside" if one.id in outside else "done"
                when = f"{dated[one.id].start:%d %b}  " if one.id in dated else ""
                item = QListWidgetItem(f"{MARKS[mark]}  {when}{one.words}", self)
                item.setData(Qt.ItemDataRole.UserRole, one.id)
                caution = f"; {one.caution}" if one.caution else ""
                item.setToolTip(plain_tip(f"{one.words}; {one.hours:.1f} h{caution}"))
            self.setCurrentRow([one.id for one in steps].index(chosen))

    @override
    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        way = {Qt.Key.Key_Up: -1, Qt.Key.Key_Down: 1}.get(Qt.Key(event.key()), 0) if event is not None else 0
        if event is None or not way or event.modifiers() != Qt.KeyboardModifier.ControlModifier:
            super().keyPressEvent(event)
            return
        ids, row = list(self.ids()), self.currentRow()
        if 0 <= row < len(ids) and 0 <= row + way < len(ids):
            ids[row], ids[row + way] = ids[row + way], ids[row]
            self.moved.emit(tuple(ids))
        event.accept()
