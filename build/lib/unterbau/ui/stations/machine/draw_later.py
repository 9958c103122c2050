"""When the machine's picture is drawn: after the numbers, and after their bands where these come soon."""

from PyQt6.QtCore import QObject, QTimer, pyqtSignal

NUMBERS_FIRST = 20  # ms: readout and load path are painted before the picture
BANDS_FIRST = 300  # ms that the picture waits for bands, at most


class DrawLater(QObject):
    """Tells when to put a picture together, and when to draw it."""

    put_together = pyqtSignal()
    draw = pyqtSignal()

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self._waits = self._drawn = False
        self._first, self._last = QTimer(self), QTimer(self)
        for timer in (self._first, self._last):
            timer.setSingleShot(True)
        self._first.timeout.connect(self._on_first)
        self._last.timeout.connect(self._on_last)

    def isActive(self) -> bool:
        """Whether something is still to be drawn."""
        return self._first.isActive() or self._last.isActive()

    def start(self) -> None:
        """Draw after the numbers."""
        self._first.start(NUMBERS_FIRST)

    def start_before_bands(self) -> None:
        """Put together after the numbers, draw after their bands; the first picture waits for none."""
        if not self._drawn:
            self.start()
            return
        self._waits = True
        self._first.start(NUMBERS_FIRST)
        self._last.start(BANDS_FIRST)

    def bands_are_there(self) -> None:
        """Draw what waited for them."""
        if self._waits:
            self._waits = False
            self._last.start(0)

    def stop(self) -> None:
        """Draw nothing."""
        self._waits = False
        self._first.stop()
        self._last.stop()

    def _on_first(self) -> None:
        if self._waits:
            self.put_together.emit()
            return
        self._last.stop()
        self._tell()

    def _on_last(self) -> None:
        self._waits = False
        self._first.stop()
        self._tell()

    def _tell(self) -> None:
        self._drawn = True
        self.draw.emit()
