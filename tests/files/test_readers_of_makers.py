"""What makers type and save: decimal commas, units, merged cells, 24-bit recordings, two taps, hum, refunds, pipes."""

import io
import os
import struct
import sys
import time
from importlib.resources import files
from pathlib import Path

import numpy as np
import pytest
from odf.office import Annotation
from odf.opendocument import OpenDocumentSpreadsheet, load
from odf.table import CoveredTableCell, Table, TableCell, TableRow
from odf.text import P

from unterbau.cli.main import run
from unterbau.errors import InputError, UnterbauError
from unterbau.files.atomic import read_text
from unterbau.files.readings_csv import read_readings
from unterbau.files.search_json import read_space
from unterbau.files.shopping_csv import HEAD, read_shopping, with_cells
from unterbau.files.shopping_ods import read_shopping_ods
from unterbau.files.wav import channels_of, read_wav
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import bill_of
from unterbau.shop.measure.reading_words import read_bench
from unterbau.shop.measure.result import Instrument
from unterbau.shop.measure.tap import tap_test
from unterbau.shop.offer_words import read_line_offers
from unterbau.shop.shopping import basket, plain_date
from unterbau.shop.stock_words import read_offers, read_sheet
from unterbau.units import Kind, Units, parse


@pytest.mark.parametrize(
    ("text", "grid", "unit", "rows"),
    [
        ("\ufeff5\n7\n9\n", False, "µm", [5, 7, 9]),
        ("10;5 mm\n20;6 mm\n", False, "mm", [5, 6]),
        ("10;0,005 mm\n20;0,006 mm\n", False, "µm", [5, 6]),
        ("place;reading [mm]\n10;0,012\n20;0,02\n", False, "µm", [12, 20]),
        ("0 12 31 38 30 24\n", False, "µm", [0, 12, 31, 38, 30, 24]),
        ("0;12;31\n", False, "µm", [0, 12, 31]),
        ("1,5;2,5\n3,5;4,5\n", False, "µm", [2.5, 4.5]),
        ("10, 1.5\n20, 2.5\n", False, "µm", [1.5, 2.5]),
        ("−3\n4\n", False, "µm", [-3, 4]),
    ],
)
def test_readings_as_they_are_written(tmp_path: Path, text: str, grid: bool, unit: str, rows: list[float]) -> None:
    path = tmp_path / "r.csv"
    path.write_text(text, encoding="utf-8")
    assert [value for (value,) in read_readings(path, grid, unit)] == pytest.approx(rows)


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("1,5\n2,5\n", "one number or two"), ("10;\n20;5\n", "line 1: expected a reading in the last column"),
        ("10;5\n20;\n", "line 2: expected a reading"), ("10;5 kg\n20;6\n", 'got "5 kg"'),
        ("10;5\n20;much\n", 'line 2: expected a reading, got "much"'),
        ("x" * 140_000 + ";5\n", "no table"),
    ],
)  # fmt: skip
def test_readings_that_may_mean_two_things_are_refused(tmp_path: Path, text: str, words: str) -> None:
    path = tmp_path / "r.csv"
    path.write_text(text, encoding="utf-8")
    with pytest.raises(InputError, match=words):
        read_readings(path)


@pytest.mark.parametrize(
    ("text", "kind", "units", "value"),
    [
        ('3-3/8"', "length", "mm", 3.375 * 0.0254), ("3-3/8", "length", "inch", 3.375 * 0.0254),
        ("5'-6\"", "length", "mm", 66 * 0.0254), ("5 ft - 6 in", "length", "mm", 66 * 0.0254),
        ("1250-2*40", "length", "mm", 1.17), ("10-1/2", "length", "mm", 0.0095),
        ("1,200", "money", "mm", 1200.0), ("1.200", "money", "mm", 1200.0), ("1,200.50 EUR", "money", "mm", 1200.5),
        ("1.234.567,80 €", "money", "mm", 1234567.8), ("12,50", "money", "mm", 12.5), ("1.20", "money", "mm", 1.2),
        ("−5", "plain", "mm", -5.0), ("1\u00a0250 mm", "length", "mm", None), ("10 −2", "length", "mm", 0.008),
    ],
)  # fmt: skip
def test_quantities_as_they_are_typed(text: str, kind: Kind, units: Units, value: float | None) -> None:
    if value is None:
        with pytest.raises(InputError):
            parse(text, kind, units)
        return
    assert parse(text, kind, units) == pytest.approx(value)


