"""The shopping list: what it costs, what is ordered, here, fitted; what was bought and no longer fits."""

from functools import partial

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QHBoxLayout,
    QHeaderView,
    QPushButton,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from unterbau.catalogue.prices import PriceBook, money_text
from unterbau.shop.shopping import STATES, Basket, Row
from unterbau.ui.theme import colour, em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.choice_box import ChoiceBox
from unterbau.ui.widgets.labels import label
from unterbau.ui.widgets.plain_tip import plain_tip
from unterbau.ui.widgets.quantity_field import QuantityField

COLUMNS = ("what", "for", "money", "state", "paid")
WHAT, FOR, MONEY, STATE, PAID = range(5)


def basket_words(basket: Basket, book: PriceBook, wanted: float) -> str:
    """Return the money of a list in a line; `wanted` is what the brief allows, 0 where it is left open."""
    text = (
        f"plan {money_text(basket.plan, book)}, spent {money_text(basket.spent, book)}, "
        f"still to come {money_text(basket.to_come, book)}"
    )
    if wanted:
        over = basket.spent + basket.to_come - wanted
        side = "over" if over > 0 else "below"
        text += f"; {money_text(abs(over), book)} {side} the brief's {money_text(wanted, book)}"
    return text


def wrong_words(row: Row) -> str:
    """Return what is wrong with a line that was bought, or nothing."""
    if row.state == "needed" or not row.missing:
        return ""
    if not row.count:
        return "bought and no longer needed"
    return f"{row.missing} more needed" if row.missing > 0 else f"{-row.missing} too many"


class ShoppingPage(QWidget):
    """A table of all that is bought."""

    state_chosen = pyqtSignal(object, str)
    """A line, and its new state."""
    paid_told = pyqtSignal(object, float)
    settled = pyqtSignal(object)
    """A line fits now: the rest was bought, or what is too much was given away."""
    save_wanted = pyqtSignal()
    read_wanted = pyqtSignal()

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._view = view
        self.basket = Basket(())
        self.words, self.wrong = label("", size=0.98), label("", "error", 0.9)
        self.table = QTableWidget(0, len(COLUMNS), self)
        self.settle = QPushButton("the chosen line is settled", self)
        self.save, self.read = QPushButton("save as CSV …", self), QPushButton("read CSV …", self)
        self.boxes: list[ChoiceBox] = []
        self.paid: list[QuantityField] = []
        self._build()
        self.settle.clicked.connect(self._on_settle)
        self.save.clicked.connect(self.save_wanted)
        self.read.clicked.connect(self.read_wanted)

    def show_basket(self, basket: Basket, labels: dict[str, str], book: PriceBook, wanted: float) -> None:
        """Show a list; `labels` are the parts' names, `wanted` the money of the brief."""
        self.words.setText(basket_words(basket, book, wanted))
        wrong = basket.wrong
        one = len(wrong) == 1
        said = (
            f"{len(wrong)} line{' was' if one else 's were'} bought and no longer fit{'s' if one else ''} the machine"
        )
        self.wrong.setText(said if wrong else "")
        self.wrong.setVisible(bool(wrong))
        self.settle.setVisible(bool(wrong))
        anew = [row.item for row in basket.rows] != [row.item for row in self.basket.rows] or not self.boxes
        self.basket = basket
        if anew:
            self._fill()
        for number, row in enumerate(basket.rows):
            self._show(number, row, labels.get(row.part, row.part.replace("_", " ")), book)

    def _fill(self) -> None:
        self.table.setRowCount(0)
        self.table.setRowCount(len(self.basket.rows))
        self.boxes, self.paid = [], []
        for number in range(len(self.basket.rows)):
            box = ChoiceBox(f"state of line {number + 1}", tuple((one, one) for one in STATES), self.table)
            box.activated.connect(partial(self._on_state, number))
            paid = QuantityField(f"paid for line {number + 1}", "money", self._view, self.table, optional=True)
            paid.committed.connect(partial(self._on_paid, number))
            self.boxes.append(box)
            self.paid.append(paid)
            self.table.setCellWidget(number, STATE, box)
            self.table.setCellWidget(number, PAID, paid)

    def _show(self, number: int, row: Row, part: str, book: PriceBook) -> None:
        wrong = wrong_words(row)
        for column, text in ((WHAT, row.words), (FOR, wrong or part), (MONEY, money_text(row.money, book))):
            item = QTableWidgetItem(text)
            item.setToolTip(plain_tip(f"{row.words}; {wrong or part}"))
            if column == MONEY:
                item.setTextAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
            if wrong:
                item.setForeground(colour("warning"))
            self.table.setItem(number, column, item)
        self.boxes[number].show_value(row.state)
        self.paid[number].set_value(row.paid)
        self.paid[number].setEnabled(row.state != "needed")

    def _on_state(self, number: int, index: int) -> None:
        state = str(self.boxes[number].itemData(index))
        if state != self.basket.rows[number].state:
            self.state_chosen.emit(self.basket.rows[number], state)

    def _on_settle(self) -> None:
        chosen = self.table.currentRow()
        row = self.basket.rows[chosen] if 0 <= chosen < len(self.basket.rows) else None
        if row is None or not wrong_words(row):
            row = self.basket.wrong[0]
        self.settled.emit(row)

    def _on_paid(self, number: int, value: float) -> None:
        self.paid_told.emit(self.basket.rows[number], value)

    def _build(self) -> None:
        unit = em()
        box = QVBoxLayout(self)
        box.setContentsMargins(round(1.1 * unit), round(0.6 * unit), round(1.1 * unit), round(0.6 * unit))
        box.setSpacing(round(0.4 * unit))
        head = QHBoxLayout()
        self.words.setWordWrap(True)
        head.addWidget(self.words, 1)
        self.settle.setFont(font(0.88))
        self.settle.setProperty("small", True)
        self.settle.setToolTip("what is missing was bought, or what is too much was given away; undo takes it back")
        for button, tip in ((self.save, "for any table program; states come back"), (self.read, "states and money")):
            button.setFont(font(0.88))
            button.setProperty("small", True)
            button.setToolTip(tip)
            head.addWidget(button)
        box.addLayout(head)
        told = QHBoxLayout()
        told.addWidget(self.wrong, 1)
        told.addWidget(self.settle)
        box.addLayout(told)
        self.table.setHorizontalHeaderLabels(COLUMNS)
        self.table.setAccessibleName("Shopping list: what, what for, money, state, paid")
        self.table.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.table.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        self.table.setFont(font(0.9))
        header, rows = self.table.horizontalHeader(), self.table.verticalHeader()
        if header is not None and rows is not None:
            header.setSectionResizeMode(QHeaderView.ResizeMode.ResizeToContents)
            header.setSectionResizeMode(WHAT, QHeaderView.ResizeMode.Stretch)
            for column, wide in ((STATE, 7.0), (PAID, 6.0)):
                header.setSectionResizeMode(column, QHeaderView.ResizeMode.Fixed)
                self.table.setColumnWidth(column, round(wide * unit))
            header.setFont(font(0.88))
            rows.hide()
            rows.setDefaultSectionSize(round(2.0 * unit))
        box.addWidget(self.table, 1)
