"""Parts of the window by themselves: document, jobs, scene, strip, fields, pictures."""

from dataclasses import replace
from threading import Event, Thread, current_thread, main_thread

import numpy as np
import pytest
from PyQt6.QtCore import QObject, QRectF, Qt
from PyQt6.QtGui import QColor, QImage, QPainter
from PyQt6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from unterbau.band import Band
from unterbau.errors import InputError
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import bodies_of, to_frame
from unterbau.progress import Progress
from unterbau.project import edits
from unterbau.project.fresh import new_project
from unterbau.sections.section import section
from unterbau.structure.parts import Place
from unterbau.ui import theme
from unterbau.ui.commands import Command
from unterbau.ui.document import Document
from unterbau.ui.jobs.garbage import Garbage, collect_here
from unterbau.ui.jobs.job import Job
from unterbau.ui.shell.command_finder import matching
from unterbau.ui.stations.machine.candidates import times
from unterbau.ui.stations.machine.part_fields import FIELDS, section_from
from unterbau.ui.stations.machine.path_strip import NARROWEST, StripLink, causes_text, widths
from unterbau.ui.stations.machine.readout import band_text, direction_text, place_text
from unterbau.ui.stations.machine.try_instead import percent
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.viewport.scene import build_scene, corners, largest_movement, moved
from unterbau.ui.widgets.quantity_field import QuantityField
from unterbau.ui.widgets.thumbnail import outlines, paint


def test_steps_with_one_key_are_one_and_returning_leaves_none(themed: QApplication) -> None:
    document = Document(new_project())
    start = document.project
    names = [edits.rename_project(start, f"p{n}") for n in range(3)]
    for project in names:
        document.apply(project, "rename", "name")
    assert document.stack.count() == 1
    document.apply(start, "rename", "name")
    assert document.stack.count() == 0
    document.apply(names[0], "one", "a")
    document.apply(names[1], "two", "b")
    document.apply(names[1], "nothing")
    assert document.stack.count() == 2
    document.stack.undo()
    assert document.project is names[0]
    assert document.modified


def run_job(qtbot: QtBot, work: object, cancel: bool = False) -> tuple[str, object]:
    owner, seen = QObject(), []
    job = Job(work, owner)  # type: ignore[arg-type]
    job.succeeded.connect(lambda value: seen.append(("succeeded", value)))
    job.failed.connect(lambda text: seen.append(("failed", text)))
    job.cancelled.connect(lambda: seen.append(("cancelled", None)))
    job.start()
    if cancel:
        job.cancel()
    qtbot.waitUntil(lambda: bool(seen), timeout=5000)
    assert job.wait(5.0)
    assert len(seen) == 1
    return seen[0]


class Cycle:
    """Unreachable as soon as it is made; tells which thread frees it."""

    def __init__(self, seen: list[Thread]) -> None:
        self.me, self.seen = self, seen

    def __del__(self) -> None:
        self.seen.append(current_thread())


def test_what_a_view_leaves_is_freed_in_the_windows_thread(themed: QApplication, qtbot: QtBot) -> None:
    collect_here(themed)
    collector = themed.findChild(Garbage)
    assert collector is not None
    seen: list[Thread] = []
    kept: list[list[int]] = []
    Cycle(seen)
    run_job(qtbot, lambda progress: kept.extend([n] for n in range(100_000)))
    collector.look()
    assert seen == [main_thread()]


def test_a_job_ends_in_exactly_one_way(qtbot: QtBot) -> None:
    def refuse(progress: Progress) -> None:
        raise InputError("x", "cannot be")

    def fault(progress: Progress) -> None:
        raise ZeroDivisionError("oh")

    gate = Event()

    def slow(progress: Progress) -> None:
        for step in range(1000):
            progress.step(step, 1000, "working")
            gate.wait(0.005)

    assert run_job(qtbot, lambda progress: 7) == ("succeeded", 7)
    assert run_job(qtbot, refuse) == ("failed", "x: cannot be")
    outcome, text = run_job(qtbot, fault)
    assert outcome == "failed"
    assert "could not be computed" in str(text)
    assert run_job(qtbot, slow, cancel=True) == ("cancelled", None)


def test_the_scene_follows_the_frame() -> None:
    """A rigid movement of the nodes moves the drawn points as a rigid body."""
    machine, place = MovingGantry(), Place(0.3, 0.6, 0.4)
    built = to_frame(machine, place, "likely")
    scene = build_scene(bodies_of(machine, place), built)
    turn, shift = np.array([0.01, -0.02, 0.03]), np.array([0.1, 0.2, -0.1])
    nodes = built.frame.nodes
    u = np.hstack([shift + np.cross(turn, nodes), np.tile(turn, (len(nodes), 1))])
    wanted = scene.points + shift + np.cross(turn, scene.points)
    assert np.abs(moved(scene, u, 1.0) - wanted).max() < 1e-9
    assert np.abs(moved(scene, u, 0.0) - scene.points).max() == 0
    assert largest_movement(scene, u) == pytest.approx(np.linalg.norm(wanted - scene.points, axis=1).max())
    assert scene.faces.max() < 1e6
    assert scene.lines.reshape(-1, 3)[:, 1:].max() < len(scene.points)
    assert len(scene.line_owner) * 3 == len(scene.lines)


def test_ink_stands_on_corners_sharp_or_rounded() -> None:
    assert len(corners(np.array(section("box-120x80x8").loops[0]))) == 4
    assert len(corners(np.array(section("rhs-120x80x5").loops[0]))) == 4
    assert corners(np.array(section("chs-50x3").loops[0])) == []
    assert len(corners(np.array(section("tslot-40L-1x2").loops[0]))) > 20


