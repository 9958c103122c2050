"""Rigid directions of springs, eliminated: dependent freedoms follow independent ones.

Each connected set of rigidly joined nodes is reduced by itself to row echelon form with
the largest entry as pivot; a pivot's freedom depends on the rest of its row. Sets of the same
numbers, to rounding, are reduced once.
"""

from dataclasses import dataclass, field
from functools import lru_cache
from math import log2
from typing import TypeVar

import numpy as np

from unterbau.kept import kept_up_to
from unterbau.mechanics.arrays import BoolArray, FloatArray, IntArray, totals
from unterbau.mechanics.frame import Springs
from unterbau.mechanics.rigid_sets import Sets, alike_in
from unterbau.mechanics.spring import SpringElements

REDUNDANT = 1e-10  # a row left below this share of its first size says nothing new
PLACES = 13  # decimals that numbers are told apart by
KEPT = 4.0  # MB
AnyArray = TypeVar("AnyArray", FloatArray, IntArray)
Row = tuple[IntArray, IntArray, FloatArray]
"""Dependent freedoms of a set (d,), those each follows (d, m), and factors (d, m)."""
Alike = tuple[IntArray, IntArray, IntArray, FloatArray]
"""Which sets they are (s,), and the same of each."""


@dataclass(frozen=True, slots=True)
class RigidSet:
    """One set of rigidly joined nodes."""

    dofs: IntArray
    rows: FloatArray
    """Constraint rows on `dofs`, scaled; rows @ u[dofs] == 0. Supports come first."""
    n_support: int


@dataclass(frozen=True, slots=True)
class Links:
    """Dependent freedoms as sums of free ones."""

    dependent: IntArray
    """Shape (d,)."""
    masters: IntArray
    """Free freedoms that each follows, filled up with the first of them, shape (d, m)."""
    factors: FloatArray
    """Filled up with 0, shape (d, m)."""
    sorts: tuple[tuple[Sets, FloatArray], ...] = field(repr=False)
    """Sets joined alike, with their constraints."""

    @property
    def sets(self) -> tuple[RigidSet, ...]:
        """Each set by itself."""
        return tuple(
            RigidSet(dofs, rows, sort.n_support)
            for sort, every in self.sorts for dofs, rows in zip(sort.dofs, every, strict=True)
        )  # fmt: skip

    @property
    def used(self) -> BoolArray:
        """Which factors are not filled up, shape (d, m)."""
        return np.asarray(self.factors != 0.0)

    def pass_on(self, loads: FloatArray) -> None:
        """Add loads at dependent freedoms, (n, k), to those they follow."""
        if len(self.dependent):
            follower, master = np.nonzero(self.factors)
            moved = self.factors[follower, master, None] * loads[self.dependent[follower]]
            loads += totals(self.masters[follower, master], moved.T, len(loads)).T

    def follow(self, movements: FloatArray) -> None:
        """Set the movements of dependent freedoms, (n, k), by those they follow."""
        if len(self.dependent):
            movements[self.dependent] = np.einsum("dm,dmk->dk", self.factors, movements[self.masters])


NONE = Links(np.zeros(0, dtype=np.intp), np.zeros((0, 1), dtype=np.intp), np.zeros((0, 1)), ())


