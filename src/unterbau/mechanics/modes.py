"""Natural modes by a block Krylov space on the factor of the static solution."""

from dataclasses import dataclass, replace

import numpy as np

from unterbau.mechanics import assembly, beam, spring
from unterbau.mechanics.arrays import BoolArray, FloatArray
from unterbau.mechanics.assembly import System
from unterbau.mechanics.frame import Frame
from unterbau.mechanics.mass_matrix import MassMatrix
from unterbau.mechanics.mechanism import require_stable
from unterbau.mechanics.seats import split

SPACE, WIDE = 240, 6
"""Directions tried at the most before modes that have not settled are given up: so many, and so many for each."""
BLOCK = 3
CONVERGED = 1e-6  # of the residual; the error of a frequency is its square
UNEVEN = 0.3  # share of chance in the first block, beside movements along x, y and z
NEWS = 1e-20  # share of a direction's size, squared, that is left after the basis is taken off
ONCE = 1e-2  # of the same: where more is left, the basis is taken off once only (twice is enough, Kahan)
CANCELLED = 1e-8  # below this share the rest of a direction is taken off the basis once more
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


def _dominant(system: System, M: MassMatrix, count: int) -> tuple[FloatArray, FloatArray]:
    """Return the largest eigenvalues of K⁻¹M, descending, and M-normalised vectors (n, count)."""
    n, limit = len(system.numbering.order), SPACE + WIDE * (count + BLOCK)
    draw = np.random.default_rng(7)
    space = _Space(n, M)
    translations = (system.numbering.order[:, None] % 6 == np.arange(BLOCK)).astype(float)
    start = (translations + UNEVEN * draw.standard_normal((n, BLOCK)))[:, :n]
    block = system.factor.solve(M.times(start))
    while space.size < n:
        added = space.add(block)
        if added == 0:
            # The Krylov space is exhausted: equal eigenvalues beyond the block's width hide elsewhere.
            fresh = draw.standard_normal((n, min(BLOCK, n - space.size)))
            added = space.add(system.factor.solve(M.times(fresh)))
            if added == 0:
                break
        image = system.factor.solve(space.products[:, space.size - added : space.size])
        space.put_images(image)
        block = image
        if space.size < min(n, 2 * (count + BLOCK)):
            continue
        values, mix = space.ritz(count)
        if _settled(M, values, space.residual(values, mix)).all():
            break
        if space.size > limit:  # masses so far apart that no space settles: only what has is told
            kept = (values > 0.0) & _settled(M, values, space.residual(values, mix))
            return values[kept], space.basis[:, : space.size] @ mix[:, kept]
    values, mix = space.ritz(count)
    kept = values > 0.0
    return values[kept], space.basis[:, : space.size] @ mix[:, kept]


def _settled(M: MassMatrix, values: FloatArray, residual: FloatArray) -> BoolArray:
    """Return which values are settled."""
    size = np.sum(residual * M.times(residual), axis=0)
    return np.asarray(size < (CONVERGED * values) ** 2)


class _Space:
    """A growing basis, orthonormal in M, with M times it and K⁻¹M times it."""

    def __init__(self, n: int, M: MassMatrix) -> None:
        self.size = 0
        self._M = M
        self.basis, self.products, self.images = (np.zeros((n, 8 * BLOCK), order="F") for _ in range(3))

    def add(self, block: FloatArray) -> int:
        """Take in what is new in a block; return how many directions that is."""
        used = slice(0, self.size)
        basis, products = self.basis[:, used], self.products[:, used]
        product = self._M.times(block)
        first = np.sum(block * product, axis=0)
        seen = first > 0.0
        scale = np.sqrt(first[seen])
        block, product = block[:, seen] / scale, product[:, seen] / scale
        share = products.T @ block
        block, product = block - basis @ share, product - products @ share
        gram = block.T @ product
        if np.diagonal(gram).min(initial=1.0) < ONCE:
            share = products.T @ block
            block, product = block - basis @ share, product - products @ share
            gram = block.T @ product
        size, turn = np.linalg.eigh(gram)
        news = size > NEWS
        block = block @ (turn[:, news] / np.sqrt(size[news]))
        if np.any(size[news] < CANCELLED):
            block = block - basis @ (products.T @ block)
            product = self._M.times(block)
            gram = block.T @ product
            size, turn = np.linalg.eigh((gram + gram.T) / 2)
            news = size > 1e-6
            last = turn[:, news] / np.sqrt(size[news])
            block, product = block @ last, product @ last
        else:
            product = product @ (turn[:, news] / np.sqrt(size[news]))
        added = int(block.shape[1])
        self._grow(added)
        self.basis[:, self.size : self.size + added] = block
        self.products[:, self.size : self.size + added] = product
        self.size += added
        return added

    def put_images(self, image: FloatArray) -> None:
        """Keep K⁻¹M times the directions added last."""
        self.images[:, self.size - image.shape[1] : self.size] = image

    def ritz(self, count: int) -> tuple[FloatArray, FloatArray]:
        """Return the largest eigenvalues seen from the space, and their mixtures of the basis."""
        used = slice(0, self.size)
        T = self.products[:, used].T @ self.images[:, used]
        values, mix = np.linalg.eigh((T + T.T) / 2)
        return values[::-1][:count], mix[:, ::-1][:, :count]

    def residual(self, values: FloatArray, mix: FloatArray) -> FloatArray:
        """Return K⁻¹M x − λ x for vectors x mixed of the basis."""
        used = slice(0, self.size)
        return np.asarray(self.images[:, used] @ mix - self.basis[:, used] @ (mix * values))

    def _grow(self, added: int) -> None:
        if self.size + added > self.basis.shape[1]:
            more = np.zeros_like(self.basis)
            self.basis, self.products, self.images = (
                np.asfortranarray(np.hstack([rows, more])) for rows in (self.basis, self.products, self.images)
            )


def _damping(system: System, u: FloatArray) -> FloatArray:
    elements = system.elements
    frame = elements.frame
    pairs = assembly.pair_movements(u, frame.beams.i, frame.beams.j)
    of_beams = beam.energies(frame.beams, elements.beams, pairs).sum(axis=2)
    pairs = assembly.pair_movements(u, frame.springs.i, frame.springs.j)
    of_springs = spring.energies(elements.springs, pairs)
    total = of_beams.sum(axis=1) + of_springs.sum(axis=1)
    lost = of_beams @ frame.beams.zeta + of_springs @ frame.springs.zeta
    for plate in elements.plates:  # nothing loads the points inside: they follow
        held = u.reshape(len(u), -1)[:, plate.retained]
        energy = np.sum(held * (held @ plate.K), axis=1) / 2
        total, lost = total + energy, lost + plate.plate.zeta * energy
    return np.asarray(np.divide(lost, total, out=np.zeros(len(u)), where=total > 0))
