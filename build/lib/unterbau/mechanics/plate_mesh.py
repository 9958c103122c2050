"""Membrane or bending of a plate: meshed, and condensed onto what holds it."""

from dataclasses import dataclass

import numpy as np

from unterbau.kept import kept_up_to
from unterbau.mechanics import lapack, plate_element
from unterbau.mechanics.arrays import FloatArray, IntArray
from unterbau.mechanics.factor import Factor
from unterbau.mechanics.plate_spec import ON_LINE, PlateSpec

KEPT = 16.0  # MB: the newest, whose mass may be asked for next
IN_PLANE, ACROSS = (0, 1, 5), (2, 3, 4)
"""Freedoms ux uy rz, and uz rx ry, in the plate's own axes."""
NOTHING = 1e-6
"""Share of its stiffness that an element keeps where there is no plate (finite cells, Parvizian et al. 2007)."""


@dataclass(frozen=True, slots=True)
class Condensed:
    """Membrane or bending of a plate on its patches and points, three freedoms each."""

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
    loose: IntArray
    """Freedoms of points that are in no patch."""


@dataclass(frozen=True, slots=True)
class Mesh:
    """Nodes and elements of a plate."""

    x: FloatArray
    """Of each node, m."""
    y: FloatArray
    corners: IntArray
    """Nodes of each element, shape (n, 4)."""
    a: FloatArray
    """Length of each element along x, m."""
    b: FloatArray
    share: FloatArray
    """Of each element that is there."""
    patch_of: IntArray
    """Patch that a node belongs to, or -1."""
    point: IntArray
    """Node of each point."""


def mesh_of(spec: PlateSpec) -> Mesh:
    """Return a plate's mesh.

    Raises:
        ValueError: A patch or a point is on no crossing of mesh lines.
    """
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
    return Mesh(x, y, corners, a, b, spec.covered().ravel(), patch_of, point)


@kept_up_to(KEPT, lambda half: half.nbytes)
def half_of(spec: PlateSpec, freedoms: tuple[int, ...]) -> "Half":
    """Return the membrane or the bending of a plate.

    Raises:
        ValueError: A point is no crossing of mesh lines, or its patches do not hold the plate.
    """
    mesh = mesh_of(spec)
    build = plate_element.bending if freedoms == ACROSS else plate_element.membrane
    different, which = np.unique(np.stack([mesh.a, mesh.b], axis=1), axis=0, return_inverse=True)
    elements = build(different[:, 0], different[:, 1], spec.thickness, spec.material)[which.ravel()]
    return Half(mesh, spec, freedoms, np.maximum(mesh.share, NOTHING)[:, None, None] * elements)


class Half:
    """Membrane or bending of a mesh, condensed; three freedoms a node."""

    def __init__(self, mesh: Mesh, spec: PlateSpec, freedoms: tuple[int, ...], elements: FloatArray) -> None:
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

    @property
    def nbytes(self) -> int:
        """What it takes of the memory."""
        return int(self._factor.nbytes + self._Kfh.nbytes + self._Khh.nbytes + self._follow_patch.nbytes)

    def condensed(self) -> Condensed:
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
    ) -> Condensed:
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
        follow, inner, sags = np.zeros((p, held)), np.zeros((p, p)), np.zeros((p, 3))
        for place, node in enumerate(mesh.point.tolist()):
            patch = int(mesh.patch_of[node])
            if patch >= 0:
                follow[3 * place : 3 * place + 3, 3 * patch : 3 * patch + 3] = self._follow_patch[node]
        mine = (3 * which[:, None] + np.arange(3)).ravel()
        follow[mine], sags[mine] = F, sag
        inner[np.ix_(mine, mine)] = (C + C.T) / 2
        return Condensed(K, follow, inner, sags, total, mine)
