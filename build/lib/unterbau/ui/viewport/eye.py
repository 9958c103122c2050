"""Where places of the scene are seen on a widget."""

from typing import Any

import numpy as np
from PyQt6.QtWidgets import QWidget

from unterbau.mechanics.arrays import FloatArray


class Eye:
    """Looks through a renderer's camera."""

    def __init__(self, renderer: Any, widget: QWidget) -> None:
        self._renderer, self._widget = renderer, widget

    def on_widget(self, place: FloatArray) -> tuple[float, float]:
        """Return where a place of the scene is seen on the widget, px."""
        ratio = self._widget.devicePixelRatioF()
        self._renderer.SetWorldPoint([*(float(v) for v in place), 1.0])
        self._renderer.WorldToDisplay()
        x, y, _ = self._renderer.GetDisplayPoint()
        return x / ratio, self._widget.height() - y / ratio

    def away(self, points: FloatArray) -> FloatArray:
        """Return how far places are from the eye, m, shape (n,)."""
        towards = np.array(self._renderer.GetActiveCamera().GetDirectionOfProjection())
        return np.asarray(points @ towards)
