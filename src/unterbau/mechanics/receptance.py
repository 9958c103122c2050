"""Receptance from natural modes, and what it means for chatter.

Source:
    Modal series with viscous damping and the static rest of the modes left out (Ewins, Modal Testing, ch. 2);
    limit depth by the oriented receptance (Tobias; Tlusty; Altintas, Manufacturing Automation, ch. 3). From memory.
"""

import numpy as np
from numpy.typing import NDArray

from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.modes import Modes

ComplexArray = NDArray[np.complex128]


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


def oriented(H: ComplexArray, normal: FloatArray, force: FloatArray) -> ComplexArray:
    """Return the movement along the chip's thickness per force, m/N.

    Args:
        H: Receptance, shape (n, 3, 3).
        normal: Unit vector along the chip's thickness.
        force: Unit vector of the cutting force.
    """
    return np.asarray(np.einsum("i,fij,j->f", normal, H, force))


def limit_depth(G: ComplexArray, specific: float, teeth: float) -> float:
    """Return the depth of cut up to which no turning speed chatters, m; inf where none does.

    Args:
        G: Oriented receptance, m/N.
        specific: Specific cutting force of the resultant, Pa.
        teeth: In the cut.

    Source:
        b = 1/(2·Ks·z·|min Re G|).
    """
    lowest = float(G.real.min())
    return float(np.inf) if lowest >= 0.0 else 1.0 / (2 * specific * teeth * -lowest)
