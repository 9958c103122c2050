"""A condensed plate in its place: its matrices in global axes on the frame's freedoms."""

from dataclasses import dataclass

import numpy as np

from unterbau.kept import kept_up_to
from unterbau.mechanics.arrays import FloatArray, IntArray
from unterbau.mechanics.frame import Frame, Plate
from unterbau.mechanics.plate import CondensedPlate, condensed
from unterbau.mechanics.plate_mesh import ACROSS, IN_PLANE
from unterbau.mechanics.plate_spec import PlateSpec

KEPT = 40.0  # MB
AXES = tuple[float, ...]
FEW = 0.2
"""Cases that load no more than this share of the points are asked for by these alone."""
FOLLOWS = 1e-11
"""Share of its movement by which a point strays from what it follows, by rounding alone."""


@dataclass(frozen=True, slots=True)
class PlacedPlate:
    """One plate of a frame; `retained` are its patches' freedoms, `interior` its points'."""

    retained: IntArray
    interior: IntArray
    K: FloatArray
    follow: FloatArray
    inner: FloatArray
    mass: float
    centre: FloatArray
    """Its centre of mass, m."""
    plate: Plate
    own: CondensedPlate

    @property
    def weight(self) -> FloatArray:
        """Loads on retained and interior freedoms under 1 m/s² along x, y, z, shape (r + p, 3)."""
        return _turned_weight(self.plate.spec, tuple(self.plate.axes.ravel().tolist()))

    @property
    def M(self) -> FloatArray:
        """Mass on the retained freedoms; only what swings asks for it."""
        return _turned_mass(self.plate.spec, tuple(self.plate.axes.ravel().tolist()))

    def give(self, inside: FloatArray) -> FloatArray:
        """Return how points move by loads on them, patches held, both (p, m)."""
        found = np.zeros_like(inside)
        loaded = np.count_nonzero(inside, axis=0)
        few = loaded <= FEW * len(inside)
        for cases in (np.flatnonzero(~few), np.flatnonzero(few & (loaded > 0))):
            some = inside.take(cases, axis=1)
            rows = np.flatnonzero(some.any(axis=1))
            by = self.inner if len(rows) == len(inside) else self.inner[rows].T
            found[:, cases] = by @ some[rows]
        return found


@kept_up_to(KEPT)
def _turned_mass(spec: PlateSpec, axes: AXES) -> FloatArray:
    return _both_sides(condensed(spec).M, np.array(axes).reshape(3, 3))


@kept_up_to(KEPT)
def _turned_weight(spec: PlateSpec, axes: AXES) -> FloatArray:
    turn = np.array(axes).reshape(3, 3)
    return np.asarray(_left(condensed(spec).weight, turn) @ turn)


@kept_up_to(KEPT)
def _turned(spec: PlateSpec, axes: AXES) -> tuple[FloatArray, ...]:
    own = condensed(spec)
    turn = np.array(axes).reshape(3, 3)
    if (turn == np.eye(3)).all():
        return own.K, own.follow, own.inner
    return _both_sides(own.K, turn), _both_sides(own.follow, turn), _both_sides(own.inner, turn)


def place(plate: Plate) -> PlacedPlate:
    """Return a plate's matrices in global axes."""
    own = condensed(plate.spec)
    K, follow, inner = _turned(plate.spec, tuple(plate.axes.ravel().tolist()))
    six = np.arange(6)
    (x, y), axes = plate.spec.middle, plate.axes
    centre = plate.origin + x * axes[0] + y * axes[1]
    if plate.stiff != 1.0:
        K, inner = K * plate.stiff, inner / plate.stiff
    return PlacedPlate(
        (6 * plate.patches[:, None] + six).ravel(), (6 * plate.points[:, None] + six).ravel(),
        K, follow, inner, own.mass, centre, plate, own,
    )  # fmt: skip


def energies(placed: PlacedPlate, u: FloatArray, f: FloatArray | None) -> tuple[FloatArray, FloatArray]:
    """Return strain energy by stretch and by bending, J, for movements (n_nodes · 6, m) of m cases by loads f."""
    own, stiff = placed.own, placed.plate.stiff
    held = _in_own_axes(placed, u[placed.retained])
    each = _by_direction(stiff * held * (own.K @ held))
    inside = np.zeros((0, u.shape[1])) if f is None else f[placed.interior]
    loaded = np.flatnonzero(inside.any(axis=0))
    if len(loaded):
        loads, points = (_in_own_axes(placed, one.take(loaded, axis=1)) for one in (inside, u[placed.interior]))
        each[:, loaded] += _by_direction((points - own.follow @ held.take(loaded, axis=1)) * loads)
    return _by_cause(each / 2)


def mutual(placed: PlacedPlate, first: FloatArray, second: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Return uᵀKv by stretch and by bending, J, for pairs of movements (n_nodes · 6, m)."""
    own, stiff = placed.own, placed.plate.stiff
    held, loose = _own(placed, first)
    other, others = _own(placed, second)
    each = _by_direction(stiff * held * (own.K @ other))
    if loose is not None and others is not None:
        each += _by_direction(stiff * loose * (own.stiff @ others))
    return _by_cause(each)


def _by_direction(each: FloatArray) -> FloatArray:
    """Return sums over all nodes, shape (6, m), of what is at their freedoms."""
    return np.asarray(each.reshape(len(each) // 6, 6, each.shape[1]).sum(axis=0))


def _by_cause(each: FloatArray) -> tuple[FloatArray, FloatArray]:
    return each[IN_PLANE, :].sum(axis=0), each[ACROSS, :].sum(axis=0)


def _own(placed: PlacedPlate, u: FloatArray) -> tuple[FloatArray, FloatArray | None]:
    """Return how patches move, and points beyond what follows them; nothing where they only follow. Own axes."""
    held, points = (_in_own_axes(placed, u[rows]) for rows in (placed.retained, placed.interior))
    if not points.size:
        return held, None
    loose = points - placed.own.follow @ held
    return held, loose if np.abs(loose).max() > FOLLOWS * np.abs(points).max() else None


def _in_own_axes(placed: PlacedPlate, rows: FloatArray) -> FloatArray:
    each = rows.reshape(len(rows) // 3, 3, rows.shape[1])
    return np.asarray((placed.plate.axes @ each).reshape(rows.shape))


def forces(placed: PlacedPlate, u: FloatArray) -> FloatArray:
    """Return what its nodes do to it, global axes, on retained and interior freedoms, for movements (n_nodes · 6,)."""
    own, stiff = placed.own, placed.plate.stiff
    held, loose = _own(placed, u[:, None])
    on_points = np.zeros(len(own.inner)) if loose is None else stiff * own.stiff @ loose[:, 0]
    f = np.concatenate([stiff * own.K @ held[:, 0] - own.follow.T @ on_points, on_points])
    return np.asarray((f.reshape(-1, 3) @ placed.plate.axes).ravel())


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
