"""Natural modes by a block Krylov space on the factor of the static solution."""

from dataclasses import dataclass, replace

import numpy as np

from unterbau.mechanics import assembly, beam, lapack, rigid_body, spring
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.assembly import System
from unterbau.mechanics.frame import Frame
from unterbau.mechanics.mechanism import require_stable
from unterbau.mechanics.seats import split

BLOCK = 4
CONVERGED = 1e-9  # of the residual; the error of a frequency is its square
NEWS = 1e-20  # share of a direction's size that is left after the basis is taken off
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
    band = mass_band(system)
    eigenvalues, free = _dominant(system, band, min(count, n))
    u = assembly.expand(system, free).T.reshape(len(eigenvalues), n_nodes, 6)
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


def mass_band(system: System) -> FloatArray:
    """Return the mass matrix of the free freedoms, lower band."""
    elements = system.elements
    Mb = beam.consistent_mass(elements.frame.beams, elements.beams)
    masses = elements.frame.masses
    dofs = 6 * masses.node[:, None] + np.arange(6)
    batches = [*assembly.beam_mass_batches(elements, Mb), (dofs, rigid_body.mass_matrices(masses))]
    values = np.concatenate([m.ravel() for _, m in assembly.resolve(batches, elements.links)])
    return assembly.fill_band(system.mass_target, values, system.numbering)


def _dominant(system: System, M: FloatArray, count: int) -> tuple[FloatArray, FloatArray]:
    """Return the largest eigenvalues of K⁻¹M, descending, and M-normalised vectors (n, count)."""
    n = M.shape[1]
    basis, images, products = np.zeros((n, 0)), np.zeros((n, 0)), np.zeros((n, 0))
    start = np.random.default_rng(7).standard_normal((n, min(BLOCK, n)))
    block = system.factor.solve(lapack.band_multiply(M, start))
    values, mix = np.zeros(0), np.zeros((0, 0))
    while block.shape[1]:
        block, product = _orthonormal(block, basis, products, M)
        image = system.factor.solve(product) if block.shape[1] else product
        basis, products = np.hstack([basis, block]), np.hstack([products, product])
        images = np.hstack([images, image])
        full = basis.shape[1] >= min(n, count + BLOCK)
        if block.shape[1] and not full:
            block = image
            continue
        before = values
        T = products.T @ images
        values, mix = np.linalg.eigh((T + T.T) / 2)
        values, mix = values[::-1][:count], mix[:, ::-1][:, :count]
        settled = len(before) == len(values) and bool(np.all(np.abs(values - before) < CONVERGED * values))
        if basis.shape[1] >= n or (settled and _residual_small(M, values, images @ mix - basis @ (mix * values))):
            break
        block = image
    kept = values > 0.0
    return values[kept], basis @ mix[:, kept]


def _residual_small(M: FloatArray, values: FloatArray, residual: FloatArray) -> bool:
    size = np.sum(residual * lapack.band_multiply(M, residual), axis=0)
    return bool(np.all(size < (CONVERGED * values) ** 2))


def _orthonormal(
    block: FloatArray, basis: FloatArray, products: FloatArray, M: FloatArray
) -> tuple[FloatArray, FloatArray]:
    """Return the block orthonormal in M and to the basis, and M times it.

    Directions without news are dropped. M times the block follows the block's combinations;
    it is computed afresh once cancellation is over.
    """
    product = lapack.band_multiply(M, block)
    first = np.sum(block * product, axis=0)
    seen = first > 0.0
    scale = np.sqrt(first[seen])
    block, product = block[:, seen] / scale, product[:, seen] / scale
    for _ in range(2):
        share = products.T @ block
        block, product = block - basis @ share, product - products @ share
    size, turn = np.linalg.eigh(block.T @ product)
    news = size > NEWS
    block = block @ (turn[:, news] / np.sqrt(size[news]))
    block = block - basis @ (products.T @ block)
    product = lapack.band_multiply(M, block)
    gram = block.T @ product
    size, turn = np.linalg.eigh((gram + gram.T) / 2)
    news = size > 1e-6
    last = turn[:, news] / np.sqrt(size[news])
    return block @ last, product @ last


def _damping(system: System, u: FloatArray) -> FloatArray:
    elements = system.elements
    frame = elements.frame
    result = np.zeros(len(u))
    for mode, shape in enumerate(u):
        pairs = assembly.pair_movements(shape, frame.beams.i, frame.beams.j)
        of_beams = beam.energies(frame.beams, elements.beams, pairs).sum(axis=1)
        pairs = assembly.pair_movements(shape, frame.springs.i, frame.springs.j)
        of_springs = spring.energies(elements.springs, pairs)
        total = of_beams.sum() + of_springs.sum()
        lost = frame.beams.zeta @ of_beams + frame.springs.zeta @ of_springs
        result[mode] = lost / total if total > 0 else 0.0
    return result
