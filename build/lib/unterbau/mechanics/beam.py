"""Timoshenko beam elements by the flexibility form, all beams at once; those that repeat are worked out once.

A beam is seen as a cantilever from end i: the six forces at end j give the movement of
end j, a 6×6 matrix F of closed forms. With G the movement of end j relative to the rigid
movement of end i, K = Gᵀ F⁻¹ G. Derivation in docs/theory/beam.md; Przemieniecki, Theory
of Matrix Structural Analysis, ch. 5, has the same matrices for principal axes.
"""

from dataclasses import dataclass

import numpy as np

from unterbau.mechanics.arrays import FloatArray, IntArray, axes_from, cross_matrices
from unterbau.mechanics.frame import Beams
from unterbau.mechanics.repeated import sorts

CUBES = 1.0 / (np.arange(4)[:, None] + np.arange(4) + 1.0)
"""Integrals from 0 to 1 of products of 1, x, x², x³."""

SECTION = ("E", "G", "rho", "A", "Iy", "Iz", "Iyz", "J", "Asy", "Asz", "ys", "zs")


@dataclass(frozen=True, slots=True)
class BeamElements:
    """What every beam needs again and again; shapes start with (n,)."""

    length: FloatArray
    axes: FloatArray
    """Rows are local x, y, z, shape (n, 3, 3)."""
    span: FloatArray
    """From end i to end j, global axes, shape (n, 3)."""
    G: FloatArray
    """Nodal movements (global) to the relative movement of end j (local), shape (n, 6, 12)."""
    F: FloatArray
    """Flexibility of end j, shape (n, 6, 6)."""
    S: FloatArray
    """F⁻¹, shape (n, 6, 6)."""
    first: IntArray
    """The first beam of each sort, shape (s,)."""
    sort: IntArray
    """Which sort each is."""

    def take(self, rows: IntArray) -> "BeamElements":
        """Return the chosen rows, each a sort of its own."""
        every = np.arange(len(rows))
        return BeamElements(
            self.length[rows], self.axes[rows], self.span[rows], self.G[rows], self.F[rows], self.S[rows], every, every
        )


def build(nodes: FloatArray, beams: Beams) -> BeamElements:
    """Return the element matrices of all beams."""
    start = nodes[beams.i] + beams.offset_i
    span = nodes[beams.j] + beams.offset_j - start
    shape = np.concatenate([span, beams.offset_i, beams.offset_j, beams.up], axis=1)
    first, sort = sorts(shape, np.stack([getattr(beams, name) for name in SECTION], axis=1))
    some, span = beams.take(first), span[first]
    length = np.linalg.norm(span, axis=1)
    axes = axes_from(span, some.up)
    F = flexibility_powers(some, length).sum(axis=1)
    G = relative_movement(axes, some.offset_i + span, some.offset_j)
    S = np.asarray(np.linalg.inv(F), dtype=float)
    return BeamElements(length[sort], axes[sort], span[sort], G[sort], F[sort], S[sort], first, sort)


def relative_movement(axes: FloatArray, arm_i: FloatArray, arm_j: FloatArray) -> FloatArray:
    """Return the matrix from (u_i θ_i u_j θ_j) to local (u_j + θ_j × arm_j) − (u_i + θ_i × arm_i)."""
    n = len(axes)
    G = np.zeros((n, 6, 12))
    G[:, :3, 0:3] = -axes
    G[:, :3, 3:6] = axes @ cross_matrices(arm_i)
    G[:, :3, 6:9] = axes
    G[:, :3, 9:12] = -axes @ cross_matrices(arm_j)
    G[:, 3:, 3:6] = -axes
    G[:, 3:, 9:12] = axes
    return G


def bending_flexibility(beams: Beams) -> tuple[FloatArray, FloatArray, FloatArray]:
    """Return curvature per moment: κy per My, κz per Mz, κy per Mz (= κz per My), 1/(N·m²)."""
    det = beams.E * (beams.Iy * beams.Iz - beams.Iyz**2)
    return beams.Iz / det, beams.Iy / det, beams.Iyz / det


