"""Elements that repeat are worked out once, and nothing that differs is taken for the same."""

from dataclasses import fields, replace

import numpy as np
import pytest

from tests.frames import random_frame, read
from unterbau.files.frame_json import to_arrays
from unterbau.mechanics import beam, spring
from unterbau.mechanics.beam import SECTION
from unterbau.mechanics.frame import Beams
from unterbau.mechanics.repeated import sorts


def repeated(seed: int) -> tuple[np.ndarray, Beams]:
    """Return beams of a random frame, each three times, two of them moved elsewhere; rounding differs."""
    frame, _ = to_arrays(read(random_frame(seed)))
    n, nb = len(frame.nodes), len(frame.beams)
    nodes = np.vstack([frame.nodes, frame.nodes + 0.1 / 3, frame.nodes - 7.7 / 9])
    three = frame.beams.take(np.tile(np.arange(nb), 3))
    step = np.repeat(np.arange(3) * n, nb)
    return nodes, replace(three, i=three.i + step, j=three.j + step)


@pytest.mark.parametrize("seed", range(3))
def test_all_matrices_are_those_of_each_beam_alone(seed: int) -> None:
    nodes, beams = repeated(seed)
    every = beam.build(nodes, beams)
    assert 3 * len(every.first) <= len(beams)
    g = np.array([1.0, -2.0, -9.0])
    K, M, w = beam.stiffness(every), beam.consistent_mass(beams, every), beam.gravity_loads(beams, every, g)
    for row in range(len(beams)):
        one = beams.take(np.array([row]))
        alone = beam.build(nodes, one)
        for found, expected in (
            (K[row], beam.stiffness(alone)[0]),
            (M[row], beam.consistent_mass(one, alone)[0]),
            (w[row], beam.gravity_loads(one, alone, g)[0]),
        ):
            assert np.abs(found - expected).max() < 1e-9 * np.abs(expected).max()


@pytest.mark.parametrize("name", [*SECTION, "up", "offset_i", "offset_j"])
def test_beams_that_differ_in_anything_are_sorts_of_their_own(name: str) -> None:
    frame, _ = to_arrays(read(random_frame(1)))
    one = frame.beams.take(np.zeros(2, dtype=np.intp))
    assert len(beam.build(frame.nodes, one).first) == 1
    values = getattr(one, name).copy()
    values[1] = values[1] * (1 + 1e-9) if values[1].any() else values[1] + 1e-9
    other = beam.build(frame.nodes, replace(one, **{name: values}))
    assert len(other.first) == 2


def test_springs_that_repeat_and_those_that_stand_on_the_ground() -> None:
    frame, _ = to_arrays(read(random_frame(5)))
    springs = frame.springs
    rows = np.tile(np.arange(len(springs)), 2)
    twice = type(springs)(*(getattr(springs, f.name)[rows] for f in fields(springs)))
    every = spring.build(frame.nodes, twice)
    alone = spring.build(frame.nodes, springs)
    assert len(every.first) == len(alone.first)
    assert (spring.stiffness(every)[len(springs) :] == spring.stiffness(alone)).all()
    grounded = replace(twice, j=np.where(np.arange(len(rows)) < len(springs), twice.j, -1))
    assert len(spring.build(frame.nodes, grounded).first) > len(alone.first)
    assert (spring.stiffness(spring.build(frame.nodes, grounded))[len(springs) :, :, 6:] == 0.0).all()


def test_sorts_are_told_by_first_and_member() -> None:
    shape = np.array([[0.1 + 0.2], [0.3], [-0.0], [0.0], [0.3]])
    numbers = np.array([[1.0], [1.0], [2.0], [2.0], [1.0 + 1e-15]])
    first, sort = sorts(shape, numbers)
    assert first.tolist() == [0, 2, 4]
    assert sort.tolist() == [0, 0, 1, 1, 2]
    assert sorts(np.zeros((0, 3)), np.zeros((0, 2)))[1].shape == (0,)
