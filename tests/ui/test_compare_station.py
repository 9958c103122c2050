"""Compare: picture, where the flex went, figures; sorted, copied, saved."""

import csv
import itertools
import zipfile
from pathlib import Path

import numpy as np
import pytest
from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QGuiApplication, QMouseEvent
from PyQt6.QtTest import QAbstractItemModelTester
from PyQt6.QtWidgets import QApplication, QFileDialog
from pytestqt.qtbot import QtBot

from tests.ui.driving import CTRL, SHIFT, TUBE, first_answers
from unterbau.band import Band
from unterbau.machine.machine import bodies_of, to_frame
from unterbau.studies.compare import Flow
from unterbau.studies.designs import Bounds
from unterbau.studies.purchase.check import counted
from unterbau.studies.purchase.checks import checks
from unterbau.studies.search import search
from unterbau.ui.shell.main_window import MainWindow
from unterbau.ui.stations.compare.figures_model import COLUMNS
from unterbau.ui.stations.compare.picture import Dot, places
from unterbau.ui.stations.compare.quantities import unbeaten
from unterbau.ui.stations.compare.waterfall import bars
from unterbau.ui.theme import em
from unterbau.ui.viewport.scene import build_scene


@pytest.fixture
def compare(window: MainWindow, qtbot: QtBot) -> MainWindow:
    qtbot.keyClick(window, Qt.Key.Key_3, Qt.KeyboardModifier.AltModifier)
    assert window.pages.currentIndex() == 2
    return window


def test_bars_sum_to_the_whole() -> None:
    flows = (
        Flow("a", "A", 5.0, 1.0),
        Flow("b", "B", 2.0, 2.001),
        Flow("c", "C", 1.0, 3.0),
        Flow("rest", "rest", 0.5, 0.4),
    )
    found = bars(flows, 2.0, "before", "after")
    assert [bar.label for bar in found] == ["before", "A", "C", "rest", "all others", "after"]
    assert found[0].end == pytest.approx(17.0)
    assert found[-1].end == pytest.approx(12.802)
    for before, after in itertools.pairwise(found[:-1]):
        assert after.start == before.end
    assert found[-2].end == pytest.approx(found[-1].end)


def test_the_flex_of_the_demo_is_followed_to_the_last_micrometre(compare: MainWindow) -> None:
    compare.selection.choose_candidate("plate box")
    found = compare.compare.waterfall.bars
    assert found[0].label == "★ bolted slotted profile"
    assert found[-1].label == "plate box"
    likely = first_answers(compare, compare.document.project.candidate("plate box").machine)[0]
    assert found[-1].end == pytest.approx(100 * likely.compliance[1, 1])
    assert sum(bar.end - bar.start for bar in found[1:-1]) == pytest.approx(found[-1].end - found[0].end, rel=1e-9)
    first = first_answers(compare, compare.document.project.candidate(found[0].label.removeprefix("★ ")).machine)[0]
    told = f"{likely.compliance[1, 1] * 1e8:.0f} µm instead of {first.compliance[1, 1] * 1e8:.0f} µm"
    assert told in compare.compare.sentence.text()
    compare.selection.choose_candidate("bolted slotted profile")
    assert "the benchmark itself" in compare.compare.sentence.text()


def test_a_bar_leads_back_to_the_bench(compare: MainWindow, qtbot: QtBot) -> None:
    compare.selection.choose_candidate("plate box")
    falls = compare.compare.waterfall
    row = next(n for n, bar in enumerate(falls.bars) if bar.key == "x_plate")
    qtbot.mouseClick(falls, Qt.MouseButton.LeftButton, pos=QPointF(200, (row + 0.5) * 1.55 * em()).toPoint())
    assert compare.pages.currentIndex() == 1
    assert compare.selection.link == "x_plate"


def test_the_picture_has_a_dot_for_each_and_a_click_chooses(compare: MainWindow, qtbot: QtBot) -> None:
    picture = compare.compare.picture
    assert len(picture.dots) == 4
    assert sum(dot.benchmark for dot in picture.dots) == 1
    assert all(dot.up.low < dot.up.likely < dot.up.high for dot in picture.dots)
    spot = picture.place_of(TUBE).toPoint()
    qtbot.mouseClick(picture.plot.viewport(), Qt.MouseButton.LeftButton, pos=spot)
    assert compare.selection.candidate == TUBE
    assert "mass, kg 131" in picture.accessibleDescription()


