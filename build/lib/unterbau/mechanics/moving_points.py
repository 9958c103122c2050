"""Points of a substructure that may move along it, and what they move by; those that stand alike are taken together."""

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from unterbau.mechanics.arrays import FloatArray, IntArray
from unterbau.mechanics.substructures import Substructure

FEW = 40
"""Of so many positions the movement of all nodes by their loads is kept."""


@dataclass(frozen=True, slots=True)
class Point:
    """A point of a substructure that may move along it; it has U different positions."""

    substructure: int
    position: IntArray
    """Which of its positions it has at each place of the travel, shape (n_places,)."""
    nodes: IntArray
    """Nodes of the substructure that its movement is made of, shape (U, m)."""
    share: FloatArray
    """Their movements to its own, global axes, shape (U, m, 6, 6)."""
    beam: IntArray
    """Beam that it stands inside of, or -1, shape (U,)."""
    station: FloatArray
    """m from that beam's first end, shape (U,)."""
    arm: FloatArray
    """From the movement of the beam's axis to its own, shape (U, 6, 6)."""
    sinking: FloatArray
    """Movement by the beam's own weight between its ends, shape (U, 6)."""


@dataclass(frozen=True, slots=True)
class Block:
    """What a point does in the equations."""

    point: Point
    rows: slice
    factor: FloatArray
    """Its movement to the rows', shape (r, 6)."""

    @property
    def as_it_is(self) -> bool:
        """Whether the rows are its movement itself."""
        return self.factor.shape == (6, 6) and bool((self.factor == np.eye(6)).all())


class InnerFlexibility:
    """Flexibility of host beams between their held ends."""

    def between(self, host: IntArray, at: FloatArray, load_at: FloatArray) -> FloatArray:
        """Return the movement of beams' axes at stations by loads at others, m from the first end, (n, 6, 6)."""
        raise NotImplementedError


class Group:
    """Blocks of one substructure whose points have the same position at every place."""

    def __init__(self, blocks: list[Block], substructure: Substructure) -> None:
        self.of = substructure
        self.position = blocks[0].point.position
        self.rows = np.unique(np.concatenate([np.arange(one.rows.start, one.rows.stop) for one in blocks]))
        self.count = len(blocks[0].point.nodes)
        dofs, shares, self.hosted = list[IntArray](), list[FloatArray](), list[tuple[Point, slice, FloatArray]]()
        self.sinking = np.zeros((self.count, len(self.rows)))
        for one in blocks:
            start = int(np.searchsorted(self.rows, one.rows.start))
            rows = slice(start, start + len(one.factor))
            own = one.point.share if one.as_it_is else one.factor @ one.point.share
            counts = np.any(np.any(own, axis=0), axis=1)  # the work pushes on nodes, it does not turn them
            dofs.append((6 * one.point.nodes[:, :, None] + np.arange(6))[:, counts])
            share = own.transpose(0, 2, 1, 3)[:, :, counts]
            if len(blocks) > 1:
                every = np.zeros((self.count, len(self.rows), share.shape[2]))
                every[:, rows] = share
                share = every
            shares.append(share)
            self.sinking[:, rows] += one.point.sinking @ one.factor.T
            if (one.point.beam >= 0).any():
                self.hosted.append((one.point, rows, one.factor))
        self.dofs, self.share = np.concatenate(dofs, axis=1), np.concatenate(shares, axis=2)
        self.sinking += (self.share @ substructure.sinking[self.dofs][:, :, None])[:, :, 0]

    @property
    def turning(self) -> FloatArray:
        """Movement of its rows with the substructure as a rigid body, shape (U, R, 6 or 0)."""
        return self.share @ self.of.rigid[self.dofs]

    @cached_property
    def by_all(self) -> FloatArray:
        """Movement of its rows by loads on all nodes of the substructure, shape (U, R, 6·n_nodes)."""
        return self.share @ self.of.between[self.dofs]


def bending(a: Group, b: Group, at: IntArray, bt: IntArray, inner: InnerFlexibility) -> FloatArray:
    """Return the movement of one group's rows by forces on another's, in pairs of positions, shape (n, R_a, R_b)."""
    value = _by_nodes(a, b, at, bt)
    pairs = [
        (first, second, np.flatnonzero((first[0].beam[at] >= 0) & (first[0].beam[at] == second[0].beam[bt])))
        for first in a.hosted
        for second in b.hosted
    ]
    pairs = [one for one in pairs if len(one[2])]
    if not pairs:
        return value
    beams = np.concatenate([first[0].beam[at[some]] for first, _, some in pairs])
    stations = np.concatenate([first[0].station[at[some]] for first, _, some in pairs])
    others = np.concatenate([second[0].station[bt[some]] for _, second, some in pairs])
    moved = inner.between(beams, stations, others)
    start = 0
    for (p, rows, factor), (q, columns, other), some in pairs:
        part = moved[start : start + len(some)]
        start += len(some)
        arms = (factor @ p.arm[at[some]]), (other @ q.arm[bt[some]]).transpose(0, 2, 1)
        value[some, rows, columns] += arms[0] @ part @ arms[1]
    return value


def _by_nodes(a: Group, b: Group, at: IntArray, bt: IntArray) -> FloatArray:
    if a.count > FEW and b.count <= FEW:
        return np.asarray(_by_nodes(b, a, bt, at).transpose(0, 2, 1)).copy()
    second = b.share[bt].transpose(0, 2, 1)
    if a.count > FEW:
        between = a.of.between[a.dofs[at][:, :, None], b.dofs[bt][:, None, :]]
        return np.asarray(a.share[at] @ between @ second)
    rows = np.arange(len(a.rows))[None, :, None]
    return np.asarray(a.by_all[at[:, None, None], rows, b.dofs[bt][:, None, :]] @ second)
