"""Rigid directions of springs, eliminated: dependent freedoms follow independent ones.

Each connected set of rigidly joined nodes is reduced by itself to row echelon form with
the largest entry as pivot; a pivot's freedom depends on the rest of its row.
"""

from dataclasses import dataclass

import numpy as np

from unterbau.mechanics.arrays import BoolArray, FloatArray, IntArray
from unterbau.mechanics.frame import Springs
from unterbau.mechanics.spring import SpringElements

REDUNDANT = 1e-10  # a row left below this share of its first size says nothing new


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

    follows: dict[int, tuple[IntArray, FloatArray]]
    """Dependent freedom -> (free freedoms, factors)."""
    sets: tuple[RigidSet, ...]


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
        return Links({}, ())
    sets = [_rigid_set(members, springs, elements, fixed, size) for members in _connected(rows, springs)]
    follows: dict[int, tuple[IntArray, FloatArray]] = {}
    for one in sets:
        follows.update(_dependent(one, fixed.ravel(), size))
    return Links(follows, tuple(sets))


def _connected(rows: IntArray, springs: Springs) -> list[list[int]]:
    root: dict[int, int] = {}

    def find(node: int) -> int:
        while root.setdefault(node, node) != node:
            node = root[node]
        return node

    for s in rows:
        if springs.j[s] >= 0:
            root[find(int(springs.i[s]))] = find(int(springs.j[s]))
    found: dict[int, list[int]] = {}
    for s in rows:
        found.setdefault(find(int(springs.i[s])), []).append(int(s))
    return list(found.values())


def _rigid_set(
    members: list[int], springs: Springs, elements: SpringElements, fixed: BoolArray, size: float
) -> RigidSet:
    ends = {int(springs.i[s]) for s in members} | {int(springs.j[s]) for s in members}
    nodes = sorted(node for node in ends if node >= 0)
    column = {node: 6 * place for place, node in enumerate(nodes)}
    dofs = np.concatenate([6 * node + np.arange(6) for node in nodes])
    held = np.flatnonzero(fixed.ravel()[dofs])
    rows = [np.eye(len(dofs))[held]]
    for s in members:
        block = np.zeros((6, len(dofs)))
        block[:, column[int(springs.i[s])] :][:, :6] += elements.G[s, :, :6]
        if springs.j[s] >= 0:
            block[:, column[int(springs.j[s])] :][:, :6] += elements.G[s, :, 6:]
        rows.append(block[elements.rigid[s]])
    return RigidSet(dofs, _scaled(np.vstack(rows), dofs, size), len(held))


def _scaled(rows: FloatArray, dofs: IntArray, size: float) -> FloatArray:
    turn = dofs % 6 >= 3
    scaled = np.where(turn, rows / size, rows)
    largest = np.abs(scaled).max(axis=1, keepdims=True)
    return np.asarray(np.where(turn, scaled * size, scaled) / largest)


def _dependent(one: RigidSet, fixed: BoolArray, size: float) -> dict[int, tuple[IntArray, FloatArray]]:
    scale = np.where(one.dofs % 6 >= 3, size, 1.0)
    C = one.rows / scale
    held = fixed[one.dofs]
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
    result = {}
    for r, pivot in enumerate(pivots):
        used = np.flatnonzero((np.abs(C[r]) > REDUNDANT) & ~held)
        used = used[used != pivot]
        factors = -C[r, used] * scale[used] / scale[pivot]
        if not held[pivot]:
            result[int(one.dofs[pivot])] = (one.dofs[used], factors)
    return result
