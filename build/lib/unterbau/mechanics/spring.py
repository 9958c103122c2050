"""Six-way springs: stretch u_i − (u_j + θ_j × (x_i − x_j)) and θ_i − θ_j in the spring's axes."""

from dataclasses import dataclass

import numpy as np

from unterbau.mechanics.arrays import BoolArray, FloatArray, IntArray, axes_from
from unterbau.mechanics.beam import relative_movement
from unterbau.mechanics.frame import Springs
from unterbau.mechanics.repeated import sorts


@dataclass(frozen=True, slots=True)
class SpringElements:
    """What every spring needs again and again; shapes start with (n,)."""

    G: FloatArray
    """Nodal movements (u_i θ_i u_j θ_j) to stretch in own axes, shape (n, 6, 12)."""
    k: FloatArray
    """Finite stiffnesses, 0 in rigid directions, shape (n, 6)."""
    rigid: BoolArray
    """Directions that are rigid connections, shape (n, 6)."""
    first: IntArray
    """The first spring of each sort, shape (s,)."""
    sort: IntArray
    """Which sort each is."""


def build(nodes: FloatArray, springs: Springs) -> SpringElements:
    """Return the element matrices of all springs; ground has zero columns."""
    grounded = springs.j < 0
    arm = np.where(grounded[:, None], 0.0, nodes[springs.i] - nodes[springs.j])
    rigid = np.isinf(springs.k)
    k = np.where(rigid, 0.0, springs.k)
    shape = np.concatenate([springs.x, springs.up, arm], axis=1)
    first, sort = sorts(shape, np.concatenate([k, grounded[:, None]], axis=1))
    axes, arm = axes_from(springs.x[first], springs.up[first]), arm[first]
    G = -relative_movement(axes, np.zeros_like(arm), arm)
    G[grounded[first], :, 6:] = 0.0
    return SpringElements(G[sort], k, rigid, first, sort)


def stiffness(elements: SpringElements) -> FloatArray:
    """Return stiffness matrices in global axes, shape (n, 12, 12)."""
    G, k = elements.G[elements.first], elements.k[elements.first]
    return np.asarray((G.transpose(0, 2, 1) @ (k[:, :, None] * G))[elements.sort])


def energies(elements: SpringElements, movement: FloatArray) -> FloatArray:
    """Return the strain energy of each spring for nodal movements (m, n, 12) of m cases, J, shape (m, n)."""
    stretch = elements.G @ movement.transpose(1, 2, 0)
    return np.asarray(0.5 * np.sum(elements.k[:, :, None] * stretch**2, axis=1).T)
