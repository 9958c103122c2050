"""What is worth doing over the whole machine, on the bench."""

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QWidget
from pytestqt.qtbot import QtBot

from tests.ui.driving import CTRL, machine_of, number, type_into
from unterbau.ui.shell.main_window import MainWindow
from unterbau.ui.widgets.scrolled_page import ScrolledPage


def test_cures_of_all_parts_are_listed_put_in_and_taken_back(window: MainWindow, qtbot: QtBot) -> None:
    station = window.machine
    station.choose_link("gantry_beam")
    qtbot.mouseClick(station.bench.advice.whole, Qt.MouseButton.LeftButton)
    assert station.bench.key == "dimensions"
    assert "whole machine" in station.bench.advice.title.text().lower()
    assert not station.bench.advice.whole.isVisible()
    qtbot.waitUntil(lambda: not station.advice.busy and bool(station._trials), timeout=60_000)
    parts = {trial.alternative.text.split(": ")[0] for trial in station._trials}
    assert len(parts) > 3
    before, stiff = machine_of(window), number(window, 1)
    first = station.bench.advice.rows[0]
    assert first.trial is not None
    assert first.trial.gain[1] == max(trial.gain[1] for trial in station._trials)
    qtbot.mouseClick(first, Qt.MouseButton.LeftButton)
    assert machine_of(window) == first.trial.machine or machine_of(window) != before
    assert number(window, 1) > stiff
    qtbot.keyClick(window, Qt.Key.Key_Z, CTRL)
    assert machine_of(window) == before


def test_the_list_is_in_sight_whatever_was_on_the_bench(window: MainWindow, qtbot: QtBot) -> None:
    """It was scrolled to where the list would have been under the part before."""
    station = window.machine
    for key in ("x_plate", "cutter", "gantry_beam"):
        station.choose_link(key)
        qtbot.wait(50)
        station.show_cures()
        qtbot.waitUntil(lambda: not station.advice.busy and bool(station._trials), timeout=60_000)
        qtbot.waitUntil(lambda: in_sight(station.bench.advice.rows[0]), timeout=3000)
        assert in_sight(station.bench.advice.title), key
    page = station.bench.findChildren(ScrolledPage)[0]
    bar = page.verticalScrollBar()
    assert bar is not None
    bar.triggerAction(bar.SliderAction.SliderToMinimum)
    qtbot.wait(50)
    assert bar.value() == 0, "moved by hand it stays where it is put"


def in_sight(widget: QWidget) -> bool:
    """Return whether nothing of a widget is scrolled away."""
    return widget.isVisible() and widget.visibleRegion().boundingRect().height() == widget.height()


def test_another_pull_asks_for_its_own_cures(window: MainWindow, qtbot: QtBot) -> None:
    station = window.machine
    station.show_cures()
    asked = station._advised
    window.selection.pull_along(0)
    assert station._advised != asked
    assert station.advice.busy
    station.stop()


def test_a_list_does_not_outlive_its_candidate(window: MainWindow, qtbot: QtBot) -> None:
    """Found by random hands: a row of a router's list was put into a lathe."""
    station = window.machine
    station.show_cures()
    qtbot.waitUntil(lambda: bool(station._trials), timeout=60_000)
    station.candidates.start("lathe")
    assert not station._trials
    assert not [row for row in station.bench.advice.rows if row.isVisible()]
    station.stop()


def test_an_axis_without_travel_stays_where_it_is(window: MainWindow, qtbot: QtBot) -> None:
    """Found by random hands: a division by a lathe's travel along Z."""
    window.machine.candidates.start("lathe")
    head = window.machine.view.head
    still = next(axis for axis, way in head._travel.items() if not way)
    type_into(qtbot, head.fields[still].edit, "0 mm")
    type_into(qtbot, head.fields[still].edit, "5")
    assert "expected 0 to 0" in head.fields[still].message.text()
