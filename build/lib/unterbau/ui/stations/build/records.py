"""What is written down of a build: its log with photos, and first cuts beside their predictions."""

from dataclasses import replace
from datetime import date
from pathlib import Path

from PyQt6.QtCore import QObject, pyqtSignal

from unterbau.catalogue.cuts import OwnCut
from unterbau.errors import InputError, UnterbauError
from unterbau.files.atomic import write_atomically
from unterbau.files.log_pages import log_html, log_markdown
from unterbau.files.photos import keep_photo
from unterbau.machine.differs import part_text
from unterbau.machine.machine import Machine, links, part_at
from unterbau.progress import Progress
from unterbau.project import edits
from unterbau.shop.build.cuts import FirstCut
from unterbau.shop.build.log import Entry, with_entry
from unterbau.shop.state import ShopState
from unterbau.studies.first_cuts import Judged, judged
from unterbau.ui.document import Document
from unterbau.ui.jobs.asker import Asker
from unterbau.ui.selection import Selection
from unterbau.ui.stations.build.cuts_panel import CutsPanel
from unterbau.ui.stations.build.log_panel import LogPanel


class Records(QObject):
    """Keeps log and first cuts of the chosen candidate."""

    trouble = pyqtSignal(str)
    wrote = pyqtSignal(object)

    def __init__(
        self, document: Document, selection: Selection, log: LogPanel, cuts: CutsPanel, parent: QObject
    ) -> None:
        super().__init__(parent)
        self._document, self._selection, self.log, self.cuts = document, selection, log, cuts
        self.judging = Asker(_judged, self)
        log.added.connect(self._on_added)
        log.photo_wanted.connect(self.keep)
        log.removed.connect(self._on_removed)
        log.page_wanted.connect(self.save_page)
        cuts.added.connect(self._on_cut)
        cuts.removed.connect(self._on_cut_removed)
        self.judging.ready.connect(cuts.show_cuts)
        self.judging.failed.connect(self.trouble)

    def show(self) -> None:
        """Show what is written down of the chosen candidate."""
        project, name = self._document.project, self._selection.candidate
        self.log.show_log(project.shop.log, name, self._document.path)
        self.judging.ask((project.candidate(name).machine, self._mine(), project.own_cut))

    def keep(self, photos: tuple[Path, ...]) -> None:
        """Keep photos beside the project's file, as an entry of today; what is wrong is said beside it."""
        path = self._document.path
        if path is None:
            self.log.say("save the project first: its photos are kept beside its file")
            return
        try:
            names = tuple(dict.fromkeys(keep_photo(path, photo) for photo in photos))
        except UnterbauError as error:
            self.log.say(error.problem if isinstance(error, InputError) else str(error))
            return
        words = self.log.take_words()
        self._add(Entry(self._selection.candidate, date.today().isoformat(), words, names, parts=self._parts()))

    def keep_recording(self, path: Path, words: str) -> None:
        """Keep a recording beside the project's file, where it has one, as an entry of today."""
        project = self._document.path
        if project is None:
            return
        try:
            name = keep_photo(project, path)
        except UnterbauError as error:
            self.trouble.emit(str(error))
            return
        if all(name not in one.photos for one in self._document.project.shop.log):
            today = date.today().isoformat()
            self._add(Entry(self._selection.candidate, today, words, (name,), parts=self._parts()))

    def save_page(self, path: Path) -> None:
        """Write the log as HTML, or as Markdown where the name ends so; a failure is said."""
        write = log_markdown if path.suffix.lower() in (".md", ".markdown") else log_html
        shop, name = self._document.project.shop, self._selection.candidate
        try:
            write_atomically(path, write(shop.log, name, path, self._document.path))
        except UnterbauError as error:
            self.trouble.emit(str(error))
            return
        self.wrote.emit(path)

    def _mine(self) -> tuple[FirstCut, ...]:
        return tuple(one for one in self._document.project.shop.cuts if one.candidate == self._selection.candidate)

    def _parts(self) -> tuple[str, ...]:
        """Return what the machine is made of, a line each."""
        machine = self._document.project.candidate(self._selection.candidate).machine
        found = ((one.label, part_at(machine, one.key)) for one in links(machine))
        return tuple(f"{label}: {part_text(part)}" for label, part in found if part is not None)

    def _on_added(self, words: str, hours: float, money: float) -> None:
        name, today = self._selection.candidate, date.today().isoformat()
        self._add(Entry(name, today, words, (), money, hours, self._parts()))

    def _add(self, entry: Entry) -> None:
        shop = self._document.project.shop
        self._set(replace(shop, log=with_entry(shop.log, entry)), "a line in the log", self.log.say)

    def _on_removed(self, place: int) -> None:
        shop = self._document.project.shop
        if 0 <= place < len(shop.log):
            left = (*shop.log[:place], *shop.log[place + 1 :])
            self._set(replace(shop, log=left), "a line out of the log", self.log.say)

    def _on_cut(self, cut: FirstCut) -> None:
        shop = self._document.project.shop
        mine = replace(cut, candidate=self._selection.candidate, when=date.today().isoformat())
        self._set(replace(shop, cuts=(*shop.cuts, mine)), "a first cut", self.cuts.say)

    def _on_cut_removed(self, row: int) -> None:
        shop, mine = self._document.project.shop, self._mine()
        if 0 <= row < len(mine):
            places = [n for n, one in enumerate(shop.cuts) if one.candidate == self._selection.candidate]
            left = (*shop.cuts[: places[row]], *shop.cuts[places[row] + 1 :])
            self._set(replace(shop, cuts=left), "a first cut taken out", self.cuts.say)

    def _set(self, shop: ShopState, text: str, say: object) -> None:
        assert callable(say)
        try:
            project = edits.set_shop(self._document.project, shop)
        except InputError as error:
            say(error.problem)
            return
        say("")
        self._document.apply(project, text)


def _judged(asked: tuple[Machine, tuple[FirstCut, ...], OwnCut], progress: Progress) -> tuple[Judged, ...]:
    return judged(*asked, progress)
