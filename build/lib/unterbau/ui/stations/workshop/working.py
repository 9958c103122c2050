"""The work on a candidate: who makes a piece, what of it matters, hours, prints, lifting; changes become edits."""

from dataclasses import replace

from PyQt6.QtCore import QObject, pyqtSignal
from PyQt6.QtWidgets import QWidget

from unterbau.errors import InputError
from unterbau.machine.machine import Machine, lay_out
from unterbau.progress import Progress
from unterbau.project import edits
from unterbau.shop.bars import BarPlan
from unterbau.shop.by_eye import unsettled
from unterbau.shop.fasteners import fasteners_of
from unterbau.shop.hours import Pace, hours_of
from unterbau.shop.lifting import loads_of
from unterbau.shop.making import HOWS, How, Need, how_of, needs_of, needs_of_piece, with_how
from unterbau.shop.pieces import ShopPiece
from unterbau.shop.printed import Printing, print_of
from unterbau.shop.state import ShopState
from unterbau.studies.rail_tolerance import rails_bear
from unterbau.ui.document import Document
from unterbau.ui.jobs.asker import Asker
from unterbau.ui.selection import Selection
from unterbau.ui.stations.workshop.work_page import Work, WorkPage
from unterbau.ui.view_settings import ViewSettings


class Working(QObject):
    """Keeps the page of the chosen candidate's work."""

    trouble = pyqtSignal(str)
    known = pyqtSignal()
    """How true rails must run is known now."""

    def __init__(self, document: Document, selection: Selection, view: ViewSettings, parent: QWidget) -> None:
        super().__init__(parent)
        self._document, self._selection = document, selection
        self.page, self._bears = WorkPage(view, parent), Asker(_bears, self)
        self._bears.failed.connect(self.trouble)
        self._bears.ready.connect(self._on_bears)
        self.page.pace_told.connect(self._on_pace)
        self.page.printing_told.connect(self._on_printing)

    def ask(self) -> None:
        """Ask how true the rails of the chosen candidate must run."""
        self._bears.ask(self._machine)

    def making(self, piece: ShopPiece) -> tuple[How, tuple[Need, ...]]:
        """Return who makes a piece, and what of it matters as far as that is known."""
        return self._how(piece), needs_of_piece(piece, self._needs())

    def show_work(self, pieces: tuple[ShopPiece, ...], bars: tuple[BarPlan, ...]) -> None:
        """Show the work on pieces that are sawn by plans."""
        structure, project = lay_out(self._machine), self._document.project
        shop, needs, hows = project.shop, self._needs(), {one.label: self._how(one) for one in pieces}
        setups = sum(one.plan.setups for one in bars if one.plan is not None)
        flat = frozenset(one.label for one in pieces if needs_of_piece(one, needs))
        hours = hours_of(structure, pieces, hows, setups, flat, shop.pace, shop.printing)
        prints = tuple((one, print_of(one, shop.printing)) for one in pieces if hows[one.label] == "print")
        lift = project.brief.lift
        loads, screws = loads_of(structure), fasteners_of(structure)
        self.page.show_work(Work(hours, loads, prints, shop.pace, shop.printing, lift, screws, unsettled(structure)))

    def choose_how(self, piece: ShopPiece, how: str) -> None:
        """Let somebody make a piece."""
        known: dict[str, How] = {one: one for one in HOWS}
        shop = self._document.project.shop
        made = with_how(shop.made, self._selection.candidate, piece, known[how])
        self._set(replace(shop, made=made), f"{piece.label}: {how}")

    def close_work(self) -> None:
        """Stop what is computed behind."""
        self._bears.close()

    @property
    def _machine(self) -> Machine:
        return self._document.project.candidate(self._selection.candidate).machine

    def _how(self, piece: ShopPiece) -> How:
        project = self._document.project
        return how_of(piece, self._selection.candidate, project.shop.made, project.brief.tools)

    def _needs(self) -> dict[str, tuple[Need, ...]]:
        return needs_of(lay_out(self._machine), self._bears.known(self._machine) or {})

    def _on_bears(self, _bears: object) -> None:
        self.known.emit()

    def _on_pace(self, pace: Pace) -> None:
        self._set(replace(self._document.project.shop, pace=pace), "minutes of work")

    def _on_printing(self, printing: Printing) -> None:
        self._set(replace(self._document.project.shop, printing=printing), "how prints are set")

    def _set(self, shop: ShopState, text: str) -> None:
        try:
            self._document.apply(edits.set_shop(self._document.project, shop), text)
        except InputError as error:
            self.page.refuse(error)


def _bears(machine: Machine, _progress: Progress) -> dict[str, float]:
    return rails_bear(machine)
