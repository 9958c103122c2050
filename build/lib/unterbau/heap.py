"""How the C library keeps memory for this process.

It keeps what was freed for the thread that freed it: studies on worker threads make and free arrays of some megabytes
each time, and the program would seem to grow with every change, by what nothing uses any more. Where the end of the
heap happens to be free, on the other hand, it gives those megabytes back after each array and takes them again for the
next, page by page, which takes a seventh of a solution's time.
"""

import ctypes
import threading
from typing import Any

MEGABYTE = 2**20
SHARED = {-8: 2}
"""By `mallopt`: heaps that threads share."""
KEPT = {-3: 32 * MEGABYTE, -1: 64 * MEGABYTE}
"""An array so large is mapped by itself; so much that is free at the heap's end is kept."""


def share() -> None:
    """Have threads share their heaps; nothing where the C library knows no such thing."""
    _adjust(SHARED)


def keep() -> None:
    """Have threads share their heaps, and these keep what is freed until `trim`: for processes that only compute."""
    _adjust(SHARED | KEPT)


def _adjust(settings: dict[int, int]) -> None:
    adjust = _of_c("mallopt")
    if adjust is not None:
        for setting, value in settings.items():
            adjust(setting, value)


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
