"""The shopping list at work: states and money become edits, lists go out and come in."""

from dataclasses import replace
from datetime import date, timedelta
from pathlib import Path

from PyQt6.QtCore import QObject, pyqtSignal
from PyQt6.QtWidgets import QFileDialog, QWidget

from unterbau.errors import InputError, UnterbauError
from unterbau.files.shopping_csv import read_shopping, write_shopping
from unterbau.files.shopping_ods import read_shopping_ods, write_shopping_ods
from unterbau.machine.item_words import item_words
from unterbau.machine.machine import bill_of, lay_out, links
from unterbau.parts_list.bill import Item
from unterbau.project import edits
from unterbau.shop.bars import BarPlan
from unterbau.shop.listed import bought_whole, hows_of
from unterbau.shop.offer_words import chosen_words, read_line_offers, read_postage
from unterbau.shop.offers import WISHES, Chosen, Wish, choose, with_offers
from unterbau.shop.pieces import pieces_of
from unterbau.shop.pour.listed import POUR, with_pours
from unterbau.shop.shopping import (
    STATES,
    Basket,
    Bought,
    Dates,
    Row,
    State,
    as_many_as_needed,
    basket,
    with_state,
)
from unterbau.shop.state import ShopState
from unterbau.ui.document import Document
from unterbau.ui.selection import Selection
from unterbau.ui.stations.workshop.shopping_page import ShoppingPage
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.save_path import ask_save_path
from unterbau.units import mass_text

TABLES = "CSV (*.csv);;OpenDocument table (*.ods)"


