"""Drawings on their way to files: one piece in the format that is asked for, or all of a candidate into a folder."""

from dataclasses import replace
from datetime import date
from pathlib import Path

from PyQt6.QtCore import QObject, pyqtSignal
from PyQt6.QtWidgets import QFileDialog, QPushButton, QWidget

from unterbau.errors import UnterbauError
from unterbau.files.atomic import write_atomically
from unterbau.files.drawings import Wanted, one_piece, write_all
from unterbau.files.piece_dxf import file_name
from unterbau.progress import Progress
from unterbau.shop.pieces import ShopPiece
from unterbau.studies.rail_tolerance import rails_bear
from unterbau.ui.document import Document
from unterbau.ui.jobs.one_at_a_time import OneAtATime
from unterbau.ui.selection import Selection
from unterbau.ui.theme import font
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.save_path import ask_save_path

FORMATS = (
    "Dimensioned sheet (*.pdf);;Template at full size (*.template.pdf);;Outline and holes (*.dxf);;At full size (*.svg)"
)
ALL = "all drawings …"
STOP = "stop writing"


class DrawingActions(QObject):
    """Asks for places and writes; all drawings are written behind, and can be stopped."""

    trouble = pyqtSignal(str)
    wrote = pyqtSignal(object)
    """The file or folder that was written."""

    def __init__(self, document: Document, selection: Selection, view: ViewSettings, parent: QWidget) -> None:
        super().__init__(parent)
        self._window, self._document, self._selection, self._view = parent, document, selection, view
        self.all, self.one = QPushButton(ALL, parent), QPushButton("drawing …", parent)
        self._jobs = OneAtATime(self)
        for button, tip in (
            (
                self.all,
                "sheets, templates, DXF, SVG, cut plans, labels, a quote sheet, glTF and STL, into a folder",
            ),
            (self.one, "this piece as a dimensioned sheet, a template at full size, DXF or SVG"),
        ):
            button.setFont(font(0.88))
            button.setProperty("small", True)
            button.setToolTip(tip)
        self.piece: ShopPiece | None = None
        self.all.clicked.connect(self._on_all)
        self.one.clicked.connect(self._on_one)
        self._jobs.succeeded.connect(self._on_written)
        self._jobs.failed.connect(self._on_failed)
        self._jobs.cancelled.connect(self._on_stopped)
        self._jobs.progressed.connect(self._on_progressed)

    @property
    def busy(self) -> bool:
        """Whether drawings are being written."""
        return self._jobs.busy

    def write_into(self, folder: Path) -> None:
        """Write all drawings of the chosen candidate into a folder, behind."""
        wanted = self._wanted({})

        def work(progress: Progress) -> Path:
            write_all(folder, replace(wanted, bears=rails_bear(wanted.machine)), progress)
            return folder

        self.all.setText(STOP)
        self._jobs.run(folder, work)

    def write_piece(self, path: Path) -> None:
        """Write the shown piece; the ending chooses the format."""
        if self.piece is None:
            return
        machine = self._document.project.candidate(self._selection.candidate).machine
        try:
            write_atomically(path, one_piece(self._wanted(rails_bear(machine)), self.piece, path.name))
        except UnterbauError as error:
            self.trouble.emit(str(error))
            return
        self.wrote.emit(path)

    def close_actions(self) -> None:
        """Stop what is written."""
        self._jobs.close()

    def _wanted(self, bears: dict[str, float]) -> Wanted:
        project = self._document.project
        one = project.candidate(self._selection.candidate)
        return Wanted(
            project.name, one.name, one.machine, project.shop, project.brief.tools, bears, self._view.units,
            date.today().isoformat(),
        )  # fmt: skip

    def _folder(self) -> Path:
        return self._document.path.parent if self._document.path else Path.home()

    def _on_all(self) -> None:
        if self._jobs.busy:
            self._jobs.cancel()
            return
        name = QFileDialog.getExistingDirectory(self._window, "Folder for all drawings", str(self._folder()))
        if name:
            self.write_into(Path(name))

    def _on_one(self) -> None:
        if self.piece is None:
            return
        start = self._folder() / f"{file_name(self.piece)}.pdf"
        path = ask_save_path(self._window, "Save the drawing of the piece", start, FORMATS)
        if path is not None:
            self.write_piece(path)

    def _on_progressed(self, _asked: object, done: int, total: int) -> None:
        self.all.setText(f"{STOP} ({done} of {total})")

    def _on_written(self, _asked: object, folder: object) -> None:
        self.all.setText(ALL)
        self.wrote.emit(folder)

    def _on_failed(self, _asked: object, problem: str) -> None:
        self.all.setText(ALL)
        self.trouble.emit(problem)

    def _on_stopped(self, _asked: object) -> None:
        self.all.setText(ALL)
