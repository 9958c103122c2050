"""Which nodes hang together."""

import numpy as np

from unterbau.mechanics.arrays import BoolArray, IntArray
from unterbau.mechanics.frame import Frame


def connected(frame: Frame, springs: BoolArray | None = None, seats: BoolArray | None = None) -> IntArray:
    """Return for each node the number of its connected part; springs to ground join nothing.

    Args:
        frame: The frame.
        springs: Which springs count, all where left out.
        seats: Which seats count, all where left out.
    """
    s, t = frame.springs, frame.seats
    use_s = np.ones(len(s), dtype=bool) if springs is None else springs
    use_t = np.ones(len(t), dtype=bool) if seats is None else seats
    use_s = use_s & (s.j >= 0)
    first = np.concatenate([frame.beams.i, s.i[use_s], t.node[use_t]])
    second = np.concatenate([frame.beams.j, s.j[use_s], frame.beams.i[t.beam[use_t]]])
    for plate in frame.plates:
        whole = np.concatenate([plate.patches, plate.points])
        first, second = np.concatenate([first, whole[:-1]]), np.concatenate([second, whole[1:]])
    parent = list(range(len(frame.nodes)))

    def root(node: int) -> int:
        while parent[node] != node:
            parent[node] = parent[parent[node]]
            node = parent[node]
        return node

    for i, j in zip(first.tolist(), second.tolist(), strict=True):
        parent[root(i)] = root(j)
    numbers: dict[int, int] = {}
    return np.array([numbers.setdefault(root(n), len(numbers)) for n in range(len(parent))], dtype=np.intp)