class Shopping(QObject):
    """Keeps the list of the chosen candidate."""

    trouble = pyqtSignal(str)

    def __init__(self, document: Document, selection: Selection, view: ViewSettings, parent: QWidget) -> None:
        super().__init__(parent)
        self._document, self._selection, self._view = document, selection, view
        self.page = ShoppingPage(view, parent)
        self._chosen = Chosen((), 0.0, ())
        self.page.state_chosen.connect(self._on_state)
        self.page.paid_told.connect(self._on_paid)
        self.page.settled.connect(self._on_settled)
        self.page.offers_told.connect(self._on_offers)
        self.page.postage_told.connect(self._on_postage)
        self.page.wish_told.connect(self._on_wish)
        self.page.due_told.connect(self._on_due)
        self.page.save_wanted.connect(self._ask_save)
        self.page.read_wanted.connect(self._ask_read)

    def show_list(self) -> None:
        """Show the chosen candidate's list."""
        project = self._document.project
        machine = project.candidate(self._selection.candidate).machine
        labels = {one.key: one.label for one in links(machine)}
        shop, found = project.shop, self._basket()
        self.page.show_basket(found, labels, project.prices, project.brief.money, _today())
        try:
            self._chosen = choose(found.rows, shop.offers, shop.postage, shop.wish)
            words = chosen_words(self._chosen, project.prices.currency)
        except InputError as error:
            words = error.problem
        self.page.show_offers(shop.offers, shop.postage, shop.wish, words)

    def show_bars(self, plans: tuple[BarPlan, ...]) -> None:
        """Say what bars that are bought whole cost beside what the list counts of them."""
        project = self._document.project
        machine = project.candidate(self._selection.candidate).machine
        self.page.show_whole(bought_whole(plans, bill_of(machine, project.prices)), project.prices)

    def save_to(self, path: Path) -> None:
        """Write the list; a failure is said."""
        try:
            if path.suffix.lower() == ".ods":
                write_shopping_ods(path, self._basket())
            else:
                write_shopping(path, self._basket())
        except UnterbauError as error:
            self.trouble.emit(str(error))

    def read_from(self, path: Path) -> None:
        """Take states and money of a file as one undoable step; what cannot be read changes nothing."""
        shop, name = self._document.project.shop, self._selection.candidate
        try:
            read = read_shopping_ods if path.suffix.lower() == ".ods" else read_shopping
            self._set(read(path, self._basket(), shop.bought, name), "states of the shopping list")
        except UnterbauError as error:
            self.trouble.emit(str(error))

    def _basket(self) -> Basket:
        project, name = self._document.project, self._selection.candidate
        machine = project.candidate(name).machine
        pours = tuple(one for one in project.shop.pours if one.candidate == name)
        listed = with_pours(bill_of(machine, project.prices), lay_out(machine), pours)
        items = tuple(one for one in listed if one.mass or one.money)
        words = tuple(self._words(one) for one in items)
        hows = hows_of(items, pieces_of(lay_out(machine)), name, project.shop.made, project.brief.tools)
        return basket(items, words, project.shop.bought, name, hows)

    def _words(self, one: Item) -> str:
        if one.part.startswith(f"{POUR} "):
            return f"{mass_text(one.mass, self._view.units)} {one.text}"
        return item_words(one, self._view.units)

    def _set(self, bought: tuple[Bought, ...], text: str) -> None:
        project = self._document.project
        self._document.apply(edits.set_bought(project, bought), text)

    def _on_state(self, row: Row, state: str) -> None:
        known: dict[str, State] = {one: one for one in STATES}
        name, dates = self._selection.candidate, Dates(_today(), row.due, row.shop)
        offer = next((one.offer for one in self._chosen.choices if one.row.item == row.item), None)
        if state == "ordered" and offer is not None:
            due = date.today() + timedelta(days=offer.days)
            dates = Dates(_today(), due.isoformat() if offer.days else "", offer.shop)
        bought = with_state(self._document.project.shop.bought, name, row, known[state], None, dates)
        self._set(bought, f"{row.words}: {state}")

    def _on_offers(self, row: Row, text: str) -> None:
        shop = self._document.project.shop
        try:
            offers = with_offers(shop.offers, row.item, read_line_offers(text, row.item))
            self._set_shop(replace(shop, offers=offers), f"{row.words}: offers")
        except InputError as error:
            self.page.say(error.problem, self.page.offers)

    def _on_postage(self, text: str) -> None:
        try:
            self._set_shop(replace(self._document.project.shop, postage=read_postage(text)), "postage of shops")
        except InputError as error:
            self.page.say(error.problem, self.page.postage)

    def _on_wish(self, wish: str) -> None:
        known: dict[str, Wish] = {one: one for one in WISHES}
        self._set_shop(replace(self._document.project.shop, wish=known[wish]), f"{wish} basket")

    def _on_due(self, row: Row, text: str) -> None:
        name = self._selection.candidate
        dates = Dates(row.on, text, row.shop)
        try:
            bought = with_state(self._document.project.shop.bought, name, row, row.state, None, dates)
            self._set(bought, f"{row.words}: due")
        except InputError as error:
            self.page.say(error.problem, self.page.due_of(row.item))

    def _set_shop(self, shop: ShopState, text: str) -> None:
        self._document.apply(edits.set_shop(self._document.project, shop), text)

    def _on_paid(self, row: Row, value: float) -> None:
        name = self._selection.candidate
        try:
            bought = with_state(self._document.project.shop.bought, name, row, row.state, value)
            self._set(bought, f"{row.words}: paid")
        except InputError as error:
            self.page.refuse_paid(row.item, error.problem)

    def _on_settled(self, row: Row) -> None:
        bought, name = self._document.project.shop.bought, self._selection.candidate
        self._set(as_many_as_needed(bought, name, row), f"{row.words}: settled")

    def _ask_save(self) -> None:
        start = Path.home() / f"{self._document.project.name} shopping.csv"
        path = ask_save_path(self.page, "Save the shopping list", start, TABLES)
        if path is not None:
            self.save_to(path)

    def _ask_read(self) -> None:
        name, _ = QFileDialog.getOpenFileName(
            self.page, "Read states and money", str(Path.home()), "Tables (*.csv *.ods)"
        )  # fmt: skip
        if name:
            self.read_from(Path(name))


def _today() -> str:
    return date.today().isoformat()
