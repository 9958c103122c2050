"""The Machine station driven as a person does, in a real window."""

import numpy as np
import pytest
from PyQt6.QtCore import QPoint, Qt
from pytestqt.qtbot import QtBot

from tests.machines import router, router_of
from tests.ui.conftest import settle
from tests.ui.driving import TUBE, choose, click_link, first_answers, machine_of, number, type_into
from unterbau.machine.machine import with_part
from unterbau.project import edits
from unterbau.structure.parts import Member
from unterbau.studies.answers import Early
from unterbau.ui.shell.main_window import MainWindow


def test_the_demo_opens_with_everything_answered(window: MainWindow) -> None:
    m = window.machine
    assert m.shelf.cards[0].facts.name == "bolted slotted profile"
    assert m.shelf.cards[0].facts.benchmark
    assert all(number(window, axis) > 0.1 for axis in range(3))
    assert all("–" in band.text() for band in m.readout.bands)
    assert m.readout.figures["droop"].text().endswith("µm")
    assert "back right" in m.readout.figures["droop"].toolTip()
    assert m.readout.figures["shake"].toolTip().count("Hz") == 6
    assert "Pull 100 N front to back and the tool moves" in m.load_path.first.text()
    assert sum(link.share for link in m.load_path.strip.links) == pytest.approx(1, abs=0.01)
    widest = max(m.load_path.strip.links, key=lambda one: one.share)
    assert m.bench.title.text() == widest.label == "gantry beam"
    assert m.readout.softest.text().startswith("softest 0.")
    assert "along" in m.readout.softest.text()
    assert window.header.project.text().startswith("Carving router for instrument makers")


