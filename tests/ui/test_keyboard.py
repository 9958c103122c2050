"""Everything works without a mouse."""

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QApplication, QFileDialog, QWidget
from pytestqt.qtbot import QtBot

from tests.ui.conftest import settle
from unterbau.ui.shell.main_window import MainWindow

LEAVES = {"settings", "keys", "quit", "open", "save", "save-as", "new", "open-demo", "find", "rename-project"}


def test_every_command_runs_from_the_keyboard(
    window: MainWindow, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_: ("", ""))
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: ("", ""))
    for command in [*window.commands(), *window.machine.link_commands()]:
        if command.id in LEAVES or command.id.startswith(("start-", "demo-")) or not command.enabled():
            continue
        window.open_finder()
        qtbot.keyClicks(window.finder.text, command.text.removesuffix(" …"))
        qtbot.keyClick(window.finder.text, Qt.Key.Key_Return)
        assert not window.finder.isVisible(), command.id
        assert not window.notice.isVisible(), window.notice.message.text()
    while window.document.stack.canUndo():
        window.document.stack.undo()
    window.show_station(1)
    settle(window, qtbot)


def test_tab_walks_through_the_window_and_comes_back(window: MainWindow, qtbot: QtBot) -> None:
    window.machine.choose_link("gantry_beam")
    start = window.header.project
    start.setFocus()
    seen: list[QWidget] = []
    for _ in range(80):
        focus = QApplication.focusWidget()
        assert focus is not None
        if focus in seen:
            break
        seen.append(focus)
        qtbot.keyClick(focus, Qt.Key.Key_Tab)
    assert QApplication.focusWidget() is start
    for needed in (window.machine.load_path.strip, window.machine.bench.smaller, window.machine.shelf.new):
        assert needed in seen
    assert any(button in seen for button in window.bar.buttons)
    assert any(card in seen for card in window.machine.shelf.cards)


def test_the_finder_is_walked_with_arrows(window: MainWindow, qtbot: QtBot) -> None:
    window.open_finder()
    qtbot.keyClicks(window.finder.text, "pull along")
    assert window.finder.list.count() == 3
    qtbot.keyClick(window.finder.text, Qt.Key.Key_Down)
    qtbot.keyClick(window.finder.text, Qt.Key.Key_Down)
    qtbot.keyClick(window.finder.text, Qt.Key.Key_Down)
    qtbot.keyClick(window.finder.text, Qt.Key.Key_Up)
    qtbot.keyClick(window.finder.text, Qt.Key.Key_Return)
    assert window.selection.axis == 1
    window.open_finder()
    qtbot.keyClick(window.finder, Qt.Key.Key_Escape)
    assert not window.finder.isVisible()


def test_the_camera_turns_by_keys(window: MainWindow, qtbot: QtBot) -> None:
    camera = window.machine.view.viewport.canvas.camera
    window.machine.view.draw_now()
    start = camera.GetPosition()
    qtbot.keyClick(window, Qt.Key.Key_Left, Qt.KeyboardModifier.AltModifier)
    assert camera.GetPosition() != start
    qtbot.keyClick(window, Qt.Key.Key_Up, Qt.KeyboardModifier.AltModifier)
    qtbot.keyClick(window, Qt.Key.Key_Home)
    assert camera.GetPosition() == pytest.approx(start)


def test_a_fault_of_ours_is_told_in_the_window(window: MainWindow, capsys: pytest.CaptureFixture[str]) -> None:
    from unterbau.ui.shell.application import _tell

    try:
        raise KeyError("lost")
    except KeyError as error:
        _tell(window, type(error), error, error.__traceback__)
    assert "Your work is still here" in window.notice.message.text()
    assert "KeyError" in capsys.readouterr().err
