"""Sets of nodes that springs join rigidly, those joined alike together; worked out once a topology."""

from dataclasses import dataclass

import numpy as np

from unterbau.kept import kept_up_to
from unterbau.mechanics.arrays import BoolArray, FloatArray, IntArray
from unterbau.mechanics.connected import linked

KEPT = 10.0  # MB
SIX = np.arange(6)
Ends = tuple[tuple[int, int], ...]
Set = tuple[list[int], list[int]]
"""Its springs and its nodes."""


@dataclass(frozen=True, slots=True, eq=False)
class Sets:
    """Sets that are joined and held alike; worked out once a topology, so told apart by which they are."""

    springs: IntArray
    """Of each set, in the same order of joining, shape (s, c)."""
    rigid: BoolArray
    """Of a set's springs: which directions are rigid, flat, shape (6c,)."""
    first: IntArray
    """Of each rigid direction, the place of its spring's node in a set, shape (r,)."""
    second: IntArray
    """Of the other node; -1 for the ground."""
    dofs: IntArray
    """Freedoms of each set, ascending, shape (s, d)."""
    turns: BoolArray
    """Which of them are turns, shape (d,)."""
    held: BoolArray
    """Which of them a support holds, shape (d,)."""
    n_support: int
    """How many."""

    def constraints(self, G: FloatArray, size: float) -> FloatArray:
        """Return what is zero for all movements of each set, scaled, supports first; shape (s, r, d).

        Args:
            G: Stretch of the springs by their ends' movements, shape (s · c, 6, 12).
            size: A length, m, that makes movements and turns comparable.
        """
        s, d = self.dofs.shape
        stretch = G.reshape(s, -1, 12)[:, self.rigid]
        rows, each = np.zeros((s, stretch.shape[1], d // 6, 6)), np.arange(stretch.shape[1])
        rows[:, each, self.first] = stretch[:, :, :6]
        joined = self.second >= 0
        rows[:, each[joined], self.second[joined]] += stretch[:, joined, 6:]
        rows = rows.reshape(s, -1, d)
        if self.n_support:
            support = np.broadcast_to(np.eye(d)[self.held], (s, self.n_support, d))
            rows = np.concatenate([support, rows], axis=1)
        largest = (np.abs(rows) * np.where(self.turns, 1.0 / size, 1.0)).max(axis=2, keepdims=True)
        return np.asarray(rows / largest)


@kept_up_to(KEPT)
def alike_in(ends: bytes, rigid: bytes, fixed: bytes) -> tuple[Sets, ...]:
    """Return the sets that springs join.

    Args:
        ends: Nodes of each spring, shape (2, n), the second -1 for the ground.
        rigid: Which directions of each are rigid, shape (n, 6).
        fixed: Supports, shape (n_nodes, 6).
    """
    first, second = np.frombuffer(ends, dtype=np.intp).reshape(2, -1).tolist()
    directions = np.frombuffer(rigid, dtype=bool).reshape(-1, 6)
    support = np.frombuffer(fixed, dtype=bool).reshape(-1, 6)
    alike: dict[tuple[Ends, bytes, bytes], list[Set]] = {}
    for members in _connected(first, second):
        nodes = sorted({node for s in members for node in (first[s], second[s]) if node >= 0})
        where = {node: n for n, node in enumerate(nodes)}
        joined = tuple((where[first[s]], where.get(second[s], -1)) for s in members)
        sort = joined, directions[members].tobytes(), support[nodes].tobytes()
        alike.setdefault(sort, []).append((members, nodes))
    return tuple(_sets(sets, joined, directions, support) for (joined, *_), sets in alike.items())


def _sets(sets: list[Set], joined: Ends, directions: BoolArray, support: BoolArray) -> Sets:
    springs, nodes = zip(*sets, strict=True)
    rigid, held = directions[springs[0]].ravel(), support[nodes[0]].ravel()
    dofs = (6 * np.array(nodes)[:, :, None] + SIX).reshape(len(sets), -1)
    first, second = np.repeat(np.array(joined).T, 6, axis=1)[:, rigid]
    return Sets(np.array(springs), rigid, first, second, dofs, dofs[0] % 6 >= 3, held, int(held.sum()))


def _connected(first: list[int], second: list[int]) -> list[list[int]]:
    """Return the springs of each set of connected nodes."""
    i, j = np.array(first), np.array(second)
    part = linked(max(first + second) + 1, i, np.where(j >= 0, j, i))
    found: dict[int, list[int]] = {}
    for s, number in enumerate(part[i].tolist()):
        found.setdefault(number, []).append(s)
    return list(found.values())
