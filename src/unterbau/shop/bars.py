"""Bars of a machine to be sawn: one plan for each section and material."""

from dataclasses import dataclass

from unterbau.errors import InputError
from unterbau.progress import Progress, Silent
from unterbau.sections.solved import section_name
from unterbau.shop.cut_plan import CutPlan, SawnBar, Stock, Wanted, cut_plan
from unterbau.shop.pieces import ShopPiece

USUAL = 6.0
"""Length of bars on offer where none is told, m; common practice, no source."""


@dataclass(frozen=True, slots=True)
class BarPlan:
    """The bars of one section and material."""

    section: str
    stock: str
    """The section in words."""
    material: str
    pieces: tuple[ShopPiece, ...]
    plan: CutPlan | None
    problem: str = ""
    """Why there is no plan."""

    def piece(self, label: str) -> ShopPiece:
        """Return a piece by its letter."""
        return next(one for one in self.pieces if one.label == label)


def bar_plans(
    pieces: tuple[ShopPiece, ...], stocks: dict[tuple[str, str], tuple[Stock, ...]], kerf: float, trim: float,
    progress: Progress | None = None,
) -> tuple[BarPlan, ...]:  # fmt: skip
    """Return a plan for each section and material; without bars told for one, bars of 6 m.

    Raises:
        Cancelled: The progress asked to stop.
    """
    report = progress or Silent()
    groups: dict[tuple[str, str], list[ShopPiece]] = {}
    for one in pieces:
        if one.sort == "bar":
            groups.setdefault((section_name(one.section), one.material), []).append(one)
    found = []
    for number, ((section, material), rows) in enumerate(groups.items()):
        report.step(number, len(groups), section)
        wanted = tuple(Wanted(one.label, one.length, one.count) for one in rows)
        offers = stocks.get((section, material)) or (Stock(USUAL),)
        plan, problem = None, ""
        try:
            plan = cut_plan(wanted, offers, kerf, trim)
        except InputError as error:
            problem = f"{error.where}: {error.problem}"
        found.append(BarPlan(section, rows[0].stock, material, tuple(rows), plan, problem))
    return tuple(found)


def sawn_alike(plan: BarPlan) -> list[tuple[SawnBar, int]]:
    """Return the bars of a plan that are sawn alike, once each, and how many."""
    counts: dict[tuple[float, tuple[str, ...]], tuple[SawnBar, int]] = {}
    for bar in plan.plan.bars if plan.plan is not None else ():
        key = (bar.stock.length, bar.pieces)
        counts[key] = (bar, counts[key][1] + 1 if key in counts else 1)
    return list(counts.values())
