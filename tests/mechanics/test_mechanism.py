"""What can move freely is refused and named; what is only soft is solved."""

from typing import Any

import pytest

from tests.frames import by_node, cantilever, data, read
from unterbau.errors import InputError
from unterbau.files.frame_json import solve_document

PULL = [{"id": "p", "forces": [{"node": "n1", "force": [0.0, 0.0, 1.0]}]}]


def refused(frame: dict[str, Any]) -> str:
    with pytest.raises(InputError) as error:
        solve_document(read(frame))
    return error.value.problem


def test_a_beam_free_to_spin_names_its_turns_only() -> None:
    frame = cantilever(2, supports=[{"node": "n0", "fixed": [True, True, True, False, True, True]}])
    problem = refused(frame)
    assert "n0 rx" in problem
    assert "n2 rx" in problem
    assert "ux" not in problem
    assert "ry" not in problem


def test_a_part_held_by_nothing_is_named_and_the_held_part_is_not() -> None:
    frame = data([[0, 0, 0], [1, 0, 0], [3, 0, 0], [4, 0, 0]], [{"i": "n0", "j": "n1"}, {"i": "n2", "j": "n3"}])
    problem = refused(frame)
    assert "n2 ux" in problem
    assert "n3 uz" in problem
    assert "n1 " not in problem


def test_a_node_without_any_element_is_named() -> None:
    frame = cantilever(1)
    frame["nodes"].append({"id": "lost", "xyz": [9.0, 9.0, 9.0]})
    assert "lost ux" in refused(frame)


def test_a_spring_without_turning_stiffness_leaves_a_hinge() -> None:
    frame = data(
        [[0, 0, 0], [0, 0, 0], [1, 0, 0]], [{"i": "n1", "j": "n2"}],
        springs=[{"id": "k", "i": "n1", "j": "n0", "k": [1e8, 1e8, 1e8, 1e5, 0.0, 1e5]}],
    )  # fmt: skip
    problem = refused(frame)
    assert "n1 ry" in problem
    assert "n2 uz" in problem
    assert "rx" not in problem


def test_a_very_soft_hinge_beside_very_stiff_springs_is_no_mechanism() -> None:
    """1e12 N/m with 1 N·m/rad on a 1 m lever: the pivot is 1e-12, the answer is 1 m per newton."""
    frame = data(
        [[0, 0, 0], [0, 0, 0], [1, 0, 0]], [{"i": "n1", "j": "n2"}],
        springs=[{"id": "k", "i": "n1", "j": "n0", "k": [1e12, 1e12, 1e12, 1e9, 1.0, 1e9]}],
        cases=[{"id": "p", "forces": [{"node": "n2", "force": [0.0, 0.0, 1.0]}]}],
    )  # fmt: skip
    document = read(frame)
    assert by_node(solve_document(document), 0, document)[2, 2] == pytest.approx(1.0, rel=1e-3)


def test_a_frame_on_weak_springs_to_ground_is_solved() -> None:
    frame = cantilever(1, cases=PULL, supports=[])
    frame["springs"] = [{"id": "k", "i": "n0", "k": [1e-3] * 3 + [1e-3] * 3}]
    document = read(frame)
    assert by_node(solve_document(document), 0, document)[0, 2] == pytest.approx(1e3, rel=1e-4)


def test_everything_fixed_is_answered() -> None:
    frame = cantilever(1, cases=PULL, modes=3)
    frame["supports"].append({"node": "n1", "fixed": [True] * 6})
    result = solve_document(read(frame))
    assert result["cases"][0]["reactions"]["n1"][2] == pytest.approx(-1.0)
    assert result["modes"] == []
