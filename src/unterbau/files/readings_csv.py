"""Readings of a bench from a file: the numbers of its last column, or of all columns where they are a grid."""

import csv
import io
import re
from pathlib import Path

from unterbau.errors import InputError
from unterbau.files.atomic import read_text

MOST_BYTES, MOST = 1_000_000, 2000
PER_MM = {"mm": 1.0, "µm": 1e-3, "μm": 1e-3, "um": 1e-3, "cm": 10.0, "in": 25.4, "thou": 0.0254}
"""Millimetres in a unit that may stand behind a reading or in a heading."""
CELL = re.compile(r"([-+−]?\d*[.,]?\d+(?:[eE][-+]?\d+)?)\s*([a-zA-Zµμ]*)")
HEADING = re.compile(r"[\[(/,]\s*(mm|µm|μm|um|cm|in|thou)\b")
TWO_OR_ONE = re.compile(r"[-+−]?\d+,\d+")
LARGEST = 1e6


def read_readings(path: Path, grid: bool = False, unit: str = "µm") -> tuple[tuple[float, ...], ...]:
    """Return rows of numbers in a unit; lines without any, as headings, are left out.

    Without a grid each row is the number of the last column; readings that all stand on one line are a row each.

    Args:
        path: A table with semicolons, tabs, commas or spaces between its columns.
        grid: Whether all columns are readings.
        unit: Of the bench, `µm` or `mm`. A unit behind a number or in the column's heading is converted to it.

    Raises:
        InputError: There are none, or too many; a reading is missing; a comma may mean two things. Names the line.
        UnterbauError: The file cannot be read.
    """
    text = read_text(path, MOST_BYTES).removeprefix("\ufeff")
    apart = _apart(path.name, text)
    try:
        table = [[cell.strip() for cell in row] for row in csv.reader(io.StringIO(text), delimiter=apart)]
    except csv.Error as error:
        raise InputError(path.name, f"this is no table: {error}") from None
    if apart == " ":
        table = [[cell for cell in row if cell] for row in table]
    lines = [(number, row) for number, row in enumerate(table, 1) if any(row)]
    units = _units(lines, unit)
    rows = [(number, row) for number, row in lines if any(CELL.fullmatch(cell) for cell in row)]
    if not grid and len(rows) == 1 and len(rows[0][1]) != 2:  # all readings on one line; two are a place and one
        rows = [(rows[0][0], [cell]) for cell in rows[0][1] if cell]
        units = []
    wide = max((len(row) for _, row in rows), default=0)
    found = [_row(f"{path.name}, line {number}", row, wide, grid, units, unit) for number, row in rows]
    if not found or sum(map(len, found)) > MOST:
        raise InputError(path.name, f"expected 1 to {MOST} readings, one a line")
    return tuple(found)


def _apart(name: str, text: str) -> str:
    """Return what parts the columns; a comma beside semicolons or tabs is a decimal sign.

    Raises:
        InputError: Each line is two whole numbers with a comma between, which may be one number or two.
    """
    for mark in (";", "\t"):
        if mark in text:
            return mark
    if "," not in text:
        return " "
    lines = [line.strip() for line in text.splitlines() if line.strip()]
    unclear = [line for line in lines if TWO_OR_ONE.fullmatch(line)]
    if unclear and all(line.count(",") <= 1 for line in lines) and "." not in "".join(unclear):
        raise InputError(
            name, f'"{unclear[0]}" may be one number or two; expected a decimal point, or semicolons between columns'
        )
    return ","


def _units(lines: list[tuple[int, list[str]]], unit: str) -> list[str]:
    """Return the unit of each column by the heading; the bench's where it tells none."""
    if not lines or any(CELL.fullmatch(cell) for cell in lines[0][1]):
        return []
    return [told[1] if (told := HEADING.search(cell)) else unit for cell in lines[0][1]]


def _row(where: str, row: list[str], wide: int, grid: bool, units: list[str], unit: str) -> tuple[float, ...]:
    if grid:
        return tuple(_number(where, cell, units[n] if n < len(units) else unit, unit) for n, cell in enumerate(row))
    last = row[wide - 1] if len(row) == wide else ""
    if not last:
        raise InputError(where, "expected a reading in the last column, got nothing")
    return (_number(where, last, units[wide - 1] if wide <= len(units) else unit, unit),)


def _number(where: str, cell: str, told: str, unit: str) -> float:
    match = CELL.fullmatch(cell)
    of = (match[2] if match else "") or told
    if match is None or (match[2] and match[2] not in PER_MM):
        raise InputError(where, f'expected a reading, got "{cell[:40]}"')
    value = float(match[1].replace(",", ".").replace("−", "-")) * (PER_MM[of] / PER_MM[unit] if of != unit else 1.0)
    if not abs(value) < LARGEST:
        raise InputError(where, f'expected a reading below a million, got "{cell[:40]}"')
    return value
