"""Sheets to scale with the plates that are cut from them."""

from dataclasses import replace

from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QFont, QFontMetricsF, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QWidget
from typing_extensions import override

from unterbau.errors import InputError
from unterbau.shop.by_hand import moved_plate
from unterbau.shop.sheet_plan import Laid
from unterbau.shop.sheets import PlatesPlan
from unterbau.ui.stations.workshop.picked_view import PickedView
from unterbau.ui.theme import colour, em, font

NEAR = 4.0  # px, that a click may slip
TALL = 13.0  # em, of a row of sheets
MOST = 3
"""Sheets beside one another; further ones follow below."""


STEP, FINE = 0.005, 0.001  # m, of an arrow key, and with Shift
HINT = "drag a plate, or move it by the arrow keys (Shift: 1 mm), T turns it"
ARROWS = {Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, 1), Qt.Key.Key_Down: (0, -1)}


class SheetsView(PickedView):
    """Draws the sheets of one thickness and material; a plate is chosen by a click, dragged, or moved by keys."""

    moved = pyqtSignal(object)
    """The sheets with a plate laid elsewhere."""
    refused = pyqtSignal(str)
    """Why it cannot lie there."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._plan: PlatesPlan | None = None
        self._picked: tuple[int, int] | None = None
        self._drag: tuple[QPointF, QPointF] | None = None
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setToolTip(HINT)

    def show_plan(self, plan: PlatesPlan, lit: str) -> None:
        """Show a plan, the pieces of one label lit."""
        if self._plan is None or self._plan.plan != plan.plan:
            self._picked, self._drag = self._again(plan), None
        self._plan, self._lit = plan, lit
        count = len(plan.plan.sheets) if plan.plan is not None else 0
        self.setFixedHeight(round(max(1, -(-count // MOST)) * TALL * em()))
        self.setAccessibleName(f"{count} sheets of {plan.stock}, plates drawn to scale")
        self.update()

    def _again(self, plan: PlatesPlan) -> tuple[int, int] | None:
        """Return where the picked plate is in another plan, if it lies where it lay."""
        if self._picked is None or self._plan is None or self._plan.plan is None or plan.plan is None:
            return None
        old = self._plan.plan.sheets[self._picked[0]][self._picked[1]]
        return next((
            (n, k) for n, row in enumerate(plan.plan.sheets) for k, one in enumerate(row)
            if n == self._picked[0] and (one.x, one.y, one.length) == (old.x, old.y, old.length)
        ), None)  # fmt: skip

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        self._areas = []
        if self._plan is None or self._plan.plan is None or not self._plan.plan.sheets:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        found, scale = self._plan.plan, self._scale()
        for number, sheet in enumerate(found.sheets):
            corner = self._corner(number)
            painter.setPen(QPen(colour("hairline"), 1.0))
            painter.setBrush(colour("sunken"))
            tall = found.sheet.width * scale
            painter.drawRect(QRectF(corner.x(), corner.y() - tall, found.sheet.length * scale, tall))
            for place, laid in enumerate(sheet):
                if self._drag is None or self._picked != (number, place):
                    self._draw(painter, laid, corner, scale, self.hasFocus() and self._picked == (number, place))
        if self._drag is not None and self._picked is not None:
            laid = found.sheets[self._picked[0]][self._picked[1]]
            off = self._drag[1] - self._drag[0]
            self._draw(painter, laid, self._corner(self._picked[0]) + off, scale, True)

    @override
    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        super().mousePressEvent(event)
        if event is None:
            return
        self._picked = self._under(event.position())
        self._drag = (event.position(), event.position()) if self._picked is not None else None
        self.update()

    @override
    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and self._drag is not None:
            self._drag = (self._drag[0], event.position())
            self.update()

    @override
    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        drag, self._drag = self._drag, None
        self.update()
        if event is None or drag is None or self._picked is None or self._plan is None or self._plan.plan is None:
            return
        off = event.position() - drag[0]
        if off.manhattanLength() < NEAR:
            return
        laid, scale = self._plan.plan.sheets[self._picked[0]][self._picked[1]], self._scale()
        target = self._sheet_at(event.position())
        if target is None:
            self.refused.emit(f"{laid.name} stays: there is no sheet where it was dropped")
            return
        corner = self._corner(self._picked[0]) + off - self._corner(target)
        x, y = laid.x + corner.x() / scale, laid.y - corner.y() / scale
        self._lay(target, replace(laid, x=round(x, 3), y=round(y, 3)))

    @override
    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None or self._plan is None or self._plan.plan is None or event.key() not in (*ARROWS, Qt.Key.Key_T):
            super().keyPressEvent(event)
            return
        if self._picked is None:
            self._picked = next((
                (n, k) for n, row in enumerate(self._plan.plan.sheets) for k, one in enumerate(row)
                if one.name == self._lit
            ), (0, 0))  # fmt: skip
        laid = self._plan.plan.sheets[self._picked[0]][self._picked[1]]
        if event.key() == Qt.Key.Key_T:
            self._lay(self._picked[0], replace(laid, length=laid.width, width=laid.length, turned=not laid.turned))
            return
        step = FINE if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else STEP
        x, y = ARROWS[Qt.Key(event.key())]
        self._lay(self._picked[0], replace(laid, x=laid.x + x * step, y=laid.y + y * step))

    def _lay(self, sheet: int, laid: Laid) -> None:
        assert self._plan is not None
        assert self._plan.plan is not None
        assert self._picked is not None
        try:
            plan = moved_plate(self._plan.plan, self._picked, sheet, laid)
        except InputError as error:
            self.refused.emit(error.problem)
            return
        self.refused.emit("")
        picked = next((n, k) for n, row in enumerate(plan.sheets) for k, one in enumerate(row) if one is laid)
        self._plan, self._picked = replace(self._plan, plan=plan), picked
        self.update()
        self.moved.emit(plan)

    def _scale(self) -> float:
        assert self._plan is not None
        assert self._plan.plan is not None
        found, unit = self._plan.plan, em()
        across = min(MOST, len(found.sheets))
        room = (self.width() - (across - 1) * 0.8 * unit) / across
        return min(room / found.sheet.length, (TALL - 0.8) * unit / found.sheet.width)

    def _corner(self, number: int) -> QPointF:
        """Return where the lower left corner of a sheet is drawn."""
        assert self._plan is not None
        assert self._plan.plan is not None
        scale, unit, size = self._scale(), em(), self._plan.plan.sheet
        left = (number % MOST) * (size.length * scale + 0.8 * unit) + 1
        return QPointF(left, (number // MOST) * TALL * unit + 1 + size.width * scale)

    def _sheet_at(self, place: QPointF) -> int | None:
        assert self._plan is not None
        assert self._plan.plan is not None
        scale, size = self._scale(), self._plan.plan.sheet
        for number in range(len(self._plan.plan.sheets)):
            corner = self._corner(number)
            tall = size.width * scale
            if QRectF(corner.x(), corner.y() - tall, size.length * scale, tall).contains(place):
                return number
        return None

    def _under(self, place: QPointF) -> tuple[int, int] | None:
        if self._plan is None or self._plan.plan is None:
            return None
        scale = self._scale()
        for number, row in enumerate(self._plan.plan.sheets):
            corner = self._corner(number)
            for k, laid in enumerate(row):
                box = QRectF(corner.x() + laid.x * scale, corner.y() - (laid.y + laid.width) * scale,
                             laid.length * scale, laid.width * scale)  # fmt: skip
                if box.contains(place):
                    return number, k
        return None

    def _draw(self, painter: QPainter, laid: Laid, corner: QPointF, scale: float, held: bool) -> None:
        assert self._plan is not None
        piece, lit = self._plan.piece(laid.name), held or laid.name == self._lit
        box = QRectF(corner.x() + laid.x * scale, corner.y() - (laid.y + laid.width) * scale, laid.length * scale,
                     laid.width * scale)  # fmt: skip
        self._areas.append((box, laid.name))
        painter.setPen(QPen(colour("accent" if lit else "ink"), 2.4 if held else 1.6 if lit else 0.9))
        painter.setBrush(colour("accent_soft" if lit else "panel"))
        if piece.halved:
            painter.drawPolygon(QPolygonF([box.bottomLeft(), box.bottomRight(), box.topLeft()]))
        else:
            painter.drawRect(box)
        face = font(0.9, QFont.Weight.DemiBold)
        if QFontMetricsF(face).horizontalAdvance(laid.name) < box.width() - 3:
            painter.setFont(face)
            painter.setPen(colour("ink"))
            painter.drawText(box, Qt.AlignmentFlag.AlignCenter, laid.name)
