"""Files written whole or not at all."""

import contextlib
import glob
import os
import tempfile
import time
from pathlib import Path

from unterbau.errors import UnterbauError

LEFTOVER = 3600.0  # s, no write takes that long


def write_atomically(path: Path, content: str | bytes) -> None:
    """Write a file; a failure leaves the old file as it was.

    Raises:
        UnterbauError: The folder cannot be written, or the disk is full.
    """
    data = content.encode("utf-8") if isinstance(content, str) else content
    target = path.resolve()
    try:
        handle, name = tempfile.mkstemp(prefix=f".{target.name}.", suffix=".part", dir=target.parent)
    except OSError as error:
        raise UnterbauError(f"{path} was not written: {_reason(error)}") from None
    temporary = Path(name)
    try:
        with os.fdopen(handle, "wb") as stream:
            stream.write(data)
            stream.flush()
            os.fsync(stream.fileno())
        mode = target.stat().st_mode & 0o777 if target.exists() else 0o666 & ~_umask()
        temporary.chmod(mode)
        temporary.replace(target)
        _clear_leftovers(target)
    except OSError as error:
        raise UnterbauError(f"{path} was not written: {_reason(error)}") from None
    finally:
        with contextlib.suppress(OSError):
            temporary.unlink(missing_ok=True)


def read_text(path: Path) -> str:
    """Return a text file's contents.

    Raises:
        UnterbauError: The file cannot be read.
    """
    try:
        return path.read_text(encoding="utf-8")
    except OSError as error:
        raise UnterbauError(f"{path} could not be read: {_reason(error)}") from None
    except UnicodeDecodeError:
        raise UnterbauError(f"{path} could not be read: this is not a text file (UTF-8)") from None


def _clear_leftovers(target: Path) -> None:
    """Delete what killed processes left of earlier writes of a file."""
    with contextlib.suppress(OSError):
        for leftover in target.parent.glob(f".{glob.escape(target.name)}.*.part"):
            if time.time() - leftover.stat().st_mtime > LEFTOVER:
                leftover.unlink(missing_ok=True)


def _umask() -> int:
    current = os.umask(0)
    os.umask(current)
    return current


def _reason(error: OSError) -> str:
    return error.strerror or str(error)
