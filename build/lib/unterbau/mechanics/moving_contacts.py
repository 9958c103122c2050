"""Tool against work at many places of the travel: substructures joined by contacts that move.

Unknown are the contacts' forces and the floating substructures' rigid movements. Part for part they are
eliminated, from the tool and the work to the ground, so that every place is a small dense system in the end.
Derivation in docs/theory/travel.md.
"""

import itertools
from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from unterbau.mechanics.arrays import FloatArray, IntArray, cross_matrices
from unterbau.mechanics.eliminated import Part, eliminated, filled
from unterbau.mechanics.moving_points import FEW, Block, Group, InnerFlexibility, Point, bending
from unterbau.mechanics.substructures import Substructure

FORCE = 1e7  # unit of the contacts' forces, so that both kinds of unknowns are of one size
CHUNK = 64
Held = tuple[IntArray, FloatArray, IntArray]


@dataclass(frozen=True, slots=True)
class Contact:
    """Springs between two points."""

    first: Point
    second: Point
    axes: FloatArray
    """Global movements to movements along and about the springs' own axes, shape (6, 6)."""
    flexibility: FloatArray
    """m/N, rad/(N·m), what there is of different ones, shape (n, 6); inf where there is no spring."""
    which: IntArray
    """Which of these it is at each place, shape (n_places,)."""


@dataclass(frozen=True, slots=True)
class Swept:
    """Answers over the travel."""

    compliance: FloatArray
    """Tool against work, m/N, shape (n_places, 3, 3)."""
    sinking: FloatArray
    """Tool against work by weight, m, along x, y, z, shape (n_places, 3)."""

    def of(self, places: IntArray) -> "Swept":
        """Return the answers at some of the places."""
        return Swept(self.compliance[places], self.sinking[places])


class Joined:
    """Substructures joined by contacts that move: put together once for a number of places, asked for some of them."""

    def __init__(
        self,
        substructures: tuple[Substructure, ...],
        contacts: list[Contact],
        tool: Point,
        work: Point,
        arms: FloatArray,
        inner: InnerFlexibility,
    ) -> None:
        """Put together.

        Args:
            substructures: What the contacts join.
            contacts: The contacts.
            tool: Where the tool is pulled.
            work: What is pushed back.
            arms: From the work's point to the tool, m, shape (n_places, 3).
            inner: Flexibility of the beams that contacts stand inside of.
        """
        contacts = sorted(contacts, key=_ends)  # so that rows of the same two stand side by side
        blocks, self._springs = _blocks(contacts, tool, work)
        self._arms, self._inner = arms, inner
        self._groups = _groups(blocks, substructures)
        free = np.cumsum([0, *(one.rigid.shape[1] for one in substructures)])
        self._column = {id(one): blocks[-1].rows.stop + start for one, start in zip(substructures, free, strict=False)}
        self._weight = np.concatenate([one.weight for one in substructures])
        self._by_weight = blocks[-1].rows.stop + int(free[-1])
        self._left = np.append(np.arange(blocks[-2].rows.start, blocks[-1].rows.stop), self._by_weight)
        self._steps = _steps(contacts, [one.rows for one in blocks[0:-2:2]], self._rigid(substructures))

    def answers(self, places: IntArray) -> Swept:
        """Return tool against work at some of the places: compliance and sinking."""
        parts = [*self._bending(places), *self._holding(places), *self._turning(places), *self._sinking(places)]
        size, n = self._by_weight + 1, len(places)
        for step in self._steps:
            parts = eliminated(parts, step, size, n)
        moved, pulls = filled(parts, self._left, size, n), _pulls(self._arms[places])
        C = pulls.transpose(0, 2, 1) @ moved[:, :-1, :-1] @ pulls
        return Swept((C + C.transpose(0, 2, 1)) / 2, (pulls.transpose(0, 2, 1) @ moved[:, :-1, -1:])[:, :, 0])

    def _rigid(self, substructures: tuple[Substructure, ...]) -> list[IntArray]:
        """Return the unknowns of each substructure that floats."""
        return [self._column[id(one)] + np.arange(one.rigid.shape[1]) for one in substructures]

    def _bending(self, places: IntArray) -> list[Part]:
        """Return movements of groups by forces on groups of the same substructure."""
        return [
            *(replace(one, which=one.which[places]) for one in self._few),
            *(self._moved(a, b, places) for a, b in _pairs(self._groups) if max(a.count, b.count) > FEW),
        ]

    @cached_property
    def _few(self) -> list[Part]:
        """What groups of few positions move by each other, for all places."""
        pairs = [(a, b) for a, b in _pairs(self._groups) if max(a.count, b.count) <= FEW]
        return [self._moved(a, b, np.arange(len(self._arms))) for a, b in pairs]

    def _moved(self, a: Group, b: Group, places: IntArray) -> Part:
        at, bt, which = _positions(a, b, places)
        value = np.concatenate(
            [bending(a, b, at[k : k + CHUNK], bt[k : k + CHUNK], self._inner) for k in range(0, len(at), CHUNK)]
        )
        return Part(a.rows, b.rows, value / 2 if a is b else value, which)

    def _holding(self, places: IntArray) -> list[Part]:
        """Return the contacts' own flexibility."""
        return [Part(rows, rows, values, which[places]) for rows, values, which in self._springs]

    def _turning(self, places: IntArray) -> list[Part]:
        """Return movements of groups with their substructures as rigid bodies, and their weights."""
        parts = []
        for one in self._groups:
            if one.of.rigid.shape[1]:
                columns = self._column[id(one.of)] + np.arange(6)
                parts.append(Part(one.rows, columns, -one.turning, one.position[places]))
        if len(self._weight):
            rows = self._by_weight - len(self._weight) + np.arange(len(self._weight))
            still = np.zeros(len(places), dtype=np.intp)
            parts.append(Part(rows, np.array([self._by_weight]), -self._weight[None, :, None], still))
        return parts

    def _sinking(self, places: IntArray) -> list[Part]:
        """Return movements of groups by weight."""
        column = np.array([self._by_weight])
        return [Part(one.rows, column, one.sinking[:, :, None], one.position[places]) for one in self._groups]


