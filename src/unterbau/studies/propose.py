"""From a brief alone: kinds that can do it, in its size, made stiff enough; unlike proposals with their reasons."""

from collections.abc import Callable, Iterator
from contextlib import suppress
from dataclasses import dataclass, replace
from functools import partial
from time import monotonic

from unterbau.brief.brief import Brief
from unterbau.brief.targets import targets
from unterbau.catalogue.prices import PriceBook
from unterbau.errors import InputError
from unterbau.machine.alternatives import alternatives
from unterbau.machine.kind import Kind
from unterbau.machine.machine import (
    KINDS,
    Machine,
    brought_together,
    cost_of,
    fitting,
    lay_out,
    links,
    listed_mass,
    part_at,
    with_part,
)
from unterbau.machine.stepping import step
from unterbau.progress import Progress, Silent
from unterbau.shop.hours import Pace, hours_of
from unterbau.shop.making import usual_how
from unterbau.shop.pieces import pieces_of
from unterbau.shop.printed import Printing
from unterbau.structure.parts import Joint, Member, Part, Place, Plate
from unterbau.studies.advise import Trial, Trials
from unterbau.studies.answers import Answers, answers
from unterbau.studies.budget import THICK, budget, shop_limits
from unterbau.studies.cures import GAINS, softest_links
from unterbau.studies.fitted import WISHED, fitted

UNLIKE = 3
LATHE = "lathe"
ROUNDS = 12
"""Changes that are made to a kind, at the most."""
SOFTEST = 4
"""Links that something is done to, those that give most."""
MENDED = 8
"""Parts that are changed for the shop's sake, at the most."""
JOINED = ("epoxied", "bolted-plate", "gusset", "bracket")
"""Joints in place of those that a shop cannot make, the stiffest first."""
IMPROVED = 5
"""Kinds that are made stiffer, the most promising as they start."""
ENOUGH = 1.02
"""Of the target, likely: a little more than asked, then it is done."""


@dataclass(frozen=True, slots=True)
class Proposal:
    """A machine for a brief."""

    machine: Machine
    kind: Kind
    answers: Answers
    target: tuple[float, float, float]
    """N/m."""
    reaches: float
    """The weakest place's likely stiffness against the target, along its worst axis."""
    mass: float
    money: float
    hours: float
    """At the bench and all the rest."""
    changes: tuple[str, ...]
    """What was changed from how the kind starts, in words."""
    conflicts: tuple[str, ...]
    """What of the brief it does not meet, in words."""
    asks: tuple[str, ...]
    """Of the shop: pieces that are made outside."""
    reasons: tuple[str, ...]

    @property
    def meets(self) -> bool:
        """Whether it meets the brief, likely."""
        return self.reaches >= 1.0 and not self.conflicts


@dataclass(frozen=True, slots=True)
class Proposed:
    """What is proposed."""

    proposals: tuple[Proposal, ...]
    tried: tuple[str, ...]
    """Kinds that were tried."""
    instead: tuple[str, ...]
    """Where nothing meets the brief: which wish costs most, and the least that would do."""

    @property
    def met(self) -> bool:
        """Whether something meets the brief."""
        return any(one.meets for one in self.proposals)


def suitable(brief: Brief) -> tuple[Kind, ...]:
    """Return the kinds that do what a brief asks: turning on a lathe, all else on the others."""
    turning = brief.process == "cutting" and any(name.startswith("turn") for name in brief.cuts)
    return tuple(kind for kind in KINDS if (kind.id == LATHE) == turning)


def propose(
    brief: Brief, book: PriceBook, seconds: float = 45.0, progress: Progress | None = None, among: tuple[str, ...] = ()
) -> Proposed:
    """Return up to three unlike proposals for a brief, those that meet it first, then the cheapest.

    Each kind starts in the brief's size; then what gains most along its worst axis for its money is done to it, again
    and again, until the weakest place of its travel reaches the target, or the time is over.

    Args:
        brief: What is wanted.
        book: Prices.
        seconds: To look for them; each kind is put up once at the least.
        progress: Told of each kind.
        among: Kinds to look among; all that do the work where there are none.

    Raises:
        InputError: None of the kinds does the work.
        Cancelled: The progress asked to stop.
    """
    report, start = progress or Silent(), monotonic()
    kinds = tuple(kind for kind in suitable(brief) if not among or kind.id in among)
    if not kinds:
        raise InputError(
            "kind", f"none of {', '.join(among)} does this; there are {', '.join(k.id for k in suitable(brief))}"
        )
    wanted = targets(brief).stiffness
    begun = _begun(kinds, brief, book, wanted, report)
    found: list[Proposal] = list(begun)
    for number, one in enumerate(begun[:IMPROVED]):
        report.step(len(kinds) + number, len(kinds) + IMPROVED, one.kind.label)
        left = seconds - (monotonic() - start)
        if left <= 0.0:
            break
        until = monotonic() + left / (min(len(begun), IMPROVED) - number)
        found.remove(one)
        found.append(
            _made(one, brief, book, wanted, until, partial(report.step, len(kinds) + number, len(kinds) + IMPROVED))
        )
        report.found(tuple(_best(found)))
    best = _best(found)
    return Proposed(tuple(best), tuple(one.kind.label for one in begun), _instead(brief, best, book))


