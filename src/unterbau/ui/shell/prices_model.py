"""The price book as an editable table."""

from dataclasses import replace
from typing import Any

from PyQt6.QtCore import QAbstractTableModel, QModelIndex, QObject, Qt, pyqtSignal
from typing_extensions import override

from unterbau.catalogue.prices import PERS, Price, PriceBook
from unterbau.errors import InputError
from unterbau.machine.price_items import item_label
from unterbau.ui.widgets.plain_tip import plain_tip
from unterbau.units import parse

COLUMNS = ("what", "per", "price", "from")
WHAT, PER, PRICE, ORIGIN = range(4)


class PricesModel(QAbstractTableModel):
    """Shows a book; a change is a wish for another book."""

    wanted = pyqtSignal(object, str)
    """The book that was wished for, and what changed, in words."""
    refused = pyqtSignal(str)

    def __init__(self, book: PriceBook, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._book = book

    def show_book(self, book: PriceBook) -> None:
        """Show another book; an editor that is open is left alone where the book is the same."""
        if book == self._book:
            return
        if len(book.prices) == len(self._book.prices):
            self._book = book
            self.dataChanged.emit(self.index(0, 0), self.index(max(0, len(book.prices) - 1), ORIGIN))
            return
        self.beginResetModel()
        self._book = book
        self.endResetModel()

    def without(self, rows: set[int]) -> PriceBook:
        """Return the book without some lines."""
        return replace(self._book, prices=tuple(p for n, p in enumerate(self._book.prices) if n not in rows))

    @override
    def rowCount(self, parent: QModelIndex = QModelIndex()) -> int:  # noqa: B008 - Qt's own default
        return 0 if parent.isValid() else len(self._book.prices)

    @override
    def columnCount(self, parent: QModelIndex = QModelIndex()) -> int:  # noqa: B008
        return 0 if parent.isValid() else len(COLUMNS)

    @override
    def headerData(self, section: int, orientation: Qt.Orientation, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        if orientation == Qt.Orientation.Horizontal and role == Qt.ItemDataRole.DisplayRole:
            return COLUMNS[section] + (f" {self._book.currency}" if section == PRICE else "")
        return None

    @override
    def flags(self, index: QModelIndex) -> Qt.ItemFlag:
        if not index.isValid():
            return Qt.ItemFlag.NoItemFlags
        found = Qt.ItemFlag.ItemIsEnabled | Qt.ItemFlag.ItemIsSelectable
        return found | Qt.ItemFlag.ItemIsEditable if index.column() in (PER, PRICE) else found

    @override
    def data(self, index: QModelIndex, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        if not index.isValid():
            return None
        price = self._book.prices[index.row()]
        if role == Qt.ItemDataRole.TextAlignmentRole and index.column() == PRICE:
            return Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter
        if role == Qt.ItemDataRole.ToolTipRole:
            return plain_tip(price.item)
        if role not in (Qt.ItemDataRole.DisplayRole, Qt.ItemDataRole.EditRole):
            return None
        origin = "invented, to start from" if price.invented else "yours"
        return (item_label(price.item), price.per, f"{price.amount:g}", origin)[index.column()]

    @override
    def setData(self, index: QModelIndex, value: Any, role: int = Qt.ItemDataRole.EditRole) -> bool:
        if role != Qt.ItemDataRole.EditRole or not index.isValid():
            return False
        price = self._book.prices[index.row()]
        try:
            changed = self._changed(price, index.column(), str(value))
        except InputError as error:
            self.refused.emit(f"{item_label(price.item)}: {error.problem}")
            return False
        if changed == price:
            return True
        prices = list(self._book.prices)
        prices[index.row()] = changed
        self.wanted.emit(replace(self._book, prices=tuple(prices)), f"price of {item_label(price.item)}")
        return True

    def _changed(self, price: Price, column: int, text: str) -> Price:
        if column == PER:
            per = next((one for one in PERS if one == text.strip()), None)
            if per is None:
                raise InputError("per", f"expected {', '.join(PERS)}")
            return replace(price, per=per, invented=price.invented and per == price.per)
        amount = parse(text.strip().removesuffix(self._book.currency), "plain")
        return price if amount == price.amount else replace(price, amount=amount, invented=False)
