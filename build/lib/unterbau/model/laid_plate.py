"""A plate in its place: held where something is fastened to it, meshed when the machine stands."""

from bisect import bisect_left, bisect_right
from collections.abc import Callable
from dataclasses import dataclass, field, replace
from functools import cached_property
from math import ceil, dist

import numpy as np

from unterbau.materials.material import Material
from unterbau.mechanics.frame import Plate as FramePlate
from unterbau.mechanics.plate_element import PlateMaterial
from unterbau.mechanics.plate_spec import SNAP, Patch, PlateSpec, lines, nearest
from unterbau.model.frame_builder import Chain, FrameBuilder
from unterbau.model.member import BeamValues
from unterbau.structure.spot import BOLT
from unterbau.structure.vectors import Straight, Vector, cross, minus, plus

SEAM = 0.001
"""Between plates that lie side by side, as it is meshed, m."""
SAME = 0.006
"""Places closer together than this are held as one, m."""
PITCH = 0.08
"""Between the bolts of a rail, m; common practice, no source."""
MOST_BOLTS = 36
"""That a rail on a plate is held by in the model: beyond some 2.8 m they stand for their neighbours too."""
INSET = 0.01
FINENESS, NARROW = 14, 5
"""At least so many elements along the long side, and across the short one."""
GAP = 0.9
LEAST = 0.3
"""Less room than this of what is wanted counts as held by what is there."""


@dataclass
class _Held:
    node: int
    x: float
    y: float
    half: tuple[float, float]


@dataclass
class LaidPlate(Straight):
    """A rectangular plate from start to end along its middle line."""

    frame: FrameBuilder
    key: str
    name: str
    start: Vector
    end: Vector
    up: Vector
    """Its normal."""
    height: float
    """Thickness, m."""
    width: float
    xs: tuple[float, ...]
    """Crossings along it that are drawn and can carry the work, from its corner, m."""
    ys: tuple[float, ...]
    """The same across it."""
    base: Material
    halved: bool = False
    """A triangle: the half on the side of its corner."""
    weighs: float = 1.0
    """Its mass against that of its sheet: less where it overlaps another."""
    strips: int = 0
    """Plates side by side along it; 0 for one."""
    softer: float = 1.0
    """Stiffness along it against across."""
    nodes: dict[tuple[int, int], int] = field(default_factory=dict)
    """At the crossings."""
    held: list[_Held] = field(default_factory=list)
    rails: list[tuple[str, Chain]] = field(default_factory=list)
    late: list[Callable[[], None]] = field(default_factory=list)
    """Done when all else is fastened."""

    @cached_property
    def length(self) -> float:
        """From start to end, m."""
        return dist(self.start, self.end)

    @cached_property
    def along(self) -> Vector:
        """Unit vector from start to end."""
        line, length = minus(self.end, self.start), self.length
        return (line[0] / length, line[1] / length, line[2] / length)

    @cached_property
    def across(self) -> Vector:
        """Unit vector in its plane, square to `along`."""
        return cross(self.up, self.along)

    @cached_property
    def corner(self) -> Vector:
        """Where its own x and y begin, in the middle of its thickness."""
        return plus(self.start, self.across, -self.width / 2)

    def move(self, start: Vector, end: Vector, up: Vector) -> None:
        """Put it somewhere else."""
        self.start, self.end, self.up = start, end, up
        for name in ("length", "along", "across", "corner"):
            self.__dict__.pop(name, None)

    def at(self, x: float, y: float) -> Vector:
        """Return a place of its middle plane by its own x and y."""
        return plus(plus(self.corner, self.along, x), self.across, y)

    def own(self, place: Vector) -> tuple[float, float]:
        """Return a place by the plate's own x and y, to the nanometre: what is laid on it is so wherever it stands."""
        away = minus(place, self.corner)
        x, y = (sum(a * b for a, b in zip(away, axis, strict=True)) for axis in (self.along, self.across))
        return round(x, 9), round(y, 9)

    def share(self, node: int, half: tuple[float, float]) -> None:
        """Hold the plate at a node of something else that lies in its own middle plane."""
        x, y = self.own(self.frame.places[node])
        self.held.append(_Held(node, x, y, half))

    def hold(self, place: Vector, half: tuple[float, float] = BOLT) -> int:
        """Return the node that holds the plate at the point nearest to a place.

        Args:
            place: Anywhere.
            half: Half the patch that is kept rigid, along and across, m.
        """
        x, y = self.own(place)
        x, y = min(self.length, max(0.0, x)), min(self.width, max(0.0, y))
        for one in self.held:
            if abs(one.x - x) < SAME and abs(one.y - y) < SAME:
                one.half = (max(one.half[0], half[0]), max(one.half[1], half[1]))
                return one.node
        node = self.frame.node(f"{self.name} held {len(self.held) + 1}", self.at(x, y))
        self.held.append(_Held(node, x, y, half))
        return node

    def half_of(self, up: Vector, height: float, width: float) -> tuple[float, float]:
        """Return half the patch under a face whose height lies along `up`."""
        along = abs(sum(a * b for a, b in zip(up, self.along, strict=True)))
        across = abs(sum(a * b for a, b in zip(up, self.across, strict=True)))
        upright = along >= across
        return (0.45 * height, 0.45 * width) if upright else (0.45 * width, 0.45 * height)

    def rail(self, key: str, start: Vector, end: Vector, up: Vector, values: BeamValues, over: float) -> None:
        """Bolt a rail on, a beam of its own, every so far.

        Args:
            key: The guide.
            start: On the seat.
            end: On the seat.
            up: Off the seat.
            values: The rail's section.
            over: From the seat to the rail's middle, m.
        """
        length = dist(start, end)
        line = tuple((b - a) / length for a, b in zip(start, end, strict=True))
        direction: Vector = (line[0], line[1], line[2])
        count = min(MOST_BOLTS - 1, max(1, ceil((length - 2 * INSET) / PITCH - 1e-9)))
        stops = [INSET + (length - 2 * INSET) * k / count for k in range(count + 1)]
        axis = [plus(plus(start, direction, stop), up, over) for stop in stops]
        nodes = [self.hold(place) for place in axis]
        offsets = [minus(place, self.frame.places[node]) for place, node in zip(axis, nodes, strict=True)]
        beams = [
            self.frame.beam(key, nodes[k], nodes[k + 1], values, up, offsets[k], offsets[k + 1]) for k in range(count)
        ]
        self.rails.append((key, Chain(tuple(nodes), tuple(beams))))

    def rail_near(self, key: str, place: Vector) -> Chain:
        """Return the rail of a guide that passes nearest to a place."""
        found = (chain for of, chain in self.rails if of == key)
        return min(found, key=lambda chain: away_from(self.frame, chain, place))

    def under(self, place: Vector, half: tuple[float, float]) -> tuple[int | None, float]:
        """Return what already holds the plate at a place, or how much of `half` is free around it, 0 to 1."""
        x, y = self.own(place)
        room = 1.0
        for one in self.held:
            gap = (abs(one.x - x) - one.half[0], abs(one.y - y) - one.half[1])
            if gap[0] >= half[0] or gap[1] >= half[1]:
                continue
            free = max(gap[0] / half[0], gap[1] / half[1])
            if free < LEAST:
                return one.node, 0.0
            room = min(room, GAP * free)
        return None, room

    def finish(self) -> None:
        """Mesh the plate and put it into the frame."""
        for work in self.late:
            work()
        patches = _apart([Patch(one.x, one.y, *one.half) for one in self.held])
        widest = min(max(self.length, self.width) / FINENESS, min(self.length, self.width) / NARROW)
        slits = tuple(self.length * n / self.strips for n in range(1, self.strips))
        ends = tuple(one + SEAM for one in slits)
        xs = lines(self.length, (*self.xs, *slits, *ends), _edges([(p.x, p.half_x) for p in patches]), widest)
        ys = lines(self.width, self.ys, _edges([(p.y, p.half_y) for p in patches]), widest)
        patches = [Patch(p.x, p.y, _onto(xs, p.x, p.half_x), _onto(ys, p.y, p.half_y)) for p in patches]
        spec = PlateSpec(
            xs, ys, self.height, replace(plate_material(self.base, self.weighs), along=self.softer), tuple(patches),
            tuple((self.xs[i], self.ys[j]) for i, j in self.nodes), self.halved, slits,
        )  # fmt: skip
        held = np.array([one.node for one in self.held], dtype=np.intp)
        points = np.array(list(self.nodes.values()), dtype=np.intp)
        axes = np.array([self.along, self.across, self.up])
        self.frame.plate(self.key, FramePlate(spec, axes, np.array(self.corner), held, points, self.base.zeta, 0))


