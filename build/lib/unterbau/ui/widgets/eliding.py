"""Words that end in dots where there is no room; the whole is a hover away."""

from html import escape

from PyQt6.QtCore import QEvent, QSize, Qt
from PyQt6.QtGui import QHelpEvent, QPainter, QPaintEvent
from PyQt6.QtWidgets import (
    QAbstractButton,
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


def _narrow(button: QAbstractButton, whole: QSize) -> QSize:
    """Return the least size of a button that may show a part of its words; `whole` is the one of its kind."""
    return QSize(min(whole.width(), button.fontMetrics().averageCharWidth() * (LEAST + 2)), whole.height())


def _shown(button: QAbstractButton, mode: Qt.TextElideMode) -> str:
    """Return as much of a button's words as there is room for."""
    metrics, words = button.fontMetrics(), button.text()
    needed = metrics.horizontalAdvance(words)
    room = button.width() - (button.sizeHint().width() - needed)
    return metrics.elidedText(words, mode, room) if room < needed else words


class ElidingButton(QToolButton):
    """A button with words that gives way."""

    @override
    def minimumSizeHint(self) -> QSize:
        return _narrow(self, super().minimumSizeHint())

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter, option = QStylePainter(self), QStyleOptionToolButton()
        self.initStyleOption(option)
        option.text = _shown(self, Qt.TextElideMode.ElideMiddle)
        painter.drawComplexControl(QStyle.ComplexControl.CC_ToolButton, option)


class ElidingPush(QPushButton):
    """A pressed button with words that gives way."""

    @override
    def minimumSizeHint(self) -> QSize:
        return _narrow(self, super().minimumSizeHint())

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter, option = QStylePainter(self), QStyleOptionButton()
        self.initStyleOption(option)
        option.text = _shown(self, Qt.TextElideMode.ElideRight)
        painter.drawControl(QStyle.ControlElement.CE_PushButton, option)