def test_a_link_is_clicked_and_comes_to_the_bench(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    for key, title in (("gantry_beam", "gantry beam"), ("x_guides", "X guides"), ("bed", "bed")):
        click_link(window, qtbot, key)
        assert window.machine.bench.title.text() == title
        assert window.selection.link == key
    qtbot.keyClick(window.machine.load_path.strip, Qt.Key.Key_Left)
    assert window.selection.link == "bed_fixing"


def test_a_section_is_stepped_with_one_key_and_taken_back(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    click_link(window, qtbot, "gantry_beam")
    before, bar = number(window, 1), window.machine.bench
    shown = bar.form.controls["section"].currentText()  # type: ignore[union-attr]
    for _ in range(3):
        qtbot.keyClick(window, Qt.Key.Key_BracketRight)
    machine = window.document.project.candidate(TUBE).machine
    assert router(machine).gantry_beam.section == "rhs-160x80x5"
    assert number(window, 1) > before
    assert window.document.modified
    assert "▲" in window.machine.readout.changes[1].text()
    qtbot.keyClick(window, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert router_of(window.document.project, TUBE).gantry_beam.section == "rhs-120x80x5"
    assert number(window, 1) == before
    assert bar.form.controls["section"].currentText() == shown  # type: ignore[union-attr]
    assert not window.document.modified
    qtbot.keyClick(window, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.ShiftModifier)
    assert router_of(window.document.project, TUBE).gantry_beam.section == "rhs-160x80x5"
    settle(window, qtbot)


def test_the_better_machine_is_kept_as_another_candidate(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    qtbot.keyClick(window, Qt.Key.Key_D, Qt.KeyboardModifier.ControlModifier)
    copy = f"{TUBE} 2"
    assert window.selection.candidate == copy
    click_link(window, qtbot, "z_plate")
    qtbot.keyClick(window, Qt.Key.Key_BracketRight)
    assert (
        number(window, 1) > first_answers(window, window.document.project.candidate(TUBE).machine)[0].compliance[1, 1]
    )
    qtbot.keyClick(window, Qt.Key.Key_B, Qt.KeyboardModifier.ControlModifier)
    assert window.document.project.benchmark == copy
    assert window.machine.readout.against.text() == "this is the ★ benchmark"
    qtbot.keyClick(window, Qt.Key.Key_F2)
    type_into(qtbot, window.machine.shelf.name, "thicker Z plate")
    assert window.document.project.benchmark == "thicker Z plate"
    qtbot.keyClick(window, Qt.Key.Key_Delete, Qt.KeyboardModifier.ControlModifier)
    assert len(window.document.project.candidates) == 4
    assert window.document.project.benchmark == "bolted slotted profile"
    for _ in range(5):
        qtbot.keyClick(window, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert [c.name for c in window.document.project.candidates] == [
        card.facts.name for card in window.machine.shelf.cards
    ]
    assert not window.document.modified
    settle(window, qtbot)


def test_pull_and_load_change_the_sentence(window: MainWindow, qtbot: QtBot) -> None:
    panel = window.machine.load_path
    qtbot.mouseClick(panel.axis_buttons.button(2), Qt.MouseButton.LeftButton)
    assert "Pull 100 N up" in panel.first.text()
    type_into(qtbot, panel.load.edit, "2*20")
    assert "Pull 40 N up" in panel.first.text()
    type_into(qtbot, panel.load.edit, "-5")
    assert panel.load.message.text()
    assert window.selection.load == 40
    type_into(qtbot, panel.load.edit, "banana")
    assert "expected a force" in panel.load.message.text()
    assert panel.load.edit.text() == "banana"


def test_inches_are_shown_and_typed(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    click_link(window, qtbot, "z_plate")
    field = window.machine.bench.form.controls["thickness"]
    assert field.edit.text() == "35 mm"  # type: ignore[union-attr]
    qtbot.mouseClick(window.header.units.button(1), Qt.MouseButton.LeftButton)
    assert field.edit.text() == "1.378 in"  # type: ignore[union-attr]
    type_into(qtbot, field.edit, '1 1/2"')  # type: ignore[union-attr]
    assert router_of(window.document.project, TUBE).z_plate.thickness == pytest.approx(0.0381)
    type_into(qtbot, field.edit, "40 mm")  # type: ignore[union-attr]
    assert router_of(window.document.project, TUBE).z_plate.thickness == pytest.approx(0.04)
    type_into(qtbot, field.edit, "9 ft")  # type: ignore[union-attr]
    assert "expected 0.079 in to 4.724 in" in field.message.text()  # type: ignore[union-attr]
    assert field.edit.text() == "9 ft"  # type: ignore[union-attr]
    assert router_of(window.document.project, TUBE).z_plate.thickness == pytest.approx(0.04)
    settle(window, qtbot)


def test_a_section_is_typed_by_its_sizes(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    click_link(window, qtbot, "gantry_beam")
    box = window.machine.bench.form.controls["section"]
    type_into(qtbot, box.lineEdit(), "150x100x5")  # type: ignore[union-attr, arg-type]
    assert router_of(window.document.project, TUBE).gantry_beam.section == "rhs-150x100x5"
    type_into(qtbot, box.lineEdit(), "giraffe")  # type: ignore[union-attr, arg-type]
    assert "nearest: " in window.machine.bench.form.messages["section"].text()
    assert router_of(window.document.project, TUBE).gantry_beam.section == "rhs-150x100x5"
    settle(window, qtbot)


def test_every_part_can_be_changed_on_the_bench(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    for key, attribute, value in (
        ("side_beam", "fill", "epoxy-granite-10"), ("beam_joint", "kind", "flange"), ("y_guides", "preload", "medium"),
        ("x_drive", "kind", "ballscrew-25"), ("cutter", "material", "steel-s235"),
        ("bed", "material", "aluminium-5083"),
    ):  # fmt: skip
        window.machine.choose_link(key)
        box = window.machine.bench.form.controls[attribute]
        place = next(n for n in range(box.count()) if box.itemData(n) == value)  # type: ignore[union-attr]
        box.setCurrentIndex(place)  # type: ignore[union-attr]
        box.activated.emit(place)  # type: ignore[union-attr]
        assert getattr(getattr(window.document.project.candidate(TUBE).machine, key), attribute) == value
    window.machine.choose_link("gantry_beam")
    place = window.machine.bench.joint.findData("weld")
    window.machine.bench.joint.setCurrentIndex(place)
    window.machine.bench.joint.activated.emit(place)
    assert router_of(window.document.project, TUBE).beam_joint.kind == "weld"
    window.machine.choose_link("spindle")
    type_into(qtbot, window.machine.bench.form.controls["mass"].edit, "12 lb")  # type: ignore[union-attr]
    assert router_of(window.document.project, TUBE).spindle.mass == pytest.approx(5.443, abs=0.001)
    while window.document.stack.canUndo():
        window.document.stack.undo()
    settle(window, qtbot)


def test_a_fill_without_a_hollow_is_refused_beside_the_field(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    machine = with_part(machine_of(window), "gantry_beam", Member("upn-120", "steel-s235"))
    window.document.apply(edits.set_machine(window.document.project, TUBE, machine), "channel")
    window.document.stack.setClean()
    window.machine.choose_link("gantry_beam")
    box = window.machine.bench.form.controls["fill"]
    place = next(n for n in range(box.count()) if box.itemData(n) == "epoxy-granite-10")  # type: ignore[union-attr]
    box.activated.emit(place)  # type: ignore[union-attr]
    assert "no closed hollow" in window.machine.bench.form.messages["fill"].text()
    assert not window.document.modified


def test_the_picture_shows_the_machine_and_its_flex(window: MainWindow, qtbot: QtBot) -> None:
    view = window.machine.view
    view.draw_now()
    flex = view.viewport.picture().astype(int)
    assert len(np.unique(flex.reshape(-1, 3), axis=0)) > 50
    assert "flex drawn ×" in view.factor_text.text()
    drawn = view.exaggeration
    view.factor.setValue(view.factor.value() + 50)
    assert view.exaggeration > drawn
    qtbot.mouseClick(view.lenses.button(0), Qt.MouseButton.LeftButton)
    view.draw_now()
    shape = view.viewport.picture().astype(int)
    tall = min(len(shape), len(flex))  # what stands below the picture differs
    assert np.abs(shape[:tall] - flex[:tall]).max() > 50
    assert not view.legend.isVisible()


def test_a_part_is_found_and_chosen_in_the_picture(window: MainWindow, qtbot: QtBot) -> None:
    view = window.machine.view
    view.use_lens("shape")
    view.draw_now()
    canvas = view.viewport.canvas
    hits = {
        view.viewport.part_at(QPoint(x, y)): QPoint(x, y)
        for x in range(0, canvas.width(), 45)
        for y in range(0, canvas.height(), 45)
    }
    assert {"", "bed", "gantry_beam", "side", "z_plate", "side_beam"} <= set(hits)
    qtbot.mouseClick(canvas, Qt.MouseButton.LeftButton, pos=hits["side"])
    assert window.selection.link == "side"
    qtbot.mouseMove(canvas, hits["gantry_beam"])
    qtbot.waitUntil(lambda: window.selection.hover == "gantry_beam", timeout=2000)


def test_sizes_of_the_machine_are_typed(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    before = number(window, 2)
    sizes = next(b for b in window.machine.view.lenses.buttons() if b.text() == "Sizes")
    qtbot.mouseClick(sizes, Qt.MouseButton.LeftButton)
    bench = window.machine.bench
    assert bench.title.text() == "sizes of the machine"
    assert not bench.larger.isVisible()
    type_into(qtbot, bench.form.controls["travel_x"].edit, "650 + 350")  # type: ignore[union-attr]
    machine = window.document.project.candidate(TUBE).machine
    assert machine.dimensions.travel_x == pytest.approx(1.0)
    assert number(window, 2) < before
    type_into(qtbot, bench.form.controls["travel_x"].edit, "70 ft")  # type: ignore[union-attr]
    assert "expected 50 mm to 6000 mm" in bench.form.controls["travel_x"].message.text()  # type: ignore[union-attr]
    assert window.document.project.candidate(TUBE).machine is machine
    bench.form.controls["cross_members"].setValue(7)  # type: ignore[union-attr]
    assert router_of(window.document.project, TUBE).dimensions.cross_members == 7
    for _ in range(2):
        qtbot.keyClick(window, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert number(window, 2) == pytest.approx(before)
    assert not window.document.modified
    settle(window, qtbot)


def test_the_head_is_moved_by_numbers(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    head, before = window.machine.view.head, number(window, 2)
    assert [field.edit.text() for field in head.fields.values()] == ["325 mm", "250 mm", "0 mm"]
    type_into(qtbot, head.fields["x"].edit, "0")
    assert "X left" in window.machine.readout.place.text()
    assert number(window, 2) > before
    type_into(qtbot, head.fields["z"].edit, "80")
    assert window.selection.place.z == pytest.approx(0.5)
    type_into(qtbot, head.fields["y"].edit, "700")
    assert head.message.text() == "expected 0 to 500 mm"
    assert window.selection.place.y == 0.5
    assert not window.document.modified
    settle(window, qtbot)
    window.machine.view.draw_now()
    scene = window.machine.view.scene
    assert scene is not None
    built = first_answers(window, window.machine.feed.machine())[1].built
    assert built.frame.nodes[built.tip][0] == pytest.approx(-0.325)


def test_the_next_sizes_are_solved_before_they_are_asked_for_and_bands_come_early(
    window: MainWindow, qtbot: QtBot
) -> None:
    """Once all is still, a step's answers are there at once; its bands come before the rest, and stay what they are."""
    choose(window, qtbot, TUBE)
    click_link(window, qtbot, "gantry_beam")
    settle(window, qtbot)
    feed, told = window.feed, list[Early]()
    qtbot.waitUntil(lambda: len(feed._begun) == 2 and not feed.busy, timeout=60_000)
    feed.early_ready.connect(told.append)
    asked: list[object] = []
    feed.waiting.connect(lambda: asked.append(feed.machine()))
    before = machine_of(window)
    qtbot.keyClick(window, Qt.Key.Key_BracketRight)
    assert machine_of(window) != before
    assert feed.likely(machine_of(window)) is not None
    assert not asked, "its answers were there before the key"
    qtbot.waitUntil(lambda: feed.full(machine_of(window)) is not None, timeout=60_000)
    full = feed.full(machine_of(window))
    assert full is not None
    assert told == [Early(full.stiffness)]
    window.document.stack.undo()
    settle(window, qtbot)
