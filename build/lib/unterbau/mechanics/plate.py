"""A plate as one element: meshed, then condensed onto the points it is held at; kept by content.

Bending and membrane of a flat plate do not know of each other, so each is a band matrix of its own.
Where something is fastened the plate is rigid over the patch it covers. Static condensation (Guyan 1965) keeps
statics exact; masses are condensed with the same shapes.
"""

from dataclasses import dataclass, replace

import numpy as np

from unterbau.kept import kept_up_to
from unterbau.mechanics.arrays import BoolArray, FloatArray, IntArray
from unterbau.mechanics.plate_mesh import ACROSS, IN_PLANE, Condensed, half_of
from unterbau.mechanics.plate_spec import PlateSpec

KEPT = 40.0  # MB


@dataclass(frozen=True, slots=True)
class CondensedPlate:
    """A plate on the freedoms of its patches, then of its points; own axes, six at each."""

    spec: PlateSpec
    K: FloatArray
    """On the patches, shape (r, r)."""
    follow: FloatArray
    """Points' movement per patches' movement, shape (p, r)."""
    inner: FloatArray
    """Points' movement per load on points, patches held, shape (p, p)."""
    sag: FloatArray
    """Points' movement under 1 m/s² along x, y, z, patches held, shape (p, 3)."""
    total: FloatArray
    """Loads on the patches by it, shape (r, 3)."""
    loose: BoolArray
    """Freedoms of points that are in no patch, shape (p,)."""
    mass: float

    @property
    def stiff(self) -> FloatArray:
        """Loads on points per movement of theirs beyond what follows the patches, shape (p, p)."""
        return _stiff(self.spec)

    @property
    def weight(self) -> FloatArray:
        """Loads on patches and points that stand for the plate's weight under 1 m/s² along x, y, z, (r + p, 3)."""
        on_points = self.stiff @ self.sag
        return np.vstack([self.total - self.follow.T @ on_points, on_points])

    @property
    def whole(self) -> FloatArray:
        """Stiffness on patches and points together, shape (r + p, r + p)."""
        F, S = self.follow, self.stiff
        return np.block([[self.K + F.T @ S @ F, -F.T @ S], [-S @ F, S]])

    @property
    def M(self) -> FloatArray:
        """Mass on the patches, shape (r, r); only what swings asks for it."""
        return _mass(self.spec)


@kept_up_to(KEPT)
def condensed(spec: PlateSpec) -> CondensedPlate:
    """Return a plate's matrices.

    Raises:
        ValueError: A point is no crossing of mesh lines.
    """
    r, p = 6 * len(spec.patches), 6 * len(spec.points)
    K, follow, inner = np.zeros((r, r)), np.zeros((p, r)), np.zeros((p, p))
    sag, total, loose = np.zeros((p, 3)), np.zeros((r, 3)), np.zeros(p, dtype=bool)
    for freedoms, one in ((IN_PLANE, _stretching(spec)), (ACROSS, half_of(spec, ACROSS).condensed())):
        held, free = _places(spec, freedoms)
        K[np.ix_(held, held)] = one.K
        follow[np.ix_(free, held)] = one.follow
        inner[np.ix_(free, free)] = one.inner
        sag[free], total[held] = one.sag, one.total
        loose[free[one.loose]] = True
    mass = spec.material.rho * spec.thickness * spec.area
    return CondensedPlate(spec, K, follow, inner, sag, total, loose, mass)


def _places(spec: PlateSpec, freedoms: tuple[int, ...]) -> tuple[IntArray, IntArray]:
    """Return the places of membrane or bending among the freedoms of patches, and of points."""
    held = (6 * np.arange(len(spec.patches))[:, None] + np.array(freedoms)).ravel()
    free = (6 * np.arange(len(spec.points))[:, None] + np.array(freedoms)).ravel()
    return held, free


@kept_up_to(KEPT)
def _stiff(spec: PlateSpec) -> FloatArray:
    """Return what holds a plate's points against what it follows by; only where points are loaded it is needed."""
    one = condensed(spec)
    found = np.zeros_like(one.inner)
    for freedoms in (IN_PLANE, ACROSS):
        _, free = _places(spec, freedoms)
        mine = free[one.loose[free]]
        if len(mine):
            found[np.ix_(mine, mine)] = np.linalg.inv(one.inner[np.ix_(mine, mine)])
    return found


@kept_up_to(KEPT)
def _mass(spec: PlateSpec) -> FloatArray:
    """Return a plate's mass on its patches."""
    r = 6 * len(spec.patches)
    M = np.zeros((r, r))
    for freedoms, of, heavy in ((IN_PLANE, _unit(spec), spec.material.rho * spec.thickness), (ACROSS, spec, 1.0)):
        held, _ = _places(spec, freedoms)
        M[np.ix_(held, held)] = heavy * half_of(of, freedoms).mass()
    return M


def _stretching(spec: PlateSpec) -> Condensed:
    """Return the membrane: it goes with E·t and ρ·t, so that one mesh is solved for all thicknesses and metals."""
    of, t = spec.material, spec.thickness
    one = _of_one(_unit(spec))
    stiff, heavy = of.E * t, of.rho * t
    return Condensed(
        one.K * stiff, one.follow, one.inner / stiff, one.sag * (heavy / stiff), one.total * heavy, one.loose
    )


def _unit(spec: PlateSpec) -> PlateSpec:
    of = spec.material
    return replace(spec, thickness=1.0, material=replace(of, E=1.0, G=of.G / of.E, rho=1.0))


@kept_up_to(KEPT)
def _of_one(spec: PlateSpec) -> Condensed:
    return half_of(spec, IN_PLANE).condensed()
