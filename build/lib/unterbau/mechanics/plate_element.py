"""Rectangular flat shell elements: Mindlin bending without locking, and membrane with in-plane bending.

Bending: four nodes, shear strains tied at the middles of the sides (Bathe and Dvorkin 1985, MITC4).
Membrane: four nodes with incompatible modes (Wilson et al. 1973; exact patch test on rectangles, Taylor et al.
1976), and the turning about the normal tied to the membrane's own rotation (Hughes and Brezzi 1989).
From memory; derivation in docs/theory/plate.md. All elements of a mesh at once.
"""

from dataclasses import dataclass

import numpy as np

from unterbau.mechanics.arrays import FloatArray

POINT = 1 / np.sqrt(3.0)
GAUSS = ((-POINT, -POINT), (POINT, -POINT), (POINT, POINT), (-POINT, POINT))
CORNERS = np.array([(-1.0, -1.0), (1.0, -1.0), (1.0, 1.0), (-1.0, 1.0)])
SHEAR = 5 / 6
DRILL = 0.01
"""Share of G that ties turning about the normal to the membrane's rotation: it holds, and hardly stiffens."""


@dataclass(frozen=True, slots=True)
class PlateMaterial:
    """What a plate is made of; G is its own, so that timber keeps its low one."""

    E: float
    G: float
    nu: float
    rho: float
    along: float = 1.0
    """Stiffness along x as a share of that along y, which E tells: less where slots run along y."""

    @property
    def plane(self) -> FloatArray:
        """Stress per strain in the plane, Pa, shape (3, 3); ν is that of pulling along y."""
        s, nu = self.along, self.nu
        a = self.E / (1 - s * nu**2)
        return np.array([[s * a, s * nu * a, 0.0], [s * nu * a, a, 0.0], [0.0, 0.0, self.G]])


def bending(a: FloatArray, b: FloatArray, t: float, of: PlateMaterial) -> FloatArray:
    """Return bending stiffness on (w, θx, θy) of the four corners, shape (n, 12, 12).

    Args:
        a: Lengths along x, m, shape (n,).
        b: Lengths along y.
        t: Thickness, m.
        of: The material.
    """
    D, Gs = of.plane * t**3 / 12, SHEAR * of.G * t
    K = np.zeros((len(a), 12, 12))
    weight = a * b / 4
    for xi, eta in GAUSS:
        _, dx, dy = _shapes(xi, eta, a, b)
        B = np.zeros((len(a), 3, 12))
        B[:, 0, 2::3] = dx  # κx = ∂θy/∂x
        B[:, 1, 1::3] = -dy  # κy = −∂θx/∂y
        B[:, 2, 2::3], B[:, 2, 1::3] = dy, -dx
        K += weight[:, None, None] * (B.transpose(0, 2, 1) @ (D @ B))
        S = tied_shear(xi, eta, a, b)
        K += weight[:, None, None] * Gs * (S.transpose(0, 2, 1) @ S)
    return K


def tied_shear(xi: float, eta: float, a: FloatArray, b: FloatArray) -> FloatArray:
    """Return γxz, γyz per (w, θx, θy) of the corners, tied at the middles of the sides, shape (n, 2, 12)."""
    S = np.zeros((len(a), 2, 12))
    for side in (-1.0, 1.0):
        N, dx, _ = _shapes(0.0, side, a, b)
        share = (1 + side * eta) / 2
        S[:, 0, 0::3] += share * dx
        S[:, 0, 2::3] += share * N
        N, _, dy = _shapes(side, 0.0, a, b)
        share = (1 + side * xi) / 2
        S[:, 1, 0::3] += share * dy
        S[:, 1, 1::3] -= share * N
    return S


def membrane(a: FloatArray, b: FloatArray, t: float, of: PlateMaterial) -> FloatArray:
    """Return membrane stiffness on (u, v, θz) of the four corners, shape (n, 12, 12)."""
    D = of.plane * t
    n = len(a)
    Kuu, Kua, Kaa = np.zeros((n, 12, 12)), np.zeros((n, 12, 4)), np.zeros((n, 4, 4))
    weight = (a * b / 4)[:, None, None]
    for xi, eta in GAUSS:
        N, dx, dy = _shapes(xi, eta, a, b)
        B = np.zeros((n, 3, 12))
        B[:, 0, 0::3], B[:, 1, 1::3] = dx, dy
        B[:, 2, 0::3], B[:, 2, 1::3] = dy, dx
        A = np.zeros((n, 3, 4))
        # Modes 1 − ξ² and 1 − η² of u, then of v.
        A[:, 0, 0], A[:, 2, 1] = -4 * xi / a, -4 * eta / b
        A[:, 2, 2], A[:, 1, 3] = -4 * xi / a, -4 * eta / b
        Kuu += weight * (B.transpose(0, 2, 1) @ (D @ B))
        Kua += weight * (B.transpose(0, 2, 1) @ (D @ A))
        Kaa += weight * (A.transpose(0, 2, 1) @ (D @ A))
        T = np.zeros((n, 1, 12))
        T[:, 0, 2::3] = N
        T[:, 0, 1::3], T[:, 0, 0::3] = -dx / 2, dy / 2
        Kuu += weight * DRILL * of.G * t * (T.transpose(0, 2, 1) @ T)
    return np.asarray(Kuu - Kua @ np.linalg.solve(Kaa, Kua.transpose(0, 2, 1)))


def shape_products(a: FloatArray, b: FloatArray) -> FloatArray:
    """Return ∫ N Nᵀ dA of each element, m², shape (n, 4, 4)."""
    line = np.array([[2.0, 1.0], [1.0, 2.0]]) / 6
    order = ((0, 0), (1, 0), (1, 1), (0, 1))
    both = np.array([[line[i, k] * line[j, m] for k, m in order] for i, j in order])
    return np.asarray((a * b)[:, None, None] * both)


def _shapes(xi: float, eta: float, a: FloatArray, b: FloatArray) -> tuple[FloatArray, FloatArray, FloatArray]:
    """Return the corners' shape functions (4,) and their slopes along x and y (n, 4)."""
    cx, cy = CORNERS.T
    N = (1 + cx * xi) * (1 + cy * eta) / 4
    dx = cx * (1 + cy * eta) / 4 * (2 / a)[:, None]
    dy = cy * (1 + cx * xi) / 4 * (2 / b)[:, None]
    return N, dx, dy
