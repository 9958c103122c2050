"""The Workshop station: pieces, bars to scale, what there is to saw from; saved and undone."""

from dataclasses import replace
from pathlib import Path

import pytest
from PyQt6.QtCore import QPoint, Qt
from pytestqt.qtbot import QtBot

from tests.ui.conftest import settle
from tests.ui.driving import CTRL, machine_of, type_into
from unterbau.files.project_json import read_project, write_project
from unterbau.machine.machine import lay_out
from unterbau.project import edits
from unterbau.shop.pieces import pieces_of
from unterbau.structure.parts import Guide
from unterbau.ui.shell.late_stations import WORKSHOP
from unterbau.ui.shell.main_window import MainWindow
from unterbau.ui.stations.workshop.station import WorkshopStation


def opened(window: MainWindow, qtbot: QtBot, view: str) -> WorkshopStation:
    window.show_station(WORKSHOP)
    station = window.workshop
    station.show_view(view)
    planned(window, qtbot)
    return station


def planned(window: MainWindow, qtbot: QtBot) -> None:
    station = window.workshop
    asked = station.asked
    qtbot.waitUntil(lambda: asked in station.plans and bool(station.bars.plans), timeout=20_000)
    station._on_plans(station.plans.known(asked))


def test_pieces_are_listed_and_the_chosen_one_is_drawn_with_its_holes(window: MainWindow, qtbot: QtBot) -> None:
    station = opened(window, qtbot, "pieces")
    wanted = pieces_of(lay_out(machine_of(window)))
    assert station.list.count() == len(wanted)
    row = next(n for n, one in enumerate(wanted) if "bed" in one.names)
    station.list.setCurrentRow(row)
    assert station.panel.title.text().startswith(f"{wanted[row].label}   1 × plate")
    assert station.panel.holes.rowCount() == len(wanted[row].holes)
    assert "bed" in station.panel.where.accessibleName()
    assert station.panel.caution.text().startswith("Caution")
    assert f"{sum(one.count for one in wanted)} pieces" in station.summary.text()
    window.show_station(1)


def test_a_piece_is_chosen_on_its_bar_and_bars_follow_what_there_is(window: MainWindow, qtbot: QtBot) -> None:
    station = opened(window, qtbot, "bars")
    first = station.bars.plans[0]
    first.bars.grab()  # it knows what is where when it was drawn
    labels = [one.label for one in first.plan.pieces]  # type: ignore[union-attr]
    qtbot.mouseClick(first.bars, Qt.MouseButton.LeftButton, pos=first.bars.place_of(labels[-1]).toPoint())
    assert station.panel.title.text().startswith(labels[-1])
    assert "(proven)" in first.words.text()
    type_into(qtbot, first.line, "3000 at 21; own 1 × 1000")
    planned(window, qtbot)
    shop = window.document.project.shop
    assert [(one.length, one.price, one.own) for one in shop.bars] == [(3.0, 21.0, 0), (1.0, 0.0, 1)]
    assert " for " in station.summary.text()
    assert first.line.text() == "3000 mm at 21; own 1 × 1000 mm"
    qtbot.keyClick(window, Qt.Key.Key_Z, CTRL)
    assert not window.document.project.shop.bars
    window.show_station(1)
    settle(window, qtbot)


def test_what_is_no_bar_is_answered_in_place_and_a_piece_too_long_named(window: MainWindow, qtbot: QtBot) -> None:
    station = opened(window, qtbot, "bars")
    first = station.bars.plans[0]
    type_into(qtbot, first.line, "six metres")
    assert '"six metres" is no bar' in first.message.text()
    assert not window.document.project.shop.bars
    type_into(qtbot, first.line, "500")
    planned(window, qtbot)
    assert "longer than every bar" in station.bars.plans[0].words.text()
    window.document.stack.setIndex(0)
    planned(window, qtbot)
    window.show_station(1)


