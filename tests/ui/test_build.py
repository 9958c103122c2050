"""The Build station: a rehearsal from the first step to the machine as built, through the real window."""

from pathlib import Path

import numpy as np
import pypdfium2
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
    _benches(station, qtbot, tmp_path)
    _tests(window, station, qtbot)
    _order(window, station, qtbot)
    _records(window, station, qtbot, tmp_path)
    t = np.arange(0, 2, 1 / 4000)
    write_wav(tmp_path / "tap.wav", np.exp(-5 * t) * np.sin(2 * np.pi * 62.0 * t) * 0.5, 4000)
    station.ears.listen(tmp_path / "tap.wav")
    answered(station, qtbot)
    heard = window.document.project.shop.tests[-1]
    assert heard.sort == "tap"
    assert abs(heard.value - 62.0) < 0.3
    recorded = window.document.project.shop.log[-1]
    assert recorded.text == "a tap, recorded"
    assert (tmp_path / "second.photos" / recorded.photos[0]).is_file()
    qtbot.mouseClick(station.below.buttons[3], Qt.MouseButton.LeftButton)
    qtbot.waitUntil(lambda: not station.modes.busy, timeout=30_000)
    assert station.tap.spectrum.accessibleName().startswith("Spectrum of the tap: peaks at 62.")
    peak = station.tap.list.item(0)
    assert peak is not None
    assert peak.text().startswith("62.")
    assert "predicted (" in peak.text()
    qtbot.mouseClick(station.below.buttons[0], Qt.MouseButton.LeftButton)
    station.ears.listen(tmp_path / "none.wav")
    assert window.notice.isVisible()
    window.say("")
    write_project(tmp_path / "built.unterbau", window.document.project)
    assert read_project(tmp_path / "built.unterbau").shop == window.document.project.shop
    assert window.document.project.shop.log
    station.save_dates(tmp_path / "build.ics")
    assert (tmp_path / "build.ics").read_text(encoding="utf-8").count("BEGIN:VEVENT") == count
    station.print_steps(tmp_path / "steps.pdf")
    assert "measure dry" in pdf_words(tmp_path / "steps.pdf")
    _blow(window, station, tmp_path)
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
    planned = station._steps, station._schedule
    qtbot.keyClick(window, Qt.Key.Key_Z, CTRL)
    assert not window.document.project.shop.done
    station._on_planned(planned)  # comes late, without a date for what was done then
    assert station.list.count() == count
    assert station._chosen == first


def _benches(station: BuildStation, qtbot: QtBot, tmp_path: Path) -> None:
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
    table = tmp_path / "rail.csv"
    table.write_text("place;reading\n0;0\n100;4,5\n200;9\n300;11\n", encoding="utf-8")
    station.bench.take_table(table)
    assert station.bench.line.text() == "0 4.5 9 11"
    table.write_text("nothing\n", encoding="utf-8")
    station.bench.take_table(table)
    assert "expected 1 to" in station.bench.problem.text()
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


def _order(window: MainWindow, station: BuildStation, qtbot: QtBot) -> None:
    """Steps are moved by keys where that breaks nothing; what it would break is said."""
    ids = station.list.ids()
    station.list.setCurrentRow(ids.index("measure-base"))
    for key in (Qt.Key.Key_Up, Qt.Key.Key_Down):
        qtbot.keyClick(station.list, key, CTRL)
    answered(station, qtbot)
    assert window.notice.isVisible()
    assert "not in this order" in window.notice.message.text()
    window.say("")
    assert not window.document.project.shop.orders
    free = ids.index("parts-make")
    station.list.setCurrentRow(free)
    qtbot.keyClick(station.list, Qt.Key.Key_Up if free else Qt.Key.Key_Down, CTRL)
    answered(station, qtbot)
    assert window.document.project.shop.orders[0].candidate == TUBE
    window.document.stack.undo()
    answered(station, qtbot)


def _records(window: MainWindow, station: BuildStation, qtbot: QtBot, tmp_path: Path) -> None:
    """Lines in the log with photos, carried along when saved elsewhere; first cuts beside their predictions."""
    log, cuts = station.records.log, station.records.cuts
    qtbot.mouseClick(station.below.buttons[2], Qt.MouseButton.LeftButton)
    photo = tmp_path / "rails.png"
    station.where.grab().save(str(photo))
    log.photo_wanted.emit((photo,))
    assert "save the project first" in log.problem.text()
    assert window.files.save_to(tmp_path / "first.unterbau")
    log.line.setText("rails are on")
    log.photo_wanted.emit((photo,))
    type_into(qtbot, log.hours, "two")
    log.line.setText("glued the sides")
    qtbot.keyClick(log.line, Qt.Key.Key_Return)
    assert '"two" is no number' in log.problem.text()
    log.hours.setText("2.5")
    qtbot.keyClick(log.line, Qt.Key.Key_Return)
    (first, second) = window.document.project.shop.log
    assert (first.text, second.text, second.hours) == ("rails are on", "glued the sides", 2.5)
    assert first.parts
    assert not second.parts
    assert window.files.save_to(tmp_path / "second.unterbau")
    assert (tmp_path / "second.photos" / first.photos[0]).is_file()
    log.search.setText("rails")
    assert log.list.count() == 1
    log.search.clear()
    log.page_wanted.emit(tmp_path / "log.md")
    assert "glued the sides" in (tmp_path / "log.md").read_text(encoding="utf-8")
    qtbot.mouseClick(station.below.buttons[1], Qt.MouseButton.LeftButton)
    cuts.cut.show_value("hardwood")
    cuts.read.set_value(0.0601)
    qtbot.mouseClick(cuts.put, Qt.MouseButton.LeftButton)
    assert "within 10 mm" in cuts.problem.text()
    cuts.read.set_value(0.05002)
    qtbot.mouseClick(cuts.put, Qt.MouseButton.LeftButton)
    qtbot.waitUntil(lambda: cuts.list.count() == 1 and not station.records.judging.busy, timeout=30_000)
    shown = cuts.list.item(0)
    assert shown is not None
    assert "predicted" in shown.text()
    qtbot.mouseClick(station.below.buttons[0], Qt.MouseButton.LeftButton)


def pdf_words(path: Path) -> str:
    book = pypdfium2.PdfDocument(path)
    try:
        return "\n".join(page.get_textpage().get_text_bounded() for page in book)
    finally:
        book.close()


def _blow(window: MainWindow, station: BuildStation, tmp_path: Path) -> None:
    """A hammer's blow on a mode of 80 Hz: a test of its frequency, and its give in words."""
    t, w = np.arange(0, 2, 1 / 4000), 2 * np.pi * 80.0
    force = np.where(t < 1e-3, 1.0, 0.0)
    moved = np.exp(-0.02 * w * t) * np.sin(w * t)
    write_wav(tmp_path / "blow.wav", np.column_stack([0.8 * force, 0.8 * moved]), 4000)
    station.ears.strike(tmp_path / "blow.wav", 500.0, 100.0)
    assert abs(window.document.project.shop.tests[-1].value - 80.0) < 1.0
    station.ears.strike(tmp_path / "blow.wav", 0.0, 100.0)
    assert "full scale" in window.notice.message.text()
    window.say("")
