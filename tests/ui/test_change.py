"""The lens Change: braces put up by clicks and by keys, spots dragged and typed, pieces left out, all undone."""

import numpy as np
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtWidgets import QLineEdit, QListWidget
from pytestqt.qtbot import QtBot

from tests.ui.conftest import settle
from tests.ui.driving import CTRL, machine_of, type_into
from unterbau.machine.changes.change import Brace, Chain, LeftOut, Panel, Weight
from unterbau.machine.machine import links
from unterbau.ui.shell.main_window import MainWindow
from unterbau.ui.stations.machine.changing import Changing
from unterbau.ui.viewport.dots import dot_at


def begin(window: MainWindow, sort: str) -> Changing:
    window.machine.begin_change(sort)
    return window.machine.changing


def click(window: MainWindow, qtbot: QtBot, words: str) -> None:
    """Click a spot where it is seen; turn the machine until it is the nearest there."""
    changing, port = window.machine.changing, window.machine.view.viewport
    number = next(n for n, one in enumerate(changing._offered) if one.words == words)
    for _ in range(24):
        seen = port.spots.seen()
        place = seen[number]
        if port.spots.under(QPointF(*place)) == number:
            break
        port.turn(15.0, 4.0)
    else:
        raise AssertionError(f"{words} is never in front")
    where = QPoint(round(place[0]), round(place[1]))
    qtbot.mouseClick(port.canvas, Qt.MouseButton.LeftButton, pos=where)


def test_two_clicks_put_a_brace_up_and_the_readout_has_rolled(window: MainWindow, qtbot: QtBot) -> None:
    before = machine_of(window)
    likely = window.machine.feed.likely(before)
    assert likely is not None
    changing = begin(window, "brace")
    assert changing.bar.buttons["brace"].isChecked()
    click(window, qtbot, "left side, left, end, other edge")
    assert changing.draft is not None
    click(window, qtbot, "gantry beam, back, a quarter along")
    (brace,) = machine_of(window).changes
    assert isinstance(brace, Brace)
    assert window.selection.link == brace.id
    settle(window, qtbot)
    now = window.machine.feed.likely(machine_of(window))
    assert now is not None
    assert now[0].compliance[1, 1] < likely[0].compliance[1, 1]
    assert brace.id in [one.key for one in links(machine_of(window))]
    assert window.machine.bench.title.text() == "brace 1"
    qtbot.keyClick(window, Qt.Key.Key_Z, CTRL)
    assert machine_of(window) == before
    settle(window, qtbot)


def test_the_same_by_keyboard_alone(window: MainWindow, qtbot: QtBot) -> None:
    before = machine_of(window)
    changing = begin(window, "brace")
    for row, (piece, face) in zip(changing.bar.rows, (("left side", "left"), ("gantry beam", "back")), strict=False):
        qtbot.keyClicks(row.piece, piece)  # type-ahead
        while row.piece.currentText() != piece:
            qtbot.keyClick(row.piece, Qt.Key.Key_Down)
        row.piece.activated.emit(row.piece.currentIndex())
        assert row.piece.currentText() == piece
        row.face.setCurrentIndex(row.face.findData(face))
        row.face.activated.emit(row.face.currentIndex())
    assert changing.bar.standing.isEnabled()
    qtbot.keyClick(changing.bar.standing, Qt.Key.Key_Space)
    assert [one.id for one in machine_of(window).changes] == ["brace_1"]
    changing.bar.list.setFocus()
    qtbot.keyClick(changing.bar.list, Qt.Key.Key_Delete)
    assert machine_of(window) == before
    settle(window, qtbot)


def test_a_spot_is_typed_told_from_the_other_end_and_mirrored(window: MainWindow, qtbot: QtBot) -> None:
    changing = begin(window, "weight")
    number = next(n for n, one in enumerate(changing._offered) if one.words == "gantry beam, back, a quarter along")
    changing._viewport.spots.clicked.emit(number)
    row = changing.bar.rows[0]
    type_into(qtbot, row.along.edit, "120")
    (weight,) = machine_of(window).changes
    assert isinstance(weight, Weight)
    assert (weight.at.measured, round(weight.at.along, 6)) == ("start", 0.12)
    row.measured.setCurrentIndex(row.measured.findData("end"))
    row.measured.activated.emit(row.measured.currentIndex())
    (turned,) = machine_of(window).changes
    assert isinstance(turned, Weight)
    assert turned.at.measured == "end"
    assert row.along.value == weight.at.along
    changing.bar.both.setChecked(True)
    assert machine_of(window).changes[0].mirrored
    window.document.stack.setIndex(0)
    assert not machine_of(window).changes
    settle(window, qtbot)


