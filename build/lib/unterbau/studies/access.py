"""Can a tool reach each screw's head? Free, only with the head at some places, or never: put it in before."""

from dataclasses import dataclass
from itertools import product

import numpy as np

from unterbau.catalogue.screws import screw_size
from unterbau.machine.machine import Machine, lay_out, travel
from unterbau.progress import Progress, Silent
from unterbau.solids.convex import Convex, Floats, convex
from unterbau.solids.solids import Solid, solids
from unterbau.structure.bodies import round_ring
from unterbau.structure.parts import Place
from unterbau.structure.screws import Screw, screws_of
from unterbau.structure.structure import LAID_OUT
from unterbau.structure.vectors import Vector, X, Z, cross, dot, plus, scaled
from unterbau.studies.clash import spoken

LONG, WIDE = 0.08, 2.0
"""Of the cylinder before a head that a key and a hand need: its length, m, and its diameter in heads; common
practice."""
CLEAR = 2e-4
"""Between a head and where the cylinder begins, m."""
CORNERS = 8
SHARES = (0.0, 0.25, 0.5, 0.75, 1.0)
"""Places of each axis that are tried."""


@dataclass(frozen=True, slots=True)
class Access:
    """How one reaches the screws of one place."""

    of: str
    """What they hold."""
    size: str
    free: int
    """Can be reached wherever the head is."""
    sometimes: int
    """Can be reached with the head at some places only."""
    never: int
    place: Place | None
    """A place of the head at which most of those that need one are free."""
    hidden_by: tuple[str, ...]
    """What stands before those that are never free."""


def access(machine: Machine, progress: Progress | None = None) -> tuple[Access, ...]:
    """Return how one reaches each group of screws, the worst first.

    Raises:
        InputError: The machine cannot be laid out.
        Cancelled: The progress asked to stop.
    """
    report = progress or Silent()
    structure = lay_out(machine)
    bodies = solids(structure, LAID_OUT)
    places = _places(machine)
    moved = np.array([structure.way(place) for place in places])
    groups: dict[tuple[str, str], list[Screw]] = {}
    for screw in screws_of(structure):
        groups.setdefault((screw.of, screw.size), []).append(screw)
    found = []
    for number, ((of, size), screws) in enumerate(groups.items()):
        report.step(number, len(groups), "screws")
        found.append(_group(of, size, screws, bodies, places, moved))
    return tuple(sorted(found, key=lambda one: (-one.never, -one.sometimes, one.of)))


def _places(machine: Machine) -> list[Place]:
    axes = [SHARES if size > 0 else (0.5,) for size in travel(machine)]
    return [Place(*shares) for shares in product(*axes)]


def _group(
    of: str, size: str, screws: list[Screw], bodies: tuple[Solid, ...], places: list[Place], moved: Floats
) -> Access:
    open_at = np.zeros((len(screws), len(places)), dtype=bool)
    before: dict[str, None] = {}
    for n, screw in enumerate(screws):
        hidden, by = _hidden(screw, bodies, moved)
        open_at[n] = np.logical_not(hidden)
        if hidden.all():
            before |= dict.fromkeys(by)
    free, never = open_at.all(axis=1), (np.logical_not(open_at)).all(axis=1)
    some = np.logical_not(free | never)
    place = places[int(open_at[some].sum(axis=0).argmax())] if some.any() else None
    return Access(of, size, int(free.sum()), int(some.sum()), int(never.sum()), place, tuple(before))


def cylinder(screw: Screw) -> Convex:
    """Return what a key and a hand need before a screw's head."""
    size = screw_size(screw.size)
    start = plus(screw.head, screw.out, size.d + CLEAR)
    end = plus(start, screw.out, LONG)
    side = cross(screw.out, Z if abs(screw.out[2]) < 0.9 else X)
    side = scaled(side, dot(side, side) ** -0.5)
    other = cross(screw.out, side)
    ring = round_ring(WIDE * size.head, CORNERS)

    def around(middle: Vector) -> list[Vector]:
        return [plus(plus(middle, side, y), other, z) for y, z in ring]

    return convex(around(start), around(end))


def _hidden(screw: Screw, bodies: tuple[Solid, ...], moved: Floats) -> tuple[Floats, list[str]]:
    """Return at which places something stands before a screw's head, and what."""
    room, own = cylinder(screw), np.array(screw.ways).T
    hidden, by = np.zeros(len(moved), dtype=bool), []
    low, high = room.corners.min(axis=0), room.corners.max(axis=0)
    for body in bodies:
        if body.name in screw.on:
            continue
        shifts = moved @ (np.array(body.ways).T - own).T
        corners = body.body.corners
        near = ((corners.min(axis=0) + shifts < high) & (corners.max(axis=0) + shifts > low)).all(axis=1)
        if not near.any():
            continue
        blocks = np.zeros(len(moved), dtype=bool)
        blocks[near] = _meet(room, body.body, shifts[near])
        if blocks.any():
            by.append(body.name)
            hidden |= blocks
    return hidden, by


def _meet(a: Convex, b: Convex, shifts: Floats) -> Floats:
    """Return for each shift of the second whether two bodies reach into each other."""
    crossed = np.cross(a.edges[:, None, :], b.edges[None, :, :]).reshape(-1, 3)
    size = np.linalg.norm(crossed, axis=1)
    axes = np.vstack([a.normals, b.normals, crossed[size > 1e-6] / size[size > 1e-6, None]])
    along_a, along_b, off = a.corners @ axes.T, b.corners @ axes.T, shifts @ axes.T
    first = along_a.max(axis=0) - (along_b.min(axis=0) + off)
    second = along_b.max(axis=0) + off - along_a.min(axis=0)
    return np.asarray(np.minimum(first, second).min(axis=1) > CLEAR)


def reach_words(one: Access) -> str:
    """Return how one reaches a group's screws, in a sentence."""
    said = []
    if one.free:
        said.append(f"{one.free} free")
    if one.sometimes and one.place is not None:
        at = ", ".join(
            f"{name} {share:.0%}" for name, share in zip("XYZ", (one.place.x, one.place.y, one.place.z), strict=True)
        )
        said.append(f"{one.sometimes} only with the head at some places, as {at}")
    if one.never:
        said.append(f"{one.never} never: put in before {' and '.join(spoken(name) for name in one.hidden_by[:2])}")
    return ", ".join(said)
