"""The lens Clash: two pieces lit, the head put where they meet, marks on the cards."""

from dataclasses import replace

from pytestqt.qtbot import QtBot

from tests.ui.conftest import settle
from tests.ui.driving import machine_of
from unterbau.machine.changes.change import Weight
from unterbau.project import edits
from unterbau.structure.footing import Footing
from unterbau.structure.parts import Hung, Place
from unterbau.studies.clash import clashes, collisions
from unterbau.ui.shell.main_window import MainWindow


def look(window: MainWindow, qtbot: QtBot) -> None:
    window.machine.view.use_lens("clash")
    qtbot.waitUntil(lambda: window.machine.view.behind.known_clash() is not None, timeout=20_000)
    window.machine.view.draw_now()


def test_a_bracket_in_the_way_is_lit_the_head_put_there_and_gone_by_undo(window: MainWindow, qtbot: QtBot) -> None:
    look(window, qtbot)
    view = window.machine.view
    assert "nothing collides" in view.clash_bar.head.text()
    assert view.clash_bar.clash is None
    machine = machine_of(window)
    bracket = Weight("weight_1", Footing("gantry beam", "front", 0.75, 0.3), "bracket", Hung(0.2, 0.02, 0.04, 0.02))
    changed = replace(machine, changes=(bracket,))
    project, name = window.document.project, window.selection.candidate
    window.document.apply(edits.set_machine(project, name, changed), "a bracket")
    settle(window, qtbot)
    look(window, qtbot)
    found = clashes(changed)
    assert f"{len(found.found)} pair" in view.clash_bar.head.text()
    row = next(n for n in range(view.clash_bar.list.count()) if "bracket 1" in view.clash_bar.list.item(n).text())  # type: ignore[union-attr]
    view.clash_bar.list.setCurrentRow(-1)
    view.clash_bar.list.setCurrentRow(row)
    clash = view.clash_bar.clash
    assert clash is not None
    assert window.selection.place == clash.place
    view.draw_now()
    assert {"body 0", "body 1"} <= view.viewport.canvas.shown.keys()
    assert "helps: move the bracket 1" in view.clash_bar.cures.text()
    card = window.machine.shelf.card(name)
    qtbot.waitUntil(lambda: window.machine.shelf.card(name).facts.collide == collisions(changed), timeout=10_000)
    assert "collides" in card.accessibleName()
    window.document.stack.undo()
    window.selection.move_head(Place())
    settle(window, qtbot)
    look(window, qtbot)
    assert "body 0" not in view.viewport.canvas.shown
    qtbot.waitUntil(lambda: window.machine.shelf.card(name).facts.collide == 0, timeout=10_000)
    view.use_lens("flex")
    settle(window, qtbot)
    assert view.viewport.canvas.shown["faces"].GetProperty().GetOpacity() == 1.0


def test_screws_that_hide_are_listed_and_told_why(window: MainWindow, qtbot: QtBot) -> None:
    look(window, qtbot)
    bar = window.machine.view.clash_bar
    rows = [bar.list.item(n).text() for n in range(bar.list.count())]  # type: ignore[union-attr]
    assert any(text.startswith("·") and "never: put in before" in text for text in rows)
    bar.list.setCurrentRow(0)
    assert "80 mm" in bar.cures.text()
    window.machine.view.use_lens("flex")
    window.selection.move_head(Place())
    settle(window, qtbot)
