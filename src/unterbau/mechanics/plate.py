"""A plate as one element: meshed, then condensed onto the points it is held at; kept by content.

Bending and membrane of a flat plate do not know of each other, so each is a band matrix of its own.
Where something is fastened the plate is rigid over the patch it covers. Static condensation (Guyan 1965) keeps
statics exact; masses are condensed with the same shapes.
"""

from dataclasses import dataclass, replace

import numpy as np

from unterbau.kept import kept_up_to
from unterbau.mechanics import lapack, plate_element
from unterbau.mechanics.arrays import BoolArray, FloatArray, IntArray
from unterbau.mechanics.factor import Factor
from unterbau.mechanics.plate_element import PlateMaterial

IN_PLANE, ACROSS = (0, 1, 5), (2, 3, 4)
"""Freedoms ux uy rz, and uz rx ry, in the plate's own axes."""
KEPT = 40.0  # MB
ON_LINE = 1e-6
SNAP = 2e-4
"""An edge of a patch this near to another line of the mesh lies on it, m: slivers would spoil the sums."""
NOTHING = 1e-6
"""Share of its stiffness that an element keeps where there is no plate (finite cells, Parvizian et al. 2007)."""


@dataclass(frozen=True, slots=True)
class Patch:
    """A rectangle that something fastened keeps rigid; of no size, a single point."""

    x: float
    y: float
    half_x: float = 0.0
    half_y: float = 0.0


@dataclass(frozen=True, slots=True)
class PlateSpec:
    """A rectangular plate, corner at its origin, as content; equal specs share their matrices."""

    xs: tuple[float, ...]
    """Mesh lines from 0 to its length, m."""
    ys: tuple[float, ...]
    thickness: float
    material: PlateMaterial
    patches: tuple[Patch, ...]
    """Where it is held."""
    points: tuple[tuple[float, float], ...]
    """Crossings of mesh lines that are looked at or pushed on."""
    halved: bool = False
    """Only the triangle between the corner at its origin and the diagonal is there, as in a gusset."""
    slits: tuple[float, ...] = ()
    """Lines of the mesh along x from each of which to the next the plate is cut through, m: plates side by side."""

    @property
    def area(self) -> float:
        """Of its face, m²."""
        return self.xs[-1] * self.ys[-1] * (0.5 if self.halved else 1.0)

    @property
    def middle(self) -> tuple[float, float]:
        """Its centre of mass from its origin, m."""
        share = 1 / 3 if self.halved else 0.5
        return (share * self.xs[-1], share * self.ys[-1])

    def covered(self) -> FloatArray:
        """Return the share of each element that is there, shape (n_x, n_y)."""
        if self.slits:
            there = np.ones((len(self.xs) - 1, len(self.ys) - 1))
            there[[int(np.argmin(np.abs(np.array(self.xs) - one))) for one in self.slits]] = 0.0
            return there
        if not self.halved:
            return np.ones((len(self.xs) - 1, len(self.ys) - 1))
        x, y = np.array(self.xs) / self.xs[-1], np.array(self.ys) / self.ys[-1]
        beyond = np.maximum(0.0, 1.0 - x[:, None] - y[None, :]) ** 2 / 2
        inside = beyond[:-1, :-1] - beyond[1:, :-1] - beyond[:-1, 1:] + beyond[1:, 1:]
        return np.asarray(inside / (np.diff(x)[:, None] * np.diff(y)[None, :]))


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
    whole: FloatArray
    """Stiffness on patches and points together, for energies, shape (r + p, r + p)."""
    weight: FloatArray
    """Loads on patches and points that stand for the plate's weight under 1 m/s² along x, y, z, (r + p, 3)."""
    mass: float
    across: BoolArray
    """Which freedoms of patches and points bend the plate, the others stretch it, shape (r + p,)."""

    @property
    def M(self) -> FloatArray:
        """Mass on the patches, shape (r, r); only what swings asks for it."""
        return _mass(self.spec)


def lines(length: float, exact: tuple[float, ...], edges: list[float], widest: float) -> tuple[float, ...]:
    """Return mesh lines from 0 to a length at stops and edges of patches, no two further apart than `widest`.

    Edges that lie within `SNAP` of a stop or of each other share a line; stops stay where they are.
    """
    kept = [0.0, *exact, length]
    for edge in sorted(edges):
        if SNAP < edge < length - SNAP and min(abs(edge - one) for one in kept) > SNAP:
            kept.append(edge)
    inside = sorted(stop for stop in kept if ON_LINE < stop < length - ON_LINE)
    found = [0.0]
    for stop in [*inside, length]:
        gap = stop - found[-1]
        if gap < ON_LINE:
            continue
        pieces = int(np.ceil(gap / widest - 1e-9))
        start = found[-1]
        found += [start + gap * k / pieces for k in range(1, pieces)] + [stop]
    return tuple(found)


