"""What the brief says at the other stations: marks in the readout, limits on the bench, the target in Compare."""

from dataclasses import replace

import pytest
from PyQt6.QtCore import QPointF, Qt
from pytestqt.qtbot import QtBot

from tests.ui.conftest import settle
from tests.ui.driving import TUBE, choose, machine_of, number
from unterbau.brief.brief import Brief
from unterbau.machine.machine import KINDS, bodies_of, kind_of
from unterbau.project import edits
from unterbau.structure.bodies import Prism
from unterbau.structure.parts import Place
from unterbau.studies.budget import budget
from unterbau.ui.shell.main_window import MainWindow
from unterbau.ui.widgets.elevation import Sheet, elevation, outline, whole


def brief(window: MainWindow, **changes: object) -> None:
    """Change the brief as one step."""
    project = window.document.project
    changed = replace(project.brief, **changes)  # type: ignore[arg-type]
    window.document.apply(edits.set_brief(project, changed), "brief")


def test_the_readout_says_whether_the_brief_is_met(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    bands = window.machine.readout.bands
    assert all(band.text().endswith("✓") for band in bands)
    brief(window, accuracy=2e-5)
    assert [band.text()[-1] for band in bands] == ["✕", "✕", "✓"]
    assert "the brief needs 3.5 N/µm wherever the head goes; weakest is" in bands[0].toolTip()
    brief(window, cuts=("steel",), accuracy=1e-5)
    assert all(band.text().endswith("✕") for band in bands)


def test_what_the_shop_cannot_do_is_marked_on_the_bench_not_hidden(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    brief(window, tools=("drill-press",), lift=10.0)
    window.machine.choose_link("side")
    bench = window.machine.bench
    assert bench.limit.isVisible()
    assert "no firm to cut it" in bench.limit.text()
    assert window.machine.bench.form.isVisible()
    window.machine.choose_link("gantry_beam")
    assert "more than one person lifts" in bench.limit.text()
    window.machine.choose_link("x_guides")
    assert not bench.limit.isVisible()
    window.view.set_units("inch")
    window.machine.choose_link("side")
    assert " in, and no firm" in bench.limit.text()


def test_compare_tints_what_meets_the_brief(window: MainWindow, qtbot: QtBot) -> None:
    brief(window, accuracy=4e-5)
    window.show_station(2)
    picture = window.compare.picture
    regions = [item for item in picture.plot.getPlotItem().items if type(item).__name__ == "LinearRegionItem"]
    assert len(regions) == 1
    assert regions[0].getRegion()[0] == pytest.approx(35 / 20e-6 / 1e6)
    assert not regions[0].movable


def test_a_conflict_in_the_sketch_is_clicked(window: MainWindow, qtbot: QtBot) -> None:
    brief(window, work_x=0.9, work_y=0.3, work_z=0.3)
    window.show_station(0)
    sketch = window.brief.sketch
    sketch.grab()
    assert "short" in sketch.accessibleDescription()
    qtbot.mouseClick(sketch, Qt.MouseButton.LeftButton, pos=sketch.hot_place("dimensions.travel_x").toPoint())
    assert window.pages.currentIndex() == 1
    assert window.machine.view.lens == "sizes"
    window.show_station(0)
    sketch.grab()
    qtbot.mouseClick(sketch, Qt.MouseButton.LeftButton, pos=sketch.hot_place("dimensions.clearance").toPoint())
    assert window.pages.currentIndex() == 1
    settle(window, qtbot)


def test_rails_are_told_as_sums(window: MainWindow, qtbot: QtBot) -> None:
    window.show_station(0)
    lines = window.brief.chains.text().splitlines()
    assert [line[0] for line in lines] == ["X", "Y", "Z", "Z"]
    assert "stroke usable; overhang 65 mm" in lines[3]
    assert lines[0].startswith("X: rail ")
    assert lines[0].endswith("= travel 650 mm")
    window.view.set_units("inch")
    assert "in" in window.brief.chains.text()


def test_new_offers_a_copy_and_every_kind(window: MainWindow, qtbot: QtBot) -> None:
    menu = window.machine.candidates.new_menu()
    actions = [action for action in menu.actions() if action.text()]
    assert "a copy of" in actions[0].text()
    labels = [kind.label for kind in KINDS]
    assert [action.text() for action in actions[1:-1]] == labels
    as_it_comes = actions[-1].menu()
    assert as_it_comes is not None
    assert [action.text() for action in as_it_comes.actions()] == labels
    count = len(window.document.project.candidates)
    actions[0].trigger()
    actions[5].trigger()
    assert len(window.document.project.candidates) == count + 2
    assert kind_of(machine_of(window)).label == actions[5].text()
    assert number(window, 0) > 0
    window.document.stack.undo()
    window.document.stack.undo()
    assert len(window.document.project.candidates) == count
    assert not window.document.modified
    settle(window, qtbot)


def test_elevations_hold_every_body() -> None:
    machine = KINDS[3].model()
    bodies = bodies_of(machine, Place())
    for across in (0, 1):
        boxes = elevation(bodies, across)
        area = whole(boxes)
        assert len(boxes) == len(bodies)
        assert all(area.adjusted(-1e-9, -1e-9, 1e-9, 1e-9).contains(box) for box in boxes)
    prism = Prism(
        "k", "c", (0, 0, 0), (2.0, 0, 0), (0, 0, 1.0), (((-0.1, -0.2), (0.1, -0.2), (0.1, 0.2), (-0.1, 0.2)),)
    )
    depth, box = outline(prism, 0)
    assert depth == pytest.approx(0.1)
    assert (box.left(), box.right()) == (0.0, 2.0)
    assert box.height() == pytest.approx(0.4)


def test_a_sheet_maps_metres_to_pixels() -> None:
    sheet = Sheet(QPointF(100, 50), 200.0, (1.0, 0.5))
    assert sheet.at((1.0, 0.5)) == QPointF(100, 50)
    assert sheet.at((1.5, 1.0)) == QPointF(200, -50)
    assert sheet.box(0.5, 0.0, 1.5, 1.0).width() == pytest.approx(200)


def test_an_open_brief_says_what_to_do_first(window: MainWindow, qtbot: QtBot) -> None:
    qtbot.keyClick(window, Qt.Key.Key_N, Qt.KeyboardModifier.ControlModifier)
    window.show_station(0)
    assert window.document.project.brief == Brief()
    assert budget(machine_of(window), Brief(lift=0.0), window.document.project.prices).findings == ()
    settle(window, qtbot)
