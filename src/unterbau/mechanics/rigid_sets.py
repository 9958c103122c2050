"""Sets of nodes that springs join rigidly, those joined alike together; worked out once a topology."""

from dataclasses import dataclass

import numpy as np

from unterbau.kept import kept_up_to
from unterbau.mechanics.arrays import BoolArray, FloatArray, IntArray

KEPT = 10.0  # MB
SIX = np.arange(6)
Ends = tuple[tuple[int, int], ...]
Set = tuple[int, list[int], list[int]]
"""Its place among all, its springs, its nodes."""


@dataclass(frozen=True, slots=True)
class Sets:
    """Sets that are joined and held alike."""

    places: tuple[int, ...]
    """Among all sets."""
    springs: IntArray
    """Of each set, in the same order of joining, shape (s, c)."""
    ends: Ends
    """Of each spring: its nodes' places in a set, -1 for the ground."""
    rigid: BoolArray
    """Of a set's springs: which directions are rigid, flat, shape (6c,)."""
    dofs: IntArray
    """Freedoms of each set, ascending, shape (s, d)."""
    turns: BoolArray
    """Which of them are turns, shape (d,)."""
    held: BoolArray
    """Which of them a support holds, shape (d,)."""

    @property
    def n_support(self) -> int:
        """How many freedoms of a set are held."""
        return int(self.held.sum())

    def constraints(self, G: FloatArray, size: float) -> FloatArray:
        """Return what is zero for all movements of each set, scaled, supports first; shape (s, r, d).

        Args:
            G: Stretch of the springs by their ends' movements, shape (s, c, 6, 12).
            size: A length, m, that makes movements and turns comparable.
        """
        s, d = self.dofs.shape
        blocks = np.zeros((s, len(self.ends), 6, d // 6, 6))
        for n, (i, j) in enumerate(self.ends):
            blocks[:, n, :, i] += G[:, n, :, :6]
            if j >= 0:
                blocks[:, n, :, j] += G[:, n, :, 6:]
        rows = blocks.reshape(s, -1, d)[:, self.rigid]
        if self.held.any():
            support = np.broadcast_to(np.eye(d)[self.held], (s, self.n_support, d))
            rows = np.concatenate([support, rows], axis=1)
        scaled = np.where(self.turns, rows / size, rows)
        largest = np.abs(scaled).max(axis=2, keepdims=True)
        return np.asarray(np.where(self.turns, scaled * size, scaled) / largest)


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
    for place, members in enumerate(_connected(first, second)):
        nodes = sorted({node for s in members for node in (first[s], second[s]) if node >= 0})
        where = {node: n for n, node in enumerate(nodes)}
        joined = tuple((where[first[s]], where.get(second[s], -1)) for s in members)
        sort = joined, directions[members].tobytes(), support[nodes].tobytes()
        alike.setdefault(sort, []).append((place, members, nodes))
    return tuple(_sets(sets, joined, directions, support) for (joined, *_), sets in alike.items())


def _sets(sets: list[Set], joined: Ends, directions: BoolArray, support: BoolArray) -> Sets:
    places, springs, nodes = zip(*sets, strict=True)
    dofs = (6 * np.array(nodes)[:, :, None] + SIX).reshape(len(sets), -1)
    return Sets(
        tuple(places), np.array(springs), joined, directions[springs[0]].ravel(), dofs, dofs[0] % 6 >= 3,
        support[nodes[0]].ravel(),
    )  # fmt: skip


def _connected(first: list[int], second: list[int]) -> list[list[int]]:
    """Return the springs of each set of connected nodes."""
    root: dict[int, int] = {}

    def find(node: int) -> int:
        while root.setdefault(node, node) != node:
            node = root[node]
        return node

    for i, j in zip(first, second, strict=True):
        if j >= 0:
            root[find(i)] = find(j)
    found: dict[int, list[int]] = {}
    for s, i in enumerate(first):
        found.setdefault(find(i), []).append(s)
    return list(found.values())
