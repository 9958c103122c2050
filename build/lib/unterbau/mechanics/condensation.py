"""Interior points of host beams, condensed onto the nodes of the system; hosts that are joined alike at once."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from unterbau.mechanics.arrays import FloatArray, IntArray
from unterbau.mechanics.frame import Frame
from unterbau.mechanics.seats import Host

SIX = np.arange(6)


@dataclass(frozen=True, slots=True)
class CondensedHost:
    """One host beam with its blocks as a single element."""

    retained: IntArray
    """Freedoms of the retained nodes, shape (r,)."""
    interior: IntArray
    """Freedoms of the interior points, shape (p,)."""
    follow: FloatArray
    """Interior movement per retained movement, shape (p, r)."""
    inner: FloatArray
    """Interior movement per interior load, retained nodes held, shape (p, p)."""


@dataclass(frozen=True, slots=True)
class CondensedHosts:
    """Hosts that are joined alike."""

    retained: IntArray
    """Shape (h, r)."""
    interior: IntArray
    """Shape (h, p)."""
    K: FloatArray
    """Condensed stiffness, shape (h, r, r)."""
    follow: FloatArray
    """Shape (h, p, r)."""
    inner: FloatArray
    """Shape (h, p, p)."""
    beams: IntArray
    """Pieces of each, shape (h, b)."""
    places: tuple[IntArray, ...]
    """Local places of the freedoms of each piece and each spring."""

    def __iter__(self) -> Iterator[CondensedHost]:
        """Yield each."""
        return map(CondensedHost, self.retained, self.interior, self.follow, self.inner)

    def give(self, inside: FloatArray) -> FloatArray:
        """Return how interior points move by loads on them, retained nodes held, both (h, p, m)."""
        return np.asarray(self.inner @ inside)

    def mass(self, Mb: FloatArray) -> FloatArray:
        """Return the hosts' mass matrices on their retained freedoms (Guyan), (h, r, r), from those of all beams."""
        h, p, r = self.follow.shape
        full = _gather(Mb[self.beams], self.places[: self.beams.shape[1]], r + p)
        T = np.concatenate([np.broadcast_to(np.eye(r), (h, r, r)), self.follow], axis=1)
        return np.asarray(T.transpose(0, 2, 1) @ full @ T)


def condense(hosts: tuple[Host, ...], frame: Frame, Kb: FloatArray, Ks: FloatArray) -> tuple[CondensedHosts, ...]:
    """Return the condensed elements of hosts.

    Args:
        hosts: The hosts, as indices into the split frame.
        frame: The split frame.
        Kb: Stiffness of all its beams, shape (n, 12, 12).
        Ks: Stiffness of all its springs, shape (n, 12, 12).
    """
    ends = [(frame.beams.i.tolist(), frame.beams.j.tolist()), (frame.springs.i.tolist(), frame.springs.j.tolist())]
    alike: dict[tuple[object, ...], list[Host]] = {}
    pairs_of: dict[tuple[object, ...], list[tuple[int, int]]] = {}
    for host in hosts:
        place = {node: n for n, node in enumerate((*host.retained, *host.interior))}
        pairs = [
            (place[i[one]], place[j[one]])
            for (i, j), some in zip(ends, (host.beams, host.springs), strict=True) for one in some
        ]  # fmt: skip
        sort = (len(host.retained), len(host.beams), *pairs)
        alike.setdefault(sort, []).append(host)
        pairs_of[sort] = pairs
    return tuple(_condensed(some, pairs_of[sort], Kb, Ks) for sort, some in alike.items())


def _condensed(hosts: list[Host], pairs: list[tuple[int, int]], Kb: FloatArray, Ks: FloatArray) -> CondensedHosts:
    nodes = np.array([(*host.retained, *host.interior) for host in hosts])
    beams, springs = (np.array([getattr(host, of) for host in hosts], dtype=np.intp) for of in ("beams", "springs"))
    places = tuple(np.concatenate([6 * i + SIX, 6 * j + SIX]) for i, j in pairs)
    full = _gather(np.concatenate([Kb[beams], Ks[springs]], axis=1), places, 6 * nodes.shape[1])
    r = 6 * len(hosts[0].retained)
    inner: FloatArray = np.asarray(np.linalg.inv(full[:, r:, r:]), dtype=float)
    follow = -inner @ full[:, r:, :r]
    K = full[:, :r, :r] + full[:, :r, r:] @ follow
    dofs = (6 * nodes[:, :, None] + SIX).reshape(len(hosts), -1)
    K = (K + K.transpose(0, 2, 1)) / 2
    return CondensedHosts(dofs[:, :r], dofs[:, r:], K, follow, inner, beams, places)


def _gather(matrices: FloatArray, places: tuple[IntArray, ...], size: int) -> FloatArray:
    """Return the sum of elements (h, e, 12, 12) at their places, shape (h, size, size)."""
    full = np.zeros((len(matrices), size, size))
    for n, place in enumerate(places):
        full[:, place[:, None], place] += matrices[:, n]
    return full
