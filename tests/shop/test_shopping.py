"""The shopping list: money adds up by hand, states are kept, what no longer fits is told; CSV out and in."""

from dataclasses import replace
from pathlib import Path

import pytest

from unterbau.catalogue.prices import shipped_prices
from unterbau.errors import InputError
from unterbau.files.shopping_csv import HEAD, read_shopping, shopping_text, write_shopping
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import Machine, bill_of, cost_of, lay_out
from unterbau.shop.bars import bar_plans
from unterbau.shop.cut_plan import Stock
from unterbau.shop.listed import bought_whole, groups_of, hows_of
from unterbau.shop.making import with_how
from unterbau.shop.pieces import pieces_of
from unterbau.shop.shopping import (
    Basket,
    Bought,
    as_many_as_needed,
    basket,
    check_bought,
    item_key,
    with_state,
)
from unterbau.structure.parts import Guide

BOOK = shipped_prices()


def of(machine: Machine, bought: tuple[Bought, ...] = ()) -> Basket:
    items = bill_of(machine, BOOK)
    return basket(items, tuple(item.text for item in items), bought, "c")


def test_money_of_plan_spent_and_to_come_adds_up() -> None:
    router = MovingGantry()
    found = of(router)
    assert found.plan == pytest.approx(cost_of(router, BOOK).money)
    assert found.spent == 0.0
    assert found.to_come == pytest.approx(found.plan)
    row = max(found.rows, key=lambda one: one.money)
    ordered = of(router, with_state((), "c", row, "ordered"))
    assert ordered.spent == pytest.approx(row.money)
    assert ordered.spent + ordered.to_come == pytest.approx(found.plan)
    paid = of(router, with_state((), "c", row, "here", row.money - 10.0))
    assert paid.spent == pytest.approx(row.money - 10.0)
    assert paid.spent + paid.to_come == pytest.approx(found.plan - 10.0)


def test_what_was_bought_and_no_longer_fits_is_told() -> None:
    router = MovingGantry()
    block = next(row for row in of(router).rows if row.part == "x_guides" and row.words.startswith("block"))
    bought = with_state((), "c", block, "here")
    other = replace(router, x_guides=Guide("25"))
    now = of(other, bought)
    gone = next(row for row in now.rows if row.item == block.item)
    assert (gone.count, gone.bought, gone.missing) == (0, block.count, -block.count)
    assert gone in now.wrong
    more = of(replace(router, x_guides=replace(router.x_guides, blocks=3)), bought)
    line = next(row for row in more.rows if row.item == block.item)
    assert line.missing == line.count - block.count > 0
    assert line in more.wrong
    settled = as_many_as_needed(bought, "c", line)
    assert not of(replace(router, x_guides=replace(router.x_guides, blocks=3)), settled).wrong
    assert not of(router, bought).wrong


def test_states_change_and_needed_again_is_bought_no_longer() -> None:
    row = of(MovingGantry()).rows[0]
    bought = with_state((), "c", row, "ordered", 12.0)
    assert bought[0].paid == 12.0
    fitted = with_state(bought, "c", replace(row, paid=12.0), "fitted")
    assert [(one.state, one.paid) for one in fitted] == [("fitted", 12.0)]
    assert with_state(fitted, "c", row, "needed") == ()
    assert with_state((Bought("other", row.item, "x", 1),), "c", row, "needed")[0].candidate == "other"


def test_every_item_has_a_key_of_its_own() -> None:
    items = bill_of(MovingGantry(), BOOK)
    assert len({item_key(item) for item in items}) == len(items)


@pytest.mark.parametrize(
    ("bought", "where"),
    [
        ((Bought("c", "i", "w", -1),), "bought[0].count"),
        ((Bought("c", "i", "w" * 999, 1),), "bought[0].words"),
        ((Bought("c", "i", "w", 1), Bought("c", "i", "w", 1)), "bought[1].item"),
    ],
)
def test_what_cannot_have_been_bought_is_refused(bought: tuple[Bought, ...], where: str) -> None:
    with pytest.raises(InputError) as found:
        check_bought(bought)
    assert found.value.where == where


