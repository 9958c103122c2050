"""The lenses Reach and Shake, and "why is it this?", as a person uses them."""

from functools import partial
from pathlib import Path

import numpy as np
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QPushButton
from pytestqt.qtbot import QtBot

from tests.ui.driving import TUBE, choose, click_link, machine_of, pick, type_into
from unterbau.files.frame_json import read_frame, solve_document
from unterbau.files.project_json import project_text
from unterbau.files.section_text import read_section_text
from unterbau.progress import Silent
from unterbau.sections.drawing import polygons
from unterbau.sections.section import section
from unterbau.sections.solved import CustomSection
from unterbau.studies.account import QUANTITIES
from unterbau.studies.cutting import own_cut
from unterbau.studies.reach import reach
from unterbau.studies.shake import shakes
from unterbau.studies.stability import limit
from unterbau.ui.shell.main_window import MainWindow
from unterbau.ui.stations.machine.reach_bar import make_map


def look(window: MainWindow, qtbot: QtBot, lens: str) -> None:
    """Press a lens, wait for what it shows."""
    view = window.machine.view
    button = next(b for b in view.lenses.buttons() if b.text() == lens.capitalize())
    qtbot.mouseClick(button, Qt.MouseButton.LeftButton)
    qtbot.waitUntil(lambda: not view.behind.reach.busy and not view.behind.shakes.busy, timeout=20_000)
    view.draw_now()


