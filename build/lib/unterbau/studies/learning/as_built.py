"""The machine as its tests say it is: a candidate like any other, with what was measured instead of likely values."""

from dataclasses import replace
from math import exp, log

from unterbau.machine.changes.change import Change, Measured
from unterbau.machine.changes.linked import free_id
from unterbau.machine.machine import Machine
from unterbau.studies.learning.learn import Learned
from unterbau.studies.uncertain import NINETY

TOLD = 0.9
"""A link whose band is narrower than so much of what it was, or that moved by more than a tenth, was told something."""
MOVED = 0.1
LEAST, WIDEST = 1e-3, 50.0


def as_built(machine: Machine, found: Learned) -> Machine:
    """Return the machine with what tests taught of its joints, guides, drives and feet; what they say nothing of stays.

    Each stands for itself, with the doubt that gives the tool its bands (`Learned.alone`).
    """
    changes: tuple[Change, ...] = tuple(one for one in machine.changes if not isinstance(one, Measured))
    doubts = dict(found.alone)
    for one in found.unknowns:
        after, before = one.posterior, one.prior
        spread = exp(NINETY * doubts[one.key])
        narrower = log(spread) < TOLD * log((before.high / before.low) ** 0.5)
        if narrower or abs(log(after.likely)) > MOVED:
            factor = min(max(after.likely, LEAST), 1 / LEAST)
            name = free_id(changes, "measured")
            changes = (*changes, Measured(name, one.key, _rounded(factor), _rounded(min(spread, WIDEST))))
    built: Machine = replace(machine, changes=changes)
    return built


def _rounded(value: float) -> float:
    return float(f"{value:.4g}")
