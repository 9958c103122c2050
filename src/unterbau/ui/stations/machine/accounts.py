"""Answers "why is it this?" for the numbers of the readout; draws samples when asked; saves the frame."""

from functools import partial
from pathlib import Path

from PyQt6.QtCore import QObject, pyqtSignal
from PyQt6.QtWidgets import QWidget

from unterbau.brief.targets import SHARES
from unterbau.errors import UnterbauError
from unterbau.files.atomic import write_atomically
from unterbau.files.frame_json import document_text, to_document
from unterbau.machine.machine import Machine
from unterbau.progress import Progress
from unterbau.structure.parts import Place
from unterbau.studies.account import QUANTITIES, account
from unterbau.studies.account_lenses import LENSES, chatter_account, cut_account, reach_account
from unterbau.studies.cutting import chosen_cut
from unterbau.studies.loads import CASES, standard_loads
from unterbau.studies.spread import Spread, spread
from unterbau.ui.commands import Command
from unterbau.ui.document import Document
from unterbau.ui.feed import Feed
from unterbau.ui.jobs.asker import Asker
from unterbau.ui.selection import Selection
from unterbau.ui.stations.machine.lens_answers import LensAnswers
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.save_path import ask_save_path

MODES = 6
NO_CHATTER = "Nothing here limits the depth of cut by chatter: the tool does not turn."


class Accounts(QObject):
    """One account at a time."""

    ready = pyqtSignal(object)
    trouble = pyqtSignal(str)

    def __init__(
        self, document: Document, selection: Selection, view: ViewSettings, feed: Feed, lenses: LensAnswers,
        parent: QWidget,
    ) -> None:  # fmt: skip
        super().__init__(parent)
        self._lenses = lenses
        self._document, self._selection, self._view, self._feed, self._owner = document, selection, view, feed, parent
        self._quantity = ""
        self._awaited = self._late = ""
        self.samples = Asker(_spread, self)
        self.samples.ready.connect(self._on_samples)
        self.samples.failed.connect(self.trouble)
        feed.likely_ready.connect(self._on_likely)
        lenses.reach.ready.connect(partial(self._on_lens, "reach"))
        lenses.limit_found.connect(partial(self._on_lens, "chatter"))

    def commands(self) -> list[Command]:
        """Return a command for each number of the readout."""
        return [
            Command(f"account-{key}", f"Why is it this: {words}", partial(self.ask, key), tip="parts, sources")
            for key, words in (QUANTITIES | LENSES).items()
        ]

    @property
    def waiting(self) -> bool:
        """Whether an account comes when a lens is computed."""
        return bool(self._awaited)

    def ask(self, quantity: str) -> None:
        """Tell how a number came about."""
        self._quantity = quantity
        self._awaited = ""
        if quantity in LENSES:
            self._tell(quantity)
            return
        machine, place = self._feed.machine(), self._selection.place
        likely = self._feed.figures(machine)
        if likely is None:
            self._late = quantity
            return
        known = self.samples.known((machine, place))
        book = self._document.project.prices
        full = self._feed.full(machine)
        self.ready.emit(account(quantity, machine, place, likely, full, book, self._view.units, known))

    def _tell(self, quantity: str) -> None:
        """Tell of a number that a lens or the load path shows."""
        machine, axis = self._feed.machine(), self._selection.axis
        project, units = self._document.project, self._view.units
        chosen = chosen_cut(project.cut, project.own_cut)
        likely = self._feed.figures(machine)
        if likely is None or self._feed.likely(machine) is None:
            self._late = quantity
        elif quantity == "cut":
            error = SHARES[project.brief.finish] * project.brief.accuracy
            self.ready.emit(cut_account(machine, chosen, axis, float(likely.compliance[axis, axis]), error, units))
        elif quantity == "reach":
            reach = self._lenses.known_reach()
            if reach is None:
                self._awaited = quantity
                self._lenses.ask_reach()
            else:
                self.ready.emit(reach_account(reach, axis, units))
        else:
            shakes, (found, known) = self._lenses.known_shakes(), self._lenses.known_limit()
            if shakes is None or not known:
                self._awaited = quantity
                self._lenses.ask_shakes()
            elif (account := chatter_account(machine, shakes, found, chosen, units)) is not None:
                self.ready.emit(account)
            else:
                self.trouble.emit(NO_CHATTER)

    def _on_likely(self) -> None:
        """Tell what was asked before there was an answer."""
        late, self._late = self._late, ""
        if late:
            self.ask(late)

    def _on_lens(self, quantity: str, answer: object) -> None:
        del answer
        if quantity == self._awaited:
            self._awaited = ""
            self._tell(quantity)

    def draw(self) -> None:
        """Draw samples for the machine as it stands."""
        self.samples.ask((self._feed.machine(), self._selection.place))

    def save_frame(self) -> None:
        """Ask where to, and save the analysis model."""
        start = f"{self._selection.candidate}.frame.json"
        path = ask_save_path(self._owner, "Save the frame", start, "Frame (*.frame.json)")
        if path is not None:
            self.write_frame(path)

    def write_frame(self, path: Path) -> None:
        """Save the analysis model of the machine as it stands."""
        frame, loads = standard_loads(self._feed.machine(), self._selection.place)
        try:
            write_atomically(path, document_text(to_document(frame, loads, CASES, MODES)))
        except UnterbauError as error:
            self.trouble.emit(str(error))

    def _on_samples(self, answer: object) -> None:
        del answer
        if self._quantity:
            self.ask(self._quantity)


def _spread(asked: tuple[Machine, Place], progress: Progress) -> Spread:
    return spread(*asked, progress=progress)
