"""What a fill gains: the machine before and after, side by side, and a larger section for the same money and mass."""

from dataclasses import dataclass, replace

from unterbau.catalogue.cuts import Cut
from unterbau.catalogue.prices import PriceBook
from unterbau.errors import InputError
from unterbau.machine.alternatives import every_section
from unterbau.machine.machine import Machine, bill_of, cost_of, listed_mass, part_at, with_part
from unterbau.materials.material import material
from unterbau.progress import Progress, Silent
from unterbau.sections.section import section
from unterbau.shop.pour.base_mould import stand_of
from unterbau.shop.pour.mould import Mould
from unterbau.structure.parts import Member, Place, Stand
from unterbau.studies.answers import answers
from unterbau.studies.compliance import solve, tip_compliance
from unterbau.studies.shake import shaking
from unterbau.studies.stability import chatter

SLIGHT = 0.05
"""Of the weakest stiffness: a fill that gains less hardly helps."""
LOOSE = ("sand", "steel-shot")
"""Fills that only lie in a hollow."""
TRIED = 16
"""Sections that are tried in a filled one's place, the stiffest that weigh no more."""


@dataclass(frozen=True, slots=True)
class Figures:
    """What counts of a machine, likely."""

    stiffness: tuple[float, float, float]
    """N/m."""
    droop: float
    mode: float
    """First that is felt at the tool, Hz."""
    zeta: float
    depth: float
    """Before it chatters at the cut's own speed, m; inf where nothing limits it or nothing turns."""
    mass: float
    money: float
    heaviest: float
    """Piece with its fill, kg."""


@dataclass(frozen=True, slots=True)
class Larger:
    """A larger section, empty, that costs and weighs no more than the filled one."""

    words: str
    stiffness: tuple[float, float, float]
    mass: float
    """More than before, kg."""
    money: float
    """More than before."""


@dataclass(frozen=True, slots=True)
class Gain:
    """Before and after."""

    before: Figures
    after: Figures
    larger: Larger | None
    words: str
    """In a sentence: whether it is worth it."""


def filled(machine: Machine, key: str, fill: str, mould: Mould | None = None) -> Machine:
    """Return a machine with the hollows of a link filled, or standing on what a mould casts.

    Raises:
        InputError: There is nothing to fill.
    """
    part = part_at(machine, key)
    if isinstance(part, Stand):
        return with_part(machine, key, stand_of(mould or Mould(), fill, part))
    if not isinstance(part, Member) or section(part.section).cavity is None:
        raise InputError(key, "has no closed hollow that could be filled")
    return with_part(machine, key, replace(part, fill=fill, loose=fill in LOOSE))


def emptied(machine: Machine, key: str) -> Machine:
    """Return a machine with a link's hollows empty, or on a workbench instead of its base."""
    part = part_at(machine, key)
    if isinstance(part, Stand):
        return with_part(machine, key, replace(part, kind="bench"))
    return with_part(machine, key, replace(part, fill=None)) if isinstance(part, Member) else machine


def gain(
    machine: Machine, key: str, fill: str, book: PriceBook, cut: Cut, fill_money: float = 0.0, cast: float = 0.0,
    mould: Mould | None = None, progress: Progress | None = None,
) -> Gain:  # fmt: skip
    """Return what filling a link gains.

    Args:
        machine: As it is; a fill that is in it already is taken out for *before*.
        key: The link.
        fill: Material.
        book: Prices of the rest.
        cut: Whose chatter is judged.
        fill_money: Of the mix, where that is known; else the price book's.
        cast: Mass of a piece that is cast by itself, kg; 0 where hollows are filled.
        mould: Of that piece.
        progress: Told of each step.

    Raises:
        InputError: It cannot be built, or has nothing to fill.
        Cancelled: The progress asked to stop.
    """
    report = progress or Silent()
    empty = emptied(machine, key)
    full = filled(empty, key, fill, mould)
    report.step(0, 4, "before")
    before = _figures(empty, book, cut, 0.0)
    report.step(1, 4, "after")
    booked = cost_of(full, book).money - before.money
    after = _figures(full, book, cut, fill_money - booked if fill_money else 0.0)
    if cast:
        after = replace(after, mass=before.mass + cast, heaviest=max(before.heaviest, cast))
        return Gain(before, after, None, _cast_words(before, after))
    report.step(2, 4, "a larger section")
    larger = _larger(empty, key, book, before, after, report)
    return Gain(before, after, larger, _words(before, after, larger))


