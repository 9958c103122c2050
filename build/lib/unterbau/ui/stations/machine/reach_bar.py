"""Under the picture in the lens Reach: what the bed is coloured by, at which height, and where it is weakest."""

from dataclasses import dataclass

import numpy as np
from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from unterbau.mechanics.arrays import FloatArray
from unterbau.structure.parts import Place
from unterbau.studies.places import place_words
from unterbau.studies.reach import Reach
from unterbau.ui.theme import em
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.asked_label import AskedLabel
from unterbau.ui.widgets.choice_box import ChoiceBox
from unterbau.ui.widgets.heat_legend import HeatLegend
from unterbau.ui.widgets.labels import label
from unterbau.units import movement_text, stiffness_text

SHOWN = (("stiffness", "stiffness along the pull"), ("droop", "droop by weight"), ("surfaced", "droop, bed surfaced"))
HEIGHTS = (("0", "with Z lowest"), ("1", "at mid height"), ("2", "with Z highest"))
AXES = ("X", "Y", "Z")


@dataclass(frozen=True)
class Map:
    """One height of the travel, coloured."""

    points: FloatArray
    """The tool over what carries the work, m, shape (ny, nx, 3)."""
    heat: FloatArray
    """0 to 1, shape (ny, nx)."""
    mark: tuple[int, int]
    """Row and column of the weakest place."""
    place: Place
    ends: tuple[str, str]
    """What pale and rust stand for."""
    title: str
    words: str
    text: str
    """Beside the mark."""


def make_map(reach: Reach, shown: str, height: int, axis: int, view: ViewSettings) -> Map:
    """Return the map of one height; rust is the softest, or what droops most."""
    nx, ny, nz = reach.counts
    level = min(height, nz - 1)
    over = reach.over.reshape(nx, ny, nz, 3)[:, :, level].transpose(1, 0, 2)
    rows = np.arange(nx * ny * nz).reshape(nx, ny, nz)[:, :, level].T
    if shown == "stiffness":
        give = reach.compliance[:, axis, axis][rows]
        stiff = 1.0 / give
        least, most = (stiffness_text(float(v), view.units) for v in (stiff.min(), stiff.max()))
        ends = (most.split(" ")[0], least)
        text = least
        title = f"stiffness along {AXES[axis]}, likely"
        what = f"softest along {AXES[axis]}: {text}, likely"
    else:
        give = np.abs(reach.droops(shown == "surfaced")[rows])
        least, most = (movement_text(float(v), view.units) for v in (give.min(), give.max()))
        ends, text = (least, most), most
        sag = movement_text(reach.sag(shown == "surfaced"), view.units)
        title = "droop, likely"
        what = f"droops {most} here; {sag} of range over the whole travel, likely"
    spread = float(np.ptp(give))
    heat = (give - give.min()) / spread if spread > 1e-3 * float(give.max()) else np.zeros_like(give)
    row, column = np.unravel_index(int(give.argmax()), give.shape)
    place = reach.place(int(rows[row, column]))
    return Map(over, heat, (int(row), int(column)), place, ends, title, f"{what}: {place_words(place)}", text)


class ReachBar(QWidget):
    """Choices and words of the lens."""

    changed = pyqtSignal()
    head_wanted = pyqtSignal(object)
    """Put the head at a place."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.shown = ChoiceBox("What the bed is coloured by", SHOWN, self)
        self.height_box = ChoiceBox("Height of the map", HEIGHTS, self)
        self.words = AskedLabel("reach", "The weakest place", self, size=0.95, bold=True)
        self.note = label("", "muted", 0.86)
        self.go = QPushButton("put the head there", self)
        self.go.setToolTip("the readout and the load path then speak of this place")
        self.legend = HeatLegend(self)
        self.legend.setFixedSize(self.legend.sizeHint())
        self._place: Place | None = None
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(round(0.6 * em()))
        choices = QVBoxLayout()
        choices.setSpacing(round(0.15 * em()))
        choices.addWidget(self.shown)
        choices.addWidget(self.height_box)
        row.addLayout(choices)
        text = QVBoxLayout()
        text.setSpacing(0)
        text.addWidget(self.words)
        below = QHBoxLayout()
        below.addWidget(self.go)
        below.addSpacing(round(0.6 * em()))
        below.addWidget(self.note)
        below.addStretch()
        text.addLayout(below)
        row.addLayout(text, 1)
        row.addWidget(self.legend)
        self.words.setWordWrap(True)
        for box in (self.shown, self.height_box):
            box.setFixedWidth(round(14 * em()))
        self.shown.activated.connect(self._on_changed)
        self.height_box.activated.connect(self._on_changed)
        self.go.clicked.connect(self._on_go)
        self.show_waiting(0, 0)

    @property
    def what(self) -> str:
        """What the bed is coloured by."""
        return str(self.shown.currentData())

    @property
    def level(self) -> int:
        """Height of the map: 0 is lowest."""
        return int(self.height_box.currentData())

    def show_map(self, found: Map, heights: int) -> None:
        """Tell what a map shows."""
        self._place = found.place
        self.words.setText(found.words[0].upper() + found.words[1:])
        self.legend.show_ends(found.title, *found.ends)
        self.height_box.setEnabled(heights > 1)
        self.go.setEnabled(True)
        notes = {
            "stiffness": "the map follows the axis of the pull", "droop": "tool against the bed below it",
            "surfaced": "less what a surfacing pass with Z lowest has cut into the bed",
        }  # fmt: skip
        self.note.setText(notes[self.what])

    def show_waiting(self, done: int, total: int) -> None:
        """Say that the map is being computed."""
        if total or self._place is None:
            self.words.setText("the whole travel is being solved …")
            self.go.setEnabled(False)

    def _on_changed(self, index: int) -> None:
        del index
        self.changed.emit()

    def _on_go(self) -> None:
        if self._place is not None:
            self.head_wanted.emit(self._place)
