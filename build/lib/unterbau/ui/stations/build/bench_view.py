"""The thing that is measured, drawn with its readings where they are taken; what is wrong far larger than it is."""

from collections.abc import Callable
from math import cos, radians, sin

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QPainter, QPaintEvent, QPen, QPolygonF, QResizeEvent
from PyQt6.QtWidgets import QSizePolicy, QWidget
from typing_extensions import override

from unterbau.shop.measure.reading_words import Read
from unterbau.ui.stations.build.reading_fields import ReadingFields
from unterbau.ui.stations.build.reading_spots import ALONE, corners, spots_of
from unterbau.ui.theme import colour, em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.units import tolerance_text

SHOWN = 0.12
"""How far the largest error is drawn, of the picture's height."""
WORDS = {
    "diagonals": "a frame with its diagonals", "tram": "the sweep, seen from above", "flatness": "the face, from above",
    "crossed strings": "two strings from corner to corner", "square reversed": "the square, and turned round",
    "column": "the column beside the square, and the square turned round", "level": "a level across front and back",
    "both ways": "where it stops, coming up (above) and going down (below)", "arm": "along the arm",
    "straightness": "along the rail", "parallel": "along the rail",
}  # fmt: skip
Drawn = Callable[[QPainter, QRectF, tuple[float, ...]], None]


class BenchView(QWidget):
    """Draws what a bench measures; each reading can be typed where it is taken."""

    read = pyqtSignal(str)
    """All places have their readings: the line they make."""

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._view = view
        self._bench, self._within = "", 0.0
        self._read: Read | None = None
        self.fields = ReadingFields(self)
        self.fields.read.connect(self.read)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setFixedHeight(round(12.5 * em()))
        view.changed.connect(self.update)

    def show_bench(self, bench: str, read: Read | None, within: float, line: str = "") -> None:
        """Show a bench without readings, or with what they say, as they were typed; within a tolerance, m."""
        self._bench, self._read, self._within = bench, read, within
        values = read.typed if read is not None and read.typed else ()
        along = tuple(one * 1e6 for one in read.line) if read is not None else ()
        told = ", ".join(f"{one:g}" for one in values) or ", ".join(f"{one:.0f} µm" for one in along)
        self.setAccessibleName(f"{WORDS.get(bench, bench)}: {told or 'no readings yet'}")
        if bench in WORDS:
            self.fields.show_line(bench, line)
            self._place()
        self.update()

    @override
    def sizeHint(self) -> QSize:
        return QSize(round(20 * em()), self.height())

    @property
    def area(self) -> QRectF:
        """Where the thing is drawn."""
        unit = em()
        return QRectF(self.rect()).adjusted(1.8 * unit, 1.6 * unit, -1.8 * unit, -3.0 * unit)

    @override
    def resizeEvent(self, a0: QResizeEvent | None) -> None:
        super().resizeEvent(a0)
        self._place()

    def _place(self) -> None:
        self.fields.setGeometry(self.rect())
        self.fields.place(self.area)

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        area = self.area
        painter.setFont(font(0.82))
        read = self._read
        if self._bench in ALONG:
            clear = area.adjusted(0.0, 2.6 * em(), 0.0, -2.8 * em() if self._bench == "arm" else 0.0)
            _along(painter, clear, read.line if read is not None else (), self._within)
        elif self._bench in DRAWN:
            DRAWN[self._bench](painter, area, read.typed if read is not None else ())
        painter.setPen(colour("muted"))
        if self._bench in WORDS:
            self._name_sizes(painter, area)
        words = WORDS.get(self._bench, "")
        if self._bench in ALONG and self._within:
            words += f"; between the dashed lines: {tolerance_text(self._within, self._view.units)}"
        painter.drawText(QRectF(self.rect()), Qt.AlignmentFlag.AlignBottom | Qt.AlignmentFlag.AlignHCenter, words)

    def _name_sizes(self, painter: QPainter, area: QRectF) -> None:
        """Say which fields hold a size and no reading."""
        unit = em()
        for words, spot in zip(self.fields.slots.words, spots_of(self.fields.slots, area), strict=False):
            if words in ("height", "travel"):
                room = QRectF(spot.x() - 2 * unit, spot.y() - 2.1 * unit, 4 * unit, 1.4 * unit)
                painter.drawText(room, Qt.AlignmentFlag.AlignCenter, words)
            elif words in ALONE:
                room = QRectF(spot.x() - 10.1 * unit, spot.y() - 0.7 * unit, 8 * unit, 1.4 * unit)
                painter.drawText(room, Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignRight, words)