@kept_up_to(KEPT)
def condensed(spec: PlateSpec) -> CondensedPlate:
    """Return a plate's matrices.

    Raises:
        ValueError: A point is no crossing of mesh lines.
    """
    r, p = 6 * len(spec.patches), 6 * len(spec.points)
    K, follow = np.zeros((r, r)), np.zeros((p, r))
    inner, whole, weight = np.zeros((p, p)), np.zeros((r + p, r + p)), np.zeros((r + p, 3))
    for freedoms, one in ((IN_PLANE, _stretching(spec)), (ACROSS, _half(spec, ACROSS).condensed())):
        held = (6 * np.arange(len(spec.patches))[:, None] + np.array(freedoms)).ravel()
        free = (6 * np.arange(len(spec.points))[:, None] + np.array(freedoms)).ravel()
        both = np.concatenate([held, r + free])
        K[np.ix_(held, held)] = one.K
        follow[np.ix_(free, held)] = one.follow
        inner[np.ix_(free, free)] = one.inner
        whole[np.ix_(both, both)] = one.whole
        weight[both] += one.weight
    across = np.isin(np.arange(r + p) % 6, ACROSS)
    mass = spec.material.rho * spec.thickness * spec.area
    return CondensedPlate(spec, K, follow, inner, whole, weight, mass, across)


@kept_up_to(KEPT)
def _mass(spec: PlateSpec) -> FloatArray:
    """Return a plate's mass on its patches."""
    r = 6 * len(spec.patches)
    M = np.zeros((r, r))
    unit = replace(spec, thickness=1.0, material=replace(spec.material, E=1.0, G=spec.material.G / spec.material.E))
    for freedoms, of, heavy in ((IN_PLANE, unit, spec.thickness), (ACROSS, spec, 1.0)):
        held = (6 * np.arange(len(spec.patches))[:, None] + np.array(freedoms)).ravel()
        M[np.ix_(held, held)] = heavy * _half(of, freedoms).mass()
    return M


@dataclass(frozen=True, slots=True)
class _Condensed:
    """Membrane or bending of a plate on its patches and points; as of `CondensedPlate`, three freedoms each."""

    K: FloatArray
    follow: FloatArray
    inner: FloatArray
    whole: FloatArray
    weight: FloatArray


def _stretching(spec: PlateSpec) -> _Condensed:
    """Return the membrane: it goes with E·t and ρ·t, so that one mesh is solved for all thicknesses and metals."""
    of, t = spec.material, spec.thickness
    unit = replace(of, E=1.0, G=of.G / of.E, rho=1.0)
    one = _of_one(replace(spec, thickness=1.0, material=unit))
    stiff, heavy = of.E * t, of.rho * t
    return _Condensed(one.K * stiff, one.follow, one.inner / stiff, one.whole * stiff, one.weight * heavy)


@kept_up_to(KEPT)
def _of_one(spec: PlateSpec) -> _Condensed:
    return _half(spec, IN_PLANE).condensed()


def _half(spec: PlateSpec, freedoms: tuple[int, ...]) -> "_Half":
    mesh = _mesh(spec)
    build = plate_element.bending if freedoms == ACROSS else plate_element.membrane
    elements = build(mesh.a, mesh.b, spec.thickness, spec.material)
    return _Half(mesh, spec, freedoms, np.maximum(mesh.share, NOTHING)[:, None, None] * elements)


@dataclass(frozen=True, slots=True)
class _Mesh:
    x: FloatArray
    y: FloatArray
    corners: IntArray
    a: FloatArray
    b: FloatArray
    share: FloatArray
    """Of each element that is there."""
    patch_of: IntArray
    """Patch that a node belongs to, or -1."""
    point: IntArray
    """Node of each point."""


def _mesh(spec: PlateSpec) -> _Mesh:
    long_x = len(spec.xs) >= len(spec.ys)
    nx, ny = len(spec.xs), len(spec.ys)
    # Nodes are numbered along the shorter side first, for a narrow band.
    number = np.arange(nx * ny).reshape(nx, ny) if long_x else np.arange(nx * ny).reshape(ny, nx).T
    gx, gy = np.meshgrid(spec.xs, spec.ys, indexing="ij")
    x, y = np.empty(nx * ny), np.empty(nx * ny)
    x[number], y[number] = gx, gy
    corners = np.stack([number[:-1, :-1], number[1:, :-1], number[1:, 1:], number[:-1, 1:]], axis=-1).reshape(-1, 4)
    a, b = x[corners[:, 1]] - x[corners[:, 0]], y[corners[:, 3]] - y[corners[:, 0]]
    patch_of = np.full(nx * ny, -1)
    for place, patch in enumerate(spec.patches):
        inside = (np.abs(x - patch.x) < patch.half_x + ON_LINE) & (np.abs(y - patch.y) < patch.half_y + ON_LINE)
        if not inside.any():
            raise ValueError(f"patch at {patch.x:g}, {patch.y:g} covers no crossing of mesh lines")
        patch_of[inside] = place
    point = np.empty(len(spec.points), dtype=np.intp)
    for place, (px, py) in enumerate(spec.points):
        away = np.hypot(x - px, y - py)
        point[place] = int(np.argmin(away))
        if away[point[place]] > ON_LINE:
            raise ValueError(f"point {px:g}, {py:g} is no crossing of mesh lines")
    return _Mesh(x, y, corners, a, b, spec.covered().ravel(), patch_of, point)


