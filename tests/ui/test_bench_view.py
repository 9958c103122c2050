"""Every bench is drawn as the thing it measures: without readings, with them, and differently with others."""

import numpy as np
import pytest
from PyQt6.QtGui import QImage
from pytestqt.qtbot import QtBot

from unterbau.shop.measure.reading_words import HINTS, read_bench
from unterbau.shop.measure.result import Instrument
from unterbau.ui.stations.build.bench_view import ALONG, DRAWN, WORDS, BenchView
from unterbau.ui.view_settings import ViewSettings

READINGS = {
    "diagonals": ("1281.4 1280.2 800 1000", "1280.2 1281.4 800 1000"),
    "straightness": ("0 12 31 38 30 24", "0 -12 -31 -38 -30 -24"),
    "parallel": ("0 4 9 11", "11 9 4 0"),
    "tram": ("0 0.03 0.08 -0.01 100", "0.08 -0.01 0 0.03 100"),
    "flatness": ("0 8 5 / 12 25 14 / 4 15 2", "25 8 5 / 12 0 14 / 4 15 2"),
    "crossed strings": ("0 0.12 0.15 0.05 600", "0.12 0 0.05 0.15 600"),
    "square reversed": ("0.042 -0.018 200", "-0.018 0.042 200"),
    "column": ("0 0.03 0 -0.01 200 80", "0 -0.01 0 0.03 200 80"),
    "arm": ("50 100 150 200 / 0.020 0.043 0.058 0.081 / 60", "50 100 150 200 / 0.081 0.058 0.043 0.020 / 60"),
    "level": ("0.10 -0.05 600", "-0.05 0.10 600"),
    "both ways": ("2 3 2 / -5 -4 -6", "-5 -4 -6 / 2 3 2"),
}


def drawn(view: BenchView) -> np.ndarray:
    image = view.grab().toImage().convertToFormat(QImage.Format.Format_RGB888)
    bits = image.constBits()
    assert bits is not None
    bits.setsize(image.sizeInBytes())
    return np.frombuffer(bits.asstring(), np.uint8).astype(int)


@pytest.fixture
def view(qtbot: QtBot) -> BenchView:
    found = BenchView(ViewSettings())
    qtbot.addWidget(found)
    found.resize(340, found.height())
    return found


def test_every_bench_has_a_picture_and_words() -> None:
    assert set(HINTS) == set(WORDS) == {*ALONG, *DRAWN} == set(READINGS)


@pytest.mark.parametrize("bench", HINTS)
def test_a_bench_is_drawn_as_it_reads(view: BenchView, bench: str) -> None:
    view.show_bench(bench, None, 20e-6)
    empty = drawn(view)
    assert view.accessibleName() == f"{WORDS[bench]}: no readings yet"
    pictures = []
    for text in READINGS[bench]:
        found = read_bench(bench, text, 20e-6, Instrument())
        view.show_bench(bench, found, 20e-6)
        pictures.append(drawn(view))
        assert "no readings" not in view.accessibleName()
    first, second = pictures
    assert np.abs(first - empty).max() > 60, "readings are seen"
    assert np.abs(second - first).max() > 60, "other readings look different"


def test_readings_of_nothing_wrong_are_drawn_too(view: BenchView) -> None:
    """All zero: nothing is divided by, nothing leans."""
    for bench, text in (
        ("tram", "0 0 0 0 100"), ("crossed strings", "0 0 0 0 600"), ("square reversed", "0 0 200"),
        ("column", "0 0 0 0 200 80"), ("level", "0 0 600"), ("both ways", "0 0 / 0 0"), ("straightness", "0 0 0"),
        ("diagonals", "1000 1000 600 800"), ("flatness", "0 0 / 0 0"),
    ):  # fmt: skip
        view.show_bench(bench, read_bench(bench, text, 20e-6, Instrument()), 20e-6)
        assert len(np.unique(drawn(view))) > 2
