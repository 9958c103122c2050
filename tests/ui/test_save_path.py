"""Every dialog that saves asks before it replaces a file, whatever ending is typed; a page is of what was asked."""

from collections.abc import Callable
from pathlib import Path

import pytest
from PyQt6.QtCore import QMimeData, QPoint, QPointF, Qt, QUrl
from PyQt6.QtGui import QDragEnterEvent, QDropEvent
from PyQt6.QtWidgets import QApplication, QFileDialog, QMessageBox
from pytestqt.qtbot import QtBot

from tests.ui.driving import TUBE, choose
from unterbau.ui.shell.main_window import MainWindow
from unterbau.ui.shell.station_bar import STATIONS
from unterbau.ui.widgets.save_path import with_ending

UI = Path(__file__).parents[2] / "src" / "unterbau" / "ui"


def test_no_dialog_saves_another_way() -> None:
    found = [
        path.name for path in UI.rglob("*.py")
        if "getSaveFileName" in path.read_text(encoding="utf-8") and path.name != "save_path.py"
    ]  # fmt: skip
    assert not found


@pytest.mark.parametrize(
    ("name", "filters", "chosen", "path"),
    [
        ("/d/mill", "Unterbau projects (*.unterbau)", "", "/d/mill.unterbau"),
        ("/d/router 1.5", "Unterbau projects (*.unterbau)", "", "/d/router 1.5.unterbau"),
        ("/d/a.UNTERBAU", "Unterbau projects (*.unterbau)", "", "/d/a.UNTERBAU"),
        ("/d/a", "CSV (*.csv);;Table (*.ods)", "Table (*.ods)", "/d/a.ods"),
        ("/d/a.csv", "CSV (*.csv);;Table (*.ods)", "Table (*.ods)", "/d/a.csv"),
        ("/d/v2.0", "CSV (*.csv);;Table (*.ods)", "", "/d/v2.0.csv"),
        ("/d/p.pdf", "PDF (*.pdf);;Template (*.template.pdf)", "Template (*.template.pdf)", "/d/p.template.pdf"),
    ],
)
def test_endings(name: str, filters: str, chosen: str, path: str) -> None:
    assert with_ending(name, filters, chosen) == Path(path)


DIALOGS: dict[str, tuple[str, Callable[[MainWindow], object]]] = {
    "project": ("unterbau", lambda w: w.files.ask_save()),
    "summary": ("pdf", lambda w: w.summary.ask()),
    "prices": ("csv", lambda w: w.prices._on_store()),
    "frame": ("frame.json", lambda w: w.machine.accounts.save_frame()),
    "outline": ("dxf", lambda w: w.machine.bench.own._on_save()),
    "figures": ("csv", lambda w: w.compare.ask_save()),
    "report": ("pdf", lambda w: w.compare.ask_report()),
    "recipe": ("pdf", lambda w: w.pour._ask_card()),
    "pour dates": ("ics", lambda w: w.pour._ask_dates()),
    "shopping": ("csv", lambda w: w.workshop.shopping._ask_save()),
    "steps": ("pdf", lambda w: w.build._ask_paper()),
    "build dates": ("ics", lambda w: w.build._ask_dates()),
    "log": ("html", lambda w: w.build.records.log._ask_page()),
}


def test_each_dialog_asks_before_it_replaces_what_the_ending_makes_of_a_name(
    window: MainWindow, qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    for place in range(len(STATIONS)):
        window.show_station(place)
    asked: list[str] = []

    def question(_parent: object, _title: str, text: str, *_: object) -> QMessageBox.StandardButton:
        asked.append(text)
        return QMessageBox.StandardButton.No

    monkeypatch.setattr(QMessageBox, "question", question)
    for name, (ending, ask) in DIALOGS.items():
        there = tmp_path / f"{name} 1.5.{ending}"
        there.write_text("somebody else's", encoding="utf-8")
        typed = str(there.with_name(f"{name} 1.5"))
        monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_, typed=typed: (typed, ""))
        asked.clear()
        ask(window)
        QApplication.processEvents()
        assert len(asked) == 1, name
        assert there.read_text(encoding="utf-8") == "somebody else's", name


def test_a_summary_is_of_the_candidate_it_was_asked_for(window: MainWindow, qtbot: QtBot, tmp_path: Path) -> None:
    choose(window, qtbot, TUBE)
    first = window.selection.candidate
    window.summary.save_to(tmp_path / "first.html")
    other = next(one.name for one in window.document.project.candidates if one.name != first)
    choose(window, qtbot, other)
    window.summary.save_to(tmp_path / "second.html")
    window.files.open_demo("greenhouse-camera")
    qtbot.waitUntil(lambda: not window.summary._waiting, timeout=60_000)
    for name, file in ((first, "first.html"), (other, "second.html")):
        text = (tmp_path / file).read_text(encoding="utf-8")
        assert name in text.partition("</h1>")[0] + text.partition("</h1>")[2][:400]
        assert "greenhouse" not in text


def test_two_windows_keep_each_others_settings(window: MainWindow) -> None:
    from unterbau.ui.shell.preferences import Preferences, settings_file

    other = Preferences(settings_file())
    window.preferences.change(theme="dark")
    other.change(units="inch")
    assert Preferences(settings_file()).settings.theme == "dark"
    assert Preferences(settings_file()).settings.units == "inch"


@pytest.mark.parametrize("onto", ["window", "notes"])
def test_a_dropped_project_is_opened_and_is_no_text(
    window: MainWindow, qtbot: QtBot, tmp_path: Path, onto: str
) -> None:
    path = tmp_path / "dropped.unterbau"
    assert window.files.save_to(path)
    window.files.open_demo("leather-table")
    window.show_station(STATIONS.index("Brief"))
    target = window if onto == "window" else window.brief.form.last.viewport()
    assert target is not None
    before = window.brief.form.last.toPlainText()
    for file in (tmp_path / "a.txt", path):
        data = QMimeData()
        data.setUrls([QUrl.fromLocalFile(str(file))])
        none, left = Qt.KeyboardModifier.NoModifier, Qt.MouseButton.LeftButton
        QApplication.sendEvent(target, QDragEnterEvent(QPoint(5, 5), Qt.DropAction.CopyAction, data, left, none))
        drop = QDropEvent(QPointF(5, 5), Qt.DropAction.CopyAction, data, left, none)
        QApplication.sendEvent(target, drop)
        if file.suffix == ".txt":
            assert "Only project files" in window.notice.message.text()
            assert window.brief.form.last.toPlainText() == before
    assert window.document.path == path
