"""Rigid bodies carried by nodes: mass matrices and weight."""

import numpy as np

from unterbau.mechanics.arrays import FloatArray, cross_matrices
from unterbau.mechanics.frame import Masses


def mass_matrices(masses: Masses) -> FloatArray:
    """Return 6×6 mass matrices at the nodes, global axes, shape (n, 6, 6)."""
    S = cross_matrices(masses.offset)
    M = np.zeros((len(masses), 6, 6))
    m = masses.m[:, None, None]
    M[:, :3, :3] = m * np.eye(3)
    M[:, :3, 3:] = -m * S
    M[:, 3:, :3] = m * S
    M[:, 3:, 3:] = masses.inertia[:, :, None] * np.eye(3) - m * (S @ S)
    return M


def gravity_loads(masses: Masses, gravity: FloatArray) -> FloatArray:
    """Return force and moment at the nodes by the bodies' weight and by ropes, shape (n, 6)."""
    weight = (masses.m + masses.hung)[:, None] * gravity
    return np.concatenate([weight, np.cross(masses.offset, weight)], axis=1)
