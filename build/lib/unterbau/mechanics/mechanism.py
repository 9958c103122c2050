"""Is a nearly singular stiffness matrix a mechanism, or only very soft somewhere?

A small pivot raises a suspicion only. The softest movements are found by inverse
iteration on the matrix scaled to unit diagonal, and each is judged by its own strain
energy, summed element by element (no cancellation), against the energy that moving each
freedom alone would cost.
"""

import numpy as np

from unterbau.mechanics import assembly
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.assembly import System
from unterbau.mechanics.errors import ConditionError, MechanismError
from unterbau.mechanics.factor import factorise, unit_scale

SUSPICIOUS = 1e-9
FREE = 1e-15
LARGE = 0.1
MOST = 192
"""Free movements that are looked for and named."""
DIRECTIONS = ("ux", "uy", "uz", "rx", "ry", "rz")


def require_stable(system: System) -> None:
    """Check that every movement of the frame meets resistance.

    Raises:
        MechanismError: Something moves freely; the error names it.
        ConditionError: Stiffnesses lie too far apart to be solved together.
    """
    n = len(system.numbering.order)
    if n == 0 or system.factor.smallest_pivot > SUSPICIOUS:
        return
    wanted = 12
    while True:
        count = min(wanted, n)
        ratios, vectors = _softest(system, count)
        free = ratios < FREE
        if not free.all() or count == n or wanted >= MOST:
            break
        wanted *= 4
    if free.any():
        raise MechanismError(_names(system, vectors[:, free]))
    if system.factor.smallest_pivot <= 0.0:
        raise ConditionError(
            "the stiffnesses of this frame lie too far apart to be solved together; "
            "the softest movement is that of " + ", ".join(_names(system, vectors[:, :1])[:6])
        )


def _softest(system: System, count: int) -> tuple[FloatArray, FloatArray]:
    broken = system.factor.smallest_pivot <= 0.0
    factor = factorise(system.band, system.numbering.ends, shift=1e-13) if broken else system.factor
    scale = unit_scale(system.band[0])[:, None]
    V = np.random.default_rng(1).standard_normal((len(scale), count))
    for _ in range(6):
        V, _ = np.linalg.qr(factor.solve(V / scale) / scale)
    W = _energy_products(system, V * scale)
    ratios, mix = np.linalg.eigh((W + W.T) / 2)
    return np.abs(ratios), V @ mix * scale


def _energy_products(system: System, free: FloatArray) -> FloatArray:
    elements = system.elements
    frame = elements.frame
    u = assembly.expand(system, free)
    m = u.shape[1]
    by_node = u.reshape(-1, 6, m)
    W = np.zeros((m, m))
    for set_, G, S in (
        (frame.beams, elements.beams.G, elements.beams.S),
        (frame.springs, elements.springs.G, elements.springs.k[:, :, None] * np.eye(6)),
    ):
        second = np.where((set_.j >= 0)[:, None, None], by_node[set_.j], 0.0)
        strain = G @ np.concatenate([by_node[set_.i], second], axis=1)
        W += np.einsum("eam,eab,ebn->mn", strain, S, strain, optimize=True)
    for plate in elements.plates:
        W += u[plate.retained].T @ plate.K @ u[plate.retained]
    return W


def _names(system: System, vectors: FloatArray) -> tuple[str, ...]:
    elements = system.elements
    n = elements.split.n_nodes
    u = assembly.expand(system, vectors)[: 6 * n].reshape(n, 6, -1)
    lengths = elements.beams.length
    turn = float(np.median(lengths)) if len(lengths) else 1.0
    u[:, 3:] *= turn
    flat, _ = np.linalg.qr(u.reshape(6 * n, -1))
    size = np.linalg.norm(flat, axis=1)
    chosen = [d for d in np.argsort(-size, kind="stable") if size[d] > LARGE * size.max()]
    return tuple(f"{elements.frame.node_names[d // 6]} {DIRECTIONS[d % 6]}" for d in chosen)
