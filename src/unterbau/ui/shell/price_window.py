"""The price book: edited in a table, added to, taken from CSV and given to it; every change can be undone."""

from dataclasses import replace
from functools import partial
from pathlib import Path

from PyQt6.QtCore import QModelIndex, QSortFilterProxyModel, Qt
from PyQt6.QtGui import QKeySequence, QShortcut
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QComboBox,
    QCompleter,
    QFileDialog,
    QHBoxLayout,
    QHeaderView,
    QLineEdit,
    QPushButton,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QTableView,
    QVBoxLayout,
    QWidget,
)
from typing_extensions import override

from unterbau.catalogue.prices import PERS, WHOLE, Price, PriceBook, shipped_prices
from unterbau.errors import InputError, UnterbauError
from unterbau.files.prices_csv import read_prices, write_prices
from unterbau.machine.price_items import item_label, known_items
from unterbau.project import edits
from unterbau.sections.families import families
from unterbau.ui.document import Document
from unterbau.ui.shell.prices_model import PER, WHAT, PricesModel
from unterbau.ui.theme import em
from unterbau.ui.widgets.labels import heading, label
from unterbau.ui.widgets.save_path import ask_save_path
from unterbau.ui.widgets.typed_line import TypedLine
from unterbau.units import parse


class _PerDelegate(QStyledItemDelegate):
    """A list instead of a line for how a price counts."""

    @override
    def createEditor(self, parent: QWidget | None, option: QStyleOptionViewItem, index: QModelIndex) -> QWidget:
        box = QComboBox(parent)
        box.addItems(PERS)
        return box

    @override
    def setEditorData(self, editor: QWidget | None, index: QModelIndex) -> None:
        if isinstance(editor, QComboBox):
            editor.setCurrentText(str(index.data()))


