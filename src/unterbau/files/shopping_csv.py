"""The shopping list as CSV, out and in: states and money come back."""

import csv
import io
from pathlib import Path

from unterbau.errors import InputError
from unterbau.files.atomic import check_size, read_text, write_atomically
from unterbau.files.csv_cells import as_text, from_text
from unterbau.shop.shopping import STATES, Basket, Bought, State, with_state

HEAD = ("what", "for", "count", "money", "state", "paid", "item")
MOST_BYTES = 5_000_000


def shopping_text(basket: Basket) -> str:
    """Return a list as CSV."""
    stream = io.StringIO()
    out = csv.writer(stream, lineterminator="\n")
    out.writerow(HEAD)
    for row in basket.rows:
        out.writerow((
            as_text(row.words), as_text(row.part), row.count, f"{row.money:.2f}", row.state,
            f"{row.paid:.2f}" if row.paid else "", as_text(row.item),
        ))  # fmt: skip
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
    rows = list(csv.reader(read_text(path).removeprefix("\ufeff").splitlines()))
    if not rows or tuple(cell.strip() for cell in rows[0]) != HEAD:
        raise InputError(f"{path.name}, line 1", f"expected the heading {', '.join(HEAD)}")
    known = {row.item: row for row in basket.rows}
    states: dict[str, State] = {state: state for state in STATES}
    for number, cells in enumerate(rows[1:], 2):
        if not any(cells):
            continue
        if len(cells) != len(HEAD):
            raise InputError(f"{path.name}, line {number}", f"expected {len(HEAD)} cells, got {len(cells)}")
        line = known.get(from_text(cells[6]))
        state = states.get(cells[4].strip())
        if state is None:
            raise InputError(f"{path.name}, line {number}", f'expected {", ".join(STATES)}, got "{cells[4]}"')
        try:
            paid = float(cells[5]) if cells[5].strip() else 0.0
        except ValueError:
            raise InputError(f"{path.name}, line {number}", f'expected money paid, got "{cells[5]}"') from None
        if line is not None and 0.0 <= paid <= 1e9:
            bought = with_state(bought, candidate, line, state, paid)
    return bought
