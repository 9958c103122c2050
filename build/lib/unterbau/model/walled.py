"""Members whose walls give: rails screwed to them, and what else is fastened to a wall.

Beside the member's own beam stand, at each screw of a rail, a node that turns against it as the section distorts, and
the rail's node, which dents the wall; along the member auxiliary beams carry what makes both spread. All of it is
springs and beams that any frame program can read.
"""

from dataclasses import replace
from functools import lru_cache
from itertools import pairwise
from math import ceil, dist, isfinite

import numpy as np

from unterbau.catalogue.guides import block as block_size
from unterbau.catalogue.joints import RIGID
from unterbau.materials.material import Material, material
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.frame import DISTORTION, WALL
from unterbau.mechanics.plate_spec import nearest
from unterbau.model.frame_builder import Chain
from unterbau.model.member import BeamValues, member_values, strip_values
from unterbau.model.modelled import Laid, Model, ScrewedRail
from unterbau.model.section_walls import Bearing
from unterbau.model.walls import Dent, Distortion, Sunk, bears_on_wall, dents, give, has_walls, takes_screws
from unterbau.structure.motion import RAIL_HEIGHT
from unterbau.structure.parts import Guide, Member, Plate
from unterbau.structure.piece import Bar
from unterbau.structure.vectors import Vector, cross, dot, plus, scaled
from unterbau.structure.weights import inner_plates

PITCH, INSET = 0.06, 0.02
"""Between a rail's screws, and from a member's end to the first, m; common practice, no source."""
MOST = 24
"""Screws that are told apart along a member; a longer one has them wider apart."""
ARM = 1.0
"""Of the auxiliary beam that spreads distortion: far out, it adds next to nothing to the member's own bending, m."""
BENT = 0.2
"""Least share of the section's turn that a bearing turns with, else it keeps level."""
NOTHING = 1e-9
EXACT = 7
"""Decimals of a place on a wall, m: places that are one are asked for once."""
LITTLE = 0.005
"""An auxiliary beam has at most this share of the member's own stiffness: it must not stiffen the whole."""
ALIGNED = 0.99
MUCH = 100.0


def screw_stops(length: float) -> tuple[float, ...]:
    """Return where a member carries screws, from its start, m."""
    count = max(1, ceil((length - 2 * INSET) / max(PITCH, length / MOST) - 1e-9))
    return tuple(INSET + (length - 2 * INSET) * n / count for n in range(count + 1))


@lru_cache(maxsize=64)
def rail_values(block_name: str) -> BeamValues:
    """Return a rail as a beam: a steel bar as wide as the rail, its weight as listed."""
    size, steel = block_size(block_name), material("steel-drawn")
    bar = strip_values(Plate(RAIL_HEIGHT * size.height, "steel-drawn"), size.rail_width)
    return replace(bar, rho=size.rail_mass / bar.A, zeta=steel.zeta)


def _in_section(host: Laid | Bar, place: Vector, normal: Vector) -> tuple[float, float, tuple[float, float]]:
    """Return a place and a normal in the section of a member, y and z."""
    side = cross(host.up, host.along)
    away = plus(place, host.start, -1.0)
    return dot(away, side), dot(away, host.up), (round(dot(normal, side), 9), round(dot(normal, host.up), 9))


def lies_on_wall(bar: Bar, guide: Guide, start: Vector, up: Vector) -> bool:
    """Return whether a wall of a bar lies under a rail."""
    size = block_size(guide.block)
    y, z, normal = _in_section(bar, start, up)
    return bears_on_wall(bar.part, Bearing(y, z, normal, size.rail_width, size.length, backing=bar.part.backing))