class PriceWindow(QWidget):
    """Stands beside the main window; the machine's money follows at once."""

    def __init__(self, document: Document, parent: QWidget) -> None:
        super().__init__(parent, Qt.WindowType.Window)
        self.setWindowTitle("Price book")
        self._document = document
        self.model = PricesModel(document.project.prices, self)
        self._filtered = QSortFilterProxyModel(self)
        self._filtered.setSourceModel(self.model)
        self._filtered.setFilterCaseSensitivity(Qt.CaseSensitivity.CaseInsensitive)
        self._filtered.setFilterKeyColumn(WHAT)
        self.table = QTableView(self)
        self.currency, self.date, self.search = TypedLine(self), TypedLine(self), QLineEdit(self)
        self.item, self.per, self.amount = QComboBox(self), QComboBox(self), QLineEdit(self)
        self.add = QPushButton("add", self)
        self.remove = QPushButton("remove the marked lines", self)
        self.load = QPushButton("take from CSV …", self)
        self.store = QPushButton("save as CSV …", self)
        self.reset = QPushButton("start values again", self)
        self.message = label("", "error")
        self._build()
        self._connect()
        self._show()

    def load_from(self, path: Path) -> bool:
        """Take the book from a file; a fault is said and changes nothing."""
        try:
            book = read_prices(path)
        except UnterbauError as error:
            self.message.setText(str(error))
            return False
        return self._put(book, f"prices from {path.name}")

    def store_to(self, path: Path) -> bool:
        """Write the book into a file."""
        try:
            write_prices(path, self._document.project.prices)
        except UnterbauError as error:
            self.message.setText(str(error))
            return False
        self.message.setText("")
        return True

    def _put(self, book: PriceBook, words: str) -> bool:
        try:
            project = edits.set_prices(self._document.project, book)
        except InputError as error:
            self.message.setText(error.problem)
            self._show()
            return False
        self.message.setText("")
        self._document.apply(project, words)
        return True

    def _build(self) -> None:
        unit = em()
        self._build_table()
        for edit, name, width in (
            (self.currency, "Currency", 4), (self.date, "Date of the prices", 8), (self.search, "Find a line", 12),
            (self.amount, "Price of the new line", 6),
        ):  # fmt: skip
            edit.setAccessibleName(name)
            edit.setFixedWidth(round(width * unit))
        self.search.setPlaceholderText("find a line")
        self.amount.setPlaceholderText("price")
        layout = QVBoxLayout(self)
        layout.setContentsMargins(*[round(1.1 * unit)] * 4)
        top = QHBoxLayout()
        top.addWidget(heading("price book"))
        top.addSpacing(round(unit))
        for words, edit in (("currency", self.currency), ("prices of", self.date)):
            top.addWidget(label(words, "muted"))
            top.addWidget(edit)
        top.addStretch()
        top.addWidget(self.search)
        layout.addLayout(top)
        note = label(
            "Belongs to the project. Invented lines are round figures to start from; what you type is yours. "
            "A line for one section or material goes before the line for its kind.", "muted", 0.9,
        )  # fmt: skip
        note.setWordWrap(True)
        layout.addWidget(note)
        layout.addWidget(self.table, 1)
        self.message.setWordWrap(True)
        layout.addWidget(self.message)
        layout.addLayout(self._new_line())
        row = QHBoxLayout()
        for button in (self.remove, self.reset):
            row.addWidget(button)
        row.addStretch()
        for button in (self.load, self.store):
            row.addWidget(button)
        layout.addLayout(row)
        self.resize(round(52 * unit), round(38 * unit))

    def _build_table(self) -> None:
        table = self.table
        table.setModel(self._filtered)
        table.setAccessibleName("Prices")
        table.setShowGrid(False)
        table.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        table.setTabKeyNavigation(False)
        table.setItemDelegateForColumn(PER, _PerDelegate(table))
        across, down = table.horizontalHeader(), table.verticalHeader()
        if across is not None and down is not None:
            across.setSectionResizeMode(QHeaderView.ResizeMode.ResizeToContents)
            across.setSectionResizeMode(WHAT, QHeaderView.ResizeMode.Stretch)
            down.hide()
            down.setDefaultSectionSize(round(1.7 * em()))

    def _new_line(self) -> QHBoxLayout:
        self.item.setAccessibleName("What the new line prices")
        self.item.setEditable(True)
        self.item.setInsertPolicy(QComboBox.InsertPolicy.NoInsert)
        self.item.setToolTip("what it prices; words of your own with “fixed” are counted once for the machine")
        for name in (*known_items(), *(f"section:{section}" for family in families() for section in family)):
            self.item.addItem(item_label(name), name)
        completer = self.item.completer()
        if completer is not None:
            completer.setCompletionMode(QCompleter.CompletionMode.PopupCompletion)
            completer.setFilterMode(Qt.MatchFlag.MatchContains)
        self.per.setAccessibleName("How the new line counts")
        self.per.addItems(PERS)
        row = QHBoxLayout()
        row.addWidget(label("new line", "muted"))
        row.addWidget(self.item, 1)
        row.addWidget(label("per", "muted"))
        for widget in (self.per, self.amount, self.add):
            row.addWidget(widget)
        return row

    def _connect(self) -> None:
        self.model.wanted.connect(self._put)
        self.model.refused.connect(self.message.setText)
        self.search.textChanged.connect(self._filtered.setFilterFixedString)
        for line in (self.currency, self.date):
            line.editingFinished.connect(self._on_head)
            line.given_up.connect(partial(self._on_head_given_up, line))
        self.add.clicked.connect(self._on_add)
        self.amount.returnPressed.connect(self._on_add)
        self.remove.clicked.connect(self._on_remove)
        self.reset.clicked.connect(self._on_reset)
        self.load.clicked.connect(self._on_load)
        self.store.clicked.connect(self._on_store)
        self._document.changed.connect(self._on_changed)
        for keys, run in (("Ctrl+Z", self._document.stack.undo), ("Ctrl+Shift+Z", self._document.stack.redo)):
            QShortcut(QKeySequence(keys), self).activated.connect(run)
        QShortcut(QKeySequence("Esc"), self).activated.connect(self.close)

    def _show(self) -> None:
        book = self._document.project.prices
        self.model.show_book(book)
        self.currency.show_text(book.currency)
        self.date.show_text(book.date)

    def _on_changed(self, before: object, after: object) -> None:
        del before, after
        self._show()

    def _on_head(self) -> None:
        book = self._document.project.prices
        changed = replace(book, currency=self.currency.text().strip(), date=self.date.text().strip())
        accepted = changed == book or self._put(changed, "currency and date of the prices")
        for line in (self.currency, self.date):
            line.setModified(not accepted)
        self._show()

    def _on_head_given_up(self, line: TypedLine) -> None:
        book = self._document.project.prices
        line.abandon(book.currency if line is self.currency else book.date)

    def _on_add(self) -> None:
        text, book = self.item.currentText().strip(), self._document.project.prices
        place = self.item.findText(text)
        item = str(self.item.itemData(place)) if place >= 0 else f"{WHOLE}{text}"
        try:
            amount = parse(self.amount.text(), "plain")
        except InputError as error:
            self.message.setText(f"the price: {error.problem}")
            return
        price = Price(item, PERS[self.per.currentIndex()], amount)
        if self._put(replace(book, prices=(*book.prices, price)), f"price of {item_label(item)}"):
            self.amount.clear()
            self.table.scrollToBottom()

    def _on_remove(self) -> None:
        selection = self.table.selectionModel()
        rows = {self._filtered.mapToSource(i).row() for i in selection.selectedRows()} if selection else set()
        if rows:
            self._put(self.model.without(rows), "prices removed")

    def _on_reset(self) -> None:
        self._put(shipped_prices(), "start values of the prices")

    def _on_load(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, "Take prices from CSV", str(Path.home()), "CSV (*.csv)")
        if name:
            self.load_from(Path(name))

    def _on_store(self) -> None:
        path = ask_save_path(self, "Save prices", Path.home() / "prices.csv", "CSV (*.csv)")
        if path is not None:
            self.store_to(path)
