"""Asks for alternatives to the part on the bench, behind the scenes."""

from PyQt6.QtCore import QObject, pyqtSignal

from unterbau.catalogue.prices import PriceBook
from unterbau.machine.machine import Machine
from unterbau.progress import Progress
from unterbau.structure.parts import Place
from unterbau.studies.advise import Trial, try_instead
from unterbau.ui.jobs.asker import Asker

Asked = tuple[Machine, str, Place, PriceBook]


def _study(asked: Asked, progress: Progress) -> tuple[Trial, ...]:
    return try_instead(*asked, progress)


class Advice(Asker):
    """Alternatives for one link at a time."""

    waiting = pyqtSignal(str)
    """How far it is, in words; empty when nothing runs."""

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(_study, parent)
        self.progressed.connect(self._on_steps)

    def ask_for(self, machine: Machine, key: str, place: Place, book: PriceBook) -> None:
        """Ask for a link's alternatives."""
        self.ask((machine, key, place, book))

    def _on_steps(self, done: int, total: int) -> None:
        self.waiting.emit(f"solving {done} of {total}" if total else "")
