"""The load path drawn: links from tool to work, as wide as their share."""

from dataclasses import dataclass

from PyQt6.QtCore import QEvent, QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QFont, QFontMetricsF, QHelpEvent, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QSizePolicy, QToolTip, QWidget
from typing_extensions import override

from unterbau.ui.theme import colour, em, font, heat, ink_on

NARROWEST, LABELLED = 6.0, 40.0
CAUSE_NAMES = {
    "bending": "bending",
    "torsion": "twist",
    "shear": "shear",
    "axial": "stretch",
    "distortion": "section out of shape",
    "wall": "wall dented",
    "joint": "joint",
}
CAUSE_ORDER = ("bending", "torsion", "shear", "axial", "distortion", "wall", "joint")
TONES = (1.0, 0.72, 0.45, 0.2, 0.85, 0.6, 1.0)


@dataclass(frozen=True, slots=True)
class StripLink:
    """A link as the strip shows it."""

    key: str
    label: str
    kind: str
    share: float
    """Of the whole movement."""
    causes: dict[str, float]
    """Of the whole movement, by cause."""


def widths(shares: list[float], width: float) -> list[float]:
    """Return widths proportional to the shares, none below the narrowest, summing to `width`."""
    if not shares:
        return []
    fixed: set[int] = set()
    while True:
        left = width - NARROWEST * len(fixed)
        total = sum(share for k, share in enumerate(shares) if k not in fixed)
        if total <= 0.0:
            return [width / len(shares)] * len(shares)
        narrow = {k for k, s in enumerate(shares) if k not in fixed and left * s / total < NARROWEST}
        if not narrow:
            return [NARROWEST if k in fixed else left * s / total for k, s in enumerate(shares)]
        fixed |= narrow


def causes_text(link: StripLink) -> str:
    """Return a link's share and causes in words."""
    parts = [
        f"{CAUSE_NAMES[c]} {link.causes[c] / link.share:.0%}"
        for c in CAUSE_ORDER
        if link.causes[c] > 0.005 * link.share
    ]
    return f"{link.label}: {link.share:.1%} of the movement" + (f" ({', '.join(parts)})" if link.kind == "part" else "")


class PathStrip(QWidget):
    """Links side by side; the weakest is lifted out."""

    chosen = pyqtSignal(str)
    pointed = pyqtSignal(str)

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("Load path from tool to work")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self._links: list[StripLink] = []
        self._selected = ""
        self._hover = ""

    @property
    def links(self) -> list[StripLink]:
        """What is shown."""
        return self._links

    def show_links(self, links: list[StripLink]) -> None:
        """Show other links."""
        self._links = links
        self._describe()
        self.update()

    def select(self, key: str) -> None:
        """Show which link is on the bench."""
        self._selected = key
        self._describe()
        self.update()

    def light_up(self, key: str) -> None:
        """Show which link the mouse is over."""
        self._hover = key
        self.update()

    def weakest(self) -> str:
        """Return the link with the largest share."""
        return max(self._links, key=lambda link: link.share).key if self._links else ""

    def place_of(self, key: str) -> QPointF:
        """Return the middle of a link."""
        return next(rect.center() for link, rect in self._layout() if link.key == key)

    def link_at(self, place: QPointF) -> StripLink | None:
        """Return the link under a place."""
        return next((link for link, rect in self._layout() if rect.left() <= place.x() < rect.right()), None)

    @override
    def sizeHint(self) -> QSize:
        return QSize(600, round(3.1 * em()))

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        largest = max((link.share for link in self._links), default=1.0) or 1.0
        weakest = self.weakest()
        rows = self._layout()
        rows.sort(key=lambda row: row[0].key in (weakest, self._selected))
        for link, rect in rows:
            self._draw(painter, link, rect, largest, link.key == weakest)
        if self.hasFocus():
            painter.setPen(QPen(colour("accent"), 1, Qt.PenStyle.DotLine))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(QRectF(self.rect()).adjusted(0.5, 0.5, -0.5, -0.5))

    @override
    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        link = self.link_at(event.position()) if event else None
        self.pointed.emit(link.key if link else "")

    @override
    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        link = self.link_at(event.position()) if event else None
        if link is not None and link.key != "rest":
            self.chosen.emit(link.key)

    @override
    def leaveEvent(self, event: QEvent | None) -> None:
        self.pointed.emit("")

    @override
    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        step = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}.get(Qt.Key(event.key())) if event else None
        keys = [link.key for link in self._links if link.key != "rest"]
        if step is None or not keys:
            super().keyPressEvent(event)
            return
        now = keys.index(self._selected) if self._selected in keys else keys.index(self.weakest())
        self.chosen.emit(keys[max(0, min(len(keys) - 1, now + step))])

    @override
    def event(self, event: QEvent | None) -> bool:
        if isinstance(event, QHelpEvent):
            link = self.link_at(QPointF(event.pos()))
            if link is not None:
                QToolTip.showText(event.globalPos(), causes_text(link), self)
            return True
        return super().event(event)

    def _describe(self) -> None:
        chosen = next((link for link in self._links if link.key == self._selected), None)
        self.setAccessibleDescription(causes_text(chosen) if chosen else "")

    def _layout(self) -> list[tuple[StripLink, QRectF]]:
        unit = em()
        top, height = 0.95 * unit, 1.45 * unit
        rows, x = [], 1.0
        for link, width in zip(self._links, widths([k.share for k in self._links], self.width() - 2.0), strict=True):
            rows.append((link, QRectF(x, top, width, height)))
            x += width
        return rows

    def _draw(self, painter: QPainter, link: StripLink, rect: QRectF, largest: float, weakest: bool) -> None:
        unit = em()
        chosen = link.key in (self._selected, self._hover)
        if weakest:
            rect = rect.adjusted(-1, -0.22 * unit, 1, 0.12 * unit)
        joint = link.kind == "joint"
        fill = colour("joint") if joint else heat(link.share / largest)
        painter.setPen(QPen(colour("ink") if weakest or chosen else colour("paper"), 1.6 if chosen else 1.2))
        painter.setBrush(fill)
        painter.drawRect(rect.adjusted(0.6, 0.6, -0.6, -0.6))
        face = font(0.86, QFont.Weight.DemiBold if weakest else QFont.Weight.Normal)
        if rect.width() >= LABELLED:
            painter.setFont(face)
            painter.setPen(colour("on_accent") if joint else ink_on(fill))
            metrics = QFontMetricsF(face)
            if metrics.horizontalAdvance(link.label) < rect.width() - 4:
                painter.drawText(rect, Qt.AlignmentFlag.AlignCenter, link.label)
        if weakest or chosen:
            self._draw_causes(painter, link, rect)

    def _draw_causes(self, painter: QPainter, link: StripLink, rect: QRectF) -> None:
        """Draw the second, thinner line that splits a link by cause, dark to light."""
        x, y = rect.left(), rect.bottom() + 1.5
        painter.setPen(Qt.PenStyle.NoPen)
        for cause, tone in zip(CAUSE_ORDER, TONES, strict=True):
            width = rect.width() * link.causes[cause] / link.share if link.share else 0.0
            painter.setBrush(colour("joint") if cause == "joint" else heat(tone))
            painter.drawRect(QRectF(x, y, width, 0.26 * em()))
            x += width