def wall_rail(model: Model, key: str, guide: Guide, host: Laid, start: Vector, end: Vector, up: Vector) -> bool:
    """Screw a rail to the wall of a member, on a bonded fill firmly; False where no wall lies under it."""
    member = host.member
    size = block_size(guide.block)
    y, z, normal = _in_section(host, start, up)
    bearing = Bearing(y, z, normal, size.rail_width, size.length, backing=member.backing)
    if not takes_screws(member) or not bears_on_wall(member, bearing):
        return False
    first, last = (dot(plus(place, host.start, -1.0), host.along) for place in (start, end))
    spine = [(n, s) for n, s in screws(model, host) if min(first, last) - NOTHING <= s <= max(first, last) + NOTHING]
    seats = [plus(start, host.along, stop - first) for _, stop in spine]
    nodes = [model.frame.node(f"{key} {len(model.rails) + 1} on {host.name}, screw {n + 1}", place)
             for n, place in enumerate(seats)]  # fmt: skip
    offset, rail = scaled(up, RAIL_HEIGHT * size.height / 2), rail_values(guide.block)
    beams = tuple(model.frame.beam(key, a, b, rail, up, offset, offset) for a, b in pairwise(nodes))
    ends = size.rail_mass * (dist(start, end) - dist(seats[0], seats[-1])) / 2
    for node in (nodes[0], nodes[-1]):
        model.frame.mass(node, ends)
    model.rails.append((key, host.name, Chain(tuple(nodes), beams)))
    if not has_walls(member):
        for (axis_node, _), node in zip(spine, nodes, strict=True):
            model.frame.spring(host.key, node, axis_node, (RIGID,) * 6, host.along, up, 0.0)
        return True
    if host.name not in model.screwed:
        model.screwed[host.name] = []
        model.late.append(lambda: WalledMember(model, host).finish())
    axis = [n for n, _ in spine]
    model.screwed[host.name].append(ScrewedRail(bearing, up, dict(zip(axis, nodes, strict=True)), beams))
    if member.backing:
        base = material(member.material)
        mass = base.rho * member.backing * bearing.backing_width * dist(start, end)
        model.frame.spread(host.chain.nodes, mass)
    return True


def screws(model: Model, host: Laid) -> list[tuple[int, float]]:
    """Return the nodes of a member that screws stand at, and where they are from its start, m.

    Whatever else is fastened between them puts up nodes, but no screws.
    """
    along = host.along
    nodes = {dot(plus(model.frame.places[n], host.start, -1.0), along): n for n in reversed(host.chain.nodes[1:-1])}
    stops = sorted(nodes)
    found: list[tuple[int, float]] = []
    for wanted in screw_stops(host.length):
        stop = nearest(stops, wanted)
        if not found or stop > found[-1][1]:
            found.append((nodes[stop], stop))
    return found


def _reaches(stops: list[float]) -> list[float]:
    """Return the length of member that goes with each stop, m."""
    half = [b - a for a, b in pairwise(stops)]
    return [(half[max(n - 1, 0)] + half[min(n, len(half) - 1)]) / 2 for n in range(len(stops))]


def _shared_strip(found: Sunk, whole: BeamValues, base: Material, pitch: float) -> BeamValues:
    """Return what carries a shared dent from screw to screw by its slope: its ends keep level, so it resists a step."""
    return _strip(base, min(found.g * pitch**2 / 12, LITTLE * whole.E * min(whole.Iy, whole.Iz)), 0.0)


@lru_cache(maxsize=1024)
def _own_strip(own: Dent, shared: Sunk, whole: BeamValues, base: Material, pitch: float) -> BeamValues:
    """Return what carries a line's dent from screw to screw by bending and twist.

    So much of each that one screw alone, on springs a pitch apart, gives as the wall does.
    """
    sloped = 2 * (1 - PHASES)
    if isfinite(own.k):
        beside, point = np.full(len(PHASES), own.k * pitch), own.point
    else:
        beside, point = shared.k * pitch + shared.g / pitch * sloped, shared.point
    bend = _matched(12 * (1 - PHASES) ** 2 / (2 + PHASES), beside, point) * pitch**3
    twist = _matched(sloped, np.full(len(PHASES), own.k_roll * pitch), own.point_roll) * pitch
    if shared.closed:  # an open section's walls twist with it anyway
        twist = min(twist, LITTLE * whole.G * whole.J)
    return _strip(base, min(bend, LITTLE * whole.E * min(whole.Iy, whole.Iz)), twist)


