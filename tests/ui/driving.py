"""Doing what a person does with the window."""

from typing import Any

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QLineEdit
from pytestqt.qtbot import QtBot

from unterbau.studies.answers import LikelyAnswers, likely_answers
from unterbau.studies.compliance import Solved
from unterbau.ui.shell.main_window import MainWindow

TUBE = "steel tube, epoxied sides"
CTRL, SHIFT = Qt.KeyboardModifier.ControlModifier, Qt.KeyboardModifier.ShiftModifier


def machine_of(window: MainWindow) -> Any:
    """Return the chosen candidate's machine as the document has it."""
    return window.document.project.candidate(window.selection.candidate).machine


def first_answers(window: MainWindow, machine: Any) -> tuple[LikelyAnswers, Solved]:
    """Return a machine's likely answers with the head where the window has it."""
    return likely_answers(machine, window.selection.place)


def number(window: MainWindow, axis: int) -> float:
    """Return what the readout shows along an axis, N/µm."""
    return window.machine.readout.numbers[axis].value


def choose(window: MainWindow, qtbot: QtBot, name: str) -> None:
    """Click a card."""
    qtbot.mouseClick(window.machine.shelf.card(name), Qt.MouseButton.LeftButton)


def click_link(window: MainWindow, qtbot: QtBot, key: str) -> None:
    """Click a link of the load path."""
    strip = window.machine.load_path.strip
    qtbot.mouseClick(strip, Qt.MouseButton.LeftButton, pos=strip.place_of(key).toPoint())


def type_into(qtbot: QtBot, edit: QLineEdit, text: str) -> None:
    """Replace a field's text and press Return."""
    edit.setFocus()
    edit.selectAll()
    qtbot.keyClicks(edit, text)
    qtbot.keyClick(edit, Qt.Key.Key_Return)


def pick(box: Any, value: object) -> None:
    """Choose a value of a list."""
    place = next(n for n in range(box.count()) if box.itemData(n) == value)
    box.setCurrentIndex(place)
    box.activated.emit(place)


def advised(window: MainWindow, qtbot: QtBot) -> None:
    """Wait until alternatives for the part on the bench are there."""
    qtbot.waitUntil(lambda: not window.machine.advice.busy, timeout=15_000)