def test_a_list_goes_out_and_its_states_come_back(tmp_path: Path) -> None:
    router = MovingGantry()
    first = of(router)
    bought = with_state((), "c", first.rows[0], "ordered", 33.5)
    bought = with_state(bought, "c", first.rows[3], "here")
    path = tmp_path / "list.csv"
    write_shopping(path, of(router, bought))
    again = read_shopping(path, first, (), "c")
    assert {(one.item, one.state, one.paid) for one in again} == {(one.item, one.state, one.paid) for one in bought}


@pytest.mark.parametrize(
    ("text", "where", "problem"),
    [
        ("what,for\n", "line 1", "expected the heading"),
        (f"{','.join(HEAD)}\nx,y,1\n", "line 2", "11 cells"),
        (f"{','.join(HEAD)}\nx,y,1,2,bought,3,k\n", "line 2", 'got "bought"'),
        (f"{','.join(HEAD)}\nx,y,1,2,here,lots,k\n", "line 2", 'got "lots"'),
    ],
)
def test_what_is_no_list_is_refused_with_its_line(tmp_path: Path, text: str, where: str, problem: str) -> None:
    path = tmp_path / "list.csv"
    path.write_text(text, encoding="utf-8")
    with pytest.raises(InputError) as found:
        read_shopping(path, of(MovingGantry()), (), "c")
    assert where in found.value.where
    assert problem in found.value.problem


def test_a_cell_that_a_table_program_would_run_is_text() -> None:
    items = bill_of(MovingGantry(), BOOK)
    found = basket(items, tuple("=1+1" for _ in items), (), "c")
    assert "\n'=1+1," in shopping_text(found)


def test_lines_stand_by_how_they_are_had_and_their_money_sums_to_the_plan() -> None:
    machine = MovingGantry()
    items, pieces = bill_of(machine, shipped_prices()), pieces_of(lay_out(machine))
    hows = hows_of(items, pieces, "c", (), ())
    found = basket(items, tuple(item.text for item in items), (), "c", hows)
    order = [("make", "have made", "print", "buy").index(row.how) for row in found.rows]
    assert order == sorted(order)
    groups = groups_of(found)
    assert sum(one.money for one in groups) == pytest.approx(found.plan)
    assert sum(one.lines for one in groups) == len(found.rows)
    by_words = {row.words: row.how for row in found.rows}
    assert by_words["tube 120×80×5, steel S235"] == "make"
    assert by_words["block profiled 20"] == "buy"
    outside = next(one for one in pieces if "X plate" in one.names)
    told = hows_of(items, pieces, "c", with_how((), "c", outside, "print"), ())
    assert [item.part for item in items if told[item_key(item)] == "print"] == ["x_plate"]
    assert set(hows.values()) == {"make", "have made", "buy"}, "thick metal plates are made outside"


def test_whole_bars_cost_their_length_and_the_list_its_pieces() -> None:
    """By hand: money of a section's pieces a metre, times the bars' metres; with a price, that."""
    machine = MovingGantry()
    items, pieces = bill_of(machine, shipped_prices()), pieces_of(lay_out(machine))
    plans = bar_plans(pieces, {}, 0.0025, 0.01)
    found = bought_whole(plans, items)
    lines = [item for item in items if item.text.startswith("tube")]
    assert found.pieces == pytest.approx(sum(item.money for item in lines))
    by_hand = 0.0
    for plan in plans:
        assert plan.plan is not None
        mine = [item for item in lines if item.text.startswith(plan.stock)]
        metre = sum(item.money for item in mine) / sum(item.length * item.count for item in mine)
        by_hand += metre * 6.0 * len(plan.plan.bars)
    assert found.bars == pytest.approx(by_hand)
    assert found.bars > found.pieces
    first = plans[0]
    priced = bar_plans(pieces, {(first.section, first.material): (Stock(6.0, 33.0),)}, 0.0025, 0.01)
    assert priced[0].plan is not None
    mine = [item for item in lines if item.text.startswith(first.stock)]
    metre = sum(item.money for item in mine) / sum(item.length * item.count for item in mine)
    count = len(priced[0].plan.bars)
    assert bought_whole(priced, items).bars == pytest.approx(found.bars - metre * 6.0 * count + 33.0 * count)
    own = bar_plans(pieces, {(first.section, first.material): (Stock(6.0, 0.0, 9),)}, 0.0025, 0.01)
    assert bought_whole(own, items).bars == pytest.approx(found.bars - metre * 6.0 * count), "the rack costs nothing"
