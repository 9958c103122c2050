"""A square tube built from the program's own shells, four walls, against the same tube as folded plates.

Ends in diaphragms: there a load is a sum of sine waves, each as in an endless tube. What the tube bends, shears and
twists as a whole is by hand: I = 2·b³t/3, As = 5·b·t/3 (∫S²/I²t over the shear flow), J = b³·t (Bredt).
"""

import numpy as np
import pytest
from scipy.sparse import coo_matrix
from scipy.sparse.linalg import splu

from tests.machine.test_walls import NU, E, G, square
from unterbau.mechanics.arrays import FloatArray, IntArray
from unterbau.mechanics.folded_plate import Y, Z, relative_flexibility
from unterbau.mechanics.plate_element import PlateMaterial, bending, membrane

B, LONG, ROUND, ALONG, PATCH = 0.1, 0.5, 12, 50, 0.04
"""Side of the middle line, length, elements across a wall and along, length of the load, m."""


def along_patch() -> tuple[IntArray, FloatArray]:
    """Return numbers of the stations the load covers and its shares."""
    half = round(PATCH / LONG * ALONG / 2)
    rows = np.arange(ALONG // 2 - half, ALONG // 2 + half + 1)
    share = np.ones(len(rows))
    share[[0, -1]] = 0.5
    return np.asarray(rows), np.asarray(share / share.sum())


def by_shells(t: float, forces: dict[int, tuple[float, float]]) -> float:
    """Return twice the energy under forces y, z on lines of the tube, along the patch."""
    ring = square(B, t, ROUND).lines
    n = len(ring)
    x = np.linspace(0, LONG, ALONG + 1)
    made = PlateMaterial(E, G, NU, 0.0)
    side = np.array([LONG / ALONG]), np.array([B / ROUND])
    own = np.zeros((24, 24))
    for matrix, dofs in ((bending(*side, t, made)[0], (2, 3, 4)), (membrane(*side, t, made)[0], (0, 1, 5))):
        at = (6 * np.arange(4)[:, None] + np.array(dofs)).ravel()
        own[np.ix_(at, at)] += matrix
    rows, columns, values = [], [], []
    for i in range(n):
        j = (i + 1) % n
        across = np.array([0.0, *(ring[j] - ring[i])]) / (B / ROUND)
        turn = np.stack([[1.0, 0.0, 0.0], across, np.cross([1.0, 0.0, 0.0], across)])
        T = np.kron(np.eye(8), turn)
        K = T.T @ own @ T
        for k in range(ALONG):
            nodes = (k * n + i, (k + 1) * n + i, (k + 1) * n + j, k * n + j)
            of = (6 * np.array(nodes)[:, None] + np.arange(6)).ravel()
            rows.append(np.repeat(of, 24))
            columns.append(np.tile(of, 24))
            values.append(K.ravel())
    size = 6 * n * len(x)
    K = coo_matrix((np.concatenate(values), (np.concatenate(rows), np.concatenate(columns))), (size, size)).tocsc()
    f = np.zeros(size)
    for line, force in forces.items():
        for station, share in zip(*along_patch(), strict=True):
            f[6 * (station * n + line) + np.array([1, 2])] += share * np.array(force)
    ends = [6 * (station * n + line) + d for station in (0, ALONG) for line in range(n) for d in (1, 2, 3)]
    free = np.setdiff1d(np.arange(size), [*ends, 6 * (ALONG // 2) * n])
    u = splu(K[free][:, free]).solve(f[free])
    return float(f[free] @ u)


def waves() -> tuple[FloatArray, FloatArray]:
    """Return wave numbers and the square of each one's share in a load on the patch."""
    number = np.arange(1, 120, 2)
    at, share = along_patch()
    shape = np.sin(np.pi * number[:, None] * at / ALONG) @ share
    return np.asarray(number * np.pi / LONG), np.asarray(2 / LONG * shape**2)


@pytest.mark.parametrize(("t", "case"), [(0.003, "dent"), (0.006, "dent"), (0.003, "turn"), (0.006, "turn")])
def test_folded_plates_give_what_shells_give(t: float, case: str) -> None:
    """A push in the middle of a wall, and a couple of two on it; thick walls shear besides, some 5 %."""
    strips = square(B, t, ROUND)
    line = {(round(y * 1e4), round(z * 1e4)): n for n, (y, z) in enumerate(strips.lines)}
    top, quarter = round(B * 1e4 / 2), round(B * 1e4 / 4)
    forces = {line[0, top]: (0.0, 1.0)}
    if case == "turn":
        forces = {line[quarter, top]: (0.0, 1.0), line[-quarter, top]: (0.0, -1.0)}
    load = np.zeros((4 * len(strips.lines), 1))
    for number, (y, z) in forces.items():
        load[4 * number + Y, 0], load[4 * number + Z, 0] = y, z
    kappa, weight = waves()
    gives = weight @ relative_flexibility(strips, kappa, load)[:, 0, 0]
    if case == "dent":
        whole = weight @ (1 / (E * 2 * B**3 * t / 3 * kappa**4) + 1 / (G * 5 * B * t / 3 * kappa**2))
    else:
        whole = weight @ ((B / 2) ** 2 / (G * B**3 * t * kappa**2))
    assert gives > 2 * whole
    assert gives + whole == pytest.approx(by_shells(t, forces), rel=0.06)
