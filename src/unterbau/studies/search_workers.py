"""Designs of a search tried in processes of their own, in the order they were asked for."""

from collections import deque
from collections.abc import Callable, Generator, Iterator
from concurrent.futures import Future, ProcessPoolExecutor
from concurrent.futures.process import BrokenProcessPool
from itertools import islice
from multiprocessing import get_context
from typing import Any, TypeVar

from unterbau.errors import InputError

T = TypeVar("T")
CHUNK = 8
"""Designs that a process is given at a time: enough that telling it takes little of it."""
AHEAD = 2
"""Chunks that each process has waiting."""
SIDE_BY_SIDE = 2
"""Processes of a search that a person waits for."""
_work: Callable[[Any], Any] | None = None


def _begin(work: Callable[[Any], Any]) -> None:
    global _work
    _work = work


def _do(picks: tuple[Any, ...]) -> list[Any]:
    assert _work is not None
    return [_work(one) for one in picks]


def tried_apart(
    picks: Iterator[tuple[int, ...]], work: Callable[[tuple[int, ...]], T], processes: int
) -> Generator[tuple[tuple[int, ...], T], None, None]:
    """Yield each pick with what the work makes of it.

    Args:
        picks: Drawn from a little ahead of what is yielded.
        work: Can be sent to another process.
        processes: That work side by side; with one the work is done here.

    Raises:
        InputError: A process ended by itself.
    """
    if processes < 2:
        for one in picks:
            yield one, work(one)
        return
    pool = ProcessPoolExecutor(processes, get_context("spawn"), _begin, (work,))
    waiting: deque[tuple[tuple[tuple[int, ...], ...], Future[list[T]]]] = deque()
    try:
        while True:
            while len(waiting) < AHEAD * processes and (chunk := tuple(islice(picks, CHUNK))):
                waiting.append((chunk, pool.submit(_do, chunk)))
            if not waiting:
                return
            chunk, answer = waiting.popleft()
            yield from zip(chunk, answer.result(), strict=True)
    except BrokenProcessPool:
        raise InputError("search", "a process that tried designs ended by itself: too little memory?") from None
    finally:
        pool.shutdown(wait=False, cancel_futures=True)
