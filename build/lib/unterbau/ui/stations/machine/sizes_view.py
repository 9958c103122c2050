"""The machine's sizes as a drawing: front and side view to scale, every dimension to be dragged or typed."""

from dataclasses import dataclass

from PyQt6.QtCore import QEvent, QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QFontMetricsF, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QWidget
from typing_extensions import override

from unterbau.machine.machine import Machine, bodies_of, dimension_lines, kind_of
from unterbau.structure.dimension_line import DimensionLine, View
from unterbau.structure.parts import Place
from unterbau.ui.theme import colour, em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.elevation import VIEWS, Sheet, elevation, whole
from unterbau.units import length_text

GRASP = 9.0  # px around the end of a dimension line
LANE, SIDE, BETWEEN, FOOT = 1.35, 2.2, 7.0, 1.8  # line heights
STEP, LEAP = 0.001, 0.01
INCH_STEP, INCH_LEAP = 0.0254 / 16, 0.0254 / 4


class SizesView(QWidget):
    """A lens of the machine: its dimensions."""

    dragged = pyqtSignal(str, float)
    """Size and its new value, m; one gesture sends many."""
    released = pyqtSignal()
    typing_wanted = pyqtSignal(str)

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._view = view
        self._machine: Machine | None = None
        self._place = Place()
        self._lines: tuple[DimensionLine, ...] = ()
        self._chosen = 0
        self._gesture: Gesture | None = None
        self._boxes: dict[View, list[QRectF]] = {}
        self._sheets: dict[View, Sheet] = {}
        self.problem = ""
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        self.setAccessibleName("Sizes of the machine, drawn; arrow keys choose and change, Enter types")
        view.changed.connect(self.update)

    @property
    def lines(self) -> tuple[DimensionLine, ...]:
        """What is drawn."""
        return self._lines

    def show_machine(self, machine: Machine, place: Place) -> None:
        """Draw a machine with its head at a place."""
        self.problem = ""
        self._machine, self._place = machine, place
        self._lines = dimension_lines(machine, place)
        self._boxes = {}
        self._describe()
        self.update()

    def refuse(self, problem: str) -> None:
        """Say why a size cannot be."""
        self.problem = problem
        self.update()

    def end_of(self, attribute: str) -> QPointF:
        """Return where the end of a dimension is taken hold of."""
        self._place_sheets()
        return self._ends(next(one for one in self._lines if one.attribute == attribute))[1]

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if self._machine is None:
            return
        self._place_sheets()
        for view, words, _ in VIEWS:
            self._draw_machine(painter, view, words)
        for number, line in enumerate(self._lines):
            self._draw_line(painter, line, number == self._chosen)
        for number, line in enumerate(self._lines):
            self._draw_words(painter, line, number == self._chosen)
        for number, line in enumerate(self._lines):
            self._draw_handle(painter, line, number == self._chosen)
        painter.setFont(font(0.92))
        painter.setPen(colour("warning" if self.problem else "muted"))
        words = self.problem or "drag the end of a dimension, or type it on the bench; arrow keys work too"
        painter.drawText(
            QRectF(0, self.height() - 1.6 * em(), self.width(), 1.5 * em()), Qt.AlignmentFlag.AlignLeft, words
        )

    @override
    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        found = self._line_at(event.position()) if event else None
        if found is None or event is None or event.button() != Qt.MouseButton.LeftButton:
            return
        self._chosen = found
        line = self._lines[found]
        self._gesture = Gesture(line, self._value(line), event.position(), self._sheets[line.view].scale)
        self._describe()
        self.update()

    @override
    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        if self._gesture is None:
            near = self._line_at(event.position()) is not None
            self.setCursor(Qt.CursorShape.SizeAllCursor if near else Qt.CursorShape.ArrowCursor)
            return
        value = self._gesture.value(event.position(), self._steps()[0])
        self._send(self._gesture.line.attribute, value)

    @override
    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        if self._gesture is not None:
            self._gesture = None
            self.released.emit()

    @override
    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        found = self._line_at(event.position()) if event else None
        if found is not None:
            self.typing_wanted.emit(self._lines[found].attribute)

    @override
    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None or not self._lines:
            return
        key = Qt.Key(event.key())
        small, large = self._steps()
        step = large if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else small
        line = self._lines[self._chosen]
        if key == Qt.Key.Key_Escape and self._gesture is not None:
            self._send(line.attribute, self._gesture.start)
            self._gesture = None
            self.released.emit()
        elif key in (Qt.Key.Key_Left, Qt.Key.Key_Right):
            self._chosen = (self._chosen + (1 if key == Qt.Key.Key_Right else -1)) % len(self._lines)
            self._describe()
            self.update()
        elif key in (Qt.Key.Key_Up, Qt.Key.Key_Down):
            self._send(line.attribute, self._value(line) + (step if key == Qt.Key.Key_Up else -step))
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.typing_wanted.emit(line.attribute)
        else:
            super().keyPressEvent(event)

    @override
    def event(self, event: QEvent | None) -> bool:
        escape = isinstance(event, QKeyEvent) and event.key() == Qt.Key.Key_Escape
        if event is not None and event.type() == QEvent.Type.ShortcutOverride and escape and self._gesture is not None:
            event.accept()
            return True
        return super().event(event)

    def _send(self, attribute: str, value: float) -> None:
        assert self._machine is not None
        low, high = kind_of(self._machine).limits(attribute)
        self.dragged.emit(attribute, min(high, max(low, value)))
        if not low <= value <= high and not self.problem:
            label = next(line.label for line in self._lines if line.attribute == attribute)
            units = self._view.units
            self.refuse(f"{label}: from {length_text(low, units)} to {length_text(high, units)}")

    def _outline(self) -> None:
        """Find the outlines once they are to be seen."""
        if not self._boxes and self._machine is not None:
            bodies = bodies_of(self._machine, self._place)
            self._boxes = {view: elevation(bodies, across) for view, _, across in VIEWS}

    def _steps(self) -> tuple[float, float]:
        return (STEP, LEAP) if self._view.units == "mm" else (INCH_STEP, INCH_LEAP)

    def _value(self, line: DimensionLine) -> float:
        assert self._machine is not None
        return float(getattr(self._machine.dimensions, line.attribute))

    def _describe(self) -> None:
        if self._lines:
            line = self._lines[self._chosen]
            self.setAccessibleDescription(f"{line.label}: {length_text(self._value(line), self._view.units)}")

    def _line_at(self, place: QPointF) -> int | None:
        self._place_sheets()
        ends = [self._ends(line)[1] - place for line in self._lines]
        near = [(abs(away.x()) + abs(away.y()), number) for number, away in enumerate(ends)]
        distance, number = min(near, default=(GRASP, 0))
        return number if distance < GRASP else None

    def _ends(self, line: DimensionLine) -> tuple[QPointF, QPointF]:
        """Return start and end of a line on the widget, in its lane."""
        sheet, beside = self._sheets[line.view], line.lane * LANE * em()
        shift = QPointF(0.0, -beside) if _is_flat(line) else QPointF(beside, 0.0)
        return sheet.at(line.start) + shift, sheet.at(line.end) + shift

    def _place_sheets(self) -> None:
        """Fit both views side by side at one scale; while a size is dragged the scale stays."""
        self._outline()
        if not self._boxes or (self._gesture is not None and self._sheets):
            return
        unit = em()
        wholes = [whole(self._boxes[view]) for view, _, _ in VIEWS]
        lanes = {view: [line.lane for line in self._lines if line.view == view] for view, _, _ in VIEWS}
        above = (max(max(n) for n in lanes.values()) * LANE + 2.0) * unit
        below = (1 - min(min(n) for n in lanes.values())) * LANE * unit + FOOT * unit
        room_x, room_y = self.width() - (2 * SIDE + BETWEEN) * unit, self.height() - above - below
        scale = min(room_x / sum(w.width() for w in wholes), room_y / max(w.height() for w in wholes))
        left = (self.width() - scale * sum(w.width() for w in wholes) - BETWEEN * unit) / 2
        for (view, _, _), area in zip(VIEWS, wholes, strict=True):
            width = area.width() * scale
            middle = QPointF(left + width / 2, above + room_y / 2)
            self._sheets[view] = Sheet(middle, scale, (area.center().x(), -area.center().y()))
            left += width + BETWEEN * unit

    def _draw_machine(self, painter: QPainter, view: View, words: str) -> None:
        sheet = self._sheets[view]
        painter.setPen(QPen(colour("ghost"), 0.8))
        painter.setBrush(colour("panel"))
        for box in self._boxes[view]:
            corner, other = sheet.at((box.left(), -box.top())), sheet.at((box.right(), -box.bottom()))
            painter.drawRect(QRectF(corner, other))
        area = whole(self._boxes[view])
        under = sheet.at((area.center().x(), -area.bottom()))
        lowest = min((line.lane for line in self._lines), default=0)
        painter.setFont(font(0.86))
        painter.setPen(colour("muted"))
        width = QFontMetricsF(painter.font()).horizontalAdvance(words)
        below = (1.0 - min(lowest, 0)) * LANE * em()  # of all words under what is drawn
        painter.drawText(QPointF(under.x() - width / 2, under.y() + below), words)

    def _draw_line(self, painter: QPainter, line: DimensionLine, chosen: bool) -> None:
        a, b = self._ends(line)
        ink = colour("accent" if chosen else "ink")
        sheet = self._sheets[line.view]
        painter.setPen(QPen(colour("hairline"), 1.0))
        for start, end in ((sheet.at(line.start), a), (sheet.at(line.end), b)):
            painter.drawLine(start, end)
        painter.setPen(QPen(ink, 2.0 if chosen else 1.0))
        painter.drawLine(a, b)
        tick = QPointF(0, 5) if _is_flat(line) else QPointF(5, 0)
        painter.drawLine(a - tick, a + tick)

    def _draw_handle(self, painter: QPainter, line: DimensionLine, chosen: bool) -> None:
        ink = colour("accent" if chosen else "ink")
        painter.setPen(QPen(ink, 2.0 if chosen else 1.0))
        painter.setBrush(ink if chosen else colour("panel"))
        painter.drawEllipse(self._ends(line)[1], 4.5, 4.5)

    def _draw_words(self, painter: QPainter, line: DimensionLine, chosen: bool) -> None:
        unit = em()
        a, b = self._ends(line)
        text = f"{line.label} {length_text(self._value(line), self._view.units)}"
        face = font(0.86)
        painter.setFont(face)
        size = QFontMetricsF(face).horizontalAdvance(text) + 6
        painter.save()
        # Text reads along its line: above a flat one, upwards from the foot of a standing one.
        if _is_flat(line):
            box = QRectF((a.x() + b.x() - size) / 2, a.y() - 1.2 * unit, size, 1.1 * unit)
        else:
            painter.translate(a.x() - 1.2 * unit, max(a.y(), b.y()) + 3)
            painter.rotate(-90.0)
            box = QRectF(0.0, 0.0, size, 1.1 * unit)
        ground = colour("paper")
        ground.setAlphaF(0.92)
        painter.fillRect(box, ground)
        painter.setPen(colour("accent" if chosen else "ink"))
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)
        if chosen and self.hasFocus():
            painter.setPen(QPen(colour("accent"), 1, Qt.PenStyle.DotLine))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(box)
        painter.restore()


def _is_flat(line: DimensionLine) -> bool:
    (u0, v0), (u1, v1) = line.start, line.end
    return abs(u1 - u0) > abs(v1 - v0)


@dataclass(frozen=True)
class Gesture:
    """One drag of a dimension's end."""

    line: DimensionLine
    start: float
    """The size before, m."""
    pressed: QPointF
    scale: float

    def value(self, place: QPointF, step: float) -> float:
        """Return the size with the mouse at a place, in whole steps."""
        (u0, v0), (u1, v1) = self.line.start, self.line.end
        away = place - self.pressed
        moved = away.x() * (1 if u1 >= u0 else -1) if _is_flat(self.line) else -away.y() * (1 if v1 >= v0 else -1)
        return round((self.start + self.line.pull * moved / self.scale) / step) * step
