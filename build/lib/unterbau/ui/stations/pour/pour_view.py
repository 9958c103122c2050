"""The mould or hollow cut open, to scale: lifts as layers, coloured by temperature at a time; edges are dragged."""

from collections.abc import Callable

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QSizePolicy, QWidget
from typing_extensions import override

from unterbau.shop.pour.cure import BEARS
from unterbau.shop.pour.plan import MOULD
from unterbau.studies.pouring import Poured
from unterbau.ui.stations.pour.form_picture import draw_form
from unterbau.ui.theme import colour, em, font, heat
from unterbau.ui.view_settings import ViewSettings
from unterbau.units import length_text

GRIP = 6.0  # px around the first lift's edge
LEAST = 0.01  # m, of a lift


class PourView(QWidget):
    """Draws a pour at a time."""

    lift_dragged = pyqtSignal(float)
    """New thickness of the lifts, m."""

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._view = view
        self._made: Poured | None = None
        self._time = 0.0
        self._dragged: float | None = None
        self._to_metres: Callable[[float], float] | None = None
        self._edge = 0.0
        self.setMinimumHeight(round(14 * em()))
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setMouseTracking(True)
        view.changed.connect(self.update)

    def show_pour(self, made: Poured | None) -> None:
        """Show a pour."""
        self._made, self._dragged = made, None
        self._name()
        self.update()

    def show_time(self, seconds: float) -> None:
        """Show it at a time from the first lift, s."""
        self._time = seconds
        self._name()
        self.update()

    def temperature(self, lift: int) -> float | None:
        """Return the highest temperature in a lift now, °C; None before it is poured."""
        found = self._profile(lift)
        return float(found.max()) if found is not None else None

    @override
    def sizeHint(self) -> QSize:
        return QSize(round(34 * em()), round(22 * em()))

    def _name(self) -> None:
        if self._made is None:
            self.setAccessibleName("nothing is poured")
            return
        words = []
        for lift in self._made.cure.lifts:
            warm = self.temperature(lift.number)
            words.append(f"lift {lift.number + 1}: {f'{warm:.0f} °C' if warm is not None else 'not poured yet'}")
        self.setAccessibleName("; ".join(words))

    def _profile(self, lift: int) -> np.ndarray | None:
        """Return the temperatures through a lift now, from below or across."""
        made = self._made
        if made is None or lift >= len(made.cure.lifts):
            return None
        history, poured = made.cure.history, made.cure.lifts[lift].at
        if self._time < poured - 1e-6:
            return None
        sideways = made.room.sideways
        at = self._time - poured if sideways else self._time
        row = int(np.argmin(np.abs(history.times - at)))
        mine = np.array(history.lift) == (0 if sideways else lift)
        found = history.celsius[row][mine]
        if np.isnan(found).any():
            found = np.where(np.isnan(found), made.plan.shop, found)
        return np.asarray(found)

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        made = self._made
        if made is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        unit = em()
        wide, tall = self._size(made)
        area = QRectF(self.rect()).adjusted(2 * unit, 1.6 * unit, -11 * unit, -2.6 * unit)
        scale = min(area.width() / (wide + 2 * made.room.wall), area.height() / (tall + made.room.wall))
        box = QRectF(0, 0, wide * scale, tall * scale)
        box.moveCenter(area.center())
        self._wall(painter, made, box, max(made.room.wall * scale, 3.0))
        if made.plan.part == MOULD and made.panels:
            draw_form(painter, made.panels, box, scale, self._view.units)
        count, lifts = len(made.cure.lifts), made.cure.lifts
        high = box.height() / count
        for lift in lifts:
            layer = QRectF(box.left(), box.bottom() - (lift.number + 1) * high, box.width(), high)
            self._layer(painter, layer, lift.number, made)
            self._beside(painter, layer, lift.number, box)
        self._open(painter, made, box, scale)
        self._edge = box.bottom() - high
        self._to_metres = lambda y: (box.bottom() - y) / scale
        if self._dragged is not None:
            painter.setPen(QPen(colour("accent"), 1.6, Qt.PenStyle.DashLine))
            y = box.bottom() - self._dragged * scale
            painter.drawLine(QPointF(box.left() - unit, y), QPointF(box.right() + unit, y))
        painter.setPen(colour("muted"))
        painter.setFont(font(0.86))
        words = f"{length_text(wide, self._view.units)} across, {length_text(tall, self._view.units)} tall"
        stands = "a tube filled standing on end" if made.plan.part != MOULD else "the mould cut open"
        below = QRectF(self.rect()).adjusted(0, 0, 0, -0.3 * unit)
        middle = Qt.AlignmentFlag.AlignBottom | Qt.AlignmentFlag.AlignHCenter
        painter.drawText(below, middle, f"{stands}: {words}")

    def _size(self, made: Poured) -> tuple[float, float]:
        """Return how wide and tall it is drawn, m: a long tube is drawn shorter than it is."""
        room = made.room
        if made.plan.part == MOULD:
            return made.plan.mould.length, made.plan.mould.height
        return max(room.thin, room.height / 6), room.height

    def _wall(self, painter: QPainter, made: Poured, box: QRectF, thick: float) -> None:
        painter.setPen(QPen(colour("ink"), 1.0))
        painter.setBrush(colour("hairline") if made.room.steel else colour("sunken"))
        outer = box.adjusted(-thick, 0, thick, thick)
        painter.drawRect(outer)
        painter.setBrush(colour("paper"))
        painter.drawRect(box)

    def _layer(self, painter: QPainter, layer: QRectF, lift: int, made: Poured) -> None:
        found = self._profile(lift)
        painter.setPen(Qt.PenStyle.NoPen)
        if found is not None:
            sideways = made.room.sideways
            step = (layer.width() if sideways else layer.height()) / len(found)
            for number, T in enumerate(found.tolist()):
                painter.setBrush(self._warm(T, made.plan.shop))
                if sideways:
                    painter.drawRect(QRectF(layer.left() + number * step, layer.top(), step + 0.6, layer.height()))
                else:
                    top = layer.bottom() - (number + 1) * step
                    painter.drawRect(QRectF(layer.left(), top - 0.3, layer.width(), step + 0.6))
        painter.setPen(QPen(colour("hairline" if found is None else "ink"), 0.8))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(layer)

    def _beside(self, painter: QPainter, layer: QRectF, lift: int, box: QRectF) -> None:
        if layer.height() < 0.9 * em():
            return
        warm = self.temperature(lift)
        words = f"lift {lift + 1}" + (f": {warm:.0f} °C" if warm is not None else "")
        painter.setPen(colour("muted" if warm is None else "ink"))
        painter.setFont(font(0.86))
        room = QRectF(box.right() + 1.4 * em(), layer.top(), 9 * em(), layer.height())
        painter.drawText(room, Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignLeft, words)

    def _open(self, painter: QPainter, made: Poured, box: QRectF, scale: float) -> None:
        """Draw pockets, the sump and inserts of a mould as they are met from the front."""
        if made.plan.part != MOULD:
            return
        painter.setPen(QPen(colour("ink"), 0.9, Qt.PenStyle.DashLine))
        painter.setBrush(colour("paper"))
        for one in made.plan.mould.pockets:
            top = box.top() if one.above else box.bottom() - one.depth * scale
            painter.drawRect(QRectF(box.left() + one.x * scale, top, one.length * scale, one.depth * scale))
        painter.setPen(QPen(colour("ink"), 1.0))
        painter.setBrush(colour("accent"))
        for insert in made.plan.mould.inserts:
            wide = max(insert.diameter * scale, 3.0)
            painter.drawRect(QRectF(box.left() + insert.x * scale - wide / 2, box.top(), wide, insert.depth * scale))

    def _warm(self, T: float, shop: float) -> QColor:
        return heat(min(1.0, max(0.0, (T - shop) / max(BEARS - shop, 1.0))))

    @override
    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and self._to_metres is not None and abs(event.position().y() - self._edge) < GRIP:
            self._dragged = self._to_metres(event.position().y())
            self.update()

    @override
    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None or self._to_metres is None or self._made is None:
            return
        if self._dragged is not None:
            tall = self._size(self._made)[1]
            self._dragged = min(max(self._to_metres(event.position().y()), LEAST), tall)
            self.update()
        near = abs(event.position().y() - self._edge) < GRIP
        self.setCursor(Qt.CursorShape.SizeVerCursor if near or self._dragged else Qt.CursorShape.ArrowCursor)

    @override
    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        del event
        if self._dragged is not None:
            thick, self._dragged = round(self._dragged, 3), None
            self.update()
            self.lift_dragged.emit(thick)
