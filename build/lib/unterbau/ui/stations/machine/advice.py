"""Asks for alternatives to the part on the bench, behind the scenes."""

from PyQt6.QtCore import QObject, pyqtSignal

from unterbau.catalogue.prices import PriceBook
from unterbau.machine.machine import Machine
from unterbau.structure.parts import Place
from unterbau.studies.cures import advised
from unterbau.ui.jobs.asker import Asker


class Advice(Asker):
    """Alternatives for one link at a time, or cures for the whole machine."""

    waiting = pyqtSignal(str)
    """How far it is, in words; empty when nothing runs."""

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(advised, parent, beside=True)
        self.progressed.connect(self._on_steps)

    def ask_for(self, machine: Machine, wanted: str | int, place: Place, book: PriceBook) -> None:
        """Ask for a link's alternatives, or for what makes the whole machine stiffer along an axis."""
        self.ask((machine, wanted, place, book))

    def _on_steps(self, done: int, total: int) -> None:
        self.waiting.emit(f"solving {done} of {total}" if total else "")
