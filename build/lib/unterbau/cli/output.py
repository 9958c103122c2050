"""Where a command's answer goes: a file, or `-` for standard output."""

import os
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from unterbau.files.atomic import write_atomically


def write(target: str, text: str) -> None:
    """Write text to a file, whole or not at all, or to standard output for `-`."""
    if target == "-":
        sys.stdout.write(text)
        sys.stdout.flush()
    else:
        write_atomically(Path(target), text)


@contextmanager
def quiet() -> Iterator[None]:
    """Keep what a library's own code writes to standard output away from it meanwhile."""
    sys.stdout.flush()
    kept, nowhere = os.dup(1), os.open(os.devnull, os.O_WRONLY)
    try:
        os.dup2(nowhere, 1)
        yield
    finally:
        os.dup2(kept, 1)
        os.close(kept)
        os.close(nowhere)
