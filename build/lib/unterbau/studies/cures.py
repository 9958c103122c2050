"""What is worth doing first: alternatives for every link that gives, over the whole machine, in one list."""

from collections.abc import Iterator
from dataclasses import replace

import numpy as np

from unterbau.catalogue.prices import PriceBook
from unterbau.machine.alternatives import Alternative, alternatives
from unterbau.machine.differs import part_text
from unterbau.machine.machine import Machine, links, part
from unterbau.machine.stepping import step
from unterbau.mechanics.frame import CAUSES
from unterbau.progress import Progress, Silent
from unterbau.structure.parts import Drive, Guide, Member, Place, Plate
from unterbau.studies.advise import Trial, Trials, is_spare, try_instead
from unterbau.studies.answers import LikelyAnswers, likely_answers

GIVES = 0.03
"""Share of the give along the pull below which a link is left alone."""
GAINS = 0.01
"""Of the stiffness along the pull, at the least, for a row of the list."""


def softest_links(machine: Machine, place: Place, axis: int) -> tuple[str, ...]:
    """Return the links that give most along an axis, softest first."""
    return _softest(machine, likely_answers(machine, place)[0], axis)


def _softest(machine: Machine, likely: LikelyAnswers, axis: int) -> tuple[str, ...]:
    give = likely.shares.compliance[axis].sum(axis=1)
    known = {one.key for one in links(machine)}
    order = np.argsort(-give)
    return tuple(
        likely.shares.keys[n] for n in order
        if give[n] >= GIVES * float(give.sum()) and likely.shares.keys[n] in known
    )  # fmt: skip


def cures(
    machine: Machine, place: Place, axis: int, book: PriceBook, progress: Progress | None = None
) -> tuple[Trial, ...]:
    """Return what makes a machine stiffer along an axis, whichever part it is done to; each row names its part.

    Every alternative of every link that gives at least 3 % is put up and solved at one place; what gains less than 1 %
    is left out. Last come parts whose next size down is hardly missed along any axis and saves money: wasted as it is.
    Rows are not summed: two cures together gain less or more than both.

    Raises:
        InputError: The machine itself cannot be built.
        Cancelled: The progress asked to stop.
    """
    report = progress or Silent()
    labels = {one.key: one.label for one in links(machine)}
    likely, _ = likely_answers(machine, place)
    reasons = _reasons(machine, likely, axis)
    wanted = [(key, one) for key in _softest(machine, likely, axis) for one in alternatives(machine, key)]
    smaller = list(_smaller(machine))
    bench = Trials(machine, place, book)
    found: dict[Machine, Trial] = {}
    for number, (key, one) in enumerate(wanted):
        report.step(number, len(wanted) + len(smaller), one.text)
        trial = bench.tried(replace(one, text=f"{labels[key]}: {one.text}"))
        if trial is not None and trial.gain[axis] >= GAINS and trial.machine not in found:
            found[trial.machine] = replace(trial, reason=reasons.get(key, ""))
            report.found(tuple(found.values()))
    for number, (key, one) in enumerate(smaller, len(wanted)):
        report.step(number, len(wanted) + len(smaller), one.text)
        trial = bench.tried(replace(one, text=f"{labels[key]}: {one.text}"))
        if trial is not None and is_spare(trial) and trial.machine not in found:
            told = f"one size less is hardly missed; {reasons.get(key, 'it hardly gives')}"
            found[trial.machine] = replace(trial, reason=told)
            report.found(tuple(found.values()))
    return tuple(found.values())


Asked = tuple[Machine, str | int, Place, PriceBook]
"""A machine, and a link of it, or an axis along which the whole machine is to be stiffer; head and prices."""


def advised(asked: Asked, progress: Progress) -> tuple[Trial, ...]:
    """Return alternatives for one link, or cures for the whole machine.

    Raises:
        InputError: The machine cannot be built or solved.
        Cancelled: The progress asked to stop.
    """
    machine, wanted, place, book = asked
    if isinstance(wanted, int):
        return cures(machine, place, wanted, book, progress)
    return try_instead(machine, wanted, place, book, progress)


def _smaller(machine: Machine) -> Iterator[tuple[str, Alternative]]:
    """Yield each bought or sawn part one size smaller."""
    for one in links(machine):
        now = part(machine, one.key)
        if isinstance(now, Member | Plate | Guide | Drive):
            less = step(now, up=False)
            if less is not None:
                yield one.key, Alternative(f"{part_text(less)} will do", ((one.key, less),))


def _reasons(machine: Machine, likely: LikelyAnswers, axis: int) -> dict[str, str]:
    """Return for each link how much of the give along an axis it owns, and by what."""
    table = likely.shares.compliance[axis]
    whole, labels = float(table.sum()), {one.key: one.label for one in links(machine)}
    found = {}
    for key, row in zip(likely.shares.keys, table, strict=True):
        if key in labels and whole > 0.0:
            cause = CAUSES[int(np.argmax(row))]
            mostly = "" if cause == "joint" else f", mostly {cause}"
            found[key] = f"{labels[key]} owns {float(row.sum()) / whole:.0%} of the give along {'XYZ'[axis]}{mostly}"
    return found
