"""The lens Checks: what will not do, before it is bought."""

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QLabel, QPushButton
from pytestqt.qtbot import QtBot

from tests.ui.conftest import settle
from tests.ui.driving import CTRL, machine_of, type_into
from unterbau.studies.purchase.checks import checks
from unterbau.ui.shell.main_window import MainWindow
from unterbau.ui.widgets.quantity_field import QuantityField


def look(window: MainWindow, qtbot: QtBot) -> None:
    window.machine.view.use_lens("checks")
    qtbot.waitUntil(lambda: window.machine.view.behind.known_checks() is not None, timeout=20_000)
    window.machine.view.draw_now()


def test_checks_are_listed_the_worst_first_and_lead_to_their_part(window: MainWindow, qtbot: QtBot) -> None:
    look(window, qtbot)
    bar = window.machine.view.checks_bar
    wanted = checks(machine_of(window), window.document.project.brief)
    assert bar.found == wanted
    assert bar.list.count() == len(wanted)
    row = next(n for n, one in enumerate(wanted) if one.key == "x_drive")
    bar.list.setCurrentRow(row)
    assert window.selection.link == "x_drive"
    assert wanted[row].working in bar.working.text()
    assert bar.asked.text().startswith("asked: ")


def test_a_longer_axis_turns_a_verdict_and_undo_turns_it_back(window: MainWindow, qtbot: QtBot) -> None:
    look(window, qtbot)
    bar = window.machine.view.checks_bar
    window.machine.choose_link("dimensions")
    edit = window.machine.bench.form.controls["travel_x"]
    assert isinstance(edit, QuantityField)
    type_into(qtbot, edit.edit, "2500")
    look(window, qtbot)
    whips = next(one for one in bar.found if one.name == "X screw, whipping")
    assert whips.verdict == "fail"
    assert bar.heats()["x_drive"] == 1.0
    assert "will not do" in bar.head.text()
    qtbot.keyClick(window, Qt.Key.Key_Z, CTRL)
    look(window, qtbot)
    assert next(one for one in bar.found if one.name == "X screw, whipping").verdict == "pass"
    settle(window, qtbot)


def test_units_and_brief_are_followed(window: MainWindow, qtbot: QtBot) -> None:
    look(window, qtbot)
    bar = window.machine.view.checks_bar
    window.view.set_units("inch")
    look(window, qtbot)
    assert not [one for one in bar.found if " N·m" in one.asked + one.working or " mm" in one.asked + one.working]
    window.view.set_units("mm")
    look(window, qtbot)


def test_the_brief_lists_what_will_not_do(window: MainWindow, qtbot: QtBot) -> None:
    window.files.open_demo("clock-plate-mill")
    window.show_station(0)
    wanted = [one for one in checks(machine_of(window), window.document.project.brief) if one.verdict == "fail"]
    assert wanted
    rows = window.brief.findings.rows

    def told() -> bool:
        texts = [text.text() for row in window.brief.findings.rows for text in row.findChildren(QLabel)]
        return all(any(one.name in text for text in texts) for one in wanted)

    qtbot.waitUntil(told, timeout=20_000)
    assert rows is not window.brief.findings.rows
    lead = next(
        button
        for button in window.brief.findings.findChildren(QPushButton)
        if "Z without power" in button.accessibleName()
    )
    qtbot.mouseClick(lead, Qt.MouseButton.LeftButton)
    assert window.selection.link == "z_motor"
    settle(window, qtbot)


def test_a_cure_is_offered_and_done_by_a_click(window: MainWindow, qtbot: QtBot) -> None:
    window.machine.choose_link("dimensions")
    edit = window.machine.bench.form.controls["travel_x"]
    assert isinstance(edit, QuantityField)
    type_into(qtbot, edit.edit, "1600")
    look(window, qtbot)
    bar = window.machine.view.checks_bar
    row = next(n for n, one in enumerate(bar.found) if one.name == "X screw, whipping")
    before = bar.found[row]
    assert before.verdict != "pass"
    bar.list.setCurrentRow(-1)
    bar.list.setCurrentRow(row)
    qtbot.waitUntil(lambda: bar.do.isVisible(), timeout=20_000)
    qtbot.mouseClick(bar.do, Qt.MouseButton.LeftButton)
    look(window, qtbot)
    assert next(one for one in bar.found if one.name == before.name).share < before.share
    window.document.stack.setIndex(0)
    settle(window, qtbot)