def test_names_stand_beside_dots_and_not_on_each_other(compare: MainWindow) -> None:
    masses = (Band(100.0, 100.0, 100.0), Band(101.0, 101.0, 101.0))
    near = Band(1, 2.01, 3)
    dots = [Dot("one name", masses[0], Band(1, 2, 3), 5.0, False), Dot("another name", masses[1], near, 6.0, False)]
    found = places(dots, 0.2, 0.01)
    assert found[0].anchor != found[1].anchor or found[0].up != found[1].up
    rows = [QRectF(b.right, b.up, 1.0, 0.05) for b in found]
    assert not rows[0].intersects(rows[1])


def test_the_table_is_sorted_and_copied(compare: MainWindow, qtbot: QtBot) -> None:
    table = compare.compare.table
    tester = QAbstractItemModelTester(table.figures, QAbstractItemModelTester.FailureReportingMode.Fatal)
    header = table.horizontalHeader()
    assert header is not None
    qtbot.mouseClick(
        header.viewport(), Qt.MouseButton.LeftButton, pos=QPointF(header.sectionPosition(2) + 20.0, 8.0).toPoint()
    )
    model = table.model()
    assert model is not None
    shown = [str(model.index(row, 0).data()) for row in range(4)]
    order = [float(str(model.index(row, 2).data()).split()[0]) for row in range(4)]
    assert order in (sorted(order), sorted(order, reverse=True))
    assert shown != [c.name for c in compare.document.project.candidates]
    qtbot.keyClick(compare, Qt.Key.Key_C, CTRL | SHIFT)
    clipboard = QGuiApplication.clipboard()
    assert clipboard is not None
    lines = clipboard.text().splitlines()
    assert len(lines) == 5
    assert lines[0].startswith("candidate\tX  N/µm")
    assert all(line.count("\t") == lines[0].count("\t") for line in lines)
    table.setFocus()
    table.selectRow(0)
    qtbot.keyClick(table, Qt.Key.Key_Down)
    assert compare.selection.candidate == shown[1].removeprefix("★ ")
    qtbot.keyClick(table, Qt.Key.Key_C, CTRL)
    del tester


def test_the_figures_are_saved(compare: MainWindow, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    target = tmp_path / "figures"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(target), ""))
    compare.compare.save.click()
    rows = list(csv.DictReader((tmp_path / "figures.csv").read_text(encoding="utf-8").splitlines()))
    assert len(rows) == 4
    assert not compare.compare.save_to(tmp_path / "none" / "f.csv")
    assert "was not written" in compare.notice.message.text()


def test_columns_are_chosen_and_marked_rows_are_saved_as_a_table(compare: MainWindow, tmp_path: Path) -> None:
    table, station = compare.compare.table, compare.compare
    menu = station.columns.menu()
    assert menu is not None
    actions = {action.text(): action for action in menu.actions()}
    assert "X moves" not in table.copied()
    actions["droop"].setChecked(False)
    next(action for words, action in actions.items() if words.startswith("Y moves")).setChecked(True)
    head = table.copied().splitlines()[0].split("\t")
    assert "droop" not in head
    assert "Y moves  kg" in head
    table.clearSelection()
    table.selectAll()
    assert len(table.marked()) == 4
    assert station.save_to(tmp_path / "figures.ods")
    with zipfile.ZipFile(tmp_path / "figures.ods") as opened:
        text = opened.read("content.xml").decode("utf-8")
    assert all(one.name in text for one in compare.document.project.candidates)
    assert 'office:value-type="float"' in text
    actions["droop"].setChecked(True)


