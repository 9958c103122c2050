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
    return linked(len(frame.nodes), first, second)


def linked(count: int, first: IntArray, second: IntArray) -> IntArray:
    """Return for each of `count` nodes the number of its part, where pairs (n,) hang together; parts by their first."""
    number: IntArray = np.arange(count)
    before: IntArray = np.zeros(0, dtype=np.intp)
    while not np.array_equal(number, before):
        before = number
        least = np.minimum(before[first], before[second])
        number = before.copy()
        for ends in (first, second):
            np.minimum.at(number, ends, least)
            np.minimum.at(number, before[ends], least)
        number = number[number]
    return np.asarray(np.unique(number, return_inverse=True)[1].ravel(), dtype=np.intp)