def test_a_unit_behind_the_second_length_counts_for_both() -> None:
    for units in ("mm", "inch"):
        sheet = read_sheet("2000 × 1000 mm", units)
        assert sheet is not None
        assert (sheet.length, sheet.width) == pytest.approx((2.0, 1.0))
    inches = read_sheet("96 x 48", "inch")
    assert inches is not None
    assert inches.length == pytest.approx(96 * 0.0254)
    mixed = read_sheet("2 m × 1000 mm", "inch")
    assert mixed is not None
    assert mixed.length == pytest.approx(2.0)


def test_bars_and_offers_say_what_they_say() -> None:
    with pytest.raises(InputError, match="tells how many"):
        read_offers("2 × 6000 at 42", "s", "m", "mm")
    (one,) = read_offers("6000 at 12,50 EUR", "s", "m", "mm")
    assert (one.length, one.price) == (6.0, 12.5)
    (owned,) = read_offers("own 2 × 1300", "s", "m", "mm")
    assert (owned.length, owned.own) == (1.3, 2)
    for text in ("Iron yard 12.50 in 5 days from 10", "Iron yard 12.50 from 10 in 5 days"):
        (offer,) = read_line_offers(text, "i")
        assert (offer.shop, offer.price, offer.least, offer.days) == ("Iron yard", 12.5, 10, 5)
    with pytest.raises(InputError, match="no offer"):
        read_line_offers("Iron yard 12.50 in 5 weeks 3", "i")


ITEMS = bill_of(MovingGantry())
BASKET = basket(ITEMS, tuple(item.text for item in ITEMS), (), "A")
LINE = [BASKET.rows[0].words, "", "1", "0", "ordered", "", BASKET.rows[0].item, "", "", "", "buy"]


@pytest.mark.parametrize(
    ("column", "text", "words"),
    [(5, "nan", "money paid from 0"), (5, "-5", "after a refund"), (5, "inf", "money paid"), (8, "1.3.2026", "date as"),
     (8, "tomorrow", "date as 2026-03-01")],
)  # fmt: skip
def test_a_line_that_cannot_be_used_is_named_and_not_dropped(column: int, text: str, words: str) -> None:
    line = [text if n == column else cell for n, cell in enumerate(LINE)]
    with pytest.raises(InputError, match=words) as error:
        with_cells("list.csv", [list(HEAD), line], BASKET, (), "A")
    assert error.value.where == "list.csv, line 2" or column == 8
    assert with_cells("list.csv", [list(HEAD), LINE], BASKET, (), "A")[0].state == "ordered"


def test_dates_are_kept_in_one_way_of_writing() -> None:
    assert plain_date("due", "20260301") == plain_date("due", "2026-03-01") == "2026-03-01"
    assert plain_date("due", "") == ""
    line = ["20260301" if n == 8 else cell for n, cell in enumerate(LINE)]
    assert with_cells("list.csv", [list(HEAD), line], BASKET, (), "A")[0].due == "2026-03-01"
    for text in ("1.3.2026", "2026-3-1"):
        with pytest.raises(InputError):
            plain_date("due", text)


def test_a_huge_field_is_no_traceback(tmp_path: Path) -> None:
    path = tmp_path / "list.csv"
    path.write_text(",".join(HEAD) + "\n" + "x" * 140_000 + "," * 10 + "\n", encoding="utf-8")
    with pytest.raises(InputError, match="no table"):
        read_shopping(path, BASKET, (), "A")


