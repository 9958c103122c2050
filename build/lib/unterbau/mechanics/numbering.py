"""Numbering of the freedoms for a small band (reverse Cuthill–McKee)."""

import itertools
from dataclasses import dataclass

import numpy as np

from unterbau.mechanics.arrays import IntArray


@dataclass(frozen=True, slots=True)
class Numbering:
    """Where each matrix entry goes in lower band storage."""

    order: IntArray
    """Free freedoms (node·6 + direction) in equation order, shape (n,)."""
    half_bandwidth: int
    target: IntArray
    """For each entry of the element matrices: flat place in the band, or the last, unused place."""
    ends: IntArray
    """Equations that begin what no element joins to those before, and n, ascending."""


def number(dofs: IntArray, splits: tuple[int, ...], free: IntArray, n_nodes: int) -> Numbering:
    """Return the numbering for elements given by their freedoms.

    Args:
        dofs: Freedoms of all elements, one after another, flat.
        splits: Number of freedoms of each element.
        free: The free freedoms, ascending.
        n_nodes: Number of nodes.
    """
    is_free = np.zeros(6 * n_nodes, dtype=bool)
    is_free[free] = True
    neighbours: list[set[int]] = [set() for _ in range(n_nodes)]
    start = 0
    for size in splits:
        mine = dofs[start : start + size]
        nodes = set((mine[is_free[mine]] // 6).tolist())
        for node in nodes:
            neighbours[node] |= nodes
        start += size
    place = np.empty(n_nodes, dtype=np.intp)
    place[_reverse_cuthill_mckee(neighbours)] = np.arange(n_nodes)
    order = free[np.lexsort((free % 6, place[free // 6]))]
    equation = np.full(6 * n_nodes, -1, dtype=np.intp)
    equation[order] = np.arange(len(order))
    return _targets(dofs, splits, equation, order)


def _targets(dofs: IntArray, splits: tuple[int, ...], equation: IntArray, order: IntArray) -> Numbering:
    rows, columns, start = [], [], 0
    for size, run in itertools.groupby(splits):
        count = len(list(run))
        mine = equation[dofs[start : start + count * size]].reshape(count, size)
        rows.append(np.repeat(mine, size, axis=1).ravel())
        columns.append(np.tile(mine, (1, size)).ravel())
        start += count * size
    row = np.concatenate(rows) if rows else np.zeros(0, dtype=np.intp)
    column = np.concatenate(columns) if columns else np.zeros(0, dtype=np.intp)
    kept = (row >= column) & (column >= 0)
    width = int((row - column)[kept].max()) if kept.any() else 0
    unused = len(order) * (width + 1)
    target = np.where(kept, column * (width + 1) + row - column, unused)
    last = np.arange(len(order))
    np.maximum.at(last, column[kept], row[kept])
    ends = np.flatnonzero(np.maximum.accumulate(last) <= np.arange(len(order))) + 1
    return Numbering(order, width, target, ends)


def _reverse_cuthill_mckee(neighbours: list[set[int]]) -> list[int]:
    order: list[int] = []
    seen = [False] * len(neighbours)
    degree = [len(n) for n in neighbours]
    for seed in sorted(range(len(neighbours)), key=degree.__getitem__):
        if seen[seed]:
            continue
        levels = _levels(_far_end(seed, neighbours, degree), neighbours, degree)
        for node in levels:
            seen[node] = True
        order += levels
    return order[::-1]


def _far_end(seed: int, neighbours: list[set[int]], degree: list[int]) -> int:
    best, depth = seed, -1
    for _ in range(4):
        distance = {best: 0}
        queue = [best]
        for node in queue:
            for other in neighbours[node]:
                if other not in distance:
                    distance[other] = distance[node] + 1
                    queue.append(other)
        reached = distance[queue[-1]]
        if reached <= depth:
            break
        depth = reached
        best = min((n for n in queue if distance[n] == reached), key=degree.__getitem__)
    return best


def _levels(start: int, neighbours: list[set[int]], degree: list[int]) -> list[int]:
    queue, seen = [start], {start}
    for node in queue:
        found = sorted((n for n in neighbours[node] if n not in seen), key=lambda n: (degree[n], n))
        seen.update(found)
        queue += found
    return queue
