"""Bars as they are typed, and what a shop may be."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from unterbau.errors import InputError
from unterbau.shop.cut_plan import Stock
from unterbau.shop.state import BarOffer, ShopState, check_shop
from unterbau.shop.stock_words import offers_text, read_offers


def test_bars_are_read_in_both_units_and_told_as_typed() -> None:
    found = read_offers("6000 at 42; 10 ft; own 2 × 1300", "s", "m", "mm")
    assert [(round(one.length, 4), one.price, one.own) for one in found] == [
        (6.0, 42.0, 0), (3.048, 0.0, 0), (1.3, 0.0, 2)
    ]  # fmt: skip
    assert read_offers("236.22 at 42.5 EUR", "s", "m", "inch")[0].length == pytest.approx(6.0, abs=1e-4)
    assert read_offers("", "s", "m", "mm") == ()


@given(st.lists(st.tuples(st.integers(10, 30_000), st.integers(0, 500), st.integers(0, 9)), max_size=5))
def test_what_is_told_is_read_again(rows: list[tuple[int, int, int]]) -> None:
    bars = tuple(BarOffer("s", "m", length / 1e3, 0.0 if own else float(price), own) for length, price, own in rows)
    again = read_offers(offers_text(bars, "mm"), "s", "m", "mm")
    assert [(round(one.length, 6), one.price, one.own) for one in again] == [
        (round(one.length, 6), one.price, one.own) for one in bars
    ]


@pytest.mark.parametrize("text", ["six metres", "6000 at lots", "own", "-5", "6000 at 42; x"])
def test_what_is_no_bar_is_refused(text: str) -> None:
    with pytest.raises(InputError, match="is no bar"):
        read_offers(text, "s", "m", "mm")


@pytest.mark.parametrize(
    ("shop", "where"),
    [
        (ShopState(kerf=0.2), "kerf"),
        (ShopState(trim=-1.0), "trim"),
        (ShopState(bars=(BarOffer("s", "m", 0.0),)), "bars[0].length"),
        (ShopState(bars=(BarOffer("s", "m", 6.0, -1.0),)), "bars[0].price"),
    ],
)
def test_what_no_shop_has_is_refused(shop: ShopState, where: str) -> None:
    with pytest.raises(InputError) as found:
        check_shop(shop)
    assert found.value.where == where


def test_own_bars_cost_nothing_and_are_so_many() -> None:
    shop = ShopState(bars=(BarOffer("s", "m", 6.0, 42.0), BarOffer("s", "m", 1.3, 9.0, 2)))
    assert shop.stocks() == {("s", "m"): (Stock(6.0, 42.0, None), Stock(1.3, 0.0, 2))}
    other = shop.with_bars("s", "other", (BarOffer("s", "other", 3.0),))
    assert other.of("s", "m") == shop.bars
    assert replace(other, bars=other.of("s", "m")) == shop
