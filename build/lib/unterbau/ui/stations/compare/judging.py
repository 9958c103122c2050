"""The verdict over all candidates: asked for behind, told in sentences."""

from dataclasses import replace

from PyQt6.QtCore import QObject, pyqtSignal
from PyQt6.QtWidgets import QSizePolicy, QVBoxLayout, QWidget

from unterbau.brief.brief import Brief
from unterbau.catalogue.prices import PriceBook
from unterbau.machine.machine import Machine
from unterbau.progress import Progress
from unterbau.structure.parts import Place
from unterbau.studies.answers import Answers
from unterbau.studies.verdict import Standing, Verdict, standing, verdict
from unterbau.ui.document import Document
from unterbau.ui.feed import Feed
from unterbau.ui.jobs.asker import Asker
from unterbau.ui.selection import Selection
from unterbau.ui.theme import em
from unterbau.ui.widgets.labels import heading, label
from unterbau.units import Units

Key = tuple[Machine, Brief, PriceBook, Place, Units]
MOST_KEPT = 64
"""Answers that are kept for who may still be asked about."""


class Judging(QObject):
    """Knows how each candidate stands; those missing are computed behind."""

    ready = pyqtSignal()

    def __init__(self, document: Document, selection: Selection, feed: Feed, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._document, self._selection, self._feed = document, selection, feed
        self._known: dict[Key, Standing] = {}
        self._answers: dict[Key, Answers] = {}
        self.asker = Asker(self._stand, self)
        self.asker.ready.connect(self._on_stood)

    def verdict(self, units: Units, fails: dict[str, int]) -> Verdict | None:
        """Return the verdict; None while it is being looked for. `fails` are failed checks by candidate."""
        project = self._document.project
        keys = [(one.name, self._key(one.machine, units)) for one in project.candidates]
        for _, key in keys:
            found = self._feed.full(key[0])
            if key not in self._known and found is not None:
                self._answers[key] = found
        missing = tuple(key for _, key in keys if key not in self._known and key in self._answers)
        if missing:
            self.asker.ask(missing)
        if any(key not in self._known for _, key in keys):
            return None
        rows = (replace(self._known[key], name=name, fails=fails.get(name, 0)) for name, key in keys)
        return verdict(tuple(rows), project.prices, units)

    def doubt(self, machine: Machine, axis: int, units: Units) -> str:
        """Return whose doubt a candidate's stiffness along an axis is, in words; nothing while that is looked for."""
        found = self._known.get(self._key(machine, units))
        return found.doubt[axis] if found is not None else ""

    def close(self) -> None:
        """Stop what is computed behind."""
        self.asker.close()

    def _key(self, machine: Machine, units: Units) -> Key:
        project = self._document.project
        return (machine, project.brief, project.prices, self._selection.place, units)

    def _stand(self, asked: tuple[Key, ...], progress: Progress) -> dict[Key, Standing]:
        return {key: standing("", key[0], self._answers[key], *key[1:], progress) for key in asked}

    def _on_stood(self, found: dict[Key, Standing]) -> None:
        brief = self._document.project.brief
        self._known = {key: one for key, one in (self._known | found).items() if key[1] == brief}
        while len(self._answers) > MOST_KEPT:
            self._answers.pop(next(iter(self._answers)))
        self.ready.emit()


class VerdictBox(QWidget):
    """The verdict in sentences."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.words = label("", size=0.95)
        self.words.setWordWrap(True)
        as_high_as_its_words = QSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Minimum)
        as_high_as_its_words.setHeightForWidth(True)
        self.words.setSizePolicy(as_high_as_its_words)
        self.words.setAccessibleName("Verdict")
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(round(0.2 * em()))
        box.addWidget(heading("verdict"))
        box.addWidget(self.words)

    def show_verdict(self, found: Verdict | None) -> None:
        """Show a verdict, or that it is being looked for."""
        self.words.setText("being looked for …" if found is None else "\n".join(found.sentences))
