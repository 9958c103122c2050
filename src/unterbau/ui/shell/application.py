"""Starts the window."""

import sys
from pathlib import Path

from PyQt6.QtWidgets import QApplication

from unterbau.ui import theme
from unterbau.ui.shell.file_actions import demo_project, new_project
from unterbau.ui.shell.main_window import MainWindow

DEMO = "--demo"


def start(arguments: list[str]) -> int:
    """Open the window with a file, the demo (`--demo`), or a new project."""
    application = QApplication(sys.argv[:1])
    application.setApplicationName("Unterbau")
    theme.apply(application)
    window = open_window(arguments)
    window.show()
    return application.exec()


def open_window(arguments: list[str]) -> MainWindow:
    """Return the main window for the command line's arguments."""
    window = MainWindow(demo_project() if DEMO in arguments else new_project())
    paths = [Path(a) for a in arguments if not a.startswith("-")]
    if paths:
        window.files.open(paths[0])
    return window
