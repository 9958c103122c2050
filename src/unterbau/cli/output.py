"""Where a command's answer goes: a file, or `-` for standard output."""

import sys
from pathlib import Path

from unterbau.files.atomic import write_atomically


def write(target: str, text: str) -> None:
    """Write text to a file, whole or not at all, or to standard output for `-`."""
    if target == "-":
        sys.stdout.write(text)
        sys.stdout.flush()
    else:
        write_atomically(Path(target), text)
