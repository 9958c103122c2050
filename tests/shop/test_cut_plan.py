"""Cut plans: the textbook case, triplets, brute force, saw cuts by hand, what cannot be sawn."""

import itertools
import random

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.optimize import linprog

from unterbau.errors import InputError
from unterbau.shop.cut_plan import CutPlan, Stock, Wanted, cut_plan
from unterbau.shop.patterns import Cutting, every_pattern, grown_patterns

WIDTHS = (1380, 1520, 1560, 1710, 1820, 1880, 1930, 2000, 2050, 2100, 2140, 2150, 2200)
COUNTS = (22, 25, 12, 14, 18, 18, 20, 10, 12, 14, 16, 18, 20)


def mm(*rows: tuple[float, int]) -> tuple[Wanted, ...]:
    return tuple(Wanted(f"{number}", length / 1e3, count) for number, (length, count) in enumerate(rows))


def made(plan: CutPlan) -> dict[str, int]:
    found: dict[str, int] = {}
    for name in itertools.chain.from_iterable(bar.pieces for bar in plan.bars):
        found[name] = found.get(name, 0) + 1
    return found


def check(plan: CutPlan, wanted: tuple[Wanted, ...]) -> None:
    """Every piece as often as wanted; every bar holds what is sawn from it."""
    assert made(plan) == {one.name: one.count for one in wanted if one.count}
    length = {one.name: one.length for one in wanted}
    for bar in plan.bars:
        n = len(bar.pieces)
        used = sum(length[name] for name in bar.pieces) + (n - 1) * plan.kerf + 2 * plan.trim
        assert used <= bar.stock.length + 1e-9
        assert bar.left == pytest.approx(max(0.0, bar.stock.length - used - plan.kerf), abs=1e-9)
    assert plan.least <= plan.cost + 1e-9
    assert plan.least_bars <= len(plan.bars)


def test_the_textbook_case() -> None:
    """5,600 mm rolls, 13 widths: 73 needed, 0.401 % waste; a published case, recomputed (from memory)."""
    wanted = mm(*zip(WIDTHS, COUNTS, strict=True))
    plan = cut_plan(wanted, (Stock(5.6),))
    check(plan, wanted)
    assert len(plan.bars) == 73
    assert plan.least_bars == 73
    assert plan.proven
    assert plan.waste == pytest.approx(0.00401, abs=5e-6)


