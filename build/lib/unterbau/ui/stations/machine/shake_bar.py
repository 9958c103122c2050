"""Under the picture in the lens Shake: modes in words, how the tool answers a tap, how deep a cut may go."""

from typing import TYPE_CHECKING

import numpy as np
from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QListWidget, QPushButton, QVBoxLayout, QWidget

from unterbau.catalogue.cuts import Cut
from unterbau.machine.machine import Machine, link, links
from unterbau.mechanics.arrays import ComplexArray
from unterbau.studies.shake import Shakes, Swing, tapped
from unterbau.studies.stability import Limit
from unterbau.ui.theme import em, font
from unterbau.ui.widgets.asked_label import AskedLabel
from unterbau.ui.widgets.choice_box import ChoiceBox
from unterbau.ui.widgets.labels import label
from unterbau.units import Units, length_text

if TYPE_CHECKING:
    from unterbau.ui.stations.machine.shake_plot import ShakePlot

AT = (
    ("tool", "tapped at the tool"), ("part", "tapped at the part on the bench"), ("lobes", "depth by turning speed"),
)  # fmt: skip
LOBES = "lobes"


def swing_words(machine: Machine, swing: Swing) -> str:
    """Return where a mode comes from and what it does to the tool, as one line."""
    known = {one.key for one in links(machine)}
    strains = link(machine, swing.strains).label if swing.strains in known else "the feet"
    return (
        f"{swing.strained:.0%} of it gives in {strains}; damping {swing.zeta:.1%}; up to {swing.at_tool:.0%} of the "
        "tool's give; likely"
    )


def limit_words(found: Limit | None, chosen: Cut, units: Units) -> str:
    """Return how deep a cut may go, in a sentence or two."""
    if found is None:
        return f"{chosen.label}: the work turns, not the tool; no such limit is estimated."
    worst = found.likely
    if np.isinf(worst.depth):
        return (
            f"{chosen.label} ({chosen.tool}): at {worst.turns * 60:.0f} turns a minute it does not chatter, likely; at "
            f"no speed below {length_text(worst.floor, units)}. An estimate."
        )
    low, high = (length_text(v, units) for v in found.depth.ends)
    sort = "" if worst.covered else " Little of the tool is in the work: other lobes may come lower."
    return (
        f"{chosen.label} ({chosen.tool}): at {worst.turns * 60:.0f} turns a minute it chatters beyond "
        f"{length_text(worst.depth, units)} ({low} – {high}), at {worst.frequency:.0f} Hz feeding at "
        f"{worst.feed:.0f}° from X; at no speed below {length_text(worst.floor, units)}. An estimate.{sort}"
    )


class ShakeBar(QWidget):
    """Modes, receptance, limit depth."""

    chosen = pyqtSignal(int)
    """Another mode is looked at."""
    paused = pyqtSignal(bool)

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.modes = QListWidget(self)
        self.modes.setAccessibleName("Natural modes, lowest first")
        self.modes.setFont(font(0.9))
        self.modes.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.modes.setTextElideMode(Qt.TextElideMode.ElideRight)
        self.pause = QPushButton("hold still", self)
        self.pause.setCheckable(True)
        self.pause.setToolTip("stop the movement, or let it go on")
        self.at = ChoiceBox("Where the machine is tapped", AT, self)
        self.limit = AskedLabel("chatter", "Depth that does not chatter", self, "muted", 0.9)
        self.key = label("", "muted", 0.86)
        self.detail = label("", size=0.9)
        self.detail.setToolTip("damping ratio by the strain energy of joints and materials")
        self.limit.setWordWrap(True)
        self._plot: ShakePlot | None = None
        self._shown: tuple[Machine, Shakes, str, Units] | None = None
        self._limit: Limit | None = None
        self._build()
        self.modes.currentRowChanged.connect(self._on_row)
        self.pause.toggled.connect(self._on_paused)
        self.at.activated.connect(self._on_at)
        self.show_waiting(0, 0)

    @property
    def plot(self) -> "ShakePlot":
        """The curves, made when they are first wanted."""
        if self._plot is None:
            from unterbau.ui.stations.machine.shake_plot import ShakePlot

            self._plot = ShakePlot(self)
            self._right.addWidget(self._plot, 1)
        return self._plot

    @property
    def number(self) -> int:
        """The mode that is looked at."""
        return max(0, self.modes.currentRow())

    def show_shakes(self, machine: Machine, shakes: Shakes, key: str, units: Units) -> None:
        """Show a machine shaking; `key` is the part on the bench."""
        number = self.number
        self._shown = (machine, shakes, key, units)
        self.modes.blockSignals(True)
        self.modes.clear()
        for n, swing in enumerate(shakes.likely.swings):
            low, high = shakes.frequency(n).ends
            self.modes.addItem(f"{swing.frequency:.0f} Hz ({low:.0f} – {high:.0f})   {swing.moves}")
        self.modes.setCurrentRow(min(number, self.modes.count() - 1))
        self.modes.blockSignals(False)
        self._draw()

    def show_limit(self, found: Limit | None, chosen: Cut, known: bool) -> None:
        """Show how deep a cut may go, or that it is being found out."""
        self._limit = found
        units = self._shown[3] if self._shown else "mm"
        waiting = f"{chosen.label}: how deep it may go before it chatters is being computed …"
        self.limit.setText(limit_words(found, chosen, units) if known else waiting)
        if self.at.currentData() == LOBES:
            self._draw()

    def show_waiting(self, done: int, total: int) -> None:
        """Say that modes are being computed."""
        if total and not self.modes.count():
            self.limit.setText(f"modes are being computed, {done} of {total} …")

    def curves(self) -> ComplexArray:
        """Return the receptance that is drawn, m/N, shape (n, 3, 3)."""
        assert self._shown is not None
        _, shakes, key, _ = self._shown
        frame = shakes.likely.solved.built.frame
        if self.at.currentData() == "part" and key in frame.groups:
            group = frame.groups.index(key)
            nodes = frame.beams.i[frame.beams.group == group]
            if not len(nodes):
                nodes = np.array([p for plate in frame.plates if plate.group == group for p in plate.patches])
            if len(nodes):
                return tapped(shakes.likely, int(nodes[len(nodes) // 2]))
        return shakes.likely.tool

    def _draw(self) -> None:
        if self._shown is None:
            return
        shakes = self._shown[1]
        self.detail.setText(swing_words(self._shown[0], shakes.likely.swings[self.number]))
        if self.at.currentData() == LOBES:
            self.key.setText(self.plot.show_lobes(self._limit, self._shown[3]))
        else:
            self.key.setText(self.plot.show_curves(self.curves(), shakes.likely, self.number))

    def _build(self) -> None:
        unit = em()
        self.setFixedHeight(round(14.5 * unit))
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(round(0.6 * unit))
        left = QVBoxLayout()
        left.setSpacing(round(0.2 * unit))
        left.addWidget(self.modes, 1)
        controls = QHBoxLayout()
        controls.addWidget(self.pause)
        controls.addWidget(self.at, 1)
        left.addLayout(controls)
        left.addWidget(self.detail)
        left.addWidget(self.limit)
        row.addLayout(left, 6)
        right = QVBoxLayout()
        right.setSpacing(0)
        right.addWidget(self.key)
        self._right = right
        row.addLayout(right, 4)

    def _on_row(self, row: int) -> None:
        if row >= 0:
            self._draw()
            self.chosen.emit(row)

    def _on_paused(self, still: bool) -> None:
        self.pause.setText("let it move" if still else "hold still")
        self.paused.emit(still)

    def _on_at(self, index: int) -> None:
        del index
        self._draw()
