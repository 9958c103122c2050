"""How much the tapped point gives by frequency, and how deep a cut may go by turning speed, as curves."""

import numpy as np
import pyqtgraph as pg
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QWidget

from unterbau.mechanics.arrays import ComplexArray
from unterbau.studies.shake import Shaking
from unterbau.studies.stability import Limit
from unterbau.ui.theme import colour, font
from unterbau.units import Units, number_text

AXES = ("X", "Y", "Z")
MARKS = ("──", "╌╌", "····")
STROKES = (Qt.PenStyle.SolidLine, Qt.PenStyle.DashLine, Qt.PenStyle.DotLine)


class ShakePlot(pg.PlotWidget):  # type: ignore[misc]
    """Each drawing returns its key in words."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent, background=colour("paper"))
        item = self.getPlotItem()
        item.setMenuEnabled(False)
        item.hideButtons()
        item.setLogMode(False, True)
        item.setMouseEnabled(False, False)
        for side in ("left", "bottom"):
            axis = item.getAxis(side)
            axis.setTextPen(colour("muted"))
            axis.setPen(colour("hairline"))
            axis.setStyle(tickFont=font(0.8))
        item.setLabel("bottom", "Hz", color=colour("muted").name())
        self.setAccessibleName("Give of the tapped point by frequency, likely")

    def show_curves(self, H: ComplexArray, shaken: Shaking, number: int) -> str:
        """Draw a receptance, m/N, shape (n, 3, 3), over the frequencies, one mode marked."""
        item = self._emptied("Hz")
        still = []
        for axis, name in enumerate(AXES):
            pen = pg.mkPen(colour("ink") if axis != 1 else colour("accent"), width=1.4, style=STROKES[axis])
            give = np.abs(H[:, axis, axis]) * 1e6
            item.plot(shaken.frequency, give, pen=pen)
            still.append(f"{name} {MARKS[axis]} {number_text(float(give[0]))}")
        for n, swing in enumerate(shaken.swings):
            pen = pg.mkPen(colour("warning" if n == number else "hairline"), width=1.2)
            item.addItem(pg.InfiniteLine(swing.frequency, pen=pen))
        return f"give, µm/N, likely; still: {'   '.join(still)}"

    def show_lobes(self, found: Limit | None, units: Units) -> str:
        """Draw how deep the chosen cut may go by the tool's turning speed."""
        item = self._emptied("turns a minute")
        if found is None or np.isinf(found.likely.depth):
            return "no limit of depth is estimated for this cut"
        one, unit = found.likely, 1e3 if units == "mm" else 1 / 0.0254
        depth = np.where(np.isfinite(one.lobes), one.lobes, np.nan) * unit
        item.plot(one.speeds * 60, depth, pen=pg.mkPen(colour("ink"), width=1.4), connect="finite")
        item.addItem(pg.InfiniteLine(one.turns * 60, pen=pg.mkPen(colour("warning"), width=1.2)))
        floor = pg.mkPen(colour("accent"), width=1.2, style=Qt.PenStyle.DashLine)
        item.addItem(pg.InfiniteLine(np.log10(one.floor * unit), angle=0, pen=floor))
        return f"chatters above the line, {'mm' if units == 'mm' else 'in'} deep; dashed: at no speed below"

    def _emptied(self, below: str) -> pg.PlotItem:
        item = self.getPlotItem()
        item.clear()
        item.setLabel("bottom", below, color=colour("muted").name())
        return item
