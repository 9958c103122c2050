"""Tool against work at many places of the travel: substructures joined by contacts that move.

Unknown are the contacts' forces and the floating substructures' rigid movements; they are few, so every
place is a small dense system, solved in one batch. Derivation in docs/theory/travel.md.
"""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from unterbau.mechanics.arrays import FloatArray, IntArray
from unterbau.mechanics.moving_points import Block, Group, InnerFlexibility, Point, bending
from unterbau.mechanics.substructures import Substructure

FORCE = 1e7  # unit of the contacts' forces, so that both kinds of unknowns are of one size
CHUNK = 64


@dataclass(frozen=True, slots=True)
class Contact:
    """Springs between two points."""

    first: Point
    second: Point
    axes: FloatArray
    """Global movements to movements along and about the springs' own axes, shape (6, 6)."""
    flexibility: FloatArray
    """m/N, rad/(N·m) at each place, shape (n_places, 6); inf where there is no spring."""


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


@dataclass(frozen=True, slots=True)
class _Part:
    """What one pair of groups adds to the equations, for each different position of its points."""

    rows: IntArray
    columns: IntArray
    values: FloatArray
    """Shape (U, r, c)."""
    which: IntArray
    """Of these at each place, shape (n_places,)."""


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
        blocks, self._springs = _blocks(contacts, tool, work)
        self._arms, self._inner, self._size = arms, inner, blocks[-1].rows.stop
        self._groups = _groups(blocks, substructures)
        floating = [number for number, one in enumerate(substructures) if one.rigid.shape[1]]
        self._column = {id(substructures[number]): 6 * place for place, number in enumerate(floating)}
        weights = [substructures[number].weight for number in floating]
        self._weight = np.concatenate(weights) if weights else np.zeros(0)

    def answers(self, rows: IntArray) -> Swept:
        """Return tool against work at some of the places: compliance and sinking."""
        bends, turns, sinks = self._bending(rows), self._turning(rows), self._sinking(rows)
        held, size, n = self._springs.shape[1], self._size, len(rows)
        found = []
        for start in range(0, n, CHUNK):
            places = slice(start, min(start + CHUNK, n))
            half = _filled(bends, places, size, size)
            F = half + half.transpose(0, 2, 1)
            R = _filled(turns, places, size, len(self._weight))
            sunk = _filled(sinks, places, size, 1)[:, :, 0]
            springs, pulls = self._springs[rows[places]], _pulls(self._arms[rows[places]])
            found.append(_solve(F, R, sunk, springs, self._weight, pulls, held))
        return Swept(np.concatenate([one.compliance for one in found]), np.concatenate([one.sinking for one in found]))

    def _bending(self, places: IntArray) -> list[_Part]:
        """Return movements of groups by forces on groups of the same substructure; the transpose is still to add."""
        parts = []
        for a, b in _pairs(self._groups):
            at, bt, which = _positions(a, b, places)
            value = np.concatenate(
                [bending(a, b, at[k : k + CHUNK], bt[k : k + CHUNK], self._inner) for k in range(0, len(at), CHUNK)]
            )
            parts.append(_Part(a.rows, b.rows, value / 2 if a is b else value, which))
        return parts

    def _turning(self, places: IntArray) -> list[_Part]:
        """Return movements of groups with their substructures as rigid bodies."""
        parts = []
        for one in self._groups:
            if one.of.rigid.shape[1]:
                columns = self._column[id(one.of)] + np.arange(6)
                parts.append(_Part(one.rows, columns, one.turning, one.position[places]))
        return parts

    def _sinking(self, places: IntArray) -> list[_Part]:
        """Return movements of groups by weight."""
        column = np.zeros(1, dtype=np.intp)
        return [_Part(one.rows, column, one.sinking[:, :, None], one.position[places]) for one in self._groups]


def _blocks(contacts: list[Contact], tool: Point, work: Point) -> tuple[list[Block], FloatArray]:
    blocks, springs, row = [], [], 0
    for contact in contacts:
        used = np.flatnonzero(np.isfinite(contact.flexibility).all(axis=0))
        rows = slice(row, row + len(used))
        blocks += [Block(contact.first, rows, contact.axes[used]), Block(contact.second, rows, -contact.axes[used])]
        springs.append(contact.flexibility[:, used])
        row += len(used)
    blocks += [
        Block(tool, slice(row, row + 3), np.eye(6)[:3]),
        Block(work, slice(row + 3, row + 9), np.eye(6)),
    ]
    return blocks, np.concatenate(springs, axis=1)


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
    pairs, which = np.unique(a.position[places] * b.count + b.position[places], return_inverse=True)
    at, bt = np.divmod(pairs, b.count)
    return at, bt, which.ravel()


def _filled(parts: list[_Part], places: slice, rows: int, columns: int) -> FloatArray:
    """Return the parts summed for some of the places, shape (n, rows, columns)."""
    found = np.zeros((places.stop - places.start, rows, columns))
    for part in parts:
        values = part.values if len(part.values) == 1 else part.values[part.which[places]]
        found[:, part.rows[:, None], part.columns] += values
    return found


def _pulls(arms: FloatArray) -> FloatArray:
    """Return loads on the tool's and the work's rows by pulls along x, y, z, (n, 9, 3)."""
    unit = np.eye(3)
    pulls = np.zeros((len(arms), 9, 3))
    pulls[:, :3], pulls[:, 3:6] = unit, -unit
    for axis in range(3):
        pulls[:, 6:, axis] = -np.cross(arms, unit[axis])
    return pulls


def _solve(
    F: FloatArray, R: FloatArray, sunk: FloatArray, springs: FloatArray, weight: FloatArray, pulls: FloatArray,
    held: int,
) -> Swept:  # fmt: skip
    n, free = len(F), R.shape[2]
    size = held + free
    A, right = np.zeros((n, size, size)), np.zeros((n, size, 4))
    A[:, :held, :held] = F[:, :held, :held] * FORCE
    step = np.arange(held)
    A[:, step, step] += springs * FORCE
    A[:, :held, held:] = -R[:, :held]
    A[:, held:, :held] = -R[:, :held].transpose(0, 2, 1)
    tail = slice(held, None)
    right[:, :held, :3] = F[:, :held, tail] @ pulls
    right[:, :held, 3] = sunk[:, :held]
    right[:, held:, :3] = -(R[:, tail].transpose(0, 2, 1) @ pulls) / FORCE
    right[:, held:, 3] = -weight / FORCE
    x = np.linalg.solve(A, right)
    force, rigid = x[:, :held] * FORCE, x[:, held:]
    moved = R[:, tail] @ rigid - F[:, tail, :held] @ force
    moved[:, :, :3] += F[:, tail, tail] @ pulls
    moved[:, :, 3] += sunk[:, tail]
    answer = pulls.transpose(0, 2, 1) @ moved
    C = answer[:, :, :3]
    return Swept((C + C.transpose(0, 2, 1)) / 2, answer[:, :, 3])
