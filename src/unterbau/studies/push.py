"""A push with one's hand, anywhere on a machine."""

from dataclasses import dataclass

import numpy as np

from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.frame import Loads
from unterbau.mechanics.statics import solve_with
from unterbau.studies.compliance import Solved

BY_HAND = (50.0, 200.0)
"""What one pushes with, easily and hard, N; common practice, no source."""


@dataclass(frozen=True, slots=True)
class Pushed:
    """How a place gives against the ground."""

    name: str
    """Of the place, in the frame's words."""
    place: FloatArray
    """m, shape (3,)."""
    give: FloatArray
    """Along x, y, z by a push that way, m/N, shape (3,)."""


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
    u = solve_with(solved.statics.system, Loads(forces, np.zeros((3 * len(nodes), 3)))).u
    return tuple(
        Pushed(frame.node_names[node], frame.nodes[node], np.diag(u[3 * n : 3 * n + 3, node, :3]).copy())
        for n, node in enumerate(nodes)
    )


def softest_push(solved: Solved, key: str) -> Pushed | None:
    """Return the place of a part that gives most to a push, or None where it has none."""
    found = pushed(solved, places_of(solved, key))
    return max(found, key=lambda one: float(one.give.max())) if found else None
