"""New, open, save: the dialogs and what is said when they fail."""

from collections.abc import Callable
from dataclasses import replace
from functools import partial
from importlib.resources import files
from pathlib import Path

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QFileDialog, QInputDialog, QMessageBox, QWidget

from unterbau.errors import UnterbauError
from unterbau.files.photos import carry
from unterbau.files.project_json import SUFFIX, parse_project
from unterbau.files.recovery import Kept, throw_away
from unterbau.project.edits import rename_project
from unterbau.project.fresh import new_project
from unterbau.project.project import Project
from unterbau.ui.commands import Command
from unterbau.ui.document import Document
from unterbau.ui.shell.preferences import Preferences
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.save_path import ask_save_path

Say = Callable[[str], None]
FILTER = f"Unterbau projects (*{SUFFIX})"


DEMOS = {
    "carving-router": "carving router for instrument makers",
    "organ-pipe-router": "router for organ pipe mouths",
    "clock-plate-mill": "column mill for clock plates",
    "railway-arm-mill": "arm mill for model railway frames",
    "telescope-lathe": "lathe for telescope focusers",
    "greenhouse-camera": "camera along a greenhouse",
    "leather-table": "table that cuts leather and card",
    "lettering-engraver": "lettering engraver on a surplus plate",
}
"""Shipped scenarios, invented."""


def demo_project(name: str = "carving-router") -> Project:
    """Return a shipped demo."""
    text = (files("unterbau.demo") / f"{name}.unterbau").read_text(encoding="utf-8")
    return parse_project(text)


def photos_of(project: Project) -> tuple[str, ...]:
    """Return the names of all photos in a project's log."""
    return tuple(dict.fromkeys(name for entry in project.shop.log for name in entry.photos))


class FileActions:
    """What the project menu does with files."""

    def __init__(
        self, document: Document, view: ViewSettings, preferences: Preferences, window: QWidget, notice: Say,
        started: Callable[[], None],
    ) -> None:  # fmt: skip
        """Take `started` to run when a new machine stands there, to be given its sizes."""
        self._document, self._view, self._preferences = document, view, preferences
        self._window, self._say, self._started = window, notice, started
        self._restored: Kept | None = None

    def commands(self) -> list[Command]:
        """Return the file commands."""
        return [
            Command("new", "New machine", self.new, "Ctrl+N", "start from nothing: travel, heights, stances"),
            Command("open", "Open …", self.ask_open, "Ctrl+O"),
            *(Command(f"demo-{key}", f"Demo: {words}", partial(self.open_demo, key)) for key, words in DEMOS.items()),
            Command("save", "Save", self.save, "Ctrl+S"),
            Command("save-as", "Save as …", self.ask_save, "Ctrl+Shift+S"),
            Command(
                "save-over",
                "Save over the other version",
                self.save_over,
                enabled=self._conflicts,
                tip="replaces what another program wrote into the project's file meanwhile",
            ),
            Command("rename-project", "Name of the project …", self.ask_name),
        ]

    def recent_commands(self) -> list[Command]:
        """Return a command for each recent file."""
        return [
            Command(f"recent-{n}", f"Open {Path(name).name}", partial(self.open_recent, Path(name)), tip=name)
            for n, name in enumerate(self._preferences.settings.recent)
        ]

    def new(self) -> None:
        """Start a new project and give the machine its sizes."""
        if self.may_leave():
            self._view.set_units(self._preferences.settings.units)
            self._document.replace(replace(new_project(), units=self._view.units), None)
            self._say("")
            self._started()

    def open_demo(self, name: str = "carving-router") -> None:
        """Open a shipped demo."""
        if self.may_leave():
            project = demo_project(name)
            self._document.replace(project, None)
            self._say("")

    def ask_open(self) -> None:
        """Ask for a file and open it."""
        if not self.may_leave():
            return
        name, _ = QFileDialog.getOpenFileName(self._window, "Open a project", self._folder(), FILTER)
        if name:
            self.open(Path(name))

    def open_recent(self, path: Path) -> None:
        """Open a recent file; one that is gone leaves the list."""
        if self.may_leave() and not self.open(path) and not path.exists():
            self._preferences.forget(path)

    def open(self, path: Path) -> bool:
        """Open a file; what is wrong with it is said in the window."""
        try:
            self._document.open(path)
        except UnterbauError as error:
            self._say(str(error))
            return False
        self._view.set_units(self._document.project.units)
        self._preferences.remember(path)
        self._say("")
        return True

    def restore(self, kept: Kept) -> None:
        """Open work that a crash left behind; it counts as unsaved."""
        if self.may_leave():
            self._document.restore(kept.project, kept.origin, kept.seen)
            self._view.set_units(kept.project.units)
            self._restored = kept

    def forget_restored(self) -> None:
        """Delete what restored work was read from: the work is in a file now, set aside again, or not wanted."""
        if self._restored is not None:
            throw_away(self._restored)
            self._restored = None

    def save(self) -> bool:
        """Save to the project's file, asking for one if there is none."""
        if self._document.path is None:
            return self.ask_save()
        return self.save_to(self._document.path)

    def save_over(self) -> bool:
        """Save to the project's file whatever another program wrote there meanwhile."""
        return self._document.path is not None and self.save_to(self._document.path, over=True)

    def _conflicts(self) -> bool:
        return self._document.conflict

    def ask_save(self) -> bool:
        """Ask for a file and save to it."""
        start = self._document.path or Path(self._folder()) / f"{self._document.project.name}{SUFFIX}"
        path = ask_save_path(self._window, "Save the project", start, FILTER)
        return path is not None and self.save_to(path)

    def save_to(self, path: Path, over: bool = False) -> bool:
        """Save to a file; a failure is said and leaves the old file whole."""
        before, photos = self._document.path, photos_of(self._document.project)
        try:
            older = self._document.save(path, replace(self._document.project, units=self._view.units), over)
            lost = carry(before, path, photos)
        except UnterbauError as error:
            self._say(str(error))
            return False
        self._preferences.remember(path)
        said = f"The file was of an older version; it is kept as it was in {older.name}." if older else ""
        self._say(f"Photos that were not found and not carried along: {', '.join(lost)}." if lost else said)
        return True

    def ask_name(self) -> None:
        """Ask for another name of the project."""
        project = self._document.project
        name, wanted = QInputDialog.getText(self._window, "Name of the project", "Name", text=project.name)
        if not wanted:
            return
        try:
            self._document.apply(rename_project(project, name), "name of the project")
        except UnterbauError as error:
            self._say(f"the project keeps its name: {error}")

    def may_leave(self) -> bool:
        """Return whether the open project may be closed; asks when work would be lost."""
        if not self._document.modified:
            return True
        box = QMessageBox(self._window)
        box.setTextFormat(Qt.TextFormat.PlainText)
        text = f"“{self._document.project.name}” has changes that no file holds yet."
        conflict = self._document.conflict
        if conflict and self._document.path is not None:
            text += f" Another program changed {self._document.path.name} meanwhile: Save asks for another name."
        box.setText(text)
        buttons = QMessageBox.StandardButton
        box.setStandardButtons(buttons.Save | buttons.Discard | buttons.Cancel)
        box.setDefaultButton(buttons.Save)
        answer = box.exec()
        if answer == buttons.Save:
            return self.ask_save() if conflict else self.save()
        if answer == buttons.Discard:
            self.forget_restored()
        return answer == buttons.Discard

    def _folder(self) -> str:
        return str(self._document.path.parent if self._document.path else Path.home())
