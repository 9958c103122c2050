"""Projects as `*.unterbau` files: JSON, version 10; older ones are brought up by `migrations`.

What each version changed: 1 is the first; 2 added the price book, the cut, and joints with own values; 3 the brief,
and other kinds of machine; 4 own and built-up sections, bolts, ribs, gussets, more of guides and drives, a cut of
one's own; 5 motors, collets, stiffened members, stands that sway; 6 changes: braces, panels, weights, what is left out;
the shop; 10 payload of machines, limits and reasons of hold points.
"""

import dataclasses
import json
from dataclasses import dataclass
from pathlib import Path
from typing import Annotated, Any, Final, Literal, TypeVar

from pydantic import Discriminator, TypeAdapter

from unterbau.brief.brief import Brief
from unterbau.catalogue.cuts import OwnCut
from unterbau.catalogue.prices import PriceBook
from unterbau.errors import InputError, UnterbauError
from unterbau.files.atomic import MOST, read_text, write_atomically
from unterbau.files.json_places import told
from unterbau.files.migrations import UPGRADES
from unterbau.files.strict_json import read_strictly
from unterbau.machine.machine import KINDS, Machine, parts, with_part
from unterbau.project.checks import check_project
from unterbau.project.custom_sections import custom_sections
from unterbau.project.edits import with_payload
from unterbau.project.project import Candidate, Project, Units
from unterbau.sections.built_up import OF
from unterbau.sections.solved import CustomSection, SolvedSection, check_solved
from unterbau.shop.state import ShopState
from unterbau.strict import STRICT
from unterbau.structure.parts import Member

FORMAT = "unterbau-project"
VERSION: Final = 10
SUFFIX = ".unterbau"


@dataclass(frozen=True, slots=True)
class StoredCandidate:
    """A candidate in the file; `kind` says which machine it is."""

    __pydantic_config__ = STRICT

    name: str
    machine: Annotated[Machine, Discriminator("kind")]


@dataclass(frozen=True, slots=True)
class ProjectFile:
    """What stands in the file."""

    __pydantic_config__ = STRICT

    format: Literal["unterbau-project"]
    version: Literal[10]
    name: str
    units: Units
    benchmark: str
    candidates: tuple[StoredCandidate, ...]
    prices: PriceBook
    cut: str
    brief: Brief
    sections: tuple[SolvedSection, ...]
    own_cut: OwnCut = dataclasses.field(default_factory=OwnCut)
    shop: ShopState = dataclasses.field(default_factory=ShopState)


_ADAPTER = TypeAdapter(ProjectFile)
TAGS = frozenset(kind.id for kind in KINDS) | {"brace", "panel", "weight", "chain", "left-out"}
M = TypeVar("M", bound=Machine)


def project_text(project: Project) -> str:
    """Return a project as the text of its file."""
    candidates = tuple(StoredCandidate(one.name, by_name(one.machine)) for one in project.candidates)
    stored = ProjectFile(
        "unterbau-project", VERSION, project.name, project.units, project.benchmark, candidates, project.prices,
        project.cut, project.brief, custom_sections(project.candidates), project.own_cut, project.shop,
    )  # fmt: skip
    return json.dumps(dataclasses.asdict(stored), indent=1, ensure_ascii=False, allow_nan=False) + "\n"


def parse_project(text: str) -> Project:
    """Return the project in a file's text.

    Raises:
        InputError: With the path of the fault, or the version that is too new.
    """
    data = _plain(text)
    try:
        return _parsed(text, data)
    except InputError as error:
        raise told(error, data) from None


def _parsed(text: str, data: dict[str, Any]) -> Project:
    version = data.get("version")
    if isinstance(version, int) and not isinstance(version, bool) and version in UPGRADES:
        while data["version"] in UPGRADES:
            data = UPGRADES[data["version"]](data)
        text = json.dumps(data, ensure_ascii=False)
    stored = read_strictly(_ADAPTER, text, tags=TAGS)
    sections = _custom(stored.sections)
    candidates = tuple(Candidate(one.name, _by_value(one.machine, sections)) for one in stored.candidates)
    project = Project(
        stored.name,
        stored.benchmark,
        candidates,
        stored.units,
        stored.prices,
        stored.cut,
        stored.brief,
        stored.own_cut,
        stored.shop,
    )
    project = with_payload(project)
    check_project(project)
    return project


