"""A section by its dimensions: a shape and its sizes, typed."""

from functools import partial
from pathlib import Path

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QFileDialog, QGridLayout, QPushButton, QWidget

from unterbau.errors import InputError, UnterbauError
from unterbau.files.atomic import write_atomically
from unterbau.files.section_dxf import dxf_text, svg_text
from unterbau.files.section_text import outline_text
from unterbau.sections.built_up import LAYOUTS, OF
from unterbau.sections.own import SHAPES, converted, section_of, shape, shape_of, sizes_of
from unterbau.sections.section import pieces_of, section, shipped_built_up
from unterbau.sections.solved import CustomSection, SectionRef, SolvedSection, section_name
from unterbau.ui.jobs.asker import Asker
from unterbau.ui.jobs.solve_apart import STEP, solve_apart
from unterbau.ui.stations.machine.drawn_section import DrawnSection, open_drawing
from unterbau.ui.theme import em
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.choice_box import ChoiceBox
from unterbau.ui.widgets.labels import label
from unterbau.ui.widgets.quantity_field import QuantityField
from unterbau.ui.widgets.save_path import ask_save_path

LAYOUT_CHOICES = tuple((one.id, one.label) for one in LAYOUTS.values())
WRITERS = {".svg": svg_text, ".txt": outline_text}
"""By the file's ending; a DXF drawing for any other."""
SIZES = ("height", "width", "side", "diameter", "wall")


class OwnSection(QWidget):
    """Fields for each size of the chosen shape."""

    chosen = pyqtSignal(str, object)
    """The part that it is for, and its section."""

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._section: SectionRef = ""
        self._key = self._owner = ""
        self.shape = ChoiceBox("Shape of the section", tuple((one.id, one.label) for one in SHAPES), self)
        self.fields = {name: QuantityField(f"Section, {name}", "length", view, self) for name in SIZES}
        self._captions = {name: label(name, "muted", 0.92) for name in SIZES}
        grid = QGridLayout(self)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setHorizontalSpacing(round(0.5 * em()))
        grid.setVerticalSpacing(round(0.2 * em()))
        grid.setColumnStretch(1, 1)
        grid.addWidget(label("shape", "muted", 0.92), 0, 0)
        grid.addWidget(self.shape, 0, 1)
        for row, name in enumerate(SIZES, start=1):
            self._captions[name].setBuddy(self.fields[name].edit)
            grid.addWidget(self._captions[name], row, 0)
            grid.addWidget(self.fields[name], row, 1)
            self.fields[name].committed.connect(partial(self._on_size, name))
        self.drawing = QPushButton("from a drawing …", self)
        self.drawing.setToolTip("closed outlines from a DXF file, or from a few lines of text")
        self.save = QPushButton("save the outline …", self)
        self.save.setToolTip("as a DXF drawing, an SVG picture or a few lines of text")
        self.build = ChoiceBox("Build up of several of these", (("", "build up …"), *LAYOUT_CHOICES), self)
        for row, widget in enumerate((self.build, self.drawing, self.save), start=len(SIZES) + 1):
            grid.addWidget(widget, row, 1)
        self.message = label("", "error", 0.86)
        self.message.setWordWrap(True)
        grid.addWidget(self.message, len(SIZES) + 4, 0, 1, 2)
        self.solving = Asker(solve_apart, self)
        self.solving.ready.connect(self._on_built)
        self.solving.failed.connect(self.message.setText)
        self.solving.progressed.connect(self._on_steps)
        self.drawing.clicked.connect(self._on_drawing)
        self.save.clicked.connect(self._on_save)
        self.build.activated.connect(self._on_build)
        self.shape.activated.connect(self._on_shape)

    def leave(self) -> None:
        """Hold no part any more; what is being solved for one is not wanted."""
        self._key = ""
        self.solving.stop()

    def belong_to(self, candidate: str) -> None:
        """Hold parts of a candidate; what is being solved for another's part is not wanted."""
        if candidate != self._owner:
            self._owner = candidate
            self.leave()

    def show_section(self, of: SectionRef, key: str) -> None:
        """Show the sizes of the section of a part."""
        if key != self._key:
            self.leave()
        self._section, self._key = of, key
        kind = shape_of(of)
        self.shape.show_value(kind.id)
        sizes = sizes_of(of)
        for size, field in self.fields.items():
            field.setVisible(size in kind.sizes)
            self._captions[size].setVisible(size in kind.sizes)
            if size in sizes:
                field.set_value(sizes[size])

    def open_file(self, path: Path) -> DrawnSection | None:
        """Show the drawing in a file; say beside the button why it cannot be read."""
        self.message.setText("")
        try:
            drawing = open_drawing(path)
        except InputError as error:
            self.message.setText(f"{Path(error.where).name or path.name}: {error.problem}")
            return None
        except UnterbauError as error:
            self.message.setText(str(error))
            return None
        dialog = DrawnSection(drawing, path.stem, self)
        dialog.solved.connect(partial(self._on_solved, self._key))
        dialog.open()
        return dialog

    def write_file(self, path: Path) -> None:
        """Save the section's outline; the file's ending says how."""
        found = section(self._section)
        text = WRITERS.get(path.suffix.lower(), dxf_text)(found)
        try:
            write_atomically(path, text)
        except UnterbauError as error:
            self.message.setText(str(error))

    def _on_drawing(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, "A drawn section", "", "Drawings (*.dxf *.txt)")
        if name:
            self.open_file(Path(name))

    def _on_save(self) -> None:
        start = f"{section_name(self._section)}.dxf"
        path = ask_save_path(self, "Save the outline", start, "DXF (*.dxf);;SVG (*.svg);;Text (*.txt)")
        if path is not None:
            self.write_file(path)

    def _on_build(self, index: int) -> None:
        layout = str(self.build.itemData(index))
        self.build.setCurrentIndex(0)
        if not layout:
            return
        name = f"{layout}{OF}{section_name(self._section).split(OF)[-1]}"
        self.message.setText("")
        try:
            pieces_of(name, self._profile())
        except InputError as error:
            self.message.setText(error.problem)
            return
        if name in shipped_built_up():
            self.chosen.emit(self._key, name)
        else:
            self.solving.ask((name, self._profile()))

    def _profile(self) -> SolvedSection | None:
        """Return the builder's own profile that is to be built up, if it is no standard one."""
        if isinstance(self._section, str):
            return None
        return self._section.profile if OF in self._section.name else self._section.values

    def _on_steps(self, done: int, total: int) -> None:
        self.build.setEnabled(not total)
        self.message.setText(f"solving the cross-section, {done * STEP:.0f} s …" if total else "")

    def _on_built(self, found: SolvedSection) -> None:
        self.chosen.emit(self._key, CustomSection(found, self._profile()))

    def _on_solved(self, key: str, found: CustomSection) -> None:
        self.chosen.emit(key, found)

    def _on_shape(self, index: int) -> None:
        kind = shape(str(self.shape.itemData(index)))
        if self._section and kind != shape_of(self._section):
            self.chosen.emit(self._key, section_of(kind, converted(self._section, kind)).name)

    def _on_size(self, name: str, value: float) -> None:
        kind = shape_of(self._section)
        try:
            found = section_of(kind, {**sizes_of(self._section), name: value})
        except InputError as error:
            at_fault = error.where if error.where in kind.sizes else name
            self.fields[at_fault].refuse(error.problem.partition(": ")[2] or error.problem)
            return
        self.chosen.emit(self._key, found.name)
