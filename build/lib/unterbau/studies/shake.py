"""Shake: what moves in each natural mode, how the tool answers."""

from dataclasses import dataclass, replace

import numpy as np

from unterbau.band import Band, Level
from unterbau.machine.machine import Machine, lay_out, link, links, part_at
from unterbau.mechanics.arrays import ComplexArray, FloatArray, IntArray, cross_matrices
from unterbau.mechanics.frame import Frame, Loads
from unterbau.mechanics.modes import Modes, solve_modes
from unterbau.mechanics.receptance import receptance
from unterbau.mechanics.statics import energies_of, solve_with
from unterbau.progress import Progress, Silent
from unterbau.structure.parts import Guide, Place
from unterbau.structure.piece import Point
from unterbau.studies.bands import components, ends_of, frequency_band, pieces
from unterbau.studies.compliance import Solved, solve, tip_compliance
from unterbau.studies.loads import pull

COUNT = 24
"""Modes that make the receptance; the rest is static."""
TOLD = 6
"""Modes that are shown."""
TOP = 500.0
"""Highest frequency of the receptance, Hz."""
STEP = 0.5
DRAWN = 24
"""Machines that are drawn for how far chatter scatters."""
MOVER = 0.2
"""A part that holds at least this share of the largest part's movement energy is named."""


@dataclass(frozen=True, slots=True)
class Swing:
    """One natural mode in numbers and words."""

    frequency: float
    """Hz."""
    zeta: float
    moves: str
    """What moves, and how."""
    strains: str
    """Key of the link that strains most."""
    strained: float
    """Its share of the strain energy."""
    at_tool: float
    """Largest part of the tool's static give that this mode makes up, along x, y or z."""
    shape: FloatArray
    """Movement of the frame's nodes, largest translation 1, shape (n_nodes, 6)."""


@dataclass(frozen=True, slots=True)
class Shaking:
    """All of it, at one place."""

    solved: Solved
    modes: Modes
    swings: tuple[Swing, ...]
    frequency: FloatArray
    """Hz, shape (n,)."""
    tool: ComplexArray
    """Receptance of the tool against the work, m/N, shape (n, 3, 3)."""
    static: FloatArray
    """The same at rest, shape (3, 3)."""

    def tool_at(self, frequency: FloatArray) -> ComplexArray:
        """Return the receptance of the tool against the work at other frequencies, Hz, m/N, shape (n, 3, 3)."""
        pulls = pull(self.solved.built, self.solved.built.tip)
        return receptance(self.modes, pulls, self.static, frequency)

    def at_frequencies(self, hertz: FloatArray) -> "Shaking":
        """Return the same with other natural frequencies, its shapes and what lies beyond its modes kept."""
        pulls = pull(self.solved.built, self.solved.built.tip)
        part = np.einsum("mnd,pnd->mp", self.modes.shape[:, : pulls.shape[1]], pulls)
        more = (1 / hertz**2 - 1 / self.modes.frequency**2) / (2 * np.pi) ** 2
        static = self.static + np.einsum("m,mp,mq->pq", more, part, part)
        return replace(self, modes=replace(self.modes, frequency=hertz), static=static)


def shaking(machine: Machine, place: Place, level: Level = "likely", progress: Progress | None = None) -> Shaking:
    """Return modes and receptance of a machine.

    Raises:
        InputError: The machine cannot be built or solved.
        Cancelled: The progress asked to stop.
    """
    report = progress or Silent()
    report.step(0, 3, "static")
    solved = solve(machine, place, level)
    report.step(1, 3, "modes")
    modes = solve_modes(solved.statics.system, COUNT)
    report.step(2, 3, "receptance")
    frequency = np.arange(0.0, TOP + STEP / 2, STEP)
    pulls = pull(solved.built, solved.built.tip)
    static = tip_compliance(solved)
    tool = receptance(modes, pulls, static, frequency)
    share = shares_at_tool(solved, modes)
    told = range(min(TOLD, len(modes.frequency)))
    swings = tuple(_swing(machine, solved, modes, number, float(share[number])) for number in told)
    return Shaking(solved, modes, swings, frequency, tool, static)


def shares_at_tool(solved: Solved, modes: Modes) -> FloatArray:
    """Return of each mode the largest part of the tool's static give that it makes up, along x, y or z, shape (n,)."""
    pulls = pull(solved.built, solved.built.tip)
    part = np.einsum("mnd,pnd->mp", modes.shape[:, : pulls.shape[1]], pulls)
    give = np.diag(tip_compliance(solved))
    return np.asarray((part**2 / (2 * np.pi * modes.frequency[:, None]) ** 2 / give).max(axis=1))


@dataclass(frozen=True, slots=True)
class Shakes:
    """A machine shaking, and how its modes scatter with what is uncertain in it."""

    likely: Shaking
    bands: tuple[Band, ...]
    """Of each mode's frequency, Hz."""
    drawn: FloatArray
    """Natural frequencies of machines drawn, Hz, shape (DRAWN, n_modes)."""

    def frequency(self, number: int) -> Band:
        """Return a mode's frequency, Hz."""
        return self.bands[number]


