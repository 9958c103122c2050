"""Answers that are kept, the newest, up to so many bytes."""

import dataclasses
import sys
from collections.abc import Iterator
from typing import Any

import numpy as np
from cachetools import LRUCache  # type: ignore[import-untyped]

LEAST = 200  # bytes that anything takes


def kept(megabytes: float) -> "LRUCache[Any, Any]":
    """Return a store of answers by what was asked; the oldest go when it is full."""
    return LRUCache(megabytes * 1e6, getsizeof=weight)


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