def _strip(base: Material, bend: float, twist: float) -> BeamValues:
    I, J = max(bend / base.E, 1e-15), max(twist / base.G, 1e-15)  # noqa: E741
    return BeamValues(base.E, base.G, 0.0, base.zeta, 1e-10, I, 1e-15, 0.0, J, 0.0, 0.0)


PHASES = np.cos(np.pi * (np.arange(64) + 0.5) / 64)
"""Cosines of the phase from screw to screw, over all waves of a chain."""


def _matched(shapes: FloatArray, beside: FloatArray, point: float) -> float:
    """Return the factor of a chain's stiffness, beside others, that lets one place alone give `point`; 0 at least."""
    low, high = 0.0, 1e4 * float(beside[0])
    if float(np.mean(1 / beside)) <= point:
        return 0.0
    for _ in range(50):
        middle = (low + high) / 2
        low, high = (middle, high) if float(np.mean(1 / (beside + middle * shapes))) > point else (low, middle)
    return low


def _between(own: Dent, alike: float, reach: float) -> float:
    """Return the spring per length between two rails, N/m², that makes them so stiff against rolling alike."""
    more = alike - own.k_roll
    if not isfinite(own.k):
        return more / reach**2 / 2
    room = own.k * reach**2 - more
    return own.k * more / room / 2 if room > NOTHING * alike else own.k * MUCH