def test_saw_cuts_are_typed_saved_and_read_again(window: MainWindow, qtbot: QtBot, tmp_path: Path) -> None:
    station = opened(window, qtbot, "bars")
    type_into(qtbot, station.kerf.edit, "1.2")
    planned(window, qtbot)
    assert window.document.project.shop.kerf == pytest.approx(0.0012)
    path = tmp_path / "sawn.unterbau"
    write_project(path, window.document.project)
    assert read_project(path).shop == window.document.project.shop
    type_into(qtbot, station.kerf.edit, "80")
    assert "0 to 50 mm" in station.kerf.message.text()
    assert window.document.project.shop.kerf == pytest.approx(0.0012)
    window.document.stack.setIndex(0)
    window.show_station(1)


def test_the_station_follows_the_candidate(window: MainWindow, qtbot: QtBot) -> None:
    station = opened(window, qtbot, "pieces")
    other = window.document.project.candidates[2]
    window.selection.choose_candidate(other.name)
    wanted = pieces_of(lay_out(other.machine))
    assert station.list.count() == len(wanted)
    assert station.summary.text().startswith(other.name)
    planned(window, qtbot)
    window.show_station(1)
    settle(window, qtbot)


def test_plates_lie_on_sheets_of_a_size_that_is_typed(window: MainWindow, qtbot: QtBot) -> None:
    station = opened(window, qtbot, "sheets")
    first = station.sheets.plans[0]
    first.sheets.grab()
    label = first.plan.pieces[0].label  # type: ignore[union-attr]
    qtbot.mouseClick(first.sheets, Qt.MouseButton.LeftButton, pos=first.sheets.place_of(label).toPoint())
    assert station.panel.title.text().startswith(label)
    assert "1 sheet; no plan has fewer (proven)" in first.words.text()
    assert "sheets" in station.summary.text()
    type_into(qtbot, first.line, "1500 x 3000")
    planned(window, qtbot)
    assert [(one.length, one.width) for one in window.document.project.shop.sheets] == [(1.5, 3.0)]
    assert station.sheets.plans[0].line.text() == "1500 × 3000 mm"
    type_into(qtbot, station.sheets.plans[0].line, "large")
    assert "is no sheet" in station.sheets.plans[0].message.text()
    window.document.stack.setIndex(0)
    assert not window.document.project.shop.sheets
    window.show_station(1)


def test_states_of_the_list_are_chosen_paid_undone_and_come_back_from_a_file(
    window: MainWindow, qtbot: QtBot, tmp_path: Path
) -> None:
    station = opened(window, qtbot, "shopping")
    page = station.shopping.page
    assert page.table.rowCount() == len(page.basket.rows) > 10
    plan = page.basket.plan
    row = max(range(len(page.basket.rows)), key=lambda n: page.basket.rows[n].money)
    page.boxes[row].setCurrentIndex(page.boxes[row].findData("ordered"))
    page.boxes[row].activated.emit(page.boxes[row].currentIndex())
    assert page.basket.rows[row].state == "ordered"
    assert page.basket.spent == pytest.approx(page.basket.rows[row].money)
    type_into(qtbot, page.paid[row].edit, "12.50")
    assert page.basket.spent == pytest.approx(12.5)
    assert "spent" in page.words.text()
    path = tmp_path / "list.csv"
    station.shopping.save_to(path)
    window.document.stack.setIndex(0)
    assert page.basket.spent == 0.0
    station.shopping.read_from(path)
    assert page.basket.spent == pytest.approx(12.5)
    assert page.basket.plan == pytest.approx(plan)
    path.write_text("nonsense", encoding="utf-8")
    station.shopping.read_from(path)
    assert "expected the heading" in window.notice.message.text()
    window.say("")
    window.document.stack.setIndex(0)
    window.show_station(1)


def test_what_was_bought_and_is_needed_no_longer_is_marked(window: MainWindow, qtbot: QtBot) -> None:
    station = opened(window, qtbot, "shopping")
    page = station.shopping.page
    row = next(n for n, one in enumerate(page.basket.rows) if one.part == "x_guides" and "block" in one.words)
    page.state_chosen.emit(page.basket.rows[row], "here")
    project, name = window.document.project, window.selection.candidate
    machine = machine_of(window)
    window.document.apply(edits.set_machine(project, name, replace(machine, x_guides=Guide("25"))), "larger")
    assert "no longer fit" in page.wrong.text()
    last = page.table.item(page.table.rowCount() - 1, 1)
    assert last is not None
    assert last.text() == "bought and no longer needed"
    qtbot.mouseClick(page.settle, Qt.MouseButton.LeftButton)
    assert not page.basket.wrong
    assert not window.document.project.shop.bought
    window.document.stack.undo()
    assert page.basket.wrong
    window.document.stack.setIndex(0)
    assert not page.wrong.isVisible()
    window.show_station(1)
    settle(window, qtbot)


