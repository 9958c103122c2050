"""The 3D view with its lenses, the exaggeration and the colour scale."""

from math import log10

import numpy as np
from PyQt6.QtCore import Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QColor
from PyQt6.QtWidgets import QButtonGroup, QHBoxLayout, QPushButton, QSlider, QStackedLayout, QVBoxLayout, QWidget

from unterbau.brief.brief import Brief
from unterbau.catalogue.cuts import Cut
from unterbau.machine.machine import Machine, bodies_of
from unterbau.mechanics.arrays import FloatArray
from unterbau.studies.answers import LikelyAnswers
from unterbau.studies.compliance import Solved
from unterbau.studies.loads import TIP
from unterbau.ui.selection import Selection
from unterbau.ui.stations.machine.change_bar import ChangeBar
from unterbau.ui.stations.machine.checks_bar import ChecksBar
from unterbau.ui.stations.machine.clash_bar import ClashBar
from unterbau.ui.stations.machine.clash_picture import clashing
from unterbau.ui.stations.machine.draw_later import DrawLater
from unterbau.ui.stations.machine.head_drag import HeadDrag
from unterbau.ui.stations.machine.head_place import HeadPlace
from unterbau.ui.stations.machine.lens_answers import LensAnswers
from unterbau.ui.stations.machine.lenses import FROM_BEHIND, LENSES, TIPS
from unterbau.ui.stations.machine.reach_bar import ReachBar
from unterbau.ui.stations.machine.reach_picture import show_map
from unterbau.ui.stations.machine.shake_bar import ShakeBar
from unterbau.ui.stations.machine.sizes_view import SizesView
from unterbau.ui.theme import colour, em, heat, mixed
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.viewport.scene import Scene, build_scene, largest_movement, moved, size_of
from unterbau.ui.viewport.viewport import Viewport, png
from unterbau.ui.widgets.ends_row import EndsRow
from unterbau.ui.widgets.heat_legend import HeatLegend
from unterbau.ui.widgets.labels import label
from unterbau.units import force_text

DRAWN = 0.05  # the largest movement is drawn as this share of the machine's size
TICKS = 100  # slider steps per factor of ten
SHARE_OF_ARROW = 0.13
SWING = 40  # ms between pictures of a swinging mode
PHASE = 0.35  # rad


