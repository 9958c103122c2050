"""The figures to be sorted, copied and saved."""

from PyQt6.QtCore import QModelIndex, QSortFilterProxyModel, Qt, pyqtSignal
from PyQt6.QtGui import QGuiApplication, QKeyEvent, QKeySequence
from PyQt6.QtWidgets import QAbstractItemView, QHeaderView, QMenu, QTableView, QWidget
from typing_extensions import override

from unterbau.ui.stations.compare.figures_model import COLUMNS, FiguresModel, Row, titled
from unterbau.ui.theme import em, font
from unterbau.units import Units


class FiguresTable(QTableView):
    """A row is chosen as a card is."""

    chosen = pyqtSignal(str)

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.figures = FiguresModel(self)
        self._sorted = QSortFilterProxyModel(self)
        self._sorted.setSourceModel(self.figures)
        self._sorted.setSortRole(Qt.ItemDataRole.UserRole)
        self.setModel(self._sorted)
        self.setAccessibleName("Figures of all candidates")
        self.setFont(font(0.88))
        self.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        self.setSelectionMode(QAbstractItemView.SelectionMode.ExtendedSelection)
        self.setShowGrid(False)
        self.setSortingEnabled(True)
        self._sorted.sort(-1)
        self.setTabKeyNavigation(False)
        across, down = self.horizontalHeader(), self.verticalHeader()
        if across is not None and down is not None:
            across.setSectionResizeMode(QHeaderView.ResizeMode.ResizeToContents)
            across.setSectionResizeMode(0, QHeaderView.ResizeMode.Stretch)
            across.setSortIndicatorShown(True)
            across.setSortIndicator(-1, Qt.SortOrder.AscendingOrder)
            down.hide()
            down.setDefaultSectionSize(round(1.75 * em()))
        for number, column in enumerate(COLUMNS, 1):
            self.setColumnHidden(number, not column.usual)
        self.clicked.connect(self._on_picked)
        self.activated.connect(self._on_picked)

    def show_rows(self, rows: tuple[Row, ...], units: Units, chosen: str) -> None:
        """Show candidates; the chosen one is marked."""
        self.figures.show_rows(rows, units)
        selection = self.selectionModel()
        picked = selection.selectedRows() if selection else []
        marked = {str(index.data(Qt.ItemDataRole.UserRole)) for index in picked}
        if len(marked) <= 1 and marked != {chosen}:
            for row in range(self._sorted.rowCount()):
                if self._sorted.index(row, 0).data(Qt.ItemDataRole.UserRole) == chosen:
                    self.selectRow(row)

    def menu(self) -> QMenu:
        """Return a menu in which columns are shown or hidden."""
        menu = QMenu(self)
        for number, column in enumerate(COLUMNS, 1):
            words = titled(column.title, "mm").replace("  ", " ")
            action = menu.addAction(words if column.usual else f"{words}: {column.tip}")
            assert action is not None
            action.setCheckable(True)
            action.setChecked(not self.isColumnHidden(number))
            action.toggled.connect(lambda on, number=number: self.setColumnHidden(number, not on))
        return menu

    def marked(self) -> tuple[str, ...]:
        """Return the candidates that are marked, where there are two or more, else all."""
        return tuple(str(self._sorted.index(row, 0).data(Qt.ItemDataRole.UserRole)) for row in self._marked_rows())

    def _marked_rows(self) -> list[int]:
        selection = self.selectionModel()
        rows = sorted(index.row() for index in selection.selectedRows()) if selection else []
        return rows if len(rows) > 1 else list(range(self._sorted.rowCount()))

    def copied(self) -> str:
        """Return the marked rows, or all, as a table of tabs with its head."""
        rows = self._marked_rows()
        columns = [number for number in range(self._sorted.columnCount()) if not self.isColumnHidden(number)]
        head = [str(self._sorted.headerData(c, Qt.Orientation.Horizontal)) for c in columns]
        lines = [head, *([str(self._sorted.index(r, c).data()) for c in columns] for r in rows)]
        return "\n".join("\t".join(line) for line in lines)

    def copy(self) -> None:
        """Put the table on the clipboard."""
        clipboard = QGuiApplication.clipboard()
        if clipboard is not None:
            clipboard.setText(self.copied())

    @override
    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and event.matches(QKeySequence.StandardKey.Copy):
            self.copy()
            return
        super().keyPressEvent(event)
        if event is not None and event.key() in (Qt.Key.Key_Up, Qt.Key.Key_Down) and not event.modifiers():
            self._on_picked(self.currentIndex())

    def _on_picked(self, index: QModelIndex) -> None:
        if index.isValid():
            self.chosen.emit(str(self._sorted.index(index.row(), 0).data(Qt.ItemDataRole.UserRole)))