def test_a_plate_is_dragged_and_moved_by_keys_and_what_is_in_the_way_is_said(window: MainWindow, qtbot: QtBot) -> None:
    station = opened(window, qtbot, "sheets")
    first = station.sheets.plans[0]
    view = first.sheets
    view.grab()
    label = first.plan.pieces[0].label  # type: ignore[union-attr]
    start = view.place_of(label).toPoint()
    end = start + QPoint(120, 0)
    qtbot.mousePress(view, Qt.MouseButton.LeftButton, pos=start)
    qtbot.mouseMove(view, end)
    qtbot.mouseRelease(view, Qt.MouseButton.LeftButton, pos=end)
    (laid,) = window.document.project.shop.by_hand
    planned(window, qtbot)
    assert "as laid by hand" in first.words.text()
    before = max(one.x for one in laid.plates)
    view.grab()
    qtbot.keyClick(view, Qt.Key.Key_Right, Qt.KeyboardModifier.ShiftModifier)
    (laid,) = window.document.project.shop.by_hand
    assert max(one.x for one in laid.plates) == pytest.approx(before + 0.001, abs=1e-9)
    planned(window, qtbot)
    view.grab()
    start = view.place_of(label).toPoint()
    off = QPoint(view.width() + 200, 0)
    qtbot.mousePress(view, Qt.MouseButton.LeftButton, pos=start)
    qtbot.mouseMove(view, start + off)
    qtbot.mouseRelease(view, Qt.MouseButton.LeftButton, pos=start + off)
    assert "there is no sheet" in first.message.text()
    for _ in range(150):
        qtbot.keyClick(view, Qt.Key.Key_Left)
        if "border" in first.message.text() or "closer" in first.message.text():
            break
    assert "border" in first.message.text() or "closer" in first.message.text()
    assert window.document.stack.index() <= 2, "moves of a plate by keys are one step"
    planned(window, qtbot)
    qtbot.mouseClick(first.button, Qt.MouseButton.LeftButton)
    assert not window.document.project.shop.by_hand
    window.document.stack.setIndex(0)
    planned(window, qtbot)
    window.show_station(1)


def test_who_makes_a_piece_hours_and_minutes(window: MainWindow, qtbot: QtBot) -> None:
    station = opened(window, qtbot, "pieces")
    station.choose("A")
    panel, page = station.panel, station.working.page
    qtbot.waitUntil(lambda: "within" in panel.needs.text())
    piece = window.workshop.drawings.piece
    assert piece is not None
    assert (panel.how.findData("print") >= 0) == (piece.sort == "plate"), "bars are not printed"
    panel.how.setCurrentIndex(panel.how.findData("have made"))
    panel.how.activated.emit(panel.how.currentIndex())
    assert window.document.project.shop.made[0].how == "have made"
    station.show_view("work")
    assert not panel.isVisible()
    before = page.words.text()
    type_into(qtbot, page.paces["rail"].edit, "300")
    assert window.document.project.shop.pace.rail == 300.0
    assert page.words.text() != before
    type_into(qtbot, page.paces["rail"].edit, "-3")
    assert "600 minutes" in page.paces["rail"].message.text()
    type_into(qtbot, page.prints["walls"].edit, "4")
    assert window.document.project.shop.printing.walls == 4
    last = page.loads.item(page.loads.rowCount() - 1, 0)
    assert last is not None
    assert last.text().startswith("the whole machine")
    window.document.stack.setIndex(0)
    station.show_view("pieces")
    window.show_station(1)
    settle(window, qtbot)


