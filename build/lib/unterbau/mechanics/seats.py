"""Guide blocks between the nodes of their rail.

The host beam is cut at every block into pieces that meet in interior points; the interior
points are condensed out host by host, so the nodes of the system do not depend on where
the blocks stand. The condensed element is exact for statics (the same numbers as a frame
with nodes at the blocks, which `split` returns); masses are condensed with the same shapes
(Guyan 1965), which is exact to second order in (frequency / frequency of the host alone).
"""

import itertools
from dataclasses import dataclass, fields, replace

import numpy as np

from unterbau.mechanics.arrays import FloatArray, IntArray
from unterbau.mechanics.frame import JOINT, Beams, Frame, Springs, no_seats

SAME_STATION = 1e-9


@dataclass(frozen=True, slots=True)
class Host:
    """One beam with its blocks, as element indices of the split frame."""

    retained: tuple[int, ...]
    """Nodes i, j of the host, then the nodes the blocks act at (each once)."""
    interior: tuple[int, ...]
    """Interior points of the split frame, from i to j."""
    beams: tuple[int, ...]
    springs: tuple[int, ...]


@dataclass(frozen=True, slots=True)
class SplitFrame:
    """A frame without seats, and where its pieces come from."""

    frame: Frame
    hosts: tuple[Host, ...]
    n_nodes: int
    """Number of nodes of the frame as given; later nodes are interior points."""
    plain_beams: IntArray
    """Beams of the split frame that belong to no host."""
    plain_springs: IntArray
    parent: IntArray
    """For each beam of the split frame, the beam it is or is a piece of."""


def split(frame: Frame) -> SplitFrame:
    """Cut every host beam at its seats; the seats become springs to the new nodes."""
    n, nb, ns = len(frame.nodes), len(frame.beams), len(frame.springs)
    seats = frame.seats
    if not len(seats):
        every = np.arange(nb)
        return SplitFrame(frame, (), n, every, np.arange(ns), every)
    order = np.lexsort((seats.station, seats.beam))
    point_of, firsts = _merge(frame, order)
    cut = _points(frame, order[firsts])
    by_host: dict[int, list[int]] = {}
    for row, seat in enumerate(order):
        by_host.setdefault(int(seats.beam[seat]), []).append(row)
    plain = np.setdiff1d(np.arange(nb), list(by_host))
    parent, ends, hosts, next_beam = list(plain), [], [], len(plain)
    for host, rows_of_host in by_host.items():
        points = list(dict.fromkeys(int(point_of[row]) for row in rows_of_host))
        chain = [int(frame.beams.i[host]), *(n + p for p in points), int(frame.beams.j[host])]
        pieces = range(next_beam, next_beam + len(chain) - 1)
        parent += [host] * len(pieces)
        ends += list(itertools.pairwise(chain))
        carried = [int(seats.node[order[row]]) for row in rows_of_host]
        retained = tuple(dict.fromkeys([chain[0], chain[-1], *carried]))
        hosts.append(Host(retained, tuple(chain[1:-1]), tuple(pieces), tuple(ns + row for row in rows_of_host)))
        next_beam += len(pieces)
    rows = np.array(parent, dtype=np.intp)
    split_frame = replace(
        frame,
        nodes=np.vstack([frame.nodes, cut]),
        beams=_pieces(frame.beams.take(rows), len(plain), np.array(ends, dtype=np.intp), n),
        springs=_seat_springs(frame, order, n + point_of),
        seats=no_seats(),
        fixed=np.vstack([frame.fixed, np.zeros((len(cut), 6), dtype=bool)]),
        node_names=(*frame.node_names, *(f"seat {p + 1}" for p in range(len(cut)))),
    )
    return SplitFrame(split_frame, tuple(hosts), n, np.arange(len(plain)), np.arange(ns), rows)


def _merge(frame: Frame, order: IntArray) -> tuple[IntArray, list[int]]:
    """Return for each seat in order its point, and the first seat of each point.

    Blocks side by side on parallel rails of one member share a point of its axis.
    """
    seats = frame.seats
    point_of, firsts = np.zeros(len(order), dtype=np.intp), [0]
    for row in range(1, len(order)):
        here, first = order[row], order[firsts[-1]]
        near = abs(seats.station[here] - seats.station[first]) < SAME_STATION
        if seats.beam[here] != seats.beam[first] or not near:
            firsts.append(row)
        point_of[row] = len(firsts) - 1
    return point_of, firsts


def _points(frame: Frame, order: IntArray) -> FloatArray:
    host, station = frame.seats.beam[order], frame.seats.station[order][:, None]
    start = frame.nodes[frame.beams.i[host]] + frame.beams.offset_i[host]
    end = frame.nodes[frame.beams.j[host]] + frame.beams.offset_j[host]
    return np.asarray(start + station * (end - start))


def _pieces(beams: Beams, n_plain: int, ends: IntArray, n_nodes: int) -> Beams:
    i, j = beams.i.copy(), beams.j.copy()
    i[n_plain:], j[n_plain:] = ends[:, 0], ends[:, 1]
    offset_i = np.where((i >= n_nodes)[:, None], 0.0, beams.offset_i)
    offset_j = np.where((j >= n_nodes)[:, None], 0.0, beams.offset_j)
    return replace(beams, i=i, j=j, offset_i=offset_i, offset_j=offset_j)


def _seat_springs(frame: Frame, order: IntArray, points: IntArray) -> Springs:
    seats = frame.seats
    added = Springs(
        seats.node[order], points, seats.x[order], seats.up[order],
        seats.k[order], seats.zeta[order], seats.group[order], np.full(len(order), JOINT),
    )  # fmt: skip
    return Springs(*(np.concatenate([getattr(frame.springs, f.name), getattr(added, f.name)]) for f in fields(Springs)))
