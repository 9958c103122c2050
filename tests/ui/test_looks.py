"""Dark and large text, every size of screen: nothing cut off, everything readable, work untouched."""

import itertools

import pytest
from PyQt6.QtCore import QEvent, Qt
from PyQt6.QtWidgets import QApplication, QDialog
from pytestqt.qtbot import QtBot

from tests.ui.clipping import cut_off
from tests.ui.conftest import settle
from tests.ui.driving import CTRL, click_link, number, pick
from tests.ui.walk import BENCHES, COLOURS, SIZES, TEXTS, UNITS, Look
from unterbau.files.settings_json import read_settings
from unterbau.ui import theme
from unterbau.ui.shell.main_window import MainWindow
from unterbau.ui.shell.preferences import settings_file
from unterbau.ui.shell.settings_dialog import SettingsDialog
from unterbau.ui.shell.shortcut_page import ShortcutPage
from unterbau.ui.shell.station_bar import STATIONS
from unterbau.ui.stations.machine.first_steps import ALL
from unterbau.ui.widgets.choice_box import ChoiceBox


def dialog(window: MainWindow, kind: type[QDialog]) -> QDialog:
    found = [child for child in window.findChildren(kind) if child.isVisible()]
    assert len(found) == 1
    return found[0]


def fits(window: MainWindow, qtbot: QtBot, what: str) -> None:
    """Wait until the layout has settled with nothing cut off."""

    def settled() -> None:
        assert cut_off(window) == [], what

    qtbot.waitUntil(settled, timeout=3000)


def test_every_choice_occurs_with_nothing_cut_off(window: MainWindow, qtbot: QtBot) -> None:
    """Small, large and largest text, each window, unit, theme; where every two meet is `./dev walk --sample`."""
    sizes, units, colours = itertools.cycle(SIZES), itertools.cycle(UNITS), itertools.cycle(COLOURS)
    for look in (Look(text, next(sizes), next(units), next(colours)) for text in TEXTS[::2]):
        window.view.restyle(look.colours, look.text)
        QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete.value)  # what was before is gone, as in a loop
        window.view.set_units("mm" if look.units == "mm" else "inch")
        window.resize(*look.size)
        qtbot.waitUntil(lambda w=look.size[0]: window.width() == w)  # type: ignore[misc]
        for station in range(len(STATIONS)):
            window.show_station(station)
            fits(window, qtbot, f"{look}: {STATIONS[station]}")
        window.show_station(STATIONS.index("Machine"))
        for key in BENCHES if look.text == TEXTS[-1] else BENCHES[:2]:
            window.machine.choose_link(key)
            fits(window, qtbot, f"{look}: {key}")
    window.view.restyle("light", 1.0)
    settle(window, qtbot)


@pytest.mark.parametrize("colours", ["light", "dark"])
def test_colours_can_be_read(window: MainWindow, colours: str) -> None:
    window.view.restyle(colours, 1.0)
    assert theme.palette() is theme.THEMES[colours]
    grounds = [theme.colour(role) for role in ("paper", "panel", "sunken", "accent_soft")]
    for role in ("ink", "muted", "accent", "warning"):
        assert min(theme.contrast(theme.colour(role), ground) for ground in grounds) >= 4.5, role
    assert theme.contrast(theme.colour("on_accent"), theme.colour("accent")) >= 4.5
    for share in (step / 20 for step in range(21)):
        ground = theme.heat(share)
        assert theme.contrast(theme.ink_on(ground), ground) >= 4.5, share
    steps = [theme.contrast(theme.heat(s / 4), theme.colour("paper")) for s in range(5)]
    assert steps == sorted(steps)


def test_settings_take_effect_at_once_and_stay(window: MainWindow, qtbot: QtBot) -> None:
    window.machine.choose_link("gantry_beam")
    qtbot.keyClick(window, Qt.Key.Key_BracketRight)
    before, shown = window.document.project, number(window, 0)
    window.show_station(2)
    qtbot.keyClick(window, Qt.Key.Key_Comma, CTRL)
    settings = dialog(window, SettingsDialog)
    assert isinstance(settings, SettingsDialog)
    assert cut_off(settings) == []
    pick(settings.theme, "dark")
    pick(settings.text, 1.3)
    pick(settings.units, "inch")
    assert theme.palette() is theme.SLATE
    assert window.document.project is before
    assert window.document.stack.count() == 1
    assert window.pages.currentIndex() == 2
    assert number(window, 0) == shown
    kept = read_settings(settings_file())
    assert (kept.theme, kept.text, kept.units) == ("dark", 1.3, "inch")
    settings.close()
    qtbot.keyClick(window, Qt.Key.Key_Z, CTRL)
    assert not window.document.modified
    qtbot.keyClick(window, Qt.Key.Key_N, CTRL)
    assert window.view.units == "inch"
    settle(window, qtbot)


def test_settings_that_cannot_be_kept_are_said(window: MainWindow) -> None:
    folder = settings_file().parent.parent
    folder.mkdir(parents=True, exist_ok=True)
    settings_file().parent.write_text("in the way")
    window.preferences.change(theme="dark")
    assert "could not be kept" in window.notice.message.text()
    assert window.preferences.settings.theme == "dark"


def test_the_page_of_keys_lists_every_key(window: MainWindow, qtbot: QtBot) -> None:
    qtbot.keyClick(window, Qt.Key.Key_F1)
    page = dialog(window, ShortcutPage)
    assert isinstance(page, ShortcutPage)
    listed = set()
    for row in range(page.table.rowCount()):
        item = page.table.item(row, 0)
        assert item is not None
        listed.add(item.text())
    assert {command.shortcut for command in window.commands() if command.shortcut} <= listed
    qtbot.keyClick(page, Qt.Key.Key_Escape)
    assert not page.isVisible()


def test_first_steps_go_away_when_followed_and_stay_away(window: MainWindow, qtbot: QtBot) -> None:
    steps = window.machine.first_steps
    assert steps.isVisible()
    assert steps.count.text() == f"first steps 1 of {len(ALL)}"
    click_link(window, qtbot, "gantry_beam")
    assert steps.count.text() == f"first steps 2 of {len(ALL)}"
    qtbot.keyClick(window, Qt.Key.Key_BracketRight)
    assert steps.count.text() == f"first steps 3 of {len(ALL)}"
    qtbot.mouseClick(steps.next, Qt.MouseButton.LeftButton)
    qtbot.mouseClick(steps.end, Qt.MouseButton.LeftButton)
    assert not steps.isVisible()
    assert read_settings(settings_file()).hints_done == ALL
    window.show_settings()
    settings = dialog(window, SettingsDialog)
    assert isinstance(settings, SettingsDialog)
    qtbot.mouseClick(settings.hints, Qt.MouseButton.LeftButton)
    assert window.machine.first_steps.isVisible()


def test_a_choice_without_room_ends_in_dots(window: MainWindow) -> None:
    words = "plate bolted on, 4 M8, as cut"
    box = ChoiceBox("joint", ((1, words), (2, "welded")), window)
    box.resize(400, 24)
    assert box.shown_words() == words
    box.resize(120, 24)
    assert box.shown_words().endswith("…")
    assert words.startswith(box.shown_words()[:-1])
    box.show_value(2)
    assert box.shown_words() == "welded"
    box.deleteLater()
