"""Unknowns that go where they differ least: the same as from the whole matrix at each place."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.eliminated import Part, eliminated, filled

SIZE = 12


def random_parts(draw: np.random.Generator, places: int) -> list[Part]:
    """Return parts of a symmetric matrix, some of them the same at all places, some different at every other."""
    parts = [Part(np.arange(SIZE), np.arange(SIZE), 20.0 * np.eye(SIZE)[None], np.zeros(places, dtype=np.intp))]
    for kinds in (1, 2, 3, places):
        rows, columns = (np.sort(draw.choice(SIZE, draw.integers(1, 6), replace=False)) for _ in range(2))
        values = draw.standard_normal((kinds, len(rows), len(columns)))
        parts.append(Part(rows, columns, values, draw.integers(0, kinds, places)))
    return parts


def whole(parts: list[Part], places: int) -> FloatArray:
    found = np.zeros((places, SIZE, SIZE))
    for one in parts:
        for place in range(places):
            value = one.values[one.which[place]]
            for r, row in enumerate(one.rows.tolist()):
                for c, column in enumerate(one.columns.tolist()):
                    found[place, row, column] += value[r, c]
                    found[place, column, row] += value[r, c]
    return found


@given(st.integers(0, 10_000), st.integers(1, 9), st.integers(1, 10))
def test_what_is_left_is_the_complement_of_the_whole(seed: int, places: int, first: int) -> None:
    draw = np.random.default_rng(seed)
    parts = random_parts(draw, places)
    order = draw.permutation(SIZE)
    left = np.sort(order[first + 1 :])
    dense = whole(parts, places)
    gone = order[: first + 1]
    beyond = dense[:, left[:, None], gone]
    wanted = dense[:, left[:, None], left] - beyond @ np.linalg.solve(
        dense[:, gone[:, None], gone], beyond.transpose(0, 2, 1)
    )
    for step in (gone[:first], gone[first:]):
        parts = eliminated(parts, step, SIZE, places)
    assert filled(parts, left, SIZE, places) == pytest.approx(wanted, rel=1e-9, abs=1e-9)
