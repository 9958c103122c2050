"""Two groups at the ends of one row, or under each other where the row is too short."""

from PyQt6.QtCore import QSize, Qt
from PyQt6.QtGui import QResizeEvent
from PyQt6.QtWidgets import QGridLayout, QWidget
from typing_extensions import override

from unterbau.ui.theme import em


class EndsRow(QWidget):
    """Breaks between its groups."""

    def __init__(self, left: QWidget, right: QWidget, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._left, self._right = left, right
        self._grid = QGridLayout(self)
        self._grid.setContentsMargins(0, 0, 0, 0)
        self._grid.setVerticalSpacing(0)
        self._grid.setColumnStretch(1, 1)
        self._grid.addWidget(left, 0, 0, Qt.AlignmentFlag.AlignLeft)
        self._broken = False
        self._place()

    @override
    def minimumSizeHint(self) -> QSize:
        a, b = self._left.minimumSizeHint(), self._right.minimumSizeHint()
        return QSize(
            max(a.width(), b.width()), a.height() + b.height() if self._broken else max(a.height(), b.height())
        )

    @override
    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        wanted = self._left.sizeHint().width() + self._right.sizeHint().width() + round(em())
        if (wanted > self.width()) != self._broken:
            self._broken = not self._broken
            self._place()
            self.updateGeometry()

    def _place(self) -> None:
        self._grid.removeWidget(self._right)
        if self._broken:
            self._grid.addWidget(self._right, 1, 0, 1, 2, Qt.AlignmentFlag.AlignLeft)
        else:
            self._grid.addWidget(self._right, 0, 1, Qt.AlignmentFlag.AlignRight)
