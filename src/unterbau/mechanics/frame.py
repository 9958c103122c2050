"""The analysis model: plain arrays, no knowledge of machines."""

from dataclasses import dataclass, fields

import numpy as np

from unterbau.mechanics.arrays import BoolArray, FloatArray, IntArray
from unterbau.mechanics.plate_spec import PlateSpec

CAUSES = ("axial", "shear", "torsion", "bending", "joint", "distortion", "wall")
"""What strain energy can count as."""
AXIAL, SHEAR, TORSION, BENDING, JOINT, DISTORTION, WALL = range(len(CAUSES))
BY_STRAIN = -1
"""Cause of a beam whose own strains tell."""


@dataclass(frozen=True, slots=True)
class Beams:
    """Straight prismatic members between nodes, one row each."""

    i: IntArray
    """First node, shape (n,)."""
    j: IntArray
    """Second node, shape (n,)."""
    offset_i: FloatArray
    """Rigid link from node i to the beam's end, m, global axes, shape (n, 3)."""
    offset_j: FloatArray
    """Rigid link from node j to the beam's end, m, global axes, shape (n, 3)."""
    up: FloatArray
    """Side on which local z lies, shape (n, 3)."""
    E: FloatArray
    G: FloatArray
    rho: FloatArray
    zeta: FloatArray
    A: FloatArray
    Iy: FloatArray
    Iz: FloatArray
    Iyz: FloatArray
    J: FloatArray
    Asy: FloatArray
    """Shear area along local y, m²; 0 means no shear deformation."""
    Asz: FloatArray
    ys: FloatArray
    """Shear centre from the centroid, m."""
    zs: FloatArray
    group: IntArray
    """Index into the frame's groups."""
    cause: IntArray
    """What its energy counts as: a place in `CAUSES`, or -1 where its own strains tell."""

    def __len__(self) -> int:
        return len(self.i)

    def take(self, rows: IntArray | BoolArray) -> "Beams":
        """Return the chosen rows."""
        return Beams(*(getattr(self, field.name)[rows] for field in fields(self)))


@dataclass(frozen=True, slots=True)
class Springs:
    """Six springs each, acting at node i's place; j = -1 means ground."""

    i: IntArray
    j: IntArray
    x: FloatArray
    """Direction of the springs' own x, shape (n, 3)."""
    up: FloatArray
    k: FloatArray
    """N/m along and N·m/rad about x, y, z, shape (n, 6); inf is a rigid direction."""
    zeta: FloatArray
    group: IntArray
    cause: IntArray
    """What their energy counts as: a place in `CAUSES`."""

    def __len__(self) -> int:
        return len(self.i)


@dataclass(frozen=True, slots=True)
class Seats:
    """Springs between a node and a point inside a beam (guide blocks on a rail).

    The beam point is not a node: its movement follows from the beam's ends and from
    the beam's own flexibility, exactly, as if the beam were split there.
    """

    node: IntArray
    """The node that the springs act at, shape (n,)."""
    beam: IntArray
    """Index of the host beam, shape (n,)."""
    station: FloatArray
    """Place along the host beam's length, 0 < station < 1, shape (n,)."""
    x: FloatArray
    up: FloatArray
    k: FloatArray
    zeta: FloatArray
    group: IntArray

    def __len__(self) -> int:
        return len(self.node)


@dataclass(frozen=True, slots=True)
class Masses:
    """Rigid bodies carried by nodes."""

    node: IntArray
    m: FloatArray
    inertia: FloatArray
    """About the body's own centre, global axes, kg·m², shape (n, 3)."""
    offset: FloatArray
    """From the node to the body's centre, m, shape (n, 3)."""
    hung: FloatArray
    """Force of a rope over a pulley divided by gravity, kg: it acts with the weight and has no inertia; negative where
    the rope holds the node up. Shape (n,)."""

    def __len__(self) -> int:
        return len(self.node)


@dataclass(frozen=True, slots=True)
class Plate:
    """A flat plate, condensed onto the nodes it is held at."""

    spec: PlateSpec
    axes: FloatArray
    """Its own x, y and normal as rows, shape (3, 3)."""
    origin: FloatArray
    """Its corner, middle of its thickness, m, shape (3,)."""
    patches: IntArray
    """Nodes at the middles of its patches."""
    points: IntArray
    """Nodes at its points; nothing else may be joined to these, they only follow and bear loads."""
    zeta: float
    group: int
    stiff: float = 1.0
    """Factor on its E and G."""


@dataclass(frozen=True, slots=True)
class Frame:
    """Nodes, elements, supports. Names serve messages and files only."""

    nodes: FloatArray
    """Places, m, shape (n_nodes, 3)."""
    beams: Beams
    springs: Springs
    seats: Seats
    masses: Masses
    fixed: BoolArray
    """Directions ux uy uz rx ry rz held by a support, shape (n_nodes, 6)."""
    groups: tuple[str, ...]
    node_names: tuple[str, ...]
    plates: tuple[Plate, ...] = ()


@dataclass(frozen=True, slots=True)
class Loads:
    """Load cases, one row each."""

    forces: FloatArray
    """Nodal forces and moments, N and N·m, shape (n_cases, n_nodes, 6)."""
    gravity: FloatArray
    """Acceleration of free fall, m/s², shape (n_cases, 3)."""


def no_seats() -> Seats:
    """Return an empty set of seats."""
    empty, rows = np.zeros(0, dtype=np.intp), np.zeros(0)
    three, six = np.zeros((0, 3)), np.zeros((0, 6))
    return Seats(empty, empty, rows, three, three, six, rows, empty)