def test_all_drawings_are_written_behind_and_one_piece_at_once(
    window: MainWindow, qtbot: QtBot, tmp_path: Path
) -> None:
    station = opened(window, qtbot, "pieces")
    with qtbot.waitSignal(station.wrote, timeout=30_000):
        station.drawings.write_into(tmp_path / "all")
    assert (tmp_path / "all" / "pieces.pdf").stat().st_size > 10_000
    assert "all" in window.notice.message.text()
    station.drawings.write_piece(tmp_path / "a.svg")
    assert (tmp_path / "a.svg").read_text(encoding="utf-8").startswith("<svg")
    station.drawings.write_piece(tmp_path / "a.doc")
    assert "expected .pdf" in window.notice.message.text()
    station.drawings.write_into(tmp_path / "more")
    qtbot.mouseClick(station.drawings.all, Qt.MouseButton.LeftButton)
    qtbot.waitUntil(lambda: not station.drawings.busy, timeout=30_000)
    assert station.drawings.all.text() == "all drawings …"
    window.say("")
    window.show_station(1)


def test_offers_of_shops_and_dates(window: MainWindow, qtbot: QtBot) -> None:
    station = opened(window, qtbot, "shopping")
    page = station.shopping.page
    page.table.setCurrentCell(1, 0)
    type_into(qtbot, page.offers, "Iron yard 9 in 5 days; Screw shop 7 from 100")
    assert [one.shop for one in window.document.project.shop.offers] == ["Iron yard", "Screw shop"]
    assert page.chosen.text().startswith("Iron yard: 1 line")
    type_into(qtbot, page.postage, "Iron yard 4.5")
    assert "postage 4.50" in page.chosen.text()
    type_into(qtbot, page.offers, "cheap")
    assert "is no offer" in page.problem.text()
    page.boxes[1].setCurrentIndex(page.boxes[1].findData("ordered"))
    page.boxes[1].activated.emit(page.boxes[1].currentIndex())
    assert page.held.text().startswith("held up by:")
    assert window.document.project.shop.bought[0].shop == "Iron yard"
    type_into(qtbot, page.due[1], "2026-12-24")
    assert page.held.text().endswith("(ordered, here 2026-12-24)")
    type_into(qtbot, page.due[1], "at Christmas")
    assert "expected a date" in page.problem.text()
    window.document.stack.setIndex(0)
    assert not window.document.project.shop.offers
    window.show_station(1)
    settle(window, qtbot)


def test_sawn_bars_leave_the_rack_and_what_is_left_goes_back(window: MainWindow, qtbot: QtBot) -> None:
    station = opened(window, qtbot, "bars")
    first = station.bars.plans[0]
    assert first.plan is not None
    assert first.plan.plan is not None
    left = [bar.left for bar in first.plan.plan.bars if bar.left >= 0.1]
    qtbot.mouseClick(first.button, Qt.MouseButton.LeftButton)
    own = window.document.project.shop.of(first.plan.section, first.plan.material)
    assert sum(one.own for one in own) == len(left)
    type_into(qtbot, station.carried.edit, "500")
    planned(window, qtbot)
    assert "too long for the car" in station.bars.plans[0].words.text()
    window.document.stack.setIndex(0)
    planned(window, qtbot)
    window.show_station(1)


def test_the_list_is_looked_at_by_how_its_lines_are_had(window: MainWindow, qtbot: QtBot) -> None:
    station = opened(window, qtbot, "shopping")
    page = station.shopping.page
    qtbot.waitUntil(lambda: not station.plans.busy, timeout=30_000)
    assert next(iter(page.chips)) == "all"
    assert {"make", "buy"} <= set(page.chips)
    qtbot.mouseClick(page.chips["make"], Qt.MouseButton.LeftButton)
    shown = [row for n, row in enumerate(page.basket.rows) if not page.table.isRowHidden(n)]
    assert shown
    assert {row.how for row in shown} == {"make"}
    assert f"make {len(shown)} · " in page.chips["make"].text()
    assert "goes back into the rack" in page.whole.text()
    qtbot.mouseClick(page.chips["all"], Qt.MouseButton.LeftButton)
    assert not any(page.table.isRowHidden(n) for n in range(page.table.rowCount()))
    window.show_station(1)
