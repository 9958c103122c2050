"""Collects unreachable objects in the GUI thread only.

Python collects in whichever thread allocates. A study on a worker thread would then free pictures and widgets of a
closed view there, and graphics freed from a foreign thread can wait for one another for ever.
"""

import gc

from PyQt6.QtCore import QObject, QTimer

from unterbau.heap import give_back, share

EVERY = 1000  # ms
TRIMMED = 20  # looks between givings back


class Garbage(QObject):
    """Looks once a second whether enough was made to be worth a collection."""

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        gc.disable()
        share()
        self._looks = 0
        self._timer = QTimer(self)
        self._timer.setInterval(EVERY)
        self._timer.timeout.connect(self.look)
        self._timer.start()

    def look(self) -> None:
        """Collect the oldest generation that is due."""
        due = [
            n for n, (made, limit) in enumerate(zip(gc.get_count(), gc.get_threshold(), strict=True)) if made > limit
        ]
        if due:
            gc.collect(due[-1])
        self._looks += 1
        if self._looks % TRIMMED == 0:
            give_back()


def collect_here(application: QObject) -> None:
    """Collect in this thread from now on; once for an application."""
    if application.findChild(Garbage) is None:
        Garbage(application)
