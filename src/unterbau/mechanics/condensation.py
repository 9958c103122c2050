"""Interior points of host beams, condensed onto the nodes of the system."""

from dataclasses import dataclass

import numpy as np

from unterbau.mechanics.arrays import FloatArray, IntArray
from unterbau.mechanics.frame import Frame
from unterbau.mechanics.seats import Host


@dataclass(frozen=True, slots=True)
class CondensedHost:
    """One host beam with its blocks as a single element."""

    retained: IntArray
    """Freedoms of the retained nodes, shape (r,)."""
    interior: IntArray
    """Freedoms of the interior points, shape (p,)."""
    K: FloatArray
    """Condensed stiffness, shape (r, r)."""
    follow: FloatArray
    """Interior movement per retained movement, shape (p, r)."""
    inner: FloatArray
    """Interior movement per interior load, retained nodes held, shape (p, p)."""
    places: tuple[IntArray, ...]
    """Local places of the freedoms of each piece and each spring."""


def condense(host: Host, frame: Frame, Kb: FloatArray, Ks: FloatArray) -> CondensedHost:
    """Return the condensed element of one host.

    Args:
        host: The host, as indices into the split frame.
        frame: The split frame.
        Kb: Stiffness of all its beams, shape (n, 12, 12).
        Ks: Stiffness of all its springs, shape (n, 12, 12).
    """
    nodes = (*host.retained, *host.interior)
    local = {node: 6 * place for place, node in enumerate(nodes)}
    pairs = [(frame.beams.i[b], frame.beams.j[b]) for b in host.beams]
    pairs += [(frame.springs.i[s], frame.springs.j[s]) for s in host.springs]
    matrices = [*Kb[list(host.beams)], *Ks[list(host.springs)]]
    places = tuple(np.concatenate([local[int(i)] + np.arange(6), local[int(j)] + np.arange(6)]) for i, j in pairs)
    full = _gather(matrices, places, 6 * len(nodes))
    r = 6 * len(host.retained)
    inner: FloatArray = np.asarray(np.linalg.inv(full[r:, r:]), dtype=float)
    follow = -inner @ full[r:, :r]
    K = full[:r, :r] + full[:r, r:] @ follow
    dofs = (6 * np.array(nodes)[:, None] + np.arange(6)).ravel()
    return CondensedHost(dofs[:r], dofs[r:], (K + K.T) / 2, follow, inner, places)


def condense_mass(host: Host, condensed: CondensedHost, Mb: FloatArray) -> FloatArray:
    """Return the host's mass matrix on its retained freedoms (Guyan)."""
    r, p = len(condensed.retained), len(condensed.interior)
    full = _gather([*Mb[list(host.beams)]], condensed.places, r + p)
    T = np.vstack([np.eye(r), condensed.follow])
    return np.asarray(T.T @ full @ T)


def _gather(matrices: list[FloatArray], places: tuple[IntArray, ...], size: int) -> FloatArray:
    full = np.zeros((size, size))
    for matrix, place in zip(matrices, places, strict=False):
        full[place[:, None], place] += matrix
    return full