def _begun(
    kinds: tuple[Kind, ...], brief: Brief, book: PriceBook, wanted: tuple[float, float, float], report: Progress
) -> list[Proposal]:
    """Return each kind as it starts in the brief's size, the most promising first."""
    found = []
    for number, kind in enumerate(kinds):
        report.step(number, len(kinds) + IMPROVED, kind.label)
        machine, changes = _within_shop(fitted(kind, brief, book).machine, brief)
        try:
            found.append(_proposal(kind, machine, brief, book, wanted, answers(machine, Place()), changes))
        except InputError:
            continue
    return sorted(found, key=lambda one: (len(one.conflicts), -min(one.reaches, 1.0), one.money))


def _within_shop(machine: Machine, brief: Brief) -> tuple[Machine, tuple[str, ...]]:
    """Return a machine with parts in place of those that this shop cannot make or lift."""
    changes: list[str] = []
    labels = {one.key: one.label for one in links(machine)}
    for _ in range(MENDED):
        limits = shop_limits(machine, brief)
        for key in limits:
            options = _touching(with_part(machine, key, one) for one in _mended(machine, key))
            better = next((one for one in options if _limits(one, brief) < len(limits)), None)
            if better is not None:
                machine = better
                changes.append(f"{labels.get(key, key)}: as this shop can make and lift it")
                break
        else:
            break
    return machine, tuple(dict.fromkeys(changes))


def _touching(options: Iterator[Machine]) -> Iterator[Machine]:
    """Yield machines with rails and blocks brought onto what they are fastened to, those left out that cannot be."""
    for one in options:
        with suppress(InputError):
            yield brought_together(one, frozenset(WISHED))


def _mended(machine: Machine, key: str) -> Iterator[Part]:
    """Yield what could stand in place of a part that a shop cannot make or lift, the stiffest first."""
    now = part_at(machine, key)
    if isinstance(now, Plate):
        yield replace(now, thickness=min(now.thickness, THICK))
    elif isinstance(now, Joint):
        kinds = fitting(machine, key)
        yield from (replace(now, kind=kind) for kind in JOINED if kind in kinds)
    while isinstance(now, Member | Plate):
        smaller = step(now, False)
        if smaller is None:
            break
        now = smaller
        yield now


def _limits(machine: Machine, brief: Brief) -> int:
    """Return how many parts of a machine this shop cannot make or lift; many where it cannot be built."""
    try:
        return len(shop_limits(machine, brief))
    except InputError:
        return 10**6


def _best(found: list[Proposal]) -> list[Proposal]:
    return sorted(found, key=lambda one: (not one.meets, len(one.conflicts), one.reaches < 1.0,
                                          one.money if one.reaches >= 1.0 else -one.reaches))[:UNLIKE]  # fmt: skip


def _made(
    one: Proposal, brief: Brief, book: PriceBook, wanted: tuple[float, float, float], until: float,
    alive: Callable[[str], None],
) -> Proposal:  # fmt: skip
    """Return a proposal made stiff enough, as far as the time goes."""
    changes = list(one.changes)
    machine, now = one.machine, one.answers
    for _ in range(ROUNDS):
        axis, reaches = _worst(now, wanted)
        if reaches >= ENOUGH or monotonic() > until:
            break
        place = now.worst_places[axis]
        money = cost_of(machine, book).money
        trials = _trials(machine, place, axis, brief, book, until, alive)
        if not trials:
            break
        need = wanted[axis] / now.worst[axis].likely - 1.0
        best = max(trials, key=partial(_worth, axis=axis, need=need, money=money))
        after = answers(best.machine, Place())
        if _worst(after, wanted)[1] <= reaches * 1.001:
            break
        changes.append(best.alternative.text)
        machine, now = best.machine, after
    return _proposal(one.kind, machine, brief, book, wanted, now, tuple(changes))


