"""The head dragged by the cross over it: along an axis, held at the middle and the ends, taken back."""

from dataclasses import replace

import numpy as np
from PyQt6.QtCore import QObject

from unterbau.machine.machine import Machine, travel
from unterbau.studies.compliance import Solved
from unterbau.ui.selection import Selection
from unterbau.ui.viewport.scene import Scene, size_of
from unterbau.ui.viewport.viewport import Viewport

SHARE_OF_GRIP = 0.05
SNAP = 0.02  # of the travel: the head stays at its middle and ends


class HeadDrag(QObject):
    """Moves the head as it is dragged."""

    def __init__(self, viewport: Viewport, selection: Selection, parent: QObject) -> None:
        super().__init__(parent)
        self._viewport, self._selection = viewport, selection
        self._machine: Machine | None = None
        self._held = selection.place
        viewport.grip_pressed.connect(self._on_pressed)
        viewport.grip_moved.connect(self._on_moved)
        viewport.grip_released.connect(self._on_released)

    def show(self, machine: Machine, scene: Scene, solved: Solved) -> None:
        """Put the cross over the spindle."""
        self._machine = machine
        size, nose = size_of(scene), solved.built.frame.nodes[solved.built.nose]
        of_spindle = scene.points[scene.points_of("spindle")]
        top = float(of_spindle[:, 2].max()) if len(of_spindle) else float(nose[2])
        length = SHARE_OF_GRIP * size
        self._viewport.show_grips(np.array([nose[0], nose[1], top + 1.3 * length]), length)

    def _on_pressed(self, axis: str) -> None:
        del axis
        self._held = self._selection.place

    def _on_moved(self, axis: str, distance: float) -> None:
        if self._machine is None:
            return
        along = dict(zip("xyz", travel(self._machine), strict=True))[axis]
        share = getattr(self._held, axis) + distance / along
        snapped = next((stop for stop in (0.0, 0.5, 1.0) if abs(share - stop) < SNAP), min(1.0, max(0.0, share)))
        self._selection.move_head(replace(self._selection.place, **{axis: snapped}))

    def _on_released(self, kept: bool) -> None:
        if not kept:
            self._selection.move_head(self._held)
