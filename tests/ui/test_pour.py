"""The Pour station: a hollow and a mould, the clock, dragged lifts, what is typed wrong, card and dates."""

from dataclasses import replace
from datetime import datetime
from pathlib import Path

import pypdfium2
import pytest
from PyQt6.QtCore import QPoint, Qt
from pytestqt.qtbot import QtBot

from tests.ui.conftest import settle
from tests.ui.driving import CTRL, TUBE, type_into
from unterbau.files.pour_calendar import calendar_text
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.project import edits
from unterbau.shop.instruments.reading import Reading
from unterbau.shop.pour.cure import Event
from unterbau.ui.shell.late_stations import POUR
from unterbau.ui.shell.main_window import MainWindow
from unterbau.ui.stations.pour.form_picture import bowed, times
from unterbau.ui.stations.pour.station import PourStation
from unterbau.ui.theme import em
from unterbau.ui.widgets.choice_box import ChoiceBox
from unterbau.ui.widgets.instrument_box import HAND, REHEARSED, Answer, Asked


def opened(window: MainWindow, qtbot: QtBot, part: str) -> PourStation:
    window.selection.choose_candidate(TUBE)
    window.show_station(POUR)
    window.pour.choose(part)
    answered(window, qtbot)
    return window.pour


def answered(window: MainWindow, qtbot: QtBot) -> None:
    station = window.pour
    qtbot.waitUntil(lambda: not station.answers.busy and station.made is not None, timeout=60_000)


def pick(box: ChoiceBox, value: str) -> None:
    box.show_value(value)
    box.activated.emit(box.currentIndex())


def test_a_tube_is_filled_lift_by_lift_on_a_clock(window: MainWindow, qtbot: QtBot) -> None:
    station = opened(window, qtbot, "gantry_beam")
    assert station.made is not None
    assert station.made.plan.part == "gantry_beam"
    station.picture.grab()
    station.show_time(0.0)
    assert "not poured yet" in station.picture.accessibleName()
    cold = station.picture.temperature(0)
    station.show_time(3.0)
    warm = station.picture.temperature(0)
    assert cold is not None
    assert warm is not None
    assert warm > cold + 10
    assert station.picture.temperature(8) is None
    type_into(qtbot, station.form.fields["shop"].edit, "12")
    answered(window, qtbot)
    assert window.document.project.shop.pour(TUBE, "gantry_beam").shop == 12.0
    assert "stays stiff" in station.warnings.text()
    type_into(qtbot, station.form.fields["resin_share"].edit, "5")
    answered(window, qtbot)
    assert "does not fill the voids" in station.warnings.text()
    qtbot.keyClick(window, Qt.Key.Key_Z, CTRL)
    assert window.document.project.shop.pour(TUBE, "gantry_beam").resin_share == 0.10
    type_into(qtbot, station.form.fields["shop"].edit, "99")
    assert "-10 to 45" in station.form.problem.text()
    type_into(qtbot, station.form.start, "soon")
    assert "date and time" in station.form.problem.text()
    type_into(qtbot, station.form.grains, "sand")
    assert "is no fraction" in station.form.problem.text()
    type_into(qtbot, station.form.grains, "0.1-1 at 0.5; 1-8 wet 1 %")
    assert [one.moisture for one in window.document.project.shop.pour(TUBE, "gantry_beam").grains] == [0.0, 0.01]
    window.document.stack.setIndex(0)
    answered(window, qtbot)
    window.show_station(1)
    settle(window, qtbot)


