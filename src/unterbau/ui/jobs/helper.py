"""Studies computed in a process of their own, so that the window keeps a processor for itself."""

import os
import subprocess
import sys
from collections.abc import Callable
from functools import cache
from multiprocessing import Pipe
from multiprocessing.connection import Connection
from threading import Event, Lock
from time import monotonic
from typing import Any

from unterbau.errors import UnterbauError
from unterbau.progress import Cancelled, Progress
from unterbau.ui.jobs import helping

SOON, BEHIND = "soon", "behind"
"""What the readout waits for, and what comes after it."""
PATIENCE = {SOON: 0, BEHIND: 10}
STANDS = Event()
"""The window is painted: until then it has both processors for itself."""
AT_MOST = 2.0
"""Seconds that this is waited for, where there may be no window."""
WAIT = 0.1  # s between looks whether somebody else is done
SILENT = 0.1
"""Seconds without a word of the process after which it is looked whether the study is still wanted."""
GRACE = 3.0
"""Seconds that a process has to stop a study that is not wanted any more, before it is ended."""
ENDED = "the process that computes beside the window ended by itself: too little memory? The next change starts it anew"
ONE = {"OPENBLAS_NUM_THREADS": "1", "OMP_NUM_THREADS": "1", "MKL_NUM_THREADS": "1"}


class Helper:
    """A process that computes one study at a time; started when it is first asked."""

    def __init__(self, patience: int = 0) -> None:
        """Start nothing yet.

        Args:
            patience: How much it lets others go first, as `nice` counts it.
        """
        self._patience = patience
        self._lock = Lock()
        self._process: subprocess.Popen[bytes] | None = None
        self._pipe: Connection[Any, Any] | None = None
        self._number = 0

    def compute(self, study: Callable[..., Any], *asked: object, progress: Progress) -> Any:
        """Return what a study answers; a thread that calls this waits.

        Args:
            study: Called with what is asked and a progress; importable by its name.
            asked: Can be sent to another process.
            progress: Told how far it is.

        Raises:
            UnterbauError: The study refused, in its own words, or its process ended.
            Cancelled: The progress asked to stop.
        """
        while not self._lock.acquire(timeout=WAIT):
            progress.step(0, 1, "")
        try:
            progress.step(0, 1, "")
            pipe = self._started()
            self._number += 1
            pipe.send((self._number, study, asked))
            return self._heard(pipe, progress)
        except (EOFError, BrokenPipeError, ConnectionResetError):
            self._end()
            raise UnterbauError(ENDED) from None
        finally:
            self._lock.release()

    def _heard(self, pipe: "Connection[Any, Any]", progress: Progress) -> Any:
        stopped, last = 0.0, (0, 1, "")
        while True:
            if not pipe.poll(SILENT):
                stopped = self._silent(pipe, progress, last, stopped)
                continue
            number, sort, told = pipe.recv()
            if number != self._number:
                continue
            if sort in (helping.DONE, helping.REFUSED, helping.CANCELLED):
                return _ended(sort, told, bool(stopped))
            if stopped:
                continue
            if sort == helping.STEP:
                last, stopped = told, self._stepped(pipe, progress, told)
            else:
                progress.found(told)

    def _silent(
        self, pipe: "Connection[Any, Any]", progress: Progress, last: tuple[int, int, str], stopped: float
    ) -> float:
        """Look whether the study is still wanted though its process says nothing; return when it was asked to stop.

        Raises:
            Cancelled: The process did not stop within the grace; it is ended, and another is started when needed.
        """
        if stopped and monotonic() - stopped > GRACE:
            self._end()  # it is stopped, swapped out or stuck
            raise Cancelled
        return stopped or self._stepped(pipe, progress, last)

    def _stepped(self, pipe: "Connection[Any, Any]", progress: Progress, told: tuple[int, int, str]) -> float:
        """Tell a step; return when the progress asked to stop, 0 where it did not."""
        try:
            progress.step(*told)
        except Cancelled:
            pipe.send((self._number, None, ()))
            return monotonic()
        return 0.0

    def _started(self) -> "Connection[Any, Any]":
        if self._pipe is None or self._process is None or self._process.poll() is not None:
            STANDS.wait(AT_MOST)
            STANDS.set()
            self._end()
            self._pipe, theirs = Pipe()
            command = [sys.executable, "-m", helping.__name__, str(theirs.fileno()), str(self._patience)]
            self._process = subprocess.Popen(
                command, pass_fds=(theirs.fileno(),), env={**os.environ, **ONE}, stdin=subprocess.DEVNULL
            )
            theirs.close()
        return self._pipe

    def _end(self) -> None:
        if self._pipe is not None:
            self._pipe.close()
        if self._process is not None:
            self._process.kill()
            self._process.wait()
        self._pipe = self._process = None


def _ended(sort: str, told: Any, stopped: bool) -> Any:
    if stopped or sort == helping.CANCELLED:
        raise Cancelled
    if sort == helping.REFUSED:
        raise UnterbauError(told)
    return told


@cache
def helper(what: str) -> Helper:
    """Return the process for a sort of studies that all windows of the program share; it ends with the program."""
    return Helper(PATIENCE[what])
