"""From a frame to its factored stiffness matrix."""

from dataclasses import dataclass

import numpy as np

from unterbau.mechanics import beam, condensation, placed_plate, rigid_link, spring
from unterbau.mechanics.arrays import FloatArray, IntArray
from unterbau.mechanics.beam import BeamElements
from unterbau.mechanics.condensation import CondensedHost
from unterbau.mechanics.factor import Factor, factorise
from unterbau.mechanics.frame import Frame
from unterbau.mechanics.numbering import Numbering, number
from unterbau.mechanics.placed_plate import PlacedPlate
from unterbau.mechanics.rigid_link import Links
from unterbau.mechanics.seats import SplitFrame, split
from unterbau.mechanics.spring import SpringElements

Batch = tuple[IntArray, FloatArray]
"""Freedoms (n, k) and matrices (n, k, k) of elements of one size."""


@dataclass(frozen=True, slots=True)
class Elements:
    """The split frame and the matrices of its elements."""

    split: SplitFrame
    beams: BeamElements
    springs: SpringElements
    links: Links
    hosts: tuple[CondensedHost, ...]
    plates: tuple[PlacedPlate, ...] = ()

    @property
    def condensed(self) -> tuple[CondensedHost | PlacedPlate, ...]:
        """Elements with interior points."""
        return (*self.hosts, *self.plates)

    @property
    def frame(self) -> Frame:
        """The frame without seats; its later nodes are interior points."""
        return self.split.frame


@dataclass(frozen=True, slots=True)
class System:
    """A frame, assembled and factored."""

    elements: Elements
    numbering: Numbering
    band: FloatArray
    """Stiffness of the free freedoms, lower band, shape (half-bandwidth + 1, n)."""
    factor: Factor
    mass_target: IntArray
    """Band places of the entries of the mass matrices."""


def build_elements(frame: Frame) -> tuple[Elements, list[Batch]]:
    """Return the element matrices of a frame and the stiffness batches to assemble."""
    parts = split(frame)
    whole = parts.frame
    beams = beam.build(whole.nodes, whole.beams)
    springs = spring.build(whole.nodes, whole.springs)
    Kb, Ks = beam.stiffness(beams), spring.stiffness(springs)
    hosts = tuple(condensation.condense(host, whole, Kb, Ks) for host in parts.hosts)
    plates = tuple(placed_plate.place(plate) for plate in whole.plates)
    size = float(np.ptp(whole.nodes, axis=0).max()) or 1.0
    links = rigid_link.eliminate(whole.springs, springs, whole.fixed, size)
    plain_b, plain_s = parts.plain_beams, parts.plain_springs
    batches = [
        (_pair_dofs(whole.beams.i[plain_b], whole.beams.j[plain_b]), Kb[plain_b]),
        (_pair_dofs(whole.springs.i[plain_s], whole.springs.j[plain_s]), Ks[plain_s]),
        *((host.retained[None], host.K[None]) for host in hosts),
        *((plate.retained[None], plate.K[None]) for plate in plates),
    ]
    return Elements(parts, beams, springs, links, hosts, plates), batches


def assemble(frame: Frame) -> System:
    """Return the frame's system; singular matrices are the caller's to judge (`mechanism`)."""
    elements, stiffness = build_elements(frame)
    body_dofs = 6 * frame.masses.node[:, None] + np.arange(6)
    bodies = (body_dofs, np.zeros((len(body_dofs), 6, 6)))
    follows = elements.links.follows
    n_nodes = elements.split.n_nodes
    fixed = frame.fixed.ravel().copy()
    for plate in elements.plates:
        fixed[plate.interior] = True
    free = np.flatnonzero(~fixed)
    if follows:
        stiffness = resolve(stiffness, elements.links)
        free = np.setdiff1d(free, np.array(list(follows), dtype=np.intp))
    massive = resolve([*beam_mass_batches(elements, None), bodies], elements.links)
    dofs, splits = flatten_dofs([*stiffness, *massive])
    numbering = number(dofs, splits, free, n_nodes)
    values = np.concatenate([matrices.ravel() for _, matrices in stiffness])
    target = numbering.target[: len(values)]
    band = fill_band(target, values, numbering)
    return System(elements, numbering, band, factorise(band), numbering.target[len(values) :])


