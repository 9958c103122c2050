"""Ends a process that computes for another once that other is gone, however it ended."""

import os
import threading
import time

EVERY = 0.5
"""Seconds between looks."""


def end_with_parent() -> None:
    """Watch the process that started this one; end this one when it is gone.

    A death signal of the kernel would come when the *thread* that started this process ends, so it is not used.
    """
    parent = os.getppid()
    threading.Thread(target=_watch, args=(parent,), daemon=True, name="parent").start()


def _watch(parent: int) -> None:
    while os.getppid() == parent:
        time.sleep(EVERY)
    os._exit(0)
