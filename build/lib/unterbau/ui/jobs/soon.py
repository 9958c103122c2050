"""A study that is waited for a moment: an answer that is quick comes at once, one that is slow comes behind."""

from collections.abc import Callable, Hashable
from concurrent.futures import Future, ThreadPoolExecutor
from concurrent.futures import TimeoutError as StillBusy
from functools import partial

from PyQt6.QtCore import QObject, Qt, pyqtSignal

from unterbau.errors import UnterbauError
from unterbau.ui.jobs import fault

PATIENCE = 0.08  # s for which the window may stand still


class Soon(QObject):
    """Answers the newest question on a thread of its own."""

    answered = pyqtSignal(object, object)
    """What was asked, and the answer, where it came late."""
    failed = pyqtSignal(object, str)
    _done = pyqtSignal(object, object)

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._threads = ThreadPoolExecutor(1, "soon")
        self._running: Future[object] | None = None
        self._wanted: tuple[Hashable, Callable[[], object]] | None = None
        self._done.connect(self._on_done, Qt.ConnectionType.QueuedConnection)  # type: ignore[call-arg]
        self.patience = PATIENCE

    @property
    def busy(self) -> bool:
        """Whether an answer is on its way."""
        return self._running is not None

    def ask(self, asked: Hashable, work: Callable[[], object]) -> object | None:
        """Return the answer if it comes within the patience; otherwise it is told, unless something newer is asked.

        Raises:
            UnterbauError: What is asked has no answer.
        """
        if self._running is not None:
            self._wanted = (asked, work)
            return None
        self._wanted = None
        running = self._threads.submit(work)
        try:
            return running.result(self.patience)
        except StillBusy:
            self._running = running
            running.add_done_callback(partial(self._done.emit, asked))
            return None

    def close(self) -> None:
        """Wait for what runs."""
        self._wanted = None
        self._threads.shutdown()

    def _on_done(self, asked: Hashable, done: "Future[object]") -> None:
        self._running = None
        wanted, self._wanted = self._wanted, None
        try:
            self.answered.emit(asked, done.result())
        except UnterbauError as error:
            self.failed.emit(asked, str(error))
        except Exception as error:  # told in a sentence, never a traceback
            self.failed.emit(asked, fault.told(error))
        if wanted is None or self._running is not None:
            return
        try:
            answer = self.ask(*wanted)
        except UnterbauError as error:
            self.failed.emit(wanted[0], str(error))
            return
        if answer is not None:
            self.answered.emit(wanted[0], answer)
