"""A frame cut at its moving contacts into substructures, each seen only from the points it is touched at.

Every substructure is factored once, wherever the contacts stand later. A floating one is held
by soft springs at one of its nodes: under loads in balance these carry nothing, so the held flexibility
is one of its generalised inverses and the rigid movements are added as unknowns (Farhat and
Roux 1991; Felippa, Park, Filho 1998, from memory). Derivation in docs/theory/travel.md.
"""

from dataclasses import dataclass, replace

import numpy as np

from unterbau.kept import kept_up_to
from unterbau.mechanics import assembly, statics
from unterbau.mechanics.arrays import BoolArray, FloatArray, IntArray, cross_matrices
from unterbau.mechanics.connected import connected
from unterbau.mechanics.frame import JOINT, Frame, Loads, Springs
from unterbau.mechanics.mechanism import require_stable
from unterbau.mechanics.taken_apart import Alike, part_of

SIX = np.arange(6)
KEPT = 60.0  # MB
HOLD = (1e7, 1e7, 1e7, 1e6, 1e6, 1e6)


@dataclass(frozen=True, slots=True)
class Substructure:
    """One connected part of the frame without its moving contacts."""

    nodes: IntArray
    """The nodes it is touched at, shape (m,)."""
    between: FloatArray
    """Movement of those nodes by loads on them, shape (6m, 6m); with the holding springs where it floats."""
    rigid: FloatArray
    """Movements of those nodes with the whole as a rigid body, shape (6m, 6), or (6m, 0) where it stands on ground."""
    sinking: FloatArray
    """Movements of those nodes by its own weight, m and rad, shape (6m,)."""
    weight: FloatArray
    """Force and moment of its weight about its reference, shape (6,) or (0,)."""


def cut(
    frame: Frame, contacts: BoolArray, touched: IntArray, gravity: FloatArray
) -> tuple[tuple[Substructure, ...], IntArray, IntArray]:
    """Cut a frame at its moving contacts.

    Args:
        frame: The frame; all its seats are moving contacts.
        contacts: Which springs are moving contacts too, shape (n_springs,).
        touched: Nodes whose movements are wanted, shape (m,).
        gravity: Acceleration of free fall, m/s², shape (3,).

    Returns:
        The substructures; for each touched node its substructure, and its place among that one's nodes.

    Raises:
        MechanismError: A part can move freely in itself.
    """
    label = connected(frame, ~contacts, np.zeros(len(frame.seats), dtype=bool))
    count = int(label.max()) + 1
    substructures, of, place = [], label[touched], np.zeros(len(touched), dtype=np.intp)
    fall = tuple(gravity.tolist())
    for c in range(count):
        mine, nodes = np.flatnonzero(of == c), np.flatnonzero(label == c)
        place[mine] = np.arange(len(mine))
        part = part_of(frame, nodes, ~contacts)
        seen = _seen(Alike.of(part, np.searchsorted(nodes, touched[mine])), fall)
        substructures.append(replace(seen, nodes=touched[mine]))
    return tuple(substructures), of, place


@kept_up_to(KEPT)
def _seen(part: Alike, gravity: tuple[float, ...]) -> Substructure:
    """Return a connected part seen from some of its nodes; kept, for a change elsewhere leaves it as it is."""
    frame, touched = part.frame, part.touched
    anchor = frame.nodes[:0]
    stands = bool((frame.springs.j < 0).any() or frame.fixed.any())
    follows = np.zeros(len(frame.nodes), dtype=bool)
    for plate in frame.plates:
        follows[plate.points] = True
    if not stands:
        first = np.flatnonzero(~follows)[:1]
        anchor = frame.nodes[first]
        frame = replace(frame, springs=_held(frame.springs, first))
    system = assembly.assemble(frame)
    require_stable(system)
    free = Loads(np.zeros((1, len(frame.nodes), 6)), np.array(gravity)[None])
    own_weight = statics.nodal_loads(system, free)[0]
    C, sunk = _movements(system, touched, own_weight.ravel())
    rigid, total = np.zeros((6 * len(touched), 0)), np.zeros(0)
    if not stands:
        rigid = rigid_movements(frame.nodes[touched], anchor[0])
        total = rigid_movements(frame.nodes, anchor[0]).T @ own_weight.ravel()
    return Substructure(touched, (C + C.T) / 2, rigid, sunk, total)


def _movements(system: assembly.System, touched: IntArray, weight: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Return movements of touched nodes by loads on them, (6m, 6m), and by weight, (6m,).

    Points inside a plate move by its held places and its own flexibility: fewer loads to solve for.
    """
    m, size = len(touched), len(weight)
    where = np.full(size // 6, -1)
    where[touched] = np.arange(m)
    inside = [
        (one, np.flatnonzero(where[one.interior[::6] // 6] >= 0)) for one in system.elements.condensed
    ]  # fmt: skip
    inside = [(one, points) for one, points in inside if len(points)]
    direct = np.setdiff1d(touched, [node for one, points in inside for node in one.interior[::6][points] // 6])
    base = np.unique(np.concatenate([(6 * direct[:, None] + SIX).ravel(), *(one.retained for one, _ in inside)]))
    column = np.full(size, -1)
    column[base] = np.arange(len(base))
    parts = [((6 * where[direct][:, None] + SIX).ravel(), column[(6 * direct[:, None] + SIX).ravel()], None)]
    found = np.zeros((6 * m, 6 * m))
    for one, points in inside:
        of = (6 * points[:, None] + SIX).ravel()
        mine = (6 * where[one.interior[::6][points] // 6][:, None] + SIX).ravel()
        parts.append((mine, column[one.retained], one.follow[of]))
        found[np.ix_(mine, mine)] = one.inner[np.ix_(of, of)]
    u = assembly.flexibility(system, base)
    sunk = assembly.solve(system, weight[:, None])[(6 * touched[:, None] + SIX).ravel(), 0]
    for rows, base_rows, by_rows in parts:
        half = u[base_rows] if by_rows is None else by_rows @ u[base_rows]
        for columns, base_columns, by_columns in parts:
            some = half[:, base_columns]
            found[np.ix_(rows, columns)] += some if by_columns is None else some @ by_columns.T
    return found, sunk


def rigid_movements(places: FloatArray, reference: FloatArray) -> FloatArray:
    """Return the movements of places with a rigid body that moves and turns about a reference, (6n, 6)."""
    R = np.tile(np.eye(6), (len(places), 1, 1))
    R[:, :3, 3:] = -cross_matrices(places - reference)
    return R.reshape(6 * len(places), 6)


def _held(springs: Springs, anchors: IntArray) -> Springs:
    m = len(anchors)
    x, up = np.tile([1.0, 0.0, 0.0], (m, 1)), np.tile([0.0, 0.0, 1.0], (m, 1))
    added = Springs(
        anchors, np.full(m, -1), x, up, np.tile(HOLD, (m, 1)), np.zeros(m), np.zeros(m, dtype=np.intp),
        np.full(m, JOINT),
    )  # fmt: skip
    return Springs(*(np.concatenate([getattr(springs, f), getattr(added, f)]) for f in Springs.__slots__))