def shear_flexibility(beams: Beams) -> tuple[FloatArray, FloatArray]:
    """Return shear angle per shear force along y and z, 1/N; 0 where no shear area is given."""
    with np.errstate(divide="ignore"):
        y = np.where(beams.Asy > 0.0, 1.0 / (beams.G * beams.Asy), 0.0)
        z = np.where(beams.Asz > 0.0, 1.0 / (beams.G * beams.Asz), 0.0)
    return y, z


def flexibility(beams: Beams, length: FloatArray, x: FloatArray) -> FloatArray:
    """Return the movement at x (local) by forces N Vy Vz T My Mz at end j, end i held, (n, 6, 6)."""
    return _at(flexibility_powers(beams, length), np.divide(x, length, out=np.zeros_like(x), where=length > 0.0))


def flexibility_powers(beams: Beams, length: FloatArray) -> FloatArray:
    """Return the movement at x (local) by forces N Vy Vz T My Mz at end j, end i held: by x, x² and x³.

    Returns:
        What goes with x/L, (x/L)² and (x/L)³, shape (n, 3, 6, 6); their sum is that of end j.
    """
    yy, zz, yz = bending_flexibility(beams)
    sy, sz = shear_flexibility(beams)
    F = np.zeros((len(beams), 3, 6, 6))
    first, second, third = F.transpose(1, 2, 3, 0)
    L, half = length, length**2 / 2
    first[0, 0] = L / (beams.E * beams.A)
    first[1, 1], first[2, 2] = sy * L, sz * L
    first[4, 4], first[4, 5], first[5, 4], first[5, 5] = yy * L, yz * L, yz * L, zz * L
    first[4, 1], first[4, 2], first[5, 1], first[5, 2] = 2 * yz * half, -2 * yy * half, 2 * zz * half, -2 * yz * half
    second[1, 1], second[1, 2], second[1, 4], second[1, 5] = zz * L * half, -yz * L * half, yz * half, zz * half
    second[2, 1], second[2, 2], second[2, 4], second[2, 5] = -yz * L * half, yy * L * half, -yy * half, -yz * half
    second[4, 1], second[4, 2], second[5, 1], second[5, 2] = -yz * half, yy * half, -zz * half, yz * half
    cube = L**3 / 6
    third[1, 1], third[1, 2], third[2, 1], third[2, 2] = -zz * cube, yz * cube, yz * cube, -yy * cube
    # Forces act at the centroid, twist is about the shear centre: torque T + zs·Vy − ys·Vz.
    lever = np.stack([beams.zs, -beams.ys, np.ones(len(beams))])
    first[1:4, 1:4] += L / (beams.G * beams.J) * lever[:, None] * lever[None]
    return F


def _at(powers: FloatArray, share: FloatArray) -> FloatArray:
    """Return the sum of what goes with x/L, (x/L)² and (x/L)³, shape (n, …)."""
    by_power = share[:, None, None] ** np.arange(1, 4)
    return np.asarray((by_power @ powers.reshape(len(share), 3, 36)).reshape(-1, 6, 6))


def stiffness(elements: BeamElements) -> FloatArray:
    """Return stiffness matrices in global axes at the nodes, shape (n, 12, 12)."""
    G, S = elements.G[elements.first], elements.S[elements.first]
    return np.asarray((G.transpose(0, 2, 1) @ (S @ G))[elements.sort])


def consistent_mass(beams: Beams, elements: BeamElements) -> FloatArray:
    """Return consistent mass matrices with rotary inertia, shape (n, 12, 12).

    The movement inside the beam is that of the static solution between its ends, a cubic.
    """
    one, of = elements.take(elements.first), beams.take(elements.first)
    n, force = len(of), one.S @ one.G
    N = np.empty((n, 4, 6, 12))  # movement inside by 1, x/L, (x/L)², (x/L)³
    N[:, 1:] = (flexibility_powers(of, one.length).reshape(n, 18, 6) @ force).reshape(n, 3, 6, 12)
    N[:, 0] = -relative_movement(one.axes, of.offset_i, np.zeros((n, 3)))
    N[:, 0, :, 6:] = 0.0
    N[:, 1, :3, 3:6] -= one.axes @ cross_matrices(one.span)
    density = np.zeros((n, 6, 6))
    for d in range(3):
        density[:, d, d] = of.rho * of.A
    density[:, 3, 3] = of.rho * (of.Iy + of.Iz)
    density[:, 4, 4], density[:, 5, 5] = of.rho * of.Iy, of.rho * of.Iz
    density[:, 4, 5] = density[:, 5, 4] = -of.rho * of.Iyz
    density *= one.length[:, None, None]
    weighted = density[:, None] @ (CUBES @ N.reshape(n, 4, 72)).reshape(n, 4, 6, 12)
    return np.asarray((N.reshape(n, 24, 12).transpose(0, 2, 1) @ weighted.reshape(n, 24, 12))[elements.sort])


