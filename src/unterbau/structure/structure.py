"""A machine as pieces, what joins them and what carries them: laid out once, with its head in the middle and lowest."""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property
from math import cos, radians, sin

from unterbau.band import AtLevels
from unterbau.structure.carrier import STILL, Carrier
from unterbau.structure.dimension_line import DimensionLine
from unterbau.structure.drag_chain import ChainRun
from unterbau.structure.join import (
    BasePlateJoin,
    Collar,
    Counterweight,
    EndJoin,
    Foot,
    GussetJoin,
    Join,
    Payload,
    RibJoin,
    Springs,
    Weight,
)
from unterbau.structure.motion import Blocks, DriveTrain, Rail, SpindleUnit, Ware
from unterbau.structure.parts import Place, Stand
from unterbau.structure.piece import Bar, PlatePiece, Point, Rod
from unterbau.structure.spot import Spot
from unterbau.structure.vectors import Vector

LAID_OUT = Place(0.5, 0.5, 0.0)
"""Where the head stands in a structure."""


@dataclass(frozen=True, slots=True)
class Turned:
    """Steps that are laid out straight, then turned about an upright axis, seen from above against the clock."""

    degrees: float
    about: tuple[float, float]
    steps: tuple["Step", ...]

    def holds(self, name: str) -> bool:
        """Return whether a piece is among what is turned."""
        return any(
            one.holds(name) if isinstance(one, Turned) else getattr(one, "name", "") == name for one in self.steps
        )

    def way(self, v: Vector) -> Vector:
        """Return a direction after the turn."""
        c, s = cos(radians(self.degrees)), sin(radians(self.degrees))
        return (c * v[0] - s * v[1], s * v[0] + c * v[1], v[2])

    def place(self, p: Vector) -> Vector:
        """Return a place after the turn."""
        x0, y0 = self.about
        x, y, z = self.way((p[0] - x0, p[1] - y0, p[2]))
        return (x + x0, y + y0, z)


Single = (
    Bar | Rod | PlatePiece | Point | Join | EndJoin | BasePlateJoin | RibJoin | GussetJoin | Foot | Springs
    | Weight | Payload | Counterweight | Collar | Rail | Blocks | DriveTrain | SpindleUnit | Ware | ChainRun
)  # fmt: skip
Step = Single | Turned
"""What a machine is put together by, in order."""
Piece = Bar | Rod | PlatePiece | Point


@dataclass(frozen=True, slots=True)
class Work:
    """Where the work stands."""

    on: str
    """A plate that carries it, a rod that is it, or a point."""
    place: Vector
    """As laid out."""
    carrier: Carrier = STILL
    """How the place goes as the head moves, whatever it stands on."""
    xs: tuple[float, ...] = ()
    """Of a plate, its crossings along X, m."""
    ys: tuple[float, ...] = ()


@dataclass(frozen=True, slots=True)
class SizeLine:
    """A dimension line as laid out, and how it goes with the head."""

    line: DimensionLine
    carrier: Carrier

    def at(self, way: Vector) -> DimensionLine:
        """Return it when the axes have gone so far, m."""
        x, y, z = self.carrier.moved((0.0, 0.0, 0.0), way)
        off = (x if self.line.view == "front" else y, z)
        start, end = ((p[0] + off[0], p[1] + off[1]) for p in (self.line.start, self.line.end))
        return replace(self.line, start=start, end=end)


@dataclass(frozen=True, eq=False)
class Structure:
    """All of a machine."""

    steps: tuple[Step, ...]
    tip: Spot
    """Of the tool."""
    nose: Spot
    """Of the spindle."""
    work: Work
    corners: tuple[Spot, ...]
    """Of a frame that belts can run round: front left, back left, front right, back right."""
    stand: Stand | None
    """What its feet stand on, if it has feet."""
    sizes: tuple[SizeLine, ...]
    way: Callable[[Place], Vector]
    """How far each axis goes from where it is laid out to a place, m."""
    fallen: Mapping[str, str] = field(default_factory=dict)
    """Changes that do not stand, and why."""
    measured: Mapping[str, AtLevels[float]] = field(default_factory=dict)
    """Of links that were measured on the built machine: how stiff they are against their likely value."""

    @cached_property
    def flat(self) -> tuple[Single, ...]:
        """All steps, those that are turned among them, straight."""
        return tuple(_flat(self.steps))

    @cached_property
    def pieces(self) -> Mapping[str, Piece]:
        """Pieces by name, laid out straight."""
        found: dict[str, Piece] = {}
        for step in self.flat:
            if isinstance(step, Piece):
                found[step.name] = step
            elif isinstance(step, BasePlateJoin | GussetJoin):
                found[step.plate.name] = step.plate
            elif isinstance(step, RibJoin):
                found[step.rib.name] = step.rib
        return found

    @cached_property
    def feet(self) -> tuple[tuple[str, Vector], ...]:
        """Name and place of each foot that stands on the ground."""
        return tuple(
            (one.name, (one.on.place[0] + one.aside, one.on.place[1], one.on.place[2] - one.depth))
            for one in self.flat if isinstance(one, Foot) and not one.base
        )  # fmt: skip


def _flat(steps: tuple[Step, ...]) -> Iterator[Single]:
    for step in steps:
        if isinstance(step, Turned):
            yield from _flat(step.steps)
        else:
            yield step
