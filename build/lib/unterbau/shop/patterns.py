"""Cutting patterns: what fits into one bar, all of it or what could help."""

from dataclasses import dataclass

import numpy as np
import scipy

from unterbau.mechanics.arrays import BoolArray, FloatArray, IntArray

FINE = 1e-5
"""Lengths are counted in steps of it, m: what fits is then a question of whole numbers."""
COARSE = 2e-4
"""Steps when patterns are grown; pieces rounded up, bars down, so that they fit; the other way round for a bound."""
ROUNDS = 200
GAIN = 1e-7
VARIED = 40
"""Draws of worths around the best ones."""


@dataclass(frozen=True, slots=True)
class Pattern:
    """What is sawn from a bar of one stock: pieces by number, and how many."""

    stock: int
    items: tuple[tuple[int, int], ...]


@dataclass(frozen=True, slots=True)
class Cutting:
    """Lengths with their saw cuts against capacities, in whole steps."""

    lengths: tuple[int, ...]
    counts: tuple[int, ...]
    capacities: tuple[int, ...]
    kerf: float
    trim: float

    @classmethod
    def of(cls, lengths: list[float], counts: list[int], stocks: list[float], kerf: float, trim: float) -> "Cutting":
        """Return it from metres: every piece takes one saw cut, and every bar has room for one more."""
        return cls(
            tuple(round((length + kerf) / FINE) for length in lengths), tuple(counts),
            tuple(round((stock - 2 * trim + kerf) / FINE) for stock in stocks), kerf, trim,
        )  # fmt: skip


def every_pattern(cutting: Cutting, most: int) -> list[Pattern] | None:
    """Return all patterns into which nothing more fits, for each stock; None where there are more than `most`."""
    order = sorted(range(len(cutting.lengths)), key=lambda n: -cutting.lengths[n])
    found: list[Pattern] = []
    for stock, capacity in enumerate(cutting.capacities):
        if not _fill(cutting, order, stock, capacity, found, most):
            return None
    return found


