"""Receptance from natural modes.

Source:
    Modal series with viscous damping and the static rest of the modes left out (Ewins, Modal Testing, ch. 2, from
    memory).
"""

import numpy as np

from unterbau.mechanics.arrays import ComplexArray, FloatArray
from unterbau.mechanics.modes import Modes


def receptance(modes: Modes, direction: FloatArray, static: FloatArray, frequency: FloatArray) -> ComplexArray:
    """Return movement per force between pairs of pulls, m/N, shape (n_frequencies, d, d).

    Args:
        modes: The modes.
        direction: The pulls as nodal forces, N, shape (d, n_nodes, 6).
        static: Static compliance between them, m/N, shape (d, d); the series is made to meet it at 0 Hz.
        frequency: Hz, shape (n_frequencies,).
    """
    shape = modes.shape[:, : direction.shape[1]]
    part = np.einsum("mnd,pnd->mp", shape, direction)
    w = 2 * np.pi * modes.frequency
    products = part[:, :, None] * part[:, None, :]
    rest = static - np.sum(products / w[:, None, None] ** 2, axis=0)
    wf = 2 * np.pi * frequency[:, None]
    H = 1.0 / (w**2 - wf**2 + 2j * modes.zeta * w * wf)
    return np.asarray(np.einsum("fm,mpq->fpq", H, products) + rest)