def table(path: Path, nested: bool = False) -> None:
    """Write a list as a table program might: a merged cell, a comment, a table within a cell."""
    document, made = OpenDocumentSpreadsheet(), Table(name="shopping")
    for cells in (HEAD, LINE):
        row = TableRow()
        for n, text in enumerate(cells):
            if cells is LINE and n == 1:
                row.addElement(CoveredTableCell())
                continue
            cell = TableCell(valuetype="string", **({"numbercolumnsspanned": 2} if cells is LINE and n == 0 else {}))
            if cells is LINE and n == 4:
                note = Annotation()
                note.addElement(P(text="asked on the telephone"))
                cell.addElement(note)
            cell.addElement(P(text=text))
            if nested and cells is LINE and n == 0:
                inner, inside = Table(name="inner"), TableRow()
                inside.addElement(TableCell(valuetype="string"))
                inner.addElement(inside)
                cell.addElement(inner)
            row.addElement(cell)
        made.addElement(row)
    document.spreadsheet.addElement(made)
    stream = io.BytesIO()
    document.write(stream)
    path.write_bytes(stream.getvalue())
    load(str(path))


def test_merged_cells_comments_and_tables_in_tables(tmp_path: Path) -> None:
    path = tmp_path / "list.ods"
    table(path)
    (line,) = read_shopping_ods(path, BASKET, (), "A")
    assert (line.item, line.state) == (BASKET.rows[0].item, "ordered")


def wav(form: int, bits: int, data: bytes, channels: int = 1, extensible: bool = False, odd: bool = False) -> bytes:
    wide = (bits + 7) // 8
    heading = struct.pack("<HHIIHH", 0xFFFE if extensible else form, channels, 8000, 8000 * wide, wide * channels, bits)
    if extensible:
        heading += struct.pack("<HHIH", 22, bits, 0, form) + bytes.fromhex("000000001000800000aa00389b71")
    chunks = b"LIST" + struct.pack("<I", 3) + b"abc\0" if odd else b""
    chunks += b"fmt " + struct.pack("<I", len(heading)) + heading + b"data" + struct.pack("<I", len(data)) + data
    return b"RIFF" + struct.pack("<I", 4 + len(chunks)) + b"WAVE" + chunks


WAVE = np.sin(np.arange(800) / 7.0) * 0.5


@pytest.mark.parametrize(
    "content",
    [
        wav(1, 24, (WAVE * 2**23).astype("<i4").view(np.uint8).reshape(-1, 4)[:, :3].tobytes(), extensible=True),
        wav(3, 32, WAVE.astype("<f4").tobytes()), wav(3, 64, WAVE.astype("<f8").tobytes(), extensible=True),
        wav(1, 16, (WAVE * 2**15).astype("<i2").tobytes(), odd=True),
        wav(1, 32, (WAVE * 2**31).astype("<i4").tobytes()),
        wav(1, 8, (WAVE * 128 + 128).astype(np.uint8).tobytes()),
    ],
)  # fmt: skip
def test_recordings_as_editors_write_them(tmp_path: Path, content: bytes) -> None:
    path = tmp_path / "a.wav"
    path.write_bytes(content)
    samples, rate = read_wav(path)
    assert rate == 8000
    assert samples == pytest.approx(WAVE, abs=0.01)
    assert channels_of(path) == 1


@pytest.mark.parametrize(
    "content",
    [
        wav(1, 40, bytes(1000)), wav(1, 64, bytes(1000)), wav(2, 16, bytes(1000)), wav(1, 16, bytes(10))[:30],
        b"RIFF" + bytes(4) + b"WAVE", b"RIFF" + b"\xff" * 60, wav(1, 16, b"").replace(b"data", b"xata"),
        wav(1, 16, bytes(100)).replace(struct.pack("<I", 8000), struct.pack("<I", 0)),
        wav(3, 32, np.full(100, np.nan, "<f4").tobytes()),
    ],
)  # fmt: skip
def test_recordings_that_cannot_be_read_are_refused_in_a_sentence(tmp_path: Path, content: bytes) -> None:
    path = tmp_path / "a.wav"
    path.write_bytes(content)
    with pytest.raises(InputError, match="expected"):
        read_wav(path)


def ring(
    frequency: float, zeta: float, seconds: float, rate: float = 8000.0
) -> np.ndarray[tuple[int], np.dtype[np.float64]]:
    t = np.arange(round(seconds * rate)) / rate
    return np.exp(-zeta * 2 * np.pi * frequency * t) * np.sin(2 * np.pi * frequency * t)