def test_one_machine_is_seen_over_another(compare: MainWindow, qtbot: QtBot) -> None:
    compare.selection.choose_candidate("plate box")
    qtbot.mouseClick(compare.compare.over, Qt.MouseButton.LeftButton)
    view, ghosting = compare.machine.view, compare.machine.ghosting
    assert compare.pages.currentIndex() == 1
    assert view.lens == "shape"
    assert ghosting.box.currentData() == "bolted slotted profile"
    qtbot.waitUntil(lambda: not compare.feed.busy, timeout=60_000)
    view.draw_now()
    drawn = view.viewport.canvas.points("other")
    other, mine = (compare.document.project.candidate(name).machine for name in ("bolted slotted profile", "plate box"))
    builts = [to_frame(machine, compare.selection.place) for machine in (mine, other)]
    tip, there = (built.frame.nodes[built.tip] for built in builts)
    scene = build_scene(bodies_of(other, compare.selection.place), builts[1])
    assert np.allclose(drawn, scene.points + tip - there, atol=1e-5)
    view.use_lens("flex")
    view.draw_now()
    ghosting.choose("")
    compare.show_station(2)


def test_the_station_follows_what_is_edited(compare: MainWindow, qtbot: QtBot) -> None:
    compare.selection.choose_candidate(TUBE)
    compare.machine.choose_link("z_plate")
    qtbot.keyClick(compare, Qt.Key.Key_BracketRight)
    assert "computed" in compare.compare.head.text()
    qtbot.waitUntil(lambda: compare.compare.head.text() == "", timeout=20_000)
    compare.view.set_units("inch")
    assert "thou" in compare.compare.sentence.text()


def test_checks_before_buying_are_counted_for_each(compare: MainWindow, qtbot: QtBot) -> None:
    project = compare.document.project
    wanted = [counted(checks(one.machine, project.brief)) for one in project.candidates]
    figures = compare.compare.table.figures
    column = next(n for n, one in enumerate(COLUMNS, 1) if one.title == "checks")

    def shown() -> list[str]:
        return [str(figures.index(row, column).data()) for row in range(len(wanted))]

    qtbot.waitUntil(lambda: shown() == wanted, timeout=30_000)


def test_any_answer_is_drawn_against_any_other(compare: MainWindow) -> None:
    station = compare.compare
    across, up, third = station.drawn
    for box, key in ((across, "money"), (up, "droop"), (third, "mass")):
        box.setFocus()
        box.setCurrentIndex(box.findData(key))
        box.activated.emit(box.currentIndex())
    found = {row.name: row.figures for row in station.table.figures.rows}
    for dot in station.picture.dots:
        figures = found[dot.name]
        assert figures is not None
        assert dot.across.likely == pytest.approx(figures.cost.money)
        assert dot.up.likely == pytest.approx(figures.answers.droop.likely * 1e6)
        assert dot.third == pytest.approx(figures.answers.likely.mass)
    assert "droop, µm" in station.picture.accessibleDescription()


def test_who_is_unbeaten() -> None:
    """Less of the first and more of the second is better; by hand."""
    points = [(1.0, 1.0), (2.0, 3.0), (3.0, 2.0), (4.0, 4.0), (1.5, 0.5)]
    assert unbeaten(points, (False, True)) == [0, 1, 3]
    assert unbeaten(points, (True, True)) == [3]


def test_the_verdict_names_the_candidate_and_what_differs(compare: MainWindow, qtbot: QtBot) -> None:
    station = compare.compare
    qtbot.waitUntil(lambda: "For this brief" in station.verdict.words.text(), timeout=30_000)
    text = station.verdict.words.text()
    assert "Runner-up" in text
    assert any(one.name in text for one in compare.document.project.candidates)
    compare.selection.choose_candidate(TUBE)
    assert "gantry beam" in station.differs.toolTip()
    assert "→" in station.differs.text()
    compare.selection.choose_candidate("bolted slotted profile")
    assert station.differs.text() == ""
    assert "whose doubt it is" in station.doubt.text()


def test_a_report_is_one_page_of_html_or_pages_of_pdf(
    compare: MainWindow, qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    station = compare.compare
    qtbot.waitUntil(lambda: "For this brief" in station.verdict.words.text(), timeout=30_000)
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(tmp_path / "page"), ""))
    station.report.click()
    data = (tmp_path / "page.pdf").read_bytes()
    assert data.startswith(b"%PDF")
    assert data.count(b"/Type /Page\n") >= 2
    assert station.report_to(tmp_path / "page.html")
    text = (tmp_path / "page.html").read_text(encoding="utf-8")
    assert text.count("base64,") == 5
    assert station.verdict.words.text().split(",")[0] in text
    for one in compare.document.project.candidates:
        assert f"{one.name}</h3>" in text
    assert "differs from ★" in text
    assert "http" not in text
    assert not station.report_to(tmp_path / "none" / "page.pdf")
    assert "was not written" in compare.notice.message.text()


