"""Photos and recordings of a build, in a folder beside the project's file: kept by name, carried along, missed."""

import hashlib
from pathlib import Path

from unterbau.errors import InputError, UnterbauError
from unterbau.files.atomic import shown, write_atomically

MOST_BYTES = 15_000_000
"""Of a photo."""
KINDS = ((b"\xff\xd8\xff", ".jpg"), (b"\x89PNG\r\n\x1a\n", ".png"), (b"RIFF", ".wav"))
"""How files begin, and what they are called."""
LETTERS = 40


def folder_of(project: Path) -> Path:
    """Return where a project's photos are."""
    return project.with_name(f"{project.stem}.photos")


def keep_photo(project: Path, photo: Path) -> str:
    """Copy a photo beside a project and return its name there; one that is there already keeps its name.

    Raises:
        InputError: It is no photo, or too large.
        UnterbauError: It cannot be read or written.
    """
    try:
        if not photo.is_file():
            raise InputError(photo.name, "expected a file")
        size = photo.stat().st_size
        if size > MOST_BYTES:
            most = MOST_BYTES // 10**6
            raise InputError(photo.name, f"expected a photo of at most {most} MB, got {size / 1e6:.0f} MB")
        data = photo.read_bytes()
    except (OSError, ValueError) as error:
        raise UnterbauError(f"{shown(photo)} cannot be read: {getattr(error, 'strerror', None) or error}") from None
    kind = next((suffix for start, suffix in KINDS if data.startswith(start)), "")
    if not kind:
        raise InputError(photo.name, "expected a photo as JPEG or PNG, or a recording as WAV")
    plain = "".join(c if c.isalnum() or c in "-_" else "-" for c in photo.stem)[:LETTERS].strip("-") or "photo"
    name = f"{plain}-{hashlib.sha256(data).hexdigest()[:8]}{kind}"
    folder = folder_of(project)
    try:
        folder.mkdir(exist_ok=True)
    except OSError as error:
        raise UnterbauError(f"{shown(folder)} cannot be made: {error.strerror}") from None
    if not _whole(folder / name):
        write_atomically(folder / name, data)
    return name


def missing(project: Path | None, names: tuple[str, ...]) -> tuple[str, ...]:
    """Return which photos are not where they should be."""
    return tuple(name for name in names if project is None or not (folder_of(project) / name).is_file())


def carry(old: Path | None, new: Path, names: tuple[str, ...]) -> tuple[str, ...]:
    """Copy photos along when a project is saved elsewhere, each whole or not at all; return those that could not be.

    Raises:
        UnterbauError: The folder cannot be made.
    """
    if old is None or not names or folder_of(old) == folder_of(new):
        return ()
    folder, lost = folder_of(new), []
    try:
        folder.mkdir(exist_ok=True)
    except OSError as error:
        raise UnterbauError(f"{shown(folder)} cannot be made: {error.strerror}") from None
    for name in names:
        if _whole(folder / name):
            continue
        try:
            write_atomically(folder / name, (folder_of(old) / name).read_bytes())
        except (OSError, UnterbauError):
            lost.append(name)
    return tuple(lost)


def _whole(photo: Path) -> bool:
    """Return whether a photo is there as it was kept: its name ends with a number that stands for its content."""
    try:
        data = photo.read_bytes()
    except OSError:
        return False
    return photo.stem.endswith(hashlib.sha256(data).hexdigest()[:8])
