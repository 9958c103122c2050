"""Frame files: what is refused, with which path, and what comes back unchanged."""

import json
from pathlib import Path
from typing import Any

import numpy as np
import pytest

from tests.frames import cantilever, random_frame, read
from unterbau.errors import InputError
from unterbau.files.frame_json import document_text, read_frame, solve_document, to_arrays, to_document


def changed(path: str, value: object) -> dict[str, Any]:
    """Return a good frame with one value replaced or added, `drop` removing it."""
    frame = random_frame(1)
    frame["masses"] = [{"id": "w", "node": "n1", "m": 1.0}]
    place: Any = frame
    *parents, last = path.split("/")
    for part in parents:
        place = place[int(part) if part.isdigit() else part]
    key: Any = int(last) if last.isdigit() else last
    if value == "drop":
        del place[key]
    else:
        place[key] = value
    return frame


FAULTS = [
    ("format", "other", "$.format", "expected 'unterbau-frame'"),
    ("version", 4, "$.version", "newer"),
    ("version", True, "$.version", "whole number"),
    ("extra", 1, "$.extra", "unknown key"),
    ("nodes", "drop", "$.nodes", "missing"),
    ("nodes", [], "$.nodes", "at least one node"),
    ("nodes/1/xyz", [0.0, 0.0], "$.nodes[1].xyz", "expected 3 entries"),
    ("nodes/1/xyz/0", "1", "$.nodes[1].xyz[0]", "number"),
    ("nodes/1/xyz/0", True, "$.nodes[1].xyz[0]", "number"),
    ("nodes/1/xyz/0", float("nan"), "$.nodes[1].xyz[0]", "finite"),
    ("nodes/1/xyz/0", float("inf"), "$.nodes[1].xyz[0]", "finite"),
    ("nodes/1/id", "n0", "$.nodes[1].id", "already used"),
    ("nodes/1/id", 5, "$.nodes[1].id", "text"),
    ("beams/2/i", "nowhere", "$.beams[2].i", 'no node "nowhere"'),
    ("beams/2/material", "cheese", "$.beams[2].material", "no material"),
    ("beams/2/section", "q", "$.beams[2].section", "no section"),
    ("beams/0/up", [0.0, 0.0, 0.0], "$.beams[0].up", "three zeros"),
    ("beams/0/colour", "red", "$.beams[0].colour", "unknown key"),
    ("materials/0/E", -1.0, "$.materials[0].E", "more than 0"),
    ("materials/0/rho", -1.0, "$.materials[0].rho", "0 or more"),
    ("sections/0/J", 0.0, "$.sections[0].J", "more than 0"),
    ("sections/0/Iyz", 2e-6, "$.sections[0].Iyz", "Iyz²"),
    ("springs/0/k/2", -5.0, "$.springs[0].k[2]", "negative"),
    ("springs/0/j", "n9", "$.springs[0].j", "no node"),
    ("springs/0/j", "n2", "$.springs[0].j", "two different nodes"),
    ("springs/0/up", [1.0, 0.0, 0.0], None, None),
    ("springs/0/x", [0.0, 0.0, 2.0], "$.springs[0].up", "parallel"),
    ("masses/0/m", -1.0, "$.masses[0].m", "0 or more"),
    ("masses/0/node", "x", "$.masses[0].node", "no node"),
    ("supports/0/fixed/0", 1, "$.supports[0].fixed[0]", "true or false"),
    ("supports/0/node", "x", "$.supports[0].node", "no node"),
    ("cases/0/forces/1/node", "x", "$.cases[0].forces[1].node", "no node"),
    ("modes", -1, "$.modes", "from 0 to 200"),
    ("modes", 1.5, "$.modes", "whole number"),
]


@pytest.mark.parametrize(("path", "value", "where", "words"), FAULTS)
def test_faults_name_their_place(path: str, value: object, where: str | None, words: str | None) -> None:
    frame = changed(path, value)
    if where is None or words is None:
        read(frame)
        return
    with pytest.raises(InputError) as error:
        read(frame)
    assert error.value.where == where
    assert words in error.value.problem