def eliminate(springs: Springs, elements: SpringElements, fixed: BoolArray, size: float) -> Links:
    """Return the dependent freedoms of all rigid directions.

    Args:
        springs: The springs.
        elements: Their matrices.
        fixed: Supports, shape (n_nodes, 6).
        size: A length of the frame, m, that makes movements and turns comparable.
    """
    rows = np.flatnonzero(elements.rigid.any(axis=1))
    if not len(rows):
        return NONE
    ends = np.stack([springs.i[rows], springs.j[rows]])
    G, size = elements.G[rows].round(PLACES), 2.0 ** round(log2(size))
    sorts = list[tuple[Sets, FloatArray]]()
    dependent, masters, factors = list[IntArray](), list[IntArray](), list[FloatArray]()
    for sort in alike_in(ends.tobytes(), elements.rigid[rows].tobytes(), fixed.tobytes()):
        C, alike = _followed(sort, G[sort.springs].tobytes(), size)
        sorts.append((sort, C))
        for some, pivots, followed, values in alike:
            dofs, each = sort.dofs[some], np.arange(len(some))
            dependent.append(dofs[each[:, None], pivots].ravel())
            masters.append(dofs[each[:, None, None], followed].reshape(-1, followed.shape[2]))
            factors.append(values.reshape(-1, values.shape[2]))
    width = max(one.shape[1] for one in factors)
    return Links(
        np.concatenate(dependent),
        np.concatenate([_widened(one, width, one[:, -1:]) for one in masters]),
        np.concatenate([_widened(one, width, np.zeros((len(one), 1))) for one in factors]),
        tuple(sorts),
    )


@kept_up_to(KEPT)
def _followed(sort: Sets, G: bytes, size: float) -> tuple[FloatArray, list[Alike]]:
    """Return the constraints of sets joined alike, and what follows in those of one shape."""
    C = sort.constraints(np.frombuffer(G).reshape(-1, 6, 12), size)
    turns, held = sort.turns.tobytes(), sort.held.tobytes()
    follow = [_reduced(one.tobytes(), len(one), turns, held, size) for one in C.round(PLACES)]
    found = list[Alike]()
    for some in _of_one_shape(follow):
        pivots, followed, values = (np.array([follow[n][k] for n in some]) for k in range(3))
        found.append((np.array(some), pivots, followed, values))
    return C, found


def _of_one_shape(follow: list[Row]) -> list[list[int]]:
    """Return which sets have as many dependent freedoms that follow as many."""
    found: dict[tuple[int, ...], list[int]] = {}
    for n, (_, followed, _) in enumerate(follow):
        found.setdefault(followed.shape, []).append(n)
    return list(found.values())


def _widened(rows: AnyArray, width: int, last: AnyArray) -> AnyArray:
    return np.concatenate([rows, np.repeat(last, width - rows.shape[1], axis=1)], axis=1)


@lru_cache(maxsize=4096)
def _reduced(rows: bytes, count: int, turns: bytes, fixed: bytes, size: float) -> Row:
    scale = np.where(np.frombuffer(turns, dtype=bool), size, 1.0)
    held = np.frombuffer(fixed, dtype=bool)
    C = np.frombuffer(rows).reshape(count, -1) / scale
    pivots: list[int] = []
    for row in range(len(C)):
        best = row + int(np.argmax(np.abs(C[row:]).max(axis=1)))
        if np.abs(C[best]).max() < REDUNDANT:
            break
        C[[row, best]] = C[[best, row]]
        candidates = np.abs(C[row]) * np.where(held, 4.0, 1.0)
        pivot = int(np.argmax(candidates))
        C[row] /= C[row, pivot]
        others = np.arange(len(C)) != row
        C[others] -= np.outer(C[others, pivot], C[row])
        pivots.append(pivot)
    kept, used, values = [], [], []
    for r, pivot in enumerate(pivots):
        if held[pivot]:
            continue
        places = np.flatnonzero((np.abs(C[r]) > REDUNDANT) & ~held)
        places = places[places != pivot]
        kept.append(pivot)
        used.append(places)
        values.append(-C[r, places] * scale[places] / scale[pivot])
    width = max((len(one) for one in used), default=1) or 1
    followed, factors = np.zeros((len(kept), width), dtype=np.intp), np.zeros((len(kept), width))
    for r, (pivot, places, value) in enumerate(zip(kept, used, values, strict=True)):
        followed[r] = places[0] if len(places) else pivot
        followed[r, : len(places)], factors[r, : len(places)] = places, value
    return np.array(kept, dtype=np.intp), followed, factors
