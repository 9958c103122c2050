"""Projects as `*.unterbau` files: JSON, version 1.

What each version changed: 1 is the first.
"""

import dataclasses
import json
from dataclasses import dataclass
from pathlib import Path
from typing import Any, Literal

from pydantic import TypeAdapter

from unterbau.errors import InputError
from unterbau.files.atomic import read_text, write_atomically
from unterbau.files.strict_json import read_strictly
from unterbau.machine.parts import STRICT
from unterbau.project.checks import check_project
from unterbau.project.project import Candidate, Project, Units

FORMAT = "unterbau-project"
VERSION = 1
SUFFIX = ".unterbau"


@dataclass(frozen=True, slots=True)
class ProjectFile:
    """What stands in the file."""

    __pydantic_config__ = STRICT

    format: Literal["unterbau-project"]
    version: Literal[1]
    name: str
    units: Units
    benchmark: str
    candidates: tuple[Candidate, ...]


_ADAPTER = TypeAdapter(ProjectFile)


def project_text(project: Project) -> str:
    """Return a project as the text of its file."""
    stored = ProjectFile("unterbau-project", 1, project.name, project.units, project.benchmark, project.candidates)
    return json.dumps(dataclasses.asdict(stored), indent=1, ensure_ascii=False, allow_nan=False) + "\n"


def parse_project(text: str) -> Project:
    """Return the project in a file's text.

    Raises:
        InputError: With the path of the fault, or the version that is too new.
    """
    _check_version(text)
    stored = read_strictly(_ADAPTER, text)
    project = Project(stored.name, stored.benchmark, stored.candidates, stored.units)
    check_project(project)
    return project


def _check_version(text: str) -> None:
    try:
        data = json.loads(text)
    except ValueError as error:
        raise InputError("$", f"the file is damaged, or no Unterbau project: {error}") from None
    except RecursionError:
        raise InputError("$", "the file is damaged, or no Unterbau project: nested too deep") from None
    if not isinstance(data, dict) or data.get("format") != FORMAT:
        raise InputError("$.format", f'this is no Unterbau project; expected "{FORMAT}"')
    version = data.get("version")
    if isinstance(version, int) and version > VERSION:
        raise InputError(
            "$.version",
            f"the file was written by a newer Unterbau (version {version}); this one reads {VERSION}",
        )


def read_project(path: Path) -> Project:
    """Return the project in a file.

    Raises:
        UnterbauError: The file cannot be read.
        InputError: With the file and the path of the fault.
    """
    try:
        return parse_project(read_text(path))
    except InputError as error:
        raise InputError(f"{path}: {error.where}", error.problem) from None


def write_project(path: Path, project: Project) -> None:
    """Write a project, whole or not at all.

    Raises:
        UnterbauError: The file could not be written; the old one is as it was.
    """
    write_atomically(path, project_text(project))


def candidate_named(project: Project, name: str | None) -> Candidate:
    """Return a candidate by name, or the benchmark."""
    return project.candidate(project.benchmark if name is None else name)


def schema() -> dict[str, Any]:
    """Return the JSON Schema of a project file."""
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Unterbau project, version 1",
        **_ADAPTER.json_schema(),
    }