@pytest.mark.parametrize("shares", [[0.5, 0.3, 0.2], [0.97, 0.01, 0.01, 0.01], [1.0, 0.0, 0.0], [0.0, 0.0], [1.0]])
def test_strip_widths_fill_the_strip_and_none_is_lost(shares: list[float]) -> None:
    found = widths(shares, 600.0)
    assert sum(found) == pytest.approx(600)
    assert min(found) >= NARROWEST - 1e-9
    assert widths([], 10.0) == []
    if shares == [0.5, 0.3, 0.2]:
        assert found == pytest.approx([300, 180, 120])


def test_words_for_links_places_and_bands() -> None:
    causes = {
        "axial": 0.0,
        "shear": 0.06,
        "torsion": 0.2,
        "bending": 0.14,
        "joint": 0.0,
        "distortion": 0.0,
        "wall": 0.0,
    }
    text = causes_text(StripLink("b", "beam", "part", 0.4, causes))
    assert text == "beam: 40.0% of the movement (bending 35%, twist 50%, shear 15%)"
    assert place_text(Place()) == "head at X mid, Y mid, Z lowest"
    assert place_text(Place(0.0, 0.25, 1.0)) == "head at X left, Y 25%, Z highest"
    assert direction_text(np.array([0.0, 0.999, 0.01])) == "along Y"
    assert direction_text(np.array([0.1, 0.8, 0.6])) == "along 0.80 Y +0.60 Z"
    assert direction_text(np.array([0.1, 0.8, -0.6])) == "along 0.80 Y −0.60 Z"
    assert band_text(Band(3e6, 2e6, 1e6), 1e-6) == "1.0 – 3.0"


def test_typed_sections(themed: QApplication) -> None:
    assert section_from("80x40x4", "rhs-60x40x3") == "rhs-80x40x4"
    assert section_from(" 100 × 50 × 4 ", "rhs-60x40x3") == "rhs-100x50x4"
    assert section_from("shs-60x60x4", "rhs-60x40x3") == "shs-60x60x4"
    assert section_from("square tube 60×60×4", "rhs-60x40x3") == "shs-60x60x4"
    with pytest.raises(InputError, match="no such section"):
        section_from("whatever", "rhs-60x40x3")
    assert {"section", "material", "fill", "turned"} == {f.attribute for f in next(iter(FIELDS.values()))}


def test_a_field_keeps_what_was_typed_until_it_is_right(themed: QApplication, qtbot: QtBot) -> None:
    view = ViewSettings()
    field = QuantityField("thickness", "length", view)
    qtbot.addWidget(field)
    field.show()
    field.set_value(0.02)
    heard: list[float] = []
    field.committed.connect(heard.append)
    field.edit.setText("2 cows")
    qtbot.keyClick(field.edit, Qt.Key.Key_Return)
    assert field.edit.text() == "2 cows"
    assert "expected a length" in field.message.text()
    assert field.edit.accessibleDescription()
    view.set_units("inch")
    assert field.edit.text() == "2 cows"
    field.edit.setText("1 in")
    qtbot.keyClick(field.edit, Qt.Key.Key_Return)
    assert heard == [pytest.approx(0.0254)]
    assert not field.message.isVisible()
    field.refuse("too thick for this machine")
    assert field.message.text() == "too thick for this machine"
    assert field.value == 0.02


def test_changes_on_cards_are_short() -> None:
    assert [times(r) for r in (1.0, 1.004, 0.9, 2.0, 9.4, 15.2)] == ["0%", "0%", "−10%", "+100%", "+840%", "×15"]
    assert [percent(s) for s in (0.0, -0.001, 0.2, -0.34)] == ["0%", "0%", "+20%", "−34%"]


def test_the_finder_puts_names_before_explanations() -> None:
    def nothing() -> None: ...

    commands = [
        Command("a", "Bench: X plate", nothing, tip="runs along the beam"),
        Command("b", "Bench: gantry beam", nothing),
        Command("c", "Beam off", nothing, enabled=lambda: False),
    ]
    assert [c.id for c in matching(commands, "beam")] == ["b", "a"]
    assert [c.id for c in matching(commands, "plate x")] == ["a"]
    assert len(matching(commands, "")) == 2


def test_cards_show_the_machine_in_lines(themed: QApplication) -> None:
    image = QImage(120, 80, QImage.Format.Format_RGB32)
    image.fill(QColor("white"))
    painter = QPainter(image)
    paint(painter, outlines(bodies_of(MovingGantry(), Place())), QRectF(5, 5, 110, 70))
    paint(painter, [], QRectF(0, 0, 10, 10))
    painter.end()
    colours = {image.pixelColor(x, y).name() for x in range(0, 120, 2) for y in range(0, 80, 2)}
    assert len(colours) > 3
    assert image.pixelColor(1, 1) == QColor("white")


def test_heat_runs_from_pale_to_rust_and_stays_inside() -> None:
    assert theme.heat(-1).name() == theme.heat(0).name() == theme.PAPER.heat[0]
    assert theme.heat(2).name() == theme.PAPER.heat[-1]
    assert theme.heat(0.5).name() == theme.PAPER.heat[2]


def test_a_new_project_is_a_machine_that_works() -> None:
    project = new_project()
    assert project.benchmark == project.candidates[0].name
    assert replace(project, name="x").candidates is project.candidates