def beam_mass_batches(elements: Elements, Mb: FloatArray | None) -> list[Batch]:
    """Return mass batches of plain beams, hosts and plates; zeros where no matrices are given."""
    parts, whole = elements.split, elements.frame
    rows = parts.plain_beams
    matrices = np.zeros((len(rows), 12, 12)) if Mb is None else Mb[rows]
    batches = [(_pair_dofs(whole.beams.i[rows], whole.beams.j[rows]), matrices)]
    for host, condensed in zip(parts.hosts, elements.hosts, strict=True):
        M = np.zeros_like(condensed.K) if Mb is None else condensation.condense_mass(host, condensed, Mb)
        batches.append((condensed.retained[None], M[None]))
    of_plates = [(one.retained[None], (np.zeros_like(one.K) if Mb is None else one.M)[None]) for one in elements.plates]
    return [*batches, *of_plates]


def resolve(batches: list[Batch], links: Links) -> list[Batch]:
    """Express elements at dependent freedoms by the free freedoms these follow."""
    if not links.follows:
        return batches
    result: list[Batch] = []
    dependent = np.array(list(links.follows))
    for dofs, matrices in batches:
        touched = np.isin(dofs, dependent).any(axis=1)
        result.append((dofs[~touched], matrices[~touched]))
        for row in np.flatnonzero(touched):
            masters, T = transformation(dofs[row], links)
            result.append((masters[None], (T.T @ matrices[row] @ T)[None]))
    return result


def transformation(dofs: IntArray, links: Links) -> tuple[IntArray, FloatArray]:
    """Return the free freedoms behind `dofs` and the matrix from them to `dofs`."""
    column: dict[int, int] = {}
    entries: list[tuple[int, int, float]] = []
    for row, dof in enumerate(dofs.tolist()):
        masters, factors = links.follows.get(dof, (np.array([dof]), np.ones(1)))
        for master, value in zip(masters.tolist(), factors.tolist(), strict=True):
            entries.append((row, column.setdefault(master, len(column)), value))
    T = np.zeros((len(dofs), len(column)))
    for row, place, value in entries:
        T[row, place] += value
    return np.array(list(column), dtype=np.intp), T


def flatten_dofs(batches: list[Batch]) -> tuple[IntArray, tuple[int, ...]]:
    """Return all freedoms in a row and the number of freedoms of each element."""
    splits = tuple(dofs.shape[1] for dofs, _ in batches for _ in range(len(dofs)))
    return np.concatenate([dofs.ravel() for dofs, _ in batches]), splits


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
    for one in elements.condensed if plates else ():
        f[one.retained] += one.follow.T @ f[one.interior]
    for dof, (masters, factors) in elements.links.follows.items():
        f[masters] += factors[:, None] * f[dof]
    free = system.factor.solve(f[order]) if f[order].size else np.zeros((len(order), f.shape[1]))
    return expand(system, free, loads, plates)


def expand(system: System, free: FloatArray, loads: FloatArray | None = None, plates: bool = True) -> FloatArray:
    """Return movements of all nodes of the split frame from those of the free freedoms."""
    elements = system.elements
    u = np.zeros((6 * len(elements.frame.nodes), free.shape[1]))
    u[system.numbering.order] = free
    for dof, (masters, factors) in elements.links.follows.items():
        u[dof] = factors @ u[masters]
    for one in elements.condensed if plates else ():
        u[one.interior] = one.follow @ u[one.retained]
        if loads is not None:
            u[one.interior] += one.inner @ loads[one.interior]
    return u


def pair_movements(u: FloatArray, i: IntArray, j: IntArray) -> FloatArray:
    """Return movements (…, n, 12) of element ends from movements (…, n_nodes, 6); ground does not move."""
    second = np.where((j >= 0)[:, None], u[..., j, :], 0.0)
    return np.concatenate([u[..., i, :], second], axis=-1)


def _pair_dofs(i: IntArray, j: IntArray) -> IntArray:
    second = np.where(j >= 0, j, i)
    return np.concatenate([6 * i[:, None] + np.arange(6), 6 * second[:, None] + np.arange(6)], axis=1)
