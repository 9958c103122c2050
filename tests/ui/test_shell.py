"""Header, stations, files, command finder."""

from pathlib import Path

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtWidgets import QAbstractButton, QComboBox, QFileDialog, QInputDialog, QLabel, QMessageBox, QWidget
from pytestqt.qtbot import QtBot

from tests.ui.conftest import settle
from unterbau.files.project_json import read_project
from unterbau.ui import theme
from unterbau.ui.shell.main_window import MainWindow


def test_what_is_saved_opens_equal(
    window: MainWindow, qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    window.machine.choose_link("gantry_beam")
    qtbot.keyClick(window, Qt.Key.Key_BracketRight)
    qtbot.keyClick(window, Qt.Key.Key_D, Qt.KeyboardModifier.ControlModifier)
    window.view.set_units("inch")
    target = tmp_path / "mine"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(target), ""))
    qtbot.keyClick(window, Qt.Key.Key_S, Qt.KeyboardModifier.ControlModifier)
    saved = target.with_suffix(".unterbau")
    assert not window.document.modified
    project = window.document.project
    window.files.open_demo()
    assert window.document.project != project
    window.view.set_units("mm")
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_: (str(saved), ""))
    qtbot.keyClick(window, Qt.Key.Key_O, Qt.KeyboardModifier.ControlModifier)
    assert window.document.project.candidates == project.candidates
    assert window.document.project.benchmark == project.benchmark
    assert window.view.units == "inch"
    assert read_project(saved).units == "inch"
    settle(window, qtbot)


def test_a_bad_file_is_answered_in_the_window_and_changes_nothing(
    window: MainWindow, qtbot: QtBot, tmp_path: Path
) -> None:
    before = window.document.project
    for text, words in (("{", "damaged"), ('{"format": "unterbau-project", "version": 99}', "newer Unterbau")):
        path = tmp_path / "bad.unterbau"
        path.write_text(text)
        assert not window.files.open(path)
        assert window.notice.isVisible()
        assert "bad.unterbau" in window.notice.message.text()
        assert words in window.notice.message.text()
        assert window.document.project is before
    qtbot.mouseClick(window.notice.dismiss, Qt.MouseButton.LeftButton)
    assert not window.notice.isVisible()


def test_a_save_that_fails_says_so(window: MainWindow, tmp_path: Path) -> None:
    assert not window.files.save_to(tmp_path / "no folder" / "x.unterbau")
    assert "was not written" in window.notice.message.text()


@pytest.mark.parametrize(
    ("answer", "closed"),
    [(QMessageBox.StandardButton.Cancel, False), (QMessageBox.StandardButton.Discard, True)],
)
def test_unsaved_work_is_asked_about(
    window: MainWindow,
    qtbot: QtBot,
    monkeypatch: pytest.MonkeyPatch,
    answer: QMessageBox.StandardButton,
    closed: bool,
) -> None:
    qtbot.keyClick(window, Qt.Key.Key_BracketRight)
    assert window.document.modified
    monkeypatch.setattr(QMessageBox, "exec", lambda _: answer)
    assert window.files.may_leave() is closed


def test_stations_are_reached_by_keys(window: MainWindow, qtbot: QtBot) -> None:
    for number, name in ((1, "WHAT IT IS FOR"), (3, "COMPARE"), (4, "RECIPE CARD"), (5, "THE PIECE"), (6, "THE STEP")):
        window.actions_by_id[f"station-{number - 1}"].trigger()
        page = window.pages.currentWidget()
        assert page is not None
        assert name in [label.text() for label in page.findChildren(QLabel)]
    qtbot.mouseClick(window.bar.buttons[1], Qt.MouseButton.LeftButton)
    assert window.pages.currentIndex() == 1


def test_the_finder_finds_commands_and_parts(window: MainWindow, qtbot: QtBot) -> None:
    qtbot.mouseClick(window.header.finder, Qt.MouseButton.LeftButton)
    assert window.finder.isVisible()
    qtbot.keyClicks(window.finder.text, "side bea")
    qtbot.keyClick(window.finder.text, Qt.Key.Key_Return)
    assert not window.finder.isVisible()
    assert window.selection.link == "side_beam"
    window.open_finder()
    qtbot.keyClicks(window.finder.text, "zzz")
    item = window.finder.list.item(0)
    assert item is not None
    assert "nothing of this name" in item.text()
    window.finder.hide()


def test_commands_are_unique_and_have_words(window: MainWindow) -> None:
    commands = [*window.commands(), *window.machine.link_commands()]
    assert len({c.id for c in commands}) == len(commands)
    shortcuts = [c.shortcut for c in commands if c.shortcut]
    assert len(set(shortcuts)) == len(shortcuts)
    assert all(c.text for c in commands)


def test_whatever_takes_the_focus_has_a_name(window: MainWindow) -> None:
    for key in ("gantry_beam", "bed", "beam_joint", "x_guides", "x_drive", "spindle", "cutter"):
        window.machine.choose_link(key)
        nameless = []
        for widget in window.findChildren(QWidget):
            if not widget.isVisible() or not widget.focusPolicy() & Qt.FocusPolicy.TabFocus:
                continue
            text = widget.text() if isinstance(widget, QAbstractButton) else ""
            inner = isinstance(widget.parent(), QComboBox)
            if not (widget.accessibleName() or text or inner):
                nameless.append(f"{type(widget).__name__} in {type(widget.parent()).__name__}")
        assert not nameless


def test_no_control_is_cut_off_at_the_smallest_size(window: MainWindow, qtbot: QtBot) -> None:
    window.resize(1100, 700)
    qtbot.waitUntil(lambda: window.width() == 1100)
    for button in window.findChildren(QAbstractButton):
        if button.isVisible():
            corner = button.mapTo(window, QPoint(button.width(), button.height()))
            inside_scroll = window.machine.shelf.isAncestorOf(button) or window.machine.bench.isAncestorOf(button)
            assert inside_scroll or (corner.x() <= 1100 and corner.y() <= 700)


def test_colours_can_be_read() -> None:
    paper = [theme.colour(role) for role in ("paper", "panel", "sunken", "accent_soft")]
    for role in ("ink", "muted", "accent", "warning"):
        assert min(theme.contrast(theme.colour(role), ground) for ground in paper) >= 4.5, role
    for share in (step / 20 for step in range(21)):
        ground = theme.heat(share)
        assert theme.contrast(theme.ink_on(ground), ground) >= 4.5
    lights = [theme.contrast(theme.heat(s / 4), theme.colour("ink")) for s in range(5)]
    assert lights == sorted(lights, reverse=True)


def test_the_project_is_named_and_the_name_taken_back(window: MainWindow, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(QInputDialog, "getText", lambda *_, **__: ("Lute router", True))
    window.actions_by_id["rename-project"].trigger()
    assert window.header.project.text().startswith("Lute router")
    monkeypatch.setattr(QInputDialog, "getText", lambda *_, **__: ("  ", True))
    window.files.ask_name()
    assert "keeps its name" in window.notice.message.text()
    window.document.stack.undo()
    assert window.document.project.name == "Carving router for instrument makers"
    assert window.machine.readout.busy.text() == ""