class WalledMember:
    """A member whose section distorts and whose walls dent under its rails; put up when all rails are known."""

    def __init__(self, model: Model, host: Laid) -> None:
        self.model, self.host = model, host
        self.rails = model.screwed[host.name]
        self._member = host.member
        self._base = material(self._member.material)
        self._along = host.along
        self._whole = member_values(self._member)

    def finish(self) -> None:
        """Put up all that gives between the rails and the axis."""
        found = dents(self._member, tuple(one.bearing for one in self.rails))
        spine = screws(self.model, self.host)
        reach = _reaches([stop for _, stop in spine])
        self._reach = {node: length for (node, _), length in zip(spine, reach, strict=True)}
        self._stayed = {spine[n][0] for n in _diaphragms(self._member, self.host.length, [stop for _, stop in spine])}
        main = self._distorted(found.distortion, found.each[0]) if found.distortion else None
        for shared in found.sunk:
            sunk = self._sink(shared)
            for n in shared.lines:
                self._shift(self.rails[n], found.each[n].aside)
                backs = self._turning(main, sunk, found.each[n], n) if main else sunk
                self._rest(self.rails[n], found.each[n], backs, sunk)
                strip = _own_strip(found.each[n], shared, self._whole, self._base, max(reach))
                for a, b in pairwise(self.rails[n].nodes.values()):
                    self.model.frame.beam(self.host.key, a, b, strip, self.rails[n].up, cause=WALL)
        for first, second, alike in found.braced:
            self._brace(self.rails[first], self.rails[second], found.each[first], alike)

    def _spring(self, i: int, j: int, k: tuple[float, ...], up: Vector, cause: int, zeta: float = 0.0) -> None:
        self.model.frame.spring(self.host.key, i, j, k, self._along, up, zeta, cause)

    def _shift(self, rail: ScrewedRail, aside: float) -> None:
        """Move a rail's nodes to where the wall bears it without rolling it; the rail itself stays where it is."""
        frame, (ny, nz) = self.model.frame, rail.bearing.normal
        across = plus(scaled(cross(self.host.up, self.host.along), -nz * aside), self.host.up, ny * aside)
        for node in rail.nodes.values():
            frame.places[node] = plus(frame.places[node], across)
        for number in rail.beams:
            row = frame.beams[number]
            back = plus(row[2], across, -1.0)
            frame.beams[number] = (*row[:2], back, back, *row[4:])

    def _brace(self, first: ScrewedRail, second: ScrewedRail, own: Dent, alike: float) -> None:
        """Hold two rails on one wall against rolling the same way, as the wall between them does.

        It gives way as the rails dent the wall with it, so it is stiffer than what it makes of both.
        """
        frame = self.model.frame
        for node, screw in first.nodes.items():
            if node not in second.nodes:
                continue
            other = second.nodes[node]
            middle = scaled(plus(frame.places[screw], frame.places[other]), 0.5)
            reach = dist(middle, frame.places[screw])
            between = frame.node(f"between rails {len(frame.places)}", middle)
            self._spring(between, screw, (RIGID,) * 6, first.up, WALL)
            k = _between(own, alike, reach) * self._reach[node]
            self._spring(between, other, (0.0, 0.0, k, 0.0, 0.0, 0.0), first.up, WALL, self._base.zeta)

    def _sink(self, shared: Sunk) -> dict[int, int]:
        """Return nodes that sink with the dent that a face's lines share, joined along the member."""
        frame, up = self.model.frame, self.rails[shared.lines[0]].up
        nodes = {}
        for node in dict.fromkeys(node for n in shared.lines for node in self.rails[n].nodes):
            nodes[node] = frame.node(f"dent {len(frame.places)}", frame.places[node])
            k = RIGID if node in self._stayed else shared.k * self._reach[node]  # inf stays rigid
            self._spring(nodes[node], node, (RIGID, RIGID, k, RIGID, RIGID, RIGID), up, WALL, self._base.zeta)
        strip = _shared_strip(shared, self._whole, self._base, max(self._reach.values()))
        for a, b in pairwise(nodes.values()):
            frame.beam(self.host.key, a, b, strip, up, cause=WALL)
        return nodes

    def _rest(self, rail: ScrewedRail, own: Dent, backs: dict[int, int], sunk: dict[int, int]) -> None:
        """Put the springs between a rail's screws and what they rest on."""
        for node, screw in rail.nodes.items():
            length, level = self._reach[node], backs[node] != sunk[node] and own.rolled < BENT
            k, roll, zeta = own.k * length, own.k_roll * length, self._base.zeta
            if node in self._stayed:
                k = RIGID
            self._spring(screw, backs[node], (RIGID, RIGID, k, 0.0 if level else roll, 0.0, RIGID), rail.up, WALL, zeta)
            if level:
                self._spring(screw, sunk[node], (0.0, 0.0, 0.0, roll, 0.0, 0.0), rail.up, WALL, zeta)

    def _distorted(self, own: Distortion, first: Dent) -> dict[int, int]:
        """Return nodes that turn with the section's distortion, held by its stiffness and joined along the member."""
        frame, host = self.model.frame, self.host
        ends = host.chain.nodes[0], host.chain.nodes[-1]
        stops = [(ends[0], 0.0), *screws(self.model, host), (ends[1], host.length)]
        self._measure = self._turn(first)
        main = {}
        for n, (node, _) in enumerate(stops):
            main[node] = frame.node(f"{host.name} distorted {n + 1}", frame.places[node])
            self._spring(main[node], node, (RIGID, RIGID, RIGID, 0.0, RIGID, RIGID), host.up, DISTORTION)
        k, g, e = (value / self._measure**2 for value in (own.k, own.g, own.e))
        reach = _reaches([stop for _, stop in stops])
        reach[0], reach[-1] = reach[0] / 2, reach[-1] / 2
        held = {stops[n][0] for n in _diaphragms(self._member, host.length, [stop for _, stop in stops])}
        held |= {node for node, last in zip(ends, (False, True), strict=True)
                 if self._member.capped or (host.name, last) in self.model.held_ends}  # fmt: skip
        outer = []
        for n, ((node, _), length) in enumerate(zip(stops, reach, strict=True)):
            turned = main[node]
            stiff = RIGID if node in held else k * length
            self._spring(turned, node, (0.0, 0.0, 0.0, stiff, 0.0, 0.0), host.up, DISTORTION, self._base.zeta)
            out = frame.node(f"{host.name} outer {n + 1}", plus(frame.places[turned], host.up, ARM))
            self._spring(out, turned, (RIGID, RIGID, RIGID, RIGID, RIGID, 0.0), host.up, DISTORTION)
            outer.append(out)
        base = self._base
        bar = BeamValues(
            base.E, base.G, 0.0, base.zeta, 1e-12, 1e-15, max(e / ARM**2 / base.E, 1e-15), 0.0,
            max(g / base.G, 1e-15), 0.0, 0.0,
        )  # fmt: skip
        for a, b in pairwise(outer):
            frame.beam(host.key, a, b, bar, host.up, cause=DISTORTION)
        return main

    def _turn(self, first: Dent) -> float:
        """Return how much of a turn stands for a distortion of 1: so much that rails mirrored on a face turn as one."""
        at = self.rails[0].bearing
        ny, nz = at.normal
        along, off = -at.y * nz + at.z * ny, first.moved[0] * ny + first.moved[1] * nz
        found = -off / along if abs(along) > NOTHING else first.rolled
        return found if abs(found) > BENT else 1.0

    def _turning(self, main: dict[int, int], sunk: dict[int, int], own: Dent, number: int) -> dict[int, int]:
        """Return nodes that sink, and turn with the distortion about the point that moves a bearing as it does."""
        frame, host, at = self.model.frame, self.host, self.rails[number].bearing
        y, z = at.y - own.moved[1] / self._measure, at.z + own.moved[0] / self._measure
        away = plus(scaled(cross(host.up, host.along), y), host.up, z)
        found: dict[int, int] = {}
        for node in self.rails[number].nodes:
            pole = frame.node(f"{host.name} pole {number + 1} {len(found) + 1}", plus(frame.places[node], away))
            self._spring(pole, sunk[node], (RIGID, RIGID, RIGID, 0.0, RIGID, RIGID), host.up, DISTORTION)
            self._spring(pole, main[node], (0.0, 0.0, 0.0, RIGID, 0.0, 0.0), host.up, DISTORTION)
            found[node] = pole
        return found