def _figures(machine: Machine, book: PriceBook, cut: Cut, more: float) -> Figures:
    found = answers(machine, Place())
    mode = found.headline
    limited = chatter(shaking(machine, Place()), cut)
    lines = [one for one in bill_of(machine) if one.count and one.length]
    by_part: dict[tuple[str, float], float] = {}
    for one in lines:
        spot = (one.part, round(one.length, 6))
        by_part[spot] = by_part.get(spot, 0.0) + one.mass / one.count
    x, y, z = (one.likely for one in found.stiffness)
    return Figures(
        (x, y, z), found.droop.likely, mode.frequency.likely if mode else 0.0, mode.zeta if mode else 0.0,
        limited.depth if limited else float("inf"), listed_mass(machine), cost_of(machine, book).money + more,
        max(by_part.values(), default=0.0),
    )  # fmt: skip


def _larger(
    empty: Machine, key: str, book: PriceBook, before: Figures, after: Figures, report: Progress
) -> Larger | None:
    now = part_at(empty, key)
    if not isinstance(now, Member):
        return None
    best: Larger | None = None
    rows = [one for one in every_section(now) if one.section != now.section]
    for number, one in enumerate(_stiffest(rows, listed_mass(empty), after.mass, empty, key)[:TRIED]):
        report.step(2, 4, f"section {number + 1}")
        changed = with_part(empty, key, one)
        try:
            mass, money = listed_mass(changed), cost_of(changed, book).money
            if mass > after.mass or money > max(after.money, before.money):
                continue
            give = tip_compliance(solve(changed, Place(), "likely"))
        except InputError:
            continue
        stiff = (float(1 / give[0, 0]), float(1 / give[1, 1]), float(1 / give[2, 2]))
        if best is None or min(stiff) > min(best.stiffness):
            words = f"{section(one.section).label}, {material(one.material).label}"
            best = Larger(words, stiff, mass - before.mass, money - before.money)
    return best if best is not None and min(best.stiffness) > min(before.stiffness) else None


def _cast_words(before: Figures, after: Figures) -> str:
    share = min(after.stiffness) / min(before.stiffness) - 1.0
    return (
        f"a base of {after.mass - before.mass:.0f} kg under the feet instead of a workbench: weakest direction "
        f"{share:+.0%}; slab and ribs are in the frame, as long and wide as the machine's feet ask"
    )


def _stiffest(rows: list[Member], before: float, most: float, empty: Machine, key: str) -> list[Member]:
    """Return sections that weigh no more than the filled one, the stiffest in its weaker direction first."""
    spare = most - before
    now = part_at(empty, key)
    assert isinstance(now, Member)
    length = sum(one.count * one.length for one in bill_of(empty) if one.part == key and one.length)
    own = section(now.section).properties.A * material(now.material).rho

    def bends(one: Member) -> float:
        p = section(one.section).properties
        return min(p.Iy, p.Iz) * material(one.material).E

    light = [
        one for one in rows
        if (section(one.section).properties.A * material(one.material).rho - own) * length <= spare + 1e-9
    ]  # fmt: skip
    return sorted(light, key=bends, reverse=True)


def _words(before: Figures, after: Figures, larger: Larger | None) -> str:
    share = min(after.stiffness) / min(before.stiffness) - 1.0
    text = f"filling makes the weakest direction {share:+.0%} stiffer, {after.mass - before.mass:+.0f} kg"
    if share < SLIGHT:
        text = f"filling hardly helps the stiffness ({share:+.1%}); it damps"
    if larger is not None and min(larger.stiffness) > min(after.stiffness):
        text += f"; {larger.words} instead is stiffer still, for no more money and mass"
    elif larger is not None:
        text += f"; no larger section does as much for its money and mass (best: {larger.words})"
    return text
