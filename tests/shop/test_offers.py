"""Baskets from several shops against brute force; offers and postage as typed; plates moved by hand; the rack."""

from itertools import product
from random import Random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from unterbau.errors import InputError
from unterbau.shop.by_hand import in_the_way, kept_by_hand, laid_by_hand, moved_plate
from unterbau.shop.cut_plan import Stock, Wanted, cut_plan
from unterbau.shop.offer_words import chosen_words, line_offers_text, postage_text, read_line_offers, read_postage
from unterbau.shop.offers import Offer, Postage, choose
from unterbau.shop.packing import Placed, Rect
from unterbau.shop.rack import after_sawing, too_long
from unterbau.shop.sheet_plan import Board, Laid, Sheet, parts_by_edges, sheet_plan
from unterbau.shop.shopping import Row
from unterbau.shop.state import BarOffer


def row(item: str, count: int, money: float) -> Row:
    return Row(item, "part", item, count, money, "needed", 0.0, 0)


def wares(offers: tuple[Offer, ...], line: Row) -> list[Offer | None]:
    return [one for one in offers if one.item == line.item] or [None]


@given(st.integers(0, 10_000))
def test_the_cheapest_basket_is_that_of_brute_force(seed: int) -> None:
    draw = Random(seed)
    rows = tuple(row(f"line {n}", draw.randint(1, 12), draw.uniform(5, 60)) for n in range(4))
    shops = ("a", "b", "c")
    offers = tuple(
        Offer(one.item, shop, draw.uniform(1, 6), draw.choice((1, 1, 5, 10)), draw.randint(1, 20))
        for one in rows for shop in shops if draw.random() < 0.6
    )  # fmt: skip
    postage = tuple(Postage(shop, draw.uniform(0, 15)) for shop in shops)
    found = choose(rows, offers, postage, "cheapest")
    sent = {one.shop: one.money for one in postage}
    least = min(
        sum(
            line.money if one is None else one.price * max(line.count, one.least)
            for line, one in zip(rows, some, strict=True)
        )
        + sum(sent[shop] for shop in {one.shop for one in some if one is not None})
        for some in product(*(wares(offers, line) for line in rows))
    )
    assert found.money == pytest.approx(least)
    soon = choose(rows, offers, postage, "soonest")
    assert soon.days <= found.days
    assert soon.money >= found.money - 1e-9
    days = max((min(o.days for o in offers if o.item == line.item) for line in rows
                if any(o.item == line.item for o in offers)), default=0)  # fmt: skip
    assert soon.days == max((c.offer.days for c in soon.choices if c.offer), default=0) <= max(days, 0)


def test_offers_are_typed_and_told_the_same_way() -> None:
    text = "Iron yard 12.5 from 10 in 5 days; Screw shop 11.9"
    offers = read_line_offers(text, "x")
    assert offers == (Offer("x", "Iron yard", 12.5, 10, 5), Offer("x", "Screw shop", 11.9))
    assert line_offers_text(offers) == text
    assert read_line_offers("Iron yard 12,50 EUR", "x") == (Offer("x", "Iron yard", 12.5),)
    assert postage_text(read_postage("Iron yard 9; Screw shop 5.5")) == "Iron yard 9; Screw shop 5.5"
    for wrong in ("Iron yard", "12", "Iron yard cheap"):
        with pytest.raises(InputError, match="expected offers as"):
            read_line_offers(wrong, "x")
    chosen = choose((row("x", 3, 90.0),), offers, read_postage("Screw shop 5"), "cheapest")
    assert chosen_words(chosen, "EUR").startswith("Screw shop: 1 line for 35.70; postage 5.00")