def gravity_release(beams: Beams, elements: BeamElements, gravity: FloatArray) -> FloatArray:
    """Return the movement of the free end j under the beam's own weight, end i held, (n, 6)."""
    load = elements.axes @ gravity * (beams.rho * beams.A)[:, None]
    wx, wy, wz = load.T
    L = elements.length
    yy, zz, yz = bending_flexibility(beams)
    sy, sz = shear_flexibility(beams)
    d = np.zeros((len(beams), 6))
    d[:, 0] = wx * L**2 / (2 * beams.E * beams.A)
    d[:, 1] = (zz * wy - yz * wz) * L**4 / 8 + sy * wy * L**2 / 2
    d[:, 2] = (yy * wz - yz * wy) * L**4 / 8 + sz * wz * L**2 / 2
    d[:, 4] = (yz * wy - yy * wz) * L**3 / 6
    d[:, 5] = (zz * wy - yz * wz) * L**3 / 6
    _add_twist(d, beams, (beams.zs * wy - beams.ys * wz) * L**2 / (2 * beams.G * beams.J))
    return d


def _add_twist(d: FloatArray, beams: Beams, angle: FloatArray) -> None:
    """Add a twist about the shear centre to movements of the centroid, (n, 6)."""
    d[:, 1] += beams.zs * angle
    d[:, 2] -= beams.ys * angle
    d[:, 3] += angle


def gravity_loads(beams: Beams, elements: BeamElements, gravity: FloatArray) -> FloatArray:
    """Return the nodal loads equivalent to the beams' own weight, global axes, (n, 12)."""
    one, of = elements.take(elements.first), beams.take(elements.first)
    end_j = one.S @ gravity_release(of, one, gravity)[:, :, None]
    load = (one.G.transpose(0, 2, 1) @ end_j)[:, :, 0]
    weight = (of.rho * of.A * one.length)[:, None] * gravity
    load[:, :3] += weight
    load[:, 3:6] += np.cross(of.offset_i + one.span / 2, weight)
    return np.asarray(load[elements.sort])


def interpolation(beams: Beams, elements: BeamElements, at: FloatArray) -> FloatArray:
    """Return nodal movements (global) to the movement at `at` from end i (local axes), (n, 6, 12).

    It is that of the static solution between the ends, so points inside see no other stiffness than
    the beam's own.
    """
    along = elements.span * (at / elements.length)[:, None]
    rigid = -relative_movement(elements.axes, beams.offset_i + along, np.zeros_like(along))
    rigid[:, :, 6:] = 0.0
    return np.asarray(rigid + flexibility(beams, elements.length, at) @ (elements.S @ elements.G))


def held_flexibility(beams: Beams, length: FloatArray, at: FloatArray, load_at: FloatArray) -> FloatArray:
    """Return the movement at `at` by forces at `load_at`, both ends of the beam held, local axes, (n, 6, 6).

    Source:
        Cantilever from end i, with end j brought back: unit-load theorem.
    """
    first, second = np.minimum(at, load_at), np.maximum(at, load_at)
    straight = flexibility(beams, second, first)
    powers = flexibility_powers(beams, length)
    back = _at(powers, at / length) @ np.linalg.solve(
        powers.sum(axis=1), _at(powers, load_at / length).transpose(0, 2, 1)
    )
    turned = (at > load_at)[:, None, None]
    return np.asarray(np.where(turned, straight.transpose(0, 2, 1), straight) - back)


