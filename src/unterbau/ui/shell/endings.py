"""Ctrl+C in the terminal and the end of a session: unsaved work is set aside, then the program ends."""

import signal
import socket
from collections.abc import Callable
from types import FrameType

from PyQt6.QtCore import QObject, QSocketNotifier
from PyQt6.QtWidgets import QApplication

SIGNALS = (signal.SIGINT, signal.SIGTERM, signal.SIGHUP)


class Endings(QObject):
    """Wakes the event loop when a signal comes, so that it is heard at once."""

    def __init__(self, end: Callable[[], None], parent: QObject | None = None) -> None:
        """Listen.

        Args:
            end: Sets work aside and stops what runs; called once, in the window's thread.
            parent: Owner.
        """
        super().__init__(parent)
        self._end = end
        self.number = 0
        """Of the signal that came; 0 before."""
        self._ours, self._theirs = socket.socketpair()
        for one in (self._ours, self._theirs):
            one.setblocking(False)
        signal.set_wakeup_fd(self._theirs.fileno(), warn_on_full_buffer=False)
        for number in SIGNALS:
            signal.signal(number, self._on_signal)
        self._notifier = QSocketNotifier(self._ours.fileno(), QSocketNotifier.Type.Read, self)  # type: ignore[call-overload]
        self._notifier.activated.connect(self._on_woken)

    def _on_signal(self, number: int, frame: FrameType | None) -> None:
        del frame
        self.number = self.number or number

    def _on_woken(self) -> None:
        self._ours.recv(64)
        application = QApplication.instance()
        if self.number and application is not None:
            self._notifier.setEnabled(False)
            self._end()
            QApplication.exit(128 + self.number)  # quit() would ask each window whether it may close
