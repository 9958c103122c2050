"""A condensed plate in its place: its matrices in global axes on the frame's freedoms."""

from dataclasses import dataclass

import numpy as np

from unterbau.kept import kept_up_to
from unterbau.mechanics.arrays import FloatArray, IntArray
from unterbau.mechanics.frame import Frame, Plate
from unterbau.mechanics.plate import CondensedPlate, PlateSpec, condensed

KEPT = 40.0  # MB
AXES = tuple[float, ...]


@dataclass(frozen=True, slots=True)
class PlacedPlate:
    """One plate of a frame; `retained` are its patches' freedoms, `interior` its points'."""

    retained: IntArray
    interior: IntArray
    K: FloatArray
    follow: FloatArray
    inner: FloatArray
    weight: FloatArray
    """Loads on retained and interior freedoms under 1 m/s² along x, y, z, shape (r + p, 3)."""
    mass: float
    centre: FloatArray
    """Its centre of mass, m."""
    plate: Plate
    own: CondensedPlate

    @property
    def M(self) -> FloatArray:
        """Mass on the retained freedoms; only what swings asks for it."""
        return _turned_mass(self.plate.spec, tuple(self.plate.axes.ravel().tolist()))


@kept_up_to(KEPT)
def _turned_mass(spec: PlateSpec, axes: AXES) -> FloatArray:
    return _both_sides(condensed(spec).M, np.array(axes).reshape(3, 3))


@kept_up_to(KEPT)
def _turned(spec: PlateSpec, axes: AXES) -> tuple[FloatArray, ...]:
    own = condensed(spec)
    turn = np.array(axes).reshape(3, 3)
    K = _both_sides(own.K, turn)
    weight = _left(own.weight, turn) @ turn
    return K, _both_sides(own.follow, turn), _both_sides(own.inner, turn), weight


def place(plate: Plate) -> PlacedPlate:
    """Return a plate's matrices in global axes."""
    own = condensed(plate.spec)
    K, follow, inner, weight = _turned(plate.spec, tuple(plate.axes.ravel().tolist()))
    six = np.arange(6)
    (x, y), axes = plate.spec.middle, plate.axes
    centre = plate.origin + x * axes[0] + y * axes[1]
    return PlacedPlate(
        (6 * plate.patches[:, None] + six).ravel(), (6 * plate.points[:, None] + six).ravel(),
        K * plate.stiff, follow, inner / plate.stiff, weight, own.mass, centre, plate, own,
    )  # fmt: skip


def energies(placed: PlacedPlate, u: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Return strain energy by stretch and by bending, J, for movements (m, n_nodes · 6) of m cases."""
    stretch, bend = mutual(placed, u, u)
    return stretch / 2, bend / 2


def mutual(placed: PlacedPlate, first: FloatArray, second: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Return uᵀKv by stretch and by bending, J, for pairs of movements (m, n_nodes · 6)."""
    own = placed.own
    q = _own(placed, first)
    other = q if second is first else _own(placed, second)
    each = placed.plate.stiff * q * (other @ own.whole)
    return each[:, ~own.across].sum(axis=1), each[:, own.across].sum(axis=1)


def _own(placed: PlacedPlate, u: FloatArray) -> FloatArray:
    rows = np.concatenate([placed.retained, placed.interior])
    q = u[:, rows].reshape(len(u), len(rows) // 3, 3) @ placed.plate.axes.T
    return np.asarray(q.reshape(len(u), len(rows)))


def forces(placed: PlacedPlate, u: FloatArray) -> FloatArray:
    """Return what its nodes do to it, global axes, on retained and interior freedoms, for movements (n_nodes · 6,)."""
    turn, own = placed.plate.axes, placed.own
    rows = np.concatenate([placed.retained, placed.interior])
    q = (u[rows].reshape(-1, 3) @ turn.T).ravel()
    f = placed.plate.stiff * own.whole @ q
    return np.asarray((f.reshape(-1, 3) @ turn).ravel())


def mass_and_moment(frame: Frame) -> tuple[FloatArray, FloatArray]:
    """Return the mass, kg, and centre, m, of each plate, shapes (n,) and (n, 3)."""
    placed = [place(one) for one in frame.plates]
    return np.array([one.mass for one in placed]), np.array([one.centre for one in placed]).reshape(-1, 3)


def _both_sides(matrix: FloatArray, turn: FloatArray) -> FloatArray:
    """Return Rᵀ A R with the turn at every triple of freedoms."""
    return _left(_left(matrix, turn).T, turn).T


def _left(matrix: FloatArray, turn: FloatArray) -> FloatArray:
    rows, columns = matrix.shape
    return np.asarray(np.einsum("ba,nbc->nac", turn, matrix.reshape(rows // 3, 3, columns)).reshape(rows, columns))
