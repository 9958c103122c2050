"""What moves on what: rails, blocks, drives; and what is bought to cut with."""

from dataclasses import dataclass

from unterbau.structure.bodies import Prism
from unterbau.structure.carrier import STILL, Carrier
from unterbau.structure.keys import Key
from unterbau.structure.parts import Cutter, Drive, Guide, Joint, Motor, Spindle
from unterbau.structure.spot import Spot
from unterbau.structure.vectors import ZERO, Vector

RAIL_HEIGHT = 0.6
"""Of a rail, as a share of the height over its block."""


@dataclass(frozen=True, slots=True)
class Rail:
    """A rail on a piece; start and end lie on its seat, `up` points off it."""

    key: Key
    name: str
    guide: Guide
    host: str
    start: Vector
    end: Vector
    up: Vector
    backed: bool = False
    """Whether a strip is bonded to the wall under it."""
    carrier: Carrier = STILL


@dataclass(frozen=True, slots=True)
class Blocks:
    """Blocks under a plate, on rails."""

    key: Key
    guide: Guide
    plate: str
    first: int
    """Number of the first."""
    seats: tuple[tuple[str, Vector], ...]
    """Host of the rail, and the place on its seat, of each block."""
    along: Vector
    up: Vector
    carrier: Carrier = STILL


@dataclass(frozen=True, slots=True)
class DriveTrain:
    """What moves an axis: motor, fixed bearing, screw or belt, nut."""

    key: Key
    motor_key: Key
    drive: Drive
    motor: Motor
    nut: Spot
    bearing: Spot
    along: Vector
    length: float
    """Of the screw or belt path, m."""
    host: str
    """What the bearing is on; the screw is drawn with it."""
    beside: Vector = ZERO
    """From the nut to where the screw is drawn."""
    aside: Vector = ZERO
    """From a screw's end to a motor that stands beside it and drives it by a belt; of belts and racks, the way the
    motor's axis points."""
    number: int = 0
    crossed: bool = False
    """Whether its belt runs round the frame's corners."""
    carrier: Carrier = STILL


@dataclass(frozen=True, slots=True)
class SpindleUnit:
    """A spindle clamped to a plate behind it, with a cutter."""

    spindle: Spindle
    cutter: Cutter
    mount: Joint
    collet: Joint
    plate: str
    x: float
    y: float
    clamp_z: float
    nose_z: float
    tip_z: float
    carrier: Carrier = STILL


@dataclass(frozen=True, slots=True)
class Ware:
    """Something that is bought by the piece."""

    key: Key
    text: str
    mass: float
    names: tuple[str, ...]
    """In the price book."""
    look: Prism | None = None
    carrier: Carrier = STILL