class MachineView(QWidget):
    """Shows the machine through a lens."""

    chosen = pyqtSignal(str)
    lens_changed = pyqtSignal(str)
    pointed = pyqtSignal(str)
    drawn = pyqtSignal(str)
    """The machine was drawn through this lens; what is put on it goes with it."""

    def __init__(self, selection: Selection, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._selection = selection
        self._scene: Scene | None = None
        self._shown: tuple[Machine, LikelyAnswers, Solved] | None = None
        self._factor_touched = False
        self._drawn_place = selection.place
        self.head = HeadPlace(selection, view, self)
        self.lens = "flex"
        self.lenses = QButtonGroup(self)
        self.viewport = Viewport(self)
        self.head_drag = HeadDrag(self.viewport, selection, self)
        self.drawing = SizesView(view, self)
        self._pages = QStackedLayout()
        self.factor = QSlider(Qt.Orientation.Horizontal, self)
        self.factor_text = label("", "muted", 0.92)
        self.legend = HeatLegend(self)
        self.reach_bar, self.shake_bar, self.checks_bar = ReachBar(self), ShakeBar(self), ChecksBar(self)
        self.clash_bar, self.change_bar = ClashBar(self), ChangeBar(view, self)
        self.behind = LensAnswers(self)
        self._view, self._phase = view, 0.0
        self._swing = QTimer(self)
        self._swing.setSingleShot(True)
        self._swing.setInterval(SWING)
        self.draw_later = DrawLater(self)
        self._build()
        self.draw_later.put_together.connect(self._put_together)
        self.draw_later.draw.connect(self._draw)
        self.lenses.idClicked.connect(self._on_lens)
        self.factor.valueChanged.connect(self._on_factor)
        self.viewport.clicked.connect(self._on_clicked)
        self.viewport.pointed.connect(self.pointed)
        selection.pull_changed.connect(self._on_pull_changed)
        selection.link_changed.connect(self._on_lit)
        selection.hover_changed.connect(self._on_lit)
        self._swing.timeout.connect(self._on_swing)
        self.behind.ready.connect(self._on_behind)
        self.behind.reach.progressed.connect(self.reach_bar.show_waiting)
        self.behind.shakes.progressed.connect(self.shake_bar.show_waiting)
        self.behind.checks.progressed.connect(self.checks_bar.show_waiting)
        self.behind.clash.progressed.connect(self.clash_bar.show_waiting)
        self.clash_bar.head_wanted.connect(selection.move_head)
        self.clash_bar.chosen.connect(self._on_chosen)
        self.checks_bar.chosen.connect(self.chosen)
        self.checks_bar.cure_asked.connect(self.behind.ask_cure)
        self.behind.cure.ready.connect(self.checks_bar.show_cure)
        self.reach_bar.changed.connect(self.draw_later.start)
        self.reach_bar.head_wanted.connect(selection.move_head)
        self.shake_bar.chosen.connect(self._on_chosen)
        self.shake_bar.paused.connect(self._on_paused)

    @property
    def exaggeration(self) -> float:
        """How many times larger than true the flex is drawn."""
        exact = 10 ** (self.factor.value() / TICKS)
        digits = 10 ** max(0, int(log10(exact)) - 1)
        return float(round(exact / digits) * digits)

    @property
    def scene(self) -> Scene | None:
        """What is drawn."""
        return self._scene

    def show_answers(self, machine: Machine, likely: LikelyAnswers, solved: Solved, bands: bool = True) -> None:
        """Show a machine; the picture is drawn after the numbers, and after their bands if these are not there yet."""
        if self._shown is None or self._shown[0] != machine or self._drawn_place != self._selection.place:
            self._scene = None
        self._drawn_place = self._selection.place
        self.head.show_machine(machine)
        self.drawing.show_machine(machine, self._selection.place)
        self._shown = (machine, likely, solved)
        self.behind.show_machine(machine, self._selection.place)
        self._ask()
        if bands or self._scene is not None:
            self.draw_later.start()
        else:
            self.draw_later.start_before_bands()

    def show_brief(self, brief: Brief) -> None:
        """Check by another brief."""
        self.behind.use_brief(brief, self._view.units)
        self._ask()

    def show_cut(self, chosen: Cut) -> None:
        """Judge by another cut."""
        self.behind.use_cut(chosen)
        self.draw_later.start()

    def use_lens(self, lens: str) -> None:
        """Look through another lens."""
        button = self.lenses.button(LENSES.index(lens))
        if button is not None:
            button.setChecked(True)
        self._on_lens(LENSES.index(lens))

    def draw_now(self) -> None:
        """Draw without waiting for the event loop."""
        self.draw_later.stop()
        self._draw()

    def png(self) -> bytes:
        """Return the machine as it is seen, as a PNG; behind the drawing of sizes it is the shape."""
        if self.lens == "sizes":
            self._draw_scene("shape")
        else:
            self.draw_now()
        return png(self.viewport.canvas.picture())

    def close_view(self) -> None:
        """Give the graphics back."""
        self.draw_later.stop()
        self._swing.stop()
        self.behind.close()
        self.viewport.close_view()

    def movement(self) -> FloatArray:
        """Return the nodal movements of the chosen pull, (n_nodes, 6)."""
        if self._shown is None:
            return np.zeros((0, 6))
        _, _, solved = self._shown
        u = solved.statics.u[TIP][self._selection.axis, : len(solved.built.frame.nodes)]
        return np.asarray(u * self._selection.load)

    def _draw(self) -> None:
        if self._shown is not None and self.lens != "sizes":
            self._draw_scene(self.lens)

    def _put_together(self) -> None:
        if self._shown is None or self._scene is not None:
            return
        machine, _, solved = self._shown
        self._scene = build_scene(bodies_of(machine, self._drawn_place, screws=True), solved.built)
        self.viewport.show_scene(self._scene)

    def _draw_scene(self, lens: str) -> None:
        if self._shown is None:
            return
        machine, likely, solved = self._shown
        self._put_together()
        assert self._scene is not None
        flex = lens == "flex"
        u = self.movement()
        if flex and not self._factor_touched:
            self._fit_factor(u)
        if lens == "checks" and (found := self.behind.known_checks()) is not None:
            self.checks_bar.show_checks(found)  # parts are coloured by it
        self.viewport.colour_parts(self._colours(likely))
        self.viewport.light_up(self._selection.link)
        points = moved(self._scene, u, self.exaggeration) if flex else self._scene.points
        self.viewport.move_points(points, ghost=flex)
        self._show_pull(solved, u if flex else u * 0.0)
        self.head_drag.show(machine, self._scene, solved)
        self._show_words(self.lens)
        self._show_lens(lens)
        self.viewport.draw()

    def _show_lens(self, lens: str) -> None:
        """Draw what the lenses Reach and Shake add, once it is known."""
        assert self._shown is not None
        self._swing.stop()
        machine, _, solved = self._shown
        reach = self.behind.known_reach() if lens == "reach" else None
        if reach is None:
            self.viewport.hide_map()
        else:
            show_map(self.viewport, self.reach_bar, reach, solved, self._selection.axis, self._view)
        collisions = self.behind.known_clash() if lens == "clash" else None
        if collisions is not None:
            self.clash_bar.show_collisions(machine, collisions, self._view.units)
        if reach is None:
            clash = self.clash_bar.clash if collisions is not None else None
            self.viewport.show_bodies(clashing(machine, self._drawn_place, clash))
        self.drawn.emit(lens)
        shakes = self.behind.known_shakes() if lens == "shake" else None
        if shakes is not None:
            borne, known = self.behind.known_limit()
            self.shake_bar.show_shakes(machine, shakes, self._selection.link, self._view.units)
            self.shake_bar.show_limit(borne, self.behind.cut, known)
            self._move_swung()
            if not self.shake_bar.pause.isChecked():
                self._swing.start()

    def _ask(self) -> None:
        if self.lens == "reach":
            self.behind.ask_reach()
        elif self.lens == "shake":
            self.behind.ask_shakes()
        elif self.lens == "checks":
            self.behind.ask_checks()
        elif self.lens == "clash":
            self.behind.ask_clash()

    def _on_behind(self) -> None:
        """Draw what came behind, where it is looked at."""
        if self.lens in FROM_BEHIND:
            self.draw_later.start()

    def _on_chosen(self, answer: object) -> None:
        del answer
        self.draw_later.start()

    def _on_paused(self, still: bool) -> None:
        if not still:
            self._on_swing()

    def _on_swing(self) -> None:
        """Draw the next picture of the swinging mode."""
        if self.lens != "shake" or not self.isVisible() or self.behind.known_shakes() is None:
            return
        self._phase += PHASE
        self._move_swung()
        self.viewport.draw()
        if not self.shake_bar.pause.isChecked():
            self._swing.start()

    def _move_swung(self) -> None:
        """Put the points where the mode has them now; one that is held keeps its shape when all is redrawn."""
        shakes = self.behind.known_shakes()
        if self._shown is None or self._scene is None or shakes is None:
            return
        shape = shakes.likely.swings[self.shake_bar.number].shape
        scale = DRAWN * size_of(self._scene) * float(np.sin(self._phase))
        self.viewport.move_points(moved(self._scene, shape, scale), ghost=True)

    def _fit_factor(self, u: FloatArray) -> None:
        assert self._scene is not None
        wanted = DRAWN * size_of(self._scene) / max(largest_movement(self._scene, u), 1e-15)
        digits = 10 ** int(log10(max(wanted, 1.0)))
        value = max(1.0, round(wanted / digits) * digits)
        self.factor.blockSignals(True)
        self.factor.setValue(round(TICKS * log10(value)))
        self.factor.blockSignals(False)

    def _colours(self, likely: LikelyAnswers) -> dict[str, QColor]:
        assert self._scene is not None
        table = likely.shares.compliance[self._selection.axis].sum(axis=1)
        total, largest = float(table.sum()), float(table.max())
        self.legend.show_largest(largest / total)
        by_key = dict(zip(likely.shares.keys, (table / largest).tolist(), strict=True))
        result = {}
        heats = by_key if self.lens == "flex" else self.checks_bar.heats() if self.lens == "checks" else {}
        for key in self._scene.keys:
            base = heat(heats.get(key, 0.0)) if heats else colour("sunken")
            if key == self._selection.hover:
                base = mixed(base, colour("accent"), 0.35)
            result[key] = base
        return result

    def _show_pull(self, solved: Solved, u: FloatArray) -> None:
        assert self._scene is not None
        axis, node = self._selection.axis, solved.built.nose
        start = solved.built.frame.nodes[node] + (self.exaggeration * u[node, :3] if self.lens == "flex" else 0.0)
        length = SHARE_OF_ARROW * size_of(self._scene)
        direction = np.eye(3)[axis] * length
        # The arrow ends at the tool where one sees it: from the left, from the front, or beside it.
        start = start - direction if axis < 2 else start - np.array([0.0, 0.8 * length, 0.0])
        text = force_text(self._selection.load, self._view.units) if self.lens == "flex" else ""
        self.viewport.show_pull(start, direction, text)

    def _show_words(self, lens: str) -> None:
        for widget in (self.factor, self.legend):
            widget.setVisible(lens == "flex")
        self.factor_text.setVisible(lens in ("shape", "flex", "shake"))
        self.reset.setVisible(lens != "sizes")
        self.reach_bar.setVisible(lens == "reach")
        self.shake_bar.setVisible(lens == "shake")
        self.checks_bar.setVisible(lens == "checks")
        self.clash_bar.setVisible(lens == "clash")
        self.change_bar.setVisible(lens == "change")
        words = {
            "flex": f"flex drawn × {self.exaggeration:.0f}", "shape": "drawn as built, under no load",
            "checks": "coloured by what will not do", "shake": "a mode has no size of its own: drawn as large as "
            "can be seen",
        }  # fmt: skip
        self.factor_text.setText(words.get(lens, ""))

    def _build(self) -> None:
        unit = em()
        box = QVBoxLayout(self)
        box.setContentsMargins(round(1.1 * unit), round(0.4 * unit), round(0.6 * unit), round(0.4 * unit))
        box.setSpacing(round(0.2 * unit))
        lenses, about = QWidget(self), QWidget(self)
        ways, place_row = QHBoxLayout(lenses), QHBoxLayout(about)
        for row in (ways, place_row):
            row.setContentsMargins(0, 0, 0, 0)
        for place, name in enumerate(LENSES):
            button = QPushButton(name.capitalize(), self)
            button.setCheckable(True)
            button.setFlat(True)
            button.setChecked(name == self.lens)
            button.setToolTip(TIPS[name])
            button.setAccessibleName(f"Lens {name}")
            self.lenses.addButton(button, place)
            ways.addWidget(button)
        place_row.addWidget(self.head)
        place_row.addSpacing(round(0.3 * unit))
        self.reset = QPushButton("reset view", self)
        self.reset.setFlat(True)
        self.reset.setToolTip("look at the whole machine from the front, Home")
        self.reset.clicked.connect(self.viewport.reset_view)
        place_row.addWidget(self.reset)
        box.addWidget(EndsRow(lenses, about, self))
        self._pages.addWidget(self.viewport)
        self._pages.addWidget(self.drawing)
        box.addLayout(self._pages, 1)
        bottom = self.bottom = QHBoxLayout()
        bottom.addWidget(self.factor_text)
        self.factor.setRange(0, 5 * TICKS)
        self.factor.setFixedWidth(round(9 * unit))
        self.factor.setAccessibleName("Exaggeration of the drawn flex")
        bottom.addWidget(self.factor)
        bottom.addStretch()
        bottom.addWidget(self.legend)
        self.legend.setFixedSize(self.legend.sizeHint())
        box.addLayout(bottom)
        box.addWidget(self.reach_bar)
        box.addWidget(self.shake_bar)
        for bar in (self.checks_bar, self.clash_bar, self.change_bar):
            box.addWidget(bar)
        self._show_words(self.lens)

    def _on_lens(self, place: int) -> None:
        self.lens = LENSES[place]
        self._pages.setCurrentIndex(1 if self.lens == "sizes" else 0)
        self._show_words(self.lens)
        self._ask()
        self.draw_later.start()
        self.lens_changed.emit(self.lens)

    def _on_factor(self, value: int) -> None:
        del value
        self._factor_touched = True
        self.draw_later.start()

    def _on_pull_changed(self) -> None:
        self.draw_later.start()

    def _on_lit(self, key: str) -> None:
        del key
        self.draw_later.start()

    def _on_clicked(self, key: str) -> None:
        if key:
            self.chosen.emit(key)
