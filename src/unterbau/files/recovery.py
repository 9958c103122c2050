"""Unsaved work kept aside while one works, found again after a crash.

Each running program keeps one file named after its process in the recovery folder. It holds the
project's own file format within a small envelope, so that nothing is lost with an older version.
"""

import contextlib
import json
import os
import re
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

from unterbau.errors import InputError, UnterbauError
from unterbau.files.atomic import MOST, read_text, write_atomically
from unterbau.files.project_json import parse_project, project_text
from unterbau.project.project import Project

FORMAT = "unterbau-recovery"
SUFFIX = ".kept"
LARGEST = 4 * MOST
"""Bytes of work set aside that is read back: quoted within its envelope it takes up to twice its own file."""
WHEN = re.compile(r"\d{4}-\d\d-\d\dT\d\d:\d\d")


@dataclass(frozen=True, slots=True)
class Kept:
    """Work that was set aside."""

    file: Path
    """Where it is kept."""
    origin: Path | None
    """The file it belongs to, if it ever had one."""
    when: str
    project: Project
    seen: tuple[int, int] | None = None
    """What told whether the file was changed by others when the work was set aside, as `fingerprint` gives it."""


def fingerprint(path: Path | None) -> tuple[int, int] | None:
    """Return what tells whether a file was changed, None where there is none."""
    try:
        found = path.stat() if path else None
    except (OSError, ValueError, RuntimeError):
        return None
    return (found.st_mtime_ns, found.st_size) if found else None


def keep(folder: Path, project: Project, origin: Path | None, when: str, process: int | None = None) -> Path:
    """Set a project aside for this process; the one kept before is replaced.

    Raises:
        UnterbauError: The folder cannot be written.
    """
    number = os.getpid() if process is None else process
    path = folder / f"{number}{SUFFIX}"
    try:
        folder.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise UnterbauError(f"{folder} cannot be written: {error.strerror or error}") from None
    data = {
        "format": FORMAT, "origin": str(origin) if origin else None, "when": when,
        "started": _started(number), "seen": fingerprint(origin), "project": project_text(project),
    }  # fmt: skip
    write_atomically(path, json.dumps(data, ensure_ascii=False))
    return path


def forget(folder: Path, process: int | None = None) -> None:
    """Drop what was set aside for this process: the work is in a file, or not wanted."""
    with contextlib.suppress(OSError):
        (folder / f"{os.getpid() if process is None else process}{SUFFIX}").unlink(missing_ok=True)


def left_behind(folder: Path) -> Iterator[Kept]:
    """Yield what processes that are no more left behind, the newest first; damaged files are passed over."""
    try:
        files = sorted(folder.glob(f"*{SUFFIX}"), key=lambda path: -path.stat().st_mtime)
    except OSError:
        return
    for path in files:
        if not path.stem.isdigit():
            continue
        # Whatever is in there, the program starts: what cannot be read is passed over.
        with contextlib.suppress(UnterbauError, ValueError, OSError, RecursionError, ArithmeticError):
            data = _envelope(read_text(path, LARGEST))
            if _started(int(path.stem)) in (None, "") or _started(int(path.stem)) != data["started"]:
                yield Kept(
                    path,
                    _origin(data["origin"]),
                    _when(data["when"]),
                    parse_project(str(data["project"])),
                    _seen(data.get("seen")),
                )


def throw_away(kept: Kept) -> None:
    """Delete work that was left behind."""
    with contextlib.suppress(OSError):
        kept.file.unlink(missing_ok=True)


def _origin(value: object) -> Path | None:
    """Return the file that work belongs to, if it can be one."""
    if not isinstance(value, str) or not value or "\0" in value:
        return None
    os.fsencode(value)
    return Path(value)


def _seen(value: object) -> tuple[int, int] | None:
    """Return what the file was like when the work was last saved, if that can be one."""
    match value:
        case [int(when), int(size)]:
            return when, size
        case _:
            return None


def _when(value: object) -> str:
    """Return a date as it was kept, or nothing."""
    return value if isinstance(value, str) and WHEN.match(value) else ""


def _envelope(text: str) -> dict[str, object]:
    try:
        data = json.loads(text)
    except (ValueError, RecursionError):
        raise InputError("$", "damaged") from None
    if not isinstance(data, dict) or data.get("format") != FORMAT:
        raise InputError("$.format", f'expected "{FORMAT}"')
    if {"origin", "when", "started", "project"} - set(data):
        raise InputError("$", "incomplete")
    return data


def _started(process: int) -> str | None:
    """Return when a process started, as the kernel counts it; None when there is none.

    A number is used again by later processes, so the number alone does not tell.
    """
    try:
        status = Path(f"/proc/{process}/stat").read_text(encoding="utf-8")
    except OSError:
        return None
    fields = status.rpartition(")")[2].split()
    return fields[19] if len(fields) > 19 else None
