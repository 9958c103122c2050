"""A machine's frame with the places that matter to the answers."""

from dataclasses import dataclass

import numpy as np

from unterbau.band import AtLevels, Level
from unterbau.catalogue.drives import DriveKind
from unterbau.mechanics.arrays import FloatArray, IntArray
from unterbau.mechanics.frame import Frame
from unterbau.model.frame_builder import Chain, Slide
from unterbau.structure.vectors import Vector

FREE = 2e4
"""What friction holds an axis with whose motor is off, N/m; common practice, no source."""


@dataclass(frozen=True, slots=True)
class WorkPoint:
    """Where the tool's pull is pushed back: a body that moves by some nodes of what carries it."""

    nodes: IntArray
    """Shape (n,)."""
    share: FloatArray
    """Its movement per movement of each, shape (n, 6, 6)."""
    place: Vector


def on_node(node: int, place: Vector) -> WorkPoint:
    """Return work that moves as one node does."""
    return WorkPoint(np.array([node]), np.eye(6)[None], place)


@dataclass(frozen=True, slots=True)
class Ground:
    """What the work can stand on: a plate's crossings, or a bar."""

    columns: tuple[float, ...]
    """Places of the crossings along X, m; of a bar, none."""
    rows: tuple[float, ...]
    nodes: tuple[int, ...]
    """Crossings column by column in each row."""
    chain: Chain | None = None
    """The bar."""


@dataclass(frozen=True, slots=True)
class Driven:
    """A drive as put in: the spring it is, and what its stiffness follows from."""

    spring: int
    kind: DriveKind
    distance: float
    """From the bearing to the nut along the axis, m; less than nothing where the nut stands the other way."""
    length: float
    free: bool = False
    """Motor off."""
    measured: AtLevels[float] | None = None
    """Against its likely value, where it was measured on the built machine."""
    both: bool = False
    """Whether both ends of a screw are held along it."""

    def stiffness(self, level: Level, distance: float) -> float:
        """Return the axial stiffness with the nut so far from the bearing, N/m."""
        if self.free:
            return FREE
        if self.measured is not None:
            return self.measured.at(level) * self.kind.stiffness("likely", abs(distance), self.length, self.both)
        return self.kind.stiffness(level, abs(distance), self.length, self.both)


@dataclass(frozen=True, slots=True)
class Built:
    """The frame of a machine, and its ends."""

    frame: Frame
    tip: int
    nose: int
    work: WorkPoint
    chains: dict[str, tuple[int, ...]]
    """Nodes of each drawn body, in order along it."""
    corners: tuple[int, ...] = ()
    """Corners of a frame that belts can run round: front left, back left, front right, back right."""
    slides: tuple[Slide, ...] = ()
    """Blocks on their rails."""
    drives: tuple[Driven, ...] = ()
    ground: Ground | None = None
    loose: tuple[tuple[int, float], ...] = ()
    """Springs with play: row, and how far they tilt freely from stop to stop, rad."""