def _ink(painter: QPainter, role: str = "ink", width: float = 1.4, dashed: bool = False) -> None:
    painter.setPen(QPen(colour(role), width, Qt.PenStyle.DashLine if dashed else Qt.PenStyle.SolidLine))
    painter.setBrush(Qt.BrushStyle.NoBrush)


def _dot(painter: QPainter, x: float, y: float) -> None:
    painter.setPen(QPen(colour("ink"), 1.0))
    painter.setBrush(colour("ink"))
    painter.drawEllipse(QPointF(x, y), 2.8, 2.8)
    painter.setBrush(Qt.BrushStyle.NoBrush)


def _along(painter: QPainter, area: QRectF, line: tuple[float, ...], within: float) -> None:
    """Readings along a rail between the lines they have to keep."""
    most = max([abs(one) for one in line] + [within, 1e-9])
    scale, middle = area.height() / 2 / most, area.center().y()
    _ink(painter, "hairline", 1.0)
    painter.drawLine(QPointF(area.left(), middle), QPointF(area.right(), middle))
    _ink(painter, "accent", 1.0, dashed=True)
    for side in (-0.5, 0.5):
        y = middle - side * within * scale
        painter.drawLine(QPointF(area.left(), y), QPointF(area.right(), y))
    if len(line) > 1:
        step = area.width() / (len(line) - 1)
        points = [QPointF(area.left() + n * step, middle - v * scale) for n, v in enumerate(line)]
        _ink(painter, width=1.6)
        painter.drawPolyline(QPolygonF(points))
        for point in points:
            _dot(painter, point.x(), point.y())


def _diagonals(painter: QPainter, area: QRectF, v: tuple[float, ...]) -> None:
    """A frame that leans as its diagonals say."""
    lean = 0.0 if len(v) < 2 or v[0] == v[1] else SHOWN * area.height() * (1 if v[0] > v[1] else -1)
    wide = min(area.width(), 1.5 * area.height())
    left, right = area.center().x() - wide / 2, area.center().x() + wide / 2
    top, low = area.top(), area.bottom()
    corners = [QPointF(left, low), QPointF(right, low), QPointF(right + lean, top), QPointF(left + lean, top)]
    _ink(painter, "hairline", 1.0)
    painter.drawRect(QRectF(QPointF(left, top), QPointF(right, low)))
    _ink(painter, width=1.8)
    painter.drawPolygon(QPolygonF(corners))
    _ink(painter, "accent", 1.0, dashed=True)
    painter.drawLine(corners[0], corners[2])
    painter.drawLine(corners[1], corners[3])


def _tram(painter: QPainter, area: QRectF, v: tuple[float, ...]) -> None:
    """The circle of a sweep with its four readings; a line from the low side to the high one."""
    middle, r = area.center(), area.height() / 2 - 0.4 * em()
    _ink(painter, "hairline", 1.0)
    painter.drawEllipse(middle, r, r)
    for turn in (0, 90, 180, 270):
        x, y = middle.x() + r * cos(radians(turn)), middle.y() - r * sin(radians(turn))
        _dot(painter, x, y)
    if len(v) >= 4:
        lean = (v[0] - v[2], v[1] - v[3])
        size = (lean[0] ** 2 + lean[1] ** 2) ** 0.5
        if size > 0.0:
            x, y = 0.55 * r * lean[0] / size, -0.55 * r * lean[1] / size
            _ink(painter, "accent", 2.0)
            painter.drawLine(QPointF(middle.x() - x, middle.y() - y), QPointF(middle.x() + x, middle.y() + y))
            _dot(painter, middle.x() + x, middle.y() + y)


