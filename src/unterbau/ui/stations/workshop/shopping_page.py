"""The shopping list: what it costs, what is ordered, here, fitted; what was bought and no longer fits."""

from functools import partial

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QButtonGroup,
    QGridLayout,
    QHBoxLayout,
    QHeaderView,
    QPushButton,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from unterbau.catalogue.prices import PriceBook, money_text
from unterbau.shop.listed import Whole, groups_of
from unterbau.shop.offer_words import line_offers_text, postage_text
from unterbau.shop.offers import WISHES, Offer, Postage
from unterbau.shop.shopping import STATES, Basket, Row, held_up
from unterbau.ui.theme import colour, em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.choice_box import ChoiceBox
from unterbau.ui.widgets.labels import label
from unterbau.ui.widgets.plain_tip import plain_tip
from unterbau.ui.widgets.quantity_field import QuantityField
from unterbau.ui.widgets.typed_line import TypedLine, give_back, pending_texts

COLUMNS = ("what", "for", "money", "state", "paid", "due")
HOW_TIPS = {
    "all": "all lines", "make": "stock for what you make", "have made": "what somebody else makes",
    "print": "what is printed", "buy": "what is bought as it is",
}  # fmt: skip
WHAT, FOR, MONEY, STATE, PAID, DUE = range(6)
OFFERS_TIP = (
    "what shops ask for each, from how many on, in how many days: Iron yard 12.50 from 10 in 5 days; Screw shop 11.90"
)


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


