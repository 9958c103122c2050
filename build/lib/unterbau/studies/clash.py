"""What collides somewhere on the travel: which two, how deep, where, and what it costs."""

import itertools
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from unterbau.machine.changes.change import NAMED, Partless, name_of
from unterbau.machine.machine import Machine, lay_out
from unterbau.progress import Progress, Silent
from unterbau.solids.convex import Floats, convex
from unterbau.solids.heads import raised_heads
from unterbau.solids.overlaps import LEAST, meant
from unterbau.solids.solids import Solid, solids
from unterbau.solids.swept import Meeting, against, box_of, meeting
from unterbau.structure.carrier import AXES, STILL
from unterbau.structure.motion import SpindleUnit
from unterbau.structure.parts import Place
from unterbau.structure.structure import LAID_OUT, Structure
from unterbau.structure.vectors import ZERO, X, Y, Z
from unterbau.units import Units, length_text

TOLD = 200
"""Pairs between two looks at whether to go on."""
FULL = 0.98
"""Of a travel that is lost: more is all of it."""
ROOM = "room"
"""Link of the room that the tool's tip reaches; what was added must not stand in it."""
LOW = 0.002
"""Above the work's seat that the room begins, m."""
ASSUMED = (
    "Pieces as they are sawn and bought, hollow and slotted ones full; heads of screws are sunk where something would "
    "touch them and the plate is thick enough; cables and chips are not counted; of the work, "
    "for what you added, the room that the tool's tip reaches. Mere touching is no clash."
)


@dataclass(frozen=True, slots=True)
class Clash:
    """Two pieces that are in each other's way."""

    first: str
    second: str
    keys: tuple[str, str]
    """Links that they are of."""
    depth: float
    """How far they would have to be moved apart, m."""
    moving: tuple[bool, bool, bool]
    """Axes that bring them together; none where they stand in each other always."""
    low: tuple[float, float, float]
    """Where they meet, of each axis' travel from its start, m."""
    high: tuple[float, float, float]
    travel: tuple[float, float, float]
    place: Place
    """A place of the head at which they meet."""

    def lost(self, axis: int) -> float:
        """Return how much of an axis' travel is given up where it alone has to avoid this, m."""
        if not self.moving[axis]:
            return 0.0
        return min(self.high[axis], self.travel[axis] - self.low[axis])

    @property
    def cheapest(self) -> int:
        """The axis that has to give up least."""
        moving = [axis for axis in range(3) if self.moving[axis]]
        return min(moving, key=lambda axis: self.lost(axis) / self.travel[axis], default=0)


@dataclass(frozen=True, slots=True)
class Clashes:
    """All that collides on a machine."""

    found: tuple[Clash, ...]
    """What costs most first."""
    pairs: int
    """Looked at."""
    meant: int
    """Of those that reach into each other, as a screw's end through its plate."""


def clashes(machine: Machine, progress: Progress | None = None) -> Clashes:
    """Return what collides anywhere on a machine's travel.

    Raises:
        InputError: The machine cannot be laid out.
        Cancelled: The progress asked to stop.
    """
    return clashes_of(lay_out(machine), progress)


def clashes_of(structure: Structure, progress: Progress | None = None, only: frozenset[str] = frozenset()) -> Clashes:
    """Return what collides anywhere on the travel of a structure.

    Every pair of pieces is looked at; or those with a link of some that are named, where some are.

    Raises:
        Cancelled: The progress asked to stop.
    """
    report = progress or Silent()
    bodies = (*solids(structure, LAID_OUT), *raised_heads(structure), room_of(structure))
    start, end = (np.array(structure.way(Place(*([share] * 3)))) for share in (0.0, 1.0))
    low, high = np.minimum(start, end), np.maximum(start, end)
    boxes = [box_of(one.body) for one in bodies]
    found, wanted, looked = [], 0, 0
    pairs = list(itertools.combinations(range(len(bodies)), 2))
    for number, (i, j) in enumerate(pairs):
        if number % TOLD == 0:
            report.step(number, len(pairs), "bodies")
        first, second = bodies[i], bodies[j]
        if only and not only & {first.key, second.key}:
            continue
        if ROOM in (first.key, second.key) and not (NAMED.fullmatch(first.key) or NAMED.fullmatch(second.key)):
            continue
        looked += 1
        if _far(boxes[i], boxes[j], against(first, second), low, high):
            continue
        met = meeting(first, second, low, high, LEAST)
        if met is None:
            continue
        if meant(first, second) is not None:
            wanted += 1
            continue
        found.append(_told(first, second, met, start, end))
    found.sort(key=lambda one: -(one.lost(one.cheapest) if any(one.moving) else 1e3 + one.depth))
    return Clashes(tuple(found), looked, wanted)


def room_of(structure: Structure) -> Solid:
    """Return what the tool's tip reaches over the work: a box that goes with the work."""
    work, tip = structure.work, structure.tip
    held, carried = structure.pieces.get(tip.piece), structure.pieces.get(work.on)
    spindles = [step.carrier for step in structure.flat if isinstance(step, SpindleUnit)]
    carrier = held.carrier if held is not None else next(iter(spindles), STILL)
    table = STILL if carried is None else carried.carrier
    place = np.array(tip.place)
    ends = []
    for share in (0.0, 1.0):
        way = structure.way(Place(share, share, share))
        ends.append(place + np.array(carrier.moved(ZERO, way)) - np.array(table.moved(ZERO, way)))
    low, high = np.min(ends, axis=0), np.max(ends, axis=0)
    low[2] = min(max(low[2], work.place[2] + LOW), high[2] - LOW)
    low, high = np.minimum(low, high - LOW), high
    ring = [(low[0], low[1]), (high[0], low[1]), (high[0], high[1]), (low[0], high[1])]
    rings = [[(float(x), float(y), float(z)) for x, y in ring] for z in (low[2], high[2])]
    ways = tuple(table.moved(ZERO, axis) for axis in (X, Y, Z))
    body = convex(rings[0], rings[1])
    return Solid("room for the work", ROOM, "room", body, table, False, ways=(ways[0], ways[1], ways[2]))


