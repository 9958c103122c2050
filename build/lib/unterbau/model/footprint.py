"""How the work stands on a plate: over a square, its corners between the plate's crossings."""

import numpy as np

from unterbau.mechanics.arrays import FloatArray, IntArray

HALF = 0.05
"""Half the square that work or vice stands on, at the least, m; a moment reaches the plate as pressure over it."""


def footprint(
    columns: tuple[float, ...], rows: tuple[float, ...], at: FloatArray, height: FloatArray
) -> tuple[IntArray, IntArray, FloatArray]:
    """Return the crossings that carry the work at places, and the work's movement by theirs.

    Args:
        columns: Crossings along x, m.
        rows: Crossings along y.
        at: Places of the work, shape (n, 2); the square is kept on the plate, work beyond its edge hangs over.
        height: Of the tool over the plate, shape (n,): work that reaches up to it is as wide as it is tall.

    Returns:
        Column and row of each crossing, shape (n, 16) each; movement of the work, as a rigid body that follows its
        corners on the average, per movement of each crossing, shape (n, 16, 6, 6).

    Source:
        Least squares of the corners' movements by a rigid one; for a rectangle its normal equations are diagonal.
    """
    n, half = len(at), np.maximum(HALF, height / 2)[:, None]
    ends = np.array([-1.0, 1.0])
    on = np.clip(at, (columns[0], rows[0]), (columns[-1], rows[-1]))
    cx = np.clip(on[:, :1] + half * ends, columns[0], columns[-1])
    cy = np.clip(on[:, 1:] + half * ends, rows[0], rows[-1])
    middle = np.stack([cx.mean(axis=1), cy.mean(axis=1)], axis=1)
    sides = np.stack([np.ptp(cx, axis=1), np.ptp(cy, axis=1)], axis=1) / 2
    arm = _arm(at - middle)
    i, a = cells(columns, cx)
    j, c = cells(rows, cy)
    corners = [np.stack([cx[:, p], cy[:, q]], axis=1) - middle for p in (0, 1) for q in (0, 1)]
    of_corner = np.stack([arm @ _corner(one, sides) for one in corners], axis=1).reshape(n, 2, 2, 1, 1, 6, 6)
    along, up = np.stack([1 - a, a], axis=2), np.stack([1 - c, c], axis=2)
    weight = along[:, :, None, :, None] * up[:, None, :, None, :]
    next_one, every = np.array([0, 1]), (n, 2, 2, 2, 2)
    which_i = np.broadcast_to((i[:, :, None] + next_one)[:, :, None, :, None], every)
    which_j = np.broadcast_to((j[:, :, None] + next_one)[:, None, :, None, :], every)
    share = (weight[..., None, None] * of_corner).reshape(n, 16, 6, 6)
    return which_i.reshape(n, 16), which_j.reshape(n, 16), share


def cells(stops: tuple[float, ...], at: FloatArray) -> tuple[IntArray, FloatArray]:
    """Return the stop below each place, and how far it is to the next one as a share."""
    line = np.array(stops)
    place = np.clip(np.searchsorted(line, at, side="right") - 1, 0, len(line) - 2)
    share = (at - line[place]) / (line[place + 1] - line[place])
    return place, np.clip(share, 0.0, 1.0)


def _corner(r: FloatArray, half: FloatArray) -> FloatArray:
    """Return the rigid movement's part by one corner's translations, at the square's middle, shape (n, 6, 6)."""
    S = np.zeros((len(r), 6, 6))
    S[:, 0, 0] = S[:, 1, 1] = S[:, 2, 2] = 0.25
    S[:, 3, 2] = r[:, 1] / (4 * half[:, 1] ** 2)
    S[:, 4, 2] = -r[:, 0] / (4 * half[:, 0] ** 2)
    polar = 4 * np.sum(half**2, axis=1)
    S[:, 5, 0], S[:, 5, 1] = -r[:, 1] / polar, r[:, 0] / polar
    return S


def _arm(d: FloatArray) -> FloatArray:
    """Return a rigid body's movement at places by that of its middle, shape (n, 6, 6)."""
    arm = np.tile(np.eye(6), (len(d), 1, 1))
    arm[:, 0, 5], arm[:, 1, 5], arm[:, 2, 3], arm[:, 2, 4] = -d[:, 1], d[:, 0], d[:, 1], -d[:, 0]
    return arm
