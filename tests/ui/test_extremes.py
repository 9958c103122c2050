"""Machines that are too large, too small, too heavy: answered, or refused with the reason in place."""

import math

from PyQt6.QtCore import Qt
from pytestqt.qtbot import QtBot

from tests.ui.conftest import settle
from tests.ui.driving import CTRL, first_answers, machine_of, number, type_into
from unterbau.ui.shell.main_window import MainWindow
from unterbau.ui.widgets.quantity_field import QuantityField


def field(window: MainWindow, qtbot: QtBot, key: str, attribute: str) -> QuantityField:
    window.machine.choose_link(key)
    found = window.machine.bench.form.controls[attribute]
    assert isinstance(found, QuantityField)
    qtbot.waitUntil(found.isVisible, timeout=3000)
    return found


def drooping(window: MainWindow) -> float:
    found = window.feed.full(machine_of(window))
    assert found is not None
    return found.droop.likely


EXTREMES = (
    ("dimensions", "travel_x", "5 m"), ("dimensions", "travel_x", "0.1 m"), ("dimensions", "travel_y", "6 m"),
    ("dimensions", "travel_y", "50 mm"), ("spindle", "mass", "300 kg"), ("dimensions", "clearance", "20 mm"),
    ("dimensions", "z_stance", "40 mm"),
)  # fmt: skip


def test_extremes_are_answered(window: MainWindow, qtbot: QtBot) -> None:
    for key, attribute, text in EXTREMES:
        answered(window, qtbot, key, attribute, text)


def answered(window: MainWindow, qtbot: QtBot, key: str, attribute: str, text: str) -> None:
    """Type an extreme, look at what is answered or refused, take it back."""
    edit = field(window, qtbot, key, attribute)
    before, droop = [number(window, axis) for axis in range(3)], drooping(window)
    type_into(qtbot, edit.edit, text)
    if edit.message.isVisible():
        assert "expected" in edit.message.text()
        assert not window.document.modified
        return
    settle(window, qtbot)
    after = [number(window, axis) for axis in range(3)]
    assert all(math.isfinite(value) and value > 0 for value in after)
    assert after != before or abs(drooping(window)) > 3 * abs(droop)
    answers = window.feed.full(machine_of(window))
    assert answers is not None
    assert all(0 < band.low < band.likely < band.high < 1e9 for band in answers.stiffness)
    assert not window.notice.isVisible()
    qtbot.keyClick(window, Qt.Key.Key_Z, CTRL)
    assert [number(window, axis) for axis in range(3)] == before


def test_a_long_gantry_is_as_soft_as_it_should_be(window: MainWindow, qtbot: QtBot) -> None:
    """Tenfold span of the same beam: the beam's own bending grows with the cube of the length."""
    choose = field(window, qtbot, "dimensions", "travel_x")
    likely = first_answers(window, machine_of(window))[0]
    beam = likely.shares.keys.index("gantry_beam")
    before = likely.shares.compliance[1][beam].sum()
    type_into(qtbot, choose.edit, "5 m")
    likely = first_answers(window, machine_of(window))[0]
    after = likely.shares.compliance[1][likely.shares.keys.index("gantry_beam")].sum()
    assert 3 < after / before < (5.65 / 0.65) ** 3
    settle(window, qtbot)


IMPOSSIBLE = (
    ("dimensions", "travel_x", "50 m", "6 m"), ("dimensions", "travel_x", "1 mm", "50 mm"),
    ("dimensions", "travel_x", "-300", "50 mm"), ("spindle", "mass", "300 t", "kg"), ("spindle", "mass", "0", ""),
    ("spindle", "mass", "heavy", "expected a mass"), ("dimensions", "travel_x", "1e400", ""),
    ("dimensions", "travel_x", "5 kg", "length"), ("dimensions", "travel_x", "wide", "expected"),
    ("cutter", "diameter", "0", ""), ("cutter", "stick_out", "9 m", ""),
)  # fmt: skip


def test_the_impossible_is_refused_in_place(window: MainWindow, qtbot: QtBot) -> None:
    for key, attribute, text, words in IMPOSSIBLE:
        edit = field(window, qtbot, key, attribute)
        before = window.document.project
        type_into(qtbot, edit.edit, text)
        assert edit.message.isVisible()
        assert words.replace("6 m", "6000 mm") in edit.message.text()
        assert window.document.project is before
        assert not window.notice.isVisible()
        assert edit.edit.hasFocus() or not edit.isVisible()
        qtbot.keyClick(edit.edit, Qt.Key.Key_Escape)
