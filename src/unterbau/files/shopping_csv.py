"""The shopping list as CSV, out and in: states and money come back."""

import csv
import io
from pathlib import Path

from unterbau.errors import InputError
from unterbau.files.atomic import check_size, read_text, write_atomically
from unterbau.files.csv_cells import as_text, from_text
from unterbau.shop.shopping import STATES, Basket, Bought, Dates, State, check_date, with_state

HEAD = ("what", "for", "count", "money", "state", "paid", "item", "on", "due", "shop", "how")
OLD = HEAD[:7]
"""Of lists written before dates and shops were kept."""
BEFORE = HEAD[:10]
"""Of lists written before it was told how a line is had."""
WORDS = (0, 1, 6, 9)
"""Columns of words, which a table program must not take for formulas."""
MOST_BYTES = 5_000_000


def cells_of(basket: Basket) -> list[tuple[str, ...]]:
    """Return a list's lines as cells."""
    return [
        (row.words, row.part, str(row.count), f"{row.money:.2f}", row.state, f"{row.paid:.2f}" if row.paid else "",
         row.item, row.on, row.due, row.shop, row.how)
        for row in basket.rows
    ]  # fmt: skip


def shopping_text(basket: Basket) -> str:
    """Return a list as CSV."""
    stream = io.StringIO()
    out = csv.writer(stream, lineterminator="\n")
    out.writerow(HEAD)
    for cells in cells_of(basket):
        out.writerow([as_text(cell) if n in WORDS else cell for n, cell in enumerate(cells)])
    return stream.getvalue()


def write_shopping(path: Path, basket: Basket) -> None:
    """Write a list, whole or not at all.

    Raises:
        UnterbauError: The file could not be written.
    """
    write_atomically(path, shopping_text(basket))


def read_shopping(
    path: Path, basket: Basket, bought: tuple[Bought, ...], candidate: str
) -> tuple[Bought, ...]:  # fmt: skip
    """Return what was bought with the states and money of a file's lines; lines that the list does not have are passed.

    Raises:
        InputError: Names the line.
        UnterbauError: The file cannot be read.
    """
    check_size(path, MOST_BYTES)
    try:
        rows = list(csv.reader(read_text(path).removeprefix("\ufeff").splitlines()))
    except csv.Error as error:
        raise InputError(path.name, f"this is no table: {error}") from None
    plain = [[from_text(cell) if n in WORDS else cell for n, cell in enumerate(cells)] for cells in rows]
    return with_cells(path.name, plain, basket, bought, candidate)


def with_cells(
    name: str, rows: list[list[str]], basket: Basket, bought: tuple[Bought, ...], candidate: str
) -> tuple[Bought, ...]:
    """Return what was bought with the states, money, dates and shops of lines of cells, the heading first.

    Raises:
        InputError: Names the line of the file.
    """
    head = tuple(cell.strip() for cell in rows[0]) if rows else ()
    if head not in (HEAD, BEFORE, OLD):
        raise InputError(f"{name}, line 1", f"expected the heading {', '.join(HEAD)}")
    known = {row.item: row for row in basket.rows}
    states: dict[str, State] = {state: state for state in STATES}
    for number, cells in enumerate(rows[1:], 2):
        if not any(cells):
            continue
        where = f"{name}, line {number}"
        if len(cells) > len(head) or len(cells) < len(OLD):
            raise InputError(where, f"expected {len(head)} cells, got {len(cells)}")
        line, state = known.get(cells[6]), states.get(cells[4].strip())
        if state is None:
            raise InputError(where, f'expected {", ".join(STATES)}, got "{cells[4]}"')
        try:
            paid = float(cells[5]) if cells[5].strip() else 0.0
        except ValueError:
            raise InputError(where, f'expected money paid, got "{cells[5]}"') from None
        dates = Dates(*(cell.strip() for cell in [*cells[7:], "", "", ""][:3]))
        for text in (dates.on, dates.due):
            check_date(where, text)
        if not 0.0 <= paid <= 1e9:
            raise InputError(where, f'expected money paid from 0, got "{cells[5]}"; after a refund, tell what is left')
        if line is not None:
            bought = with_state(bought, candidate, line, state, paid, dates)
    return bought
