"""Numbering, band, factor and modes against dense linear algebra."""

import itertools

import numpy as np
import pytest
from scipy.linalg import eigh

from tests.frames import cantilever, random_frame, read
from unterbau.files.frame_json import solve_document, to_arrays
from unterbau.mechanics import assembly
from unterbau.mechanics.arrays import FloatArray, IntArray
from unterbau.mechanics.factor import factorise, scale_band, unit_scale
from unterbau.mechanics.modes import halve, settled_modes, solve_modes
from unterbau.mechanics.numbering import number


def dense(band: FloatArray) -> FloatArray:
    n = band.shape[1]
    full = np.zeros((n, n))
    for d in range(band.shape[0]):
        rows = np.arange(n - d)
        full[rows + d, rows] = full[rows, rows + d] = band[d, : n - d]
    return full


@pytest.mark.parametrize("seed", range(4))
def test_the_band_is_the_sum_of_the_elements(seed: int) -> None:
    frame, _ = to_arrays(read(random_frame(seed)))
    system = assembly.assemble(frame)
    _, batches = assembly.build_elements(frame)
    full = np.zeros((6 * len(frame.nodes),) * 2)
    for dofs, matrices in batches:
        for rows, matrix in zip(dofs, matrices, strict=True):
            np.add.at(full, (rows[:, None], rows), matrix)
    order = system.numbering.order
    wanted = full[np.ix_(order, order)]
    assert np.abs(dense(system.band) - wanted).max() < 1e-12 * np.abs(wanted).max()


def chain(n: int, shuffle: IntArray) -> tuple[IntArray, tuple[int, ...]]:
    pairs = [np.concatenate([6 * a + np.arange(6), 6 * b + np.arange(6)]) for a, b in itertools.pairwise(shuffle)]
    return np.concatenate(pairs), (12,) * (n - 1)


def test_a_shuffled_chain_gets_the_smallest_band() -> None:
    n = 60
    dofs, splits = chain(n, np.random.default_rng(4).permutation(n))
    found = number(dofs, splits, np.arange(6 * n), n)
    assert found.half_bandwidth == 11
    assert sorted(found.order.tolist()) == list(range(6 * n))


def test_parts_that_do_not_touch_and_fixed_freedoms_are_numbered_too() -> None:
    dofs = np.concatenate([chain(4, np.array([0, 1, 2, 3]))[0], chain(3, np.array([6, 4, 5]))[0]])
    free = np.setdiff1d(np.arange(42), [0, 1, 2, 3, 4, 5, 40])
    found = number(dofs, (12,) * 5, free, 7)
    assert sorted(found.order.tolist()) == free.tolist()
    assert (found.target <= len(free) * (found.half_bandwidth + 1)).all()
    assert found.ends.tolist() in ([17, 35], [18, 35])  # two chains


def test_band_routines_equal_dense_ones() -> None:
    frame, _ = to_arrays(read(random_frame(7)))
    band = assembly.assemble(frame).band
    right = np.random.default_rng(0).standard_normal((band.shape[1], 3))
    solved = factorise(band).solve(right)
    assert dense(band) @ solved == pytest.approx(right, rel=1e-6, abs=1e-8)
    scale = unit_scale(band[0])
    assert np.diag(dense(scale_band(band, scale))) == pytest.approx(np.ones(len(scale)))


@pytest.mark.parametrize(("seed", "count"), [(0, 4), (1, 12), (2, 40)])
def test_modes_equal_the_dense_eigenproblem(seed: int, count: int) -> None:
    frame, _ = to_arrays(read(random_frame(seed)))
    system = assembly.assemble(frame)
    K = dense(system.band)
    M = assembly.mass_matrix(system).times(np.eye(len(K)))
    assert np.array_equal(M, M.T)
    wanted = np.sqrt(eigh(K, M, eigvals_only=True)) / (2 * np.pi)
    found = solve_modes(system, count)
    n = min(count, len(wanted))
    assert len(found.frequency) == n
    assert found.frequency == pytest.approx(wanted[:n], rel=1e-7)
    shapes = found.shape.reshape(n, -1)[:, system.numbering.order]
    assert shapes @ M @ shapes.T == pytest.approx(np.eye(n), abs=1e-7)
    assert np.diag(shapes @ K @ shapes.T) == pytest.approx((2 * np.pi * found.frequency) ** 2, rel=1e-6)


