"""Candidates side by side: their figures, and where the flex went from one to another."""

from dataclasses import dataclass

from unterbau.band import Band
from unterbau.catalogue.prices import PriceBook
from unterbau.machine.machine import Machine, cost_of, links
from unterbau.parts_list.bill import Cost
from unterbau.studies.answers import Answers, LikelyAnswers
from unterbau.studies.purchase.check import Check
from unterbau.studies.shares import REST


@dataclass(frozen=True, slots=True)
class Figures:
    """One row of the comparison."""

    name: str
    answers: Answers
    cost: Cost
    checked: tuple[Check, ...] | None = None
    """Before buying; None while that is being done."""

    @property
    def frequency(self) -> Band | None:
        """Lowest natural frequency that moves the tool, Hz."""
        return self.answers.headline.frequency if self.answers.headline else None


def figures(
    name: str, machine: Machine, answers: Answers, book: PriceBook, checked: tuple[Check, ...] | None = None
) -> Figures:
    """Return a candidate's row."""
    return Figures(name, answers, cost_of(machine, book), checked)


@dataclass(frozen=True, slots=True)
class Flow:
    """One link's give before and after, m/N, likely."""

    key: str
    label: str
    before: float
    after: float

    @property
    def change(self) -> float:
        """More give than before, m/N; the changes sum to that of the whole path."""
        return self.after - self.before


def flow(before: tuple[Machine, LikelyAnswers], after: tuple[Machine, LikelyAnswers], axis: int) -> tuple[Flow, ...]:
    """Return where the flex went, link by link from tool to work, the rest last.

    Links that only one of two machines has count nothing in the other.

    Args:
        before: The benchmark.
        after: The candidate.
        axis: Pull along x, y, z: 0, 1, 2.
    """
    labels = {link.key: link.label for machine, _ in (before, after) for link in links(machine)}
    gives = []
    for _, likely in (before, after):
        table = likely.shares.compliance[axis].sum(axis=1).tolist()
        gives.append(dict(zip(likely.shares.keys, table, strict=True)))
    first, second = gives
    keys = [key for key in dict.fromkeys([*first, *second]) if key != REST]
    return tuple(Flow(key, labels.get(key, "rest"), first.get(key, 0.0), second.get(key, 0.0)) for key in (*keys, REST))
