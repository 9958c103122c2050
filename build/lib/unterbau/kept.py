"""Answers that are kept, the newest, up to so many bytes."""

import dataclasses
import sys
from collections.abc import Callable, Iterator
from threading import Lock
from typing import Any, TypeVar

import numpy as np
from cachetools import LRUCache, cached  # type: ignore[import-untyped]

Answer = TypeVar("Answer", bound=Callable[..., object])

LEAST = 200  # bytes that anything takes
_times = 1.0


class Kept(LRUCache):  # type: ignore[misc]  # cachetools says nothing of its types
    """A store of answers by what was asked; the oldest go when it is full, the newest is kept whatever it weighs."""

    def __init__(self, megabytes: float, weighed: Callable[[Any], float] | None = None) -> None:
        """Keep up to so many megabytes.

        Args:
            megabytes: Room.
            weighed: Says how many bytes an answer takes, where going through all of it takes too long.
        """
        super().__init__(megabytes * 1e6)
        self._most, self._weighed = megabytes * 1e6, weighed or weight

    def getsizeof(self, answer: object) -> float:
        """Return about how many bytes an answer takes, and never more than there is room for."""
        return float(min(self._weighed(answer) / _times, self._most))


def keep_more(times: float) -> None:
    """Have this process keep so many times as much from now on: more where hardly anything else takes its memory."""
    global _times
    _times = times


def kept_up_to(megabytes: float, weighed: Callable[[Any], float] | None = None) -> Callable[[Answer], Answer]:
    """Have a function's newest answers kept up to so many megabytes, for all threads."""

    def keep(function: Answer) -> Answer:
        kept: Answer = cached(Kept(megabytes, weighed), lock=Lock())(function)
        return kept

    return keep


def weight(answer: object) -> int:
    """Return about how many bytes an answer takes, arrays above all; what it shares with itself counts once."""
    return sum(_own(one) for one in _reached(answer))


def _own(one: object) -> int:
    if isinstance(one, np.ndarray):
        return LEAST + (one.nbytes if one.base is None else 0)
    return sys.getsizeof(one, LEAST)


def _reached(answer: object) -> Iterator[object]:
    seen: set[int] = set()
    waiting = [answer]
    while waiting:
        one = waiting.pop()
        if id(one) in seen or isinstance(one, str | int | float | bool | None):
            continue
        seen.add(id(one))
        yield one
        if isinstance(one, np.ndarray):
            if one.base is not None:
                waiting.append(one.base)
        elif isinstance(one, dict):
            waiting += [*one.keys(), *one.values()]
        elif isinstance(one, list | tuple | set | frozenset):
            waiting += one
        elif dataclasses.is_dataclass(one):
            waiting += [getattr(one, field.name) for field in dataclasses.fields(one)]
