"""The brief by hand: fields, targets, findings that lead to the cure, kinds to start from."""

from pathlib import Path
from typing import Any

import pytest
from PyQt6.QtCore import QEvent, QPoint, Qt
from PyQt6.QtWidgets import QApplication, QPushButton
from pytestqt.qtbot import QtBot

from tests.ui.clipping import cut_off
from tests.ui.conftest import settle
from tests.ui.driving import CTRL, machine_of, number, pick, type_into
from unterbau.files.project_json import read_project
from unterbau.machine.machine import KINDS, links
from unterbau.studies.budget import Finding, budget
from unterbau.studies.propose import propose
from unterbau.ui.shell.main_window import MainWindow
from unterbau.ui.stations.brief import proposing
from unterbau.ui.stations.brief.sketch import BudgetSketch
from unterbau.ui.stations.brief.station import BriefStation
from unterbau.ui.widgets.quantity_field import QuantityField


@pytest.fixture
def brief(window: MainWindow, qtbot: QtBot) -> BriefStation:
    qtbot.keyClick(window, Qt.Key.Key_1, Qt.KeyboardModifier.AltModifier)
    assert window.pages.currentIndex() == 0
    return window.brief


def test_the_brief_is_typed_and_answered_at_once(window: MainWindow, brief: BriefStation, qtbot: QtBot) -> None:
    assert brief.targets.force.text().startswith("Expect 35 N")
    assert "met" in brief.targets.reached.text()
    type_into(qtbot, brief.form.fields["work_x"].edit, "27 1/2 in")
    assert window.document.project.brief.work_x == pytest.approx(0.6985)
    assert any("short" in one.words for one in conflicts(window))
    type_into(qtbot, brief.form.fields["accuracy"].edit, "5 m")
    assert "expected 0.001 to 10 mm" in brief.form.fields["accuracy"].message.text()
    qtbot.mouseClick(brief.form.cuts["aluminium"], Qt.MouseButton.LeftButton, pos=QPoint(8, 8))
    assert brief.targets.force.text().startswith("Expect 133 N")
    type_into(qtbot, brief.form.fields["work_x"].edit, " ")
    assert window.document.project.brief.work_x == 0.0
    assert brief.form.fields["work_x"].edit.text() == ""
    pick(brief.form.process, "laser")
    assert "Not picky" in brief.targets.stiffness.text()
    assert not brief.form.cuts["aluminium"].isVisible()
    assert brief.form.fields["acceleration"].isVisible()
    while window.document.stack.canUndo():
        qtbot.keyClick(window, Qt.Key.Key_Z, CTRL)
    assert brief.form.cuts["aluminium"].isVisible()
    assert not brief.form.cuts["aluminium"].isChecked()
    assert not window.document.modified


def conflicts(window: MainWindow) -> tuple[Finding, ...]:
    project = window.document.project
    return budget(machine_of(window), project.brief, project.prices).conflicts


def about(brief: BriefStation, words: str) -> list[QPushButton]:
    """Return the buttons of a finding; those of the findings before are on their way out."""
    QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete.value)
    return [b for b in brief.findings.findChildren(QPushButton) if words in b.accessibleName()]


def test_a_conflict_leads_to_its_cure(window: MainWindow, brief: BriefStation, qtbot: QtBot) -> None:
    type_into(qtbot, brief.form.fields["work_y"].edit, "700")
    cure, lead = about(brief, "Y: travel")
    assert cure.text() == "travel Y 500 → 700 mm ▸"
    qtbot.mouseClick(cure, Qt.MouseButton.LeftButton)
    assert machine_of(window).dimensions.travel_y == pytest.approx(0.7)
    assert not any("Y: travel" in one.words for one in conflicts(window))
    qtbot.keyClick(window, Qt.Key.Key_Z, CTRL)
    _, lead = about(brief, "Y: travel")
    qtbot.mouseClick(lead, Qt.MouseButton.LeftButton)
    assert window.pages.currentIndex() == 1
    edit = window.machine.bench.form.controls["travel_y"]
    assert isinstance(edit, QuantityField)
    qtbot.waitUntil(edit.edit.hasFocus, timeout=3000)
    type_into(qtbot, edit.edit, "700")
    window.show_station(0)
    assert not any("Y: travel" in one.words for one in conflicts(window))
    settle(window, qtbot)


