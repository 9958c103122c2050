"""New, open, save: the dialogs and what is said when they fail."""

from collections.abc import Callable
from dataclasses import replace
from importlib.resources import files
from pathlib import Path

from PyQt6.QtWidgets import QFileDialog, QInputDialog, QMessageBox, QWidget

from unterbau.errors import UnterbauError
from unterbau.files.project_json import SUFFIX, parse_project
from unterbau.machine.kinds.moving_gantry.model import MovingGantry
from unterbau.project.edits import rename_project
from unterbau.project.project import Candidate, Project
from unterbau.ui.commands import Command
from unterbau.ui.document import Document
from unterbau.ui.view_settings import ViewSettings

FILTER = f"Unterbau projects (*{SUFFIX})"


def new_project() -> Project:
    """Return a project with one machine to start from."""
    return Project("Untitled machine", "first candidate", (Candidate("first candidate", MovingGantry()),))


def demo_project() -> Project:
    """Return the shipped demo."""
    text = (files("unterbau.demo") / "carving-router.unterbau").read_text(encoding="utf-8")
    return parse_project(text)


class FileActions:
    """What the project menu does."""

    def __init__(self, document: Document, view: ViewSettings, window: QWidget, say: Callable[[str], None]) -> None:
        self._document, self._view, self._window, self._say = document, view, window, say

    def commands(self) -> list[Command]:
        """Return the file commands."""
        return [
            Command("new", "New project", self.new, "Ctrl+N"),
            Command("open", "Open …", self.ask_open, "Ctrl+O"),
            Command("open-demo", "Open the demo: carving router", self.open_demo),
            Command("save", "Save", self.save, "Ctrl+S"),
            Command("save-as", "Save as …", self.ask_save, "Ctrl+Shift+S"),
            Command("rename-project", "Name of the project …", self.ask_name),
        ]

    def new(self) -> None:
        """Start a new project."""
        if self.may_leave():
            self._document.replace(new_project(), None)

    def open_demo(self) -> None:
        """Open the shipped demo."""
        if self.may_leave():
            self._document.replace(demo_project(), None)

    def ask_open(self) -> None:
        """Ask for a file and open it."""
        if not self.may_leave():
            return
        name, _ = QFileDialog.getOpenFileName(self._window, "Open a project", self._folder(), FILTER)
        if name:
            self.open(Path(name))

    def open(self, path: Path) -> bool:
        """Open a file; what is wrong with it is said in the window."""
        try:
            self._document.open(path)
        except UnterbauError as error:
            self._say(str(error))
            return False
        self._view.set_units(self._document.project.units)
        self._say("")
        return True

    def save(self) -> bool:
        """Save to the project's file, asking for one if there is none."""
        if self._document.path is None:
            return self.ask_save()
        return self.save_to(self._document.path)

    def ask_save(self) -> bool:
        """Ask for a file and save to it."""
        start = self._document.path or Path(self._folder()) / f"{self._document.project.name}{SUFFIX}"
        name, _ = QFileDialog.getSaveFileName(self._window, "Save the project", str(start), FILTER)
        if not name:
            return False
        path = Path(name)
        return self.save_to(path if path.suffix else path.with_suffix(SUFFIX))

    def save_to(self, path: Path) -> bool:
        """Save to a file; a failure is said and leaves the old file whole."""
        try:
            self._document.save(path, replace(self._document.project, units=self._view.units))
        except UnterbauError as error:
            self._say(str(error))
            return False
        self._say("")
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
        box.setText(f"“{self._document.project.name}” has changes that no file holds yet.")
        buttons = QMessageBox.StandardButton
        box.setStandardButtons(buttons.Save | buttons.Discard | buttons.Cancel)
        box.setDefaultButton(buttons.Save)
        answer = box.exec()
        return self.save() if answer == buttons.Save else answer == buttons.Discard

    def _folder(self) -> str:
        return str(self._document.path.parent if self._document.path else Path.home())
