"""Natural modes by a block Krylov space on the factor of the static solution."""

from dataclasses import dataclass, replace

import numpy as np

from unterbau.mechanics import assembly, beam, spring
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.assembly import System
from unterbau.mechanics.frame import Frame
from unterbau.mechanics.krylov import Rest, Space
from unterbau.mechanics.mass_matrix import MassMatrix
from unterbau.mechanics.mechanism import require_stable
from unterbau.mechanics.seats import split

SPACE, WIDE = 240, 6
"""Directions tried at the most before modes that have not settled are given up: so many, and so many for each."""
BLOCK = 3
CONVERGED = 1e-6  # of the residual; the error of a frequency is its square
UNEVEN = 0.3  # share of chance in the first block, beside movements along x, y and z
SETTLED = 2e-3
MOST_NODES = 1500  # beams are not halved beyond this


@dataclass(frozen=True, slots=True)
class Modes:
    """Natural modes, lowest first."""

    frequency: FloatArray
    """Undamped natural frequencies, Hz, shape (n_modes,)."""
    zeta: FloatArray
    """Damping ratios by strain energy, shape (n_modes,)."""
    shape: FloatArray
    """Mass-normalised, shape (n_modes, n_nodes of the split frame, 6): ux uy uz in kg^-½,
    rx ry rz in kg^-½·m⁻¹, global axes."""


def solve_modes(system: System, count: int) -> Modes:
    """Return the lowest `count` modes, fewer where the masses allow no more."""
    n = len(system.numbering.order)
    n_nodes = len(system.elements.frame.nodes)
    if n == 0 or count == 0:
        return Modes(np.zeros(0), np.zeros(0), np.zeros((0, n_nodes, 6)))
    product = assembly.mass_matrix(system)
    eigenvalues, free = _dominant(system, product, min(count, n))
    u = assembly.expand(system, free.T).T.reshape(len(eigenvalues), n_nodes, 6)
    frequency = 1 / (2 * np.pi * np.sqrt(eigenvalues))
    return Modes(np.asarray(frequency), _damping(system, u), u)


def settled_modes(frame: Frame, count: int) -> Modes:
    """Return modes on beams subdivided until the highest moves less than 0.2 %.

    Shapes are those of the frame as given.
    """
    system = assembly.assemble(frame)
    require_stable(system)
    modes = solve_modes(system, count)
    n = len(frame.nodes)
    before, fine = modes, split(frame).frame
    while len(before.frequency) and len(fine.beams) and len(fine.nodes) < MOST_NODES:
        fine = halve(fine)
        after = solve_modes(assembly.assemble(fine), count)
        same = len(after.frequency) == len(before.frequency)
        change = abs(after.frequency[-1] / before.frequency[-1] - 1) if same else 1.0
        before = after
        if change < SETTLED / 3:
            break
    return replace(before, shape=before.shape[:, :n])


def halve(frame: Frame) -> Frame:
    """Return a frame without seats with every beam in two; new nodes come last."""
    n, nb = len(frame.nodes), len(frame.beams)
    beams = frame.beams
    start, end = frame.nodes[beams.i] + beams.offset_i, frame.nodes[beams.j] + beams.offset_j
    middle = n + np.arange(nb)
    zero = np.zeros((nb, 3))
    rows = np.concatenate([np.arange(nb), np.arange(nb)])
    both = replace(
        beams.take(rows),
        i=np.concatenate([beams.i, middle]),
        j=np.concatenate([middle, beams.j]),
        offset_i=np.vstack([beams.offset_i, zero]),
        offset_j=np.vstack([zero, beams.offset_j]),
    )
    return replace(
        frame,
        nodes=np.vstack([frame.nodes, (start + end) / 2]),
        beams=both,
        fixed=np.vstack([frame.fixed, np.zeros((nb, 6), dtype=bool)]),
        node_names=(*frame.node_names, *(f"middle of {b}" for b in range(nb))),
    )


def _dominant(system: System, M: MassMatrix, count: int) -> tuple[FloatArray, FloatArray]:
    """Return the largest eigenvalues of K⁻¹M, descending, and M-normalised vectors (count, n)."""
    n, limit = len(system.numbering.order), SPACE + WIDE * (count + BLOCK)
    draw = np.random.default_rng(7)
    space = Space(n, M)

    def image(rows: FloatArray) -> Rest:
        return space.rest(system.factor.solve(rows.T).T)

    translations = (system.numbering.order % 6 == np.arange(BLOCK)[:, None]).astype(float)
    start = translations + UNEVEN * draw.standard_normal((n, BLOCK)).T
    rest = image(M.times(start[:n]))
    while True:
        added = space.take(rest)
        if added == 0:
            # The Krylov space is exhausted: equal eigenvalues beyond the block's width hide elsewhere.
            fresh = draw.standard_normal((n, min(BLOCK, n - space.size)))
            added = space.take(image(M.times(fresh.T)))
            if added == 0:
                break
        rest = image(space.products(added))
        space.keep(rest)
        if space.size < min(n, 2 * (count + BLOCK)):
            continue
        values, mix, residual = space.ritz(count)
        settled = residual < (CONVERGED * values) ** 2
        if settled.all():
            break
        if space.size > limit:  # masses so far apart that no space settles: only what has is told
            kept = (values > 0.0) & settled
            return values[kept], space.mixed(mix[:, kept])
        if space.size >= n:
            break
    values, mix, _ = space.ritz(count)
    kept = values > 0.0
    return values[kept], space.mixed(mix[:, kept])


def _damping(system: System, u: FloatArray) -> FloatArray:
    elements = system.elements
    frame = elements.frame
    pairs = assembly.pair_movements(u, frame.beams.i, frame.beams.j)
    of_beams = beam.total_energies(elements.beams, pairs)
    pairs = assembly.pair_movements(u, frame.springs.i, frame.springs.j)
    of_springs = spring.energies(elements.springs, pairs)
    total = of_beams.sum(axis=1) + of_springs.sum(axis=1)
    lost = of_beams @ frame.beams.zeta + of_springs @ frame.springs.zeta
    for plate in elements.plates:  # nothing loads the points inside: they follow
        held = u.reshape(len(u), -1)[:, plate.retained]
        energy = np.sum(held * (held @ plate.K), axis=1) / 2
        total, lost = total + energy, lost + plate.plate.zeta * energy
    return np.asarray(np.divide(lost, total, out=np.zeros(len(u)), where=total > 0))
