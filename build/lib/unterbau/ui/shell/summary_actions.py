"""The one-page summary of the chosen candidate as HTML and PDF."""

from collections.abc import Callable
from datetime import date
from pathlib import Path

from PyQt6.QtWidgets import QFileDialog, QWidget

from unterbau.errors import UnterbauError
from unterbau.files.atomic import write_atomically
from unterbau.files.summary_html import Summary, summary_html, write_summary
from unterbau.ui.commands import Command
from unterbau.ui.document import Document
from unterbau.ui.feed import Feed
from unterbau.ui.selection import Selection
from unterbau.ui.stations.machine.lens_answers import LensAnswers
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.page_pdf import pdf_of


class SummaryActions:
    """Writes the page about the candidate that is looked at."""

    def __init__(
        self, document: Document, selection: Selection, view: ViewSettings, feed: Feed, window: QWidget,
        lenses: Callable[[], LensAnswers], say: Callable[[str], None], picture: Callable[[], bytes],
        wrote: Callable[[Path], None],
    ) -> None:  # fmt: skip
        """Take what the lenses know, `picture` to draw the machine as a PNG, `wrote` to tell where a page went."""
        self._wrote, self._lenses = wrote, lenses
        self._waiting: Path | None = None
        self._listened: LensAnswers | None = None
        self._document, self._selection, self._view, self._feed = document, selection, view, feed
        self._window, self._say, self._picture = window, say, picture

    def commands(self) -> list[Command]:
        """Return what can be made of the candidate."""
        return [
            Command("summary", "Summary of the candidate …", self.ask, "Ctrl+E", "one page, PDF or HTML"),
        ]

    def ask(self) -> None:
        """Ask for a file and write the page into it; its ending chooses the format."""
        name = self._selection.candidate
        start = str((self._document.path.parent if self._document.path else Path.home()) / f"{name}.pdf")
        chosen, _ = QFileDialog.getSaveFileName(
            self._window, "Save the summary", start, "One page (*.pdf);;Web page (*.html)"
        )
        if chosen:
            path = Path(chosen)
            self.save_to(path if path.suffix else path.with_suffix(".pdf"))

    def save_to(self, path: Path) -> bool:
        """Write the page; what goes wrong is said."""
        project = self._document.project
        candidate = project.candidate(self._selection.candidate)
        answers = self._feed.full(candidate.machine)
        if answers is None:
            self._say("The bands are still being computed; make the summary in a moment.")
            return False
        checks = self._lenses().known_checks()
        if checks is None:
            self._waiting = path
            self._listen()
            self._lenses().ask_checks()
            return False
        made = Summary(
            project, candidate, answers, self._selection.place, date.today().isoformat(),
            self._view.units, self._picture(), checks,
        )  # fmt: skip
        try:
            if path.suffix.lower() in (".html", ".htm"):
                write_summary(path, made)
            else:
                write_atomically(path, pdf_of(summary_html(made), f"{project.name}: {candidate.name}"))
        except UnterbauError as error:
            self._say(str(error))
            return False
        self._wrote(path)
        return True

    def _listen(self) -> None:
        lenses = self._lenses()
        if lenses is not self._listened:
            self._listened = lenses
            lenses.ready.connect(self._on_checks)

    def _on_checks(self) -> None:
        """Write the page that waits for its checks."""
        path = self._waiting
        if path is not None and self._lenses().known_checks() is not None:
            self._waiting = None
            self.save_to(path)
