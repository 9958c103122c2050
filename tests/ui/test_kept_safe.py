"""Work is not lost: set aside, offered after a crash, asked about, refused by disks, changed by others."""

import os
import subprocess
import sys
from pathlib import Path

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QFileDialog, QMessageBox
from pytestqt.qtbot import QtBot

from tests.files.test_project_json import SAMPLE
from tests.ui.driving import CTRL, SHIFT
from unterbau.files import recovery
from unterbau.files.project_json import read_project, write_project
from unterbau.ui.shell.main_window import MainWindow
from unterbau.ui.shell.preferences import recovery_folder

CRASH = """
import os, sys
from pathlib import Path
from unterbau.files.project_json import read_project
from unterbau.files.recovery import keep
keep(Path(sys.argv[1]), read_project(Path(sys.argv[2])), None, sys.argv[3])
os.kill(os.getpid(), 9)
"""


def crash(project: Path, when: str = "2026-11-25T10:30+00:00") -> None:
    """Let a process set work aside and die."""
    arguments = [sys.executable, "-c", CRASH, str(recovery_folder()), str(project), when]
    assert subprocess.run(arguments, check=False).returncode == -9


def test_unsaved_work_is_set_aside_and_forgotten_once_saved(window: MainWindow, qtbot: QtBot, tmp_path: Path) -> None:
    folder = recovery_folder()
    window.keeper.keep_now()
    assert not folder.exists()
    qtbot.keyClick(window, Qt.Key.Key_BracketRight)
    with qtbot.waitSignal(window.keeper.kept, timeout=5000):
        window.keeper.timer.timeout.emit()
    kept = folder / f"{os.getpid()}.kept"
    assert kept.exists()
    stamp = kept.stat().st_mtime_ns
    window.keeper.keep_now()
    assert kept.stat().st_mtime_ns == stamp
    assert window.files.save_to(tmp_path / "x.unterbau")
    qtbot.waitUntil(lambda: not kept.exists(), timeout=5000)


def test_a_folder_that_cannot_be_written_is_said_once(window: MainWindow, qtbot: QtBot) -> None:
    recovery_folder().parent.mkdir(parents=True)
    recovery_folder().write_text("a file in the way")
    qtbot.keyClick(window, Qt.Key.Key_BracketRight)
    with qtbot.waitSignal(window.keeper.failed, timeout=5000):
        window.keeper.keep_now()
    assert "could not be set aside" in window.notice.message.text()
    window.notice.clear()
    window.keeper.keep_now()
    assert not window.notice.isVisible()


def test_work_of_a_crash_is_offered_and_opened(window: MainWindow, qtbot: QtBot) -> None:
    crash(SAMPLE)
    window.offer_left_behind()
    assert "was not saved when the program ended unexpectedly" in window.notice.message.text()
    assert [b.text() for b in window.notice.buttons] == ["open it", "throw it away"]
    qtbot.mouseClick(window.notice.buttons[0], Qt.MouseButton.LeftButton)
    assert window.document.project == read_project(SAMPLE)
    assert window.document.modified
    qtbot.waitUntil(lambda: not window.keeper.left_behind(), timeout=5000)  # it is set aside again by then
    assert (recovery_folder() / f"{os.getpid()}.kept").exists()


def test_work_of_a_crash_is_thrown_away_or_kept_for_later(window: MainWindow, qtbot: QtBot) -> None:
    crash(SAMPLE, "2026-11-24T10:30+00:00")
    crash(SAMPLE)
    window.offer_left_behind()
    qtbot.mouseClick(window.notice.buttons[1], Qt.MouseButton.LeftButton)
    assert len(window.keeper.left_behind()) == 1
    assert window.notice.isVisible()
    assert window.notice.dismiss.text() == "later"
    qtbot.mouseClick(window.notice.dismiss, Qt.MouseButton.LeftButton)
    assert len(window.keeper.left_behind()) == 1
    recovery.throw_away(window.keeper.left_behind()[0])
    window.offer_left_behind()
    assert not window.notice.isVisible()


