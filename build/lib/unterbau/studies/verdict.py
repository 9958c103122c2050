"""Which candidate to build, and why: what each reaches of the brief, compared with the same luck for all.

Joints, guides and materials are drawn alike for every candidate (the same number for what is called the same), so what
they have in common falls out of a comparison.
"""

from dataclasses import dataclass

import numpy as np

from unterbau.band import Band
from unterbau.brief.brief import Brief
from unterbau.brief.targets import targets
from unterbau.catalogue.prices import PriceBook, money_text
from unterbau.machine.machine import Machine, cost_of
from unterbau.mechanics.arrays import FloatArray
from unterbau.progress import Progress, Silent
from unterbau.structure.parts import Place
from unterbau.studies.answers import Answers
from unterbau.studies.bands import ENDS, components, pieces
from unterbau.studies.budget import budget
from unterbau.studies.compliance import solve
from unterbau.studies.loads import TIP
from unterbau.studies.matters import matters_words, owners
from unterbau.units import Units, mass_text, number_text

AXES = ("X", "Y", "Z")
WORTH = 1.03
"""Two that are likely closer than this in what they reach are not told apart, however narrow the doubt."""


NO_STIFFNESS = 1e-3
"""What machines are set against where the brief wants no stiffness, N/m: all meet it."""
ANY = 1e5
"""So many times what is wanted is any target at all."""


@dataclass(frozen=True, slots=True)
class Standing:
    """How a candidate stands towards a brief."""

    name: str
    reach: FloatArray
    """Of the target, at the weakest place along the worst axis, one for each draw, shape (n,)."""
    likely: float
    axis: str
    """The worst one."""
    mass: float
    money: float
    conflicts: tuple[str, ...]
    """What of the brief it does not meet besides, in words."""
    fails: int = 0
    """Checks before buying that fail."""
    doubt: tuple[str, str, str] = ("", "", "")
    """Whose doubt the stiffness along X, Y, Z is, in words."""

    @property
    def band(self) -> Band:
        """What it reaches of the target, 5 % to 95 %."""
        low, high = np.percentile(self.reach, ENDS).tolist()
        return Band(low, self.likely, high)

    @property
    def meets(self) -> bool:
        """Whether it likely meets the brief."""
        return self.likely >= 1.0 and not self.conflicts


@dataclass(frozen=True, slots=True)
class Pair:
    """Two candidates with the same luck."""

    ratio: Band
    """What the first reaches over what the second does: 5 %, likely, 95 %."""
    chance: float
    """That the first is the stiffer."""

    @property
    def differ(self) -> bool:
        """Whether the difference is worth the name."""
        outside = self.ratio.low > 1.0 or self.ratio.high < 1.0
        return outside and max(self.ratio.likely, 1 / self.ratio.likely) > WORTH


@dataclass(frozen=True, slots=True)
class Verdict:
    """What is said of the candidates."""

    best: str
    """Name; empty where there is none to compare."""
    runner_up: str
    sentences: tuple[str, ...]
    """The verdict with its reasons, the runner-up, what would turn the order, who falls short."""


def standing(
    name: str, machine: Machine, found: Answers, brief: Brief, book: PriceBook, place: Place, units: Units = "mm",
    progress: Progress | None = None,
) -> Standing:  # fmt: skip
    """Return how a candidate stands; its draws are those of every other.

    Raises:
        InputError: The machine cannot be built or solved.
        Cancelled: The progress asked to stop.
    """
    report = progress or Silent()
    solved = solve(machine, place, "likely")
    report.step(1, 2, name)
    u = solved.statics.u[TIP]
    uncertain = pieces(machine, place)
    drawn = uncertain.drawn(components(solved, u, u))
    x, y, z = (matters_words(owners(machine, solved, uncertain, axis)) for axis in range(3))
    here = np.diag(found.likely.compliance)
    wanted = _wanted(brief)
    worst = np.array([band.likely for band in found.worst])
    # At the weakest place the doubt is as wide, for its likely value, as that here.
    likely = worst / wanted
    reach = likely[:, None] * here[:, None] / drawn
    conflicts = tuple(one.words for one in budget(machine, brief, book, units).conflicts)
    return Standing(
        name, reach.min(axis=0), float(likely.min()), AXES[int(likely.argmin())], found.likely.mass,
        cost_of(machine, book).money, conflicts, doubt=(x, y, z),
    )  # fmt: skip


def _wanted(brief: Brief) -> FloatArray:
    """Return the stiffness that is wanted along x, y, z, N/m; a brief that only carries wants all axes alike."""
    wanted = np.array(targets(brief).stiffness)
    if not (wanted > 0.0).any():
        return np.full(3, NO_STIFFNESS)
    return np.where(wanted > 0.0, wanted, 1e-6 * wanted.max())


def paired(a: Standing, b: Standing) -> Pair:
    """Return how one stands against another where both have the same luck."""
    ratio = a.reach / b.reach
    low, high = np.percentile(ratio, ENDS).tolist()
    return Pair(Band(low, a.likely / b.likely, high), float((ratio > 1.0).mean()))


