"""The walls of a member's section: where they are, and how they are cut into strips under what bears on them."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from unterbau.materials.material import Material
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.folded_plate import Strips, Y, Z
from unterbau.sections.rolled import IPE, UPN
from unterbau.sections.section import section
from unterbau.sections.solved import SectionRef
from unterbau.structure.parts import Member

HOLLOW = ("shs", "rhs", "box")
SOLID_CORNER = 30.0
"""A solid corner bends so much less than a wall."""
STRIPS = 6
"""A wall is cut into at least so many."""
BESIDE = 0.01
"""A strip under a rail is wider than it by this on both sides, m."""
SMALL, NARROWEST = 1e-9, 2e-4
Flat = tuple[float, float]


@dataclass(frozen=True, slots=True)
class Wall:
    """A wall of a section: its middle line from edge to edge."""

    start: Flat
    end: Flat
    thickness: float
    solid: Flat
    """How far a solid corner reaches in from each edge, m; 0 at a free edge."""


@dataclass(frozen=True, slots=True)
class Bearing:
    """Where something bears on a member."""

    y: float
    """Place in the section as built, m."""
    z: float
    normal: Flat
    """Off the face, in the section."""
    width: float
    """Across the member, m."""
    length: float
    """Along it, m."""
    edges: bool = False
    """Borne along its two ends, as a tube's end is, else evenly."""
    backing: float = 0.0
    """Thickness of a strip bonded under it, m."""

    @property
    def backing_width(self) -> float:
        """Width of that strip, m."""
        return self.width + 2 * BESIDE if self.backing else 0.0


def walls_of(member: Member) -> tuple[Wall, ...] | None:
    """Return a section's walls as built, or None where it has none that give."""
    found = _of_section(member.section)
    if found is None or not member.turned:
        return found
    return tuple(
        Wall((-w.start[1], w.start[0]), (-w.end[1], w.end[0]), w.thickness, w.solid) for w in found
    )  # fmt: skip


@lru_cache(maxsize=512)
def _of_section(of: SectionRef) -> tuple[Wall, ...] | None:
    if not isinstance(of, str):
        return None
    name, kind = of, of.split("-")[0]
    shape = section(name)
    if kind in HOLLOW:
        t = float(name.removesuffix("-hot").split("x")[-1]) / 1e3
        y, z, solid = (shape.width - t) / 2, (shape.height - t) / 2, (t / 2, t / 2)
        corners = [(-y, -z), (-y, z), (y, z), (y, -z)]
        return tuple(Wall(corners[n], corners[(n + 1) % 4], t, solid) for n in range(4))
    back = min(y for y, _ in shape.loops[0])
    number = round(shape.height * 1e3)
    if kind == "upn":
        c = UPN[number]
        y, tip, z = back + c.web / 2, back + c.width, (c.height - c.flange) / 2
        return (
            Wall((tip, -z), (y, -z), c.flange, (0.0, c.web / 2)), Wall((y, -z), (y, z), c.web, (c.flange / 2,) * 2),
            Wall((y, z), (tip, z), c.flange, (c.web / 2, 0.0)),
        )  # fmt: skip
    if kind == "ipe":
        i = IPE[number]
        y, z = i.width / 2, (i.height - i.flange) / 2
        flanges = (Wall((-y, side * z), (y, side * z), i.flange, (0.0, 0.0)) for side in (-1, 1))
        return (Wall((0.0, -z), (0.0, z), i.web, (i.flange / 2,) * 2), *flanges)
    return None


def wall_under(walls: tuple[Wall, ...], at: Bearing) -> int | None:
    """Return the outermost wall that faces a bearing's normal and lies under it."""
    ny, nz = at.normal
    best, out = None, -np.inf
    for n, wall in enumerate(walls):
        dy, dz = wall.end[0] - wall.start[0], wall.end[1] - wall.start[1]
        length = float(np.hypot(dy, dz))
        if abs(dy * ny + dz * nz) > 1e-6 * length:
            continue
        along = ((at.y - wall.start[0]) * dy + (at.z - wall.start[1]) * dz) / length
        away = wall.start[0] * ny + wall.start[1] * nz
        if -wall.thickness <= along <= length + wall.thickness and away > out:
            best, out = n, away
    return best


