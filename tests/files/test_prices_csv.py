"""The price book as a table: comes back equal, faults name their line."""

from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from unterbau.catalogue.prices import Price, PriceBook, shipped_prices
from unterbau.errors import InputError, UnterbauError
from unterbau.files.prices_csv import parse_prices, prices_text, read_prices, write_prices
from unterbau.machine.price_items import known_items

HEAD = "currency,EUR\ndate,2026-11-01\nitem,description,per,price,invented\n"


@given(
    st.lists(
        st.tuples(st.sampled_from(known_items()), st.sampled_from(["metre", "kilogram", "piece"]), st.floats(0, 1e6)),
        unique_by=lambda row: row[:2],
    ),
    st.sampled_from(["EUR", "kr", "$"]),
)
def test_any_book_comes_back(rows: list[tuple[str, str, float]], currency: str) -> None:
    prices = tuple(Price(item, per, round(amount, 4), index % 2 == 0)  # type: ignore[arg-type]
                   for index, (item, per, amount) in enumerate(rows))  # fmt: skip
    book = PriceBook(currency, "today", prices)
    assert parse_prices(prices_text(book)) == book


def test_the_shipped_book_goes_through_a_file(tmp_path: Path) -> None:
    path = tmp_path / "prices.csv"
    write_prices(path, shipped_prices())
    assert read_prices(path) == shipped_prices()
    text = path.read_text()
    path.write_text("\ufeff" + text.replace(",", ";"), encoding="utf-8")
    assert [p.amount for p in read_prices(path).prices] == [p.amount for p in shipped_prices().prices]
    assert "corner bracket" in text


@pytest.mark.parametrize(
    ("text", "where", "words"),
    [
        ("", "line 1", "currency"),
        ("currency,EUR\n", "line 2", "date"),
        ("currency,EUR\ndate,now\nthing,price\n", "line 3", "columns"),
        (HEAD + "spindle,,piece,cheap,no\n", "line 4", "expected a price"),
        (HEAD + "spindle,,dozen,5,no\n", "line 4", "expected per"),
        (HEAD + "spindle\n", "line 4", "columns"),
        (HEAD + "foot,,piece,1,no\nspindle,,piece,-5,no\n", "line 5", "expected 0 to 1e9"),
        (HEAD + "boat,,piece,5,no\n", "line 4", "names nothing"),
        (HEAD + "spindle,,piece,5,no\n" * 2, "line 5", "two prices"),
        (HEAD.replace("EUR", "far too long"), "line 1", "currency"),
    ],
)
def test_faults_name_their_line(tmp_path: Path, text: str, where: str, words: str) -> None:
    path = tmp_path / "book.csv"
    path.write_text(text, encoding="utf-8")
    with pytest.raises(InputError) as error:
        read_prices(path)
    assert error.value.where == f"{path}, {where}"
    assert words in error.value.problem


def test_a_file_that_is_not_there(tmp_path: Path) -> None:
    with pytest.raises(UnterbauError, match="could not be read"):
        read_prices(tmp_path / "none.csv")
