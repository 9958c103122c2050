"""From a frame to its factored stiffness matrix."""

from dataclasses import dataclass

import numpy as np

from unterbau.mechanics import beam, condensation, followed, placed_plate, rigid_body, rigid_link, spring
from unterbau.mechanics.arrays import FloatArray, IntArray
from unterbau.mechanics.beam import BeamElements
from unterbau.mechanics.condensation import CondensedHost, CondensedHosts
from unterbau.mechanics.factor import Factor, factorise
from unterbau.mechanics.followed import Batch, Plan, Turns
from unterbau.mechanics.frame import Frame
from unterbau.mechanics.mass_matrix import MassMatrix
from unterbau.mechanics.numbering import Numbering
from unterbau.mechanics.placed_plate import PlacedPlate
from unterbau.mechanics.rigid_link import Links
from unterbau.mechanics.seats import SplitFrame, split
from unterbau.mechanics.spring import SpringElements

MASSIVE = 1
"""The first batch that has a mass; springs have none."""


@dataclass(frozen=True, slots=True)
class Elements:
    """The split frame and the matrices of its elements."""

    split: SplitFrame
    beams: BeamElements
    springs: SpringElements
    links: Links
    hosts: tuple[CondensedHosts, ...]
    plates: tuple[PlacedPlate, ...] = ()

    @property
    def condensed(self) -> tuple[CondensedHost | PlacedPlate, ...]:
        """Elements with interior points."""
        return (*(one for alike in self.hosts for one in alike), *self.plates)

    @property
    def alike(self) -> tuple[CondensedHosts | PlacedPlate, ...]:
        """The same, hosts that are joined alike at once."""
        return (*self.hosts, *self.plates)

    @property
    def frame(self) -> Frame:
        """The frame without seats; its later nodes are interior points."""
        return self.split.frame


@dataclass(frozen=True, slots=True)
class System:
    """A frame, assembled and factored."""

    elements: Elements
    plan: Plan
    turned: Turns
    """What moves the elements of each of the plan's kinds."""
    band: FloatArray
    """Stiffness of the free freedoms, lower band, shape (half-bandwidth + 1, n)."""
    factor: Factor

    @property
    def numbering(self) -> Numbering:
        """Where each freedom stands in the band."""
        return self.plan.numbering


def build_elements(frame: Frame) -> tuple[Elements, list[Batch]]:
    """Return the element matrices of a frame and the stiffness batches to assemble: springs, then all with a mass."""
    parts = split(frame)
    whole = parts.frame
    beams = beam.build(whole.nodes, whole.beams)
    springs = spring.build(whole.nodes, whole.springs)
    Kb, Ks = beam.stiffness(beams), spring.stiffness(springs)
    hosts = condensation.condense(parts.hosts, whole, Kb, Ks)
    plates = tuple(placed_plate.place(plate) for plate in whole.plates)
    size = float(np.ptp(whole.nodes, axis=0).max()) or 1.0
    links = rigid_link.eliminate(whole.springs, springs, whole.fixed, size)
    plain_b, plain_s = parts.plain_beams, parts.plain_springs
    batches = [
        (_pair_dofs(whole.springs.i[plain_s], whole.springs.j[plain_s]), Ks[plain_s]),
        (_pair_dofs(whole.beams.i[plain_b], whole.beams.j[plain_b]), Kb[plain_b]),
        *((alike.retained, alike.K) for alike in hosts),
        *((plate.retained[None], plate.K[None]) for plate in plates),
    ]
    return Elements(parts, beams, springs, links, hosts, plates), batches


def assemble(frame: Frame) -> System:
    """Return the frame's system; singular matrices are the caller's to judge (`mechanism`)."""
    elements, stiffness = build_elements(frame)
    held = frame.fixed.ravel().copy()
    for plate in elements.plates:
        held[plate.interior] = True
    bodies = 6 * frame.masses.node[:, None] + np.arange(6)
    plan = followed.plan_of([*(dofs for dofs, _ in stiffness), bodies], MASSIVE, elements.links, held)
    turned = followed.turns(plan, elements.links)
    values = followed.entries(plan, turned, 0, [matrices for _, matrices in stiffness])
    band = fill_band(plan.numbering.target[: len(values)], values, plan.numbering)
    return System(elements, plan, turned, band, factorise(band, plan.numbering.ends))


