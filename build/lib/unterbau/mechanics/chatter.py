"""At which depth a milling cut chatters: the zero-order solution.

Source:
    Altintas and Budak, Analytical Prediction of Stability Lobes in Milling, 1995; from memory. The directions between
    movement and force are averaged over the teeth's way through the cut; below a quarter of immersion period-doubling
    lobes come besides, which it does not know.
"""

from dataclasses import dataclass

import numpy as np

from unterbau.mechanics.arrays import ComplexArray, FloatArray

TURN = 2 * np.pi


@dataclass(frozen=True, slots=True)
class Limits:
    """Depths at which one cut in one feed direction begins to chatter, for every frequency it could chatter at."""

    frequency: FloatArray
    """Hz, shape (n,)."""
    depth: FloatArray
    """m, shape (2, n); inf where there is no limit."""
    phase: FloatArray
    """Between the waves of one tooth and the next, rad, without jumps along the frequencies, shape (2, n)."""

    def floor(self) -> tuple[float, float]:
        """Return the least depth of all, m, and its frequency, Hz: no turning speed chatters below it."""
        place = int(np.argmin(self.depth)) % self.depth.shape[1]
        return float(self.depth.min()), float(self.frequency[place])

    def at(self, passing: float) -> tuple[float, float]:
        """Return the depth at which a cut chatters, m, and the frequency, Hz, with so many teeth passing a second."""
        best, where = np.inf, 0.0
        for depth, phase in zip(self.depth, self.phase, strict=True):
            turns = self.frequency / passing - phase / TURN
            low, high = np.floor(turns[:-1]), np.floor(turns[1:])
            crossed = np.flatnonzero((low != high) & np.isfinite(depth[:-1]) & np.isfinite(depth[1:]))
            if not len(crossed):
                continue
            whole = np.maximum(low, high)[crossed]
            share = (whole - turns[crossed]) / (turns[crossed + 1] - turns[crossed])
            found = depth[crossed] + share * (depth[crossed + 1] - depth[crossed])
            row = int(np.argmin(found))
            if found[row] < best:
                best, where = float(found[row]), float(self.frequency[crossed[row]])
        return best, where


def directions(start: float, end: float, radial: float) -> FloatArray:
    """Return the averaged directions between movement and force, feed and normal, shape (2, 2).

    Args:
        start: Angle at which a tooth enters, from the normal of the feed in the sense of turning, rad.
        end: At which it leaves.
        radial: Radial force as a share of the tangential one.
    """

    def at(phi: float) -> FloatArray:
        s, c = np.sin(2 * phi), np.cos(2 * phi)
        return 0.5 * np.array(
            [[c - 2 * radial * phi + radial * s, -s - 2 * phi + radial * c],
             [-s + 2 * phi + radial * c, -c - 2 * radial * phi - radial * s]]
        )  # fmt: skip

    return np.asarray(at(end) - at(start))


def limits(H: ComplexArray, frequency: FloatArray, alpha: FloatArray, cutting: float, teeth: int) -> Limits:
    """Return the depths at which a cut begins to chatter.

    Args:
        H: Receptance along feed and normal, m/N, shape (n, 2, 2).
        frequency: Hz, shape (n,), above 0.
        alpha: Averaged directions.
        cutting: Change of the tangential force with the chip's thickness per depth, N/m².
        teeth: Of the cutter.
    """
    A = alpha @ H
    trace = A[:, 0, 0] + A[:, 1, 1]
    det = A[:, 0, 0] * A[:, 1, 1] - A[:, 0, 1] * A[:, 1, 0]
    root = np.sqrt(trace * trace / 4 - det + 0j)
    depths, phases = [], []
    for value in (trace / 2 + root, trace / 2 - root):
        with np.errstate(divide="ignore", invalid="ignore"):
            eigen = -1.0 / value
            slope = eigen.imag / eigen.real
            depth = -TURN * eigen.real / (teeth * cutting) * (1 + slope**2)
        depth = np.where(np.isfinite(depth) & (depth > 0.0), depth, np.inf)
        depths.append(depth)
        phases.append(np.unwrap((np.pi - 2 * np.arctan(np.where(np.isfinite(slope), slope, 0.0))) % TURN))
    return Limits(frequency, np.array(depths), np.array(phases))
