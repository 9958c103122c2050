"""The one-page summary from the window: PDF of one page, HTML with the picture, failures said."""

from pathlib import Path

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QFileDialog
from pytestqt.qtbot import QtBot

from tests.ui.driving import CTRL, TUBE, choose
from unterbau.ui.shell.main_window import MainWindow


def test_a_pdf_of_one_page(window: MainWindow, qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    choose(window, qtbot, TUBE)
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(tmp_path / "page"), ""))
    qtbot.keyClick(window, Qt.Key.Key_E, CTRL)
    qtbot.waitUntil((tmp_path / "page.pdf").exists, timeout=20_000)
    data = (tmp_path / "page.pdf").read_bytes()
    assert data.startswith(b"%PDF")
    assert data.count(b"/Type /Page\n") == 1
    assert window.notice.message.text() == f"Written: {tmp_path / 'page.pdf'}"
    assert [button.text() for button in window.notice.buttons] == ["open it"]


def test_a_page_with_the_picture(window: MainWindow, qtbot: QtBot, tmp_path: Path) -> None:
    window.view.set_units("inch")
    window.summary.save_to(tmp_path / "page.html")
    qtbot.waitUntil((tmp_path / "page.html").exists, timeout=20_000)
    text = (tmp_path / "page.html").read_text(encoding="utf-8")
    picture = text.split("base64,")[1].split('"')[0]
    assert len(picture) > 20_000
    assert "bolted slotted profile" in text
    assert "thou" in text
    assert "BEFORE BUYING" in text


def test_what_goes_wrong_is_said(window: MainWindow, qtbot: QtBot, tmp_path: Path) -> None:
    assert not window.summary.save_to(tmp_path / "none" / "page.pdf")
    qtbot.waitUntil(lambda: "was not written" in window.notice.message.text(), timeout=20_000)
    window.machine.choose_link("gantry_beam")
    qtbot.keyClick(window, Qt.Key.Key_BracketRight)
    assert not window.summary.save_to(tmp_path / "page.pdf")
    assert "still being computed" in window.notice.message.text()
    assert not (tmp_path / "page.pdf").exists()