def _far(
    a: tuple[Floats, Floats], b: tuple[Floats, Floats], ways: Floats, low: Floats, high: Floats
) -> bool:  # fmt: skip
    """Return whether the boxes around two bodies never meet."""
    ends = np.stack([ways * low, ways * high])
    least, most = ends.min(axis=0).sum(axis=1), ends.max(axis=0).sum(axis=1)
    return bool(((a[1] + most < b[0]) | (b[1] < a[0] + least)).any())


def _told(first: Solid, second: Solid, met: Meeting, start: Floats, end: Floats) -> Clash:
    whole = end - start
    travel = np.abs(whole)
    moving = [bool(met.moving[axis]) for axis in range(3)]
    ends = np.stack([np.array(met.low), np.array(met.high)]) - start
    from_start = np.sort(np.where(whole < 0, -ends, ends), axis=0)
    shares = [0.5, 0.5, 0.0]
    for axis in range(3):
        if moving[axis]:
            shares[axis] = float(np.clip((met.at[axis] - start[axis]) / whole[axis], 0.0, 1.0))
    low, high, far = (tuple(float(v) for v in row) for row in (from_start[0], from_start[1], travel))
    return Clash(
        first.name, second.name, (first.key, second.key), met.depth, (moving[0], moving[1], moving[2]),
        (low[0], low[1], low[2]), (high[0], high[1], high[2]), (far[0], far[1], far[2]), Place(*shares),
    )  # fmt: skip


@lru_cache(maxsize=256)
def collisions(machine: Machine) -> int:
    """Return how many pairs of pieces collide somewhere on a machine's travel."""
    return len(clashes(machine).found)


def counted(machines: tuple[Machine, ...], progress: Progress) -> dict[Machine, int]:
    """Return how many pairs of pieces collide in each of some machines.

    Raises:
        Cancelled: The progress asked to stop.
    """
    found = {}
    for number, machine in enumerate(machines):
        progress.step(number, len(machines), "clashes")
        found[machine] = collisions(machine)
    return found


def spoken(name: str) -> str:
    """Return the name of a piece as it is said: X guides rail 1."""
    words = name.replace("_", " ")
    return f"{words[0].upper()}{words[1:]}" if words[:2] in ("x ", "y ", "z ") else words


@dataclass(frozen=True, slots=True)
class Together:
    """A clash, and others that are over where it is: one cure for all."""

    worst: Clash
    also: tuple[Clash, ...]


def grouped(found: tuple[Clash, ...]) -> tuple[Together, ...]:
    """Return clashes with those that the travel given up for the worst of them avoids as well."""
    left, groups = list(found), []
    while left:
        worst = left.pop(0)
        also = [one for one in left if _within(one, worst)]
        left = [one for one in left if one not in also]
        groups.append(Together(worst, tuple(also)))
    return tuple(groups)


def _within(one: Clash, worst: Clash) -> bool:
    axis = worst.cheapest
    shared = {one.first, one.second} & {worst.first, worst.second}
    if not shared or not worst.moving[axis] or not one.moving[axis]:
        return False
    at_end = worst.travel[axis] - worst.low[axis] <= worst.high[axis]
    return one.low[axis] >= worst.low[axis] - LEAST if at_end else one.high[axis] <= worst.high[axis] + LEAST


def where_words(one: Clash, units: Units = "mm") -> str:
    """Return on which axes, from where to where, two pieces meet."""
    if not any(one.moving):
        return f"always: they stand in each other by {length_text(one.depth, units)}"
    rows = []
    for axis in range(3):
        if not one.moving[axis]:
            continue
        if one.high[axis] - one.low[axis] > FULL * one.travel[axis]:
            rows.append(f"{AXES[axis]} anywhere")
            continue
        low, high = (length_text(value, units, with_unit=False) for value in (one.low[axis], one.high[axis]))
        rows.append(
            f"{AXES[axis]} {low} to {length_text(one.high[axis], units)}" if low != high else f"{AXES[axis]} {high}"
        )
    return "where " + ", ".join(rows) + " (from where the travel begins)"


def cures_of(one: Clash, machine: Machine, units: Units = "mm") -> tuple[str, ...]:
    """Return what helps: travel that is given up, a piece that is moved or left out."""
    found = []
    added = {part.id: name_of(part) for part in machine.changes if not isinstance(part, Partless)}
    for key, name in zip(one.keys, (one.first, one.second), strict=True):
        if key in added:
            found.append(f"move the {spoken(name)} by {length_text(one.depth, units)}, or leave it away")
    if any(one.moving):
        axis = one.cheapest
        lost, whole = one.lost(axis), one.travel[axis]
        where = "end" if one.travel[axis] - one.low[axis] <= one.high[axis] else "beginning"
        if lost < FULL * whole:
            given, left = length_text(lost, units), length_text(whole - lost, units)
            found.append(f"stop {AXES[axis]} {given} before its {where}: {left} are left")
    if not added.keys() & set(one.keys):
        found.append(f"make room between them, {length_text(one.depth, units)} at the least")
    return tuple(found)
