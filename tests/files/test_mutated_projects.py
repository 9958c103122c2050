"""Projects changed at random open, or are refused in a sentence that names a place."""

import copy
import json
import zlib
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from tests.files.test_project_json import DEMO
from unterbau.errors import InputError, UnterbauError
from unterbau.files.project_json import parse_project, project_text
from unterbau.machine.machine import Machine
from unterbau.project.project import Project
from unterbau.structure.parts import Place
from unterbau.studies.answers import Answers, answers

DATA = json.loads(DEMO)
VALUES = st.one_of(
    st.none(), st.booleans(), st.integers(-(10**9), 10**9), st.floats(allow_nan=True, allow_infinity=True),
    st.sampled_from([0, -1, 1e-300, 1e300, 0.3, 5.0, "", "steel-s235", "shs-60x60x4", "rod-1", "flat-2000x2000"]),
    st.text(max_size=12), st.just([]), st.just({}), st.lists(st.integers(), max_size=2),
)  # fmt: skip


def places(data: Any, path: tuple[str | int, ...] = ()) -> list[tuple[str | int, ...]]:
    """Return every place of a JSON tree."""
    rows = list(data.items()) if isinstance(data, dict) else list(enumerate(data)) if isinstance(data, list) else []
    return [(*path, key) for key, _ in rows] + [p for key, inner in rows for p in places(inner, (*path, key))]


PLACES = places(DATA)
CHANGE = st.tuples(st.sampled_from(PLACES), st.sampled_from(["put", "drop", "add", "swap"]), VALUES)


def mutated(changes: list[tuple[tuple[str | int, ...], str, Any]]) -> Any:
    data = copy.deepcopy(DATA)
    for path, how, value in changes:
        parent: Any = data
        try:
            for step in path[:-1]:
                parent = parent[step]
            match how:
                case "put":
                    parent[path[-1]] = value
                case "drop":
                    del parent[path[-1]]
                case "add":
                    parent[str(value)] = value
                case _:
                    parent[path[-1]] = DATA[str(PLACES[zlib.crc32(str(value).encode()) % 7][0])]
        except (KeyError, IndexError, TypeError):
            continue
    return data


def opened(text: str) -> Project | InputError:
    try:
        return parse_project(text)
    except InputError as error:
        return error


def solved(machine: Machine) -> Answers | UnterbauError:
    try:
        return answers(machine, Place())
    except UnterbauError as error:
        return error


def opened_or_refused(text: str) -> None:
    project = opened(text)
    if isinstance(project, InputError):
        assert project.where.startswith("$")
        assert project.problem.strip()
        assert "\n" not in str(project)
        return
    assert parse_project(project_text(project)) == project
    found = solved(project.candidates[0].machine)
    if isinstance(found, UnterbauError):
        assert str(found).strip()
    else:
        assert all(0 < band.low <= band.likely <= band.high for band in found.stiffness)


@settings(max_examples=120)
@given(st.lists(CHANGE, min_size=1, max_size=3))
def test_a_changed_tree_opens_or_is_refused(changes: list[tuple[tuple[str | int, ...], str, Any]]) -> None:
    opened_or_refused(json.dumps(mutated(changes)))


@settings(max_examples=80)
@given(st.integers(0, len(DEMO) - 1), st.integers(0, 40), st.text(max_size=6))
def test_a_changed_text_opens_or_is_refused(start: int, length: int, put: str) -> None:
    opened_or_refused(DEMO[:start] + put + DEMO[start + length :])