class _Half:
    """Membrane or bending of a mesh, condensed; three freedoms a node."""

    def __init__(self, mesh: _Mesh, spec: PlateSpec, freedoms: tuple[int, ...], elements: FloatArray) -> None:
        self._mesh, self._spec, self._freedoms, self._bends = mesh, spec, freedoms, freedoms == ACROSS
        n, held = len(mesh.x), 3 * len(spec.patches)
        free_nodes = np.flatnonzero(mesh.patch_of < 0)
        self._row = np.full(n, -1)
        self._row[free_nodes] = np.arange(len(free_nodes))
        self._follow_patch = self._arms()
        self._size = 3 * len(free_nodes)
        band, self._Kfh, self._Khh = self._assemble(elements, self._size, held)
        self._factor, info = lapack.band_cholesky(band)
        if info:
            raise ValueError("the plate's patches do not hold it")

    def condensed(self) -> _Condensed:
        """Return what patches and points know of it: all that lies between their loads, from the factor alone."""
        held, load = self._Khh.shape[0], self._loads()
        targets, which = self._targets()
        right = np.zeros((self._size, held + 3 + len(targets)))
        right[:, :held] = -self._Kfh
        right[:, held : held + 3] = load[0]
        right[targets, held + 3 + np.arange(len(targets))] = 1.0
        factor = Factor(lambda some: lapack.band_solve(self._factor, some), 1.0, self._factor)
        between = factor.between(right) if self._size else np.zeros((right.shape[1], right.shape[1]))
        points = between[held + 3 :]
        K = self._Khh - between[:held, :held]
        K = (K + K.T) / 2
        total = load[1] + between[:held, held : held + 3]
        return self._points(K, points[:, :held], points[:, held : held + 3], points[:, held + 3 :], which, total)

    def mass(self) -> FloatArray:
        """Return the mass on the patches."""
        T = lapack.band_solve(self._factor, np.asfortranarray(-self._Kfh)) if self._size else -self._Kfh
        return self._condensed_mass(self._masses(), T)

    def _arms(self) -> FloatArray:
        """Return for each node in a patch its movement per the patch's, shape (n, 3, 3)."""
        mesh, spec = self._mesh, self._spec
        arm = np.tile(np.eye(3), (len(mesh.x), 1, 1))
        inside = mesh.patch_of >= 0
        centres = np.array([(patch.x, patch.y) for patch in spec.patches]).reshape(-1, 2)
        rx = mesh.x[inside] - centres[mesh.patch_of[inside], 0]
        ry = mesh.y[inside] - centres[mesh.patch_of[inside], 1]
        if self._bends:  # w = w + θx·ry − θy·rx
            arm[inside, 0, 1], arm[inside, 0, 2] = ry, -rx
        else:  # u = u − θz·ry, v = v + θz·rx
            arm[inside, 0, 2], arm[inside, 1, 2] = -ry, rx
        return arm

    def _assemble(self, elements: FloatArray, size: int, held: int) -> tuple[FloatArray, FloatArray, FloatArray]:
        rows, matrices = self._element_rows(elements)
        r, c = np.repeat(rows, 12, axis=1).ravel(), np.tile(rows, (1, 12)).ravel()
        v = matrices.ravel()
        ff = (r < size) & (c < size) & (r >= c)
        depth = int((r - c)[ff].max()) + 1 if ff.any() else 1
        flat = np.bincount(c[ff] * depth + (r - c)[ff], weights=v[ff], minlength=size * depth)
        band = np.asfortranarray(flat.reshape(size, depth).T, dtype=float)
        fh = (r < size) & (c >= size)
        Kfh = np.bincount(r[fh] * held + c[fh] - size, weights=v[fh], minlength=size * held).reshape(size, held)
        hh = (r >= size) & (c >= size)
        Khh = np.bincount((r[hh] - size) * held + c[hh] - size, weights=v[hh], minlength=held**2).reshape(held, held)
        return band, np.asfortranarray(Kfh, dtype=float), np.asarray(Khh, dtype=float)

    def _element_rows(self, elements: FloatArray) -> tuple[IntArray, FloatArray]:
        """Return equations of each element's freedoms, patches behind the free ones, and its matrix in them."""
        mesh = self._mesh
        free = self._row[mesh.corners]
        base = 3 * int(self._row.max() + 1)
        first = np.where(free >= 0, 3 * free, base + 3 * mesh.patch_of[mesh.corners])
        rows = (first[:, :, None] + np.arange(3)).reshape(-1, 12)
        touched = np.flatnonzero((free < 0).any(axis=1))
        T = np.zeros((len(touched), 12, 12))
        arms = self._follow_patch[mesh.corners[touched]]
        for corner in range(4):
            at = slice(3 * corner, 3 * corner + 3)
            T[:, at, at] = arms[:, corner]
        matrices = elements.copy()
        matrices[touched] = T.transpose(0, 2, 1) @ elements[touched] @ T
        return rows, matrices

    def _masses(self) -> FloatArray:
        """Return element masses, (n, 12, 12)."""
        mesh, t, rho = self._mesh, self._spec.thickness, self._spec.material.rho
        products = plate_element.shape_products(mesh.a, mesh.b)
        inertia = [rho * t**3 / 12 if f in (3, 4) else 0.0 if f == 5 else rho * t for f in self._freedoms]
        mass = np.zeros((len(mesh.a), 12, 12))
        for place, value in enumerate(inertia):
            mass[:, place::3, place::3] = value * mesh.share[:, None, None] * products
        return mass

    def _loads(self) -> tuple[FloatArray, FloatArray]:
        """Return weights on free equations and on patches, (…, 3)."""
        mesh, t, rho = self._mesh, self._spec.thickness, self._spec.material.rho
        nodal = np.zeros(len(mesh.x))
        np.add.at(nodal, mesh.corners, (rho * t * mesh.share * mesh.a * mesh.b / 4)[:, None])
        own = np.zeros((len(mesh.x), 3, 3))
        for place, f in enumerate(self._freedoms):
            if f < 3:
                own[:, place, f] = nodal
        free = np.flatnonzero(mesh.patch_of < 0)
        on_free = own[free].reshape(-1, 3)
        on_patch = np.zeros((len(self._spec.patches), 3, 3))
        inside = np.flatnonzero(mesh.patch_of >= 0)
        np.add.at(on_patch, mesh.patch_of[inside], self._follow_patch[inside].transpose(0, 2, 1) @ own[inside])
        return on_free, on_patch.reshape(-1, 3)

    def _condensed_mass(self, mass: FloatArray, T: FloatArray) -> FloatArray:
        from scipy.sparse import coo_array

        rows, matrices = self._element_rows(mass)
        held = T.shape[1]
        whole = np.vstack([T, np.eye(held)])
        r, c = np.repeat(rows, 12, axis=1).ravel(), np.tile(rows, (1, 12)).ravel()
        spread = coo_array((matrices.ravel(), (r, c)), shape=(len(whole), len(whole))).tocsr()
        M = whole.T @ (spread @ whole)
        return np.asarray(M + M.T) / 2

    def _targets(self) -> tuple[IntArray, IntArray]:
        """Return the equations of the points that are not in a patch, and which points these are."""
        row = self._row[self._mesh.point]
        which = np.flatnonzero(row >= 0)
        return (3 * row[which][:, None] + np.arange(3)).ravel(), which

    def _points(
        self, K: FloatArray, F: FloatArray, sag: FloatArray, C: FloatArray, which: IntArray, total: FloatArray
    ) -> _Condensed:
        """Return all on patches and points.

        Args:
            K: On the patches.
            F: Movement of the free points by the patches.
            sag: Of the free points by weight.
            C: Of the free points by loads on them.
            which: These points.
            total: Weight that comes to the patches.
        """
        mesh, held, p = self._mesh, len(K), 3 * len(self._mesh.point)
        follow, inner = np.zeros((p, held)), np.zeros((p, p))
        for place, node in enumerate(mesh.point.tolist()):
            patch = int(mesh.patch_of[node])
            if patch >= 0:
                follow[3 * place : 3 * place + 3, 3 * patch : 3 * patch + 3] = self._follow_patch[node]
        mine = (3 * which[:, None] + np.arange(3)).ravel()
        follow[mine] = F
        soft = (C + C.T) / 2
        inner[np.ix_(mine, mine)] = soft
        stiff = np.linalg.inv(soft) if len(mine) else np.zeros((0, 0))
        whole = np.zeros((held + p, held + p))
        both = np.concatenate([np.arange(held), held + mine])
        whole[np.ix_(both, both)] = np.block([[K + F.T @ stiff @ F, -F.T @ stiff], [-stiff @ F, stiff]])
        on_points = stiff @ sag
        weight = np.zeros((held + p, 3))
        weight[held + mine] = on_points
        weight[:held] = total - F.T @ on_points
        return _Condensed(K, follow, inner, whole, weight)
