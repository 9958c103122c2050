"""A machine being put up: frame, bodies to draw, list of parts, dimension lines, all in one pass."""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass, replace
from math import dist
from typing import Any

from unterbau.band import Level
from unterbau.machine.bill import Line
from unterbau.machine.built import Built, Driven, Ground, WorkPoint
from unterbau.machine.frame_builder import Chain, FrameBuilder
from unterbau.machine.stand import ground, stand_bodies, stand_lines
from unterbau.structure.bodies import Body
from unterbau.structure.dimension_line import DimensionLine, Flat, View
from unterbau.structure.parts import Place, Stand
from unterbau.structure.vectors import Straight, Vector

AXES = "XYZ"


@dataclass(frozen=True, slots=True)
class Laid(Straight):
    """A straight part in its place."""

    key: str
    name: str
    chain: Chain
    start: Vector
    end: Vector
    up: Vector
    height: float
    """Along up, m."""
    width: float


class Kit:
    """What the pieces of a machine are put into."""

    def __init__(self, machine: Any, place: Place) -> None:
        self.machine, self.place = machine, place
        self.frame = FrameBuilder()
        self.bodies: list[Body] = []
        self.chains: dict[str, tuple[int, ...]] = {}
        self.widths: dict[str, float] = {}
        self.feet: list[int] = []
        self.corners: tuple[int, ...] = ()
        """Where the pulleys of crossed belts stand: front left, back left, front right, back right."""
        self.dimension_lines: list[DimensionLine] = []
        self.tip = self.nose = -1
        self.work: WorkPoint | None = None
        self.standing: Callable[[], WorkPoint] | None = None
        """How the work stands on a plate, once it is known where the tool is."""
        self.ground: Ground | None = None
        self.drives: list[Driven] = []
        self.shafts: list[tuple[str, Chain]] = []
        """Guide and shaft, of shafts that are free between their ends."""
        self.profiles: dict[str, list[Chain]] = {}
        """Of a built-up member by name: its other profiles."""
        self.rails: list[tuple[str, str, Chain]] = []
        """Guide, host and chain of rails that are screwed on a member's wall."""
        self.walled: dict[str, Any] = {}
        """Members with rails on walls that give, by name."""
        self.held_ends: set[tuple[str, bool]] = set()
        """Ends of members whose section is held in shape by what they are fastened to: name, and whether the last."""
        self.late: list[Callable[[], None]] = []
        """Done when all is fastened, before plates are meshed."""
        self.plates: list[Any] = []
        """Plates in their places, meshed when the machine stands."""
        self.moving = dict.fromkeys(AXES, 0.0)
        self._lines: dict[tuple[str, str, float], Line] = {}
        self._carried = ""

    @contextmanager
    def moved_by(self, axes: str) -> Iterator[None]:
        """Count what is put in place meanwhile to what these axes move."""
        before, self._carried = self._carried, axes
        try:
            yield
        finally:
            self._carried = before

    def buy(self, line: Line) -> None:
        """Put a line on the list of parts; equal ones add up."""
        for axis in self._carried:
            self.moving[axis] += line.mass
        key = (line.part, line.text, round(line.length, 6))
        known = self._lines.get(key)
        self._lines[key] = line if known is None else replace(
            known, count=known.count + line.count, mass=known.mass + line.mass
        )  # fmt: skip

    @property
    def lines(self) -> tuple[Line, ...]:
        """The list of parts."""
        return tuple(self._lines.values())

    def near(self, part: Any, place: Vector, half: tuple[float, float] | None = None) -> int:
        """Return the node of a part nearest to a place; a plate is held there, on a patch of half that size."""
        if not isinstance(part, Laid):
            held: int = part.hold(place) if half is None else part.hold(place, half)
            return held
        return min(part.chain.nodes, key=lambda n: dist(self.frame.places[n], place))

    def size(
        self, attribute: str, label: str, view: View, start: Flat, end: Flat, lane: int = 0, pull: float = 1.0
    ) -> None:
        """Draw a size of the machine as a dimension line whose end is dragged."""
        self.dimension_lines.append(DimensionLine(attribute, label, view, start, end, pull, lane))

    def size_across(self, attribute: str, label: str, view: View, middle: Flat, lane: int = 0) -> None:
        """Draw a size that lies level and grows both ways from its middle."""
        half = getattr(self.machine.dimensions, attribute) / 2
        self.size(attribute, label, view, (middle[0] - half, middle[1]), (middle[0] + half, middle[1]), lane, 2.0)

    def stand_up(self) -> None:
        """Mesh the plates, and put the feet on what they stand on; nothing hangs on the wall otherwise."""
        if self.standing is not None:
            self.work = self.standing()
        for work in self.late:
            work()
        for plate in self.plates:
            plate.finish()
        if not self.feet:
            return
        stand: Stand = self.machine.stand
        ground(self.frame, stand, self.feet, sum(line.mass for line in self.lines))
        places = [self.frame.places[node] for node in self.feet]
        names = [self.frame.names[node] for node in self.feet]
        self.chains |= {name: (node,) for name, node in zip(names, self.feet, strict=True)}
        self.bodies += stand_bodies(stand, places, names)
        for line in stand_lines(stand, places):
            self.buy(line)

    def built(self, level: Level) -> Built:
        """Return the frame with its ends, joints and all that is uncertain at a level."""
        assert self.work is not None
        return Built(
            self.frame.build(level), self.tip, self.nose, self.work, dict(self.chains), self.corners,
            tuple(self.frame.slides), tuple(self.drives), self.ground, tuple(self.frame.loose),
        )  # fmt: skip
