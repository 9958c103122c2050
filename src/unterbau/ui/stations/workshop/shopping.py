"""The shopping list at work: states and money become edits, lists go out and come in."""

from pathlib import Path

from PyQt6.QtCore import QObject, pyqtSignal
from PyQt6.QtWidgets import QFileDialog, QWidget

from unterbau.errors import UnterbauError
from unterbau.files.shopping_csv import read_shopping, write_shopping
from unterbau.machine.item_words import item_words
from unterbau.machine.machine import bill_of, links
from unterbau.project import edits
from unterbau.shop.shopping import STATES, Basket, Bought, Row, State, as_many_as_needed, basket, with_state
from unterbau.ui.document import Document
from unterbau.ui.selection import Selection
from unterbau.ui.stations.workshop.shopping_page import ShoppingPage
from unterbau.ui.view_settings import ViewSettings


class Shopping(QObject):
    """Keeps the list of the chosen candidate."""

    trouble = pyqtSignal(str)

    def __init__(self, document: Document, selection: Selection, view: ViewSettings, parent: QWidget) -> None:
        super().__init__(parent)
        self._document, self._selection, self._view = document, selection, view
        self.page = ShoppingPage(view, parent)
        self.page.state_chosen.connect(self._on_state)
        self.page.paid_told.connect(self._on_paid)
        self.page.settled.connect(self._on_settled)
        self.page.save_wanted.connect(self._ask_save)
        self.page.read_wanted.connect(self._ask_read)

    def show_list(self) -> None:
        """Show the chosen candidate's list."""
        project = self._document.project
        machine = project.candidate(self._selection.candidate).machine
        labels = {one.key: one.label for one in links(machine)}
        self.page.show_basket(self._basket(), labels, project.prices, project.brief.money)

    def save_to(self, path: Path) -> None:
        """Write the list; a failure is said."""
        try:
            write_shopping(path, self._basket())
        except UnterbauError as error:
            self.trouble.emit(str(error))

    def read_from(self, path: Path) -> None:
        """Take states and money of a file as one undoable step; what cannot be read changes nothing."""
        shop, name = self._document.project.shop, self._selection.candidate
        try:
            self._set(read_shopping(path, self._basket(), shop.bought, name), "states of the shopping list")
        except UnterbauError as error:
            self.trouble.emit(str(error))

    def _basket(self) -> Basket:
        project, name = self._document.project, self._selection.candidate
        items = tuple(one for one in bill_of(project.candidate(name).machine, project.prices) if one.mass or one.money)
        words = tuple(item_words(one, self._view.units) for one in items)
        return basket(items, words, project.shop.bought, name)

    def _set(self, bought: tuple[Bought, ...], text: str) -> None:
        project = self._document.project
        self._document.apply(edits.set_bought(project, bought), text)

    def _on_state(self, row: Row, state: str) -> None:
        known: dict[str, State] = {one: one for one in STATES}
        name = self._selection.candidate
        self._set(with_state(self._document.project.shop.bought, name, row, known[state]), f"{row.words}: {state}")

    def _on_paid(self, row: Row, value: float) -> None:
        name = self._selection.candidate
        bought = with_state(self._document.project.shop.bought, name, row, row.state, value)
        self._set(bought, f"{row.words}: paid")

    def _on_settled(self, row: Row) -> None:
        bought, name = self._document.project.shop.bought, self._selection.candidate
        self._set(as_many_as_needed(bought, name, row), f"{row.words}: settled")

    def _ask_save(self) -> None:
        start = str(Path.home() / f"{self._document.project.name} shopping.csv")
        name, _ = QFileDialog.getSaveFileName(self.page, "Save the shopping list", start, "CSV (*.csv)")
        if name:
            path = Path(name)
            self.save_to(path if path.suffix else path.with_suffix(".csv"))

    def _ask_read(self) -> None:
        name, _ = QFileDialog.getOpenFileName(
            self.page, "Read states and money", str(Path.home()), "CSV (*.csv)"
        )  # fmt: skip
        if name:
            self.read_from(Path(name))
