"""The price book as CSV: columns item, description, per, price; the last column says which are invented.

The first two lines hold currency and date, so that a book can be kept in any table program.
"""

import csv
import io
from pathlib import Path

from unterbau.catalogue.prices import PERS, Price, PriceBook, check_prices
from unterbau.errors import InputError
from unterbau.files.atomic import read_text, write_atomically
from unterbau.files.csv_cells import as_text, from_text
from unterbau.machine.price_items import item_label
from unterbau.units import parse

COLUMNS = ("item", "description", "per", "price", "invented")
LARGEST = 5000
"""Lines that are read."""
MOST = 2_000_000
"""Bytes of such a file."""


def prices_text(book: PriceBook) -> str:
    """Return a book as CSV."""
    stream = io.StringIO()
    out = csv.writer(stream, lineterminator="\n")
    out.writerow(("currency", as_text(book.currency)))
    out.writerow(("date", as_text(book.date)))
    out.writerow(COLUMNS)
    for price in book.prices:
        invented = "yes" if price.invented else "no"
        amount = f"{price.amount:.6f}".rstrip("0").rstrip(".")
        out.writerow((as_text(price.item), as_text(item_label(price.item)), price.per, amount, invented))
    return stream.getvalue()


def parse_prices(text: str) -> PriceBook:
    """Return the book in a CSV text; commas or semicolons part the columns.

    Raises:
        InputError: Names the line and says what was expected.
    """
    if text.count("\n") > LARGEST + 3:
        raise InputError("", f"expected at most {LARGEST} lines, got {text.count(chr(10))}")
    first = text.lstrip("\ufeff").splitlines()[:1]
    mark = ";" if first and first[0].count(";") > first[0].count(",") else ","
    try:
        rows = [row for row in csv.reader(io.StringIO(text.lstrip("\ufeff")), delimiter=mark) if any(row)]
    except csv.Error as error:
        raise InputError("", f"this is no table: {error}") from None
    if len(rows) > LARGEST:
        raise InputError("", f"expected at most {LARGEST} lines, got {len(rows)}")
    head = {row[0].strip().lower(): from_text(row[1].strip()) for row in rows[:2] if len(row) > 1}
    for number, key in enumerate(("currency", "date"), start=1):
        if key not in head:
            raise InputError(f"line {number}", f'expected "{key}" and its value')
    if len(rows) < 3 or [cell.strip().lower() for cell in rows[2][:4]] != list(COLUMNS[:4]):
        raise InputError("line 3", f"expected the columns {', '.join(COLUMNS)}")
    prices = tuple(_price(number, row) for number, row in enumerate(rows[3:], start=4))
    book = PriceBook(head["currency"], head["date"], prices)
    try:
        check_prices(book)
    except InputError as error:
        raise InputError(_line(error.where), error.problem) from None
    return book


def _price(number: int, row: list[str]) -> Price:
    if len(row) < 4:
        raise InputError(f"line {number}", f"expected the columns {', '.join(COLUMNS)}")
    item, _, per, amount = (from_text(cell.strip()) for cell in row[:4])
    unit = next((one for one in PERS if one == per), None)
    if unit is None:
        raise InputError(f"line {number}", f'expected per {", ".join(PERS)}; got "{per}"')
    try:
        value = parse(amount, "plain")
    except InputError:
        raise InputError(f"line {number}", f'expected a price, got "{amount}"') from None
    invented = len(row) > 4 and row[4].strip().lower() in ("yes", "true", "1")
    return Price(item, unit, value, invented)


def _line(where: str) -> str:
    """Return the line that a path such as `prices[3].amount` stands on."""
    if not where.startswith("prices["):
        return {"currency": "line 1", "date": "line 2"}.get(where, where)
    return f"line {int(where[7 : where.index(']')]) + 4}"


def read_prices(path: Path) -> PriceBook:
    """Return the book in a CSV file.

    Raises:
        UnterbauError: The file cannot be read.
        InputError: Names the file and the line.
    """
    try:
        return parse_prices(read_text(path, MOST))
    except InputError as error:
        place = f"{path}, {error.where}" if error.where else str(path)
        raise InputError(place, error.problem) from None


def write_prices(path: Path, book: PriceBook) -> None:
    """Write a book as CSV, whole or not at all.

    Raises:
        UnterbauError: The file could not be written.
    """
    write_atomically(path, prices_text(book))
