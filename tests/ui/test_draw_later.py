"""When the picture is drawn: put together after the numbers, drawn after their bands, never long after."""

import pytest
from PyQt6.QtCore import QObject
from pytestqt.qtbot import QtBot

from unterbau.ui.stations.machine.draw_later import BANDS_FIRST, DrawLater


class Told:
    """What was told, in order."""

    def __init__(self, later: DrawLater) -> None:
        self.rows: list[str] = []
        later.put_together.connect(lambda: self.rows.append("put together"))
        later.draw.connect(lambda: self.rows.append("draw"))


@pytest.fixture
def later(qapp: QObject, qtbot: QtBot) -> DrawLater:
    """Return one that nobody draws for, after its first picture."""
    found = DrawLater(qapp)
    with qtbot.waitSignal(found.draw):
        found.start()
    return found


def test_the_first_picture_waits_for_no_bands(qapp: QObject, qtbot: QtBot) -> None:
    first = DrawLater(qapp)
    told = Told(first)
    first.start_before_bands()
    qtbot.waitUntil(lambda: bool(told.rows))
    first.bands_are_there()
    qtbot.wait(2 * BANDS_FIRST)
    assert told.rows == ["draw"]


def test_without_bands_to_wait_for_it_is_drawn_after_the_numbers(later: DrawLater, qtbot: QtBot) -> None:
    told = Told(later)
    later.start()
    later.start()
    assert later.isActive()
    qtbot.waitUntil(lambda: bool(told.rows))
    assert told.rows == ["draw"]
    assert not later.isActive()


def test_it_is_put_together_first_and_drawn_when_the_bands_are_there(later: DrawLater, qtbot: QtBot) -> None:
    told = Told(later)
    later.start_before_bands()
    qtbot.waitUntil(lambda: told.rows == ["put together"])
    later.bands_are_there()
    qtbot.waitUntil(lambda: "draw" in told.rows)
    later.bands_are_there()
    qtbot.wait(2 * BANDS_FIRST)
    assert told.rows == ["put together", "draw"], "once is enough"


def test_bands_that_do_not_come_are_not_waited_for(later: DrawLater, qtbot: QtBot) -> None:
    told = Told(later)
    later.start_before_bands()
    qtbot.waitUntil(lambda: "draw" in told.rows)
    assert not later.isActive()
    later.start_before_bands()
    later.stop()
    qtbot.wait(2 * BANDS_FIRST)
    assert told.rows.count("draw") == 1, "what was stopped is not drawn"
