"""The analysis model as it stands in a `*.frame.json` file, version 3; 1 has no plates, 2 no causes. SI units."""

from dataclasses import dataclass
from typing import Literal

FORMAT = "unterbau-frame"
VERSION = 3
READABLE = (1, 2, 3)
Cause = Literal["joint", "distortion", "wall"]

Vector = tuple[float, float, float]
Stiffness = tuple[float | None, float | None, float | None, float | None, float | None, float | None]
Flags = tuple[bool, bool, bool, bool, bool, bool]
ZERO: Vector = (0.0, 0.0, 0.0)


@dataclass(frozen=True, slots=True)
class Material:
    """Stiffness, density and damping ratio."""

    id: str
    E: float
    G: float
    rho: float
    zeta: float = 0.0


@dataclass(frozen=True, slots=True)
class Section:
    """Values about the centroid."""

    id: str
    A: float
    Iy: float
    Iz: float
    J: float
    Asy: float = 0.0
    Asz: float = 0.0
    Iyz: float = 0.0
    ys: float = 0.0
    """Shear centre from the centroid; version 2."""
    zs: float = 0.0


@dataclass(frozen=True, slots=True)
class Node:
    """A place."""

    id: str
    xyz: Vector


@dataclass(frozen=True, slots=True)
class Beam:
    """A member between two nodes."""

    id: str
    i: str
    j: str
    material: str
    section: str
    up: Vector = (0.0, 0.0, 1.0)
    offset_i: Vector = ZERO
    offset_j: Vector = ZERO
    group: str | None = None
    cause: Cause | None = None
    """What its strain energy counts as, where its own strains do not tell; version 3."""


@dataclass(frozen=True, slots=True)
class Spring:
    """Six springs between two nodes, or to ground; null is rigid."""

    id: str
    i: str
    k: Stiffness
    j: str | None = None
    x: Vector = (1.0, 0.0, 0.0)
    up: Vector = (0.0, 0.0, 1.0)
    zeta: float = 0.0
    group: str | None = None
    cause: Cause = "joint"
    """What its strain energy counts as; version 3."""


@dataclass(frozen=True, slots=True)
class PlatePatch:
    """Where a plate is held: a node, and the rectangle about it that stays rigid; places in the plate's own x, y."""

    node: str
    x: float
    y: float
    half_x: float = 0.0
    half_y: float = 0.0


@dataclass(frozen=True, slots=True)
class PlatePoint:
    """A crossing of mesh lines with a node that follows the plate and can be loaded."""

    node: str
    x: float
    y: float


@dataclass(frozen=True, slots=True)
class Plate:
    """A rectangular plate, Mindlin bending and membrane, on the mesh of its lines."""

    id: str
    material: str
    thickness: float
    nu: float
    origin: Vector
    """Its corner, in the middle of its thickness."""
    x: Vector
    """Direction of its own x."""
    up: Vector
    """Its normal; own y = up × x."""
    xs: tuple[float, ...]
    """Mesh lines from 0 to its length."""
    ys: tuple[float, ...]
    patches: tuple[PlatePatch, ...]
    points: tuple[PlatePoint, ...] = ()
    group: str | None = None
    halved: bool = False
    """Only the triangle between its corner and the diagonal is there."""
    along: float = 1.0
    """Stiffness along its own x as a share of that along y, which the material's E tells."""
    slits: tuple[float, ...] = ()
    """Mesh lines of `xs` from each of which to the next the plate is cut through."""


@dataclass(frozen=True, slots=True)
class Mass:
    """A rigid body carried by a node."""

    id: str
    node: str
    m: float
    inertia: Vector = ZERO
    offset: Vector = ZERO
    hung: float = 0.0
    """Force of a rope over a pulley divided by gravity, kg; it acts with the weight and has no inertia."""


@dataclass(frozen=True, slots=True)
class Support:
    """Directions ux uy uz rx ry rz held at a node."""

    node: str
    fixed: Flags


@dataclass(frozen=True, slots=True)
class NodeLoad:
    """Force and moment on a node."""

    node: str
    force: Vector = ZERO
    moment: Vector = ZERO


@dataclass(frozen=True, slots=True)
class Case:
    """Loads that act together."""

    id: str
    forces: tuple[NodeLoad, ...] = ()
    gravity: Vector = ZERO


@dataclass(frozen=True, slots=True)
class FrameDocument:
    """A whole file."""

    format: Literal["unterbau-frame"]
    version: int
    materials: tuple[Material, ...]
    sections: tuple[Section, ...]
    nodes: tuple[Node, ...]
    beams: tuple[Beam, ...]
    supports: tuple[Support, ...]
    springs: tuple[Spring, ...] = ()
    masses: tuple[Mass, ...] = ()
    cases: tuple[Case, ...] = ()
    modes: int = 0
    plates: tuple[Plate, ...] = ()
