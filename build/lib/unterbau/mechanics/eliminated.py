"""A symmetric matrix at many places, kept by parts of few different values; unknowns go where they differ least.

What only stands differently along one axis is eliminated once for each place on that axis, not for every place of the
travel: the same numbers as from the whole matrix at each place.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from unterbau.mechanics.arrays import BoolArray, FloatArray, IntArray

MANY = 1 << 40


@dataclass(frozen=True)
class Part:
    """What stands in some rows and columns, and the same turned over in these columns and rows."""

    rows: IntArray
    columns: IntArray
    values: FloatArray
    """Shape (U, r, c)."""
    which: IntArray
    """Of these at each place, shape (n_places,)."""

    @cached_property
    def bits(self) -> int:
        """Which rows and columns it stands in, a bit for each."""
        return bits_of(self.rows) | bits_of(self.columns)

    def beyond(self, mine: BoolArray) -> "Part | None":
        """Return what stands neither in rows nor in columns of some unknowns."""
        rows, columns = ~mine[self.rows], ~mine[self.columns]
        if not rows.any() or not columns.any():
            return None
        values = self.values[:, rows][:, :, columns]
        return Part(self.rows[rows], self.columns[columns], values, self.which)


def bits_of(rows: IntArray) -> int:
    """Return a number with a bit for each row."""
    return sum(1 << row for row in rows.tolist())


def eliminated(parts: Sequence[Part], unknowns: IntArray, size: int, places: int) -> list[Part]:
    """Return the parts without some unknowns, which take what they take.

    Args:
        parts: The matrix.
        unknowns: Which of its rows and columns go.
        size: Of all rows.
        places: How many.
    """
    mine, bits = np.zeros(size, dtype=bool), bits_of(unknowns)
    mine[unknowns] = True
    touched = [one for one in parts if one.bits & bits]
    first, which = _different(touched, places)
    beside = np.zeros(size, dtype=bool)
    for one in touched:
        beside[one.rows] = beside[one.columns] = True
    others = np.flatnonzero(beside & ~mine)
    position = np.full(size, -1)
    position[unknowns] = np.arange(len(unknowns))
    position[others] = len(unknowns) + np.arange(len(others))
    shape = (len(unknowns) + len(others), len(unknowns))
    everywhere, taken = np.zeros((1, *shape)), np.zeros((len(first), *shape))
    for one in touched:
        values = one.values if len(one.values) == 1 else one.values[one.which[first]]
        for rows, columns, some in (
            (one.rows, one.columns, values),
            (one.columns, one.rows, values.transpose(0, 2, 1)),
        ):
            inside = mine[columns]
            if inside.any():
                part = some if inside.all() else some[:, :, inside]
                _add(everywhere if len(part) == 1 else taken, position[rows], position[columns[inside]], part)
    taken += everywhere
    own, beyond = taken[:, : len(unknowns)], taken[:, len(unknowns) :]
    left = beyond @ np.linalg.solve(own, beyond.transpose(0, 2, 1))
    kept = [one.beyond(mine) if one.bits & bits else one for one in parts]
    return [*(one for one in kept if one is not None), Part(others, others, left / -2, which)]


def filled(parts: Sequence[Part], wanted: IntArray, size: int, places: int) -> FloatArray:
    """Return some rows and columns of what is left, at each place, shape (n_places, r, r)."""
    position = np.full(size, -1)
    position[wanted] = np.arange(len(wanted))
    everywhere, found = np.zeros((1, len(wanted), len(wanted))), np.zeros((places, len(wanted), len(wanted)))
    for one in parts:
        values = one.values if len(one.values) == 1 else one.values[one.which]
        _add(everywhere if len(values) == 1 else found, position[one.rows], position[one.columns], values)
    found += everywhere
    return np.asarray(found + found.transpose(0, 2, 1))


def _add(found: FloatArray, rows: IntArray, columns: IntArray, values: FloatArray) -> None:
    """Add values where they stand, by ranges where they stand side by side: that is several times as fast."""
    row, column = _range(rows), _range(columns)
    if row is not None and column is not None:
        found[:, row, column] += values
    elif row is not None:
        found[:, row, columns] += values
    elif column is not None:
        found[:, rows, column] += values
    else:
        found[:, rows[:, None], columns] += values


def _range(places: IntArray) -> slice | None:
    first, end = int(places[0]), int(places[-1]) + 1
    whole = end - first == len(places) and places.tobytes() == np.arange(first, end).tobytes()
    return slice(first, end) if whole else None


def _different(parts: Sequence[Part], places: int) -> tuple[IntArray, IntArray]:
    """Return the first place of each different mixture of the parts' values, and which mixture each place has."""
    keys, count = np.zeros(places, dtype=np.int64), 1
    for one in parts:
        if len(one.values) == 1:
            continue
        if count * len(one.values) > MANY:
            _, keys = np.unique(keys, return_inverse=True)
            count = places
        keys = keys.ravel() * len(one.values) + one.which
        count *= len(one.values)
    _, first, which = np.unique(keys, return_index=True, return_inverse=True)
    return first, which.ravel()
