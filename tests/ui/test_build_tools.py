"""Tools of the Build station by themselves: the list of steps, the instruments, the spectrum of a tap."""

from datetime import datetime

import numpy as np
import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtWidgets import QInputDialog, QWidget
from pytestqt.qtbot import QtBot

from tests.ui.driving import CTRL
from unterbau.band import Band
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import bodies_of
from unterbau.shop.build.schedule import schedule
from unterbau.shop.build.steps import Step
from unterbau.shop.lifting import Balance
from unterbau.shop.measure.hammer import Circle, Struck
from unterbau.shop.measure.tap import tap_test
from unterbau.structure.parts import Place
from unterbau.studies.answers import Mode
from unterbau.ui.stations.build.step_list import StepList
from unterbau.ui.stations.build.step_words import balance_words, struck_words, when_words
from unterbau.ui.stations.build.tap_panel import TapPanel, peak_words
from unterbau.ui.widgets.instrument_box import HAND, OTHER, REHEARSED, Answer, InstrumentBox
from unterbau.ui.widgets.thumbnail import outlines
from unterbau.ui.widgets.where_view import WhereView

STEPS = [Step("a", "first", (), 1.0), Step("b", "second", ("a",), 2.0), Step("c", "third", (), 1.0)]


@pytest.fixture
def parent(qtbot: QtBot) -> QWidget:
    found = QWidget()
    qtbot.addWidget(found)
    return found


def test_a_step_is_moved_by_keys_and_the_list_says_the_order_wanted(parent: QWidget, qtbot: QtBot) -> None:
    found, told = StepList(parent), list[tuple[str, ...]]()
    found.moved.connect(told.append)
    rows = {one.step.id: one for one in schedule(tuple(STEPS), datetime(2026, 12, 1, 18)).rows}
    found.show_steps(STEPS, rows, frozenset({"a"}), ("b", "c"), "b")
    assert found.ids() == ("a", "b", "c")
    assert [found.item(n).text()[0] for n in range(3)] == ["✓", "▸", "▸"]  # type: ignore[union-attr]
    assert found.currentRow() == 1
    qtbot.keyClick(found, Qt.Key.Key_Down, CTRL)
    qtbot.keyClick(found, Qt.Key.Key_Up, CTRL)
    assert told == [("a", "c", "b"), ("b", "a", "c")]
    found.setCurrentRow(0)
    qtbot.keyClick(found, Qt.Key.Key_Up, CTRL)
    assert len(told) == 2, "nothing stands above the first"
    qtbot.keyClick(found, Qt.Key.Key_Down)
    assert found.currentRow() == 1, "plain arrows walk"
    model = found.model()
    assert model is not None
    model.moveRow(found.rootIndex(), 2, found.rootIndex(), 0)
    assert told[-1] == ("c", "a", "b"), "as when it is dragged"


def test_instruments_are_chosen_and_read(parent: QWidget, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch) -> None:
    box, said = InstrumentBox(parent), list[Answer]()
    box.said.connect(said.append)
    box.ask("bench", "tram")
    assert not box.asker.busy, "by hand nothing is read"
    box.show_machine(MovingGantry())
    box.choose(REHEARSED)
    assert box.is_rehearsed
    for what, name in (("bench", "tram"), ("bench", "tram"), ("push", "X"), ("weigh", ""), ("hidden", "")):
        box.ask(what, name)
        qtbot.waitUntil(lambda: not box.asker.busy, timeout=30_000)
    first, second, push, weighed, hidden = said
    assert first.text != second.text, "each reading is taken anew"
    assert len(push.forces) == len(push.readings) > 8
    assert weighed.value > 50.0
    assert hidden.text.startswith("hidden were: ")
    box.again.click()
    box.ask("hidden")
    qtbot.waitUntil(lambda: len(said) == 6 and not box.asker.busy, timeout=30_000)
    assert said[-1].text != hidden.text
    monkeypatch.setattr(QInputDialog, "getText", lambda *_: ("/dev/none", True))
    trouble: list[str] = []
    box.trouble.connect(trouble.append)
    box.choose(OTHER)
    box.ask("bench", "tram")
    qtbot.waitUntil(lambda: bool(trouble), timeout=30_000)
    assert "/dev/none cannot be used" in trouble[0]
    monkeypatch.setattr(QInputDialog, "getText", lambda *_: ("", False))
    box.choose(OTHER)
    assert box.source.currentData() == HAND
    box.asker.close()


