"""Readings are typed where they are taken, on the picture of the bench."""

import pytest
from PyQt6.QtCore import QRect, Qt
from pytestqt.qtbot import QtBot

from tests.ui.test_bench_view import READINGS
from unterbau.shop.build.steps import Hold, Step
from unterbau.shop.measure.reading_words import HINTS, read_bench
from unterbau.shop.measure.result import Instrument
from unterbau.ui.stations.build.bench_panel import BenchPanel
from unterbau.ui.stations.build.bench_view import BenchView
from unterbau.ui.view_settings import ViewSettings


@pytest.fixture
def panel(qtbot: QtBot) -> BenchPanel:
    found = BenchPanel(ViewSettings())
    qtbot.addWidget(found)
    found.resize(340, 640)
    hold = Hold("spindle square to the bed", "tram", 20e-6, "as the brief wants it")
    found.show_step(Step("a", "tram", (), 1.0, hold=hold), False, "")
    found.show()
    return found


def test_readings_typed_at_their_places_are_judged_when_all_are_there(panel: BenchPanel, qtbot: QtBot) -> None:
    fields = panel.drawn.fields.fields
    assert [one.toolTip() for one in fields] == [*(f"at {turn} degrees" for turn in (0, 90, 180, 270)), "radius"]
    fields[0].setFocus()
    for field, text in zip(fields, ("0", "0.03", "0.08", "-0.01", "100"), strict=True):
        assert panel.result.text() == ""
        assert panel.focusWidget() is field, "Enter went on to the next place"
        qtbot.keyClicks(field, text)
        qtbot.keyClick(field, Qt.Key.Key_Return)
    assert panel.line.text() == "0 0.03 0.08 -0.01 100"
    assert panel.result.text().startswith("not within: ")
    first = panel.result.text()
    fields[2].selectAll()
    qtbot.keyClicks(fields[2], "0.001")
    qtbot.keyClick(fields[2], Qt.Key.Key_Return)
    assert panel.line.text() == "0 0.03 0.001 -0.01 100"
    assert panel.result.text() != first


def test_a_wrong_reading_is_said_and_a_whole_line_may_go_into_any_place(panel: BenchPanel, qtbot: QtBot) -> None:
    fields = panel.drawn.fields.fields
    panel.take("0 0.03 0.08 -0.01 100")
    assert [one.text() for one in fields] == ["0", "0.03", "0.08", "-0.01", "100"]
    fields[1].selectAll()
    qtbot.keyClicks(fields[1], "high")
    qtbot.keyClick(fields[1], Qt.Key.Key_Return)
    assert '"high" is no reading' in panel.problem.text()
    fields[1].selectAll()
    fields[1].insert("0 0 0 0 90")
    fields[1].setModified(True)
    qtbot.keyClick(fields[1], Qt.Key.Key_Return)
    assert panel.line.text() == "0 0 0 0 90"
    assert [one.text() for one in fields] == ["0", "0", "0", "0", "90"]
    panel.how.show_value("flatness")
    panel.how.activated.emit(panel.how.currentIndex())
    assert len(panel.drawn.fields.fields) == 9
    assert all(one.text() == "" for one in panel.drawn.fields.fields)


@pytest.mark.parametrize("bench", HINTS)
def test_fields_lie_beside_each_other_inside_the_picture(bench: str, qtbot: QtBot) -> None:
    view = BenchView(ViewSettings())
    qtbot.addWidget(view)
    view.resize(340, view.height())
    line = READINGS[bench][0]
    view.show_bench(bench, read_bench(bench, line, 20e-6, Instrument()), 20e-6, line)
    view.show()
    rooms = [one.geometry() for one in view.fields.fields]
    assert rooms
    for number, room in enumerate(rooms):
        assert view.rect().contains(room), (bench, number)
        assert not any(QRect(room).intersects(other) for other in rooms[number + 1 :]), (bench, number)


def test_more_readings_than_there_is_room_for_stay_in_the_line(qtbot: QtBot) -> None:
    view = BenchView(ViewSettings())
    qtbot.addWidget(view)
    view.resize(340, view.height())
    view.show()
    line = " ".join("0" for _ in range(30))
    view.show_bench("straightness", read_bench("straightness", line, 20e-6, Instrument()), 20e-6, line)
    assert len(view.fields.fields) == 30
    assert not any(one.isVisible() for one in view.fields.fields)
