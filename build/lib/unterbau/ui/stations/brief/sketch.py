"""Travel and height budget drawn to scale: the machine, the work on it, the room around it."""

from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QSizePolicy, QWidget
from typing_extensions import override

from unterbau.brief.brief import Brief
from unterbau.machine.machine import Machine, bodies_of, dimension_lines
from unterbau.structure.parts import Place
from unterbau.studies.budget import Budget
from unterbau.ui.theme import colour, em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.elevation import VIEWS, Sheet, elevation, whole
from unterbau.units import length_text

SIDE, BETWEEN, HEAD, FOOT = 1.6, 4.0, 2.8, 4.0  # line heights
INSIDE = 4.0  # pixels between the work's edge and its words
LEAST = 25.0
"""Line heights that two views with their words take beside each other."""
HEIGHTS = ("dimensions.clearance", "dimensions.travel_z")


class BudgetSketch(QWidget):
    """The machine with its head highest; what does not fit is drawn as a warning, and leads to its cure."""

    cure_wanted = pyqtSignal(str)

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._view = view
        self._machine: Machine | None = None
        self._brief = Brief()
        self._budget: Budget | None = None
        self._hot: list[tuple[QRectF, str]] = []
        self.setMinimumSize(round(LEAST * em()), round(11 * em()))
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName("Travel and height budget, drawn to scale")
        view.changed.connect(self.update)

    def show_budget(self, machine: Machine, brief: Brief, found: Budget) -> None:
        """Show how a machine answers a brief."""
        self._machine, self._brief, self._budget = machine, brief, found
        self.setAccessibleDescription("; ".join(one.words for one in found.conflicts) or "everything fits")
        self.update()

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        if self._machine is None or self._budget is None:
            return
        self._hot = []
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        bodies = bodies_of(self._machine, Place(0.5, 0.5, 1.0))
        views = [elevation(bodies, across) for _, _, across in VIEWS]
        wholes = [self._area(boxes, across) for boxes, (_, _, across) in zip(views, VIEWS, strict=True)]
        unit = em()
        room_x = self.width() - (2 * SIDE + BETWEEN) * unit
        room_y = self.height() - (HEAD + FOOT) * unit
        scale = min(room_x / sum(w.width() for w in wholes), room_y / max(w.height() for w in wholes))
        left = (self.width() - scale * sum(w.width() for w in wholes) - BETWEEN * unit) / 2
        for boxes, area, (_, words, across) in zip(views, wholes, VIEWS, strict=True):
            width = area.width() * scale
            middle = QPointF(left + width / 2, HEAD * unit + room_y / 2)
            sheet = Sheet(middle, scale, (area.center().x(), -area.center().y()))
            self._draw(painter, sheet, boxes, area, words, across)
            left += width + BETWEEN * unit

    @override
    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        key = next((key for area, key in self._hot if event and area.contains(event.position())), "")
        if key:
            self.cure_wanted.emit(key)

    def hot_place(self, key: str) -> QPointF:
        """Return where a conflict is clicked that leads to a cure."""
        return next(area.center() for area, one in self._hot if one == key)

    def _area(self, boxes: list[QRectF], across: int) -> QRectF:
        area = whole(boxes)
        wanted = (self._brief.work_x, self._brief.work_y)[across]
        if wanted:
            area = area.united(QRectF(-wanted / 2, -self._brief.work_z, wanted, max(self._brief.work_z, 1e-3)))
        return area

    def _draw(
        self, painter: QPainter, sheet: Sheet, boxes: list[QRectF], area: QRectF, words: str, across: int
    ) -> None:
        assert self._budget is not None
        unit = em()
        painter.setPen(QPen(colour("ghost"), 0.8))
        painter.setBrush(colour("panel"))
        for box in boxes:
            painter.drawRect(sheet.box(box.left(), -box.bottom(), box.right(), -box.top()))
        unsaid = self._draw_work(painter, sheet, across)
        if across and self._brief.work_x:
            unsaid = ""  # said from the front
        room = (self._brief.space_x, self._brief.space_y)[across]
        if room:
            fits = self._budget.outside[across] <= room
            painter.setPen(QPen(colour("muted" if fits else "warning"), 1.2, Qt.PenStyle.DashLine))
            middle = area.center().x()
            for edge in (middle - room / 2, middle + room / 2):
                painter.drawLine(sheet.at((edge, -area.top())), sheet.at((edge, -area.bottom())))
            painter.setFont(font(0.82))
            top = sheet.at((middle + room / 2, -area.top()))
            words_at = QRectF(top.x() - 10 * unit, top.y() - 2.3 * unit, 10 * unit, 1.2 * unit)
            text = f"room {length_text(room, self._view.units)}"
            painter.drawText(words_at, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter, text)
        painter.setFont(font(0.86))
        painter.setPen(colour("muted"))
        corner = sheet.at((area.left(), -area.top()))
        painter.drawText(QPointF(corner.x(), corner.y() - 0.5 * unit), words)
        name = "XY"[across]
        middle = self._middle(across)
        travel, wanted = self._budget.travel[across], self._budget.wanted[across]
        base = sheet.at((0.0, -area.bottom())).y()
        if travel:
            self._measure(painter, sheet, base + 1.5 * unit, middle, travel, f"travel {name}", travel >= wanted)
            if travel < wanted:
                a, b = (sheet.at((middle + side * wanted / 2, 0.0)).x() for side in (-1, 1))
                self._hot.append((QRectF(a, base + 0.4 * unit, b - a, 3 * unit), f"dimensions.travel_{name.lower()}"))
        if wanted:
            self._measure(painter, sheet, base + 2.9 * unit, middle, wanted, "work", travel >= wanted, unsaid)

    def _middle(self, across: int) -> float:
        """Return where the middle of the travel lies, m; a lathe's begins at its chuck."""
        assert self._machine is not None
        lines = dimension_lines(self._machine, Place(0.5, 0.5, 1.0))
        line = next((one for one in lines if one.attribute == f"travel_{'xy'[across]}"), None)
        return (line.start[0] + line.end[0]) / 2 if line else 0.0

    def _draw_work(self, painter: QPainter, sheet: Sheet, across: int) -> str:
        """Draw the tallest work; return how tall it is where the words have no room in it."""
        assert self._budget is not None
        wanted, tall = (self._brief.work_x, self._brief.work_y)[across], self._brief.work_z
        if not wanted or not tall:
            return ""
        under, highest = self._budget.under_beam, self._budget.highest_tip
        fits = (not under or tall <= under) and tall <= highest
        ink = colour("accent" if fits else "warning")
        soft = colour("accent" if fits else "warning")
        soft.setAlphaF(0.18)
        painter.setPen(QPen(ink, 1.4))
        painter.setBrush(soft)
        box = sheet.box(-wanted / 2, 0.0, wanted / 2, tall)
        painter.drawRect(box)
        heights = [one.key for one in self._budget.conflicts if one.key in HEIGHTS]
        self._hot += [(box, key) for key in heights[:1]]
        painter.setPen(ink)
        painter.setFont(font(0.82))
        text = f"{length_text(tall, self._view.units)} tall"
        words = painter.fontMetrics().boundingRect(f"work {text}")
        at = box.topLeft() + QPointF(INSIDE, 1.1 * em())
        if not box.adjusted(0.0, 0.0, -INSIDE, -1.0).contains(QRectF(words.translated(at.toPoint()))):
            return text
        painter.fillRect(words.translated(at.toPoint()), colour("paper"))  # else lines of the machine cross the words
        painter.drawText(at, f"work {text}")
        return ""

    def _measure(
        self, painter: QPainter, sheet: Sheet, y: float, middle: float, size: float, words: str, fits: bool,
        more: str = "",
    ) -> None:  # fmt: skip
        a, b = (sheet.at((middle + side * size / 2, 0.0)).x() for side in (-1, 1))
        painter.setPen(QPen(colour("ink" if fits else "warning"), 1.0 if fits else 1.8))
        painter.drawLine(QPointF(a, y), QPointF(b, y))
        for end in (a, b):
            painter.drawLine(QPointF(end, y - 4), QPointF(end, y + 4))
        painter.setFont(font(0.82))
        text = ", ".join(one for one in (f"{words} {length_text(size, self._view.units)}", more) if one)
        wide = max(b - a, painter.fontMetrics().horizontalAdvance(text) + em())
        area = QRectF((a + b - wide) / 2, y - 1.25 * em(), wide, 1.2 * em())
        painter.drawText(area, Qt.AlignmentFlag.AlignCenter, text)
