"""The bench: own sizes, own joints, alternatives, causes, money; all by hand and taken back."""

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QSpinBox
from pytestqt.qtbot import QtBot

from tests.ui.conftest import settle
from tests.ui.driving import (
    CTRL,
    TUBE,
    advised,
    choose,
    click_link,
    first_answers,
    machine_of,
    number,
    pick,
    type_into,
)
from unterbau.catalogue.joints import OwnValues
from unterbau.machine.machine import link
from unterbau.studies.advise import ranked
from unterbau.studies.explain import explain
from unterbau.ui.shell.main_window import MainWindow
from unterbau.ui.widgets.choice_box import ChoiceBox
from unterbau.ui.widgets.quantity_field import QuantityField
from unterbau.units import movement_text


def field(window: MainWindow, attribute: str) -> QuantityField:
    found = window.machine.bench.form.controls[attribute]
    assert isinstance(found, QuantityField)
    return found


def count(window: MainWindow, qtbot: QtBot, attribute: str, text: str) -> None:
    spin = window.machine.bench.form.controls[attribute]
    assert isinstance(spin, QSpinBox)
    edit = spin.lineEdit()
    assert edit is not None
    type_into(qtbot, edit, text)


def test_what_comes_late_is_not_put_into_the_part_that_came_onto_the_bench(window: MainWindow, qtbot: QtBot) -> None:
    """Typed and not taken, or solved behind, for a part that has made room: no fault, nothing is changed."""
    choose(window, qtbot, TUBE)
    click_link(window, qtbot, "gantry_beam")
    bench, said = window.machine.bench, list[str]()
    window.machine.trouble.connect(said.append)
    qtbot.mouseClick(bench.own_wanted, Qt.MouseButton.LeftButton)
    before = machine_of(window)
    for edit in (bench.own.fields["height"].edit, bench.own.fields["width"].edit):
        click_link(window, qtbot, "gantry_beam")
        bench.own_wanted.setChecked(True)
        edit.setFocus()
        edit.selectAll()
        qtbot.keyClicks(edit, "155 mm")
        window.machine.choose_link("z_motor")
        assert machine_of(window) == before
    bench.own.chosen.emit("gantry_beam", "rhs-100x60x4")
    assert machine_of(window) == before
    window.machine.choose_link("x_plate")
    thick = bench.form.controls["thickness"]
    assert isinstance(thick, QuantityField)
    thick.edit.setFocus()
    thick.edit.selectAll()
    qtbot.keyClicks(thick.edit, "33 mm")
    window.machine.choose_link("z_guides")
    assert machine_of(window) == before
    assert not said


