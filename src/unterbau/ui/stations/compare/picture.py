"""Stiffness against mass: a dot a candidate, its size by money, its band as a line."""

from dataclasses import dataclass
from typing import Any

import pyqtgraph as pg
from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QFontMetricsF
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from unterbau.band import Band
from unterbau.ui.theme import colour, em, font
from unterbau.units import Units, unit_text

SMALLEST, LARGEST = 0.7, 1.8  # line heights


@dataclass(frozen=True)
class Dot:
    """One candidate."""

    name: str
    mass: float
    stiffness: Band
    """As it is read."""
    money: float
    benchmark: bool


def sizes(dots: list[Dot]) -> list[float]:
    """Return the dots' widths, line heights; their areas grow evenly with the money."""
    most = max((dot.money for dot in dots), default=0.0) or 1.0
    return [(SMALLEST**2 + (LARGEST**2 - SMALLEST**2) * dot.money / most) ** 0.5 for dot in dots]


@dataclass(frozen=True)
class Beside:
    """Where a name stands beside its dot: shift in the plot's units, and which point of the text."""

    right: float
    up: float
    anchor: tuple[float, float]


def places(dots: list[Dot], per_x: float, per_y: float) -> list[Beside]:
    """Return a place for each name that covers no dot and no other name, as far as there is one.

    Args:
        dots: Candidates.
        per_x: Mass per pixel across.
        per_y: Stiffness per pixel upwards.
    """
    metrics, gap = QFontMetricsF(font(0.88)), 0.5 * LARGEST * em() + 3.0
    height = metrics.height()
    centres = [QPointF(dot.mass / per_x, -dot.stiffness.likely / per_y) for dot in dots]
    taken = [QRectF(c.x() - gap, c.y() - gap, 2 * gap, 2 * gap) for c in centres]
    result = []
    for number, (dot, centre) in enumerate(zip(dots, centres, strict=True)):
        width = metrics.horizontalAdvance(dot.name) + 2.0 * em()
        choices = (
            (gap, 0.0, (0.0, 0.5)), (-gap, 0.0, (1.0, 0.5)), (gap, 1.2 * height, (0.0, 0.5)),
            (gap, -1.2 * height, (0.0, 0.5)), (-gap, 1.2 * height, (1.0, 0.5)),
        )  # fmt: skip
        boxes = [
            QRectF(centre.x() + right - anchor[0] * width, centre.y() - up - height / 2, width, height)
            for right, up, anchor in choices
        ]
        covered = [sum(box.intersects(other) for n, other in enumerate(taken) if n != number) for box in boxes]
        best = covered.index(min(covered))
        taken.append(boxes[best])
        right, up, anchor = choices[best]
        result.append(Beside(right * per_x, up * per_y, anchor))
    return result


