"""Words that end in dots where there is no room; the whole is a hover away."""

from html import escape

from PyQt6.QtCore import QEvent, QSize, Qt
from PyQt6.QtGui import QHelpEvent, QPainter, QPaintEvent
from PyQt6.QtWidgets import (
    QLabel,
    QPushButton,
    QStyle,
    QStyleOptionButton,
    QStyleOptionToolButton,
    QStylePainter,
    QToolButton,
    QToolTip,
)
from typing_extensions import override

LEAST = 6  # letters that stay


class ElidingLabel(QLabel):
    """A label of one line that gives way."""

    @override
    def minimumSizeHint(self) -> QSize:
        whole = super().minimumSizeHint()
        if self.wordWrap():
            return whole
        return QSize(min(whole.width(), self.fontMetrics().averageCharWidth() * LEAST), whole.height())

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        style = self.style()
        if self._fits() or style is None:
            super().paintEvent(event)
            return
        shown = self.fontMetrics().elidedText(self.text(), Qt.TextElideMode.ElideRight, self.contentsRect().width())
        painter = QPainter(self)
        style.drawItemText(
            painter, self.contentsRect(), int(self.alignment()), self.palette(), self.isEnabled(), shown,
            self.foregroundRole(),
        )  # fmt: skip

    @override
    def event(self, event: QEvent | None) -> bool:
        if isinstance(event, QHelpEvent) and event.type() == QEvent.Type.ToolTip and not self._fits():
            own = self.toolTip()
            whole = f"{self.text()}\n{own}" if own else self.text()
            QToolTip.showText(event.globalPos(), f"<span>{escape(whole)}</span>".replace("\n", "<br>"), self)
            return True
        return super().event(event)

    def _fits(self) -> bool:
        return self.wordWrap() or super().minimumSizeHint().width() <= self.width()


class ElidingButton(QToolButton):
    """A button with words that gives way."""

    @override
    def minimumSizeHint(self) -> QSize:
        whole = super().minimumSizeHint()
        return QSize(min(whole.width(), self.fontMetrics().averageCharWidth() * (LEAST + 2)), whole.height())

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter, option = QStylePainter(self), QStyleOptionToolButton()
        self.initStyleOption(option)
        room = self.width() - (self.sizeHint().width() - self.fontMetrics().horizontalAdvance(self.text()))
        if room < self.fontMetrics().horizontalAdvance(self.text()):
            option.text = self.fontMetrics().elidedText(self.text(), Qt.TextElideMode.ElideMiddle, room)
        painter.drawComplexControl(QStyle.ComplexControl.CC_ToolButton, option)


class ElidingPush(QPushButton):
    """A pressed button with words that gives way."""

    @override
    def minimumSizeHint(self) -> QSize:
        whole = super().minimumSizeHint()
        return QSize(min(whole.width(), self.fontMetrics().averageCharWidth() * (LEAST + 2)), whole.height())

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter, option = QStylePainter(self), QStyleOptionButton()
        self.initStyleOption(option)
        room = self.width() - (self.sizeHint().width() - self.fontMetrics().horizontalAdvance(self.text()))
        if room < self.fontMetrics().horizontalAdvance(self.text()):
            option.text = self.fontMetrics().elidedText(self.text(), Qt.TextElideMode.ElideRight, room)
        painter.drawControl(QStyle.ControlElement.CE_PushButton, option)
