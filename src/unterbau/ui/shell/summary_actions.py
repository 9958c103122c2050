"""The one-page summary of the chosen candidate as HTML and PDF."""

from collections.abc import Callable
from dataclasses import replace
from datetime import date
from pathlib import Path

from PyQt6.QtWidgets import QWidget

from unterbau.brief.brief import Brief
from unterbau.errors import UnterbauError
from unterbau.files.atomic import write_atomically
from unterbau.files.summary_html import Summary, summary_html, write_summary
from unterbau.machine.machine import Machine
from unterbau.progress import Progress
from unterbau.studies.purchase.check import Check
from unterbau.studies.purchase.checks import checks
from unterbau.ui.commands import Command
from unterbau.ui.document import Document
from unterbau.ui.feed import Feed
from unterbau.ui.jobs.asker import Asker
from unterbau.ui.selection import Selection
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.page_pdf import pdf_of
from unterbau.ui.widgets.save_path import ask_save_path
from unterbau.units import Units

Asked = tuple[Machine, Brief, Units]


class SummaryActions:
    """Writes the page about the candidate that is looked at."""

    def __init__(
        self, document: Document, selection: Selection, view: ViewSettings, feed: Feed, window: QWidget,
        say: Callable[[str], None], picture: Callable[[], bytes], wrote: Callable[[Path], None],
    ) -> None:  # fmt: skip
        """Take `picture` to draw the machine as a PNG, `wrote` to tell where a page went."""
        self._wrote = wrote
        self._waiting: list[tuple[Path, Summary, Asked]] = []
        self.checks = Asker(_checks, window)
        self.checks.ready.connect(self._on_checks)
        self.checks.failed.connect(self._on_failed)
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
        start = (self._document.path.parent if self._document.path else Path.home()) / f"{name}.pdf"
        path = ask_save_path(self._window, "Save the summary", start, "One page (*.pdf);;Web page (*.html)")
        if path is not None:
            self.save_to(path)

    def save_to(self, path: Path) -> bool:
        """Write the page about what is looked at now; what goes wrong is said. It waits for the checks."""
        project = self._document.project
        candidate = project.candidate(self._selection.candidate)
        answers = self._feed.full(candidate.machine)
        if answers is None:
            self._say("The bands are still being computed; make the summary in a moment.")
            return False
        made = Summary(
            project, candidate, answers, self._selection.place, date.today().isoformat(),
            self._view.units, self._picture(), (),
        )  # fmt: skip
        asked = (candidate.machine, project.brief, self._view.units)
        self._waiting = [*(one for one in self._waiting if one[0] != path), (path, made, asked)]
        self._ask_next()
        return not self._waiting

    def close(self) -> None:
        """Stop what is computed for a page."""
        self._waiting = []
        self.checks.close()

    def _ask_next(self) -> None:
        if self._waiting:
            self.checks.ask(self._waiting[0][2])

    def _on_checks(self, found: tuple[Check, ...]) -> None:
        """Write the page that waits for these checks, of what it was asked for."""
        (path, made, _), *self._waiting = self._waiting
        self._write(path, replace(made, checks=found))
        self._ask_next()

    def _on_failed(self, problem: str) -> None:
        self._waiting = self._waiting[1:]
        self._say(problem)
        self._ask_next()

    def _write(self, path: Path, made: Summary) -> None:
        try:
            if path.suffix.lower() in (".html", ".htm"):
                write_summary(path, made)
            else:
                title = f"{made.project.name}: {made.candidate.name}"
                write_atomically(path, pdf_of(summary_html(made), title))
        except UnterbauError as error:
            self._say(str(error))
            return
        self._wrote(path)


def _checks(asked: Asked, progress: Progress) -> tuple[Check, ...]:
    return checks(*asked, progress)