def cut(
    walls: tuple[Wall, ...], under: list[int | None], bearings: tuple[Bearing, ...], base: Material
) -> tuple[Strips, list[dict[int, float]]]:
    """Return the section cut into strips, and the lines under each bearing with their place along its wall."""
    lines: list[Flat] = []
    number: dict[Flat, int] = {}
    ends, thick, bending = [], [], []
    borne: list[dict[int, float]] = [{} for _ in bearings]

    def line(y: float, z: float) -> int:
        key = (round(y, 7), round(z, 7))
        if key not in number:
            number[key] = len(lines)
            lines.append((y, z))
        return number[key]

    for n, wall in enumerate(walls):
        dy, dz = wall.end[0] - wall.start[0], wall.end[1] - wall.start[1]
        length = float(np.hypot(dy, dz))
        met = {0.0, length, *_met(wall, walls, length)}
        stops = met | set(np.linspace(wall.solid[0], length - wall.solid[1], STRIPS + 1).tolist())
        here_on = [i for i in range(len(bearings)) if under[i] == n]
        reaches = [_reach(wall, bearings[i], length) for i in here_on]
        for reach in reaches:
            stops |= set(np.linspace(*reach, 5).tolist())
        kept = _apart(sorted(stops), reaches, met)
        here = [line(wall.start[0] + dy * s / length, wall.start[1] + dz * s / length) for s in kept]
        for k in range(len(kept) - 1):
            middle = (kept[k] + kept[k + 1]) / 2
            corner = middle < wall.solid[0] or middle > length - wall.solid[1]
            backed = max((bearings[i].backing for i, (low, high) in zip(here_on, reaches, strict=True)
                          if low < middle < high), default=0.0)  # fmt: skip
            ends.append((here[k], here[k + 1]))
            thick.append(wall.thickness)
            bending.append(SOLID_CORNER if corner else (1 + backed / wall.thickness) ** 3)
        for i, (low, high) in zip(here_on, reaches, strict=True):
            borne[i] = {m: s for m, s in zip(here, kept, strict=True) if low - SMALL <= s <= high + SMALL}
    nu = min(max(base.E / (2 * base.G) - 1, 0.0), 0.45)
    straight = tuple(tuple(sorted(one)) for one in _joined([set(one) for one in borne]))
    return Strips(np.array(lines), tuple(ends), tuple(thick), tuple(bending), base.E, base.G, nu, straight), borne


def _joined(sets: list[set[int]]) -> list[set[int]]:
    """Return sets of lines with those that share a line made one: bearings that overlap hold the walls as one body."""
    joined: list[set[int]] = []
    for lines in sets:
        meeting = [other for other in joined if other & lines]
        joined = [other for other in joined if not other & lines]
        joined.append(lines.union(*meeting))
    return joined


def _reach(wall: Wall, at: Bearing, length: float) -> Flat:
    """Return from where to where along a wall something bears on it."""
    dy, dz = wall.end[0] - wall.start[0], wall.end[1] - wall.start[1]
    middle = ((at.y - wall.start[0]) * dy + (at.z - wall.start[1]) * dz) / length
    half = max(at.width, at.backing_width) / 2
    low = min(max(0.0, middle - half), length - 2 * NARROWEST)
    return low, max(min(length, middle + half), low + 2 * NARROWEST)


def _met(wall: Wall, walls: tuple[Wall, ...], length: float) -> list[float]:
    """Return where other walls end on a wall, between its edges."""
    found = []
    for other in walls:
        for y, z in (other.start, other.end):
            ry, rz = y - wall.start[0], z - wall.start[1]
            dy, dz = (wall.end[0] - wall.start[0]) / length, (wall.end[1] - wall.start[1]) / length
            along = ry * dy + rz * dz
            if abs(ry * dz - rz * dy) < SMALL and SMALL < along < length - SMALL:
                found.append(along)
    return found


def _apart(stops: list[float], reaches: list[Flat], met: set[float]) -> list[float]:
    """Return stops without those that crowd others; the bearing's and where walls meet stay."""
    least = 0.25 * stops[-1] / STRIPS
    held = sorted(met)
    borne = [s for s in stops if any(low - SMALL <= s <= high + SMALL for low, high in reaches)]
    for room, some in ((NARROWEST, borne), (least, stops)):
        for stop in some:
            if min(abs(stop - other) for other in held) > room:
                held.append(stop)
    return sorted(held)


def bear(loads: FloatArray, wall: Wall, at: Bearing, place: dict[int, float]) -> None:
    """Set unit loads off the face, across it, and rolling, evenly over the bearing's width."""
    numbers = sorted(place, key=lambda n: place[n])
    s = np.array([place[n] for n in numbers])
    share = np.zeros(len(s))
    share[:-1] += np.diff(s) / 2
    share[1:] += np.diff(s) / 2
    share /= share.sum()
    middle = float(share @ s)
    inertia = float(share @ (s - middle) ** 2)
    dy, dz = wall.end[0] - wall.start[0], wall.end[1] - wall.start[1]
    length = float(np.hypot(dy, dz))
    ny, nz = at.normal
    ty, tz = -nz, ny  # across the member in the face: normal turned by a quarter about the axis
    for n, part, where in zip(numbers, share, s - middle, strict=True):
        loads[4 * n + Y, 0] += part * ny
        loads[4 * n + Z, 0] += part * nz
        loads[4 * n + Y, 1] += part * ty
        loads[4 * n + Z, 1] += part * tz
        # A turn about the axis moves a point at r by (−r_z, r_y).
        ry, rz = where * dy / length, where * dz / length
        loads[4 * n + Y, 2] += -part * rz / inertia
        loads[4 * n + Z, 2] += part * ry / inertia


def distort(loads: FloatArray, strips: Strips, walls: tuple[Wall, ...]) -> None:
    """Set a unit couple on the corners, half by the pair of walls in y, half against it by those in z."""
    corners = np.array([wall.start for wall in walls])
    reach = np.abs(corners).max(axis=0)
    for n, (y, z) in enumerate(strips.lines):
        if abs(abs(y) - reach[0]) < SMALL and abs(abs(z) - reach[1]) < SMALL:
            loads[4 * n + Y, -1] -= np.sign(z) / (8 * reach[1])
            loads[4 * n + Z, -1] -= np.sign(y) / (8 * reach[0])