def _flatness(painter: QPainter, area: QRectF, v: tuple[float, ...]) -> None:
    """The face with a tint for each reading, the deeper the higher above the lowest."""
    _ink(painter, "hairline", 1.0)
    painter.drawRect(area)
    if not v:
        return
    rows = next((n for n in (3, 4, 5, 2, 6, 7) if len(v) % n == 0 and len(v) // n >= 2), 1)
    across, low, most = len(v) // rows, min(v), max(max(v) - min(v), 1e-9)
    wide, tall = area.width() / across, area.height() / rows
    for number, value in enumerate(v):
        row, place = divmod(number, across)
        x, y = area.left() + wide * (place + 0.5), area.top() + tall * (row + 0.5)
        ink = colour("accent")
        ink.setAlphaF(0.04 + 0.4 * (value - low) / most)
        painter.fillRect(QRectF(x - wide / 2, y - tall / 2, wide, tall), ink)


def _strings(painter: QPainter, area: QRectF, v: tuple[float, ...]) -> None:
    """Two strings over a frame's corners, the corner that stands off drawn off."""
    off = SHOWN * area.height()
    places = corners(area, off)
    most = max((abs(one) for one in v[:4]), default=0.0)
    stands = [
        QPointF(p.x(), p.y() - (off * v[n] / most if n < len(v) and most else 0.0)) for n, p in enumerate(places)
    ]  # fmt: skip
    _ink(painter, "hairline", 1.0)
    painter.drawPolygon(QPolygonF([places[0], places[1], places[3], places[2]]))
    _ink(painter, width=1.8)
    painter.drawPolygon(QPolygonF([stands[0], stands[1], stands[3], stands[2]]))
    _ink(painter, "accent", 1.2)
    painter.drawLine(stands[0], stands[3])
    painter.drawLine(stands[1], stands[2])
    for place in stands:
        _dot(painter, place.x(), place.y())


def _squares(painter: QPainter, area: QRectF, v: tuple[float, ...]) -> None:
    """A square against what it measures, then turned round; each leans as it read."""
    tall = area.height()
    most = max((abs(one) for one in v[:2]), default=0.0)
    for n, side in enumerate((-1.0, 1.0)):
        foot = area.center().x() + side * 0.24 * area.width()
        lean = SHOWN * tall * v[n] / most if n < len(v) and most else 0.0
        _ink(painter, "hairline", 1.0)
        painter.drawLine(QPointF(foot, area.bottom()), QPointF(foot, area.top()))
        _ink(painter, width=1.8)
        painter.drawLine(QPointF(foot, area.bottom()), QPointF(foot + lean, area.top()))
        _ink(painter, "accent", 2.4)
        painter.drawLine(QPointF(foot, area.bottom()), QPointF(foot + side * 0.3 * tall, area.bottom()))


def _column(painter: QPainter, area: QRectF, v: tuple[float, ...]) -> None:
    """A column beside the square as it stands, and beside the square turned round."""
    if len(v) < 4:
        _squares(painter, area, ())
        return
    _squares(painter, area, (v[1] - v[0], v[3] - v[2]))


def _level(painter: QPainter, area: QRectF, v: tuple[float, ...]) -> None:
    """Two bubbles, front below, back above."""
    most = max((abs(one) for one in v[:2]), default=0.0)
    for n, share in enumerate((0.72, 0.28)):
        y, tall = area.top() + share * area.height(), 0.14 * area.height()
        tube = QRectF(area.center().x() - 5 * em(), y - tall, 10 * em(), 2 * tall)
        _ink(painter, width=1.4)
        painter.drawRoundedRect(tube, tall, tall)
        _ink(painter, "hairline", 1.0)
        for side in (-1.0, 1.0):
            x = tube.center().x() + side * 1.6 * em()
            painter.drawLine(QPointF(x, tube.top()), QPointF(x, tube.bottom()))
        off = 3.0 * em() * v[n] / most if n < len(v) and most else 0.0
        painter.setBrush(colour("accent_soft"))
        painter.setPen(QPen(colour("accent"), 1.2))
        painter.drawEllipse(QPointF(tube.center().x() + off, y), 1.4 * em(), 0.8 * tall)


def _both_ways(painter: QPainter, area: QRectF, v: tuple[float, ...]) -> None:
    """Where each approach stopped, along the axis."""
    middle = area.center().y()
    _ink(painter, "hairline", 1.0)
    painter.drawLine(QPointF(area.left(), middle), QPointF(area.right(), middle))
    half, most = len(v) // 2, max((abs(one) for one in v), default=0.0)
    for n, value in enumerate(v):
        x = area.center().x() + (0.45 * area.width() * value / most if most else 0.0)
        up = n < half
        y = middle + (-0.26 if up else 0.26) * area.height()
        _ink(painter, "accent" if up else "ink", 1.4)
        painter.drawLine(QPointF(x, middle), QPointF(x, y))
        _dot(painter, x, y)


ALONG = ("straightness", "parallel", "arm")
DRAWN: dict[str, Drawn] = {
    "diagonals": _diagonals, "tram": _tram, "flatness": _flatness, "crossed strings": _strings,
    "square reversed": _squares, "column": _column, "level": _level, "both ways": _both_ways,
}  # fmt: skip
