"""Static answers: movements, reactions, end forces, energies."""

from dataclasses import dataclass

import numpy as np

from unterbau.mechanics import assembly, beam, placed_plate, rigid_body, spring
from unterbau.mechanics.arrays import FloatArray, totals
from unterbau.mechanics.assembly import Elements, System
from unterbau.mechanics.frame import AXIAL, BENDING, BY_STRAIN, CAUSES, Frame, Loads
from unterbau.mechanics.mechanism import require_stable

SIX = np.arange(6)


@dataclass(frozen=True, slots=True)
class Statics:
    """Movements of one frame under several load cases."""

    system: System
    loads: Loads
    u: FloatArray
    """Movements, m and rad, shape (n_cases, n_nodes of the split frame, 6)."""
    f: FloatArray
    """All loads as forces at these nodes, N and N·m, same shape."""


def solve_statics(frame: Frame, loads: Loads) -> Statics:
    """Return the movements of a frame under its load cases.

    Raises:
        MechanismError: The frame, or a part of it, can move freely.
        ConditionError: Stiffnesses lie too far apart to be solved together.
    """
    system = assembly.assemble(frame)
    require_stable(system)
    return solve_with(system, loads)


def solve_with(system: System, loads: Loads) -> Statics:
    """Return the movements under load cases for a system already factored."""
    f = nodal_loads(system, loads)
    u = assembly.solve(system, f.reshape(len(f), f.shape[1] * 6).T).T
    return Statics(system, loads, u.reshape(f.shape), f)


def nodal_loads(system: System, loads: Loads) -> FloatArray:
    """Return all loads as forces at the nodes of the split frame, (n_cases, n_nodes, 6)."""
    frame, n = system.elements.frame, system.elements.split.n_nodes
    f = np.zeros((len(loads.gravity), len(frame.nodes), 6))
    f[:, :n] = loads.forces
    falling = np.flatnonzero(loads.gravity.any(axis=1))
    if len(falling):
        parts = [_weights(system, loads.gravity[case]) for case in falling]
        where = np.concatenate([
            (6 * np.concatenate([frame.beams.i, frame.beams.j, frame.masses.node])[:, None] + SIX).ravel(),
            *(rows for plate in system.elements.plates for rows in (plate.retained, plate.interior)),
        ])  # fmt: skip
        f[falling] += totals(where, np.array(parts), 6 * len(frame.nodes)).reshape(len(falling), *f.shape[1:])
    return f


def _weights(system: System, g: FloatArray) -> FloatArray:
    """Return loads by the weight of beams, at their first ends and their second, of bodies, of plates, in a row."""
    frame = system.elements.frame
    of_beams = beam.gravity_loads(frame.beams, system.elements.beams, g)
    of_bodies = rigid_body.gravity_loads(frame.masses, g)
    of_plates = (plate.weight @ g for plate in system.elements.plates)
    return np.concatenate([of_beams[:, :6].ravel(), of_beams[:, 6:].ravel(), of_bodies.ravel(), *of_plates])


def beam_end_forces(statics: Statics, case: int) -> FloatArray:
    """Return what the nodes do to the ends of the split frame's beams, local, (n, 2, 6)."""
    elements = statics.system.elements
    beams = elements.frame.beams
    movement = assembly.pair_movements(statics.u[case], beams.i, beams.j)
    return beam.end_forces(beams, elements.beams, movement, statics.loads.gravity[case])


def reactions(statics: Statics) -> FloatArray:
    """Return support forces on the structure at the nodes, global, (n_cases, n_nodes, 6).

    Where several supports hold one rigid set, the least-norm share is given to each.
    """
    system = statics.system
    elements = system.elements
    frame, n = elements.frame, elements.split.n_nodes
    residual = -statics.f
    for case in range(len(residual)):
        for set_, forces in (
            (frame.beams, _beam_forces(statics, case)),
            (frame.springs, _spring_forces(statics, case)),
        ):
            np.add.at(residual[case], set_.i, forces[:, :6])
            held = set_.j >= 0
            np.add.at(residual[case], set_.j[held], forces[held, 6:])
        for plate in elements.plates:
            rows = np.concatenate([plate.retained, plate.interior])
            np.add.at(residual[case].reshape(-1), rows, placed_plate.forces(plate, statics.u[case].ravel()))
    result = np.where(frame.fixed[None, :n], residual[:, :n], 0.0)
    flat, flat_residual = (rows.reshape(len(rows), rows.shape[1] * 6) for rows in (result, residual))
    for one in elements.links.sets:
        share = np.linalg.lstsq(one.rows.T, flat_residual[:, one.dofs].T, rcond=None)[0]
        supports = one.rows[: one.n_support].argmax(axis=1)
        flat[:, one.dofs[supports]] = share[: one.n_support].T
    return np.asarray(flat.reshape(result.shape))