def test_a_spot_is_dragged_along_its_piece_in_one_undoable_step(window: MainWindow, qtbot: QtBot) -> None:
    changing, port = begin(window, "weight"), window.machine.view.viewport
    number = next(n for n, one in enumerate(changing._offered) if one.words == "gantry beam, top, middle")
    port.spots.clicked.emit(number)
    steps = window.document.stack.count()
    held = len(changing._offered)
    assert port.spots.dots is not None
    assert port.spots.dots.held == (held,)
    port.spots.moved.emit(held, QPointF(20.0, 0.0))
    port.spots.moved.emit(held, QPointF(40.0, -2.0))
    port.spots.released.emit()
    (weight,) = machine_of(window).changes
    assert isinstance(weight, Weight)
    assert weight.at.measured == "share"
    assert 0.5 < weight.at.along <= 1.0
    assert window.document.stack.count() == steps + 1
    window.document.stack.setIndex(0)
    settle(window, qtbot)


def test_what_would_not_stand_is_refused_with_its_reason(window: MainWindow, qtbot: QtBot) -> None:
    before = machine_of(window)
    changing = begin(window, "brace")
    names = [one.words for one in changing._offered]
    for words in ("left side beam, top, middle", "left side, left, middle"):
        changing._viewport.spots.clicked.emit(names.index(words))
    assert machine_of(window) == before
    assert "move against each other" in changing.bar.hint.text()
    assert changing.draft is not None
    changing.give_up()
    settle(window, qtbot)


def test_a_piece_is_left_out_and_a_panel_covers_three_spots(window: MainWindow, qtbot: QtBot) -> None:
    changing = begin(window, "left_out")
    names = [one.words for one in changing._offered]
    changing._viewport.spots.clicked.emit(names.index("cross member 2, start"))
    assert machine_of(window).changes == (LeftOut("left_out_1", "cross member 2"),)
    changing.begin("panel")
    names = [one.words for one in changing._offered]
    for words in ("left side beam, top, start", "left side beam, top, end", "right side beam, top, end"):
        changing._viewport.spots.clicked.emit(names.index(words))
    changing.bar.put_up.emit()
    panel = machine_of(window).changes[-1]
    assert isinstance(panel, Panel)
    assert len(panel.corners) == 3
    assert isinstance(changing.bar.list, QListWidget)
    assert changing.bar.list.count() == 2
    settle(window, qtbot)
    window.document.stack.setIndex(0)
    window.machine.view.use_lens("flex")
    window.machine.view.draw_now()
    settle(window, qtbot)
    assert window.machine.view.viewport.spots.dots is None


def test_the_dot_nearest_to_the_eye_is_meant() -> None:
    seen = np.array([[10.0, 10.0], [12.0, 10.0], [90.0, 90.0]])
    depth = np.array([2.0, 1.0, 0.0])
    assert dot_at(seen, depth, np.array([10.0, 10.0])) == 1
    assert dot_at(seen, depth, np.array([50.0, 50.0])) == -1
    assert dot_at(seen[:0], depth[:0], np.array([50.0, 50.0])) == -1


def test_a_drag_chain_is_hung_between_what_moves_and_what_stands(window: MainWindow, qtbot: QtBot) -> None:
    before = machine_of(window)
    changing = begin(window, "chain")
    assert "on what moves" in changing.bar.hint.text()
    for words in ("X plate, back, middle", "gantry beam, top, middle"):
        number = next(n for n, one in enumerate(changing._offered) if one.words.startswith(words))
        changing._viewport.spots.clicked.emit(number)
    (chain,) = machine_of(window).changes
    assert isinstance(chain, Chain)
    assert "drag chain 1" in window.machine.bench.title.text()
    assert "kg/m" in " ".join(one.text() for one in window.machine.bench.findChildren(QLineEdit))
    settle(window, qtbot)
    begin(window, "chain")
    for words in ("left side, left, middle", "gantry beam, top, middle"):
        number = next(n for n, one in enumerate(changing._offered) if one.words.startswith(words))
        changing._viewport.spots.clicked.emit(number)
    assert "do not move against each other" in changing.bar.hint.text()
    assert len(machine_of(window).changes) == 1
    changing.give_up()
    qtbot.keyClick(window, Qt.Key.Key_Z, CTRL)
    assert machine_of(window) == before
    settle(window, qtbot)
