"""The shopping list as an OpenDocument table, out and in: the same columns as the CSV."""

import zipfile
from pathlib import Path
from typing import Any

from unterbau.errors import InputError
from unterbau.files.atomic import check_size, write_atomically
from unterbau.files.ods import ods
from unterbau.files.shopping_csv import HEAD, MOST_BYTES, cells_of, with_cells
from unterbau.shop.shopping import Basket, Bought

MOST_ROWS = 5000
MOST_UNPACKED = 60_000_000
"""Bytes that a file may unfold to."""
NUMBERS = (2, 3, 5)
"""Columns that are numbers: count, money, paid."""


def shopping_ods(basket: Basket) -> bytes:
    """Return a list as the bytes of an .ods file."""
    rows = (
        tuple(float(text) if number and column in NUMBERS and text else text for column, text in enumerate(cells))
        for number, cells in enumerate((HEAD, *cells_of(basket)))
    )
    return ods("shopping", rows)


def write_shopping_ods(path: Path, basket: Basket) -> None:
    """Write a list, whole or not at all.

    Raises:
        UnterbauError: The file could not be written.
    """
    write_atomically(path, shopping_ods(basket))


def read_shopping_ods(
    path: Path, basket: Basket, bought: tuple[Bought, ...], candidate: str
) -> tuple[Bought, ...]:  # fmt: skip
    """Return what was bought with the states and money of a file's lines.

    Raises:
        InputError: Names the line, or says that it is no table.
        UnterbauError: The file cannot be read.
    """
    check_size(path, MOST_BYTES)
    rows = _rows(path)
    return with_cells(path.name, rows, basket, bought, candidate)


def _rows(path: Path) -> list[list[str]]:
    import xml.sax
    from xml.etree import ElementTree
    from xml.parsers.expat import ExpatError

    from odf.opendocument import load
    from odf.table import Table, TableRow

    try:
        with zipfile.ZipFile(path) as packed:
            if sum(one.file_size for one in packed.infolist()) > MOST_UNPACKED:
                raise InputError(path.name, f"expected a table of at most {MOST_UNPACKED // 1_000_000} MB unfolded")
            if b"encryption-data" in packed.read("META-INF/manifest.xml"):
                raise InputError(path.name, "expected a table that is not locked with a password")
            content = packed.read("content.xml")
        if b"<!DOCTYPE" in content or b"<!ENTITY" in content:
            raise InputError(path.name, "expected a table without definitions of its own")
        ElementTree.fromstring(content)  # what reads tables prints all of a file that is broken
        document = load(str(path))
    except (
        zipfile.BadZipFile,
        KeyError,
        ElementTree.ParseError,
        xml.sax.SAXException,
        ExpatError,
        UnicodeDecodeError,
        OSError,
    ):
        raise InputError(path.name, "expected an OpenDocument table (.ods)") from None
    if getattr(document, "spreadsheet", None) is None:
        raise InputError(path.name, "expected an OpenDocument table (.ods)")
    found = []
    tables = document.spreadsheet.getElementsByType(Table)
    rows = [row for row in tables[0].getElementsByType(TableRow) if _table_of(row) is tables[0]] if tables else []
    for row in rows[:MOST_ROWS]:
        cells = _cells(row)
        if any(cells):
            found.append(cells)
    return found


def _cells(row: Any) -> list[str]:
    from odf.table import CoveredTableCell, TableCell
    from odf.teletype import extractText
    from odf.text import P

    cells: list[str] = []
    for cell in row.childNodes:  # in order: what a merged cell covers keeps its column
        if getattr(cell, "qname", None) not in (TableCell().qname, CoveredTableCell().qname):
            continue
        repeated = cell.getAttribute("numbercolumnsrepeated")
        value = cell.getAttribute("value")
        text = "\n".join(extractText(one) for one in cell.childNodes if getattr(one, "qname", None) == P().qname)
        cells += [str(value) if value is not None else text] * min(int(repeated or 1), len(HEAD))
    while cells and not cells[-1]:
        cells.pop()
    return cells


def _table_of(row: Any) -> Any:
    """Return the table that a row belongs to: one may stand within a cell of another."""
    from odf.table import Table

    node = row.parentNode
    while node is not None and node.qname != Table().qname:
        node = node.parentNode
    return node