@pytest.mark.parametrize("n", [6, 15, 30])
def test_triplets_fill_every_bar(n: int) -> None:
    draw, lengths = random.Random(n), list[int]()
    for _ in range(n // 3):
        a, b = draw.randint(1500, 2400), draw.randint(1500, 2400)
        lengths += [a, b, 6000 - a - b]
    draw.shuffle(lengths)
    wanted = mm(*((length, 1) for length in lengths))
    plan = cut_plan(wanted, (Stock(6.0),))
    check(plan, wanted)
    assert len(plan.bars) == n // 3
    assert plan.waste == pytest.approx(0.0, abs=1e-9)


def brute(lengths: list[int], bar: int) -> int:
    """Return the least number of bars by trying every way, piece by piece."""
    best = len(lengths)

    def place(k: int, left: list[int]) -> None:
        nonlocal best
        if len(left) >= best:
            return
        if k == len(lengths):
            best = len(left)
            return
        for n in range(len(left)):
            if left[n] >= lengths[k]:
                left[n] -= lengths[k]
                place(k + 1, left)
                left[n] += lengths[k]
        place(k + 1, [*left, bar - lengths[k]])

    place(0, [])
    return best


@settings(max_examples=30, deadline=None)
@given(st.lists(st.integers(100, 1000), min_size=1, max_size=7))
def test_no_plan_has_fewer_bars_than_brute_force(lengths: list[int]) -> None:
    wanted = mm(*((length, 1) for length in lengths))
    plan = cut_plan(wanted, (Stock(1.0),))
    check(plan, wanted)
    assert len(plan.bars) == brute(sorted(lengths, reverse=True), 1000)
    assert plan.proven


@pytest.mark.parametrize(("kerf", "trim", "fits"), [(0.0, 0.0, 6), (2.5, 0.0, 5), (0.0, 0.5, 5)])
def test_saw_cuts_and_ends_by_hand(kerf: float, trim: float, fits: int) -> None:
    """Six pieces of 1,000 fill 6,000 to the last; a saw cut, or half a millimetre off each end, leaves five."""
    wanted = mm((1000, 6))
    plan = cut_plan(wanted, (Stock(6.0),), kerf / 1e3, trim / 1e3)
    check(plan, wanted)
    assert max(len(bar.pieces) for bar in plan.bars) == fits
    assert len(plan.bars) == (1 if fits == 6 else 2)


def test_prices_decide_and_own_pieces_cost_nothing() -> None:
    wanted = mm((900, 2), (400, 1))
    plan = cut_plan(wanted, (Stock(6.0, 42.0), Stock(3.0, 20.0)), 0.0025)
    assert (plan.cost, plan.least, plan.proven) == (20.0, 20.0, True)
    rack = cut_plan(wanted, (Stock(6.0, 42.0), Stock(1.0, 0.0, 2)), 0.0025)
    assert rack.cost == 42.0
    own = cut_plan(mm((900, 2)), (Stock(6.0, 42.0), Stock(1.0, 0.0, 2)), 0.0025)
    check(own, mm((900, 2)))
    assert own.cost == 0.0


def test_pieces_of_one_length_are_cut_together() -> None:
    """Of plans that cost alike, one with few different bars."""
    wanted = mm((2000, 6), (1000, 6))
    plan = cut_plan(wanted, (Stock(6.0),))
    check(plan, wanted)
    assert len(plan.bars) == 3
    assert plan.setups == 1


def test_many_lengths_are_planned_with_a_bound() -> None:
    draw = random.Random(2)
    wanted = mm(*((draw.randint(80, 700), draw.randint(1, 6)) for _ in range(18)))
    plan = cut_plan(wanted, (Stock(6.0), Stock(3.0)), 0.0025, 0.005)
    check(plan, wanted)
    assert len(plan.bars) <= plan.least_bars + 1


@pytest.mark.parametrize(
    ("wanted", "stocks", "where", "problem"),
    [
        (mm((700, 1), (1200, 1)), (Stock(1.0),), "1", "longer than every bar"),
        (mm((700, 3)), (Stock(1.0, 0.0, 2),), "stock", "do not suffice"),
        (mm((700, 3)), (), "stock", "at least one bar"),
        (mm((0, 3)), (Stock(1.0),), "0", "expected a length"),
        (mm((700, 3)), (Stock(-1.0),), "stock", "up to 100 m"),
    ],
)
def test_what_cannot_be_sawn_is_named(
    wanted: tuple[Wanted, ...], stocks: tuple[Stock, ...], where: str, problem: str
) -> None:
    with pytest.raises(InputError) as found:
        cut_plan(wanted, stocks)
    assert found.value.where == where
    assert problem in found.value.problem


def test_nothing_wanted_needs_no_bar() -> None:
    assert cut_plan((), (Stock(6.0),)).bars == ()


@settings(max_examples=25, deadline=None)
@given(st.dictionaries(st.integers(15_001, 60_007), st.integers(1, 6), min_size=2, max_size=5))
def test_a_bound_of_grown_patterns_is_never_above_that_of_all(rows: dict[int, int]) -> None:
    """Lengths that no coarse step divides: what is called proven must not rest on patterns that rounding lost."""
    lengths, counts = [length / 1e5 for length in rows], list(rows.values())
    cutting = Cutting.of(lengths, counts, [1.0], 0.0, 0.0)
    every = every_pattern(cutting, 4000)
    assert every is not None
    made = np.zeros((len(lengths), len(every)))
    for column, pattern in enumerate(every):
        for item, count in pattern.items:
            made[item, column] = count
    best = linprog(np.ones(len(every)), A_ub=-made, b_ub=-np.array(counts, dtype=float), method="highs").fun
    _, bound = grown_patterns(cutting, np.array([1.0]), [None])
    assert bound <= best + 1e-7
    assert bound > 0.9 * best


def test_bars_are_not_said_to_be_too_few_where_time_ran_out(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("unterbau.shop.cut_plan.SECONDS", 0.0)
    with pytest.raises(InputError, match="no plan was found in 0 s; expected fewer different lengths"):
        cut_plan(mm(*zip(WIDTHS, COUNTS, strict=True)), (Stock(5.6),))
