"""A tap beside the prediction: its spectrum with peaks, over the bands in which the modes are predicted."""

from math import isfinite, log10

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QHBoxLayout, QListWidget, QListWidgetItem, QSizePolicy, QWidget
from typing_extensions import override

from unterbau.shop.measure.tap import Peak, Tapped
from unterbau.studies.answers import Mode
from unterbau.ui.theme import colour, em, font
from unterbau.ui.widgets.plain_tip import plain_tip

LOW, HIGH = 8.0, 500.0
"""Of the picture, Hz."""
DEEP = 3.0
"""Decades of the spectrum that are drawn."""
FELT = 0.1
FEW = 5.0
"""Lines of the spectrum within a peak: with fewer, its width is the recording's."""
EMPTY = "no recording yet: tap the head with a soft mallet, record it as WAV, and open it with “recording …”"


class SpectrumView(QWidget):
    """The spectrum over frequency, both by decades; predicted modes as bands."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._heard: Tapped | None = None
        self._modes: tuple[Mode, ...] = ()
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)

    def show_both(self, heard: Tapped | None, modes: tuple[Mode, ...]) -> None:
        """Show a recording over the modes that are predicted and felt at the tool."""
        self._heard, self._modes = heard, tuple(one for one in modes if one.at_tool >= FELT)
        peaks = ", ".join(f"{one.frequency:.1f}" for one in heard.peaks) if heard is not None else "none yet"
        told = ", ".join(f"{one.frequency.likely:.0f}" for one in self._modes)
        self.setAccessibleName(f"Spectrum of the tap: peaks at {peaks} Hz; predicted {told} Hz")
        self.update()

    @override
    def sizeHint(self) -> QSize:
        return QSize(round(30 * em()), round(8 * em()))

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setFont(font(0.8))
        unit = em()
        area = QRectF(self.rect()).adjusted(0.5 * unit, 1.3 * unit, -1.6 * unit, -1.4 * unit)

        def across(hertz: float) -> float:
            share = (log10(max(hertz, LOW)) - log10(LOW)) / (log10(HIGH) - log10(LOW))
            return area.left() + area.width() * min(share, 1.0)

        for mode in self._modes:
            f = mode.frequency
            left, right = across(f.low), across(f.high)
            painter.fillRect(QRectF(left, area.top(), max(right - left, 1.5), area.height()), colour("accent_soft"))
        painter.setPen(QPen(colour("accent"), 1.0, Qt.PenStyle.DashLine))
        for mode in self._modes:
            x = across(mode.frequency.likely)
            painter.drawLine(QPointF(x, area.top()), QPointF(x, area.bottom()))
        painter.setPen(QPen(colour("hairline"), 1.0))
        painter.drawLine(area.bottomLeft(), area.bottomRight())
        painter.setPen(colour("muted"))
        for tick in (10, 20, 50, 100, 200, 500):
            spot = QRectF(across(tick) - 2 * unit, area.bottom() + 2, 4 * unit, 1.2 * unit)
            painter.drawText(spot, Qt.AlignmentFlag.AlignCenter, f"{tick} Hz" if tick == 10 else f"{tick}")
        words = QRectF(area.left(), 0.0, area.width(), 1.2 * unit)
        painter.drawText(words, Qt.AlignmentFlag.AlignLeft, "heard, over where the modes are predicted")
        if self._heard is not None:
            self._line(painter, area, across)

    def _line(self, painter: QPainter, area: QRectF, across: object) -> None:
        assert callable(across)
        heard = self._heard
        assert heard is not None
        rows = (heard.frequencies >= LOW) & (heard.frequencies <= HIGH)
        decades = np.log10(np.maximum(heard.spectrum[rows], 10**-DEEP)) + DEEP
        points = [
            QPointF(across(float(f)), area.bottom() - float(v) / DEEP * area.height())
            for f, v in zip(heard.frequencies[rows], decades, strict=True)
        ]
        painter.setPen(QPen(colour("ink"), 1.2))
        painter.drawPolyline(QPolygonF(points))
        painter.setBrush(colour("ink"))
        for one in heard.peaks:
            if LOW <= one.frequency <= HIGH:
                high = max(log10(max(one.height, 10**-DEEP)) + DEEP, 0.0) / DEEP
                painter.drawEllipse(QPointF(across(one.frequency), area.bottom() - high * area.height()), 3.0, 3.0)


class TapPanel(QWidget):
    """Spectrum and peaks of the last tap, each peak with the mode it is nearest to."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._heard: Tapped | None = None
        self._modes: tuple[Mode, ...] = ()
        self.spectrum, self.list = SpectrumView(self), QListWidget(self)
        self.list.setAccessibleName("Peaks of the tap with their damping, beside the predicted modes")
        self.list.setFont(font(0.88))
        self.list.setWordWrap(True)
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        box = QHBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.addWidget(self.spectrum, 3)
        box.addWidget(self.list, 2)
        self._show()

    def show_heard(self, heard: Tapped | None) -> None:
        """Show a recording."""
        self._heard = heard
        self._show()

    def show_modes(self, modes: tuple[Mode, ...]) -> None:
        """Show what is predicted."""
        self._modes = modes
        self._show()

    def _show(self) -> None:
        self.spectrum.show_both(self._heard, self._modes)
        self.list.clear()
        rows = [peak_words(one, self._modes) for one in self._heard.peaks] if self._heard is not None else [EMPTY]
        for words in rows:
            QListWidgetItem(words, self.list).setToolTip(plain_tip(words))


def peak_words(peak: Peak, modes: tuple[Mode, ...]) -> str:
    """Return a peak with both its dampings and the predicted mode that is nearest."""
    decay = f"{peak.decay:.1%}" if isfinite(peak.decay) else "not told"
    few = ", the recording is short for it" if peak.lines < FEW else ""
    words = f"{peak.frequency:.1f} Hz, damping {peak.half_power:.1%} by its width{few}, {decay} by its decay"
    felt = [one for one in modes if one.at_tool >= FELT]
    if not felt:
        return words
    near = min(felt, key=lambda one: abs(log10(one.frequency.likely / peak.frequency)))
    low, likely, high = near.frequency.low, near.frequency.likely, near.frequency.high
    inside = "within" if low <= peak.frequency <= high else "below" if peak.frequency < low else "above"
    return f"{words}: {inside} the {low:.0f} – {high:.0f} Hz predicted ({likely:.0f} Hz, {near.zeta:.1%}): {near.moves}"
