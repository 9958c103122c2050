"""What is worth doing first: alternatives for every link that gives, over the whole machine, in one list."""

from dataclasses import replace

import numpy as np

from unterbau.catalogue.prices import PriceBook
from unterbau.machine.alternatives import alternatives
from unterbau.machine.machine import Machine, links
from unterbau.progress import Progress, Silent
from unterbau.structure.parts import Place
from unterbau.studies.advise import Trial, Trials
from unterbau.studies.answers import likely_answers

GIVES = 0.03
"""Share of the give along the pull below which a link is left alone."""
GAINS = 0.01
"""Of the stiffness along the pull, at the least, for a row of the list."""


def softest_links(machine: Machine, place: Place, axis: int) -> tuple[str, ...]:
    """Return the links that give most along an axis, softest first."""
    likely, _ = likely_answers(machine, place)
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
    is left out. Rows are not summed: two cures together gain less or more than both.

    Raises:
        InputError: The machine itself cannot be built.
        Cancelled: The progress asked to stop.
    """
    report = progress or Silent()
    labels = {one.key: one.label for one in links(machine)}
    keys = softest_links(machine, place, axis)
    wanted = [(key, one) for key in keys for one in alternatives(machine, key)]
    bench = Trials(machine, place, book)
    found: dict[Machine, Trial] = {}
    for number, (key, one) in enumerate(wanted):
        report.step(number, len(wanted), one.text)
        trial = bench.tried(replace(one, text=f"{labels[key]}: {one.text}"))
        if trial is not None and trial.gain[axis] >= GAINS and trial.machine not in found:
            found[trial.machine] = trial
            report.found(tuple(found.values()))
    return tuple(found.values())
