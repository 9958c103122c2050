"""Tables in and out: readings of a bench from what people's programs write, figures and lists as OpenDocument."""

import zipfile
from contextlib import suppress
from pathlib import Path
from xml.etree import ElementTree

import pytest
from hypothesis import given
from hypothesis import strategies as st

from unterbau.errors import InputError, UnterbauError
from unterbau.files.ods import ods
from unterbau.files.readings_csv import read_readings
from unterbau.shop.instruments.reading import LONGEST, parse_line

OFFICE = "{urn:oasis:names:tc:opendocument:xmlns:office:1.0}"
TABLE = "{urn:oasis:names:tc:opendocument:xmlns:table:1.0}"


@pytest.mark.parametrize(
    ("text", "column", "grid"),
    [
        ("place;reading\n0;0\n100;4,5\n200;-9\n", ((0.0,), (4.5,), (-9.0,)), None),
        ("x,y\n0,1.5\n1,2.5\n", ((1.5,), (2.5,)), ((0.0, 1.5), (1.0, 2.5))),
        ("0\n12\n31\n", ((0.0,), (12.0,), (31.0,)), None),
        ("0\t8\t5\n12\t25\t14\n", ((5.0,), (14.0,)), ((0.0, 8.0, 5.0), (12.0, 25.0, 14.0))),
        ("1,5;2,5\n", ((2.5,),), ((1.5, 2.5),)),
    ],
)
def test_readings_are_read_from_what_table_programs_write(
    text: str, column: tuple[tuple[float, ...], ...], grid: tuple[tuple[float, ...], ...] | None, tmp_path: Path
) -> None:
    path = tmp_path / "readings.csv"
    path.write_text(text, encoding="utf-8")
    assert read_readings(path) == column
    if grid is not None:
        assert read_readings(path, grid=True) == grid


@pytest.mark.parametrize("text", ["", "nothing here\n", "\n\n;;\n"])
def test_tables_without_readings_are_refused(text: str, tmp_path: Path) -> None:
    path = tmp_path / "readings.csv"
    path.write_text(text, encoding="utf-8")
    with pytest.raises(InputError, match="expected 1 to"):
        read_readings(path)
    path.write_text("1\n" * 3000, encoding="utf-8")
    with pytest.raises(InputError, match="expected 1 to 2000"):
        read_readings(path)
    with pytest.raises(UnterbauError):
        read_readings(tmp_path / "none.csv")


@given(st.text(max_size=2 * LONGEST))
def test_no_line_of_an_instrument_raises_anything_but_a_sentence(line: str) -> None:
    with suppress(InputError):
        assert abs(parse_line(line).value) < float("inf")


def test_numbers_are_numbers_and_text_is_never_run(tmp_path: Path) -> None:
    path = tmp_path / "table.ods"
    path.write_bytes(ods("figures", (("name", "mass"), ("=1+1", 12.5), ("<b>", -3.0))))
    with zipfile.ZipFile(path) as opened:
        root = ElementTree.fromstring(opened.read("content.xml"))
    rows = [list(row.iter(f"{TABLE}table-cell")) for row in root.iter(f"{TABLE}table-row")]
    assert [len(row) for row in rows] == [2, 2, 2]
    kinds = [[cell.attrib[f"{OFFICE}value-type"] for cell in row] for row in rows]
    assert kinds == [["string", "string"], ["string", "float"], ["string", "float"]]
    assert float(rows[1][1].attrib[f"{OFFICE}value"]) == 12.5
    assert "".join(rows[1][0].itertext()) == "=1+1"
    assert "".join(rows[2][0].itertext()) == "<b>"
    assert not any(f"{TABLE}formula" in cell.attrib for row in rows for cell in row)
