"""Settings of the program: JSON in the person's configuration folder; a damaged file means start values."""

import dataclasses
import json
from dataclasses import dataclass
from pathlib import Path
from typing import Literal

from pydantic import TypeAdapter

from unterbau.errors import UnterbauError
from unterbau.files.atomic import read_text, write_atomically
from unterbau.files.strict_json import read_strictly
from unterbau.project.project import Units
from unterbau.strict import STRICT

Theme = Literal["light", "dark"]
RECENT = 8
MOST = 1_000_000
"""Bytes of the file."""
TEXT = (0.8, 2.0)
"""Smallest and largest text, as a multiple of the desktop's."""


@dataclass(frozen=True, slots=True)
class Settings:
    """What stays from one day to the next, whatever the project."""

    __pydantic_config__ = STRICT

    theme: Theme = "light"
    text: float = 1.0
    """Multiple of the desktop's text size."""
    units: Units = "mm"
    """Of new projects."""
    recent: tuple[str, ...] = ()
    """Files, the last one first."""
    hints_done: tuple[str, ...] = ()
    """First-start hints that were followed or sent away."""

    def with_recent(self, path: Path) -> "Settings":
        """Return settings with a file in the first place of the recent ones."""
        name = str(path)
        return dataclasses.replace(self, recent=(name, *(one for one in self.recent if one != name))[:RECENT])


_ADAPTER = TypeAdapter(Settings)


def read_settings(path: Path, otherwise: Settings | None = None) -> Settings:
    """Return the settings in a file; where it is missing or damaged, others or start values."""
    try:
        found = read_strictly(_ADAPTER, read_text(path, MOST))
    except UnterbauError:
        return otherwise or Settings()
    return found if TEXT[0] <= found.text <= TEXT[1] else dataclasses.replace(found, text=1.0)


def write_settings(path: Path, settings: Settings) -> None:
    """Write settings, whole or not at all.

    Raises:
        UnterbauError: The folder cannot be written.
    """
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise UnterbauError(f"{path} was not written: {error.strerror or error}") from None
    write_atomically(path, json.dumps(dataclasses.asdict(settings), indent=1, ensure_ascii=False) + "\n")
