"""The candidate shelf: a card for each complete design."""

from dataclasses import dataclass

from PyQt6.QtCore import QPoint, QPointF, QRectF, QSize, QSizeF, Qt, pyqtSignal
from PyQt6.QtGui import QFont, QFontMetricsF, QMouseEvent, QPainter, QPaintEvent, QPen, QPixmap
from PyQt6.QtWidgets import (
    QAbstractButton,
    QApplication,
    QButtonGroup,
    QHBoxLayout,
    QLineEdit,
    QPushButton,
    QScrollArea,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)
from typing_extensions import override

from unterbau.mechanics.arrays import FloatArray
from unterbau.ui.theme import colour, em, font, palette
from unterbau.ui.widgets.plain_tip import plain_tip
from unterbau.ui.widgets.thumbnail import paint

MANNERS = (
    "rename F2, benchmark Ctrl+B, duplicate Ctrl+D, delete Ctrl+Delete, or press the right button; "
    "drop one on another to compare both"
)


@dataclass(frozen=True)
class CardFacts:
    """What a card shows."""

    name: str
    benchmark: bool
    stiffness: str
    unit: str
    change: str
    mass: str
    money: str
    faces: tuple[tuple[float, FloatArray], ...]
    collide: int = 0
    """Pairs of pieces in each other's way somewhere on the travel."""