def away_from(frame: FrameBuilder, chain: Chain, place: Vector) -> float:
    """Return how far a place is from the line of a chain, m."""
    start, end = np.array(frame.places[chain.nodes[0]]), np.array(frame.places[chain.nodes[-1]])
    line = (end - start) / np.linalg.norm(end - start)
    gap = np.array(place) - start
    return float(np.linalg.norm(gap - (gap @ line) * line))


def plate_material(base: Material, weighs: float = 1.0) -> PlateMaterial:
    """Return a material as plates take it; where E and G do not go together, as in timber, ν is small."""
    nu = base.E / (2 * base.G) - 1
    return PlateMaterial(base.E, base.G, nu if 0.0 <= nu < 0.45 else 0.05, base.rho * weighs)


def _edges(patches: list[tuple[float, float]]) -> list[float]:
    """Return where patches begin and end along a direction; where a point is, if they have no size."""
    return [middle + side * half for middle, half in patches for side in ((-1, 1) if half else (0,))]


def _onto(mesh: tuple[float, ...], middle: float, half: float) -> float:
    """Return half a patch, a little wider where an edge of it shares a line of the mesh that lies just outside.

    It reaches to a line in any case: what is held beyond the plate's edge holds the edge.
    """
    near = [nearest(mesh, middle)]
    for end in (middle - half, middle + half):
        first, last = bisect_right(mesh, end - 1.01 * SNAP), bisect_left(mesh, end + 1.01 * SNAP)
        near += mesh[first:last]
    return max([half, *(abs(line - middle) for line in near)])


def _apart(patches: list[Patch]) -> list[Patch]:
    """Shrink patches that overlap, so that each crossing of the mesh belongs to one."""
    rows = [[p.x, p.y, p.half_x, p.half_y] for p in patches]
    for n, a in enumerate(rows):
        for b in rows[n + 1 :]:
            gap = (abs(a[0] - b[0]), abs(a[1] - b[1]))
            sums = (a[2] + b[2], a[3] + b[3])
            if gap[0] > sums[0] or gap[1] > sums[1]:
                continue
            side = 0 if gap[0] * sums[1] >= gap[1] * sums[0] else 1
            factor = GAP * gap[side] / max(sums[side], 1e-9)
            a[2 + side] *= factor
            b[2 + side] *= factor
    return [Patch(x, y, hx, hy) for x, y, hx, hy in rows]
