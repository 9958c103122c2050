"""Plates in frame files: out and back with the same numbers, and what is refused, with its path."""

import copy
from dataclasses import replace
from typing import Any

import numpy as np
import pytest

from tests.frames import data, read
from unterbau.errors import InputError
from unterbau.files.frame_json import document_text, read_frame, solve_document, to_document
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.structure.parts import Joint, Place, Plate
from unterbau.studies.answers import likely_answers
from unterbau.studies.loads import CASES, standard_loads

MACHINE = replace(
    MovingGantry(), side=Plate(0.02, "aluminium-5083", 1), beam_joint=Joint("epoxied", gussets=1, gusset_leg=0.06)
)


def test_ribs_and_gussets_go_out_and_come_back() -> None:
    """The file alone gives the tip's compliance as the screen has it."""
    frame, loads = standard_loads(MACHINE, Place())
    again = read_frame(document_text(to_document(frame, loads, CASES, 2)))
    assert sum(plate.halved for plate in again.plates) == 2
    result = solve_document(again)
    likely, solved = likely_answers(MACHINE, Place())
    tip = solved.built.frame.node_names[solved.built.tip]
    for axis, case in enumerate(result["cases"][:3]):
        moved = case["displacements"][tip][axis]
        assert moved > 0
        own = float(solved.statics.u[axis, solved.built.tip, axis])
        assert moved == pytest.approx(own, rel=1e-6)
        assert moved < likely.compliance[axis, axis]  # the work gives way as well


def sheet() -> dict[str, Any]:
    """Return a plate on two held edges with a point in its middle."""
    frame = data([[0.0, 0.1, 0.0], [0.4, 0.1, 0.0], [0.2, 0.1, 0.0]], [])
    frame["version"] = 2
    frame["supports"] = [{"node": n, "fixed": [True] * 6} for n in ("n0", "n1")]
    frame["plates"] = [
        {
            "id": "p", "material": "steel", "thickness": 0.01, "nu": 0.3, "origin": [0, 0, 0], "x": [1, 0, 0],
            "up": [0, 0, 1], "xs": [0, 0.1, 0.2, 0.3, 0.4], "ys": [0, 0.1, 0.2],
            "patches": [
                {"node": "n0", "x": 0, "y": 0.1, "half_x": 0, "half_y": 0.1},
                {"node": "n1", "x": 0.4, "y": 0.1, "half_x": 0, "half_y": 0.1},
            ],
            "points": [{"node": "n2", "x": 0.2, "y": 0.1}],
        }
    ]  # fmt: skip
    frame["cases"] = [{"id": "push", "forces": [{"node": "n2", "force": [0, 0, -100.0]}]}]
    return frame


def test_a_good_one_is_solved() -> None:
    """Clamped strip, b 0.2: between F·L³/192EI and that with the plate's (1 − ν²), shear and a coarse mesh beside."""
    result = solve_document(read(sheet()))
    sag = -result["cases"][0]["displacements"]["n2"][2]
    strip = 100 * 0.4**3 / (192 * 2.1e11 * 0.2 * 0.01**3 / 12)
    assert 0.7 * strip < sag < strip  # four elements are some percent too stiff
    mass = result["mass"] if isinstance(result["mass"], float) else result["mass"]["m"]
    assert np.isclose(mass, 7850 * 0.4 * 0.2 * 0.01)


FAULTS: list[tuple[str, Any, str, str]] = [
    ("material", "gold", ".material", "there is no material"),
    ("thickness", 0.0, ".thickness", "more than 0"),
    ("nu", 0.5, ".nu", "less than 0.5"),
    ("xs", [0.1, 0.4], ".xs", "from 0 upwards"),
    ("ys", [0.0, 0.1, 0.1, 0.2], ".ys", "from 0 upwards"),
    ("up", [1, 0, 0], ".up", "square to"),
    ("x", [0, 0, 0], ".up", "square to"),
    ("xs", [0.001 * k for k in range(401)], "", "at most"),
    ("patches/0/node", "nowhere", ".patches[0].node", "there is no node"),
    ("patches/0/x", 0.2, ".patches[0]", ""),
    ("points/0/x", 0.17, ".points[0]", ""),
    ("points/0/node", "n0", ".points[0]", ""),
]


@pytest.mark.parametrize(("path", "value", "where", "words"), FAULTS)
def test_faults_name_their_place(path: str, value: Any, where: str, words: str) -> None:
    frame = copy.deepcopy(sheet())
    if len(value if isinstance(value, list) else []) > 99:
        frame["plates"][0]["ys"] = [0.001 * k for k in range(201)]
    place: Any = frame["plates"][0]
    *parents, last = path.split("/")
    for part in parents:
        place = place[int(part) if part.isdigit() else part]
    place[last] = value
    with pytest.raises(InputError) as error:
        read(frame)
    assert error.value.where.startswith(f"$.plates[0]{where}")
    assert words in error.value.problem


def test_version_one_knows_no_plates() -> None:
    frame = sheet()
    frame["version"] = 1
    with pytest.raises(InputError):
        read(frame)