@pytest.mark.parametrize("text", ["", "{", "[1, 2", "null", "3", '{"format": "unterbau-frame", "version": 1'])
def test_what_is_no_json_or_no_frame_is_refused(text: str) -> None:
    with pytest.raises(InputError) as error:
        read_frame(text)
    assert error.value.where.startswith("$")


def test_a_key_that_stands_twice_is_refused() -> None:
    text = json.dumps(cantilever(1)).replace('"modes"', '"x"')
    twice = text.replace('"version": 1,', '"version": 1, "version": 1,')
    with pytest.raises(InputError, match=r"version: this key stands twice"):
        read_frame(twice)


def test_a_beam_along_its_up_or_without_length_is_refused() -> None:
    frame = cantilever(1)
    frame["beams"][0]["up"] = [2.0, 0.0, 0.0]
    with pytest.raises(InputError, match="parallel"):
        read(frame)
    frame = cantilever(1)
    frame["beams"][0]["offset_j"] = [-1.0, 0.0, 0.0]
    with pytest.raises(InputError, match="no length"):
        read(frame)


@pytest.mark.parametrize("seed", range(5))
def test_a_frame_goes_out_and_comes_back_with_the_same_numbers(seed: int) -> None:
    frame = random_frame(seed, product=True)
    frame["springs"][0]["k"][3] = None
    frame["masses"] = [{"id": "w", "node": "n1", "m": 1.5, "inertia": [0.1, 0.2, 0.3], "offset": [0.0, 0.1, 0.0]}]
    document = read(frame)
    arrays, loads = to_arrays(document)
    again = read_frame(document_text(to_document(arrays, loads, ("pull",), document.modes)))
    first, second = solve_document(document), solve_document(again)
    assert first["cases"][0]["displacements"] == second["cases"][0]["displacements"]
    assert first["modes"] == second["modes"]
    assert first["mass"] == second["mass"]


def test_result_has_everything_the_format_promises() -> None:
    frame = random_frame(2)
    result = solve_document(read(frame))
    assert result["format"] == "unterbau-frame-result"
    case = result["cases"][0]
    assert set(case) == {"id", "displacements", "reactions", "beam_forces", "energy"}
    assert set(case["reactions"]) == {"n0"}
    assert set(case["energy"]) == {"g0", "g1", "g2", "joint", "ground"}
    assert set(case["energy"]["g0"]) == {
        "axial", "shear", "torsion", "bending", "joint", "distortion", "wall"
    }  # fmt: skip
    assert len(case["beam_forces"]["b0"]["i"]) == 6
    shape = result["modes"][0]["shape"]
    assert max(abs(v) for row in shape.values() for v in row[:3]) == pytest.approx(1.0)
    json.dumps(result, allow_nan=False)


ROUNDED = 1e-8
"""Of the largest movement, or turn: what another order of the same sums in a plate changes."""


@pytest.mark.parametrize("version", [1, 2])
def test_frames_of_older_versions_keep_their_answers(version: int) -> None:
    """Written and solved by the program as it stood when each version was current."""
    folder = Path(__file__).with_name("frames")
    document = read_frame((folder / f"version-{version}.frame.json").read_text(encoding="utf-8"))
    assert document.version == version
    before = json.loads((folder / f"version-{version}.answers.json").read_text(encoding="utf-8"))
    now = solve_document(document)
    assert now["mass"] == pytest.approx(before["mass"], rel=1e-9)
    assert [one["frequency"] for one in now["modes"]] == pytest.approx(before["frequencies"], rel=ROUNDED)
    for case in now["cases"]:
        told = before["displacements"][case["id"]]
        for way in (slice(0, 3), slice(3, 6)):
            moved, then = (np.array([row[node][way] for node in told]) for row in (case["displacements"], told))
            assert np.abs(moved - then).max() <= ROUNDED * np.abs(then).max()