def held_words(rows: tuple[Row, ...]) -> str:
    """Return what the build waits for, in a line, or nothing."""
    ordered = [row for row in rows if row.state == "ordered"]
    if not ordered:
        return ""
    last = ordered[0]
    due = f", here {last.due}" if last.due else ", no date told"
    more = f" and {len(ordered) - 1} more" if len(ordered) > 1 else ""
    return f"held up by: {last.words} (ordered{due}){more}"


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
    offers_told = pyqtSignal(object, str)
    postage_told = pyqtSignal(str)
    wish_told = pyqtSignal(str)
    due_told = pyqtSignal(object, str)
    save_wanted = pyqtSignal()
    read_wanted = pyqtSignal()

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._view = view
        self.basket = Basket(())
        self.words, self.wrong = label("", size=0.98), label("", "error", 0.9)
        self.table = QTableWidget(0, len(COLUMNS), self)
        self.settle = QPushButton("the chosen line is settled", self)
        self.save, self.read = QPushButton("save the list …", self), QPushButton("read a list …", self)
        self.boxes: list[ChoiceBox] = []
        self.paid: list[QuantityField] = []
        self.due: list[TypedLine] = []
        self.held, self.chosen = label("", "muted", 0.9), label("", "muted", 0.9)
        self.offers, self.postage = TypedLine(self), TypedLine(self)
        self.how = "all"
        self.groups, self._chips, self.chips = QButtonGroup(self), QHBoxLayout(), dict[str, QPushButton]()
        self.whole = label("", "muted", 0.9)
        self.wish = ChoiceBox("Which basket is wanted", tuple((one, f"{one} basket") for one in WISHES), self)
        self.problem = label("", "error", 0.88)
        self._told: tuple[tuple[Offer, ...], str] = ((), "")
        self._filled: list[str] = []
        self._build()
        self.settle.clicked.connect(self._on_settle)
        self.save.clicked.connect(self.save_wanted)
        self.read.clicked.connect(self.read_wanted)
        self.table.currentCellChanged.connect(self._on_line)
        self.offers.editingFinished.connect(self._on_offers)
        self.offers.given_up.connect(self._on_offers_given_up)
        self.postage.editingFinished.connect(self._on_postage)
        self.postage.given_up.connect(self._on_postage_given_up)
        self.wish.activated.connect(self._on_wish)

    def show_offers(self, offers: tuple[Offer, ...], postage: tuple[Postage, ...], wish: str, words: str) -> None:
        """Show what shops offer, and where the basket is bought."""
        self._told = (offers, postage_text(postage))
        self.wish.show_value(wish)
        self.chosen.setText(words)
        self.chosen.setVisible(bool(words))
        self.say("")
        self.postage.show_text(self._told[1])
        self._show_line()

    def _cells(self) -> dict[tuple[str, str], TypedLine]:
        """Return the lines of the table that are typed into, by item and column."""
        rows = list(zip(self._filled, self.paid, self.due, strict=False))
        paid = {(item, "paid"): field.edit for item, field, _ in rows}
        return {**paid, **{(item, "due"): line for item, _, line in rows}}

    def due_of(self, item: str) -> TypedLine | None:
        """Return the line with the date that an item is due."""
        return self.due[self._filled.index(item)] if item in self._filled else None

    def refuse_paid(self, item: str, problem: str) -> None:
        """Say why what was typed as paid cannot be."""
        if item in self._filled:
            self.paid[self._filled.index(item)].refuse(problem)

    def say(self, problem: str, line: TypedLine | None = None) -> None:
        """Say what was typed wrong; what stands in the line at fault stays there."""
        if line is not None:
            line.setModified(True)
        self.problem.setText(problem)
        self.problem.setVisible(bool(problem))

    def show_basket(self, basket: Basket, labels: dict[str, str], book: PriceBook, wanted: float, today: str) -> None:
        """Show a list; `labels` are the parts' names, `wanted` the money of the brief, `today` a date."""
        held = held_words(held_up(basket, today))
        self.held.setText(held)
        self.held.setVisible(bool(held))
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
            typed = pending_texts(self._cells())
            self._fill()
            self._filled = [row.item for row in basket.rows]
            give_back(typed, self._cells())
        self._show_groups(book)
        for number, row in enumerate(basket.rows):
            self._show(number, row, labels.get(row.part, row.part.replace("_", " ")), book)

    def show_whole(self, whole: Whole, book: PriceBook) -> None:
        """Say what whole bars cost more than what the list counts of them."""
        more = whole.bars - whole.pieces
        text = (
            f"bars are bought whole: {money_text(whole.bars, book)} for pieces of {money_text(whole.pieces, book)}; "
            f"{money_text(more, book)} of it goes back into the rack, and is not in the plan"
        )
        self.whole.setText(text if more >= 0.5 else "")
        self.whole.setVisible(bool(self.whole.text()))

    def show_how(self, how: str) -> None:
        """Show the lines that are had in one way, or all."""
        self.how = how if how in self.chips else "all"
        self.chips[self.how].setChecked(True)
        for number, row in enumerate(self.basket.rows):
            self.table.setRowHidden(number, self.how not in ("all", row.how))

    def _show_groups(self, book: PriceBook) -> None:
        """Offer the ways in which lines are had, with their count and money."""
        told = {"all": f"all {len(self.basket.rows)}"}
        for one in groups_of(self.basket):
            told[one.how] = f"{one.how} {one.lines} · {money_text(one.money, book)}"
        if list(told) != list(self.chips):
            for old in self.chips.values():
                self.groups.removeButton(old)
                old.deleteLater()
            self.chips = {how: self._chip(how) for how in told}
        for how, text in told.items():
            self.chips[how].setText(text)
        self.show_how(self.how)

    def _chip(self, how: str) -> QPushButton:
        chip = QPushButton(self)
        chip.setCheckable(True)
        chip.setFont(font(0.88))
        chip.setProperty("small", True)
        chip.setToolTip(HOW_TIPS[how])
        chip.clicked.connect(partial(self.show_how, how))
        self.groups.addButton(chip)
        self._chips.insertWidget(self._chips.count() - 1, chip)
        return chip

    def _fill(self) -> None:
        self.table.setRowCount(0)
        self.table.setRowCount(len(self.basket.rows))
        self.boxes, self.paid, self.due = [], [], []
        for number in range(len(self.basket.rows)):
            box = ChoiceBox(f"state of line {number + 1}", tuple((one, one) for one in STATES), self.table)
            box.activated.connect(partial(self._on_state, number))
            paid = QuantityField(f"paid for line {number + 1}", "money", self._view, self.table, optional=True)
            paid.committed.connect(partial(self._on_paid, number))
            self.boxes.append(box)
            self.paid.append(paid)
            self.table.setCellWidget(number, STATE, box)
            self.table.setCellWidget(number, PAID, paid)
            due = TypedLine(self.table)
            due.setAccessibleName(f"date that line {number + 1} is due")
            due.setFont(font(0.9))
            due.editingFinished.connect(partial(self._on_due, number))
            due.given_up.connect(partial(self._on_due_given_up, number))
            self.due.append(due)
            self.table.setCellWidget(number, DUE, due)

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
        self.due[number].show_text(row.due)
        self.due[number].setEnabled(row.state == "ordered")
        self.due[number].setPlaceholderText("2026-03-01" if row.state == "ordered" else "")

    def _on_state(self, number: int, index: int) -> None:
        state = str(self.boxes[number].itemData(index))
        if state != self.basket.rows[number].state:
            self.state_chosen.emit(self.basket.rows[number], state)

    def _line(self) -> Row | None:
        chosen = self.table.currentRow()
        return self.basket.rows[chosen] if 0 <= chosen < len(self.basket.rows) else None

    def _on_line(self, *_: object) -> None:
        self.offers.abandon("")  # what was typed was of another line
        self._show_line()

    def _show_line(self) -> None:
        row = self._line()
        self.offers.setEnabled(row is not None)
        mine = tuple(one for one in self._told[0] if row is not None and one.item == row.item)
        self.offers.show_text(line_offers_text(mine))
        self.offers.setPlaceholderText(f"offers for: {row.words}" if row is not None else "choose a line first")

    def _on_offers_given_up(self) -> None:
        self.offers.accept_text()
        self._show_line()
        self.say("")

    def _on_postage_given_up(self) -> None:
        self.postage.abandon(self._told[1])
        self.say("")

    def _on_offers(self) -> None:
        row = self._line()
        if row is not None:
            mine = tuple(one for one in self._told[0] if one.item == row.item)
            if self.offers.text() != line_offers_text(mine):
                self.offers.accept_text()
                self.offers_told.emit(row, self.offers.text())

    def _on_postage(self) -> None:
        if self.postage.text() != self._told[1]:
            self.postage.accept_text()
            self.postage_told.emit(self.postage.text())

    def _on_wish(self, index: int) -> None:
        self.wish_told.emit(str(self.wish.itemData(index)))

    def _on_due(self, number: int) -> None:
        row = self.basket.rows[number]
        if self.due[number].text() != row.due:
            self.due[number].accept_text()
            self.due_told.emit(row, self.due[number].text().strip())

    def _on_due_given_up(self, number: int) -> None:
        self.due[number].abandon(self.basket.rows[number].due)

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
        for button, tip in (
            (self.save, "CSV or ODS, for any table program; states come back"),
            (self.read, "states, money, dates"),
        ):
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
        self.table.setAccessibleName("Shopping list: what, what for, money, state, paid, due")
        self.table.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.table.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        self.table.setFont(font(0.9))
        header, rows = self.table.horizontalHeader(), self.table.verticalHeader()
        if header is not None and rows is not None:
            header.setSectionResizeMode(QHeaderView.ResizeMode.ResizeToContents)
            header.setSectionResizeMode(WHAT, QHeaderView.ResizeMode.Stretch)
            for column, wide in ((STATE, 7.0), (PAID, 6.0), (DUE, 7.0)):
                header.setSectionResizeMode(column, QHeaderView.ResizeMode.Fixed)
                self.table.setColumnWidth(column, round(wide * unit))
            header.setFont(font(0.88))
            rows.hide()
            rows.setDefaultSectionSize(round(2.0 * unit))
        self._chips.addStretch(1)
        box.addLayout(self._chips)
        self.whole.setWordWrap(True)
        self.whole.hide()
        box.addWidget(self.whole)
        box.addWidget(self.held)
        box.addWidget(self.table, 1)
        box.addLayout(self._bottom())
        for one in (self.problem, self.chosen):
            one.setWordWrap(True)
            one.hide()
            box.addWidget(one)

    def _bottom(self) -> QGridLayout:
        bottom = QGridLayout()
        for row, (words, line, tip) in enumerate(
            (
                ("offers for the line", self.offers, OFFERS_TIP),
                ("postage of shops", self.postage, "whatever is sent: Iron yard 9; Screw shop 5.50"),
            )
        ):
            caption = label(words, "muted", 0.88)
            caption.setBuddy(line)
            line.setFont(font(0.9))
            line.setToolTip(tip)
            line.setAccessibleName(words)
            bottom.addWidget(caption, row, 0)
            bottom.addWidget(line, row, 1)
        self.wish.setToolTip("every set of shops is tried, with postage")
        self.wish.setMinimumWidth(round(10 * em()))
        bottom.addWidget(self.wish, 0, 2)
        bottom.setColumnStretch(1, 1)
        return bottom
