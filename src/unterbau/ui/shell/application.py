"""Starts the window."""

import gc
import os
import sys
import threading
import traceback
from functools import partial
from importlib import import_module
from pathlib import Path
from types import TracebackType
from typing import cast

from PyQt6.QtCore import QEvent, QTimer
from PyQt6.QtWidgets import QApplication

from unterbau.project.fresh import new_project
from unterbau.ui.jobs.garbage import collect_here
from unterbau.ui.jobs.helper import STANDS
from unterbau.ui.shell.endings import Endings
from unterbau.ui.shell.file_actions import demo_project
from unterbau.ui.shell.main_window import MainWindow

DEMO = "--demo"
PAINTED = 300  # ms after which a window is painted that was just made
IDLE = 4000  # ms after which what the window did not need is loaded, so that no reading or pour waits for it
LATER = ("scipy.optimize", "scipy.integrate", "scipy.signal")
NO_SCREEN = "There is no display here; start it from a desktop, or see `unterbau --help` for what works without one."


def start(arguments: list[str]) -> int:
    """Open the window with a file, the demo (`--demo`), or a new project."""
    if not (os.environ.get("DISPLAY") or os.environ.get("WAYLAND_DISPLAY")):
        sys.stderr.write(f"unterbau: {NO_SCREEN}\n")
        return 2
    if os.environ.get("DISPLAY"):
        os.environ.setdefault("QT_QPA_PLATFORM", "xcb")  # VTK's widget draws through X11
    application = QApplication(sys.argv[:1])
    application.setApplicationName("Unterbau")
    gc.freeze()  # what the libraries are made of is looked through no more: a collection stays unnoticed
    window = open_window(arguments)
    sys.excepthook = partial(_tell, window)
    window.show()
    endings = Endings(window.end_now)
    code = application.exec()
    sys.excepthook = sys.__excepthook__
    if endings.number:
        sys.stderr.flush()
        os._exit(code)  # the work is set aside; nothing waits for studies, windows or processes
    end(application, window)
    return code


def end(application: QApplication, window: MainWindow) -> None:
    """Take the window down while there is an application: Python would free them in any order, and Qt crash."""
    window.close()
    window.deleteLater()
    application.sendPostedEvents(None, QEvent.Type.DeferredDelete.value)
    gc.collect()


def open_window(arguments: list[str], point_size: float | None = None) -> MainWindow:
    """Return the main window for the command line's arguments.

    Args:
        arguments: A file, or `--demo`.
        point_size: Size of the text at 100 %, pt; the desktop's where none is given.
    """
    application = cast(QApplication, QApplication.instance())
    collect_here(application)
    paths = [Path(a) for a in arguments if not a.startswith("-")]
    demo = DEMO in arguments
    window = MainWindow(demo_project() if demo else new_project(), point_size)
    if paths:
        window.files.open(paths[0])
    elif not demo:
        window.start_from_nothing()
    window.offer_left_behind()
    QTimer.singleShot(PAINTED, STANDS.set)
    QTimer.singleShot(IDLE, threading.Thread(target=_load, daemon=True, name="libraries").start)
    return window


def _load() -> None:
    for name in LATER:
        import_module(name)


def _tell(window: MainWindow, kind: type[BaseException], error: BaseException, trace: TracebackType | None) -> None:
    """Say a fault of ours in the window instead of ending the program; details go to standard error."""
    traceback.print_exception(kind, error, trace)
    window.say(f"Something went wrong inside the program ({kind.__name__}: {error}). Your work is still here; save it.")