class Card(QAbstractButton):
    """One candidate."""

    menu_wanted = pyqtSignal(str, QPoint)
    dragged = pyqtSignal(QPoint)
    """It is held over this place of the screen."""
    dropped = pyqtSignal(QPoint)

    def __init__(self, facts: CardFacts, parent: QWidget) -> None:
        super().__init__(parent)
        self.facts = facts
        self._pressed: QPoint | None = None
        self._carried = False
        self.target = False
        """Whether another card is held over it."""
        self.setCheckable(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self._drawn: tuple[tuple[object, float, object], QPixmap] | None = None
        self.setContextMenuPolicy(Qt.ContextMenuPolicy.CustomContextMenu)
        self.customContextMenuRequested.connect(self._on_menu)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setMinimumWidth(round(13.2 * em()))
        self.setMaximumWidth(round(17.2 * em()))

    def show_facts(self, facts: CardFacts) -> None:
        """Show other facts."""
        self.facts = facts
        clash = f"\n{facts.collide} pairs of pieces collide on its travel: lens Clash" if facts.collide else ""
        self.setToolTip(plain_tip(f"{facts.name}{clash}\n{MANNERS}"))
        said = ", collides" if facts.collide else ""
        star = "benchmark, " if facts.benchmark else ""
        self.setAccessibleName(
            f"{facts.name}: {star}{facts.stiffness} {facts.unit} along X, Y, Z, {facts.mass}, {facts.money}{said}"
        )
        self.update()

    @override
    def sizeHint(self) -> QSize:
        return QSize(round(17.2 * em()), round(5.6 * em()))

    def hold_over(self, held: bool) -> None:
        """Show that another card is held over it."""
        if held != self.target:
            self.target = held
            self.update()

    @override
    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and event.button() == Qt.MouseButton.LeftButton:
            self._pressed = event.pos()
        super().mousePressEvent(event)

    @override
    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and self._pressed is not None:
            far = (event.pos() - self._pressed).manhattanLength() >= QApplication.startDragDistance()
            if far or self._carried:
                self._carried = True
                self.setCursor(Qt.CursorShape.ClosedHandCursor)
                self.dragged.emit(event.globalPosition().toPoint())
                return
        super().mouseMoveEvent(event)

    @override
    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        carried, self._carried, self._pressed = self._carried, False, None
        if event is not None and carried:
            self.unsetCursor()
            self.setDown(False)
            self.dropped.emit(event.globalPosition().toPoint())
            return
        super().mouseReleaseEvent(event)

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        unit, f = em(), self.facts
        chosen = self.isChecked()
        painter.setPen(QPen(colour("accent" if chosen or self.target else "hairline"), 2.0 if chosen else 1.0))
        painter.setBrush(colour("accent_soft" if self.target else "panel"))
        painter.drawRoundedRect(QRectF(self.rect()).adjusted(1.5, 1.5, -1.5, -1.5), 5, 5)
        if self.hasFocus():
            painter.setPen(QPen(colour("ink"), 1.0, Qt.PenStyle.DotLine))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRoundedRect(QRectF(self.rect()).adjusted(5, 5, -5, -5), 3, 3)
        painter.drawPixmap(QPointF(0.6 * unit, 0.7 * unit), self._picture(QSizeF(4.3 * unit, 4.2 * unit)))
        x = 5.1 * unit
        room = self.width() - x - 0.5 * unit
        rows = (
            (("★ " if f.benchmark else "") + f.name, font(0.94, QFont.Weight.DemiBold), "ink"),
            (f.stiffness, font(1.0, QFont.Weight.DemiBold), "ink"),
            (f"{f.unit}  X · Y · Z, likely", font(0.8), "muted"),
            (f.change, font(0.84), "accent" if "−" not in f.change else "warning"),
            (f"{f.mass}  {f.money}", font(0.9), "ink"),
        )
        y = 0.45 * unit
        for text, face, role in rows:
            painter.setFont(face)
            painter.setPen(colour(role))
            metrics = QFontMetricsF(face)
            shown = metrics.elidedText(text, Qt.TextElideMode.ElideRight, room)
            painter.drawText(QRectF(x, y, room, unit), Qt.AlignmentFlag.AlignVCenter, shown)
            y += 0.96 * unit
        if f.collide:
            painter.setFont(font(0.8))
            painter.setPen(colour("warning"))
            place = QRectF(x, y - 0.96 * unit, room, unit)
            painter.drawText(place, Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignRight, "✕ collides")

    def _picture(self, size: QSizeF) -> QPixmap:
        """Return the machine's outline, drawn once for each machine, size and palette."""
        key = (self.facts.faces, size.width(), palette())
        if self._drawn is None or not _same(self._drawn[0], key):
            ratio = self.devicePixelRatioF()
            picture = QPixmap((size * ratio).toSize())
            picture.setDevicePixelRatio(ratio)
            picture.fill(Qt.GlobalColor.transparent)
            painter = QPainter(picture)
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            paint(painter, list(self.facts.faces), QRectF(QPointF(0, 0), size))
            painter.end()
            self._drawn = (key, picture)
        return self._drawn[1]

    def _on_menu(self, place: QPoint) -> None:
        self.menu_wanted.emit(self.facts.name, self.mapToGlobal(place))


def _same(a: tuple[object, float, object], b: tuple[object, float, object]) -> bool:
    return a[0] is b[0] and a[1] == b[1] and a[2] is b[2]


class Shelf(QWidget):
    """Cards in a row; the last place makes a new one."""

    chosen = pyqtSignal(str)
    new_wanted = pyqtSignal(QPoint)
    """Where to offer what can be started, on the screen."""
    renamed = pyqtSignal(str, str)
    menu_wanted = pyqtSignal(str, QPoint)
    paired = pyqtSignal(str, str)
    """A card was dropped on another: both names."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setProperty("surface", "sunken")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.cards: list[Card] = []
        self._name_for = ""
        self._group = QButtonGroup(self)
        self._area = QScrollArea(self)
        self._area.setWidgetResizable(True)
        self._area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self._area.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._inside = QWidget(self._area)
        self._inside.setProperty("surface", "sunken")
        self._area.setWidget(self._inside)
        self._row = QHBoxLayout(self._inside)
        self._row.setContentsMargins(round(0.9 * em()), round(0.5 * em()), round(0.9 * em()), round(0.5 * em()))
        self._row.setSpacing(round(0.7 * em()))
        self.new = QPushButton("+ new", self._inside)
        self.new.setToolTip("a copy of the chosen candidate, Ctrl+D, or another kind of machine")
        self.new.clicked.connect(self._on_new)
        self.new.setFixedSize(round(4.6 * em()), round(5.6 * em()))
        self._row.addWidget(self.new)
        self._row.addStretch(0)
        self.name = QLineEdit(self)
        self.name.setAccessibleName("New name of the candidate")
        self.name.hide()
        self.name.editingFinished.connect(self._on_named)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.addWidget(self._area)
        self.setFixedHeight(round(6.9 * em()))

    def _on_new(self) -> None:
        self.new_wanted.emit(self.new.mapToGlobal(QPoint(0, 0)))

    def show_cards(self, facts: list[CardFacts], chosen: str) -> None:
        """Show these candidates."""
        while len(self.cards) > len(facts):
            card = self.cards.pop()
            self._group.removeButton(card)
            card.hide()
            card.deleteLater()
        while len(self.cards) < len(facts):
            card = Card(facts[len(self.cards)], self._inside)
            card.clicked.connect(self._on_clicked)
            card.menu_wanted.connect(self.menu_wanted)
            card.dragged.connect(self._on_dragged)
            card.dropped.connect(self._on_dropped)
            self._group.addButton(card)
            self._row.insertWidget(len(self.cards), card)
            self.cards.append(card)
        for card, one in zip(self.cards, facts, strict=True):
            card.show_facts(one)
            card.setChecked(one.name == chosen)

    def _under(self, place: QPoint) -> Card | None:
        return next((card for card in self.cards if card.rect().contains(card.mapFromGlobal(place))), None)

    def _on_dragged(self, place: QPoint) -> None:
        under, held = self._under(place), self.sender()
        for card in self.cards:
            card.hold_over(card is under and card is not held)

    def _on_dropped(self, place: QPoint) -> None:
        under, held = self._under(place), self.sender()
        for card in self.cards:
            card.hold_over(False)
        if isinstance(held, Card) and under is not None and under is not held:
            self.paired.emit(held.facts.name, under.facts.name)

    def card(self, name: str) -> Card:
        """Return the card of a candidate."""
        return next(card for card in self.cards if card.facts.name == name)

    def ask_name(self, name: str) -> None:
        """Open a field for the name on a candidate's card."""
        card = self.card(name)
        corner = card.mapTo(self, QPoint(round(5.0 * em()), round(0.25 * em())))
        self._name_for = name
        self.name.setGeometry(corner.x(), corner.y(), card.width() - round(5.4 * em()), round(1.25 * em()))
        self.name.setText(name)
        self.name.show()
        self.name.raise_()
        self.name.setFocus()
        self.name.selectAll()

    def _on_named(self) -> None:
        if self.name.isVisible():
            self.name.hide()
            self.renamed.emit(self._name_for, self.name.text())

    def _on_clicked(self) -> None:
        card = self.sender()
        if isinstance(card, Card):
            self.chosen.emit(card.facts.name)
