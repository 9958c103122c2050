"""From a frame to its factored stiffness matrix."""

from collections.abc import Iterator
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
PAIR = 12
"""Freedoms of an element between two nodes; larger ones are worth merging."""


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
    n_nodes = elements.split.n_nodes
    fixed = frame.fixed.ravel().copy()
    for plate in elements.plates:
        fixed[plate.interior] = True
    free = np.flatnonzero(~fixed)
    stiffness = resolve(stiffness, elements.links)
    free = np.setdiff1d(free, elements.links.dependent)
    massive = resolved_dofs([*beam_mass_batches(elements, None), bodies], elements.links)
    dofs, splits = flatten_dofs([*(one for one, _ in stiffness), *massive])
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
    """Express elements at dependent freedoms by the free freedoms these follow.

    A freedom may stand several times in an element then; its entries add up, all but the first being nothing.
    """
    if not len(links.dependent):
        return batches
    result: list[Batch] = []
    for which, some, width, rows in _kinds([dofs for dofs, _ in batches], links):
        dofs, matrices = batches[which]
        if width and dofs.shape[1] > PAIR:
            result += [_merged(dofs[n], matrices[n], rows[n], links) for n in some.tolist()]
            continue
        result.append(_followed(dofs[some], matrices[some], rows[some], links, width))
    return result


def resolved_dofs(batches: list[Batch], links: Links) -> list[IntArray]:
    """Return the freedoms that `resolve` expresses elements by, without their matrices."""
    if not len(links.dependent):
        return [dofs for dofs, _ in batches]
    result: list[IntArray] = []
    for which, some, width, rows in _kinds([dofs for dofs, _ in batches], links):
        dofs = batches[which][0]
        if width and dofs.shape[1] > PAIR:
            result += [_merged_dofs(dofs[n], rows[n], links)[None] for n in some.tolist()]
            continue
        result.append(_places(dofs[some], rows[some], links, width))
    return result


def _kinds(batches: list[IntArray], links: Links) -> Iterator[tuple[int, IntArray, int, IntArray]]:
    """Yield elements of batches that follow as many freedoms: the batch, which of it, how many, rows of the links."""
    last = max(int(links.dependent.max()), max(int(dofs.max()) for dofs in batches if dofs.size)) + 1
    row_of = np.full(last, -1)
    row_of[links.dependent] = np.arange(len(links.dependent))
    need = np.append(_counts(links), 1)  # the last for freedoms that follow none
    for which, dofs in enumerate(batches):
        if not dofs.size:
            yield which, np.arange(len(dofs)), 0, dofs
            continue
        rows = row_of[dofs]
        wide = np.where((rows >= 0).any(axis=1), need[rows].max(axis=1), 0)
        for width in np.unique(wide).tolist():
            yield which, np.flatnonzero(wide == width), width, rows


def _counts(links: Links) -> IntArray:
    """Return how many freedoms each dependent one follows, one at the least."""
    used = np.arange(1, links.factors.shape[1] + 1) * (links.factors != 0.0)
    return np.asarray(np.maximum(used.max(axis=1), 1))


def _places(dofs: IntArray, rows: IntArray, links: Links, width: int) -> IntArray:
    """Return the freedoms of elements, each as many as `width` that it follows."""
    return dofs if width == 0 else _each_once(dofs, rows, links, width)[0]


def _each_once(dofs: IntArray, rows: IntArray, links: Links, width: int) -> tuple[IntArray, IntArray, FloatArray]:
    """Return the freedoms that elements (n, k) follow, each once, and the last of them again up to the longest row.

    Returns:
        The freedoms, shape (n, m); the place among them of all that each of the elements' own follows, shape
        (n, k, width), and by which factor.
    """
    n, k = dofs.shape
    depends = rows >= 0
    places, factors = np.repeat(dofs[:, :, None], width, axis=2), np.zeros((n, k, width))
    factors[:, :, 0] = 1.0
    places[depends] = links.masters[rows[depends], :width]
    factors[depends] = links.factors[rows[depends], :width]
    flat = np.where(factors != 0.0, places, places[:, :, :1]).reshape(n, k * width)
    order = np.argsort(flat, axis=1)
    ascending = np.take_along_axis(flat, order, axis=1)
    rank = np.zeros(flat.shape, dtype=np.intp)
    np.cumsum(ascending[:, 1:] != ascending[:, :-1], axis=1, out=rank[:, 1:])
    free = np.repeat(ascending[:, -1:], int(rank.max()) + 1, axis=1)
    np.put_along_axis(free, rank, ascending, axis=1)
    which = np.empty_like(rank)
    np.put_along_axis(which, order, rank, axis=1)
    return free, which.reshape(n, k, width), factors


def _followed(dofs: IntArray, matrices: FloatArray, rows: IntArray, links: Links, width: int) -> Batch:
    """Return elements on the freedoms that their own follow."""
    if width == 0:
        return dofs, matrices
    free, which, factors = _each_once(dofs, rows, links, width)
    n, k, m = *dofs.shape, free.shape[1]
    flat = (np.arange(n * k).reshape(n, k, 1) * m + which).ravel()
    T = np.bincount(flat, weights=factors.ravel(), minlength=n * k * m).reshape(n, k, m)
    return free, T.transpose(0, 2, 1) @ matrices @ T


def _merged(dofs: IntArray, matrix: FloatArray, rows: IntArray, links: Links) -> Batch:
    """Return one large element on the freedoms that its own follow, each standing once."""
    depends, own = np.flatnonzero(rows >= 0), np.flatnonzero(rows < 0)
    masters, factors = links.masters[rows[depends]], links.factors[rows[depends]]
    free = _merged_dofs(dofs, rows, links)
    T = np.zeros((len(dofs), len(free)))
    T[own, np.searchsorted(free, dofs[own])] = 1.0
    np.add.at(T, (depends[:, None], np.searchsorted(free, masters)), factors)
    return free[None], (T.T @ matrix @ T)[None]


def _merged_dofs(dofs: IntArray, rows: IntArray, links: Links) -> IntArray:
    return np.unique(np.concatenate([dofs[rows < 0], links.masters[rows[rows >= 0]].ravel()]))


def flatten_dofs(batches: list[IntArray]) -> tuple[IntArray, tuple[int, ...]]:
    """Return all freedoms in a row and the number of freedoms of each element."""
    splits = tuple(dofs.shape[1] for dofs in batches for _ in range(len(dofs)))
    return np.concatenate([dofs.ravel() for dofs in batches]), splits


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
