"""How what moves goes with the axes: evenly, so it is read off a machine that is put up at a few places."""

from collections.abc import Callable
from dataclasses import dataclass, fields, replace
from threading import Lock

import numpy as np

from unterbau.kept import Kept
from unterbau.machine.machine import Machine, lay_out, standing, standing_built
from unterbau.mechanics.arrays import FloatArray
from unterbau.model.standing import Standing
from unterbau.structure.parts import Place
from unterbau.structure.vectors import Vector

AXES = ("x", "y", "z")
SAME = 1e-9  # m
ELSEWHERE = Place(0.137, 0.411, 0.863)
"""Where a machine is put up to see that it moves as one of its kind did; no two axes have gone as far there."""
KEPT = 1.0  # MB


@dataclass(frozen=True, slots=True)
class Motion:
    """A quantity that changes evenly as the axes go: how far they are where it is put up, value there, change."""

    put_up: FloatArray
    """m, shape (3,)."""
    start: FloatArray
    along: FloatArray
    """Shape (3, …)."""

    def at(self, gone: FloatArray) -> FloatArray:
        """Return the values where the axes have gone so far, m (n, 3), shape (n, …)."""
        return np.asarray(self.start + np.tensordot(gone - self.put_up, self.along, axes=1))


@dataclass(frozen=True, slots=True)
class Motions:
    """All that moves."""

    slides: Motion
    """Along its chain, m, of each block."""
    drives: Motion
    """From bearing to nut, m."""
    arms: Motion
    """From the work to the tool."""
    work: Motion
    """Where the work stands on what carries it."""
    over: Motion
    """From the first node of what carries the work to the tool."""


Values = tuple[FloatArray, ...]
_seen, _lock = Kept(KEPT), Lock()


def motions_of(machine: Machine, at: Place) -> Motions:
    """Return how what moves goes with the axes, from a machine that is put up at a place.

    How it goes is kept by kinds of machine: one more look shows whether another of a kind moves the same way; where
    it does not, it is looked at at the end of each axis.
    """
    way, start = lay_out(machine).way, _values(standing_built(machine, at))
    put_up = np.array(way(at))
    sort = (type(machine), *(one.shape for one in start))
    with _lock:
        known: Values | None = _seen.get(sort)
    if known is not None:
        gone, seen = np.array(way(ELSEWHERE)), _values(standing(machine, ELSEWHERE))
        found = _motions(put_up, start, known)
        if all(np.abs(one.at(gone[None])[0] - there).max(initial=0.0) < SAME
               for one, there in zip(_each(found), seen, strict=True)):  # fmt: skip
            return found
    ends = _ends(at, way)
    gone = np.array([way(place) for place in ends]) - put_up
    seen_there = [_values(standing(machine, place)) for place in ends]
    along = tuple(_evenly(gone, one, [there[n] for there in seen_there]) for n, one in enumerate(start))
    with _lock:
        _seen[sort] = along
    return _motions(put_up, start, along)


def _motions(put_up: FloatArray, start: Values, along: Values) -> Motions:
    return Motions(*(Motion(put_up, one, change) for one, change in zip(start, along, strict=True)))


def _each(motions: Motions) -> tuple[Motion, ...]:
    return tuple(getattr(motions, one.name) for one in fields(Motions))


def _values(one: Standing) -> Values:
    """Return what moves, in the order of `Motions`."""
    tip = one.nodes[one.tip]
    along = np.array([_along(np.array(start), np.array(end), one.nodes[node]) for node, start, end in one.slides])
    return along, np.array(one.distances), tip - np.array(one.work), _work_at(one), tip - one.nodes[one.carries]


def _ends(at: Place, way: Callable[[Place], Vector]) -> tuple[Place, ...]:
    """Return for each axis the end of its travel that is further off: contacts move evenly with each."""
    found = []
    for axis, name in enumerate(AXES):
        ends = [replace(at, **{name: share}) for share in (0.0, 1.0)]
        found.append(max(ends, key=lambda one, axis=axis: abs(way(one)[axis] - way(at)[axis])))  # type: ignore[misc]
    return tuple(found)


def _evenly(gone: FloatArray, start: FloatArray, there: list[FloatArray]) -> FloatArray:
    """Return a change by each axis from the values at its end, and from how far it has gone there, (3, 3)."""
    along = np.zeros((3, *start.shape))
    for axis in range(3):
        if abs(gone[axis, axis]) > SAME:
            along[axis] = (there[axis] - start) / gone[axis, axis]
    along[np.abs(along) < SAME] = 0.0
    return along


def _along(start: FloatArray, end: FloatArray, place: FloatArray) -> float:
    """Return how far along an axis a block stands, m."""
    line = (end - start) / np.linalg.norm(end - start)
    return float((place - start) @ line)


def _work_at(stands: Standing) -> FloatArray:
    """Return where the work stands, m from what it stands on."""
    ground, place = stands.ground, np.array(stands.work)
    if ground is None:
        return np.zeros(2)
    if ground.chain is not None:
        first, last = (stands.nodes[ground.chain.nodes[end]] for end in (0, -1))
        return np.array([_along(first, last, place), 0.0])
    return np.asarray(place[:2] - stands.nodes[ground.nodes[0]][:2])
