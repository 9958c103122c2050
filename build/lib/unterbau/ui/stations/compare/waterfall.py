"""Where the flex went: from the benchmark's give to the candidate's, link by link, sums exact."""

from dataclasses import dataclass

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QFont, QFontMetricsF, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QSizePolicy, QWidget
from typing_extensions import override

from unterbau.studies.compare import Flow
from unterbau.ui.theme import colour, em, font
from unterbau.units import Units, movement_text

SMALL = 0.01
"""Changes below this share of the larger whole are told together."""
ROW = 1.55


@dataclass(frozen=True)
class Bar:
    """One line: from where to where, m under the load."""

    key: str
    label: str
    start: float
    end: float
    whole: bool = False


def bars(flows: tuple[Flow, ...], load: float, before: str, after: str) -> list[Bar]:
    """Return the lines of the picture: the benchmark, each change, small ones together, the candidate."""
    first, last = (sum(getattr(f, name) for f in flows) * load for name in ("before", "after"))
    most = SMALL * max(first, last)
    found, at, small = [Bar("", before, 0.0, first, whole=True)], first, 0.0
    for flow in flows:
        change = flow.change * load
        if abs(change) < most:
            small += change
            continue
        found.append(Bar(flow.key, flow.label, at, at + change))
        at += change
    if small or at != last:
        found.append(Bar("", "all others", at, last))
    found.append(Bar("", after, 0.0, last, whole=True))
    return found


class Waterfall(QWidget):
    """Bars from top to bottom; less give is drawn to the left."""

    chosen = pyqtSignal(str)

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._bars: list[Bar] = []
        self._units: Units = "mm"
        self.setAccessibleName("Where the flex went")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)

    @property
    def bars(self) -> list[Bar]:
        """What is drawn."""
        return self._bars

    def show_bars(self, found: list[Bar], units: Units) -> None:
        """Show another pair of candidates."""
        self._bars, self._units = found, units
        words = (f"{bar.label} {self._words(bar)}" for bar in found)
        self.setAccessibleDescription("; ".join(words))
        self.setMinimumHeight(round(ROW * em() * len(found)))
        self.update()

    @override
    def sizeHint(self) -> QSize:
        return QSize(round(28 * em()), round(ROW * em() * max(6, len(self._bars))))

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        if not self._bars:
            return
        painter, unit = QPainter(self), em()
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        names, numbers = 9.5 * unit, 5.0 * unit
        room = self.width() - names - numbers
        most = max(max(bar.start, bar.end) for bar in self._bars) or 1.0
        previous: QPointF | None = None
        for number, bar in enumerate(self._bars):
            top = number * ROW * unit
            left, right = (names + room * min(bar.start, bar.end) / most, names + room * max(bar.start, bar.end) / most)
            face = font(0.9, QFont.Weight.DemiBold if bar.whole else QFont.Weight.Normal)
            painter.setFont(face)
            painter.setPen(colour("ink"))
            text = QFontMetricsF(face).elidedText(bar.label, Qt.TextElideMode.ElideRight, names - 0.6 * unit)
            line = Qt.AlignmentFlag.AlignVCenter
            painter.drawText(QRectF(0, top, names - 0.6 * unit, ROW * unit), line | Qt.AlignmentFlag.AlignRight, text)
            end = names + room * bar.end / most
            if previous is not None and not (bar.whole and number == 0):
                painter.setPen(QPen(colour("ghost"), 1, Qt.PenStyle.DotLine))
                painter.drawLine(previous, QPointF(previous.x(), top + 0.3 * unit))
            painter.setPen(Qt.PenStyle.NoPen)
            role = "joint" if bar.whole else "accent" if bar.end < bar.start else "warning"
            painter.setBrush(colour(role))
            painter.drawRect(QRectF(left, top + 0.3 * unit, max(1.5, right - left), (ROW - 0.6) * unit))
            previous = QPointF(end, top + (ROW - 0.3) * unit)
            painter.setPen(colour("ink" if bar.whole else role))
            where = QRectF(right + 0.4 * unit, top, numbers, ROW * unit)
            painter.drawText(where, line, self._words(bar))

    @override
    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        number = int(event.position().y() / (ROW * em())) if event else -1
        if 0 <= number < len(self._bars) and self._bars[number].key not in ("", "rest"):
            self.chosen.emit(self._bars[number].key)

    def _words(self, bar: Bar) -> str:
        if bar.whole:
            return movement_text(bar.end, self._units)
        change = bar.end - bar.start
        sign = "+" if change > 0 else "−"
        return sign + movement_text(abs(change), self._units)
