"""Every command with its keys, on one page."""

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QDialog,
    QHeaderView,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from unterbau.ui.commands import Command
from unterbau.ui.theme import em
from unterbau.ui.widgets.labels import heading, label

EVERYWHERE = (
    ("Tab, Shift+Tab", "next and previous control"),
    ("◂ ▸ on the load path", "next and previous link"),
    ("Esc", "stop what is being computed, close what is open"),
)


class ShortcutPage(QDialog):
    """Read only; made from the same data as menus and finder."""

    def __init__(self, commands: list[Command], parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("Keys")
        rows = [(c.shortcut, c.text, c.tip) for c in commands if c.shortcut]
        rows += [(keys, words, "") for keys, words in EVERYWHERE]
        self.table = QTableWidget(len(rows), 3, self)
        self.table.setAccessibleName("Keys and what they do")
        self.table.setHorizontalHeaderLabels(["keys", "does", "note"])
        self.table.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.table.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        self.table.setShowGrid(False)
        vertical, across = self.table.verticalHeader(), self.table.horizontalHeader()
        if vertical is not None and across is not None:
            vertical.hide()
            across.setSectionResizeMode(QHeaderView.ResizeMode.ResizeToContents)
            across.setStretchLastSection(True)
            across.setDefaultAlignment(Qt.AlignmentFlag.AlignLeft)
        for row, cells in enumerate(rows):
            for column, text in enumerate(cells):
                self.table.setItem(row, column, QTableWidgetItem(text))
        layout = QVBoxLayout(self)
        layout.addWidget(heading("keys"))
        layout.addWidget(self.table)
        layout.addWidget(label("Everything else is found by name with Ctrl+K.", "muted"))
        self.resize(round(44 * em()), round(34 * em()))