def _fill(cutting: Cutting, order: list[int], stock: int, capacity: int, found: list[Pattern], most: int) -> bool:
    """Add a stock's patterns; False where there are too many."""
    waiting: list[tuple[int, int, tuple[tuple[int, int], ...]]] = [(0, capacity, ())]
    steps = 0
    while waiting:
        place, left, items = waiting.pop()
        steps += 1
        if len(found) > most or steps > 40 * most:
            return False
        if place == len(order):
            taken = dict(items)
            rest = [n for n in order if taken.get(n, 0) < cutting.counts[n] and cutting.lengths[n] <= left]
            if items and not rest:
                found.append(Pattern(stock, items))
            continue
        item = order[place]
        fits = min(cutting.counts[item], left // cutting.lengths[item])
        for count in range(fits + 1):
            more = (*items, (item, count)) if count else items
            waiting.append((place + 1, left - count * cutting.lengths[item], more))
    return True


def grown_patterns(
    cutting: Cutting, costs: FloatArray, available: list[int | None]
) -> tuple[list[Pattern], float]:  # fmt: skip
    """Return patterns that column generation finds worth having, and the least cost that it proves.

    Source:
        Column generation with bounded knapsacks by dynamic programming; Farley's bound closes it at every round.
    """
    found = [one for stock in range(len(cutting.capacities)) for one in _first(cutting, stock)]
    bound = 0.0
    for _ in range(ROUNDS):
        made, kind = _columns(cutting, found)
        rows, limits = [-made], [-np.array(cutting.counts, dtype=float)]
        limited = [n for n, most in enumerate(available) if most is not None]
        for n in limited:
            rows.append((kind == n)[None].astype(float))
            limits.append(np.array([float(available[n] or 0)]))
        done = scipy.optimize.linprog(costs[kind], A_ub=np.vstack(rows), b_ub=np.concatenate(limits), method="highs")
        if not done.success:
            break
        duals = -done.ineqlin.marginals
        worth, of_stock = duals[: len(cutting.lengths)], np.zeros(len(cutting.capacities))
        for place, n in enumerate(limited):
            of_stock[n] = -duals[len(cutting.lengths) + place]
        new, ratio = [], 1.0
        for stock, capacity in enumerate(cutting.capacities):
            items, value = _knapsack(cutting, worth, capacity)
            price = float(costs[stock]) - of_stock[stock]
            if value > price + GAIN and items:
                new.append(Pattern(stock, items))
            if price > 0:
                ratio = max(ratio, _at_most(cutting, worth, capacity) / price)
        bound = max(bound, float(done.fun) / ratio)
        new = [one for one in new if one not in found]
        if not new:
            found += _varied(cutting, worth, found)
            break
        found += new
    return found, bound


def _varied(cutting: Cutting, worth: FloatArray, found: list[Pattern]) -> list[Pattern]:
    """Return patterns that are almost worth having: whole numbers of bars need more than the best of shares."""
    draw, more = np.random.default_rng(5), dict.fromkeys(found)
    for _ in range(VARIED):
        drawn = worth * draw.uniform(0.75, 1.25, len(worth)) + GAIN * 2
        for stock, capacity in enumerate(cutting.capacities):
            items, _ = _knapsack(cutting, drawn, capacity)
            if items:
                more.setdefault(Pattern(stock, items))
    return [one for one in more if one not in set(found)]


def full_bars(cutting: Cutting, costs: FloatArray, available: list[int | None]) -> list[Pattern]:
    """Return a whole plan bar by bar: each time the bar that is filled at the least cost for its length."""
    missing, left = list(cutting.counts), list(available)
    plan: list[Pattern] = []
    while any(missing):
        now = Cutting(cutting.lengths, tuple(missing), cutting.capacities, cutting.kerf, cutting.trim)
        worth = np.array([length if count else 0.0 for length, count in zip(cutting.lengths, missing, strict=True)])
        best: tuple[float, int, tuple[tuple[int, int], ...]] | None = None
        for stock, capacity in enumerate(cutting.capacities):
            if left[stock] == 0:
                continue
            items, value = _knapsack(now, worth, capacity)
            if items and (best is None or (float(costs[stock]) + 1e-9 * capacity) / value < best[0]):
                best = ((float(costs[stock]) + 1e-9 * capacity) / value, stock, items)
        if best is None:
            return []
        _, stock, items = best
        plan.append(Pattern(stock, items))
        held = left[stock]
        left[stock] = None if held is None else held - 1
        for item, count in items:
            missing[item] -= count
    return plan


def _first(cutting: Cutting, stock: int) -> list[Pattern]:
    """Return a pattern of each piece alone, and those that first fit decreasing makes."""
    capacity = cutting.capacities[stock]
    found = []
    for item, length in enumerate(cutting.lengths):
        fits = min(cutting.counts[item], capacity // length)
        if fits:
            found.append(Pattern(stock, ((item, fits),)))
    missing = list(cutting.counts)
    order = sorted(range(len(cutting.lengths)), key=lambda n: -cutting.lengths[n])
    while any(missing[n] and cutting.lengths[n] <= capacity for n in order):
        left, items = capacity, []
        for n in order:
            fits = min(missing[n], left // cutting.lengths[n])
            if fits:
                items.append((n, fits))
                left -= fits * cutting.lengths[n]
                missing[n] -= fits
        found.append(Pattern(stock, tuple(items)))
    return list(dict.fromkeys(found))


def _columns(cutting: Cutting, found: list[Pattern]) -> tuple[FloatArray, IntArray]:
    made = np.zeros((len(cutting.lengths), len(found)))
    for column, pattern in enumerate(found):
        for item, count in pattern.items:
            made[item, column] = count
    return made, np.array([one.stock for one in found])


def _at_most(cutting: Cutting, worth: FloatArray, capacity: int) -> float:
    """Return a worth that no pattern of a bar exceeds: pieces rounded down and the bar up, so that a bound holds."""
    scale = COARSE / FINE
    room = int(-(-capacity // scale))
    best = np.zeros(room + 1)
    for item, length in enumerate(cutting.lengths):
        size, left, batch = int(length // scale), min(cutting.counts[item], capacity // length), 1
        while left > 0 and worth[item] > 0.0:
            count = min(batch, left)
            left, batch = left - count, 2 * batch
            wide = min(count * size, room + 1)
            best[wide:] = np.maximum(best[wide:], best[: room + 1 - wide] + count * worth[item])
    return float(best.max())


def _knapsack(cutting: Cutting, worth: FloatArray, capacity: int) -> tuple[tuple[tuple[int, int], ...], float]:
    """Return the most worthy pattern of a bar, each piece at most as often as wanted, and its worth."""
    scale = COARSE / FINE
    room = int(capacity // scale)
    best = np.zeros(room + 1)
    taken: list[tuple[int, int, BoolArray]] = []
    for item, length in enumerate(cutting.lengths):
        size = int(-(-length // scale))
        left = min(cutting.counts[item], capacity // length)
        batch = 1
        while left > 0 and worth[item] > GAIN:
            count = min(batch, left)
            left -= count
            batch *= 2
            wide = count * size
            if wide > room:
                break
            with_it = np.full(room + 1, -np.inf)
            with_it[wide:] = best[: room + 1 - wide] + count * worth[item]
            better = with_it > best + 1e-12
            best = np.where(better, with_it, best)
            taken.append((item, count, better))
    at = int(best.argmax())
    value, items = float(best[at]), dict.fromkeys(range(len(cutting.lengths)), 0)
    for item, count, better in reversed(taken):
        if better[at]:
            items[item] += count
            at -= count * int(-(-cutting.lengths[item] // scale))
    return tuple((item, count) for item, count in items.items() if count), value
