"""Finds what a person would see cut off."""

from PyQt6.QtCore import QPoint, QRect
from PyQt6.QtWidgets import (
    QAbstractButton,
    QAbstractScrollArea,
    QCheckBox,
    QComboBox,
    QLabel,
    QLineEdit,
    QPushButton,
    QToolButton,
    QWidget,
)

from unterbau.ui.widgets.choice_box import ChoiceBox
from unterbau.ui.widgets.eliding import ElidingButton, ElidingLabel, ElidingPush


def cut_off(window: QWidget) -> list[str]:
    """Return the texts that do not fit their place, and controls that hang out of the window or a neighbour."""
    found = []
    for widget in window.findChildren(QWidget):
        if not widget.isVisibleTo(window) or widget.window() is not window:
            continue
        text = _text(widget)
        if text and _too_small(widget):
            found.append(f"{type(widget).__name__} “{text}” {widget.size()} wants {widget.sizeHint()}")
        if text and not _scrolled(widget, window) and not _inside(widget, window):
            found.append(f"{type(widget).__name__} “{text}” hangs out of the window")
    return found


def _text(widget: QWidget) -> str:
    if isinstance(widget, QLabel | QAbstractButton | QLineEdit):
        return widget.text()
    return widget.currentText() if isinstance(widget, QComboBox) and not widget.isEditable() else ""


def _too_small(widget: QWidget) -> bool:
    if isinstance(widget, ElidingButton | ElidingPush) or (isinstance(widget, ElidingLabel) and widget.toolTip()):
        return not widget.toolTip()
    if isinstance(widget, ChoiceBox):  # what it elides is a hover away
        return False
    if isinstance(widget, QLabel):
        if widget.wordWrap():
            return widget.heightForWidth(widget.width()) > widget.height() + 1
        wanted = widget.minimumSizeHint()
        return wanted.width() > widget.width() + 1 or wanted.height() > widget.height() + 1
    if isinstance(widget, QLineEdit):
        return widget.fontMetrics().horizontalAdvance(widget.text()) > widget.width() - 4
    if isinstance(widget, QComboBox):
        return widget.fontMetrics().horizontalAdvance(widget.currentText()) > widget.width() - 16
    if isinstance(widget, QPushButton | QToolButton | QCheckBox):  # others draw and elide their own text
        return widget.fontMetrics().horizontalAdvance(widget.text()) > widget.width() - 6
    return False


def _scrolled(widget: QWidget, window: QWidget) -> bool:
    parent = widget.parentWidget()
    while parent is not None and parent is not window:
        if isinstance(parent, QAbstractScrollArea):
            return True
        parent = parent.parentWidget()
    return False


def _inside(widget: QWidget, window: QWidget) -> bool:
    corner = widget.mapTo(window, QPoint(0, 0))
    return window.rect().contains(QRect(corner, widget.size()))