def test_a_search_fills_the_picture_and_a_design_becomes_a_candidate(compare: MainWindow, qtbot: QtBot) -> None:
    """Two things vary; the front is that of all designs solved one by one."""
    station = compare.compare
    compare.selection.choose_candidate(TUBE)
    station.open_drawer.click()
    drawer = station.drawer
    assert drawer.isVisible()
    drawer.look.click()
    assert "press what may vary" in drawer.words.text()
    for key in ("spindle_mount", "z_plate"):
        drawer.chips.buttons[key].click()
    free = drawer.chosen()
    assert {one.key for one in free} == {"spindle_mount", "z_plate"}
    count = len(free[0].values) * len(free[1].values)
    assert f"{count} designs" in drawer.words.text()
    drawer.look.click()
    qtbot.waitUntil(lambda: "all tried" in drawer.words.text(), timeout=60_000)
    machine = compare.document.project.candidate(TUBE).machine
    every = search(machine, free, Bounds(), "stiffest", compare.document.project.prices, 60.0, compare.selection.place)
    assert {one.choice for one in drawer.designs} == {one.design.choice for one in every.unbeaten}
    before = len(compare.document.project.candidates)
    drawer.list.setCurrentRow(0)
    drawer.list.setFocus()
    qtbot.keyClick(drawer.list, Qt.Key.Key_Return)
    assert len(compare.document.project.candidates) == before + 1
    assert drawer.designs
    compare.document.stack.undo()
    assert len(compare.document.project.candidates) == before
    station.open_drawer.click()
    assert not drawer.isVisible()


def test_a_card_dropped_on_another_compares_both(window: MainWindow, qtbot: QtBot) -> None:
    shelf = window.machine.shelf
    held, under = shelf.card("plate box"), shelf.card(TUBE)
    middle = held.rect().center()
    way = under.mapTo(shelf, under.rect().center()) - held.mapTo(shelf, middle)
    qtbot.mousePress(held, Qt.MouseButton.LeftButton, pos=middle)
    for share in (0.3, 0.7, 1.0):
        place = middle + way * share
        move = QMouseEvent(
            QMouseEvent.Type.MouseMove, QPointF(place), QPointF(held.mapToGlobal(place)), Qt.MouseButton.NoButton,
            Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier,
        )  # fmt: skip
        QApplication.sendEvent(held, move)
    assert under.target
    assert not held.target
    qtbot.mouseRelease(held, Qt.MouseButton.LeftButton, pos=middle + way)
    assert window.pages.currentIndex() == 2
    assert window.selection.candidate == "plate box"
    assert window.document.project.benchmark == TUBE
    assert not under.target
    window.document.stack.undo()
    assert window.document.project.benchmark == "bolted slotted profile"


def test_what_may_vary_is_pressed_on_the_outline(compare: MainWindow, qtbot: QtBot) -> None:
    compare.selection.choose_candidate(TUBE)
    compare.compare.open_drawer.click()
    drawer = compare.compare.drawer
    chips = drawer.chips
    assert set(chips.buttons) >= {"gantry_beam", "beam_joint", "x_stance"}
    chips.grab()
    qtbot.mouseClick(chips.buttons["gantry_beam"], Qt.MouseButton.LeftButton)
    qtbot.mouseClick(chips.buttons["x_stance"], Qt.MouseButton.LeftButton)
    assert {(one.key, one.field) for one in drawer.chosen()} == {
        ("gantry_beam", "section"), ("dimensions", "x_stance")
    }  # fmt: skip
    assert "25 designs" in drawer.words.text()
    chips.buttons["gantry_beam"].setFocus()
    qtbot.keyClick(chips.buttons["gantry_beam"], Qt.Key.Key_Space)
    assert [one.field for one in drawer.chosen()] == ["x_stance"]
    middles = [chips.buttons[key].geometry() for key in chips.buttons]
    assert all(not a.intersects(b) for n, a in enumerate(middles) for b in middles[:n]), "no chip lies on another"
    compare.compare.open_drawer.click()
