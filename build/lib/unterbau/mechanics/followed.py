"""Elements on the freedoms that their own follow, and their places in the band; both are worked out once a topology."""

import itertools
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np

from unterbau.kept import kept_up_to
from unterbau.mechanics.arrays import BoolArray, FloatArray, IntArray
from unterbau.mechanics.mass_matrix import Pattern
from unterbau.mechanics.numbering import Numbering, number
from unterbau.mechanics.rigid_link import Links

KEPT = 90.0  # MB
Batch = tuple[IntArray, FloatArray]
"""Freedoms (n, k) and matrices (n, k, k) of elements of one size."""
Turns = tuple[FloatArray | None, ...]
"""For each kind: what its free freedoms move of the elements' own, (n, k, m); nothing where these are free."""


@dataclass(frozen=True, slots=True)
class Kind:
    """Elements of one batch that follow as many freedoms."""

    batch: int
    which: IntArray
    """Of the batch, shape (n,)."""
    free: IntArray
    """The freedoms they stand on, each once, the last again up to the longest, shape (n, m)."""
    row: IntArray
    """Of each of their own freedoms in the links, one beyond the last where it is free; shape (n, k)."""
    place: IntArray | None
    """Of each factor in what turns free movements into their own, flat; nothing where all their own are free."""
    width: int
    """Factors of a freedom."""


@dataclass(frozen=True, slots=True)
class Plan:
    """How the batches of a topology are put together."""

    kinds: tuple[Kind, ...]
    numbering: Numbering
    heavy: Pattern
    """Where the mass matrix has entries."""


def plan_of(batches: Sequence[IntArray], massive: int, links: Links, held: BoolArray) -> Plan:
    """Return how batches of elements are put together.

    Args:
        batches: Freedoms of the elements, each (n, k).
        massive: The first of them that has a mass.
        links: Dependent freedoms.
        held: Freedoms that are no unknowns, dependent ones apart, shape (6 · n_nodes,).
    """
    shapes = tuple(dofs.shape for dofs in batches)
    arrays = (np.concatenate([dofs.ravel() for dofs in batches]), links.dependent, links.masters, links.used, held)
    return _plan(shapes, massive, *(one.tobytes() for one in arrays))


@kept_up_to(KEPT)
def _plan(
    shapes: tuple[tuple[int, int], ...],
    massive: int,
    every: bytes,
    dependent: bytes,
    masters: bytes,
    used: bytes,
    held: bytes,
) -> Plan:
    follow = np.frombuffer(dependent, dtype=np.intp)
    count = max(len(follow), 1)
    topology = _Topology(
        follow,
        np.frombuffer(masters, dtype=np.intp).reshape(count, -1)[: len(follow)],
        np.frombuffer(used, dtype=bool).reshape(count, -1)[: len(follow)],
        max(len(held), int(follow.max(initial=-1)) + 1),
    )
    flat, kinds, light = np.frombuffer(every, dtype=np.intp), list[Kind](), 0
    for which, (n, k) in enumerate(shapes):
        kinds += topology.kinds(which, flat[: n * k].reshape(n, k))
        flat = flat[n * k :]
        if which < massive:
            light = sum(one.free.shape[0] * one.free.shape[1] ** 2 for one in kinds)
    fixed = np.frombuffer(held, dtype=bool).copy()
    fixed[follow[follow < len(fixed)]] = True
    splits = tuple(itertools.chain.from_iterable([one.free.shape[1]] * len(one.free) for one in kinds))
    dofs = np.concatenate([np.zeros(0, dtype=np.intp), *(one.free.ravel() for one in kinds)])
    numbering = number(dofs, splits, np.flatnonzero(~fixed), len(fixed) // 6)
    return Plan(tuple(kinds), numbering, Pattern.of(numbering, numbering.target[light:]))


class _Topology:
    """Which freedoms follow which."""

    def __init__(self, dependent: IntArray, masters: IntArray, used: BoolArray, size: int) -> None:
        self.masters, self.used, self.free = masters, used, len(dependent)
        self.row_of = np.full(size, self.free)
        self.row_of[dependent] = np.arange(self.free)
        self.need = np.append(np.maximum((used * np.arange(1, used.shape[1] + 1)).max(axis=1, initial=0), 1), 0)

    def kinds(self, batch: int, dofs: IntArray) -> Iterator[Kind]:
        """Yield the kinds of a batch."""
        rows = self.row_of[dofs]
        wide = self.need[rows].max(axis=1) if dofs.size else np.zeros(len(dofs), dtype=np.intp)
        for width in np.unique(wide).tolist():
            some = np.flatnonzero(wide == width)
            free, place = (dofs[some], None) if width == 0 else self._stood_on(dofs[some], rows[some], width)
            yield Kind(batch, some, free, rows[some], place, width)

    def _stood_on(self, dofs: IntArray, rows: IntArray, width: int) -> tuple[IntArray, IntArray]:
        """Return the freedoms that elements (n, k) stand on, (n, m), and the places of factors (n, k, width), flat."""
        n, k = dofs.shape
        depends = rows < self.free
        places, used = np.repeat(dofs[:, :, None], width, axis=2), np.zeros((n, k, width), dtype=bool)
        used[:, :, 0] = True
        places[depends] = self.masters[rows[depends], :width]
        used[depends] = self.used[rows[depends], :width]
        flat = np.where(used, places, places[:, :, :1]).reshape(n, k * width)
        order = np.argsort(flat, axis=1)
        ascending = np.take_along_axis(flat, order, axis=1)
        rank = np.zeros(flat.shape, dtype=np.intp)
        np.cumsum(ascending[:, 1:] != ascending[:, :-1], axis=1, out=rank[:, 1:])
        m = int(rank.max()) + 1
        free = np.repeat(ascending[:, -1:], m, axis=1)
        np.put_along_axis(free, rank, ascending, axis=1)
        which = np.empty_like(rank)
        np.put_along_axis(which, order, rank, axis=1)
        return free, (np.arange(n * k).reshape(n, k, 1) * m + which.reshape(n, k, width)).ravel()


def turns(plan: Plan, links: Links) -> Turns:
    """Return what moves the elements of each kind."""
    width = links.factors.shape[1]
    free = np.zeros((1, width))
    free[0, 0] = 1.0
    factors = np.concatenate([links.factors, free])
    found: list[FloatArray | None] = []
    for one in plan.kinds:
        if one.place is None:
            found.append(None)
            continue
        (n, k), m = one.row.shape, one.free.shape[1]
        moved = factors[:, : one.width][one.row]
        found.append(np.asarray(np.bincount(one.place, moved.ravel(), n * k * m).reshape(n, k, m), dtype=float))
    return tuple(found)


def entries(plan: Plan, turned: Turns, first: int, matrices: Sequence[FloatArray]) -> FloatArray:
    """Return the entries of some batches on the freedoms they stand on, in a row.

    Args:
        plan: How they are put together.
        turned: What moves their elements.
        first: The first of the batches.
        matrices: Of each batch from there on, (n, k, k).
    """
    found = []
    for kind, T in zip(plan.kinds, turned, strict=True):
        if not first <= kind.batch < first + len(matrices):
            continue
        every = matrices[kind.batch - first]
        some = every if len(kind.which) == len(every) else every[kind.which]
        found.append((some if T is None else T.transpose(0, 2, 1) @ some @ T).ravel())
    return np.concatenate(found) if found else np.zeros(0)
