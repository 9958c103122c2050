"""Which pieces are sawn from which bars: the cheapest set, proven, with the fewest set-ups."""

from collections import Counter
from dataclasses import dataclass
from math import ceil, inf

import numpy as np
import scipy

from unterbau.errors import InputError
from unterbau.mechanics.arrays import FloatArray, IntArray
from unterbau.progress import Progress, Silent
from unterbau.shop.patterns import Cutting, Pattern, every_pattern, full_bars, grown_patterns

SECONDS = 8.0
"""That the integer programme may take; what is proven by then is told."""
OUT_OF_TIME = 1  # as `milp` tells it
SETUP_SECONDS = 1.5
MOST_PATTERNS = 4000
"""Up to so many are all made, else only those that could help (column generation)."""
MOST_PIECES = 5000
NEAR = 1e-6


@dataclass(frozen=True, slots=True)
class Wanted:
    """A piece that is wanted so many times."""

    name: str
    length: float
    """Along its longer side where it is mitred, m."""
    count: int


@dataclass(frozen=True, slots=True)
class Stock:
    """A bar on offer, or in the rack."""

    length: float
    """m."""
    price: float = 0.0
    """Each; own pieces cost nothing."""
    available: int | None = None
    """How many there are; nothing of what can be bought without an end."""


@dataclass(frozen=True, slots=True)
class SawnBar:
    """One bar with what is sawn from it, in order."""

    stock: Stock
    pieces: tuple[str, ...]
    left: float
    """In one piece, m."""


@dataclass(frozen=True, slots=True)
class CutPlan:
    """All bars, and how good that is proven to be."""

    bars: tuple[SawnBar, ...]
    cost: float
    least: float
    """No plan costs less; of plans without prices the number of bars."""
    least_bars: int
    """No plan has fewer bars."""
    setups: int
    """Different bars: pieces of one are cut together."""
    waste: float
    """Share of the material that is neither a piece nor left in the rack: saw cuts, ends, left-overs too."""
    kerf: float
    trim: float

    @property
    def proven(self) -> bool:
        """Whether no plan is cheaper."""
        return self.cost <= self.least + NEAR * max(1.0, self.cost)


def cut_plan(
    wanted: tuple[Wanted, ...], stocks: tuple[Stock, ...], kerf: float = 0.0, trim: float = 0.0,
    progress: Progress | None = None,
) -> CutPlan:  # fmt: skip
    """Return the cheapest plan for bars of one section; without prices that of the fewest bars.

    n pieces of l fit in L when n·l + (n − 1)·kerf + 2·trim ≤ L.

    Raises:
        InputError: A piece is longer than every bar, or the bars there are do not suffice; named.
        Cancelled: The progress asked to stop.

    Source:
        Integer programme over cutting patterns (Gilmore and Gomory 1961, from memory), all of them or those that column
        generation finds; its bound is the proof.
    """
    report = progress or Silent()
    _check(wanted, stocks, kerf, trim)
    wanted = tuple(one for one in wanted if one.count > 0)
    if not wanted:
        return CutPlan((), 0.0, 0.0, 0, 0, 0.0, kerf, trim)
    priced = any(one.price for one in stocks)
    costs = [one.price if priced else (0.0 if one.available is not None else 1.0) for one in stocks]
    if not priced and all(one.available is not None for one in stocks):
        costs = [1.0] * len(stocks)
    cutting = Cutting.of([one.length for one in wanted], [one.count for one in wanted],
                         [one.length for one in stocks], kerf, trim)  # fmt: skip
    report.step(0, 3, "patterns")
    found = every_pattern(cutting, MOST_PATTERNS)
    bound, greedy = 0.0, list[Pattern]()
    if found is None:
        found, bound = grown_patterns(cutting, np.array(costs), [one.available for one in stocks])
        if not priced:
            bound = ceil(bound - NEAR)
        greedy = full_bars(cutting, np.array(costs), [one.available for one in stocks])
        found = list(dict.fromkeys([*found, *greedy]))
    report.step(1, 3, "bars")
    counts, cost, least = _cheapest(cutting, found, costs, stocks)
    if greedy and (alone := sum(costs[one.stock] for one in greedy)) < cost - NEAR:
        counts, cost = np.array([greedy.count(one) for one in found]), float(alone)
    report.step(2, 3, "set-ups")
    counts = _fewest_setups(cutting, found, costs, stocks, cost, counts)
    whole = len(found) <= MOST_PATTERNS and bound == 0.0
    least = least if whole else bound
    if not priced:
        least = ceil(least - NEAR)
    bars = _laid(cutting, found, counts, wanted, stocks)
    used = sum(bar.stock.length for bar in bars)
    made = sum(one.length * one.count for one in wanted)
    real = float(sum(costs[stocks.index(bar.stock)] for bar in bars))
    by_length = sum((one.length + kerf) * one.count for one in wanted) / (
        max(one.length for one in stocks) - 2 * trim + kerf
    )
    fewest = min(len(bars), int(least) if not priced and all(costs) else ceil(by_length - NEAR))
    return CutPlan(bars, real, float(min(least, real)), fewest, _setups(bars), 1 - made / used, kerf, trim)


