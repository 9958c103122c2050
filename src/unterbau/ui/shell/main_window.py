"""The main window: only puts header, stations and files together."""

from functools import partial

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QCloseEvent
from PyQt6.QtWidgets import (
    QFrame,
    QHBoxLayout,
    QMainWindow,
    QPushButton,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)
from typing_extensions import override

from unterbau.project.project import Project
from unterbau.ui.commands import Command, install
from unterbau.ui.document import Document
from unterbau.ui.selection import Selection
from unterbau.ui.shell.command_finder import CommandFinder
from unterbau.ui.shell.file_actions import FileActions
from unterbau.ui.shell.header import Header
from unterbau.ui.shell.station_bar import STATIONS, StationBar
from unterbau.ui.stations.later.station import LaterStation
from unterbau.ui.stations.machine.station import MachineStation
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.labels import label

MACHINE = STATIONS.index("Machine")


class MainWindow(QMainWindow):
    """Header over stations, stations beside the bar."""

    def __init__(self, project: Project) -> None:
        super().__init__()
        self.document = Document(project, self)
        self.selection = Selection(self)
        self.selection.candidate = project.benchmark
        self.view = ViewSettings(self)
        self.view.set_units(project.units)
        self.files = FileActions(self.document, self.view, self, self.say)
        self.header = Header(self.view, self)
        self.bar = StationBar(self)
        self.message = label("", "error", parent=self)
        self.message_row = QWidget(self)
        self.machine = MachineStation(self.document, self.selection, self.view, self)
        self.pages = QStackedWidget(self)
        self.finder = CommandFinder(self)
        self._build()
        self.actions_by_id = install(self.commands(), self)
        self._fill_menu()
        self._connect()
        self.show_station(MACHINE)
        self._show_names()
        self.machine.feed.refresh()

    def commands(self) -> list[Command]:
        """Return everything one can do, but for the links."""
        stack = self.document.stack
        return [
            *self.files.commands(),
            Command("undo", "Undo", stack.undo, "Ctrl+Z", enabled=stack.canUndo),
            Command("redo", "Redo", stack.redo, "Ctrl+Shift+Z", enabled=stack.canRedo),
            Command("millimetres", "Show millimetres", partial(self.view.set_units, "mm")),
            Command("inches", "Show inches", partial(self.view.set_units, "inch")),
            Command("find", "Find anything", self.open_finder, "Ctrl+K"),
            *(
                Command(f"station-{n}", f"Station: {name}", partial(self.show_station, n), f"Alt+{n + 1}")
                for n, name in enumerate(STATIONS)
            ),
            *self.machine.commands(),
            Command("quit", "Quit", self.close, "Ctrl+Q"),
        ]

    def show_station(self, place: int) -> None:
        """Open a station."""
        self.pages.setCurrentIndex(place)
        self.bar.show_station(place)

    def open_finder(self) -> None:
        """Open the command finder."""
        self.finder.open_with([*self.commands(), *self.machine.link_commands()])

    def say(self, problem: str) -> None:
        """Say what went wrong, in place; an empty text takes it back."""
        self.message.setText(problem)
        self.message_row.setVisible(bool(problem))

    @override
    def closeEvent(self, event: QCloseEvent | None) -> None:
        if event is None:
            return
        if not self.files.may_leave():
            event.ignore()
            return
        self.machine.close_view()
        event.accept()

    def _build(self) -> None:
        self.setWindowTitle("Unterbau")
        self.setMinimumSize(1100, 700)
        self.resize(1280, 800)
        for place, name in enumerate(STATIONS):
            self.pages.addWidget(self.machine if place == MACHINE else LaterStation(name, self))
        row = QHBoxLayout(self.message_row)
        self.message.setWordWrap(True)
        row.addWidget(self.message, 1)
        self.dismiss = QPushButton("understood", self.message_row)
        row.addWidget(self.dismiss, 0, Qt.AlignmentFlag.AlignTop)
        self.message_row.hide()
        right = QVBoxLayout()
        right.setSpacing(0)
        line = QFrame()
        line.setFixedHeight(1)
        line.setStyleSheet("background: palette(mid);")
        for widget in (self.header, line, self.message_row):
            right.addWidget(widget)
        right.addWidget(self.pages, 1)
        centre = QWidget(self)
        box = QHBoxLayout(centre)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        box.addWidget(self.bar)
        box.addLayout(right, 1)
        self.setCentralWidget(centre)

    def _fill_menu(self) -> None:
        for command in (*self.files.commands(), None, "quit"):
            if command is None:
                self.header.menu.addSeparator()
            else:
                self.header.menu.addAction(self.actions_by_id[command if isinstance(command, str) else command.id])

    def _connect(self) -> None:
        stack = self.document.stack
        self.bar.chosen.connect(self.show_station)
        self.header.undo_wanted.connect(stack.undo)
        self.header.redo_wanted.connect(stack.redo)
        self.header.finder_wanted.connect(self.open_finder)
        self.machine.trouble.connect(self.say)
        self.dismiss.clicked.connect(self._on_dismissed)
        self.document.changed.connect(self._on_changed)
        self.document.file_changed.connect(self._show_names)
        self.selection.candidate_changed.connect(self._on_changed)
        stack.indexChanged.connect(self._on_changed)
        stack.cleanChanged.connect(self._on_changed)

    def _on_dismissed(self) -> None:
        self.say("")

    def _on_changed(self) -> None:
        self._show_names()

    def _show_names(self) -> None:
        stack, document = self.document.stack, self.document
        self.header.show_names(document.project.name, self.selection.candidate, document.modified)
        undo = stack.undoText() or "change" if stack.canUndo() else ""
        redo = stack.redoText() or "change" if stack.canRedo() else ""
        self.header.show_undo(undo, redo)
        count = len(document.project.candidates)
        self.bar.buttons[MACHINE].show_done(min(1.0, count / 4))
        path = f" — {document.path.name}" if document.path else ""
        self.setWindowTitle(f"{document.project.name}{path} — Unterbau")
