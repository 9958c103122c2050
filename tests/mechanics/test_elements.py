"""Elements by themselves: stiffness, mass, weight, end forces, energies."""

from dataclasses import replace

import numpy as np
import pytest

from tests.frames import by_node, cantilever, random_frame, read
from unterbau.files.frame_json import solve_document, to_arrays
from unterbau.mechanics import beam, rigid_body, spring
from unterbau.mechanics.arrays import FloatArray, IntArray, axes_from, cross_matrices
from unterbau.mechanics.frame import Beams, Masses


def beams_of(seed: int, product: bool = True) -> tuple[FloatArray, Beams]:
    frame, _ = to_arrays(read(random_frame(seed, product=product)))
    return frame.nodes, frame.beams


def rigid_movements(nodes: FloatArray, i: IntArray, j: IntArray) -> FloatArray:
    """Return six rigid movements of each element's two nodes, shape (n, 12, 6)."""
    blocks = []
    for ends in (i, j):
        places = nodes[ends]
        move = np.tile(np.eye(6), (len(places), 1, 1))
        move[:, :3, 3:] = -cross_matrices(places)
        blocks.append(move)
    return np.concatenate(blocks, axis=1)


@pytest.mark.parametrize("seed", range(4))
def test_beam_stiffness_is_symmetric_with_six_rigid_movements(seed: int) -> None:
    nodes, beams = beams_of(seed)
    K = beam.stiffness(beam.build(nodes, beams))
    assert np.abs(K - K.transpose(0, 2, 1)).max() < 1e-9 * np.abs(K).max()
    rigid = rigid_movements(nodes, beams.i, beams.j)
    assert np.abs(K @ rigid).max() < 1e-8 * np.abs(K).max()
    assert all(np.linalg.matrix_rank(one, tol=1e-9 * np.abs(one).max()) == 6 for one in K)


@pytest.mark.parametrize("seed", range(4))
def test_beam_mass_moves_as_a_rigid_bar(seed: int) -> None:
    """Rigid movement: the mass, its centre and its inertia tensor are those of a prism."""
    nodes, beams = beams_of(seed)
    elements = beam.build(nodes, beams)
    M = beam.consistent_mass(beams, elements)
    rigid = rigid_movements(nodes, beams.i, beams.j)
    total = rigid.transpose(0, 2, 1) @ M @ rigid
    for b in range(len(beams)):
        m = beams.rho[b] * beams.A[b] * elements.length[b]
        assert total[b, :3, :3] == pytest.approx(m * np.eye(3), rel=1e-9, abs=1e-9 * m)
        centre = nodes[beams.i[b]] + beams.offset_i[b] + elements.span[b] / 2
        assert total[b, :3, 3:] == pytest.approx(-m * cross_matrices(centre[None])[0], rel=1e-8, abs=1e-9 * m)
        R, L = elements.axes[b], elements.length[b]
        line = beams.rho[b] * L
        Iy, Iz, Iyz = beams.Iy[b], beams.Iz[b], beams.Iyz[b]
        own = line * np.array([[Iy + Iz, 0, 0], [0, Iy, -Iyz], [0, -Iyz, Iz]]) + m * L**2 / 12 * np.diag([0, 1, 1])
        S = cross_matrices(centre[None])[0]
        assert total[b, 3:, 3:] == pytest.approx(R.T @ own @ R - m * S @ S, rel=1e-8, abs=1e-9 * m)


def test_rigid_bodies_follow_the_parallel_axis_theorem() -> None:
    masses = Masses(
        np.array([0]), np.array([2.0]), np.array([[0.1, 0.2, 0.3]]), np.array([[0.0, 0.0, 0.5]]), np.zeros(1)
    )
    M = rigid_body.mass_matrices(masses)[0]
    assert np.diag(M) == pytest.approx([2, 2, 2, 0.1 + 0.5, 0.2 + 0.5, 0.3])
    assert M[0, 4] == pytest.approx(2.0 * 0.5)
    weight = rigid_body.gravity_loads(replace(masses, offset=np.array([[0.5, 0.0, 0.0]])), np.array([0, 0, -10.0]))[0]
    assert weight == pytest.approx([0, 0, -20, 0, 10, 0])


def test_local_axes_follow_the_rule() -> None:
    axes = axes_from(np.array([[2.0, 0.0, 0.0], [0.0, 0.0, 3.0]]), np.array([[0.3, 0.0, 1.0], [1.0, 0.0, 0.0]]))
    assert axes[0] == pytest.approx(np.eye(3))
    assert axes[1] == pytest.approx(np.array([[0, 0, 1], [0, -1, 0], [1, 0, 0]]))
    assert np.cross(axes[1, 2], axes[1, 0]) == pytest.approx(axes[1, 1])


