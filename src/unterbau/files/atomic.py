"""Files written whole or not at all."""

import contextlib
import glob
import os
import tempfile
import time
from pathlib import Path

from unterbau.errors import UnterbauError

LEFTOVER = 3600.0  # s, no write takes that long
WRITABLE = 0o222
MOST = 32_000_000
"""Bytes of any file that is read whole."""


def write_atomically(path: Path, content: str | bytes) -> None:
    """Write a file; a failure leaves the old file as it was.

    Raises:
        UnterbauError: The folder cannot be written, or the disk is full.
    """
    data = content.encode("utf-8", "replace") if isinstance(content, str) else content
    try:
        target = path.resolve()
        if target.exists() and not target.is_file():
            raise UnterbauError(f"{shown(path)} was not written: expected a file, found a folder, a pipe or a device")
        if target.exists() and not target.stat().st_mode & WRITABLE:
            raise UnterbauError(f"{shown(path)} was not written: it may only be read; save under another name")
        part = f".{target.name}.{os.getpid()}-"
        handle, name = tempfile.mkstemp(prefix=part, suffix=".part", dir=target.parent)
    except (OSError, ValueError, RuntimeError) as error:  # a full or failing disk; a null in the name; links in a loop
        raise UnterbauError(f"{shown(path)} was not written: {_reason(error)}") from None
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
        raise UnterbauError(f"{shown(path)} was not written: {_reason(error)}") from None
    finally:
        with contextlib.suppress(OSError):
            temporary.unlink(missing_ok=True)


def read_text(path: Path, most: int = MOST) -> str:
    """Return a text file's contents.

    Args:
        path: The file.
        most: Bytes that such a file has at the most.

    Raises:
        UnterbauError: The file cannot be read, or is larger than any such file.
    """
    check_size(path, most)
    try:
        return path.read_text(encoding="utf-8")
    except UnicodeDecodeError:
        raise UnterbauError(f"{shown(path)} could not be read: this is not a text file (UTF-8)") from None
    except (OSError, ValueError, RuntimeError) as error:
        raise UnterbauError(f"{shown(path)} could not be read: {_reason(error)}") from None


def check_size(path: Path, most: int) -> None:
    """Check that a file is not larger than any such file can be.

    Raises:
        UnterbauError: It is, or cannot be looked at.
    """
    try:
        size, regular = path.stat().st_size, path.is_file()
    except (OSError, ValueError, RuntimeError) as error:
        raise UnterbauError(f"{shown(path)} could not be read: {_reason(error)}") from None
    if not regular and path.exists():
        raise UnterbauError(f"{shown(path)} could not be read: expected a file, found a folder, a pipe or a device")
    if size > most:
        raise UnterbauError(
            f"{shown(path)} could not be read: expected at most {most / 1e6:g} MB, got {size / 1e6:.0f} MB"
        )


def shown(path: Path) -> str:
    """Return a path for reading, whatever is in its name."""
    return str(path).encode("utf-8", "replace").decode("utf-8").replace("\0", "?")


def _clear_leftovers(target: Path) -> None:
    """Delete what killed processes left of earlier writes of a file."""
    with contextlib.suppress(OSError):
        for leftover in target.parent.glob(f".{glob.escape(target.name)}.*.part"):
            owner = leftover.name.removeprefix(f".{target.name}.").partition("-")[0]
            gone = owner.isdigit() and int(owner) != os.getpid() and not Path(f"/proc/{owner}").exists()
            if gone or time.time() - leftover.stat().st_mtime > LEFTOVER:
                leftover.unlink(missing_ok=True)


def _umask() -> int:
    current = os.umask(0)
    os.umask(current)
    return current


def _reason(error: Exception) -> str:
    if isinstance(error, OSError):
        return error.strerror or str(error)
    return "its name holds a null" if isinstance(error, ValueError) else "links in its path lead back to themselves"
