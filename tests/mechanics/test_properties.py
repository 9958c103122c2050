"""Properties that hold for every frame: balance, reciprocity, rotation, rigid movement."""

import json
from copy import deepcopy
from typing import Any

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from tests.frames import by_node, random_frame, read
from unterbau.files.frame_json import solve_document, to_arrays
from unterbau.mechanics import beam, spring
from unterbau.mechanics.arrays import FloatArray

SEEDS = st.integers(0, 10_000)


@given(SEEDS, st.booleans())
def test_energy_is_half_the_work_of_the_forces(seed: int, product: bool) -> None:
    document = read(random_frame(seed, product=product))
    result = solve_document(document)
    u = by_node(result, 0, document)
    forces = {f.node: np.array([*f.force, *f.moment]) for f in document.cases[0].forces}
    work = 0.5 * sum(forces[n.id] @ u[k] for k, n in enumerate(document.nodes) if n.id in forces)
    energy = sum(value for group in result["cases"][0]["energy"].values() for value in group.values())
    assert energy == np.float64(work) or abs(energy / work - 1) < 1e-9


@given(SEEDS)
def test_reactions_and_ground_springs_balance_the_loads(seed: int) -> None:
    frame = random_frame(seed)
    frame["springs"] = [s for s in frame["springs"] if "j" in s]
    frame["cases"][0]["gravity"] = [1.0, -2.0, -9.81]
    document = read(frame)
    result = solve_document(document)
    places = {n.id: np.array(n.xyz) for n in document.nodes}
    force, moment = result["mass"] * np.array([1.0, -2.0, -9.81]), np.zeros(3)
    moment += np.cross(result["centre_of_mass"], force)
    for load in document.cases[0].forces:
        force = force + load.force
        moment += np.cross(places[load.node], load.force) + load.moment
    for node, row in result["cases"][0]["reactions"].items():
        force = force + row[:3]
        moment += np.cross(places[node], row[:3]) + row[3:]
    assert np.abs(force).max() < 1e-6
    assert np.abs(moment).max() < 1e-6


@given(SEEDS)
def test_movement_at_a_by_a_force_at_b_equals_movement_at_b_by_a_force_at_a(seed: int) -> None:
    frame = random_frame(seed, product=True)
    frame["cases"] = [
        {"id": "a", "forces": [{"node": "n2", "force": [1.0, 2.0, 3.0]}]},
        {"id": "b", "forces": [{"node": "n4", "moment": [3.0, -1.0, 2.0]}]},
    ]
    document = read(frame)
    result = solve_document(document)
    one = np.array([3.0, -1.0, 2.0]) @ by_node(result, 0, document)[4, 3:]
    other = np.array([1.0, 2.0, 3.0]) @ by_node(result, 1, document)[2, :3]
    assert abs(one - other) <= 1e-9 * abs(one)


def _turned(frame: dict[str, Any], R: FloatArray) -> dict[str, Any]:
    result = deepcopy(frame)
    for node in result["nodes"]:
        node["xyz"] = (R @ node["xyz"]).tolist()
    for row in (*result["beams"], *result.get("springs", [])):
        for key in ("up", "x", "offset_i", "offset_j"):
            default = {"up": [0.0, 0.0, 1.0], "x": [1.0, 0.0, 0.0]}.get(key)
            if key in row or (default and (key == "up" or row in result.get("springs", []))):
                row[key] = (R @ np.array(row.get(key, default))).tolist()
    for case in result["cases"]:
        for load in case["forces"]:
            for key in ("force", "moment"):
                load[key] = (R @ load[key]).tolist()
    return result


@given(SEEDS, st.floats(0.1, 3.0), st.floats(-1.0, 1.0))
def test_turning_everything_turns_the_answer(seed: int, angle: float, tilt: float) -> None:
    axis = np.array([tilt, 0.4, 1.0]) / np.linalg.norm([tilt, 0.4, 1.0])
    S = np.array([[0, -axis[2], axis[1]], [axis[2], 0, -axis[0]], [-axis[1], axis[0], 0]])
    R = np.eye(3) + np.sin(angle) * S + (1 - np.cos(angle)) * S @ S
    frame = random_frame(seed, product=True)
    plain, turned = read(frame), read(_turned(frame, R))
    first, second = solve_document(plain), solve_document(turned)
    u, v = by_node(first, 0, plain), by_node(second, 0, turned)
    assert np.abs(v[:, :3] - u[:, :3] @ R.T).max() < 1e-8 * np.abs(u).max()
    assert np.abs(v[:, 3:] - u[:, 3:] @ R.T).max() < 1e-8 * np.abs(u).max()
    f, g = ([m["frequency"] for m in r["modes"]] for r in (first, second))
    assert np.allclose(f, g, rtol=1e-8)


@given(SEEDS)
def test_a_rigid_movement_strains_nothing(seed: int) -> None:
    frame = random_frame(seed, product=True)
    frame["springs"] = [s for s in frame["springs"] if "j" in s]
    arrays, _ = to_arrays(read(frame))
    shift, turn = np.array([0.3, -0.2, 0.5]), np.array([0.01, 0.02, -0.03])
    u = np.hstack([shift + np.cross(turn, arrays.nodes), np.tile(turn, (len(arrays.nodes), 1))])
    for set_, elements in (
        (arrays.beams, beam.build(arrays.nodes, arrays.beams)),
        (arrays.springs, spring.build(arrays.nodes, arrays.springs)),
    ):
        both = np.concatenate([u[set_.i], u[set_.j]], axis=1)
        assert np.abs(elements.G @ both[:, :, None]).max() < 1e-12


def test_the_same_file_gives_the_same_numbers_to_the_bit() -> None:
    frame = random_frame(3)
    texts = {json.dumps(solve_document(read(frame))) for _ in range(2)}
    assert len(texts) == 1