@pytest.mark.parametrize("seed", range(3))
def test_weight_reaches_the_nodes_whole(seed: int) -> None:
    nodes, beams = beams_of(seed)
    elements = beam.build(nodes, beams)
    g = np.array([0.3, -1.0, -9.0])
    load = beam.gravity_loads(beams, elements, g)
    m = beams.rho * beams.A * elements.length
    assert load[:, :3] + load[:, 6:9] == pytest.approx(m[:, None] * g, rel=1e-9)
    a, b = nodes[beams.i], nodes[beams.j]
    moment = np.cross(a, load[:, :3]) + load[:, 3:6] + np.cross(b, load[:, 6:9]) + load[:, 9:]
    middle = a + beams.offset_i + elements.span / 2
    assert moment == pytest.approx(np.cross(middle, m[:, None] * g), rel=1e-8, abs=1e-8)


CAUSES = [
    ("force", [7.0, 0, 0], "axial", lambda F, L: F**2 * L / (2 * 2.1e11 * 1e-3)),
    ("moment", [7.0, 0, 0], "torsion", lambda F, L: F**2 * L / (2 * 8.1e10 * 5e-7)),
    ("moment", [0, 7.0, 0], "bending", lambda F, L: F**2 * L / (2 * 2.1e11 * 1e-6)),
    ("force", [0, 0, 7.0], "shear", lambda F, L: F**2 * L / (2 * 8.1e10 * 4e-4)),
    ("force", [0, 7.0, 0], "bending", lambda F, L: F**2 * L**3 / (6 * 2.1e11 * 2e-6)),
]


@pytest.mark.parametrize(("sort", "value", "cause", "expected"), CAUSES)
def test_energy_is_split_by_cause(sort: str, value: list[float], cause: str, expected: object) -> None:
    """N²L/2EA, T²L/2GJ, M²L/2EI, V²L/2GAs, F²L³/6EI."""
    frame = cantilever(3, 1.5, cases=[{"id": "p", "forces": [{"node": "n3", sort: value}]}])
    energy = solve_document(read(frame))["cases"][0]["energy"]["arm"]
    assert energy[cause] == pytest.approx(expected(7.0, 1.5), rel=1e-9)  # type: ignore[operator]


def test_end_forces_of_a_cantilever() -> None:
    """What the nodes do to the ends: tension positive at j, the wall holds the rest."""
    load = {"node": "n1", "force": [5.0, 2.0, 3.0], "moment": [1.0, 0.0, 0.0]}
    result = solve_document(read(cantilever(1, 2.0, cases=[{"id": "p", "forces": [load]}])))
    ends = result["cases"][0]["beam_forces"]["b0"]
    assert ends["j"] == pytest.approx([5, 2, 3, 1, 0, 0], abs=1e-9)
    assert ends["i"] == pytest.approx([-5, -2, -3, -1, 6, -4], abs=1e-9)


def test_a_spring_acts_at_its_first_node() -> None:
    """k at the far end of an arm from j: the arm's turn moves it, u = F/k + F·a²/kθ."""
    frame = cantilever(1)
    places = {"n0": 0.0, "n1": 0.5, "base": 0.0}
    frame["nodes"] = [{"id": name, "xyz": [x, 0, 0]} for name, x in places.items()]
    frame["beams"] = []
    frame["springs"] = [
        {"id": "a", "i": "base", "j": "n0", "k": [1e9, 1e9, 1e9, 1e4, 1e4, 1e4]},
        {"id": "b", "i": "n1", "j": "base", "k": [1e6, 1e6, 1e6, 1e3, 1e3, 1e3]},
    ]
    frame["cases"] = [{"id": "p", "forces": [{"node": "n1", "force": [0, 0, 10.0]}]}]
    document = read(frame)
    u = by_node(solve_document(document), 0, document)
    assert u[1, 2] == pytest.approx(10 / 1e6 + 10 * 0.5**2 / 1e4 + 10 / 1e9, rel=1e-9)
    frame_arrays, _ = to_arrays(document)
    elements = spring.build(frame_arrays.nodes, frame_arrays.springs)
    movement = np.concatenate([u[[2, 1]], u[[0, 2]]], axis=1)
    assert spring.energies(elements, movement[None]).sum() == pytest.approx(0.5 * 10 * u[1, 2], rel=1e-9)
