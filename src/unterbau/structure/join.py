"""What joins pieces: joints, ends, seams, feet, what holds a place."""

from dataclasses import dataclass, replace
from typing import Literal

from unterbau.band import AtLevels
from unterbau.catalogue.joints import Face
from unterbau.catalogue.ropes import Rope
from unterbau.structure.carrier import STILL, Carrier
from unterbau.structure.keys import Key
from unterbau.structure.parts import Joint
from unterbau.structure.piece import PlatePiece
from unterbau.structure.spot import Spot
from unterbau.structure.vectors import Vector, X, Z, plus

WATER = 1000.0
"""kg/m³."""


@dataclass(frozen=True, slots=True)
class Join:
    """A joint between two places, or a place and the ground, at the first."""

    key: Key
    joint: Joint
    a: Spot
    b: Spot | None
    face: Face
    normal: Vector = X
    up: Vector = Z
    screw: str = ""
    """Name of the screw that is seen there, if there is one."""
    head: Vector | None = None
    """Where its head is."""
    carrier: Carrier = STILL
    wall: Vector | None = None
    """Off the face that it bears on, where the second is a bar whose wall gives under it."""
    reach: float = 0.0
    """Length of what is bought between the two pieces, as a tailstock's centre, m; 0 where they touch."""


@dataclass(frozen=True, slots=True)
class EndJoin:
    """The end of a bar, joined to the nearest place of another piece."""

    key: Key
    joint: Joint
    bar: str
    last: bool
    host: str
    carrier: Carrier = STILL


@dataclass(frozen=True, slots=True)
class BasePlateJoin:
    """A plate welded to the end of a bar and bolted to another piece all around."""

    key: Key
    joint: Joint
    bar: str
    last: bool
    host: str
    plate: PlatePiece
    bolts: tuple[Vector, ...]
    """Those beside the bar, in the plate's middle plane."""
    carrier: Carrier = STILL

    @property
    def standing(self) -> PlatePiece:
        """The plate where it lies: the frame has its middle on the other's face, on which it lies with its own."""
        lift = (-0.5 if self.last else 0.5) * self.plate.height
        start, end = (plus(place, self.plate.up, lift) for place in (self.plate.start, self.plate.end))
        return replace(self.plate, start=start, end=end)


@dataclass(frozen=True, slots=True)
class RibJoin:
    """A strip welded or bonded upright on a plate along its foot."""

    plate: str
    rib: PlatePiece
    foot: Vector
    """Start of its foot, in the plate's middle plane."""
    long: float
    across: bool
    """Whether it runs across the plate."""
    places: int = 0
    """Where its foot is held at the most; 0 as usual."""
    carrier: Carrier = STILL


@dataclass(frozen=True, slots=True)
class GussetJoin:
    """A triangle in the corner between the end of a bar and what it stands on."""

    key: Key
    joint: Joint
    plate: PlatePiece
    corner: Vector
    bar: str
    host: str
    away: Vector
    """From the corner along the bar."""
    side: Vector
    """From the corner along the host."""
    carrier: Carrier = STILL


@dataclass(frozen=True, slots=True)
class Foot:
    """A levelling foot below a place of a piece, or aside of it along X."""

    name: str
    on: Spot
    depth: float
    """From the place down to the foot, m."""
    aside: float = 0.0
    base: str = ""
    """The cast base that it is bolted to, where it does not stand on the ground."""
    carrier: Carrier = STILL


@dataclass(frozen=True, slots=True)
class Springs:
    """Springs between two places, or a place and the ground, at the first; what they stand for is not bought."""

    key: Key | Literal["feet"]
    a: Spot
    b: Spot | None
    k: tuple[float, ...] | AtLevels[tuple[float, ...]]
    """Along x, across and up, N/m; about them, N·m/rad."""
    x: Vector = X
    up: Vector = Z
    zeta: float = 0.0
    carrier: Carrier = STILL


@dataclass(frozen=True, slots=True)
class Weight:
    """A mass at a place."""

    at: Spot
    mass: float
    offset: Vector = (0.0, 0.0, 0.0)
    carrier: Carrier = STILL


@dataclass(frozen=True, slots=True)
class Payload:
    """What the head carries: a body at a place, no part of the machine and not bought."""

    at: Spot
    mass: float
    """kg."""
    carrier: Carrier = STILL

    @property
    def side(self) -> float:
        """Side of the cube that it is taken as, hung below its place, m; as dense as water."""
        return float((self.mass / WATER) ** (1 / 3))


@dataclass(frozen=True, slots=True)
class Counterweight:
    """A weight on a rope over a pulley, which holds up what an axis moves along the plumb line."""

    key: Key
    """The drive that it relieves."""
    mass: float
    """kg."""
    pulley: Spot
    hook: Spot
    """Where the rope holds the moved part."""
    rope: Rope
    size: Vector
    """Of its body along X, Y, Z, m."""
    middle: Vector
    """Of its body, as laid out."""
    carrier: Carrier = STILL
    """Of the body: it goes against the axis."""


@dataclass(frozen=True, slots=True)
class Collar:
    """Where a joint is seen around the end of a piece."""

    key: Key
    piece: str
    last: bool
    carrier: Carrier = STILL
