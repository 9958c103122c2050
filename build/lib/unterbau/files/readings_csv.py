"""Readings of a bench from a file: the numbers of its last column, or of all columns where they are a grid."""

import csv
import io
from pathlib import Path

from unterbau.errors import InputError
from unterbau.files.atomic import read_text

MOST_BYTES, MOST = 1_000_000, 2000


def read_readings(path: Path, grid: bool = False) -> tuple[tuple[float, ...], ...]:
    """Return rows of numbers; lines without any, as headings, are left out. Without a grid each row is its last number.

    Raises:
        InputError: There are none, or too many.
        UnterbauError: The file cannot be read.
    """
    text = read_text(path, MOST_BYTES)
    apart = next((one for one in (";", "\t", ",") if one in text), " ")  # a comma beside semicolons is a decimal one
    rows = []
    for row in csv.reader(io.StringIO(text), delimiter=apart):
        numbers = [value for cell in row for value in _number(cell, apart)]
        if numbers:
            rows.append(tuple(numbers) if grid else (numbers[-1],))
    if not rows or sum(map(len, rows)) > MOST:
        raise InputError(path.name, f"expected 1 to {MOST} readings, one a line")
    return tuple(rows)


def _number(cell: str, apart: str) -> tuple[float, ...]:
    try:
        value = float(cell.strip().replace(",", ".") if apart != "," else cell.strip())
    except ValueError:
        return ()
    return (value,) if abs(value) < 1e6 else ()
