"""The Build station: a rehearsal from the first step to the machine as built, through the real window."""

from pathlib import Path

import numpy as np
from PyQt6.QtCore import Qt
from pytestqt.qtbot import QtBot

from tests.ui.conftest import settle
from tests.ui.driving import CTRL, TUBE, machine_of, type_into
from unterbau.files.project_json import read_project, write_project
from unterbau.files.wav import write_wav
from unterbau.structure.parts import Place
from unterbau.studies.compliance import solve, tip_compliance
from unterbau.ui.shell.late_stations import BUILD
from unterbau.ui.shell.main_window import MainWindow
from unterbau.ui.stations.build.station import BuildStation


def answered(station: BuildStation, qtbot: QtBot) -> None:
    qtbot.waitUntil(
        lambda: not station.plans.busy and not station.lessons.busy and station.list.count() > 0, timeout=60_000
    )


def test_a_whole_rehearsal(window: MainWindow, qtbot: QtBot, tmp_path: Path) -> None:
    """From the first step over the benches to the machine as built, saved and forgotten."""
    window.selection.choose_candidate(TUBE)
    window.show_station(BUILD)
    station = window.build
    answered(station, qtbot)
    count = station.list.count()
    _steps(window, station, qtbot)
    _benches(station, qtbot)
    _tests(window, station, qtbot)
    t = np.arange(0, 2, 1 / 4000)
    write_wav(tmp_path / "tap.wav", np.exp(-5 * t) * np.sin(2 * np.pi * 62.0 * t) * 0.5, 4000)
    station.read_recording(tmp_path / "tap.wav")
    answered(station, qtbot)
    heard = window.document.project.shop.tests[-1]
    assert heard.sort == "tap"
    assert abs(heard.value - 62.0) < 0.3
    station.read_recording(tmp_path / "none.wav")
    assert window.notice.isVisible()
    window.say("")
    write_project(tmp_path / "built.unterbau", window.document.project)
    assert read_project(tmp_path / "built.unterbau").shop == window.document.project.shop
    station.save_dates(tmp_path / "build.ics")
    assert (tmp_path / "build.ics").read_text(encoding="utf-8").count("BEGIN:VEVENT") == count
    qtbot.mouseClick(station.tests.clear, Qt.MouseButton.LeftButton)
    assert not window.document.project.shop.tests
    window.document.stack.setIndex(0)
    answered(station, qtbot)
    window.show_station(1)
    settle(window, qtbot)


def _steps(window: MainWindow, station: BuildStation, qtbot: QtBot) -> None:
    assert station.summary.text().startswith("0 of ")
    count = station.list.count()
    marked = [station.list.item(n).text()[0] for n in range(count)]  # type: ignore[union-attr]
    assert "▸" in marked
    assert "◇" in marked
    first = station._chosen
    qtbot.mouseClick(station.bench.done, Qt.MouseButton.LeftButton)
    answered(station, qtbot)
    assert [one.step for one in window.document.project.shop.done] == [first]
    assert station.summary.text().startswith("1 of ")
    station.list.setCurrentRow(0)
    assert station.bench.done.text() == "not done after all"
    qtbot.keyClick(window, Qt.Key.Key_Z, CTRL)
    assert not window.document.project.shop.done


def _benches(station: BuildStation, qtbot: QtBot) -> None:
    rail = next(one.id for one in station._steps if one.id.startswith("rail-x"))
    station.choose(rail)
    assert "hold:" in station.bench.hold.text()
    type_into(qtbot, station.bench.line, "0 4 9 11")
    assert "move the far end by" in station.bench.result.text()
    assert station.bench.result.text().split(":")[0] in ("within", "not within", "cannot tell")
    type_into(qtbot, station.bench.line, "0 four")
    assert '"four" is no reading' in station.bench.problem.text()
    type_into(qtbot, station.bench.line, "0 400 900 1100")
    assert station.bench.result.text().startswith("not within")
    station.choose("measure-base")
    type_into(qtbot, station.bench.line, "1281.4 1280.2 800 1000")
    assert "0.96 mrad" in station.bench.result.text()
    station.choose("spindle")
    type_into(qtbot, station.bench.line, "0 0.03 0.08 -0.01 100")
    assert "leans -0.40 and +0.20 mrad" in station.bench.result.text()


def _tests(window: MainWindow, station: BuildStation, qtbot: QtBot) -> None:
    predicted = 1e-6 / tip_compliance(solve(machine_of(window), Place(), "likely"))[1, 1]
    station.tests.sort.setCurrentIndex(1)
    type_into(qtbot, station.tests.line, f"{0.5 * predicted:.3f}")
    qtbot.keyClick(station.tests.line, Qt.Key.Key_Return)
    answered(station, qtbot)
    assert station.tests.count.text() == "1 test"
    assert "as built" in station.proof.accessibleName()
    told = station.proof.accessibleName().split("; ")[1]
    before, after = (float(part.split()[-2]) for part in told.split(", "))
    assert after < 0.8 * before
    type_into(qtbot, station.tests.line, "50 29; 100 54; 0 3; -50 -29; -100 -54; 0 -3")
    qtbot.keyClick(station.tests.line, Qt.Key.Key_Return)
    answered(station, qtbot)
    assert "8.0 µm of play" in station.taught.text()
    pushed = window.document.project.shop.tests[-1]
    assert abs(pushed.play - 8e-6) < 1e-9
    assert abs(pushed.value - 2e6) < 1.0
    before = len(window.document.project.candidates)
    station.built.click()
    assert len(window.document.project.candidates) == before + 1
    assert window.selection.candidate == f"{TUBE}, as built"
    assert any(one.sort == "measured" for one in machine_of(window).changes)
    window.document.stack.undo()
    window.selection.choose_candidate(TUBE)
    answered(station, qtbot)
    station.tests.line.setText("soft")
    qtbot.keyClick(station.tests.line, Qt.Key.Key_Return)
    assert "is no number" in station.tests.problem.text()