def test_how_tall_the_work_is_stands_where_there_is_room(
    brief: BriefStation, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    """In the work's outline, or beside its length where that is lower than a line of words."""
    beside: list[str] = []
    measure = BudgetSketch._measure

    def heard(sketch: BudgetSketch, *asked: Any) -> None:
        beside.extend(asked[7:])
        measure(sketch, *asked)

    monkeypatch.setattr(BudgetSketch, "_measure", heard)
    for tall, told in (("30", "30 mm tall"), ("300", "")):
        type_into(qtbot, brief.form.fields["work_z"].edit, tall)
        beside.clear()
        brief.sketch.grab()
        assert beside == [told, ""]


def test_words_about_the_last_machine_are_one_step(window: MainWindow, brief: BriefStation, qtbot: QtBot) -> None:
    brief.form.last.setFocus()
    qtbot.keyClicks(brief.form.last, " It shook")
    assert window.document.project.brief.last_machine.endswith("It shook") or window.document.modified
    assert window.document.stack.count() == 1


@pytest.mark.parametrize("kind", KINDS, ids=lambda k: k.id)
def test_every_kind_from_its_silhouette(
    window: MainWindow, brief: BriefStation, qtbot: QtBot, tmp_path: Path, kind: object
) -> None:
    card = next(one for one in brief.kinds.cards if one.kind is kind)
    qtbot.mouseClick(card, Qt.MouseButton.LeftButton)
    assert window.pages.currentIndex() == 1
    assert window.machine.view.lens == "sizes"
    machine = machine_of(window)
    assert type(machine) is kind.model  # type: ignore[attr-defined]
    before = [number(window, axis) for axis in range(3)]
    assert all(value > 0 for value in before)
    edit = window.machine.bench.form.controls["travel_x"]
    assert isinstance(edit, QuantityField)
    type_into(qtbot, edit.edit, "9 m" if kind.id != "wall-axis" else "99 m")  # type: ignore[attr-defined]
    assert "expected" in edit.message.text()
    assert machine_of(window) == machine
    type_into(qtbot, edit.edit, str(machine.dimensions.travel_x * 1.1 * 1e3))
    assert machine_of(window).dimensions.travel_x == pytest.approx(machine.dimensions.travel_x * 1.1)
    for link in links(machine):
        window.machine.choose_link(link.key)
        assert window.machine.bench.title.text() == link.label
    window.machine.show_why()
    window.machine.view.use_lens("flex")
    window.machine.view.draw_now()
    qtbot.keyClick(window, Qt.Key.Key_Z, CTRL)
    assert machine_of(window) == machine
    assert [number(window, axis) for axis in range(3)] == before
    saved = tmp_path / "kind.unterbau"
    assert window.files.save_to(saved)
    project = window.document.project
    assert read_project(saved).candidates == project.candidates
    window.files.open_demo()
    assert window.files.open(saved)
    assert window.document.project.candidates == project.candidates
    window.selection.choose_candidate(project.candidates[-1].name)
    assert [number(window, axis) for axis in range(3)] == before
    settle(window, qtbot)
    window.show_station(2)
    assert window.compare.waterfall.bars
    assert sum(b.end - b.start for b in window.compare.waterfall.bars[1:-1]) == pytest.approx(
        window.compare.waterfall.bars[-1].end - window.compare.waterfall.bars[0].end, rel=1e-6
    )
    assert not window.notice.isVisible()


def test_nothing_is_cut_off_in_the_brief(window: MainWindow, brief: BriefStation, qtbot: QtBot) -> None:
    for width, height in ((1100, 700), (1280, 800), (1920, 1080)):
        window.resize(width, height)
        qtbot.waitUntil(lambda w=width: window.width() == w)  # type: ignore[misc]
        qtbot.wait(30)
        assert cut_off(window) == []


def test_other_demos_open(window: MainWindow, qtbot: QtBot) -> None:
    for command in window.files.commands():
        if command.id.startswith("demo-"):
            window.actions_by_id[command.id].trigger()
            assert all(number(window, axis) > 0 for axis in range(3)), command.id
            assert not window.notice.isVisible()
            for station in (0, 1, 2):
                window.show_station(station)
    settle(window, qtbot)


def test_three_machines_are_proposed_and_one_is_taken(
    window: MainWindow, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    kinds = ("slab-router", "moving-gantry-router")
    monkeypatch.setattr(
        proposing, "propose", lambda brief, book, seconds, progress: propose(brief, book, 1.0, progress, kinds)
    )
    window.show_station(0)
    station = window.brief
    row = station.proposals
    qtbot.mouseClick(row.look, Qt.MouseButton.LeftButton)
    assert row.look.text() == "stop looking"
    qtbot.mouseClick(row.look, Qt.MouseButton.LeftButton)
    assert row.words.text() == "stopped"
    qtbot.mouseClick(row.look, Qt.MouseButton.LeftButton)
    qtbot.waitUntil(lambda: not row.asker.busy and len(row.shown) == 2, timeout=90_000)
    assert row.words.text().startswith(("each a click", "nothing meets the brief"))
    card, button = row.cards[0]
    assert card.isVisible()
    assert "% of the target" in button.accessibleName()
    before = len(window.document.project.candidates)
    qtbot.mouseClick(button, Qt.MouseButton.LeftButton)
    assert len(window.document.project.candidates) == before + 1
    assert window.selection.candidate.endswith("proposed")
    window.document.stack.undo()
    assert len(window.document.project.candidates) == before
    window.show_station(1)
