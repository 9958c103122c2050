"""A push with one's hand, anywhere on a machine."""

from dataclasses import dataclass, replace

import numpy as np

from unterbau.mechanics import assembly, spring
from unterbau.mechanics.arrays import BoolArray, FloatArray, IntArray
from unterbau.mechanics.frame import Frame, Loads
from unterbau.mechanics.statics import Statics, solve_statics, solve_with
from unterbau.studies.compliance import Solved

BY_HAND = (50.0, 200.0)
"""What one pushes with, easily and hard, N; common practice, no source."""
TILTS = (4, 5)
"""Directions of a joint in which play lets it turn."""
LIMP = 1e-6
"""What is left of a joint's stiffness while its play is open."""


@dataclass(frozen=True, slots=True)
class Pushed:
    """How a place gives against the ground."""

    name: str
    """Of the place, in the frame's words."""
    place: FloatArray
    """m, shape (3,)."""
    give: FloatArray
    """Along x, y, z by a push that way, m/N, shape (3,)."""
    stand: FloatArray
    """What of it is the stand's, swaying and rocking, m/N, shape (3,)."""
    node: int
    play: tuple[float, float, float] = (0.0, 0.0, 0.0)
    """What it moves along x, y, z before all holds, from stop to stop, m."""


def places_of(solved: Solved, key: str) -> tuple[int, ...]:
    """Return the nodes of a part that can be pushed: the ends of its bars, the places its plates are drawn by."""
    built = solved.built
    frame = built.frame
    if key not in frame.groups:
        return ()
    group = frame.groups.index(key)
    bars = {int(n) for rows in (frame.beams.i, frame.beams.j) for n in rows[frame.beams.group == group]}
    found: list[int] = []
    for nodes in built.chains.values():
        mine = [n for n in (nodes[0], nodes[-1]) if n in bars]
        found += mine
    for plate in frame.plates:
        if plate.group == group and len(plate.points):
            found += [int(plate.points[0]), int(plate.points[-1])]
    return tuple(dict.fromkeys(found))


def pushed(solved: Solved, nodes: tuple[int, ...]) -> tuple[Pushed, ...]:
    """Return how places give to a push along x, y, z."""
    if not nodes:
        return ()
    frame = solved.built.frame
    forces = np.zeros((3 * len(nodes), len(frame.nodes), 6))
    for n, node in enumerate(nodes):
        forces[3 * n + np.arange(3), node, np.arange(3)] = 1.0
    statics = solve_with(solved.statics.system, Loads(forces, np.zeros((3 * len(nodes), 3))))
    stands = _of_stand(statics)
    return tuple(
        Pushed(
            frame.node_names[node], frame.nodes[node], np.diag(statics.u[3 * n : 3 * n + 3, node, :3]).copy(),
            stands[3 * n : 3 * n + 3], node,
        )
        for n, node in enumerate(nodes)
    )  # fmt: skip


def _of_stand(statics: Statics) -> FloatArray:
    """Return twice the strain energy in what stands on the ground, by case: its share of a give by a unit push."""
    elements = statics.system.elements
    springs = elements.frame.springs
    rows = springs.j < 0
    movement = assembly.pair_movements(statics.u, springs.i, springs.j)
    return np.asarray(2 * spring.energies(elements.springs, movement)[:, rows].sum(axis=1))


def softest_push(solved: Solved, key: str) -> Pushed | None:
    """Return the place of a part that gives most to a push, or None where it has none."""
    found = pushed(solved, places_of(solved, key))
    if not found:
        return None
    one = max(found, key=lambda one: float(one.give.max()))
    if not solved.built.loose:
        return one
    x, y, z = (taken_up(solved, _at(solved, one.node, axis), BY_HAND[1]) for axis in range(3))
    return replace(one, play=(x, y, z))


def taken_up(solved: Solved, push: FloatArray, force: float) -> float:
    """Return how far a machine moves under a growing push beyond its own give, as joints with play come to hold, m.

    Each starts at one stop and ends, once tilted from there to the other, as if it had none. Between two that come to
    hold the machine is linear.

    Args:
        solved: A machine.
        push: Of one newton, forces on the nodes, (n_nodes, 6).
        force: Where it ends, N.
    """
    frame, loose = solved.built.frame, solved.built.loose
    rows = np.array([row for row, _ in loose])
    left = np.repeat([turn for _, turn in loose], len(TILTS)).reshape(len(loose), len(TILTS))
    is_open = np.ones_like(left, dtype=bool)
    one = Loads(push[None], np.zeros((1, 3)))
    moved, reached = 0.0, 0.0
    while is_open.any() and reached < force:
        statics = solve_statics(_opened(frame, rows, is_open), one)
        turned = np.abs(_tilts(statics, rows))
        steps = np.where(is_open & (turned > 0.0), left / np.maximum(turned, 1e-300), np.inf)
        step = min(float(steps.min()), force - reached)
        moved += step * _work(statics, push)
        reached += step
        left = left - step * turned
        is_open &= steps > step * (1 + 1e-9)
    tight = _work(solve_with(solved.statics.system, one), push)
    return max(moved - reached * tight, 0.0)


def _work(statics: Statics, push: FloatArray) -> float:
    return float(np.sum(push * statics.u[0, : len(push)]))


def _at(solved: Solved, node: int, axis: int) -> FloatArray:
    push = np.zeros((len(solved.built.frame.nodes), 6))
    push[node, axis] = 1.0
    return push


def _opened(frame: Frame, rows: IntArray, is_open: BoolArray) -> Frame:
    """Return a frame whose loose joints tilt nearly freely where they are open."""
    k = frame.springs.k.copy()
    for n, row in enumerate(rows):
        for column, tilt in enumerate(TILTS):
            if is_open[n, column]:
                k[row, tilt] *= LIMP
    return replace(frame, springs=replace(frame.springs, k=k))


def _tilts(statics: Statics, rows: IntArray) -> FloatArray:
    """Return how far joints tilt, rad, shape (n, 2)."""
    elements = statics.system.elements
    springs = elements.frame.springs
    movement = assembly.pair_movements(statics.u[0], springs.i, springs.j)
    return np.asarray((elements.springs.G @ movement[:, :, None])[rows][:, list(TILTS), 0])
