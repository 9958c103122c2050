"""Faults of files are told in plain words, with the place in the file behind."""

import json
from typing import Any

import pytest

from tests.files.test_project_json import DEMO
from unterbau.errors import InputError
from unterbau.files.json_places import in_words
from unterbau.files.project_json import parse_project


def test_a_fault_of_a_project_names_the_candidate_and_its_part() -> None:
    data: dict[str, Any] = json.loads(DEMO)
    data["candidates"][1]["machine"]["dimensions"]["travel_x"] = "long"
    name = data["candidates"][1]["name"]
    with pytest.raises(InputError) as error:
        parse_project(json.dumps(data))
    words, _, behind = str(error.value).partition(" (in the file at ")
    assert words == f'candidate “{name}”, dimensions, travel x: expected a number, got "long"'
    assert behind == "$.candidates[1].machine.dimensions.travel_x)"


def test_a_text_that_is_no_json_names_no_path() -> None:
    with pytest.raises(InputError) as error:
        parse_project("{")
    assert str(error.value).startswith("the file is damaged")


@pytest.mark.parametrize(
    ("where", "words"),
    [
        ("$.beams[1].offset_i", "beam “b1”, offset i"),
        ("$.beams[7].offset_i", "beam 8, offset i"),
        ("$.masses[0].m", "mass 1, m"),
        ("$.cases[0].forces[1].force[2]", "case “pull”, force 2, force 3"),
        ("$.entries[0]", "entry 1"),
    ],
)
def test_rows_are_called_by_their_names_or_counted_from_one(where: str, words: str) -> None:
    data = {"beams": [{"id": "b0"}, {"id": "b1"}], "cases": [{"id": "pull", "forces": [{}, {"force": [0.0]}]}]}
    assert in_words(where, data) == words
