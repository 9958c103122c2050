"""Sizes dragged in their drawing, the head dragged by its cross; a machine started from nothing."""

import numpy as np
import pytest
from PyQt6.QtCore import QPoint, QPointF, Qt
from pytestqt.qtbot import QtBot

from tests.ui.conftest import settle
from tests.ui.driving import CTRL, TUBE, choose, machine_of, number, type_into
from unterbau.machine.machine import dimension_lines, with_part
from unterbau.structure.parts import Place
from unterbau.ui.shell.main_window import MainWindow
from unterbau.ui.stations.machine.part_fields import with_value
from unterbau.ui.viewport.grips import arms, drag, grip_at
from unterbau.ui.widgets.quantity_field import QuantityField


def test_every_dimension_line_is_as_long_as_its_size(window: MainWindow) -> None:
    machine = machine_of(window)
    lines = dimension_lines(machine, Place(0.3, 0.6, 0.2))
    assert len(lines) == 11
    for line in lines:
        length = np.hypot(*np.subtract(line.end, line.start))
        assert length == pytest.approx(getattr(machine.dimensions, line.attribute)), line.attribute
        larger = with_part(machine, "dimensions", with_value(machine.dimensions, line.attribute, length * 1.1))
        after = next(x for x in dimension_lines(larger, Place(0.3, 0.6, 0.2)) if x.attribute == line.attribute)
        grown = np.hypot(*np.subtract(after.end, after.start)) - length
        assert grown == pytest.approx(0.1 * length)


def dragged(window: MainWindow, qtbot: QtBot, attribute: str, by: QPointF) -> None:
    """Drag the end of a dimension with the mouse, in three moves."""
    drawing = window.machine.view.drawing
    start = drawing.end_of(attribute)
    qtbot.mousePress(drawing, Qt.MouseButton.LeftButton, pos=start.toPoint())
    for share in (0.3, 0.7, 1.0):
        qtbot.mouseMove(drawing, (start + by * share).toPoint())
    qtbot.mouseRelease(drawing, Qt.MouseButton.LeftButton, pos=(start + by).toPoint())