def _blocks(contacts: list[Contact], tool: Point, work: Point) -> tuple[list[Block], list[Held]]:
    blocks, springs, row = [], [], 0
    for contact in contacts:
        used = np.flatnonzero(np.isfinite(contact.flexibility).all(axis=0))
        rows = slice(row, row + len(used))
        axes = FORCE * contact.axes[used]
        blocks += [Block(contact.first, rows, axes), Block(contact.second, rows, -axes)]
        half = FORCE**2 / 2 * contact.flexibility[:, used, None] * np.eye(len(used))
        springs.append((np.arange(rows.start, rows.stop), half, contact.which))
        row += len(used)
    blocks += [
        Block(tool, slice(row, row + 3), np.eye(6)[:3]),
        Block(work, slice(row + 3, row + 9), np.eye(6)),
    ]
    return blocks, springs


def _ends(one: Contact) -> tuple[int, int]:
    first, second = one.first.substructure, one.second.substructure
    return min(first, second), max(first, second)


def _steps(contacts: list[Contact], rows: list[slice], rigid: list[IntArray]) -> list[IntArray]:
    """Return the unknowns in the order they go: of what is held by one other part alone first, with what holds it."""
    ends = [_ends(one) for one in contacts]
    left, steps = set(range(len(contacts))), list[IntArray]()
    floating = [number for number, mine in enumerate(rigid) if len(mine)]
    while floating:
        for number in floating:
            touching = {n for n in left if number in ends[n]}
            if touching and len({*itertools.chain.from_iterable(ends[n] for n in touching)}) == 2:
                break
        else:
            break
        floating.remove(number)
        left -= touching
        steps.append(np.concatenate([*(np.arange(rows[n].start, rows[n].stop) for n in touching), rigid[number]]))
    last = [*(np.arange(rows[n].start, rows[n].stop) for n in left), *(rigid[number] for number in floating)]
    return [*steps, np.concatenate(last)] if last else steps


def _groups(blocks: list[Block], substructures: tuple[Substructure, ...]) -> list[Group]:
    """Return blocks together whose points are of one substructure and stand alike at every place."""
    alike: dict[tuple[int, int, bytes], list[Block]] = {}
    for block in blocks:
        point = block.point
        alike.setdefault((point.substructure, len(point.nodes), point.position.tobytes()), []).append(block)
    return [Group(some, substructures[number]) for (number, _, _), some in alike.items()]


def _pairs(groups: list[Group]) -> Iterator[tuple[Group, Group]]:
    for number, a in enumerate(groups):
        for b in groups[number:]:
            if a.of is b.of:
                yield a, b


def _positions(a: Group, b: Group, places: IntArray) -> tuple[IntArray, IntArray, IntArray]:
    """Return the different pairs of positions that some places have, and which pair each of these has."""
    of_places = a.position[places] * b.count + b.position[places]
    there = np.zeros(a.count * b.count, dtype=bool)
    there[of_places] = True
    at, bt = np.divmod(np.flatnonzero(there), b.count)
    return at, bt, (np.cumsum(there) - 1)[of_places]


def _pulls(arms: FloatArray) -> FloatArray:
    """Return loads on the tool's and the work's rows by pulls along x, y, z, (n, 9, 3)."""
    unit = np.eye(3)
    pulls = np.zeros((len(arms), 9, 3))
    pulls[:, :3], pulls[:, 3:6], pulls[:, 6:] = unit, -unit, -cross_matrices(arms)
    return pulls
