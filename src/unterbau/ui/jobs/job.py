"""One study on a worker thread; exactly one of succeeded, failed, cancelled, in the GUI thread."""

import threading
from collections.abc import Callable
from contextlib import suppress
from time import monotonic
from typing import Any

from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from unterbau.errors import UnterbauError
from unterbau.progress import Cancelled, Progress
from unterbau.ui.jobs import fault

EVERY = 0.25
"""Seconds between what is told of an answer that is not whole yet."""


RELEASE = 20
"""Milliseconds between looks whether the thread of a finished study has ended."""


class _Relay(QObject):
    finished = pyqtSignal(str, object)
    progressed = pyqtSignal(int, int, str)
    told = pyqtSignal(object)


class _Runner(threading.Thread):
    def __init__(self, work: Callable[[Progress], Any], relay: _Relay, stop: threading.Event) -> None:
        super().__init__(daemon=True, name="study")
        self.work, self.relay, self.stop = work, relay, stop
        self.told_at = 0.0

    def step(self, done: int, total: int, text: str) -> None:
        if self.stop.is_set():
            raise Cancelled
        self.relay.progressed.emit(done, total, text)

    def found(self, so_far: object) -> None:
        """Tell what is there: the first at once, then at most a few times a second."""
        now = monotonic()
        if now - self.told_at >= EVERY and not self.stop.is_set():
            self.told_at = now
            self.relay.told.emit(so_far)

    def run(self) -> None:
        try:
            outcome, value = "succeeded", self.work(self)
        except Cancelled:
            outcome, value = "cancelled", None
        except UnterbauError as error:
            outcome, value = "failed", str(error)
        except Exception as error:  # told in a sentence, never a traceback
            outcome, value = "failed", fault.told(error)
        if self.stop.is_set():
            outcome, value = "cancelled", None
        with suppress(RuntimeError):  # the window is gone: nobody waits for it
            self.relay.finished.emit(outcome, value)


class Job(QObject):
    """A running study."""

    succeeded = pyqtSignal(object)
    failed = pyqtSignal(str)
    cancelled = pyqtSignal()
    progressed = pyqtSignal(int, int, str)
    told = pyqtSignal(object)
    """What of the answer is there already."""

    def __init__(self, work: Callable[[Progress], Any], parent: QObject) -> None:
        super().__init__(parent)
        self._stop = threading.Event()
        self._relay = _Relay(self)
        self._relay.finished.connect(self._on_finished)
        self._relay.progressed.connect(self._on_progressed)
        self._relay.told.connect(self._on_told)
        self._runner = _Runner(work, self._relay, self._stop)
        self._released = QTimer(self)
        self._released.setInterval(RELEASE)
        self._released.timeout.connect(self._release)

    def start(self) -> None:
        """Start the study on a thread of its own."""
        self._runner.start()

    def wait(self, seconds: float) -> bool:
        """Wait for the thread to end; return whether it did."""
        if self._runner.ident is not None:
            self._runner.join(seconds)
        return not self._runner.is_alive()

    def cancel(self) -> None:
        """Ask the study to stop; `cancelled` follows."""
        self._stop.set()

    def _on_progressed(self, done: int, total: int, text: str) -> None:
        self.progressed.emit(done, total, text)

    def _on_told(self, so_far: object) -> None:
        if not self._stop.is_set():
            self.told.emit(so_far)

    def _on_finished(self, outcome: str, value: object) -> None:
        if outcome == "succeeded" and not self._stop.is_set():
            self.succeeded.emit(value)
        elif outcome == "failed":
            self.failed.emit(str(value))
        else:
            self.cancelled.emit()
        self._release()

    def _release(self) -> None:
        """Delete the job once its thread has ended: until then it may still be inside the relay's signal."""
        if self._runner.is_alive():
            self._released.start()
            return
        self._released.stop()
        self.deleteLater()
