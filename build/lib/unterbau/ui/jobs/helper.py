"""Studies computed in a process of their own, so that the window keeps a processor for itself."""

import os
import subprocess
import sys
from collections.abc import Callable
from functools import cache
from multiprocessing import Pipe
from multiprocessing.connection import Connection
from threading import Event, Lock
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
        cancelled = False
        while True:
            number, sort, told = pipe.recv()
            if number != self._number:
                continue
            if sort == helping.STEP and not cancelled:
                try:
                    progress.step(*told)
                except Cancelled:
                    cancelled = True
                    pipe.send((number, None, ()))
            elif sort == helping.FOUND and not cancelled:
                progress.found(told)
            elif sort == helping.REFUSED and not cancelled:
                raise UnterbauError(told)
            elif sort in (helping.DONE, helping.REFUSED, helping.CANCELLED):
                if cancelled or sort == helping.CANCELLED:
                    raise Cancelled
                return told

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


@cache
def helper(what: str) -> Helper:
    """Return the process for a sort of studies that all windows of the program share; it ends with the program."""
    return Helper(PATIENCE[what])