def _diaphragms(member: Member, length: float, stops: list[float]) -> list[int]:
    """Return which stops stand over a diaphragm."""
    if not member.diaphragms:
        return []
    count = max(1, round(length / member.diaphragms))
    wanted = [length * n / count for n in range(1, count)]
    return [min(range(len(stops)), key=lambda n: abs(stops[n] - at)) for at in wanted]


def on_wall(
    model: Model, host: Laid, place: Vector, outward: Vector, sides: tuple[tuple[Vector, float], ...], hollow: bool
) -> int:
    """Return the node of a member's wall that something is fastened to at a place; of its axis where no wall gives.

    Args:
        model: The frame on its way.
        host: The member.
        place: On its surface, or near.
        outward: Off its face.
        sides: The two directions of what bears there, and its size along each, m.
        hollow: Whether it bears along its edges.
    """
    axis = model.near(host, place)
    member = host.member
    y, z, normal = _in_section(host, place, outward)
    if not has_walls(member) or max(abs(normal[0]), abs(normal[1])) < ALIGNED:
        return axis
    along = next((size for way, size in sides if abs(dot(way, host.along)) > ALIGNED), None)
    across = next((size for way, size in sides if abs(dot(way, host.along)) < 1 - ALIGNED), None)
    if along is None or across is None:
        return axis
    size = (round(value, EXACT) for value in (y, z, across, along))
    y, z, across, along = size
    found = give(member, Bearing(y, z, normal, across, along, hollow))
    if found is None:
        return axis
    node = model.frame.node(f"wall of {host.name} at {len(model.frame.places)}", place)
    k = (1 / found.normal, 1 / max(found.across, 1e-14), RIGID, RIGID, 1 / found.pitch, 1 / found.roll)
    model.frame.spring(host.key, node, axis, k, outward, host.along, material(member.material).zeta, WALL)
    return node


def end_plates(model: Model, laid: Laid) -> None:
    """Let what keeps a hollow member in shape weigh along it: end plates, diaphragms."""
    mass = inner_plates(laid.member, laid.length).mass
    if mass:
        model.frame.spread(laid.chain.nodes, mass)