def shakes(machine: Machine, place: Place, progress: Progress | None = None) -> Shakes:
    """Return a machine shaking, with bands from shares of strain energy: to first order shapes stay.

    Raises:
        InputError: The machine cannot be built or solved.
        Cancelled: The progress asked to stop.
    """
    report = progress or Silent()
    found = shaking(machine, place, progress=report)
    report.step(2, 3, "bands")
    parts = components(found.solved, found.modes.shape, found.modes.shape)
    drawn = pieces(machine, place).drawn(parts / parts.sum(axis=(1, 2), keepdims=True))
    frequency = found.modes.frequency
    bands = tuple(frequency_band(float(f), ends) for f, ends in zip(frequency, ends_of(drawn), strict=True))
    some = drawn[:, :: drawn.shape[1] // DRAWN][:, :DRAWN]
    return Shakes(found, bands, np.asarray(frequency / np.sqrt(some.T)))


def tapped(found: Shaking, node: int) -> ComplexArray:
    """Return the receptance of a node against ground, m/N, shape (n, 3, 3)."""
    statics = found.solved.statics
    forces = np.zeros((3, len(found.solved.built.frame.nodes), 6))
    forces[np.arange(3), node, np.arange(3)] = 1.0
    u = solve_with(statics.system, Loads(forces, np.zeros((3, 3)))).u
    return receptance(found.modes, forces, np.asarray(u[:, node, :3]), found.frequency)


def _swing(machine: Machine, solved: Solved, modes: Modes, number: int, at_tool: float) -> Swing:
    frame = solved.built.frame
    shape = modes.shape[number]
    strain = energies_of(solved.statics.system.elements, shape[None])[0].sum(axis=1)
    row = int(np.argmax(strain))
    own = shape[: len(frame.nodes)]
    largest = np.abs(own[_node_masses(frame)[0] > 0.0, :3]).max()
    return Swing(
        float(modes.frequency[number]), float(modes.zeta[number]), moves(machine, frame, own), frame.groups[row],
        float(strain[row] / strain.sum()), at_tool, own / largest,
    )  # fmt: skip


HEAVY = {"spindle_mount": "spindle"}
"""Joints at whose node a heavy part hangs, and that part."""


def _node_masses(frame: Frame) -> tuple[FloatArray, IntArray]:
    """Return the mass at each node and the part it belongs to, a beam's at its ends, a plate's over its points."""
    beams = frame.beams
    length = np.linalg.norm(frame.nodes[beams.j] + beams.offset_j - frame.nodes[beams.i] - beams.offset_i, axis=1)
    half = beams.rho * beams.A * length / 2
    m = np.zeros(len(frame.nodes))
    group = np.full(len(frame.nodes), -1)
    for end in (beams.i, beams.j):
        np.add.at(m, end, half)
        group[end] = beams.group
    np.add.at(m, frame.masses.node, frame.masses.m)
    for plate in frame.plates:
        spread = plate.points if len(plate.points) else plate.patches
        m[spread] += plate.spec.material.rho * plate.spec.thickness * plate.spec.area / len(spread)
        group[plate.points] = plate.group
    for rows in (frame.springs, frame.seats):
        first = rows.i if hasattr(rows, "i") else rows.node
        alone = group[first] < 0
        group[first[alone]] = rows.group[alone]
    return m, group


def moves(machine: Machine, frame: Frame, u: FloatArray) -> str:
    """Return in words what moves and how: as a whole along or about an axis, or bending."""
    return all_moves(machine, frame, u[None])[0]


def all_moves(machine: Machine, frame: Frame, shapes: FloatArray) -> list[str]:
    """Return the same for movements of many modes, shape (n_modes, n_nodes, 6)."""
    masses = _node_masses(frame)
    return [_told(machine, frame, u, *masses) for u in shapes]


def _told(machine: Machine, frame: Frame, u: FloatArray, m: FloatArray, group: IntArray) -> str:
    energy = m * np.sum(u[:, :3] ** 2, axis=1)
    by_group = np.bincount(group + 1, energy, len(frame.groups) + 1)[1:]
    order = [int(g) for g in np.argsort(-by_group) if by_group[g] > MOVER * by_group.max()]
    names = [_label(machine, frame.groups[g]) for g in order[:2]]
    nodes = np.isin(group, order) & (m > 0)
    manner = _manner(frame.nodes[nodes], u[nodes, :3], m[nodes])
    if len(names) == 1 and not _several(machine, frame.groups[order[0]]):
        verb, _, how = manner.partition(" ")
        manner = f"{verb}s {how}".strip()
    return f"{' and '.join(names)} {manner}"


def _several(machine: Machine, key: str) -> bool:
    """Return whether a link is of several pieces, so that it moves in the plural."""
    name = HEAVY.get(key, key)
    pieces = [one for one in lay_out(machine).pieces.values() if not isinstance(one, Point) and one.key == name]
    return len(pieces) > 1 or isinstance(part_at(machine, name), Guide)


def _label(machine: Machine, key: str) -> str:
    known = {one.key for one in links(machine)}
    return link(machine, HEAVY.get(key, key)).label if key in known else "whole machine"


def _manner(places: FloatArray, moved: FloatArray, m: FloatArray) -> str:
    """Return how a set of points moves, by the part of its energy in each rigid movement.

    Source:
        Least squares weighted by mass; König's theorem splits the energy into that of the centre of
        mass and that about it.
    """
    share = m / m.sum()
    centre, mean = share @ places, share @ moved
    arm, own = places - centre, moved - mean
    weighed = share[:, None] * arm
    inertia = np.sum(weighed * arm) * np.eye(3) - arm.T @ weighed
    about_axes = weighed.T @ own
    spin = np.linalg.lstsq(inertia, (about_axes - about_axes.T)[[1, 2, 0], [2, 0, 1]], rcond=1e-9)[0]
    turned = arm @ cross_matrices(spin[None])[0].T
    total = float(share @ np.sum(moved**2, axis=1))
    along = mean**2 / total
    about = float(share @ np.sum(turned**2, axis=1)) / total
    if 1.0 - along.sum() - about > 0.5:
        return "bend"
    if along.sum() >= about:
        return ("sway sideways", "sway front to back", "bob up and down")[int(np.argmax(along))]
    axis = int(np.argmax(np.abs(spin)))
    return ("nod front to back", "rock from side to side", "swing about the upright")[axis]
