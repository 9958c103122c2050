"""Thin-walled members as folded plates: how much their cross-section gives under loads that vary along them.

Loads and movements vary along the member as a sine of wave number κ. Every wall is cut along the member into
strips: in their plane linear, across it cubic (finite strips). The flexibility less that with the same cross-section
held rigid is what a beam leaves out: distortion of the whole section and dents of its walls.

Source:
    Finite strips: Cheung, Finite Strip Method in Structural Analysis, 1976, ch. 2 and 4, from memory. In its plane a
    strip has no Poisson's effect, so that a rigid cross-section does not stiffen it.
"""

from dataclasses import dataclass

import numpy as np

from unterbau.mechanics.arrays import FloatArray, IntArray

LONGEST = np.array([0.1, 0.3, 0.7, 1.2])
"""Wave numbers so small that nothing but the whole member bends, rad/m."""
AXIAL, Y, Z, TURN = range(4)
"""Freedoms of a line: along the member, along y and z of the section, rotation about the member's axis."""


@dataclass(frozen=True, slots=True)
class Strips:
    """A cross-section of walls."""

    lines: FloatArray
    """Places y, z of the lines between strips, m, shape (n, 2)."""
    ends: tuple[tuple[int, int], ...]
    """Lines at the two edges of each strip."""
    thickness: tuple[float, ...]
    bending: tuple[float, ...]
    """Bending stiffness of each strip across its plane against E·t³/12(1 − ν²): more where a corner is solid."""
    E: float
    G: float
    nu: float
    straight: tuple[tuple[int, ...], ...] = ()
    """Lines that something rigid across the member is fastened to: each set moves as one body across it."""


def relative_flexibility(strips: Strips, waves: FloatArray, loads: FloatArray) -> FloatArray:
    """Return movements by loads along the member, less those with the cross-section held rigid.

    Args:
        strips: The cross-section.
        waves: Wave numbers κ, rad/m, shape (k,).
        loads: Line loads on the freedoms of the lines, N/m and N·m/m, shape (4n, m).

    Returns:
        Flexibility per metre, symmetric, shape (k, m, m).
    """
    T = _tied(strips)
    powers = {p: T.T @ matrix @ T for p, matrix in _stiffness(strips).items()}
    every = np.concatenate([LONGEST, waves])
    K = sum(every[:, None, None] ** p * matrix for p, matrix in powers.items())
    load = T.T @ loads
    n = len(strips.lines)
    R = np.zeros((4 * n, 3 + n))
    y, z = strips.lines.T
    R[Y::4, 0], R[Z::4, 1], R[TURN::4, 2] = 1.0, 1.0, 1.0
    R[Y::4, 2], R[Z::4, 2] = -z, y
    R[AXIAL::4, 3:] = np.eye(n)
    R = R[_free(strips)]
    # The difference of two large flexibilities, by what of the load a rigid cross-section does not balance.
    q = np.broadcast_to(R.T @ load, (len(every), R.shape[1], load.shape[1]))
    left = load - K @ R @ np.linalg.solve(R.T @ K @ R, q)
    found = left.transpose(0, 2, 1) @ np.linalg.solve(K, left)
    # What still grows at the longest waves is how walls curve across the member as it bends, which a rigid section
    # keeps them from: it goes with the curvature of the beam, not with the load that lies above.
    m = len(LONGEST)
    powers = LONGEST[:, None] ** np.array([-4.0, -2.0, 0.0, 2.0])
    grown = np.linalg.solve(powers / powers[:, :1], (found[:m] / powers[:, :1, None]).reshape(m, -1))
    steep = waves[:, None] ** np.array([-4.0, -2.0])
    found = found[m:] - (steep @ grown[:2]).reshape(found[m:].shape)
    return np.asarray((found + found.transpose(0, 2, 1)) / 2)


def _free(strips: Strips) -> IntArray:
    """Return the freedoms that are left when the straight lines follow the first of them."""
    follow = [4 * line + d for lines in strips.straight for line in lines[1:] for d in (Y, Z, TURN)]
    return np.setdiff1d(np.arange(4 * len(strips.lines)), follow)