def held_sinking(beams: Beams, elements: BeamElements, at: FloatArray, gravity: FloatArray) -> FloatArray:
    """Return the movement at `at` by the beam's own weight, both ends held, local axes, (n, 6).

    Source:
        Cantilever under an even load, w·x²(6L² − 4Lx + x²)/24EI and w(Lx − x²/2)/GAs, with end j brought back.
    """
    L, x = elements.length, at
    load = elements.axes @ gravity * (beams.rho * beams.A)[:, None]
    wx, wy, wz = load.T
    yy, zz, yz = bending_flexibility(beams)
    sy, sz = shear_flexibility(beams)
    move, turn = x**2 * (6 * L**2 - 4 * L * x + x**2) / 24, x * (3 * L**2 - 3 * L * x + x**2) / 6
    slide = L * x - x**2 / 2
    d = np.zeros((len(beams), 6))
    d[:, 0] = wx * slide / (beams.E * beams.A)
    d[:, 1] = (zz * wy - yz * wz) * move + sy * wy * slide
    d[:, 2] = (yy * wz - yz * wy) * move + sz * wz * slide
    d[:, 4] = (yz * wy - yy * wz) * turn
    d[:, 5] = (zz * wy - yz * wz) * turn
    _add_twist(d, beams, (beams.zs * wy - beams.ys * wz) * slide / (beams.G * beams.J))
    end = elements.S @ gravity_release(beams, elements, gravity)[:, :, None]
    return np.asarray(d - (flexibility(beams, L, x) @ end)[:, :, 0])


def end_forces(beams: Beams, elements: BeamElements, movement: FloatArray, gravity: FloatArray) -> FloatArray:
    """Return what the nodes do to the beams' ends, local axes, shape (n, 2, 6): ends i and j.

    Args:
        beams: The beams.
        elements: Their matrices.
        movement: Nodal movements, shape (n, 12).
        gravity: Acceleration of free fall, m/s².
    """
    relative = (elements.G @ movement[:, :, None])[:, :, 0]
    relative -= gravity_release(beams, elements, gravity)
    q = (elements.S @ relative[:, :, None])[:, :, 0]
    weight = elements.axes @ gravity * (beams.rho * beams.A * elements.length)[:, None]
    L = elements.length
    first = -q
    first[:, 4] += L * q[:, 2]
    first[:, 5] -= L * q[:, 1]
    first[:, :3] -= weight
    first[:, 4] += L / 2 * weight[:, 2]
    first[:, 5] -= L / 2 * weight[:, 1]
    return np.stack([first, q], axis=1)


def energies(beams: Beams, elements: BeamElements, movement: FloatArray) -> FloatArray:
    """Return strain energy by cause: axial, shear, torsion, bending, J, shape (m, n, 4).

    Args:
        beams: The beams.
        elements: Their matrices.
        movement: Nodal movements of m cases, shape (m, n, 12).
    """
    stretch = elements.G @ movement.transpose(1, 2, 0)
    force = elements.S @ stretch
    total = 0.5 * np.sum(force * stretch, axis=1)
    F, length = elements.F, elements.length[:, None]
    zs, ys, sy, sz = (one[:, None] for one in (beams.zs, beams.ys, *shear_flexibility(beams)))
    axial = 0.5 * F[:, 0, :1] * force[:, 0] ** 2
    torsion = 0.5 * F[:, 3, 3:4] * (force[:, 3] + zs * force[:, 1] - ys * force[:, 2]) ** 2
    shear = 0.5 * length * (sy * force[:, 1] ** 2 + sz * force[:, 2] ** 2)
    return np.stack([axial, shear, torsion, total - axial - shear - torsion], axis=1).transpose(2, 0, 1)


def total_energies(elements: BeamElements, movement: FloatArray) -> FloatArray:
    """Return strain energy of all causes, J, shape (m, n), for movements (m, n, 12)."""
    stretch = elements.G @ movement.transpose(1, 2, 0)
    return np.asarray(0.5 * np.sum(stretch * (elements.S @ stretch), axis=1).T)