def mass_matrix(system: System) -> MassMatrix:
    """Return the mass matrix of the free freedoms."""
    elements, plan = system.elements, system.plan
    parts, whole = elements.split, elements.frame
    Mb = beam.consistent_mass(whole.beams, elements.beams)
    hosts, plates = (alike.mass(Mb) for alike in elements.hosts), (one.M[None] for one in elements.plates)
    matrices = [Mb[parts.plain_beams], *hosts, *plates, rigid_body.mass_matrices(whole.masses)]
    return MassMatrix(plan.heavy, followed.entries(plan, system.turned, MASSIVE, matrices))


def fill_band(target: IntArray, values: FloatArray, numbering: Numbering) -> FloatArray:
    """Add entries up in lower band storage, Fortran order."""
    n, rows = len(numbering.order), numbering.half_bandwidth + 1
    flat = np.bincount(target, weights=values, minlength=n * rows + 1)
    return np.asarray(flat[: n * rows].reshape(n, rows).T)


def solve(system: System, loads: FloatArray, plates: bool = True) -> FloatArray:
    """Return the movements of all nodes of the split frame.

    Args:
        system: The system.
        loads: Loads at all nodes of the split frame, shape (n_nodes · 6, m).
        plates: Whether points inside plates are loaded and wanted; else theirs are left zero.

    Returns:
        Movements in the same order and shape.
    """
    elements, order = system.elements, system.numbering.order
    f = loads.copy()
    for one in elements.alike if plates else ():
        inside = loads[one.interior]
        loaded = np.flatnonzero(inside.any(axis=tuple(range(inside.ndim - 1))))
        if len(loaded):
            np.add.at(f, (one.retained[..., None], loaded), one.follow.mT @ inside[..., loaded])
    elements.links.pass_on(f)
    free = system.factor.solve(f[order]) if f[order].size else np.zeros((len(order), f.shape[1]))
    return expand(system, free, loads, plates)


def flexibility(system: System, dofs: IntArray) -> FloatArray:
    """Return the movements of some freedoms, none inside a plate or host, by unit loads on each; shape (m, m)."""
    order, links = system.numbering.order, system.elements.links
    last = 6 * len(system.elements.frame.nodes)
    place = np.full(last, -1)
    place[order] = np.arange(len(order))
    dependent = np.full(last, -1)
    dependent[links.dependent] = np.arange(len(links.dependent))
    column, at, factor = [np.flatnonzero(place[dofs] >= 0)], [place[dofs[place[dofs] >= 0]]], []
    factor.append(np.ones(len(column[0])))
    row = dependent[dofs]
    follows = np.flatnonzero(row >= 0)
    masters, values = links.masters[row[follows]], links.factors[row[follows]]
    used = np.flatnonzero(((values != 0.0) & (place[masters] >= 0)).ravel())
    column.append(np.repeat(follows, masters.shape[1])[used])
    at.append(place[masters.ravel()[used]])
    factor.append(values.ravel()[used])
    columns, rows, factors = np.concatenate(column), np.concatenate(at), np.concatenate(factor)
    right = np.zeros((len(order), len(dofs)))
    np.add.at(right, (rows, columns), factors)
    return system.factor.between(right)


def expand(system: System, free: FloatArray, loads: FloatArray | None = None, plates: bool = True) -> FloatArray:
    """Return movements of all nodes of the split frame from those of the free freedoms."""
    elements = system.elements
    u = np.zeros((6 * len(elements.frame.nodes), free.shape[1]))
    u[system.numbering.order] = free
    elements.links.follow(u)
    if not plates:
        return u
    for one in elements.alike:
        u[one.interior] = one.follow @ u[one.retained]
        if loads is not None and (inside := loads[one.interior]).any():
            u[one.interior] += one.give(inside)
    return u


def pair_movements(u: FloatArray, i: IntArray, j: IntArray) -> FloatArray:
    """Return movements (…, n, 12) of element ends from movements (…, n_nodes, 6); ground does not move."""
    second = np.where((j >= 0)[:, None], u[..., j, :], 0.0)
    return np.concatenate([u[..., i, :], second], axis=-1)


def _pair_dofs(i: IntArray, j: IntArray) -> IntArray:
    second = np.where(j >= 0, j, i)
    return np.concatenate([6 * i[:, None] + np.arange(6), 6 * second[:, None] + np.arange(6)], axis=1)
