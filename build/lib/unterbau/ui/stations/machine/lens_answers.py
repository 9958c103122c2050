"""What the lenses Reach, Shake, Clash and Checks show of a machine, computed behind."""

from PyQt6.QtCore import QObject, pyqtSignal

from unterbau.brief.brief import Brief
from unterbau.catalogue.cuts import Cut, cut
from unterbau.machine.alternatives import Alternative
from unterbau.machine.machine import Machine
from unterbau.progress import Progress
from unterbau.structure.parts import Place
from unterbau.studies.access import access
from unterbau.studies.clash import clashes
from unterbau.studies.purchase.check import Check
from unterbau.studies.purchase.checks import checks
from unterbau.studies.purchase.cures import cure_of
from unterbau.studies.reach import Reach, reach
from unterbau.studies.shake import Shakes, shakes
from unterbau.studies.stability import Limit, limit
from unterbau.ui.jobs.asker import Asker
from unterbau.ui.stations.machine.clash_bar import Collisions
from unterbau.units import Units


class LensAnswers(QObject):
    """Asks for a machine's reach, its modes, and how deep the chosen cut may go before it chatters."""

    ready = pyqtSignal()
    """Something more is known."""
    limit_found = pyqtSignal(object)
    """How deep the chosen cut may go before it chatters, or None where no depth does."""

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self.reach, self.shakes, self._limits = Asker(_reach, self), Asker(_shakes, self), Asker(self._limit, self)
        self.checks = Asker(_checks, self)
        self.clash, self.cure = Asker(_collisions, self), Asker(_cure, self)
        self.askers = (self.reach, self.shakes, self._limits, self.checks, self.clash, self.cure)
        self._asked: tuple[Machine, Place] | None = None
        self.cut, self._brief = cut("hardwood"), Brief()
        self._units: Units = "mm"
        self.reach.ready.connect(self.ready)
        self.checks.ready.connect(self.ready)
        self.clash.ready.connect(self.ready)
        self.shakes.ready.connect(self._on_shakes)
        self._limits.ready.connect(self._on_limit)

    def show_machine(self, machine: Machine, place: Place) -> None:
        """Answer for another machine or head."""
        self._asked = (machine, place)

    def use_brief(self, brief: Brief, units: Units) -> None:
        """Check by another brief, told in units."""
        self._brief, self._units = brief, units

    def use_cut(self, chosen: Cut) -> None:
        """Judge by another cut."""
        self.cut = chosen
        self._ask_limit()

    def ask_reach(self) -> None:
        """Ask for the stiffness over the whole travel."""
        if self._asked is not None:
            self.reach.ask(self._asked[0])

    def ask_shakes(self) -> None:
        """Ask for the modes, and then for the limit of the chosen cut; `limit_found` tells."""
        if self._asked is not None:
            self.shakes.ask(self._asked)

    def known_reach(self) -> Reach | None:
        """Return the stiffness over the travel, if it is there already."""
        found: Reach | None = self.reach.known(self._asked[0]) if self._asked is not None else None
        return found

    def known_shakes(self) -> Shakes | None:
        """Return the modes and what a tap brings, if they are there already."""
        found: Shakes | None = self.shakes.known(self._asked) if self._asked is not None else None
        return found

    def ask_checks(self) -> None:
        """Ask what will not do, for the brief's cuts and speeds."""
        if self._asked is not None:
            self.checks.ask((self._asked[0], self._brief, self._units))

    def known_checks(self) -> tuple[Check, ...] | None:
        """Return what will do and what will not, if it is there already."""
        asked = (self._asked[0], self._brief, self._units) if self._asked is not None else None
        found: tuple[Check, ...] | None = self.checks.known(asked)
        return found

    def ask_cure(self, check: Check) -> None:
        """Ask what would cure a check; `cure.ready` tells."""
        if self._asked is not None:
            self.cure.ask((self._asked[0], self._brief, check, self._units))

    def ask_clash(self) -> None:
        """Ask what collides on the travel, and which screws one cannot reach."""
        if self._asked is not None:
            self.clash.ask(self._asked[0])

    def known_clash(self) -> Collisions | None:
        """Return what collides, if it is there already."""
        found: Collisions | None = self.clash.known(self._asked[0]) if self._asked is not None else None
        return found

    def known_limit(self) -> tuple[Limit | None, bool]:
        """Return the limit of the chosen cut, and whether it is known already."""
        asked = (self._asked, self.cut)
        return self._limits.known(asked), asked in self._limits

    def close(self) -> None:
        """Stop and wait for what runs."""
        for asker in reversed(self.askers):
            asker.close()

    def _ask_limit(self) -> None:
        if self._asked is not None and self._asked in self.shakes:
            self._limits.ask((self._asked, self.cut))

    def _limit(self, asked: tuple[tuple[Machine, Place], Cut], progress: Progress) -> Limit | None:
        known: Shakes | None = self.shakes.known(asked[0])  # may have had to make room since it was asked for
        return limit(known or shakes(*asked[0], progress), asked[1])

    def _on_shakes(self, answer: object) -> None:
        del answer
        self._ask_limit()
        self.ready.emit()

    def _on_limit(self, answer: object) -> None:
        del answer
        found, known = self.known_limit()
        if known:
            self.limit_found.emit(found)
        self.ready.emit()


def _reach(machine: Machine, progress: Progress) -> Reach:
    return reach(machine, progress=progress)


def _collisions(machine: Machine, progress: Progress) -> Collisions:
    return Collisions(clashes(machine, progress), access(machine, progress))


def _cure(asked: tuple[Machine, Brief, Check, Units], progress: Progress) -> Alternative | None:
    return cure_of(*asked, progress)


def _checks(asked: tuple[Machine, Brief, Units], progress: Progress) -> tuple[Check, ...]:
    return checks(*asked, progress)


def _shakes(asked: tuple[Machine, Place], progress: Progress) -> Shakes:
    return shakes(*asked, progress)
