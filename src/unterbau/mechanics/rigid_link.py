"""Rigid directions of springs, eliminated: dependent freedoms follow independent ones.

Each connected set of rigidly joined nodes is reduced by itself to row echelon form with
the largest entry as pivot; a pivot's freedom depends on the rest of its row. Sets of the same
shape are reduced once.
"""

from dataclasses import dataclass, field
from functools import lru_cache

import numpy as np

from unterbau.mechanics.arrays import BoolArray, FloatArray, IntArray
from unterbau.mechanics.frame import Springs
from unterbau.mechanics.spring import SpringElements

REDUNDANT = 1e-10  # a row left below this share of its first size says nothing new
Row = tuple[IntArray, IntArray, FloatArray]
"""Dependent freedoms of a set (d,), those each follows (d, m), and factors (d, m)."""


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
    sets: tuple[RigidSet, ...] = field(repr=False)

    def pass_on(self, loads: FloatArray) -> None:
        """Add loads at dependent freedoms, (n, k), to those they follow."""
        if len(self.dependent):
            follower, master = np.nonzero(self.factors)
            moved = self.factors[follower, master, None] * loads[self.dependent[follower]]
            to = self.masters[follower, master]
            order = np.argsort(to, kind="stable")
            masters, first = np.unique(to[order], return_index=True)
            loads[masters] += np.add.reduceat(moved[order], first, axis=0)

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
    sets = _rigid_sets(_connected(rows, springs), springs, elements, fixed, size)
    held = fixed.ravel()
    found = [_dependent(one, held, size) for one in sets]
    width = max((followed.shape[1] for _, followed, _ in found), default=1)
    dependent, masters, factors = [], [], []
    for one, (pivots, followed, values) in zip(sets, found, strict=True):
        wider = np.minimum(np.arange(width), followed.shape[1] - 1)
        beyond = np.arange(width) >= followed.shape[1]
        dependent.append(one.dofs[pivots])
        masters.append(one.dofs[followed[:, wider]])
        factors.append(np.where(beyond, 0.0, values[:, wider]))
    return Links(np.concatenate(dependent), np.concatenate(masters), np.concatenate(factors), sets)


def _connected(rows: IntArray, springs: Springs) -> list[list[int]]:
    root: dict[int, int] = {}

    def find(node: int) -> int:
        while root.setdefault(node, node) != node:
            node = root[node]
        return node

    ends = list(zip(rows.tolist(), springs.i[rows].tolist(), springs.j[rows].tolist(), strict=True))
    for _, i, j in ends:
        if j >= 0:
            root[find(i)] = find(j)
    found: dict[int, list[int]] = {}
    for s, i, _ in ends:
        found.setdefault(find(i), []).append(s)
    return list(found.values())


def _rigid_sets(
    every: list[list[int]], springs: Springs, elements: SpringElements, fixed: BoolArray, size: float
) -> tuple[RigidSet, ...]:
    """Return the sets in order; those that are joined alike, and hold no support, at once."""
    held = np.asarray(fixed.any(axis=1))
    first, second = springs.i.tolist(), springs.j.tolist()
    alike: dict[tuple[tuple[int, int], ...], list[tuple[int, list[int]]]] = {}
    found: dict[int, RigidSet] = {}
    for place, members in enumerate(every):
        nodes = sorted({node for s in members for node in (first[s], second[s]) if node >= 0})
        if held[nodes].any():
            found[place] = _rigid_set(members, springs, elements, fixed, size)
            continue
        where = {node: n for n, node in enumerate(nodes)}
        joined = tuple((where[first[s]], where.get(second[s], -1)) for s in members)
        alike.setdefault(joined, []).append((place, nodes))
    for joined, sets in alike.items():
        places, nodes_of = [place for place, _ in sets], np.array([nodes for _, nodes in sets])
        dofs = (6 * nodes_of[:, :, None] + np.arange(6)).reshape(len(sets), -1)
        springs_of = np.array([every[place] for place in places])
        blocks = np.zeros((len(sets), len(joined), 6, nodes_of.shape[1], 6))
        for n, (i, j) in enumerate(joined):
            G = elements.G[springs_of[:, n]]
            blocks[:, n, :, i] += G[:, :, :6]
            if j >= 0:
                blocks[:, n, :, j] += G[:, :, 6:]
        rows = _scaled(blocks.reshape(*blocks.shape[:3], -1), dofs[:, None, None], size)
        for place, own, some, rigid in zip(places, dofs, rows, elements.rigid[springs_of], strict=True):
            found[place] = RigidSet(own, some[rigid], 0)
    return tuple(found[place] for place in range(len(every)))


def _rigid_set(
    members: list[int], springs: Springs, elements: SpringElements, fixed: BoolArray, size: float
) -> RigidSet:
    i, j = springs.i[members], springs.j[members]
    nodes = np.unique(np.concatenate([i, j[j >= 0]]))
    dofs = (6 * nodes[:, None] + np.arange(6)).ravel()
    held = np.flatnonzero(fixed[nodes].ravel())
    blocks = np.zeros((len(members), 6, len(nodes), 6))
    each = np.arange(len(members))
    G = elements.G[members]
    blocks[each, :, np.searchsorted(nodes, i)] += G[:, :, :6]
    other = np.flatnonzero(j >= 0)
    blocks[other, :, np.searchsorted(nodes, j[other])] += G[other, :, 6:]
    rows = blocks.reshape(len(members), 6, -1)[elements.rigid[members]]
    if len(held):
        rows = np.vstack([np.eye(len(dofs))[held], rows])
    return RigidSet(dofs, _scaled(rows, dofs, size), len(held))


def _scaled(rows: FloatArray, dofs: IntArray, size: float) -> FloatArray:
    turn = dofs % 6 >= 3
    scaled = np.where(turn, rows / size, rows)
    largest = np.abs(scaled).max(axis=-1, keepdims=True)
    return np.asarray(np.where(turn, scaled * size, scaled) / largest)


def _dependent(one: RigidSet, fixed: BoolArray, size: float) -> Row:
    """Return the set's dependent freedoms, what they follow and by which factors, by their places in it."""
    turns = one.dofs % 6 >= 3
    return _reduced(one.rows.round(13).tobytes(), len(one.rows), turns.tobytes(), fixed[one.dofs].tobytes(), size)


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