def test_a_size_is_dragged_as_one_step(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    qtbot.keyClick(window, Qt.Key.Key_M, CTRL)
    assert window.machine.view.lens == "sizes"
    assert window.machine.bench.title.text() == "sizes of the machine"
    before = number(window, 0)
    drawing = window.machine.view.drawing
    drawing.end_of("clearance")
    scale = drawing._sheets["front"].scale
    dragged(window, qtbot, "clearance", QPointF(0, -30))
    assert machine_of(window).dimensions.clearance == pytest.approx(0.18 + 30 / scale, abs=0.0015)
    assert number(window, 0) < before
    dragged(window, qtbot, "travel_x", QPointF(20, 0))
    assert machine_of(window).dimensions.travel_x == pytest.approx(0.65 + 40 / scale, abs=0.01)
    assert window.document.stack.count() == 2
    for _ in range(2):
        qtbot.keyClick(window, Qt.Key.Key_Z, CTRL)
    assert machine_of(window).dimensions.clearance == 0.18
    assert not window.document.modified


def test_a_drag_is_taken_back_with_escape(window: MainWindow, qtbot: QtBot) -> None:
    window.machine.show_sizes()
    drawing = window.machine.view.drawing
    start = drawing.end_of("travel_y")
    qtbot.mousePress(drawing, Qt.MouseButton.LeftButton, pos=start.toPoint())
    qtbot.mouseMove(drawing, (start + QPointF(25, 0)).toPoint())
    assert machine_of(window).dimensions.travel_y > 0.5
    qtbot.keyClick(drawing, Qt.Key.Key_Escape)
    assert machine_of(window).dimensions.travel_y == 0.5
    assert not window.document.modified


def test_sizes_by_keys_and_what_cannot_be(window: MainWindow, qtbot: QtBot) -> None:
    window.machine.show_sizes()
    drawing = window.machine.view.drawing
    drawing.setFocus()
    assert "travel X: 650 mm" in drawing.accessibleDescription()
    qtbot.keyClick(drawing, Qt.Key.Key_Up)
    qtbot.keyClick(drawing, Qt.Key.Key_Up, Qt.KeyboardModifier.ShiftModifier)
    assert machine_of(window).dimensions.travel_x == pytest.approx(0.661)
    qtbot.keyClick(drawing, Qt.Key.Key_Right)
    assert "X blocks" in drawing.accessibleDescription()
    qtbot.keyClick(drawing, Qt.Key.Key_Return)
    edit = window.machine.bench.form.controls["x_stance"]
    assert isinstance(edit, QuantityField)
    qtbot.waitUntil(edit.edit.hasFocus, timeout=3000)
    stance = machine_of(window).dimensions.x_stance
    for _ in range(60):
        qtbot.keyClick(drawing, Qt.Key.Key_Down, Qt.KeyboardModifier.ShiftModifier)
    assert machine_of(window).dimensions.x_stance < stance
    assert machine_of(window).dimensions.x_stance >= 0.06
    assert "expected at least 60 mm, got 50 mm: 2 blocks of 60 mm" in drawing.problem
    settle(window, qtbot)


def test_the_cross_is_found_on_the_screen() -> None:
    """Arms along the screen's axes: 100 px to the metre, the third seen end on."""
    ends = arms(np.zeros(3), 0.5)[:, :, :2] * np.array([100.0, -100.0])
    assert grip_at(ends, np.array([40.0, 3.0])) == "x"
    assert grip_at(ends, np.array([-2.0, -45.0])) == "y"
    assert grip_at(ends, np.array([1.0, 1.0])) == ""
    assert grip_at(ends, np.array([40.0, 30.0])) == ""
    held = drag("x", ends, 0.5, np.array([40.0, 0.0]))
    assert held.moved(np.array([65.0, 12.0])) == pytest.approx(0.25)


def test_the_head_is_dragged_in_the_picture(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    view = window.machine.view
    view.draw_now()
    camera, before = view.viewport.canvas.camera.GetPosition(), number(window, 2)
    canvas, ends = view.viewport.canvas, view.viewport.grip_ends()
    assert np.linalg.norm(ends[0, 1] - ends[0, 0]) > 20
    along = (ends[0, 1] - ends[0, 0]) / np.linalg.norm(ends[0, 1] - ends[0, 0])
    start = ends[0, 1] - 4 * along

    def at(place: np.ndarray) -> QPoint:
        return QPoint(round(float(place[0])), round(float(place[1])))

    qtbot.mouseMove(canvas, at(start))
    qtbot.mousePress(canvas, Qt.MouseButton.LeftButton, pos=at(start))
    qtbot.mouseMove(canvas, at(start + 90 * along))
    assert 0.6 < window.selection.place.x <= 1.0
    assert (window.selection.place.y, window.selection.place.z) == (0.5, 0.0)
    moved = number(window, 2)
    assert moved != before
    qtbot.mouseMove(canvas, at(start + 900 * along))
    assert window.selection.place.x == 1.0
    qtbot.mouseRelease(canvas, Qt.MouseButton.LeftButton, pos=at(start + 900 * along))
    assert view.viewport.canvas.camera.GetPosition() == camera
    assert "X right" in window.machine.readout.place.text()
    view.draw_now()
    ends = view.viewport.grip_ends()
    up = ends[2, 1] if ends[2, 1][1] < ends[2, 0][1] else ends[2, 0]
    qtbot.mousePress(canvas, Qt.MouseButton.LeftButton, pos=at(up + np.array([0, 4])))
    qtbot.mouseMove(canvas, at(up - np.array([0, 30])))
    assert window.selection.place.z > 0.1
    qtbot.keyClick(window, Qt.Key.Key_Escape)
    assert window.selection.place.z == 0.0
    qtbot.mouseRelease(canvas, Qt.MouseButton.LeftButton, pos=at(up))
    assert not window.document.modified


def test_a_machine_is_started_from_nothing(window: MainWindow, qtbot: QtBot) -> None:
    qtbot.keyClick(window, Qt.Key.Key_N, CTRL)
    assert window.document.project.name == "Untitled machine"
    assert len(window.machine.shelf.cards) == 1
    assert window.machine.view.lens == "sizes"
    travel = window.machine.bench.form.controls["travel_y"]
    assert isinstance(travel, QuantityField)
    type_into(qtbot, travel.edit, "2 ft")
    assert machine_of(window).dimensions.travel_y == pytest.approx(0.6096)
    assert number(window, 0) > 0
    settle(window, qtbot)


def test_undo_is_the_projects_while_a_field_has_the_focus(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    window.machine.choose_link("z_plate")
    before = machine_of(window)
    qtbot.keyClick(window, Qt.Key.Key_BracketRight)
    changed = machine_of(window)
    assert changed != before
    edit = window.machine.view.findChildren(QuantityField)[0].edit
    edit.setFocus()
    edit.setText("123")
    qtbot.keyClick(edit, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert machine_of(window) == before
    assert edit.text() != "123"
    qtbot.keyClick(edit, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.ShiftModifier)
    assert machine_of(window) == changed