def _trials(
    machine: Machine, place: Place, axis: int, brief: Brief, book: PriceBook, until: float,
    alive: Callable[[str], None],
) -> list[Trial]:  # fmt: skip
    """Return what makes a machine stiffer along an axis and breaks no wish, as far as the time goes.

    Raises:
        Cancelled: The progress asked to stop.
    """
    bench = Trials(machine, place, book)
    found: list[Trial] = []
    labels = {one.key: one.label for one in links(machine)}
    for key in softest_links(machine, place, axis)[:SOFTEST]:
        for one in alternatives(machine, key):
            if found and monotonic() > until:
                return found
            alive(one.text)
            trial = bench.tried(replace(one, text=f"{labels[key]}: {one.text}"))
            gains = trial is not None and trial.gain[axis] >= GAINS
            if trial is not None and gains and not _more_conflicts(trial.machine, machine, brief, book):
                found.append(trial)
    return found


def _worth(one: Trial, axis: int, need: float, money: float) -> float:
    """Return what a change gains of what is needed, for its money; cheap ones are not free of work."""
    return min(one.gain[axis], need * 1.2) / (20.0 + max(one.money, 0.0) + 0.02 * money)


def _worst(found: Answers, wanted: tuple[float, float, float]) -> tuple[int, float]:
    shares = [
        band.likely / target if target else float("inf") for band, target in zip(found.worst, wanted, strict=True)
    ]
    axis = min(range(3), key=lambda n: shares[n])
    return axis, shares[axis]


def _more_conflicts(after: Machine, before: Machine, brief: Brief, book: PriceBook) -> bool:
    dear = bool(brief.money) and cost_of(after, book).money > max(brief.money, cost_of(before, book).money)
    return dear or len(shop_limits(after, brief)) > len(shop_limits(before, brief))


def _proposal(
    kind: Kind, machine: Machine, brief: Brief, book: PriceBook, wanted: tuple[float, float, float], found: Answers,
    changes: tuple[str, ...],
) -> Proposal:  # fmt: skip
    axis, reaches = _worst(found, wanted)
    structure = lay_out(machine)
    pieces = pieces_of(structure)
    hows = {one.label: usual_how(one, brief.tools) for one in pieces}
    hours = hours_of(structure, pieces, hows, len(pieces), frozenset(), Pace(), Printing())
    outside = tuple(f"{one.count} × {one.stock}" for one in pieces if hows[one.label] == "have made")
    labels = {one.key: one.label for one in links(machine)}
    shares = found.likely.shares
    whole = shares.compliance[axis].sum(axis=1)
    softest = shares.keys[int(whole.argmax())]
    worst = found.worst[axis]
    band = f"{worst.likely / 1e6:.2f} N/µm ({worst.low / 1e6:.2f} to {worst.high / 1e6:.2f})"
    reasons = (
        f"{kind.label}: {kind.good}", f"weakest along {'XYZ'[axis]}: {band}, {reaches:.0%} of the target",
        f"what gives most there: {labels.get(softest, softest)}, {float(whole.max() / whole.sum()):.0%}",
    )  # fmt: skip
    conflicts = tuple(one.words for one in budget(machine, brief, book).conflicts)
    return Proposal(
        machine, kind, found, wanted, reaches, listed_mass(machine), cost_of(machine, book).money,
        hours.metalwork + hours.other, changes, conflicts, outside, reasons,
    )  # fmt: skip


def _instead(brief: Brief, best: list[Proposal], book: PriceBook) -> tuple[str, ...]:
    """Return what it would take where nothing meets the brief."""
    if not best or any(one.meets for one in best):
        return ()
    words = []
    nearest = best[0]
    if nearest.reaches < 1.0 and brief.process == "cutting":
        least = brief.accuracy / nearest.reaches
        words.append(
            f"the accuracy of {brief.accuracy * 1e3:g} mm costs most: {nearest.kind.label} reaches "
            f"{nearest.reaches:.0%} of the stiffness for it; {least * 1e3:.2g} mm would do, or lighter cuts"
        )
    if brief.money:
        cheapest = min(best, key=lambda one: one.money)
        if cheapest.money > brief.money:
            words.append(f"the money: {cheapest.money:.0f} {book.currency} for {cheapest.kind.label} at the least")
    words += [f"{nearest.kind.label}: {one}" for one in nearest.conflicts]
    if not words:
        words.append(f"more time to look: {nearest.kind.label} reaches {nearest.reaches:.0%} so far")
    return tuple(words)