def _tied(strips: Strips) -> FloatArray:
    """Return the movements of all lines by the free ones."""
    free = _free(strips)
    T = np.zeros((4 * len(strips.lines), len(free)))
    T[free, np.arange(len(free))] = 1.0
    column = {int(dof): n for n, dof in enumerate(free)}
    for first_line, line in ((lines[0], line) for lines in strips.straight for line in lines[1:]):
        first = 4 * first_line
        dy, dz = strips.lines[line] - strips.lines[first_line]
        y, z, turn = column[first + Y], column[first + Z], column[first + TURN]
        T[4 * line + Y, y], T[4 * line + Y, turn] = 1.0, -dz
        T[4 * line + Z, z], T[4 * line + Z, turn] = 1.0, dy
        T[4 * line + TURN, turn] = 1.0
    return T


def _stiffness(strips: Strips) -> dict[int, FloatArray]:
    """Return the stiffness of the whole as a polynomial of κ, by power."""
    n = 4 * len(strips.lines)
    found = {p: np.zeros((n, n)) for p in (0, 1, 2, 4)}
    for (i, j), t, more in zip(strips.ends, strips.thickness, strips.bending, strict=True):
        across = strips.lines[j] - strips.lines[i]
        width = float(np.hypot(*across))
        c, s = across / width
        turn = np.eye(8)
        for first in (0, 4):
            turn[first + 1 : first + 3, first + 1 : first + 3] = [[c, s], [-s, c]]
        D = strips.E * t**3 / 12 / (1 - strips.nu**2)
        rows = np.concatenate([4 * i + np.arange(4), 4 * j + np.arange(4)])
        for p, own in _strip(width, strips.E * t, strips.G * t, (D, more * D), strips.nu).items():
            found[p][np.ix_(rows, rows)] += turn.T @ own @ turn
    return found


def _strip(width: float, Et: float, Gt: float, D: tuple[float, float], nu: float) -> dict[int, FloatArray]:
    """Return one strip's stiffness on (u v w θ) of its two edges, u along, v in its plane, w across, by power of κ.

    D is its bending stiffness along the member and across it.
    """
    found = {p: np.zeros((8, 8)) for p in (0, 1, 2, 4)}
    u, v, w = np.ix_([0, 4], [0, 4]), np.ix_([1, 5], [1, 5]), np.ix_([2, 3, 6, 7], [2, 3, 6, 7])
    both = width * np.array([[1 / 3, 1 / 6], [1 / 6, 1 / 3]])
    slope = np.array([[1.0, -1.0], [-1.0, 1.0]]) / width
    mixed = np.array([[-0.5, -0.5], [0.5, 0.5]])
    found[2][u] += Et * both
    found[0][v] += Et * slope
    found[0][u] += Gt * slope
    found[1][np.ix_([0, 4], [1, 5])] += Gt * mixed
    found[1][np.ix_([1, 5], [0, 4])] += Gt * mixed.T
    found[2][v] += Gt * both
    curved, crossed, sloped, moved = _hermite(width)
    along, across = D
    found[0][w] += across * curved
    found[2][w] += along * (2 * (1 - nu) * sloped - nu * (crossed + crossed.T))
    found[4][w] += along * moved
    return found


def _hermite(b: float) -> tuple[FloatArray, FloatArray, FloatArray, FloatArray]:
    """Return ∫N″N″, ∫N N″, ∫N′N′, ∫N N over a strip's width for the cubic shapes of w and θ = dw/ds."""
    points, weights = np.polynomial.legendre.leggauss(4)
    s, weight = (points + 1) / 2, weights / 2 * b
    N = np.array([1 - 3 * s**2 + 2 * s**3, b * (s - 2 * s**2 + s**3), 3 * s**2 - 2 * s**3, b * (s**3 - s**2)])
    first = np.array([-6 * s + 6 * s**2, b * (1 - 4 * s + 3 * s**2), 6 * s - 6 * s**2, b * (3 * s**2 - 2 * s)]) / b
    second = np.array([-6 + 12 * s, b * (-4 + 6 * s), 6 - 12 * s, b * (6 * s - 2)]) / b**2
    return (second * weight) @ second.T, (N * weight) @ second.T, (first * weight) @ first.T, (N * weight) @ N.T
