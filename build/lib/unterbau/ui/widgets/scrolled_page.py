"""A page that scrolls where the window is too small for it, so that nothing on it is squeezed."""

from PyQt6.QtCore import QEvent, QObject, QPoint, Qt, QTimer
from PyQt6.QtGui import QResizeEvent
from PyQt6.QtWidgets import QFrame, QScrollArea, QWidget
from typing_extensions import override


class _Holder(QWidget):
    """Gives a page its own size; a scroll area would give it the height it likes best at its width, not the least."""

    def __init__(self, page: QWidget) -> None:
        super().__init__()
        self.page = page
        page.setParent(self)

    @override
    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        self.page.resize(self.size())


class ScrolledPage(QScrollArea):
    """Gives its page the whole room, or what the page needs at the least."""

    def __init__(self, page: QWidget, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setWidgetResizable(True)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.setInterval(0)
        self._soon.timeout.connect(self._fit)
        self._holder = _Holder(page)
        self.setWidget(self._holder)
        page.installEventFilter(self)
        self._beginning: QWidget | None = None
        bar = self.verticalScrollBar()
        if bar is not None:
            bar.actionTriggered.connect(self._on_moved)
            bar.rangeChanged.connect(self._begin)
        self._fit()

    def to_top(self) -> None:
        """Show the page from its beginning."""
        self._beginning = None
        bar = self.verticalScrollBar()
        if bar is not None:
            bar.setValue(0)

    def begin_at(self, widget: QWidget) -> None:
        """Show the page from a widget on, also while it grows, until it is moved by hand."""
        self._beginning = widget
        self._soon.start()

    def _begin(self) -> None:
        bar, layout = self.verticalScrollBar(), self._holder.page.layout()
        if self._beginning is not None and bar is not None and layout is not None:
            layout.activate()
            bar.setValue(self._beginning.mapTo(self._holder, QPoint(0, 0)).y())

    def _on_moved(self) -> None:
        self._beginning = None

    @override
    def resizeEvent(self, event: QResizeEvent | None) -> None:
        self._fit()
        super().resizeEvent(event)

    @override
    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if event is not None and event.type() == QEvent.Type.LayoutRequest:
            self._fit()
            self._soon.start()  # what was just made is shown, and counted, only after this event
        return super().eventFilter(watched, event)

    def _fit(self) -> None:
        """Ask for the height that the page's words need at its width."""
        room, layout = self.viewport(), self._holder.page.layout()
        if room is None or layout is None:
            return
        least = layout.totalMinimumSize()
        width = max(least.width(), room.width())
        height = layout.minimumHeightForWidth(width) if layout.hasHeightForWidth() else least.height()
        self._holder.setMinimumSize(least.width(), max(height, least.height()))
        self._begin()