def test_sheets_for_a_saw_are_parted_by_cuts_from_edge_to_edge() -> None:
    """A pinwheel needs free cutting; the same plates laid for a saw come apart, on more sheets if need be."""
    pinwheel = [Placed(0, 0, 2, 1, Rect("a", 0, 2, 1, True)), Placed(0, 2, 1, 2, Rect("b", 0, 1, 2, True)),
                Placed(2, 1, 2, 1, Rect("c", 0, 2, 1, True)), Placed(1, 0, 1, 2, Rect("d", 0, 1, 2, True)),
                Placed(1, 1, 1, 1, Rect("e", 0, 1, 1, True))]  # fmt: skip
    assert not parts_by_edges(pinwheel)
    boards = (Board("a", 0.2, 0.1, 4), Board("e", 0.1, 0.1, 1))
    assert len(sheet_plan(boards, Sheet(0.3, 0.3)).sheets) == 1
    sawn = sheet_plan(boards, Sheet(0.3, 0.3), by_edges=True)
    draw = Random(3)
    for _ in range(12):
        many = tuple(
            Board(str(n), draw.uniform(0.1, 0.9), draw.uniform(0.1, 0.6), draw.randint(1, 3)) for n in range(6)
        )
        found = sheet_plan(many, Sheet(2.0, 1.0), 0.004, 0.01, None, True)
        for sheet in (*found.sheets, *sawn.sheets):
            placed = [
                Placed(round(one.y * 1e6), round(one.x * 1e6), round(one.length * 1e6), round(one.width * 1e6),
                       Rect(one.name, 0, 1, 1, True))
                for one in sheet
            ]  # fmt: skip
            assert parts_by_edges(placed)


def test_a_plate_moved_by_hand_is_checked_kept_and_dropped_when_plates_change() -> None:
    boards = (Board("a", 0.5, 0.3, 2), Board("b", 0.2, 0.2, 1))
    plan = sheet_plan(boards, Sheet(2.0, 1.0), 0.005, 0.01)
    number = next(k for k, one in enumerate(plan.sheets[0]) if one.name == "b")
    free = Laid("b", 1.7, 0.7, 0.2, 0.2, False)
    moved = moved_plate(plan, (0, number), 0, free)
    assert moved.by_hand
    assert free in moved.sheets[0]
    first = plan.sheets[0][0]
    for wrong, words in (
        (Laid("b", first.x + 0.01, first.y, 0.2, 0.2, False), "closer to a than the gap of 5 mm"),
        (Laid("b", 1.85, 0.7, 0.2, 0.2, False), "over the sheet's border"),
    ):
        with pytest.raises(InputError, match=words):
            moved_plate(plan, (0, number), 0, wrong)
    kept = kept_by_hand(moved, "one", "mdf", 0.018)
    again = laid_by_hand(plan, kept)
    assert {(one.x, one.y) for one in again.sheets[0]} == {(one.x, one.y) for one in moved.sheets[0]}
    other = sheet_plan((Board("a", 0.51, 0.3, 2), Board("b", 0.2, 0.2, 1)), Sheet(2.0, 1.0), 0.005, 0.01)
    assert laid_by_hand(other, kept) == other
    assert in_the_way(moved, 0, free, moved.sheets[0].index(free)) == ""


def test_the_rack_after_sawing() -> None:
    """One own bar of two is used, what is left of 100 mm and more is put back in whole millimetres."""
    bars = (BarOffer("s", "m", 6.0, 40.0), BarOffer("s", "m", 1.3, 0.0, 2))
    stocks = (Stock(6.0, 40.0), Stock(1.3, 0.0, 2))
    plan = cut_plan((Wanted("a", 1.0, 2),), stocks, 0.0025, 0.005)
    after = after_sawing(bars, plan, "s", "m")
    own = {round(one.length, 4): one.own for one in after if one.own}
    assert after[0] == bars[0]
    used = [bar.stock.length for bar in plan.bars]
    assert used.count(1.3) == 2
    assert 1.3 not in own
    assert sum(own.values()) == sum(bar.left >= 0.1 for bar in plan.bars)
    assert own[round(int(plan.bars[0].left * 1e3) / 1e3, 4)] >= 1
    assert too_long({"a": 2.0, "b": 1.0}, 1.5) == ("a",)
    assert too_long({"a": 2.0}, 0.0) == ()