@pytest.mark.parametrize("taps", [1, 2, 5])
def test_several_taps_in_one_recording_are_one_mode_with_its_damping(taps: int) -> None:
    """One degree of freedom at 80 Hz with 2 %, struck several times; noise is invented."""
    x = np.random.default_rng(1).normal(0.0, 1e-4, 8000 * (taps + 1))
    for n in range(taps):
        start = 2000 + n * 6400
        x[start : start + 6400] += ring(80.0, 0.02, 0.8)[: len(x[start : start + 6400])]
    found = tap_test(x, 8000.0)
    assert found.taps == taps
    (peak,) = [one for one in found.peaks if one.height > 0.2]
    assert peak.frequency == pytest.approx(80.0, rel=0.01)
    assert peak.decay == pytest.approx(0.02, rel=0.1)


def test_hum_is_no_mode() -> None:
    """50 Hz before and after a tap that rings at 120 Hz."""
    t = np.arange(16000) / 8000.0
    x = 0.2 * np.sin(2 * np.pi * 50 * t) + np.random.default_rng(2).normal(0.0, 1e-4, 16000)
    x[6000:] += ring(120.0, 0.02, 1.25)
    found = tap_test(x, 8000.0)
    assert [round(one.frequency) for one in found.peaks if one.height > 0.05] == [120]
    assert [round(one) for one in found.hum] == [50]


def test_ten_minutes_of_recording_are_listened_to_at_once() -> None:
    rate = 48000.0
    x = np.zeros(round(600 * rate))
    x[1_000_000:1_048_000] = ring(80.0, 0.02, 1.0, rate)
    began = time.process_time()
    found = tap_test(x, rate)
    assert found.peaks[0].frequency == pytest.approx(80.0, rel=0.01)
    assert time.process_time() - began < 20.0  # it took over a minute


def test_diagonals_that_no_rectangle_of_these_sides_has_are_refused() -> None:
    dial = Instrument(1e-3, 0.0)
    with pytest.raises(InputError, match="diagonals of about 1281 mm"):
        read_bench("diagonals", "1 1 800 1000", 1e-3, dial)
    assert read_bench("diagonals", "1281 1280.2 800 1000", 1e-3, dial).value.value < 1e-3


@pytest.mark.parametrize(
    "text",
    [
        '{"free": {}, "goal": ["stiffest"]}', '{"free": {"a": {"b": [NaN]}}}', '{"free": {}, "free": {}}',
        '{"free": {"a": {"b": [1], "b": [2]}}}', '{"free": {}, "bounds": {"mass": Infinity}}',
        '{"free": {}, "goal": {}}',
    ],
)  # fmt: skip
def test_search_spaces_that_mean_nothing(tmp_path: Path, text: str) -> None:
    path = tmp_path / "space.json"
    path.write_text(text, encoding="utf-8")
    with pytest.raises(InputError):
        read_space(path)


def test_pipes_and_devices_are_not_waited_for(tmp_path: Path) -> None:
    pipe = tmp_path / "pipe"
    os.mkfifo(pipe)
    for path in (pipe, Path("/dev/zero"), tmp_path):
        with pytest.raises(UnterbauError, match="expected a file"):
            read_text(path)
        with pytest.raises(UnterbauError, match="expected a file"):
            read_wav(path)


def test_a_terminal_that_knows_ascii_only(monkeypatch: pytest.MonkeyPatch) -> None:
    raw = io.BytesIO()
    demo = Path(str(files("unterbau.demo"))) / "greenhouse-camera.unterbau"
    monkeypatch.setattr(sys, "stdout", io.TextIOWrapper(raw, encoding="ascii"))
    assert run(["pieces", str(demo)]) == 0
    sys.stdout.flush()
    assert b"?" in raw.getvalue()


def test_a_letter_under_the_name_of_a_table_is_refused(tmp_path: Path) -> None:
    from odf.opendocument import OpenDocumentText

    path = tmp_path / "basket.ods"
    OpenDocumentText().save(str(path))
    with pytest.raises(InputError, match="expected an OpenDocument table"):
        read_shopping_ods(path, BASKET, (), "A")