def order(rows: tuple[Standing, ...]) -> tuple[Standing, ...]:
    """Return candidates, the one to build first: the cheapest that meets the brief, then who falls least short."""

    def rank(one: Standing) -> tuple[float, ...]:
        if one.meets:
            return (0.0, one.money, -one.likely)
        return (1.0 if one.likely >= 1.0 else 2.0, -min(one.likely, 1.0), len(one.conflicts), one.money)

    return tuple(sorted(rows, key=rank))


def verdict(rows: tuple[Standing, ...], book: PriceBook, units: Units = "mm") -> Verdict:
    """Return which candidate to build for a brief, with reasons."""
    if len(rows) < 2:
        return Verdict("", "", ("Two candidates at the least are needed for a verdict.",))
    ranked = order(rows)
    best, second = ranked[0], ranked[1]
    said = [_best(best, sum(one.meets for one in rows), book), _second(best, second, book, units)]
    said += _turns(best, ranked, book, units)
    short = [one for one in ranked[1:] if one.likely < 1.0]
    if best.meets and short:
        said.append("; ".join(f"{one.name} reaches {_times(one.likely)} along {one.axis}" for one in short) + ".")
    return Verdict(best.name, second.name, tuple(said))


def _times(share: float) -> str:
    if share > ANY:
        return "any target (the brief asks for no stiffness)"
    return f"{number_text(share)} of the target" if share < 1.0 else f"{number_text(share)} times the target"


def _best(best: Standing, meeting: int, book: PriceBook) -> str:
    band = best.band
    ends = f"({number_text(band.low)} to {number_text(band.high)})"
    reached = _times(best.likely)
    if best.likely <= ANY:
        reached += f" at its weakest place along {best.axis} {ends}"
    if best.meets:
        which = "the cheapest of those that meet it" if meeting > 1 else "the only one that meets it"
        price = f"{money_text(best.money, book)}{_fails(best)}"
        return f"For this brief: {best.name}, {which}; it reaches {reached} for {price}."
    if best.likely >= 1.0:
        return (f"None meets the brief in all. Nearest is {best.name}: stiff enough, {reached}, but "
                f"{best.conflicts[0]}.")  # fmt: skip
    also = f", and {best.conflicts[0]}" if best.conflicts else ""
    return f"None is stiff enough for the brief. Nearest is {best.name}: it reaches {reached}{also}."


def _second(best: Standing, second: Standing, book: PriceBook, units: Units) -> str:
    pair = paired(second, best)
    low, high = (number_text(v) for v in (pair.ratio.low, pair.ratio.high))
    dearer, heavier = second.money - best.money, second.mass - best.mass
    price = f"{money_text(abs(dearer), book)} {'dearer' if dearer >= 0 else 'cheaper'}"
    weight = f"{mass_text(abs(heavier), units)} {'heavier' if heavier >= 0 else 'lighter'}"
    if not pair.differ:
        told = (
            f"no difference worth the name in stiffness: with the same luck for both {low} to {high} times as stiff, "
        )
        told += f"the stiffer in {pair.chance:.0%} of all draws"
    else:
        told = f"with the same luck for both {low} to {high} times as stiff, likely {number_text(pair.ratio.likely)}"
    lacks = f"; {second.conflicts[0]}" if second.conflicts else ""
    return f"Runner-up: {second.name}: {told}; {price}, {weight}{lacks}{_fails(second)}."


def _fails(one: Standing) -> str:
    if not one.fails:
        return ""
    return f"; {one.fails} of its checks before buying fail{'s' if one.fails == 1 else ''}"


def _turns(best: Standing, rows: tuple[Standing, ...], book: PriceBook, units: Units) -> list[str]:
    """Return what would turn the order."""
    said = []
    able = [one for one in rows if one.meets or (not best.meets and not one.conflicts)]
    stiffest = max(able or rows, key=lambda one: one.likely)
    if stiffest is not best and paired(stiffest, best).differ:
        more = stiffest.money - best.money
        price = f"for {money_text(more, book)} more" if more > 0 else f"{money_text(-more, book)} cheaper as it is"
        said.append(f"were stiffness what counts, {stiffest.name} would lead ({_times(stiffest.likely)}, {price})")
    lightest = min(able or rows, key=lambda one: one.mass)
    if lightest is not best and lightest.mass < 0.9 * best.mass:
        less = mass_text(best.mass - lightest.mass, units)
        said.append(f"were weight what counts, {lightest.name} would ({less} lighter)")
    if best.meets and (low := best.band.low) < 1.0:
        chance = float((best.reach < 1.0).mean())
        said.append(f"{best.name} itself may miss the target ({number_text(low)} at the low end, "
                    f"{chance:.0%} of all draws)")  # fmt: skip
    text = "; ".join(said)
    return [f"What would turn it: {text}."] if text else []