def test_equal_frequencies_are_all_found() -> None:
    """A square bar has each bending frequency twice; shapes stay independent."""
    frame = cantilever(6, 1.0, modes=6)
    frame["sections"] = [{"id": "s", "A": 1e-3, "Iy": 1e-7, "Iz": 1e-7, "J": 2e-7}]
    f = [m["frequency"] for m in solve_document(read(frame))["modes"]]
    assert f[0] == pytest.approx(f[1], rel=1e-9)
    assert f[2] == pytest.approx(f[3], rel=1e-9)
    assert f[2] > 5 * f[1]


def test_modes_of_bodies_without_turning_inertia_are_counted_out() -> None:
    frame = cantilever(1, modes=20)
    frame["materials"][0]["rho"] = 0.0
    frame["masses"] = [{"id": "m", "node": "n1", "m": 3.0}]
    assert len(solve_document(read(frame))["modes"]) == 3


def test_halving_keeps_statics_and_settles_modes() -> None:
    frame, _ = to_arrays(read(cantilever(2, 1.0)))
    fine = halve(frame)
    assert len(fine.beams) == 4
    assert len(set(fine.node_names)) == len(fine.nodes)
    coarse = solve_modes(assembly.assemble(frame), 6).frequency
    settled = settled_modes(frame, 6)
    exact = solve_modes(assembly.assemble(halve(halve(halve(halve(fine))))), 6).frequency
    assert np.abs(settled.frequency / exact - 1).max() < 3e-3
    assert np.abs(coarse / exact - 1).max() > 1e-2
    assert settled.shape.shape == (6, 3, 6)


def test_a_band_of_parts_that_do_not_know_of_each_other_is_solved_part_by_part() -> None:
    draw = np.random.default_rng(7)
    sizes, depth = (70, 3, 150, 90), 12
    n = sum(sizes)
    full = np.zeros((n, n))
    start = 0
    for size in sizes:
        part = np.tril(np.triu(draw.normal(size=(size, size)), -depth + 1))
        rows = slice(start, start + size)
        full[rows, rows] = part + part.T + 40.0 * np.eye(size)
        start += size
    band = np.array([np.concatenate([np.diagonal(full, -k), np.zeros(k)]) for k in range(depth)], order="F")
    right = np.zeros((n, 5))
    right[[2, 75, 200, 300], [0, 1, 2, 3]] = 1.0
    right[:, 4] = draw.normal(size=n)
    assert factorise(band, np.cumsum(sizes)).solve(right) == pytest.approx(
        np.linalg.solve(full, right), rel=1e-9, abs=1e-14
    )


def test_what_lies_between_loads_is_the_inverse_block_by_block() -> None:
    """Three parts that do not know of each other, loads on two of them and on all; against a dense inverse."""
    draw = np.random.default_rng(5)
    sizes, depth = (70, 150, 90), 24
    n = sum(sizes)
    dense, start = np.zeros((n, n)), 0
    for size in sizes:
        some = np.tril(draw.normal(size=(size, size)), 0)
        some[np.subtract.outer(np.arange(size), np.arange(size)) >= depth // 2] = 0.0
        dense[start : start + size, start : start + size] = some @ some.T + size * np.eye(size)
        start += size
    band = np.array([np.append(np.diagonal(dense, -row), np.zeros(row)) for row in range(depth)])
    factor = factorise(np.asfortranarray(band), np.cumsum(sizes))
    assert len(factor.blocks) == 3
    right = np.zeros((n, 11))
    right[10, 0] = right[100, 1] = right[130, 2] = 1.0
    right[:, 3:] = draw.normal(size=(n, 8))
    assert factor.between(right) == pytest.approx(right.T @ np.linalg.solve(dense, right), rel=1e-9, abs=1e-12)
