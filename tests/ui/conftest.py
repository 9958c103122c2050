"""The real window under a virtual screen."""

from collections.abc import Iterator
from pathlib import Path

import pytest
from PyQt6.QtCore import QEvent
from PyQt6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from unterbau.machine.machine import Machine
from unterbau.machine.parts import Place
from unterbau.studies.answers import Answers
from unterbau.ui import theme
from unterbau.ui.shell.application import open_window
from unterbau.ui.shell.main_window import MainWindow

DEMO_ANSWERS: dict[tuple[Machine, Place], Answers] = {}
"""What the first window of the run computed for the demo; later ones start with it."""


@pytest.fixture(scope="session")
def themed(qapp: QApplication) -> QApplication:
    """Return the application with fonts and style sheet."""
    theme.load_fonts()
    return qapp


@pytest.fixture
def window(themed: QApplication, qtbot: QtBot, tmp_path: Path) -> Iterator[MainWindow]:
    """Return the main window with the demo, all bands computed."""
    found = open_window(["--demo"], 10.0)
    found.resize(1280, 800)
    found.show()
    found.activateWindow()
    found.feed._full.update(DEMO_ANSWERS)
    found.feed.refresh()
    qtbot.waitUntil(found.isActiveWindow, timeout=5000)
    settle(found, qtbot)
    DEMO_ANSWERS.update(found.feed._full)
    yield found
    found.document.stack.setClean()
    found.close()
    found.deleteLater()
    themed.sendPostedEvents(None, QEvent.Type.DeferredDelete.value)


def settle(window: MainWindow, qtbot: QtBot) -> None:
    """Wait until bands are there for every candidate and the picture is drawn."""
    feed, project = window.machine.feed, window.document.project

    def done() -> None:
        assert all(feed.full(c.machine) is not None for c in project.candidates)
        assert feed._job is None

    qtbot.waitUntil(done, timeout=30_000)
