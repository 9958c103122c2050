"""Gives memory that is free inside the program back to the system.

The C library keeps what was freed for the thread that freed it. Studies on worker threads make and free arrays of some
megabytes each time, and the program would seem to grow with every change, by what nothing uses any more.
"""

import ctypes
import threading
from typing import Any

ARENAS, ARENA_MAX = 2, -8


def keep_small() -> None:
    """Let threads share their heaps; nothing where the C library knows no such thing."""
    adjust = _of_c("mallopt")
    if adjust is not None:
        adjust(ARENA_MAX, ARENAS)


def trim() -> None:
    """Give back what is free now; it may take a while."""
    found = _of_c("malloc_trim")
    if found is not None:
        found(0)


def give_back() -> None:
    """Give back what is free, on a thread of its own."""
    threading.Thread(target=trim, daemon=True, name="heap").start()


def _of_c(name: str) -> Any:
    try:
        return getattr(ctypes.CDLL(None), name)
    except (OSError, AttributeError, TypeError):
        return None
