"""Try instead: every alternative for one place, solved; ranked by what it gains and costs."""

from dataclasses import dataclass
from typing import Literal

import numpy as np

from unterbau.catalogue.prices import PriceBook
from unterbau.errors import InputError
from unterbau.machine.alternatives import Alternative, alternatives
from unterbau.machine.machine import Machine, cost_of, lay_out, listed_mass, part, to_frame
from unterbau.materials.material import material
from unterbau.mechanics.arrays import FloatArray
from unterbau.progress import Progress, Silent
from unterbau.sections.section import section
from unterbau.structure.parts import Member, Place
from unterbau.studies.clash import clashes_of
from unterbau.studies.compliance import solve_tip
from unterbau.studies.sweep import best_of_catalogue

Order = Literal["stiffness", "money", "mass"]
"""Most stiffness first; least money first; least weight first."""
MISSED, LEAST = 0.005, 0.5
"""Stiffness that is not missed, as a share; money worth a line."""
NOTHING = 0.002
"""A change of stiffness below this share is none."""


@dataclass(frozen=True, slots=True)
class Trial:
    """One alternative with its answer; likely joints."""

    alternative: Alternative
    machine: Machine
    gain: tuple[float, float, float]
    """Stiffness at the tool tip along x, y, z against now, as a share: 0.1 is ten per cent stiffer."""
    mass: float
    """More than now, kg."""
    money: float
    """More than now."""
    reason: str = ""
    """Why it helps, or is not missed, by the shares; nothing where the list is of one part."""


def try_instead(
    machine: Machine, key: str, place: Place, book: PriceBook, progress: Progress | None = None
) -> tuple[Trial, ...]:
    """Return every alternative for a link that can be built, solved at one place.

    Raises:
        InputError: The machine itself cannot be built.
        Cancelled: The progress asked to stop.
    """
    report = progress or Silent()
    found = alternatives(machine, key)
    report.step(0, len(found) + 1, "as it is")
    bench = Trials(machine, place, book)
    trials: list[Trial] = []

    def solve(rows: tuple[Alternative, ...], total: int) -> None:
        for one in rows:
            report.step(len(trials) + 1, total + 1, one.text)
            trial = bench.tried(one)
            if trial is not None:
                trials.append(trial)
                report.found(tuple(trials))

    solve(found, len(found))
    more = _of_catalogue(machine, key, place, found)
    solve(more, len(found) + len(more))
    return tuple(trials)


class Trials:
    """Tries alternatives against a machine as it stands, at one place."""

    def __init__(self, machine: Machine, place: Place, book: PriceBook) -> None:
        """Solve the machine itself.

        Raises:
            InputError: It cannot be built.
        """
        self._machine, self._place, self._book = machine, place, book
        self._stiffness, self._mass = _solved(machine, place)
        self._money = cost_of(machine, book).money

    def tried(self, one: Alternative) -> Trial | None:
        """Return an alternative with its answer; None where it cannot be built, or what it adds is in the way."""
        changed = one.applied(self._machine)
        try:
            if one.added is not None and clashes_of(lay_out(changed), only=frozenset({one.added.id})).found:
                return None
            stiffness, mass = _solved(changed, self._place)
        except InputError:
            return None
        x, y, z = (stiffness / self._stiffness - 1.0).tolist()
        money = cost_of(changed, self._book).money - self._money
        return Trial(one, changed, (x, y, z), mass - self._mass, money)


def _of_catalogue(machine: Machine, key: str, place: Place, found: tuple[Alternative, ...]) -> tuple[Alternative, ...]:
    """Return what trying the whole catalogue in a member's place comes up with besides."""
    now = part(machine, key)
    if not isinstance(now, Member) or section(now.section).pieces:
        return ()
    known = {one.applied(machine) for one in found}
    more = [
        Alternative(f"{section(one.section).label}, {material(one.material).kind}", ((key, one),))
        for one in best_of_catalogue(machine, key, place)
    ]
    return tuple(one for one in more if one.applied(machine) not in known)


def _solved(machine: Machine, place: Place) -> tuple[FloatArray, float]:
    built = to_frame(machine, place, "likely")
    return np.asarray(1.0 / np.diag(solve_tip(built))), listed_mass(machine)


def is_spare(trial: Trial) -> bool:
    """Return whether it saves money and is hardly missed along any axis."""
    return trial.money < -LEAST and min(trial.gain) > -MISSED


def ranked(trials: tuple[Trial, ...], axis: int, order: Order) -> tuple[Trial, ...]:
    """Return trials that gain, by stiffness, money or mass; those that only save, then those that gain nothing."""

    def rank(trial: Trial) -> tuple[float, ...]:
        gain = trial.gain[axis]
        price = trial.money if order == "money" else trial.mass
        if gain < NOTHING and not is_spare(trial):
            return (2.0, -round(gain, 3), trial.money)
        if gain < NOTHING and order == "stiffness":
            return (1.0, trial.money, -gain)
        if order == "stiffness":
            return (0.0, -gain, trial.money)
        return (0.0, price, -gain)

    return tuple(sorted(trials, key=rank))