def test_a_mould_is_cast_its_lifts_dragged_card_and_dates_written(
    window: MainWindow, qtbot: QtBot, tmp_path: Path
) -> None:
    station = opened(window, qtbot, "mould")
    assert "the form:" in station.holds.text()
    picture = station.picture
    picture.grab()
    start = QPoint(picture.width() // 2, round(picture._edge))
    qtbot.mousePress(picture, Qt.MouseButton.LeftButton, pos=start)
    qtbot.mouseMove(picture, start + QPoint(0, 30))
    qtbot.mouseRelease(picture, Qt.MouseButton.LeftButton, pos=start + QPoint(0, 30))
    thick = window.document.project.shop.pour(TUBE, "mould").lift
    assert not station.form.cement.isVisible()
    assert 0.01 <= thick < 0.075
    answered(window, qtbot)
    assert station.made is not None
    assert len(station.made.cure.lifts) > 2
    station.save_card(tmp_path / "card.pdf")
    with pypdfium2.PdfDocument(tmp_path / "card.pdf") as document:
        text = document[0].get_textpage().get_text_bounded()
    assert "hardener" in text
    assert "lift 1" in text
    station.save_dates(tmp_path / "pour.ics")
    lines = (tmp_path / "pour.ics").read_text(encoding="utf-8").splitlines()
    assert lines[0] == "BEGIN:VCALENDAR"
    assert sum(line == "BEGIN:VEVENT" for line in lines) == len(station.made.cure.events)
    station.save_card(tmp_path / "no" / "card.pdf")
    assert window.notice.isVisible()
    window.say("")
    stripped = {}
    pick(station.form.sort, "concrete")
    for cement in ("32.5N", "52.5"):
        pick(station.form.cement, cement)
        answered(window, qtbot)
        assert window.document.project.shop.pour(TUBE, "mould").cement_class == cement
        stripped[cement] = next(one.when for one in station.made.cure.events if "strip" in one.words)
    assert (stripped["32.5N"] - stripped["52.5"]).days >= 4
    type_into(qtbot, station.form.fields["mould.height"].edit, "0")
    assert "0.01 to 3" in station.form.problem.text()
    qtbot.waitUntil(lambda: bool(station.worth.text()), timeout=60_000)
    window.document.stack.setIndex(0)
    answered(window, qtbot)
    window.show_station(1)
    settle(window, qtbot)


def test_dates_are_plain_icalendar() -> None:
    text = calendar_text("a, b", (Event(datetime(2026, 6, 6, 10), "lift; one, " + "long " * 30),), "20260606T100000Z")
    lines = text.split("\r\n")
    assert "DTSTART:20260606T100000" in lines
    assert all(len(line.encode()) <= 75 for line in lines)
    assert "SUMMARY:a\\, b: lift\\; one" in text


def test_a_form_is_drawn_bowed_as_a_strip_and_says_how_much_larger() -> None:
    """The shape of a beam under an even load, and a factor that keeps the largest bow in its room."""
    shape = bowed(101)
    assert shape[0] == shape[-1] == 0.0
    assert shape[50] == pytest.approx(1.0)
    assert shape[25] == pytest.approx(0.7125)
    factor = times(0.14e-3, 800.0)
    assert factor in (50, 100, 200)
    assert 0.14e-3 * 800.0 * factor <= 0.9 * em()


def test_a_thermometer_tells_how_warm_the_shop_is(window: MainWindow, qtbot: QtBot) -> None:
    station = opened(window, qtbot, "gantry_beam")
    before = station.form.fields["shop"].edit.text()
    assert not station.read.isEnabled(), "readings are typed by hand"
    station.instrument.choose(REHEARSED)
    qtbot.mouseClick(station.read, Qt.MouseButton.LeftButton)
    qtbot.waitUntil(lambda: not station.instrument.asker.busy, timeout=60_000)
    warm = window.document.project.shop.pour(TUBE, "gantry_beam").shop
    assert 15.0 < warm < 30.0
    assert warm == round(warm, 1)
    assert f"{warm:g}" in station.form.fields["shop"].edit.text()
    length = Reading(1e-3, "length", "indicator")
    station.instrument.said.emit(Answer(Asked("", MovingGantry(), 1, "warmth", "", 1), reading=length))
    assert "sent a length; expected a temperature" in station.form.problem.text()
    window.document.stack.undo()
    station.instrument.choose(HAND)
    assert station.form.fields["shop"].edit.text() == before


def test_what_stays_open_is_typed_and_a_base_brings_its_mould(window: MainWindow, qtbot: QtBot) -> None:
    station = opened(window, qtbot, "mould")
    form = station.form
    assert form.as_base.isHidden(), "this machine stands on no base"
    before = window.document.project.shop.pour(TUBE, "mould").mould
    type_into(qtbot, form.open, "pocket 50, 50: 100 × 100 × 40; insert M8 30, 30")
    answered(window, qtbot)
    mould = window.document.project.shop.pour(TUBE, "mould").mould
    assert (len(mould.pockets), mould.inserts[0].thread) == (1, "M8")
    assert mould.volume < before.volume
    type_into(qtbot, form.open, "pocket everywhere")
    assert "cannot be read" in form.problem.text()
    machine = window.document.project.candidate(TUBE).machine
    assert isinstance(machine, MovingGantry)
    based = replace(machine, stand=replace(machine.stand, kind="base"))
    window.document.apply(edits.set_machine(window.document.project, TUBE, based), "a base")
    answered(window, qtbot)
    assert form.as_base.isEnabled()
    qtbot.mouseClick(form.as_base, Qt.MouseButton.LeftButton)
    answered(window, qtbot)
    mould = window.document.project.shop.pour(TUBE, "mould").mould
    assert (len(mould.pockets), len(mould.inserts)) == (4, 4)
    assert not form.as_base.isEnabled()
    qtbot.waitUntil(lambda: not station.gains.busy, timeout=60_000)
    assert "slab and ribs are in the frame" in station.worth.text()
