"""The open project, its undo stack and its file."""

from pathlib import Path

from PyQt6.QtCore import QObject, pyqtSignal
from PyQt6.QtGui import QUndoCommand, QUndoStack
from typing_extensions import override

from unterbau.errors import UnterbauError
from unterbau.files.project_json import read_project, write_project
from unterbau.files.recovery import fingerprint
from unterbau.project.project import Project


class _Swap(QUndoCommand):
    """Swaps whole projects; unchanged branches are shared."""

    def __init__(self, document: "Document", before: Project, after: Project, text: str, key: str) -> None:
        super().__init__(text)
        self.document, self.before, self.after, self.key = document, before, after, key

    @override
    def redo(self) -> None:
        self.document.show_project(self.after)

    @override
    def undo(self) -> None:
        self.document.show_project(self.before)

    @override
    def id(self) -> int:
        return hash(self.key) & 0x7FFFFFFF if self.key else -1

    @override
    def mergeWith(self, other: QUndoCommand | None) -> bool:
        if not isinstance(other, _Swap) or other.key != self.key:
            return False
        self.after = other.after
        if self.after == self.before:
            self.setObsolete(True)
        return True


class Document(QObject):
    """Holds one frozen project; every change is one undoable step."""

    changed = pyqtSignal(object, object)
    """Project before, project after."""
    file_changed = pyqtSignal()
    replaced = pyqtSignal()
    """Another project is open."""

    def __init__(self, project: Project, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._project = project
        self.path: Path | None = None
        self._seen: tuple[int, int] | None = None
        self._gesture = 0
        self.stack = QUndoStack(self)

    @property
    def project(self) -> Project:
        """The project as it is now."""
        return self._project

    @property
    def modified(self) -> bool:
        """Whether there are changes that no file holds."""
        return not self.stack.isClean()

    def apply(self, after: Project, text: str, key: str = "") -> None:
        """Make a change as one undoable step; steps in a row with the same key are one."""
        if after != self._project:
            self.stack.push(_Swap(self, self._project, after, text, f"{self._gesture}/{key}" if key else ""))

    def show_project(self, project: Project) -> None:
        """Show a project without an undo step; for the undo stack."""
        before, self._project = self._project, project
        self.changed.emit(before, project)

    def replace(self, project: Project, path: Path | None) -> None:
        """Start afresh with another project."""
        self.stack.clear()
        self.path = path
        self._seen = fingerprint(path)
        self.show_project(project)
        self.replaced.emit()
        self.file_changed.emit()

    def end_gesture(self) -> None:
        """End a run of steps that are one: the next change is a step of its own."""
        self._gesture += 1

    def open(self, path: Path) -> None:
        """Open a file.

        Raises:
            UnterbauError: The file cannot be used; the open project stays.
        """
        self.replace(read_project(path), path)

    def restore(self, project: Project, path: Path | None, seen: tuple[int, int] | None = None) -> None:
        """Start afresh with work that no file holds yet; `seen` is the file as the work knew it."""
        self.replace(project, path)
        self._seen = seen
        self.stack.resetClean()
        self.file_changed.emit()

    @property
    def conflict(self) -> bool:
        """Whether another program changed the project's file since it was read or written here."""
        there = fingerprint(self.path)
        return there is not None and there != self._seen

    def save(self, path: Path, project: Project, over: bool = False) -> Path | None:
        """Write a project to a file; it is the open one with the view's units.

        Args:
            path: The file.
            project: What is written.
            over: Replaces what another program wrote meanwhile.

        Returns:
            The copy that was kept of a file of an older version, if it was one.

        Raises:
            UnterbauError: The file could not be written, or another program changed it meanwhile.
        """
        if path == self.path and self.conflict and not over:
            raise UnterbauError(
                f"{path.name} was changed by another program since it was opened here, and was left as it is. "
                "Save under another name to keep both; “Save over the other version” replaces it."
            )
        kept = write_project(path, project)
        self.path = path
        self._seen = fingerprint(path)
        self.stack.setClean()
        self.file_changed.emit()
        return kept