def test_reach_colours_the_bed_and_leads_to_the_weakest_place(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    look(window, qtbot, "reach")
    view = window.machine.view
    found = reach(window.feed.machine())
    place, _ = found.weakest(1)
    assert "softest along y" in view.reach_bar.words.text().lower()
    assert "map" in view.viewport.canvas.shown
    lowest = make_map(found, "stiffness", 0, 1, window.view)
    qtbot.mouseClick(view.reach_bar.go, Qt.MouseButton.LeftButton)
    assert window.selection.place == lowest.place
    assert place.z in (0.0, 0.5, 1.0)
    pick(view.reach_bar.shown, "surfaced")
    view.draw_now()
    assert "droops 0.0 µm" in view.reach_bar.words.text().lower()
    pick(view.reach_bar.height_box, "2")
    view.draw_now()
    assert "droops 0.0 µm" not in view.reach_bar.words.text().lower()
    look(window, qtbot, "flex")
    assert "map" not in view.viewport.canvas.shown


def test_the_map_follows_the_pull_and_the_machine(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    look(window, qtbot, "reach")
    before = window.machine.view.reach_bar.words.text()
    qtbot.keyClick(window, Qt.Key.Key_Z, Qt.KeyboardModifier.AltModifier)
    window.machine.view.draw_now()
    assert "along Z" in window.machine.view.reach_bar.words.text()
    assert window.machine.view.reach_bar.words.text() != before


def test_a_mode_swings_can_be_held_and_is_told_in_words(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    look(window, qtbot, "shake")
    view, bar = window.machine.view, window.machine.view.shake_bar
    assert bar.modes.count() == 6
    first = bar.modes.item(0)
    assert first is not None
    assert "Hz" in first.text()
    assert "chatter" in bar.limit.text()
    assert view.scene is not None
    still = view.scene.points.copy()
    qtbot.waitUntil(lambda: bool(np.abs(view.viewport.canvas.points("faces") - still).max() > 1e-3), timeout=5000)
    qtbot.mouseClick(bar.pause, Qt.MouseButton.LeftButton)
    view._swing.stop()
    held = view.viewport.canvas.points("faces")
    qtbot.wait(200)
    view.draw_now()  # as when an answer comes late
    assert np.array_equal(held, view.viewport.canvas.points("faces"))
    before = bar.detail.text()
    bar.modes.setFocus()
    qtbot.keyClick(bar.modes, Qt.Key.Key_Down)
    assert bar.number == 1
    assert bar.detail.text() != before


def test_the_part_on_the_bench_can_be_tapped(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    click_link(window, qtbot, "gantry_beam")
    look(window, qtbot, "shake")
    bar = window.machine.view.shake_bar
    tool = bar.curves()
    pick(bar.at, "part")
    assert np.abs(bar.curves() - tool).max() > 0.1 * np.abs(tool).max()


def test_every_number_opens_its_account(window: MainWindow, qtbot: QtBot) -> None:
    readout, bench = window.machine.readout, window.machine.bench
    numbers = {one.key: one for one in (*readout.numbers, *readout.figures.values(), readout.hurry)}
    for quantity in QUANTITIES:
        numbers[quantity].setFocus()
        qtbot.keyClick(numbers[quantity], Qt.Key.Key_Return)
        assert bench.accounts == quantity
        told = " ".join(bench.account.texts())
        assert "Assumed:" in told
        assert len(told) > 150
        qtbot.mouseClick(bench.account.back, Qt.MouseButton.LeftButton)
        assert bench.accounts == ""


def test_a_cut_of_ones_own_judges_the_machine(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    path, page = window.machine.load_path, window.machine.bench.cut
    before = path.meaning.text()
    pick(path.cut, "own")
    assert page.isVisible()
    pick(page.material, "aluminium")
    type_into(qtbot, page.fields["diameter"].edit, "8")
    type_into(qtbot, page.fields["width"].edit, "9")
    assert "at most the tool's 8 mm" in page.fields["width"].message.text()
    type_into(qtbot, page.fields["width"].edit, "0.1 in")
    own = window.document.project.own_cut
    assert own.material == "aluminium"
    assert [own.diameter, own.width] == pytest.approx([8e-3, 2.54e-3])
    assert path.meaning.text() != before
    pulls = own_cut(own).force.likely
    assert path.meaning.text().startswith(f"{pulls:.0f} N")
    look(window, qtbot, "shake")
    assert "aluminium, own" in window.machine.view.shake_bar.limit.text()
    pick(page.turning, True)
    assert not page.fields["width"].isVisible()
    window.machine.view.draw_now()
    qtbot.waitUntil(lambda: "the work turns" in window.machine.view.shake_bar.limit.text(), timeout=10_000)
    while window.document.stack.canUndo():
        qtbot.keyClick(window, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert path.meaning.text() == before


def shows(window: MainWindow, title: str) -> bool:
    """Return whether the bench shows the account of a title."""
    return window.machine.bench.account.title.text().startswith(title)


def test_numbers_of_lenses_and_load_path_open_their_accounts(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    station, bench = window.machine, window.machine.bench
    for asked, title in (
        (station.load_path.first, "Stiffness along"),
        (station.load_path.meaning, "The customary cut"),
    ):
        qtbot.mouseClick(asked, Qt.MouseButton.LeftButton)
        assert bench.account.title.text().startswith(title)
    for quantity, title in (("reach", "Weakest place"), ("chatter", "Depth that does not chatter")):
        station.accounts.ask(quantity)
        qtbot.waitUntil(partial(shows, window, title), timeout=20_000)
    for lens, asked, title in (
        ("reach", station.view.reach_bar.words, "Weakest place"),
        ("shake", station.view.shake_bar.limit, "Depth that does not chatter"),
    ):
        look(window, qtbot, lens)
        asked.setFocus()
        qtbot.keyClick(asked, Qt.Key.Key_Return)
        assert bench.account.title.text().startswith(title)
        assert "Assumed:" in " ".join(bench.account.texts())


def test_samples_are_drawn_behind_and_can_be_stopped(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    qtbot.mouseClick(window.machine.readout.numbers[1], Qt.MouseButton.LeftButton)
    page, samples = window.machine.bench.account, window.machine.accounts.samples
    qtbot.mouseClick(page.samples, Qt.MouseButton.LeftButton)
    qtbot.waitUntil(lambda: page.samples.text().startswith("sample "), timeout=10_000)
    window.machine.stop()
    qtbot.waitUntil(lambda: not samples.busy, timeout=5000)
    assert "200 samples" not in page.lines.text()
    qtbot.mouseClick(page.samples, Qt.MouseButton.LeftButton)
    qtbot.waitUntil(lambda: "200 samples" in page.lines.text(), timeout=60_000)
    assert "hangs most on" in page.lines.text()


def test_the_frame_behind_a_number_is_saved(window: MainWindow, qtbot: QtBot, tmp_path: Path) -> None:
    qtbot.mouseClick(window.machine.readout.numbers[0], Qt.MouseButton.LeftButton)
    window.machine.accounts.write_frame(tmp_path / "machine.frame.json")
    result = solve_document(read_frame((tmp_path / "machine.frame.json").read_bytes()))
    tip = next(case for case in result["cases"] if case["id"] == "tip x")["displacements"]["tool tip"]
    assert tip[0] > 0
    window.machine.accounts.write_frame(tmp_path / "gone" / "x.json")
    assert window.notice.isVisible()


def test_a_drawing_with_faults_shows_where_and_a_good_one_is_used(
    window: MainWindow, qtbot: QtBot, tmp_path: Path
) -> None:
    choose(window, qtbot, TUBE)
    click_link(window, qtbot, "gantry_beam")
    own = window.machine.bench.own
    bad = tmp_path / "bad.txt"
    bad.write_text("units mm\noutline 0,0 40,0 0,40 40,40\n", encoding="utf-8")
    dialog = own.open_file(bad)
    assert dialog is not None
    assert "1  this outline crosses itself" in dialog.faults.text()
    assert not dialog.use.isEnabled()
    qtbot.mouseClick(dialog.leave, Qt.MouseButton.LeftButton)
    good = tmp_path / "bar.txt"
    good.write_text("outline 0,0 4,0 4,8 0,8\nhole 1,1 3,1 3,7 1,7\n", encoding="utf-8")
    dialog = own.open_file(good)
    assert dialog is not None
    assert not dialog.use.isEnabled()
    pick(dialog.unit, "cm")
    assert dialog.use.isEnabled()
    qtbot.mouseClick(dialog.use, Qt.MouseButton.LeftButton)
    qtbot.waitUntil(lambda: isinstance(machine_of(window).gantry_beam.section, CustomSection), timeout=60_000)
    beam = machine_of(window).gantry_beam
    assert beam.section_name in project_text(window.document.project)
    own.write_file(tmp_path / "out.svg")
    assert (tmp_path / "out.svg").read_text(encoding="utf-8").startswith("<svg")
    own.write_file(tmp_path / "out.txt")
    area = polygons(read_section_text((tmp_path / "out.txt").read_text(encoding="utf-8")))["section"].area * 1e-6
    assert area == pytest.approx(section(beam.section).properties.A, rel=1e-3)
    missing = own.open_file(tmp_path / "none.txt")
    assert missing is None
    assert own.message.text()


def test_profiles_are_built_up_on_the_bench(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, "bolted slotted profile")
    click_link(window, qtbot, "gantry_beam")
    bench = window.machine.bench
    qtbot.mouseClick(bench.own_wanted, Qt.MouseButton.LeftButton)
    pick(bench.own.build, "back2")
    assert "takes channels" in bench.own.message.text()
    pick(bench.own.build, "side2")
    machine = machine_of(window)
    qtbot.waitUntil(lambda: not bench.own.solving.busy, timeout=60_000)
    machine = machine_of(window)
    assert machine.gantry_beam.section_name.startswith("side2-of-tslot")
    assert "seam" in bench.form.controls
    pick(bench.form.controls["seam"], "bonded")
    machine = machine_of(window)
    assert machine.gantry_beam.seam == "bonded"


def test_a_joint_is_computed_from_its_bolts_on_the_bench(window: MainWindow, qtbot: QtBot) -> None:
    choose(window, qtbot, TUBE)
    click_link(window, qtbot, "beam_joint")
    form = window.machine.bench.form
    pick(form.controls["kind"], "bolts")
    before = window.machine.readout.numbers[1].value
    pick(form.controls["bolts.surface"], "painted")
    assert window.machine.readout.numbers[1].value < before
    assert "slips at" in window.machine.bench.facts.text()
    assert isinstance(window.machine.bench.why_button, QPushButton)


def test_a_limit_is_found_though_the_modes_had_to_make_room(window: MainWindow) -> None:
    """Random hands: modes of a large machine were gone from the store before the limit was asked of them."""
    behind, place = window.machine.view.behind, window.selection.place
    asked = (machine_of(window), place)
    behind.shakes._kept.clear()
    found = behind._limit((asked, behind.cut), Silent())
    assert found is not None
    assert found.likely.depth == limit(shakes(*asked), behind.cut).likely.depth  # type: ignore[union-attr]
