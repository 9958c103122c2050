"""The other end of `helper`: computes one study after another; started with a descriptor and a patience.

Nothing of the window is imported here.
"""

import os
import sys
import threading
from collections.abc import Callable
from contextlib import suppress
from multiprocessing.connection import Connection
from queue import Empty, SimpleQueue
from time import monotonic
from typing import Any

from unterbau.errors import UnterbauError
from unterbau.heap import keep, trim
from unterbau.kept import keep_more
from unterbau.orphaned import end_with_parent
from unterbau.progress import Cancelled
from unterbau.ui.jobs import fault

LESS = 0.5
"""Share of what a process with a window keeps."""
EVERY = 0.1
"""Seconds between what is told of an answer that is not whole yet."""
PAUSE = 2.0
"""Seconds without work after which memory is given back."""
STEP, FOUND, DONE, REFUSED, CANCELLED = "step", "found", "done", "refused", "cancelled"
Wanted = tuple[int, Callable[..., Any], tuple[Any, ...]]


class _Told:
    """Progress of one study, told through the pipe."""

    def __init__(self, pipe: "Connection[Any, Any]", number: int, stopped: set[int]) -> None:
        self._pipe, self._number, self._stopped = pipe, number, stopped
        self._found_at = 0.0

    def step(self, done: int, total: int, text: str) -> None:
        if self._number in self._stopped:
            raise Cancelled
        self._pipe.send((self._number, STEP, (done, total, text)))

    def found(self, so_far: object) -> None:
        now = monotonic()
        if now - self._found_at >= EVERY:
            self._found_at = now
            self._pipe.send((self._number, FOUND, so_far))


def compute(pipe: "Connection[Any, Any]") -> None:
    """Compute what comes through the pipe until it is closed."""
    wanted, stopped = SimpleQueue[Wanted | None](), set[int]()
    threading.Thread(target=_listen, args=(pipe, wanted, stopped), daemon=True).start()
    while (task := _next(wanted)) is not None:
        number, study, asked = task
        pipe.send((number, *_outcome(study, asked, _Told(pipe, number, stopped))))
        stopped.discard(number)
        del task, study, asked


def _next(wanted: "SimpleQueue[Wanted | None]") -> Wanted | None:
    """Wait for what is wanted next; memory is given back when that takes a while, for the next answer asks for it."""
    try:
        return wanted.get(timeout=PAUSE)
    except Empty:
        trim()
        return wanted.get()


def _outcome(study: Callable[..., Any], asked: tuple[Any, ...], told: _Told) -> tuple[str, object]:
    try:
        return DONE, study(*asked, told)
    except Cancelled:
        return CANCELLED, None
    except UnterbauError as error:
        return REFUSED, str(error)
    except Exception as error:  # told in a sentence, never a traceback
        return REFUSED, fault.told(error)


def _listen(pipe: "Connection[Any, Any]", wanted: "SimpleQueue[Wanted | None]", stopped: set[int]) -> None:
    """Take in what is wanted, and what no longer is, while something is computed."""
    with suppress(EOFError, OSError):
        while True:
            number, study, asked = pipe.recv()
            if study is None:
                stopped.add(number)
            else:
                wanted.put((number, study, asked))
    os._exit(0)  # the window is gone; what still runs is for nobody


if __name__ == "__main__":
    end_with_parent()
    os.nice(int(sys.argv[2]))
    keep()
    keep_more(LESS)
    compute(Connection(int(sys.argv[1])))
