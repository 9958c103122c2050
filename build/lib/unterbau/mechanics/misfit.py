"""What does not fit: springs that are put in strained, and what they do to one another and to the frame."""

import numpy as np

from unterbau.mechanics import assembly
from unterbau.mechanics.arrays import FloatArray, IntArray
from unterbau.mechanics.statics import Statics


def put_in(statics: Statics, rows: IntArray, misfit: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Return what happens when springs of the split frame do not fit.

    Args:
        statics: A solved frame; only its stiffness is used.
        rows: Springs, shape (r,).
        misfit: How far each is off in its own directions, m and rad, shape (cases, r, 6).

    Returns:
        Movements of all nodes of the split frame, (cases, n_nodes, 6), and forces in all of its springs in their own
        directions, (cases, n_springs, 6).

    Source:
        Initial strain: F = k·(elongation − misfit); the nodes are loaded with Gᵀ·k·misfit.
    """
    system = statics.system
    springs, elements = system.elements.frame.springs, system.elements.springs
    cases, nodes = len(misfit), len(system.elements.frame.nodes)
    f = np.zeros((cases, nodes, 6))
    own = np.zeros((cases, len(springs), 6))
    own[:, rows] = misfit
    at = np.einsum("sab,sa,csa->csb", elements.G[rows], elements.k[rows], misfit)
    held = springs.j[rows] >= 0
    for case in range(cases):
        np.add.at(f[case], springs.i[rows], at[case, :, :6])
        np.add.at(f[case], springs.j[rows][held], at[case, held, 6:])
    u = assembly.solve(system, f.reshape(cases, nodes * 6).T).T.reshape(f.shape)
    moved = np.stack([assembly.pair_movements(one, springs.i, springs.j) for one in u])
    return u, elements.k * (np.einsum("sab,csb->csa", elements.G, moved) - own)
