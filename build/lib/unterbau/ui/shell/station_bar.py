"""The six stations in working order, down the left edge."""

from importlib.resources import files

from PyQt6.QtCore import QByteArray, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QFont, QPainter, QPaintEvent
from PyQt6.QtSvg import QSvgRenderer
from PyQt6.QtWidgets import QAbstractButton, QButtonGroup, QVBoxLayout, QWidget
from typing_extensions import override

from unterbau.ui import theme
from unterbau.ui.theme import colour, em, font

STATIONS = ("Brief", "Machine", "Compare", "Pour", "Workshop", "Build")
DRAWN_IN = theme.PAPER.ink  # of the icon files
PURPOSE = {
    "Brief": "what is cut, how exactly, where it stands",
    "Machine": "the machine and its load path",
    "Compare": "candidates side by side",
    "Pour": "fills and moulds",
    "Workshop": "cut list and shopping",
    "Build": "assembly and measuring",
}


class StationButton(QAbstractButton):
    """Icon, name, and a thin line that fills as the station gets done."""

    def __init__(self, name: str, number: int, parent: QWidget) -> None:
        super().__init__(parent)
        self.setText(name)
        self.setCheckable(True)
        self.setAccessibleName(f"Station {name}")
        self.setToolTip(f"{PURPOSE[name]}, Alt+{number}")
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.done = 0.0
        icon = (files("unterbau.ui") / "assets" / "icons" / f"{name.lower()}.svg").read_text(encoding="utf-8")
        self._icon = QSvgRenderer(QByteArray(icon.replace(DRAWN_IN, colour("ink").name()).encode()), self)

    def show_done(self, share: float) -> None:
        """Show how far the station is, 0 to 1."""
        self.done = share
        self.update()

    @override
    def sizeHint(self) -> QSize:
        return QSize(round(5.2 * em()), round(5.2 * em()))

    @override
    def minimumSizeHint(self) -> QSize:
        return self.sizeHint()

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        unit, area = em(), QRectF(self.rect())
        if self.isChecked():
            painter.fillRect(area, colour("accent_soft"))
            painter.fillRect(QRectF(0, 0, 3, area.height()), colour("accent"))
        elif self.underMouse() or self.hasFocus():
            painter.fillRect(area, colour("sunken"))
        middle = area.center().x()
        self._icon.render(painter, QRectF(middle - 0.95 * unit, 0.7 * unit, 1.9 * unit, 1.9 * unit))
        painter.setFont(font(0.92, QFont.Weight.DemiBold if self.isChecked() else QFont.Weight.Normal))
        painter.setPen(colour("accent" if self.isChecked() else "ink"))
        painter.drawText(QRectF(0, 2.75 * unit, area.width(), 1.2 * unit), Qt.AlignmentFlag.AlignCenter, self.text())
        line = QRectF(middle - 1.2 * unit, 4.25 * unit, 2.4 * unit, 2)
        painter.fillRect(line, colour("hairline"))
        line.setWidth(line.width() * self.done)
        painter.fillRect(line, colour("accent"))


class StationBar(QWidget):
    """Chooses the station."""

    chosen = pyqtSignal(int)

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setProperty("surface", "panel")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.buttons = [StationButton(name, n + 1, self) for n, name in enumerate(STATIONS)]
        group = QButtonGroup(self)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, round(2.2 * em()), 0, 0)
        box.setSpacing(0)
        for place, button in enumerate(self.buttons):
            group.addButton(button, place)
            box.addWidget(button)
        box.addStretch()
        group.idClicked.connect(self.chosen)
        self.setFixedWidth(round(5.2 * em()))

    def show_station(self, place: int) -> None:
        """Mark a station as open."""
        self.buttons[place].setChecked(True)
