"""Other stiffnesses in some springs of a frame that is solved once: exact for any change, rigid ones among them.

Source:
    Woodbury's identity on the springs' own stretches: with P the stretches by the pulls and Q those by springs' loads,
    C = C₀ − P·W·(A + Q·W)⁻¹·Pᵀ; W = Δk, A = 1 for finite changes, W = 1, A = 0 for a direction that becomes rigid.
"""

from dataclasses import dataclass

import numpy as np

from unterbau.mechanics import assembly
from unterbau.mechanics.arrays import FloatArray, IntArray
from unterbau.mechanics.statics import Statics


@dataclass(frozen=True, slots=True)
class SpringChanges:
    """A solved frame, ready for other stiffnesses in some directions of its springs."""

    before: FloatArray
    """Compliance of the pulls as it is, m/N, shape (n_pulls, n_pulls)."""
    k: FloatArray
    """Stiffness of each direction as it is, shape (n,)."""
    pulled: FloatArray
    """P, shape (n_pulls, n)."""
    loaded: FloatArray
    """Q, shape (n, n)."""

    def compliances(self, k: FloatArray) -> FloatArray:
        """Return the compliance for other stiffnesses of the directions.

        Args:
            k: N/m and N·m/rad, inf where rigid, shape (m, n).

        Returns:
            m/N, shape (m, n_pulls, n_pulls), symmetrical.
        """
        rigid = np.isinf(k)
        weight = np.where(rigid, 1.0, k - self.k)
        whole = self.loaded * weight[:, None, :]
        rows = np.arange(k.shape[1])
        whole[:, rows, rows] += np.where(rigid, 0.0, 1.0)
        right = np.broadcast_to(self.pulled.T, (len(k), *self.pulled.T.shape))
        change = (self.pulled * weight[:, None, :]) @ np.linalg.solve(whole, right)
        found = self.before - change
        return np.asarray((found + found.transpose(0, 2, 1)) / 2)


def spring_changes(statics: Statics, cases: slice, before: FloatArray, at: tuple[IntArray, IntArray]) -> SpringChanges:
    """Return a solved frame ready for changes of its springs.

    Args:
        statics: Of the frame.
        cases: Its unit pulls.
        before: Their compliance, shape (n_pulls, n_pulls).
        at: Rows of the frame's springs, and the direction of each, 0 to 5; none of them rigid.
    """
    system = statics.system
    frame, springs = system.elements.frame, system.elements.springs
    rows, ways = at
    size = 6 * len(frame.nodes)
    columns = np.zeros((size, len(rows)), order="F")
    for n, (row, way) in enumerate(zip(rows.tolist(), ways.tolist(), strict=True)):
        i, j = int(frame.springs.i[row]), int(frame.springs.j[row])
        columns[6 * i : 6 * i + 6, n] += springs.G[row, way, :6]
        if j >= 0:
            columns[6 * j : 6 * j + 6, n] += springs.G[row, way, 6:]
    u = assembly.solve(system, columns)
    pulls = statics.u[cases].reshape(len(before), -1)
    return SpringChanges(before, frame.springs.k[rows, ways], pulls @ columns, columns.T @ u)
