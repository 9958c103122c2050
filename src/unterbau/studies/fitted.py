"""A kind of machine in the size that a brief asks for: what a candidate starts from."""

from dataclasses import dataclass, replace
from math import ceil
from typing import Any

from unterbau.brief.brief import Brief, carried_mass
from unterbau.catalogue.prices import PriceBook
from unterbau.errors import InputError
from unterbau.machine.kind import Kind, SizeField
from unterbau.machine.machine import Machine, brought_together, kind_of, with_part
from unterbau.studies.budget import Budget, Finding, budget
from unterbau.units import Units, length_text

ROUND = 0.01
"""Travels are rounded up to it, m."""
OVER_WORK = 0.01
"""Left between tall work and what passes over it, m."""
TOGETHER = {"travel_y": "throat"}
"""What grows with a size: a table that goes further back needs its column further off."""
WISHED = ("travel_x", "travel_y", "travel_z")
"""Sizes that the brief asks for: parts are brought together by others."""
ROUNDS = 8
"""One size follows from another: a table grows with its travel."""


@dataclass(frozen=True, slots=True)
class Start:
    """A machine to start from."""

    machine: Machine
    changed: tuple[str, ...]
    """Sizes that are not as the kind comes, in words."""
    conflicts: tuple[Finding, ...]
    """What of the brief it still does not meet."""

    def words(self) -> str:
        """Return what was done, in a sentence or two."""
        done = f"Started in the brief's size: {', '.join(self.changed)}." if self.changed else "Started as it comes."
        left = f" Still against the brief: {'; '.join(one.words for one in self.conflicts)}." if self.conflicts else ""
        return done + left


def fitted(kind: Kind, brief: Brief, book: PriceBook, units: Units = "mm") -> Start:
    """Return a kind's machine in the size of a brief; sizes the brief leaves open stay as they come.

    Args:
        kind: The kind.
        brief: Work, tool, room.
        book: Prices, for the conflicts.
        units: For reading.
    """
    as_it_comes: Machine = kind.model(payload=carried_mass(brief))
    machine = as_it_comes
    for size in kind.sizes:
        wanted = _wanted(machine, size, brief)
        if wanted is not None:
            machine = _tried(machine, size, wanted)
    found = budget(machine, brief, book, units)
    for _ in range(ROUNDS):
        cured = _cured(machine, found)
        if cured is machine:
            break
        machine, found = cured, budget(cured, brief, book, units)
    changed = tuple(
        f"{size.words} {length_text(getattr(machine.dimensions, size.attribute), units)}"
        for size in kind.sizes
        if getattr(machine.dimensions, size.attribute) != getattr(as_it_comes.dimensions, size.attribute)
    )
    return Start(machine, changed, found.conflicts)


def _wanted(machine: Machine, size: SizeField, brief: Brief) -> float | None:
    """Return what a brief asks of a size, or nothing."""
    edge = machine.cutter.diameter
    if size.attribute == "travel_x" and brief.work_x:
        return _up(brief.work_x + edge)
    if size.attribute == "travel_y" and brief.work_y:
        return _up(brief.work_y + edge)
    if size.attribute == "clearance" and brief.work_z:
        return _up(brief.work_z + OVER_WORK)
    return None


def _up(value: float) -> float:
    return ceil(round(value / ROUND, 6)) * ROUND


def _cured(machine: Machine, found: Budget) -> Machine:
    """Return a machine with the first conflict mended that one of its sizes mends, or the same."""
    for one in found.conflicts:
        if one.cure is not None:
            sizes = kind_of(machine).sizes
            size = next(size for size in sizes if size.attribute == one.cure.attribute)
            changed = _tried(machine, size, one.cure.value)
            if changed is not machine:
                return changed
    return machine


def _tried(machine: Machine, size: SizeField, value: float) -> Machine:
    """Return a machine with a size within its limits; the same where it cannot be built so."""
    held = min(size.high, max(size.low, value))
    change: dict[str, Any] = {size.attribute: held}
    other = TOGETHER.get(size.attribute, "")
    if hasattr(machine.dimensions, other):
        grown = held - getattr(machine.dimensions, size.attribute)
        change[other] = getattr(machine.dimensions, other) + max(0.0, grown)
    changed = with_part(machine, "dimensions", replace(machine.dimensions, **change))
    try:
        return brought_together(changed, frozenset((*WISHED, size.attribute)))
    except InputError:
        return machine
