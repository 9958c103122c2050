"""One machine's lines over another, at one scale, their tools' tips in one place: through the lens Shape."""

from functools import lru_cache

from PyQt6.QtCore import QObject
from PyQt6.QtWidgets import QHBoxLayout

from unterbau.errors import InputError
from unterbau.machine.machine import Machine, bodies_of, to_frame
from unterbau.mechanics.arrays import FloatArray
from unterbau.structure.parts import Place
from unterbau.ui.document import Document
from unterbau.ui.selection import Selection
from unterbau.ui.stations.machine.machine_view import MachineView
from unterbau.ui.theme import em
from unterbau.ui.viewport.scene import Scene, build_scene
from unterbau.ui.widgets.choice_box import ChoiceBox

NOTHING = ("", "nothing over it")


class Ghosting(QObject):
    """Draws another candidate's lines over the chosen one."""

    def __init__(
        self, document: Document, selection: Selection, view: MachineView, row: QHBoxLayout, parent: QObject
    ) -> None:
        super().__init__(parent)
        self._document, self._selection, self._view = document, selection, view
        self.box = ChoiceBox("Drawn over it", (NOTHING,), view)
        self.box.setMinimumWidth(round(15 * em()))
        self.box.setToolTip("another candidate's lines over this one, at one scale, tool tip on tool tip")
        row.addWidget(self.box)
        self.box.activated.connect(lambda _: view.draw_later.start())
        view.drawn.connect(self._on_drawn)
        view.lens_changed.connect(self._on_lens)
        document.changed.connect(self._fill)
        selection.candidate_changed.connect(self._fill)
        self._fill()
        self._on_lens(view.lens)

    def choose(self, name: str) -> None:
        """Draw a candidate's lines over the chosen one, through the lens Shape."""
        self._view.use_lens("shape")
        self._fill()
        self.box.setCurrentIndex(max(self.box.findData(name), 0))
        self._view.draw_later.start()

    def _fill(self, *_: object) -> None:
        chosen = str(self.box.currentData() or "")
        self.box.clear()
        self.box.addItem(NOTHING[1], NOTHING[0])
        project = self._document.project
        for one in project.candidates:
            if one.name != self._selection.candidate:
                star = "★ " if one.name == project.benchmark else ""
                self.box.addItem(f"over it: {star}{one.name}", one.name)
        self.box.setCurrentIndex(max(self.box.findData(chosen), 0))
        self._on_lens(self._view.lens)

    def _on_lens(self, lens: str) -> None:
        self.box.setVisible(lens == "shape" and self.box.count() > 1)

    def _on_drawn(self, lens: str) -> None:
        name, port = str(self.box.currentData() or ""), self._view.viewport
        known = {one.name: one.machine for one in self._document.project.candidates}
        mine, place = known.get(self._selection.candidate), self._selection.place
        if lens != "shape" or name not in known or mine is None:
            port.show_other(None)
            return
        try:
            scene, tip = _drawn(known[name], place)
            _, mine_tip = _drawn(mine, place)
        except InputError:
            port.show_other(None)
            return
        port.show_other((scene, mine_tip - tip))


@lru_cache(maxsize=4)
def _drawn(machine: Machine, place: Place) -> tuple[Scene, FloatArray]:
    """Return a machine as it is drawn, and where its tool's tip is, m."""
    built = to_frame(machine, place, "likely")
    return build_scene(bodies_of(machine, place), built), built.frame.nodes[built.tip]