class Picture(QWidget):
    """A click chooses a candidate."""

    chosen = pyqtSignal(str)

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.dots: list[Dot] = []
        self.plot = pg.PlotWidget(self, background=colour("paper"))
        self.plot.setAccessibleName("Stiffness against mass of all candidates")
        self.plot.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.plot.setMenuEnabled(False)
        self.plot.hideButtons()
        self.plot.setMouseEnabled(False, False)
        self._item = self.plot.getPlotItem()
        for side in ("left", "bottom"):
            axis = self._item.getAxis(side)
            axis.setPen(pg.mkPen(colour("hairline")))
            axis.setTextPen(colour("muted"))
            axis.setStyle(tickFont=font(0.86))
            axis.label.setFont(font(0.9))
        self._item.showGrid(x=True, y=True, alpha=0.12)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(self.plot)

    def show_dots(self, dots: list[Dot], axis: str, chosen: str, target: float, units: Units = "mm") -> None:
        """Show candidates by their stiffness along an axis, and what the brief needs."""
        self.dots = dots
        self._item.clear()
        muted = colour("muted").name()
        self._item.setLabel(
            "left", f"stiffness along {axis}, {unit_text('N/µm', units)} (line: low to high)", color=muted
        )
        self._item.setLabel("bottom", f"mass, {unit_text('kg', units)} (area of a dot: money)", color=muted)
        self._show_target(target)
        for dot, size in zip(dots, sizes(dots), strict=True):
            self._add(dot, size, dot.name == chosen)
        if dots:
            self._frame(dots, target)
            per_x, per_y = self._item.vb.viewPixelSize()
            for dot, beside in zip(dots, places(dots, per_x, per_y), strict=True):
                self._name(dot, beside, dot.name == chosen)
        words = (
            f"{d.name}: {d.mass:.0f} {unit_text('kg', units)}, {d.stiffness.likely:.2g} {unit_text('N/µm', units)}"
            for d in dots
        )
        self.setAccessibleDescription("; ".join(words))

    def place_of(self, name: str) -> QPointF:
        """Return where a candidate's dot is on the widget."""
        dot = next(one for one in self.dots if one.name == name)
        scene = self._item.vb.mapViewToScene(QPointF(dot.mass, dot.stiffness.likely))
        return QPointF(self.plot.mapFromScene(scene))

    def _show_target(self, target: float) -> None:
        """Tint what meets the brief."""
        soft = colour("accent_soft")
        soft.setAlphaF(0.55)
        region = pg.LinearRegionItem(
            (target, max(1e3, 100 * target)), orientation="horizontal", movable=False, brush=pg.mkBrush(soft),
            pen=pg.mkPen(colour("accent"), width=1, style=Qt.PenStyle.DashLine),
        )  # fmt: skip
        region.setZValue(-10)
        self._item.addItem(region, ignoreBounds=True)
        pg.InfLineLabel(region.lines[0], "the brief's target", position=0.98, anchors=[(1, 1), (1, 1)],
                        color=colour("accent"))  # fmt: skip

    def _add(self, dot: Dot, size: float, chosen: bool) -> None:
        ink = colour("accent" if chosen else "ink")
        low, high = dot.stiffness.ends
        self._item.addItem(pg.PlotDataItem([dot.mass, dot.mass], [low, high], pen=pg.mkPen(ink, width=1.6)))
        points: Any = pg.ScatterPlotItem(
            [dot.mass], [dot.stiffness.likely], symbol="star" if dot.benchmark else "o", size=size * em(),
            pen=pg.mkPen(ink, width=2.0 if chosen else 1.2), data=[dot.name],
            brush=pg.mkBrush(colour("accent_soft" if chosen else "panel")),
        )  # fmt: skip
        points.sigClicked.connect(self._on_clicked)
        self._item.addItem(points)

    def _name(self, dot: Dot, beside: Beside, chosen: bool) -> None:
        ink = colour("accent" if chosen else "ink")
        words = ("★ " if dot.benchmark else "") + dot.name
        paper = colour("paper")
        paper.setAlphaF(0.85)  # else another candidate's band strikes the name out
        text = pg.TextItem(words, color=ink, anchor=beside.anchor, fill=pg.mkBrush(paper))
        text.setZValue(10)
        text.setFont(font(0.88))
        text.setPos(dot.mass + beside.right, dot.stiffness.likely + beside.up)
        self._item.addItem(text)

    def _frame(self, dots: list[Dot], target: float) -> None:
        low, high = min(d.mass for d in dots), max(d.mass for d in dots)
        room = max(high - low, 0.2 * high)
        top = max(max(d.stiffness.low, d.stiffness.high) for d in dots)
        top = max(top, min(1.15 * target, 2.5 * top))
        # Names stand to the right of their dots.
        self._item.setRange(xRange=(low - 0.12 * room, high + 0.55 * room), yRange=(0.0, 1.08 * top), padding=0.0)

    def _on_clicked(self, item: Any, points: Any) -> None:
        del item
        if len(points):
            self.chosen.emit(str(points[0].data()))
