"""Designs of a search tried in processes of their own, in the order they were asked for."""

from collections import deque
from collections.abc import Callable, Generator, Iterator
from concurrent.futures import Future, ProcessPoolExecutor
from concurrent.futures.process import BrokenProcessPool
from itertools import islice
from multiprocessing import get_context
from typing import Any, TypeVar

from unterbau.errors import InputError
from unterbau.heap import keep
from unterbau.kept import keep_more
from unterbau.orphaned import end_with_parent

P = TypeVar("P")
T = TypeVar("T")
CHUNK = 8
"""Designs that a process is given at a time: enough that telling it takes little of it."""
AHEAD = 2
"""Chunks that each process has waiting."""
SIDE_BY_SIDE = 2
"""Processes of a search that a person waits for."""
MORE = 4.0
"""Times what a process with a window keeps: designs share their plates."""
_work: Callable[[Any], Any] | None = None


def _begin(work: Callable[[Any], Any]) -> None:
    global _work
    _work = work
    end_with_parent()
    keep()
    keep_more(MORE)


def _do(some: tuple[Any, ...]) -> list[Any]:
    assert _work is not None
    return [_work(one) for one in some]


def tried_apart(
    wanted: Iterator[P], work: Callable[[P], T], processes: int, chunk: int = CHUNK
) -> Generator[T, None, None]:
    """Yield what the work makes of each of what is wanted, in order.

    Args:
        wanted: Drawn from a little ahead of what is yielded.
        work: Can be sent to another process.
        processes: That work side by side; with one the work is done here.
        chunk: So many a process is given at a time.

    Raises:
        InputError: A process ended by itself.
    """
    if processes < 2:
        for one in wanted:
            yield work(one)
        return
    pool = ProcessPoolExecutor(processes, get_context("spawn"), _begin, (work,))
    waiting: deque[Future[list[T]]] = deque()
    try:
        while True:
            while len(waiting) < AHEAD * processes and (some := tuple(islice(wanted, chunk))):
                waiting.append(pool.submit(_do, some))
            if not waiting:
                return
            yield from waiting.popleft().result()
    except BrokenProcessPool:
        raise InputError("search", "a process that tried designs ended by itself: too little memory?") from None
    finally:
        pool.shutdown(wait=False, cancel_futures=True)