def energies(statics: Statics) -> FloatArray:
    """Return strain energy by group and cause, J, shape (n_cases, n_groups, 7); see `energies_of`."""
    return energies_of(statics.system.elements, statics.u, statics.f)


def energies_of(elements: Elements, u: FloatArray, f: FloatArray | None = None) -> FloatArray:
    """Return strain energy from the nodal movements by group and cause, J.

    The energy of a host beam's pieces counts to the host's group, that of its blocks to theirs. A plate's energy
    counts as stretch where it is in its plane, as bending across it.

    Args:
        elements: Of the frame.
        u: Movements, shape (m, n_nodes of the split frame, 6).
        f: Loads at these nodes, same shape; nothing where no plate is loaded inside, as in a mode.

    Returns:
        Shape (m, n_groups, 7), causes in the order of `CAUSES`.
    """
    frame = elements.frame
    movement = assembly.pair_movements(u, frame.beams.i, frame.beams.j)
    of_beams = beam.energies(frame.beams, elements.beams, movement)
    movement = assembly.pair_movements(u, frame.springs.i, frame.springs.j)
    of_springs = spring.energies(elements.springs, movement)
    m, causes = len(u), len(CAUSES)
    told = frame.beams.cause[:, None]
    cause = np.where(told == BY_STRAIN, np.arange(of_beams.shape[2]), told)
    where = [(causes * frame.beams.group[:, None] + cause).ravel(), causes * frame.springs.group + frame.springs.cause]
    values = np.concatenate([of_beams.reshape(m, of_beams.shape[1] * of_beams.shape[2]), of_springs], axis=1)
    table = totals(np.concatenate(where), values, len(frame.groups) * causes).reshape(m, len(frame.groups), causes)
    for plate in elements.plates:
        stretch, bend = placed_plate.energies(plate, _columns(u), None if f is None else _columns(f))
        table[:, plate.plate.group, AXIAL] += stretch
        table[:, plate.plate.group, BENDING] += bend
    return table


def _columns(rows: FloatArray) -> FloatArray:
    """Return cases (m, n, 6) as columns (6n, m)."""
    return rows.reshape(len(rows), rows.shape[1] * 6).T


def _beam_forces(statics: Statics, case: int) -> FloatArray:
    elements = statics.system.elements
    movement = assembly.pair_movements(statics.u[case], elements.frame.beams.i, elements.frame.beams.j)
    G, S = elements.beams.G, elements.beams.S
    return np.asarray((G.transpose(0, 2, 1) @ (S @ (G @ movement[:, :, None])))[:, :, 0])


def _spring_forces(statics: Statics, case: int) -> FloatArray:
    elements = statics.system.elements
    springs = elements.frame.springs
    movement = assembly.pair_movements(statics.u[case], springs.i, springs.j)
    G, k = elements.springs.G, elements.springs.k
    return np.asarray((G.transpose(0, 2, 1) @ (k[:, :, None] * (G @ movement[:, :, None])))[:, :, 0])


def spring_loads(statics: Statics) -> FloatArray:
    """Return forces and moments in the springs of the split frame, blocks among them, in their own directions.

    Shape (n_cases, n_springs, 6), N and N·m; rigid directions show none.
    """
    elements = statics.system.elements
    springs = elements.frame.springs
    moved = [assembly.pair_movements(u, springs.i, springs.j)[:, :, None] for u in statics.u]
    return np.stack([elements.springs.k * (elements.springs.G @ one)[:, :, 0] for one in moved])


def total_mass(frame: Frame) -> tuple[float, FloatArray]:
    """Return the mass, kg, and the centre of mass, m, of beams, bodies and plates."""
    start = frame.nodes[frame.beams.i] + frame.beams.offset_i
    end = frame.nodes[frame.beams.j] + frame.beams.offset_j
    of_beams = frame.beams.rho * frame.beams.A * np.linalg.norm(end - start, axis=1)
    of_plates, centres = placed_plate.mass_and_moment(frame)
    places = np.vstack([(start + end) / 2, frame.nodes[frame.masses.node] + frame.masses.offset, centres])
    m = np.concatenate([of_beams, frame.masses.m, of_plates])
    total = float(m.sum())
    return total, np.asarray(m @ places / total if total else np.zeros(3))