def test_a_file_changed_by_another_program_is_not_overwritten_unasked(
    window: MainWindow, qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    path = tmp_path / "shared.unterbau"
    assert window.files.save_to(path)
    write_project(path, read_project(SAMPLE))
    os.utime(path, ns=(1, 1))
    qtbot.keyClick(window, Qt.Key.Key_BracketRight)
    qtbot.keyClick(window, Qt.Key.Key_S, CTRL)
    assert "changed by another program" in window.notice.message.text()
    assert read_project(path) == read_project(SAMPLE)
    assert window.document.modified
    qtbot.keyClick(window, Qt.Key.Key_S, CTRL)
    assert window.document.modified, "asked again as often as one saves"
    asked: list[str] = []

    def answered(box: QMessageBox) -> QMessageBox.StandardButton:
        asked.append(box.text())
        return QMessageBox.StandardButton.Save

    monkeypatch.setattr(QMessageBox, "exec", answered)
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: ("", ""))
    assert not window.files.may_leave()
    assert "Another program changed shared.unterbau" in asked[0]
    assert read_project(path) == read_project(SAMPLE)
    assert window.files.save_over()
    assert not window.document.modified
    assert read_project(path).candidates == window.document.project.candidates


def test_a_file_of_an_older_version_is_kept_and_said(window: MainWindow, tmp_path: Path) -> None:
    path = tmp_path / "old.unterbau"
    path.write_text(SAMPLE.read_text(encoding="utf-8"), encoding="utf-8")
    assert window.files.open(path)
    assert window.files.save()
    assert "old.version-1.unterbau" in window.notice.message.text()
    assert (tmp_path / "old.version-1.unterbau").read_text() == SAMPLE.read_text()


def test_full_and_read_only_disks_are_answered(
    window: MainWindow, qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    path = tmp_path / "lute.unterbau"
    assert window.files.save_to(path)
    before = path.read_bytes()
    qtbot.keyClick(window, Qt.Key.Key_BracketRight)
    for number, words in ((28, "No space left on device"), (30, "Read-only file system"), (5, "Input/output error")):

        def broken(_: int, number: int = number, words: str = words) -> None:
            raise OSError(number, words)

        monkeypatch.setattr(os, "fsync", broken)
        qtbot.keyClick(window, Qt.Key.Key_S, CTRL)
        assert words in window.notice.message.text()
        assert "lute.unterbau" in window.notice.message.text()
        assert path.read_bytes() == before
        assert window.document.modified
    monkeypatch.undo()
    qtbot.keyClick(window, Qt.Key.Key_S, CTRL)
    assert path.read_bytes() != before
    assert [p.name for p in tmp_path.iterdir() if p.name.endswith(".part")] == []


def test_a_place_that_takes_no_files_is_said(window: MainWindow) -> None:
    assert not window.files.save_to(Path("/proc/none.unterbau"))
    assert "was not written" in window.notice.message.text()


def test_recent_files_are_in_menu_and_finder(window: MainWindow, qtbot: QtBot, tmp_path: Path) -> None:
    for name in ("one", "two"):
        assert window.files.save_to(tmp_path / f"{name}.unterbau")
    window.header.menu.aboutToShow.emit()
    texts = [action.text() for action in window.header.menu.actions()]
    assert texts.index("Open two.unterbau") < texts.index("Open one.unterbau")
    (tmp_path / "one.unterbau").unlink()
    qtbot.keyClick(window, Qt.Key.Key_K, CTRL)
    qtbot.keyClicks(window.finder.text, "one.unter")
    qtbot.keyClick(window.finder.text, Qt.Key.Key_Return)
    assert "could not be read" in window.notice.message.text()
    assert [Path(name).stem for name in window.preferences.settings.recent] == ["two"]


def test_closing_with_unsaved_work_asks(window: MainWindow, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch) -> None:
    qtbot.keyClick(window, Qt.Key.Key_BracketRight)
    asked: list[str] = []

    def answer(box: QMessageBox) -> QMessageBox.StandardButton:
        asked.append(box.text())
        return QMessageBox.StandardButton.Cancel

    monkeypatch.setattr(QMessageBox, "exec", answer)
    assert not window.close()
    assert window.isVisible()
    assert "changes that no file holds" in asked[0]
    qtbot.keyClick(window, Qt.Key.Key_Z, CTRL)
    qtbot.keyClick(window, Qt.Key.Key_Z, CTRL | SHIFT)
    assert window.document.modified
