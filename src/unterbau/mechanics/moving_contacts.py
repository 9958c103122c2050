"""Tool against work at many places of the travel: substructures joined by contacts that move.

Unknown are the contacts' forces and the floating substructures' rigid movements; they are few, so every
place is a small dense system, solved in one batch. Derivation in docs/theory/travel.md.
"""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from unterbau.mechanics.arrays import BoolArray, FloatArray, IntArray
from unterbau.mechanics.substructures import Substructure

FORCE = 1e7  # unit of the contacts' forces, so that both kinds of unknowns are of one size
CHUNK = 64


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
class _Block:
    point: Point
    rows: slice
    factor: FloatArray
    """Its movement to the rows', shape (r, 6)."""


@dataclass(frozen=True, slots=True)
class _Part:
    """What one block adds to the equations, for each different position of its points."""

    rows: slice
    columns: slice
    values: FloatArray
    """Shape (U, r, c)."""
    which: IntArray
    """Of these at each place, shape (n_places,)."""


class InnerFlexibility:
    """Flexibility of host beams between their held ends."""

    def between(self, a: Point, b: Point, at: IntArray, bt: IntArray, same: BoolArray) -> FloatArray:
        """Return the movement of `a` by loads on `b` in positions `at`, `bt`, zero but where `same`; (n, 6, 6)."""
        raise NotImplementedError


def sweep(
    substructures: tuple[Substructure, ...],
    contacts: list[Contact],
    tool: Point,
    work: Point,
    arms: FloatArray,
    inner: InnerFlexibility,
) -> Swept:
    """Return tool against work at every place.

    Args:
        substructures: What the contacts join.
        contacts: The contacts.
        tool: Where the tool is pulled.
        work: What is pushed back.
        arms: From the work's point to the tool, m, shape (n_places, 3).
        inner: Flexibility of the beams that contacts stand inside of.

    Returns:
        Compliance and sinking.
    """
    n = len(arms)
    blocks, springs = _blocks(contacts, tool, work)
    floating = [number for number, one in enumerate(substructures) if one.rigid.shape[1]]
    bends, turns = _bending(substructures, blocks, inner), _turning(substructures, blocks, floating)
    sinks = _sinking(substructures, blocks)
    weight = np.concatenate([substructures[number].weight for number in floating]) if floating else np.zeros(0)
    size, held = blocks[-1].rows.stop, springs.shape[1]
    found = []
    for start in range(0, n, CHUNK):
        places = slice(start, min(start + CHUNK, n))
        half = _filled(bends, places, size, size)
        F = half + half.transpose(0, 2, 1)
        R = _filled(turns, places, size, len(weight))
        sunk = _filled(sinks, places, size, 1)[:, :, 0]
        found.append(_solve(F, R, sunk, springs[places], weight, _pulls(arms[places]), held))
    return Swept(np.concatenate([one.compliance for one in found]), np.concatenate([one.sinking for one in found]))


def _blocks(contacts: list[Contact], tool: Point, work: Point) -> tuple[list[_Block], FloatArray]:
    blocks, springs, row = [], [], 0
    for contact in contacts:
        used = np.flatnonzero(np.isfinite(contact.flexibility).all(axis=0))
        rows = slice(row, row + len(used))
        blocks += [_Block(contact.first, rows, contact.axes[used]), _Block(contact.second, rows, -contact.axes[used])]
        springs.append(contact.flexibility[:, used])
        row += len(used)
    blocks += [
        _Block(tool, slice(row, row + 3), np.eye(6)[:3]),
        _Block(work, slice(row + 3, row + 9), np.eye(6)),
    ]
    return blocks, np.concatenate(springs, axis=1)


def _bending(substructures: tuple[Substructure, ...], blocks: list[_Block], inner: InnerFlexibility) -> list[_Part]:
    """Return movements of blocks by forces on blocks of the same substructure; the transpose is still to be added."""
    parts = []
    for a, b in _pairs(blocks):
        value, which = _flexibility(a.point, b.point, substructures[a.point.substructure], inner)
        part = a.factor @ value @ b.factor.T
        parts.append(_Part(a.rows, b.rows, part / 2 if a is b else part, which))
    return parts


def _turning(substructures: tuple[Substructure, ...], blocks: list[_Block], floating: list[int]) -> list[_Part]:
    """Return movements of blocks with their substructures as rigid bodies."""
    parts = []
    for block in blocks:
        point, one = block.point, substructures[block.point.substructure]
        if one.rigid.shape[1]:
            column = 6 * floating.index(point.substructure)
            rigid = np.einsum("umab,umbc->uac", point.share, one.rigid.reshape(-1, 6, 6)[point.nodes])
            parts.append(_Part(block.rows, slice(column, column + 6), block.factor @ rigid, point.position))
    return parts


def _sinking(substructures: tuple[Substructure, ...], blocks: list[_Block]) -> list[_Part]:
    """Return movements of blocks by weight."""
    parts = []
    for block in blocks:
        point = block.point
        by_node = substructures[point.substructure].sinking.reshape(-1, 6)[point.nodes]
        moved = np.einsum("umab,umb->ua", point.share, by_node) + point.sinking
        parts.append(_Part(block.rows, slice(0, 1), (moved @ block.factor.T)[:, :, None], point.position))
    return parts


def _filled(parts: list[_Part], places: slice, rows: int, columns: int) -> FloatArray:
    """Return the parts summed for some of the places, shape (n, rows, columns)."""
    found = np.zeros((places.stop - places.start, rows, columns))
    for part in parts:
        found[:, part.rows, part.columns] += part.values[part.which[places]]
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


def _pairs(blocks: list[_Block]) -> Iterator[tuple[_Block, _Block]]:
    for number, a in enumerate(blocks):
        for b in blocks[number:]:
            if a.point.substructure == b.point.substructure:
                yield a, b


def _flexibility(a: Point, b: Point, one: Substructure, inner: InnerFlexibility) -> tuple[FloatArray, IntArray]:
    """Return the movement of `a` by loads on `b` for each pair of positions, and which pair each place has."""
    width = len(b.nodes)
    pairs, which = np.unique(a.position * width + b.position, return_inverse=True)
    at, bt = np.divmod(pairs, width)
    value = np.empty((len(pairs), 6, 6))
    for start in range(0, len(pairs), CHUNK):
        some = slice(start, start + CHUNK)
        value[some] = _by_nodes(a, b, one, at[some], bt[some])
    same = (a.beam[at] >= 0) & (a.beam[at] == b.beam[bt])
    if same.any():
        value = value + inner.between(a, b, at, bt, same)
    return value, which


def _by_nodes(a: Point, b: Point, one: Substructure, at: IntArray, bt: IntArray) -> FloatArray:
    """Return the movement of `a` by loads on `b` through the nodes that both are made of, shape (n, 6, 6)."""
    n, first, second = len(at), a.share[at], b.share[bt]
    between = one.between[a.nodes[at][:, :, None], b.nodes[bt][:, None, :]]
    between = between.transpose(0, 1, 3, 2, 4).reshape(n, 6 * first.shape[1], 6 * second.shape[1])
    left = first.transpose(0, 2, 1, 3).reshape(n, 6, -1) @ between
    return np.asarray(left @ second.transpose(0, 1, 3, 2).reshape(n, -1, 6))
