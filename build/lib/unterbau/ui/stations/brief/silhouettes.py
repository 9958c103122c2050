"""The kinds of machine as drawn silhouettes to start from."""

from functools import lru_cache, partial

from PyQt6.QtCore import QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QFont, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QAbstractButton, QHBoxLayout, QScrollArea, QSizePolicy, QWidget
from typing_extensions import override

from unterbau.machine.kind import Kind
from unterbau.machine.machine import KINDS, bodies_of
from unterbau.mechanics.arrays import FloatArray
from unterbau.structure.parts import Place
from unterbau.ui.theme import colour, em, font
from unterbau.ui.widgets.thumbnail import outlines, paint

WIDE, TALL = 11.6, 8.6  # line heights


@lru_cache(maxsize=32)
def _faces(kind: Kind) -> tuple[tuple[float, FloatArray], ...]:
    return tuple(outlines(bodies_of(kind.model(), Place())))


class Silhouette(QAbstractButton):
    """One kind."""

    def __init__(self, kind: Kind, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.kind = kind
        self.setText(kind.label)
        self.setAccessibleName(f"Start a candidate: {kind.label}; good: {kind.good}; but: {kind.bad}")
        self.setToolTip(f"good: {kind.good}\nbut: {kind.bad}\nclick to start a candidate of this kind")
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setSizePolicy(QSizePolicy.Policy.Fixed, QSizePolicy.Policy.Fixed)

    @override
    def sizeHint(self) -> QSize:
        return QSize(round(WIDE * em()), round(TALL * em()))

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        unit = em()
        lit = self.hasFocus() or self.underMouse()
        painter.setPen(QPen(colour("accent" if lit else "hairline"), 1.5 if lit else 1.0))
        painter.setBrush(colour("panel"))
        painter.drawRoundedRect(QRectF(self.rect()).adjusted(1, 1, -1, -1), 5, 5)
        picture = QRectF(0.7 * unit, 0.5 * unit, self.width() - 1.4 * unit, 3.6 * unit)
        paint(painter, list(_faces(self.kind)), picture)
        flags = Qt.AlignmentFlag.AlignTop | Qt.TextFlag.TextWordWrap
        painter.setPen(colour("ink"))
        painter.setFont(font(0.86, QFont.Weight.DemiBold))
        area = QRectF(0.5 * unit, 4.3 * unit, self.width() - unit, 2.0 * unit)
        painter.drawText(area, int(flags), self.kind.label)
        painter.setPen(colour("muted"))
        painter.setFont(font(0.78))
        area = QRectF(0.5 * unit, 6.25 * unit, self.width() - unit, 2.1 * unit)
        painter.drawText(area, int(flags), self.kind.good)


class Silhouettes(QScrollArea):
    """All kinds in a row."""

    chosen = pyqtSignal(str)
    """Id of a kind."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setFrameShape(QScrollArea.Shape.NoFrame)
        self.setWidgetResizable(True)
        self.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        inside = QWidget(self)
        row = QHBoxLayout(inside)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(round(0.6 * em()))
        self.cards = [Silhouette(kind, inside) for kind in KINDS]
        for card in self.cards:
            card.clicked.connect(partial(self._on_clicked, card.kind.id))
            row.addWidget(card)
        row.addStretch()
        self.setWidget(inside)
        self.setFixedHeight(round((TALL + 1.1) * em()))

    def _on_clicked(self, kind: str, checked: bool = False) -> None:
        del checked
        self.chosen.emit(kind)