def test_a_peak_is_told_beside_the_mode_it_is_nearest_to(parent: QWidget) -> None:
    t = np.arange(0, 2, 1 / 4000)
    heard = tap_test(np.exp(-8 * t) * np.sin(2 * np.pi * 80.0 * t), 4000.0)
    modes = (
        Mode(Band(70.0, 78.0, 90.0), 0.02, "the head sways", 0.5), Mode(Band(20.0, 25.0, 30.0), 0.02, "rocks", 0.01),
        Mode(Band(150.0, 160.0, 170.0), 0.02, "twists", 0.3),
    )  # fmt: skip
    words = peak_words(heard.peaks[0], modes)
    assert words.startswith("80.")
    assert "within the 70 – 90 Hz predicted (78 Hz, 2.0%): the head sways" in words
    assert "below the 150" in peak_words(heard.peaks[0], modes[2:])
    assert "predicted" not in peak_words(heard.peaks[0], modes[1:2]), "what the tool does not feel is no mode of its"
    panel = TapPanel(parent)
    assert panel.list.item(0).text().startswith("no recording yet")  # type: ignore[union-attr]
    panel.show_modes(modes)
    panel.show_heard(heard)
    assert panel.spectrum.accessibleName() == "Spectrum of the tap: peaks at 80.0 Hz; predicted 78, 160 Hz"
    assert panel.list.count() == len(heard.peaks)
    assert panel.grab().width() > 0


def test_steps_and_blows_in_words() -> None:
    row = next(iter(schedule(tuple(STEPS), datetime(2026, 12, 1, 18)).rows))
    assert when_words(row, (), "a", row.step.id, "mm").startswith("Tue 01 Dec, ")
    assert when_words(None, (), "a", "b", "mm") == "done"
    assert "120 mm inside" in balance_words(Balance(0.12, 0.3, 48.0), "mm")
    one = Struck(np.zeros(1), np.zeros(1, complex), (Circle(62.0, 0.027, 0.5e-6),), 400.0)
    assert struck_words(one, "mm") == "struck with 400 N: 62.0 Hz, damping 2.7%, alone 2.0 N/µm"


def test_what_stands_is_turned_by_mouse_and_by_keys(parent: QWidget, qtbot: QtBot) -> None:
    view = WhereView(parent)
    view.resize(320, view.height())
    machine = MovingGantry()
    view.show_bodies(bodies_of(machine, Place()), ("gantry beam",))
    first = view.grab().toImage()
    qtbot.keyClick(view, Qt.Key.Key_Right)
    turned = view.grab().toImage()
    assert turned != first
    assert view.turn == pytest.approx(np.pi / 12)
    qtbot.keyClick(view, Qt.Key.Key_Left)
    assert view.turn == pytest.approx(0.0)
    qtbot.mousePress(view, Qt.MouseButton.LeftButton, pos=QPoint(40, 40))
    qtbot.mouseMove(view, QPoint(90, 40))
    qtbot.mouseRelease(view, Qt.MouseButton.LeftButton, pos=QPoint(90, 40))
    assert view.turn > 0.3
    qtbot.keyClick(view, Qt.Key.Key_Home)
    assert view.turn == pytest.approx(0.0)
    whole = outlines(bodies_of(machine, Place()), 2 * np.pi)
    assert np.allclose(whole[0][1], outlines(bodies_of(machine, Place()))[0][1]), "a whole turn is none"