def test_a_section_solved_for_one_candidate_is_not_put_into_another(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    click_link(window, qtbot, "gantry_beam")
    own = window.machine.bench.own
    qtbot.mouseClick(window.machine.bench.own_wanted, Qt.MouseButton.LeftButton)
    assert own._key == "gantry_beam"
    built = list[object]()
    own.solving.ready.connect(built.append)
    own.solving.ask("side2-of-rhs-92x61x3")
    other = next(one.name for one in window.document.project.candidates if one.name != TUBE)
    choose(window, qtbot, other)
    qtbot.waitUntil(lambda: not own.solving.busy, timeout=20_000)
    assert not built
    click_link(window, qtbot, "gantry_beam")
    assert own._key == "gantry_beam"


def test_a_section_of_ones_own_by_its_dimensions(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    click_link(window, qtbot, "gantry_beam")
    bench = window.machine.bench
    assert not bench.own.isVisible()
    qtbot.mouseClick(bench.own_wanted, Qt.MouseButton.LeftButton)
    assert bench.own.isVisible()
    type_into(qtbot, bench.own.fields["height"].edit, "5 1/4 in")
    assert machine_of(window).gantry_beam.section == "rhs-133.35x80x5"
    type_into(qtbot, bench.own.fields["wall"].edit, "45")
    assert "half of 80 mm" in bench.own.fields["wall"].message.text()
    assert machine_of(window).gantry_beam.section == "rhs-133.35x80x5"
    pick(bench.own.shape, "box")
    assert machine_of(window).gantry_beam.section == "box-133.35x80x5"
    pick(bench.own.shape, "rod")
    assert machine_of(window).gantry_beam.section == "rod-133.35"
    assert not bench.own.fields["wall"].isVisible()
    for _ in range(3):
        qtbot.keyClick(window, Qt.Key.Key_Z, CTRL)
    assert machine_of(window).gantry_beam.section == "rhs-120x80x5"
    assert not window.document.modified


def test_a_joint_taken_into_ones_own_hands(window: MainWindow, qtbot: QtBot) -> None:
    window.machine.choose_link("beam_joint")
    before = number(window, 1)
    kind = window.machine.bench.form.controls["kind"]
    assert isinstance(kind, ChoiceBox)
    pick(kind, "own")
    assert number(window, 1) == pytest.approx(before, rel=1e-6)
    assert field(window, "own.twist").edit.text() == "4 kN·m/rad"
    type_into(qtbot, field(window, "own.shear").edit, "1200")
    assert machine_of(window).beam_joint.own == OwnValues(120e6, 1200e6, 12e3, 4e3, 2.0)
    assert number(window, 1) > 1.01 * before
    type_into(qtbot, field(window, "own.spread").edit, "50")
    assert "expected 1 to 20" in field(window, "own.spread").message.text()
    while window.document.stack.canUndo():
        qtbot.keyClick(window, Qt.Key.Key_Z, CTRL)
    assert number(window, 1) == before
    assert "own.twist" not in window.machine.bench.form.controls


def test_ribs_gussets_and_a_base_plate_by_hand(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    window.machine.choose_link("side")
    before = number(window, 0)
    assert "rib_height" not in window.machine.bench.form.controls
    count(window, qtbot, "ribs", "2")
    assert number(window, 0) > 1.02 * before
    type_into(qtbot, field(window, "rib_height").edit, "300")
    assert "expected 10 mm to 200 mm" in field(window, "rib_height").message.text()
    window.machine.choose_link("bed")
    assert "ribs" not in window.machine.bench.form.controls
    window.machine.choose_link("beam_joint")
    count(window, qtbot, "gussets", "1")
    type_into(qtbot, field(window, "gusset_leg").edit, "2 3/4 in")
    assert machine_of(window).beam_joint.gusset_leg == pytest.approx(0.06985)
    kind = window.machine.bench.form.controls["kind"]
    assert isinstance(kind, ChoiceBox)
    pick(kind, "bolts")
    assert machine_of(window).beam_joint.gussets == 1
    type_into(qtbot, field(window, "bolts.overhang").edit, "10")
    assert "24 to 300 mm for M8" in field(window, "bolts.overhang").message.text()
    count(window, qtbot, "gussets", "0")
    type_into(qtbot, field(window, "bolts.overhang").edit, "30")
    assert machine_of(window).beam_joint.bolts.overhang == pytest.approx(0.03)
    settle(window, qtbot)
    while window.document.stack.canUndo():
        qtbot.keyClick(window, Qt.Key.Key_Z, CTRL)
    assert number(window, 0) == before


def test_spindle_and_drives_have_all_their_values(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    window.machine.choose_link("spindle")
    type_into(qtbot, field(window, "tilt").edit, "60")
    assert machine_of(window).spindle.tilt == pytest.approx(60e3)
    window.machine.choose_link("y_drive")
    assert "count" in window.machine.bench.form.controls
    window.machine.choose_link("x_drive")
    assert "count" not in window.machine.bench.form.controls
    settle(window, qtbot)


def test_try_instead_is_put_in_and_taken_back(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    click_link(window, qtbot, "z_plate")
    advised(window, qtbot)
    listed = window.machine.bench.advice
    rows = [row for row in listed.rows if row.isVisibleTo(listed)]
    assert len(rows) == 8
    best = rows[0].trial
    assert best is not None
    assert best.gain[1] == max(row.trial.gain[1] for row in rows if row.trial)
    before = number(window, 1)
    qtbot.mouseClick(rows[0], Qt.MouseButton.LeftButton)
    assert number(window, 1) / before - 1 == pytest.approx(best.gain[1], rel=1e-6)
    assert machine_of(window) == best.machine
    qtbot.keyClick(window, Qt.Key.Key_Z, CTRL)
    assert number(window, 1) == before
    advised(window, qtbot)
    qtbot.mouseClick(listed.orders.button(1), Qt.MouseButton.LeftButton)
    first = listed.rows[0].trial
    assert first is not None
    assert first.money <= 0
    qtbot.mouseClick(listed.more, Qt.MouseButton.LeftButton)
    shown = [row.trial for row in listed.rows if row.isVisibleTo(listed)]
    assert len(shown) > 8
    assert shown == list(ranked(tuple(t for t in shown if t), 1, "money"))
    window.selection.pull_along(0)
    assert listed.columns[0].text() == "X stiffness"


def test_a_list_that_is_not_wanted_any_more_is_given_up(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    for key in ("gantry_beam", "side_beam", "bed"):
        window.machine.choose_link(key)
        qtbot.waitUntil(lambda: window.machine.advice._jobs.busy, timeout=5000)
    advised(window, qtbot)
    texts = [row.trial.alternative.text for row in window.machine.bench.advice.rows if row.trial]
    assert any("cross member" in text for text in texts)
    window.machine.choose_link("cross_member")
    qtbot.waitUntil(lambda: window.machine.advice._jobs.busy, timeout=5000)
    qtbot.keyClick(window, Qt.Key.Key_Escape)
    advised(window, qtbot)
    assert window.machine.bench.advice.busy.text() == ""


def test_why_is_this_so_soft(window: MainWindow, qtbot: QtBot) -> None:
    qtbot.mouseClick(window.machine.bench.why_button, Qt.MouseButton.LeftButton)
    page = window.machine.bench.why
    assert window.machine.bench.explains
    assert page.title.text() == f"{link(machine_of(window), window.selection.link).label}: why so soft?"
    click_link(window, qtbot, "beam_joint")
    assert not window.machine.bench.explains  # another part comes as itself
    qtbot.mouseClick(window.machine.bench.why_button, Qt.MouseButton.LeftButton)
    assert page.title.text() == "beam ends: why so soft?"
    machine, solved = machine_of(window), first_answers(window, machine_of(window))[1]
    found = explain(machine, solved, "beam_joint", 1)
    assert movement_text(found.compliance * 100.0, "mm") in page.first.text()
    texts = page.texts()
    twisted = next(n for n, text in enumerate(texts) if text.startswith("It is twisted in its face: "))
    assert "k 400 kN·m/rad; give = Σ M² / (k·F²)" in texts[twisted + 1]
    assert "Source:" in page.facts.text()
    click_link(window, qtbot, "gantry_beam")
    qtbot.keyClick(window, Qt.Key.Key_Y, CTRL)
    assert page.texts()[0].startswith("It twists")
    assert "Pushed with one's hand, 100 N at its softest end" in page.facts.text()
    assert "closed tube" in page.cure.text()
    window.view.set_units("inch")
    assert "thou" in page.first.text()
    window.selection.pull_with(200.0)
    assert "45 lbf" in page.first.text()
    qtbot.mouseClick(page.back, Qt.MouseButton.LeftButton)
    assert not window.machine.bench.explains
    qtbot.keyClick(window, Qt.Key.Key_Y, CTRL)
    assert window.machine.bench.explains


def test_the_money_of_a_part_is_on_the_bench(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    click_link(window, qtbot, "gantry_beam")
    assert window.machine.bench.money.text() == "1 in all: 13.6 kg, 33 EUR, invented price"
    assert "tube 120×80×5" in window.machine.bench.money.toolTip()


def test_the_cut_says_what_the_pull_means(window: MainWindow, qtbot: QtBot) -> None:
    panel = window.machine.load_path
    give = float(first_answers(window, machine_of(window))[0].compliance[1, 1])
    assert panel.meaning.text().startswith(f"35 N (21 – 49 N) move the tool {35 * give * 1e6:.0f} µm (")
    assert "takes " in panel.meaning.text()
    assert "mm deep, ended by 100 µm of error" in panel.meaning.text()
    pick(panel.cut, "aluminium")
    assert window.document.project.cut == "aluminium"
    assert panel.meaning.text().startswith("133 N (80 – 186 N)")
    assert "Kienzle" in panel.meaning.toolTip()
    qtbot.keyClick(window, Qt.Key.Key_Z, CTRL)
    assert panel.meaning.text().startswith("35 N")
    assert panel.cut.currentText() == "hardwood, heavy"