def _custom(sections: tuple[SolvedSection, ...]) -> dict[str, CustomSection]:
    """Return a file's own sections by name."""
    of_name: dict[str, SolvedSection] = {}
    for index, one in enumerate(sections):
        try:
            check_solved(one)
        except InputError as error:
            raise InputError(f"$.sections[{index}].{error.where}", error.problem) from None
        if one.name in of_name:
            raise InputError(f"$.sections[{index}].name", f'another section is called "{one.name}" already')
        of_name[one.name] = one
    return {name: CustomSection(one, of_name.get(name.partition(OF)[2])) for name, one in of_name.items()}


def _by_value(machine: M, sections: dict[str, CustomSection]) -> M:
    """Return a machine with the builder's own sections in place of their names."""
    for key, value in parts(machine) if sections else ():
        if isinstance(value, Member) and isinstance(value.section, str) and value.section in sections:
            machine = with_part(machine, key, dataclasses.replace(value, section=sections[value.section]))
    return machine


def by_name(machine: M) -> M:
    """Return a machine with the names of the builder's own sections in their place, as files hold it."""
    for key, value in parts(machine):
        if isinstance(value, Member) and not isinstance(value.section, str):
            machine = with_part(machine, key, dataclasses.replace(value, section=value.section_name))
    return machine


def _plain(text: str) -> dict[str, Any]:
    """Return the file's data, if it is one of ours and not too new."""
    try:
        data = json.loads(text)
    except ValueError as error:
        raise InputError("$", f"the file is damaged, or no Unterbau project: {error}") from None
    except RecursionError:
        raise InputError("$", "the file is damaged, or no Unterbau project: nested too deep") from None
    if not isinstance(data, dict) or data.get("format") != FORMAT:
        raise InputError("$.format", f'this is no Unterbau project; expected "{FORMAT}"')
    version = data.get("version")
    if _is_newer(version):
        raise InputError(
            "$.version",
            f"the file was written by a newer Unterbau (version {version}); this one reads {VERSION}",
        )
    return data


def _is_newer(version: object) -> bool:
    return isinstance(version, int | float) and not isinstance(version, bool) and version > VERSION


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


def write_project(path: Path, project: Project) -> Path | None:
    """Write a project, whole or not at all; return the copy kept of a file of an older version.

    Raises:
        UnterbauError: The file could not be written; the old one is as it was.
    """
    text = project_text(project)
    check_readable(text)
    _spare_newer(path)
    kept = _keep_older(path)
    write_atomically(path, text)
    return kept


def check_readable(text: str) -> None:
    """Check that a project's text can be read back, before a file is replaced by it.

    Raises:
        UnterbauError: It could not be, and why.
    """
    size = len(text.encode("utf-8", "replace"))
    if size > MOST:
        raise UnterbauError(
            f"The project was not saved: it takes {size / 1e6:.0f} MB, a project file at most {MOST / 1e6:g} MB. "
            "Remove candidates or entries of the log."
        )
    try:
        parse_project(text)
    except InputError as error:
        raise UnterbauError(f"The project was not saved: it could not be opened again. {error}") from None


def _spare_newer(path: Path) -> None:
    """Leave a file of a newer version alone: it holds what this one cannot write.

    Raises:
        UnterbauError: It is one.
    """
    if path.is_file() and path.stat().st_size > MOST:
        raise UnterbauError(
            f"{path.name} was left as it is: it is larger than any project of this version. Save under another name."
        )
    try:
        data = json.loads(read_text(path))
    except (UnterbauError, ValueError, RecursionError):
        return
    version = data.get("version") if isinstance(data, dict) and data.get("format") == FORMAT else None
    if _is_newer(version):
        raise UnterbauError(
            f"{path.name} was written by a newer Unterbau (version {version}; this one writes {VERSION}) and was left "
            "as it is. Save under another name."
        )


def _keep_older(path: Path) -> Path | None:
    """Copy a file of an older version beside itself before it is overwritten in the newer one."""
    try:
        text = read_text(path)
        version = _plain(text).get("version")
    except UnterbauError:
        return None
    if not isinstance(version, int) or version not in UPGRADES:
        return None
    number, name = 1, f"{path.stem}.version-{version}{path.suffix}"
    while (copy := path.with_name(name)).exists():
        if read_text(copy) == text:
            return copy
        number += 1
        name = f"{path.stem}.version-{version}-{number}{path.suffix}"
    write_atomically(copy, text)
    return copy


def candidate_named(project: Project, name: str | None) -> Candidate:
    """Return a candidate by name, or the benchmark."""
    return project.candidate(project.benchmark if name is None else name)


def schema() -> dict[str, Any]:
    """Return the JSON Schema of a project file."""
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": f"Unterbau project, version {VERSION}",
        **_ADAPTER.json_schema(),
    }
