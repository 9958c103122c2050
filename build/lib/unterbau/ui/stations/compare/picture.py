"""Any answer against any other: a dot a candidate, its size and tint by a third, bands as whiskers."""

from dataclasses import dataclass
from typing import Any

import pyqtgraph as pg
from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QFontMetricsF
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from unterbau.band import Band
from unterbau.ui.stations.compare.quantities import unbeaten
from unterbau.ui.theme import colour, em, font

SMALLEST, LARGEST = 0.7, 1.8  # line heights


@dataclass(frozen=True)
class Dot:
    """One candidate."""

    name: str
    across: Band
    """As it is read."""
    up: Band
    third: float
    benchmark: bool


@dataclass(frozen=True)
class Axes:
    """What stands at the picture's axes, and what of it is better."""

    across: str
    up: str
    third: str
    more: tuple[bool, bool] = (False, True)


def sizes(dots: list[Dot]) -> list[float]:
    """Return the dots' widths, line heights; their areas grow evenly with the third answer."""
    most = max((dot.third for dot in dots), default=0.0) or 1.0
    return [(SMALLEST**2 + (LARGEST**2 - SMALLEST**2) * dot.third / most) ** 0.5 for dot in dots]


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
        per_x: What is drawn across per pixel.
        per_y: What is drawn upwards per pixel.
    """
    metrics, gap = QFontMetricsF(font(0.88)), 0.5 * LARGEST * em() + 3.0
    height = metrics.height()
    centres = [QPointF(dot.across.likely / per_x, -dot.up.likely / per_y) for dot in dots]
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
        self.plot.setAccessibleName("All candidates, one answer against another")
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

    def show_dots(
        self, dots: list[Dot], axes: Axes, chosen: str, target: float | None = None, words: tuple[str, ...] = ()
    ) -> None:
        """Show candidates, what the brief needs where a stiffness is drawn upwards, and who is unbeaten.

        Args:
            dots: Candidates.
            axes: What is drawn.
            chosen: Name of the chosen one.
            target: Of what is drawn upwards; None where it has none.
            words: What is said of each to those who do not see it.
        """
        self.dots = dots
        self._item.clear()
        muted = colour("muted").name()
        self._item.setLabel("left", f"{axes.up} (line: low to high)", color=muted)
        self._item.setLabel("bottom", f"{axes.across} (area and tint of a dot: {axes.third})", color=muted)
        if target is not None:
            self._show_target(target)
        self._join([(dot.across.likely, dot.up.likely) for dot in dots], axes.more)
        for dot, size in zip(dots, sizes(dots), strict=True):
            self._add(dot, size, dot.name == chosen)
        if dots:
            self._frame(dots, target)
            per_x, per_y = self._item.vb.viewPixelSize()
            for dot, beside in zip(dots, places(dots, per_x, per_y), strict=True):
                self._name(dot, beside, dot.name == chosen)
        self.setAccessibleDescription("; ".join(words))

    def show_found(self, points: list[tuple[float, float]]) -> None:
        """Show designs that a search found, as crosses; they come off with the next `show_dots`."""
        if points:
            crosses = pg.ScatterPlotItem(
                [x for x, _ in points], [y for _, y in points], symbol="+", size=0.8 * em(),
                brush=pg.mkBrush(colour("accent")), pen=pg.mkPen(colour("accent"), width=1.4),
            )  # fmt: skip
            self._item.addItem(crosses)

    def _join(self, points: list[tuple[float, float]], more: tuple[bool, bool]) -> None:
        """Join those that none of the others beats."""
        best = [points[n] for n in unbeaten(points, more)]
        if len(best) > 1:
            pen = pg.mkPen(colour("accent"), width=1, style=Qt.PenStyle.DotLine)
            self._item.addItem(pg.PlotDataItem([x for x, _ in best], [y for _, y in best], pen=pen))

    def place_of(self, name: str) -> QPointF:
        """Return where a candidate's dot is on the widget."""
        dot = next(one for one in self.dots if one.name == name)
        scene = self._item.vb.mapViewToScene(QPointF(dot.across.likely, dot.up.likely))
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
        x, y = dot.across.likely, dot.up.likely
        for xs, ys in (([x, x], dot.up.ends), (dot.across.ends, [y, y])):
            self._item.addItem(pg.PlotDataItem(list(xs), list(ys), pen=pg.mkPen(ink, width=1.6)))
        points: Any = pg.ScatterPlotItem(
            [x], [y], symbol="star" if dot.benchmark else "o", size=size * em(),
            pen=pg.mkPen(ink, width=2.0 if chosen else 1.2), data=[dot.name],
            brush=pg.mkBrush(self._tint(dot, chosen)),
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
        text.setPos(dot.across.likely + beside.right, dot.up.likely + beside.up)
        self._item.addItem(text)

    def _tint(self, dot: Dot, chosen: bool) -> QColor:
        """Return a dot's tint: the stronger, the more it has of the third answer."""
        if chosen:
            return colour("accent_soft")
        values = [one.third for one in self.dots]
        low, high = min(values), max(values)
        share = 0.15 + 0.6 * (dot.third - low) / (high - low) if high > low else 0.15
        weak, strong = colour("panel"), colour("ghost")
        ends = zip(weak.getRgbF(), strong.getRgbF(), strict=True)
        red, green, blue, solid = (float((a or 0.0) + share * ((b or 0.0) - (a or 0.0))) for a, b in ends)
        return QColor.fromRgbF(red, green, blue, solid)

    def _frame(self, dots: list[Dot], target: float | None) -> None:
        low, high = min(d.across.ends[0] for d in dots), max(d.across.ends[1] for d in dots)
        room = max(high - low, 0.2 * high, 1e-9)
        top = max(d.up.ends[1] for d in dots)
        top = max(top, min(1.15 * (target or 0.0), 2.5 * top), 1e-9)
        # Names stand to the right of their dots.
        self._item.setRange(xRange=(low - 0.12 * room, high + 0.55 * room), yRange=(0.0, 1.08 * top), padding=0.0)

    def _on_clicked(self, item: Any, points: Any) -> None:
        del item
        if len(points):
            self.chosen.emit(str(points[0].data()))
