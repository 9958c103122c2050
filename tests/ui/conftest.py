"""The real window under a virtual screen."""

import gc
import os
import signal
import sys
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest
import pytest_xvfb
from PyQt6.QtCore import QEvent
from PyQt6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from unterbau.kept import kept_up_to
from unterbau.machine.machine import Machine
from unterbau.progress import Progress
from unterbau.structure.parts import Place
from unterbau.studies.answers import Answers, likely_answers
from unterbau.studies.purchase.checks import checks
from unterbau.studies.shake import shakes
from unterbau.ui import theme
from unterbau.ui.jobs.helper import BEHIND, helper
from unterbau.ui.shell.application import open_window
from unterbau.ui.shell.main_window import MainWindow

STATUS: list[int] = []


def pytest_sessionfinish(exitstatus: int) -> None:
    """Remember how it ended."""
    STATUS.append(int(exitstatus))


@pytest.hookimpl(trylast=True)
def pytest_unconfigure() -> None:
    """End at once: the virtual screen is gone by now, and Qt would end the process as failed when it notices."""
    if STATUS:
        sys.stdout.flush()
        sys.stderr.flush()
        screen = getattr(pytest_xvfb.xvfb_instance, "_virtual_display", None)
        if screen is not None:
            os.kill(screen.pid, signal.SIGTERM)  # nobody else ends it once this process is gone
        os._exit(STATUS[-1])


DEMO_ANSWERS: dict[tuple[Machine, Place], Answers] = {}
"""What the first window of the run computed for the demo; later ones start with it."""


@pytest.fixture(scope="session")
def themed(qapp: QApplication) -> Iterator[QApplication]:
    """Return the application with fonts and style sheet; what a machine's first answers are is computed once a run."""
    theme.load_fonts()
    gc.freeze()
    with pytest.MonkeyPatch.context() as patch:
        patch.setattr("unterbau.ui.jobs.soon.PATIENCE", 60.0)  # a slow machine's tests read the numbers at once
        patch.setattr("unterbau.ui.feed.likely_answers", kept_up_to(200.0)(likely_answers))
        patch.setattr("unterbau.ui.jobs.asker._beside", Beside())
        patch.setattr("unterbau.ui.stations.machine.lens_answers.shakes", Once(shakes))
        once = Once(checks)
        for place in ("machine.lens_answers", "brief.station", "compare.station"):
            patch.setattr(f"unterbau.ui.stations.{place}.checks", once)
        yield qapp


class Once:
    """Answers of a study kept by what was asked."""

    def __init__(self, study: Callable[..., object]) -> None:
        self._study = study
        self._kept: dict[tuple[object, ...], object] = {}

    def __call__(self, *asked: Any) -> object:
        """Return what is known already, or compute it; progress comes last and does not count."""
        if asked[:-1] not in self._kept:
            self._kept[asked[:-1]] = self._study(*asked)
        return self._kept[asked[:-1]]


class Beside:
    """What was answered beside the window, kept by what was asked."""

    def __init__(self) -> None:
        self._kept: dict[tuple[object, object], object] = {}

    def __call__(self, study: Callable[..., object], asked: object, progress: Progress) -> object:
        """Return what is known already, or have it computed."""
        if (study, asked) not in self._kept:
            self._kept[study, asked] = helper(BEHIND).compute(study, asked, progress=progress)
        return self._kept[study, asked]


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
    del found
    gc.collect()


def settle(window: MainWindow, qtbot: QtBot) -> None:
    """Wait until bands are there for every candidate and the picture is drawn."""
    feed, project = window.machine.feed, window.document.project

    def done() -> None:
        assert all(feed.full(c.machine) is not None for c in project.candidates)
        assert not feed.busy

    qtbot.waitUntil(done, timeout=120_000)