def _check(wanted: tuple[Wanted, ...], stocks: tuple[Stock, ...], kerf: float, trim: float) -> None:
    if not stocks:
        raise InputError("stock", "expected at least one bar to saw from")
    if not 0.0 <= kerf <= 0.05 or not 0.0 <= trim <= 1.0:
        raise InputError("kerf", "expected a saw cut of 0 to 50 mm and ends of 0 to 1 m")
    for stock in stocks:
        if not 0.0 < stock.length <= 100.0 or not 0.0 <= stock.price < inf:
            raise InputError("stock", f"expected a bar of up to 100 m and a price, got {stock.length:g} m")
    if sum(max(0, one.count) for one in wanted) > MOST_PIECES:
        raise InputError("pieces", f"expected at most {MOST_PIECES} pieces at once")
    longest = max(stock.length for stock in stocks) - 2 * trim
    for one in wanted:
        if one.length <= 0.0 or one.count < 0:
            raise InputError(one.name, f"expected a length and a count, got {one.length * 1e3:g} mm, {one.count}")
        if one.length > longest + 1e-9:
            raise InputError(
                one.name,
                f"{one.length * 1e3:g} mm is longer than every bar: {longest * 1e3:g} mm of the longest are usable",
            )


def _matrix(cutting: Cutting, found: list[Pattern]) -> tuple[FloatArray, IntArray]:
    made = np.zeros((len(cutting.lengths), len(found)))
    kind = np.zeros(len(found), dtype=int)
    for column, pattern in enumerate(found):
        kind[column] = pattern.stock
        for item, count in pattern.items:
            made[item, column] = count
    return made, kind


def _limit(rows: FloatArray, low: FloatArray | float, high: FloatArray | float) -> "scipy.optimize.LinearConstraint":
    """Return a constraint; SciPy loads its optimizers when they are asked for first, not with the window."""
    return scipy.optimize.LinearConstraint(rows, low, high)


def _limits(stocks: tuple[Stock, ...], kind: IntArray, columns: int) -> list["scipy.optimize.LinearConstraint"]:
    rows = []
    for number, stock in enumerate(stocks):
        if stock.available is not None:
            row = np.zeros(columns)
            row[: len(kind)] = kind == number
            rows.append(_limit(row[None], -np.inf, stock.available))
    return rows


def _cheapest(
    cutting: Cutting, found: list[Pattern], costs: list[float], stocks: tuple[Stock, ...]
) -> tuple[IntArray, float, float]:
    made, kind = _matrix(cutting, found)
    c = np.array([costs[k] for k in kind]) + 1e-7  # of two that cost alike, the one with fewer bars
    limits = [
        _limit(made, np.array(cutting.counts), np.inf),
        *_limits(stocks, kind, len(found)),
    ]
    bounds = scipy.optimize.Bounds(0, np.inf)
    done = scipy.optimize.milp(c, constraints=limits, integrality=np.ones(len(found)), bounds=bounds,
                               options={"time_limit": SECONDS})  # fmt: skip
    if done.x is None and done.status == OUT_OF_TIME:
        raise InputError("pieces", f"no plan was found in {SECONDS:g} s; expected fewer different lengths at once")
    if done.x is None:
        raise InputError("stock", "the bars there are do not suffice for all pieces; expected more, or longer ones")
    counts = np.round(done.x).astype(int)
    cost = float(np.array([costs[k] for k in kind]) @ counts)
    bound = done.mip_dual_bound
    return counts, cost, float(bound if bound is not None else 0.0) - 1e-6 * counts.sum() * 0.1


def _fewest_setups(
    cutting: Cutting, found: list[Pattern], costs: list[float], stocks: tuple[Stock, ...], cost: float, now: IntArray
) -> IntArray:
    """Return a plan of the same cost with as few different bars as can be found in a short time."""
    n = len(found)
    if n > MOST_PATTERNS // 4 or (now > 0).sum() <= 1:
        return now
    made, kind = _matrix(cutting, found)
    most = int(now.sum())
    c = np.concatenate([np.full(n, 1e-4), np.ones(n)])
    of_cost = np.concatenate([[costs[k] for k in kind], np.zeros(n)])
    both = np.hstack([np.eye(n), -most * np.eye(n)])
    limits = [
        _limit(np.hstack([made, np.zeros_like(made)]), np.array(cutting.counts), np.inf),
        _limit(of_cost[None], -np.inf, cost + NEAR),
        _limit(both, -np.inf, 0.0), *_limits(stocks, kind, 2 * n),
    ]  # fmt: skip
    top = np.concatenate([np.full(n, most), np.ones(n)])
    bounds = scipy.optimize.Bounds(0, top)
    done = scipy.optimize.milp(c, constraints=limits, integrality=np.ones(2 * n), bounds=bounds,
                               options={"time_limit": SETUP_SECONDS})  # fmt: skip
    if done.x is None:
        return now
    better = np.round(done.x[:n]).astype(int)
    return better if (better > 0).sum() < (now > 0).sum() else now


def _laid(
    cutting: Cutting, found: list[Pattern], counts: IntArray, wanted: tuple[Wanted, ...], stocks: tuple[Stock, ...]
) -> tuple[SawnBar, ...]:
    """Return the bars, what would be sawn too many times left away; the longest pieces first."""
    missing = [one.count for one in wanted]
    bars = []
    order = sorted(range(len(found)), key=lambda n: -sum(count for _, count in found[n].items))
    for column in order:
        for _ in range(int(counts[column])):
            stock, pieces = stocks[found[column].stock], []
            for item, count in sorted(found[column].items, key=lambda pair: -wanted[pair[0]].length):
                taken = min(count, missing[item])
                missing[item] -= taken
                pieces += [item] * taken
            if pieces:
                used = sum(wanted[n].length + cutting.kerf for n in pieces) + 2 * cutting.trim
                bars.append(SawnBar(stock, tuple(wanted[n].name for n in pieces), max(0.0, stock.length - used)))
    return tuple(sorted(bars, key=lambda bar: (bar.stock.length, bar.pieces)))


def _setups(bars: tuple[SawnBar, ...]) -> int:
    return len(Counter((bar.stock.length, bar.pieces) for bar in bars))
