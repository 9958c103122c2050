"""A structure on its way to a frame: its pieces as they were put in, and what comes last."""

from collections.abc import Callable
from dataclasses import dataclass
from math import dist

from unterbau.band import Level
from unterbau.model.built import Built, Driven, Ground, WorkPoint
from unterbau.model.frame_builder import Chain, FrameBuilder
from unterbau.model.laid_plate import LaidPlate
from unterbau.model.section_walls import Bearing
from unterbau.structure.carrier import Carrier
from unterbau.structure.motion import DriveTrain
from unterbau.structure.parts import Member, Place
from unterbau.structure.spot import Spot
from unterbau.structure.structure import Structure
from unterbau.structure.vectors import Straight, Vector


@dataclass(frozen=True, slots=True)
class Laid(Straight):
    """A bar in its place, as beams."""

    key: str
    name: str
    chain: Chain
    start: Vector
    end: Vector
    up: Vector
    height: float
    """Along up, m."""
    width: float
    part: Member | None
    """Nothing of a rod."""

    @property
    def member(self) -> Member:
        """The member it is."""
        if self.part is None:
            raise ValueError(f"{self.name} is a rod, not a member")
        return self.part


@dataclass(frozen=True)
class ScrewedRail:
    """A rail on a member's wall."""

    bearing: Bearing
    up: Vector
    nodes: dict[int, int]
    """Node of the axis -> the rail's node there."""
    beams: tuple[int, ...]


class Model:
    """What a frame is made of, at one place of the head."""

    def __init__(self, structure: Structure, place: Place) -> None:
        self.structure, self.way = structure, structure.way(place)
        driven = {step.key for step in structure.flat if isinstance(step, DriveTrain)}
        # A drive's spring follows its nut, so it knows by itself what was measured.
        self.frame = FrameBuilder({key: scale for key, scale in structure.measured.items() if key not in driven})
        self.bars: dict[str, Laid] = {}
        self.sheets: dict[str, LaidPlate] = {}
        self.points: dict[str, int] = {}
        self.chains: dict[str, tuple[int, ...]] = {}
        self.drives: list[Driven] = []
        self.shafts: list[tuple[str, Chain]] = []
        """Guide and shaft, of shafts that are free between their ends."""
        self.profiles: dict[str, list[Chain]] = {}
        """Of a built-up member by name: its other profiles."""
        self.rails: list[tuple[str, str, Chain]] = []
        """Guide, host and chain of rails that are screwed on a member's wall."""
        self.screwed: dict[str, list[ScrewedRail]] = {}
        """Rails on walls that give, by their member."""
        self.held_ends: set[tuple[str, bool]] = set()
        """Ends of members whose section is held in shape by what they are fastened to: name, and whether the last."""
        self.late: list[Callable[[], None]] = []
        """Done when all is fastened, before plates are meshed."""
        self.plates: list[LaidPlate] = []
        """Plates in their places, meshed when all is fastened."""
        self.feet: list[int] = []
        self.work: WorkPoint | None = None
        self.ground: Ground | None = None

    def moved(self, place: Vector, carrier: Carrier) -> Vector:
        """Return where a place is now that is carried."""
        return carrier.moved(place, self.way)

    def host(self, name: str) -> Laid | LaidPlate:
        """Return a bar or a plate by name."""
        return self.bars.get(name) or self.sheets[name]

    def node(self, spot: Spot) -> int:
        """Return the node of a piece at a spot; a plate is held there."""
        if spot.piece in self.points:
            return self.points[spot.piece]
        place = self.moved(spot.place, self.structure.pieces[spot.piece].carrier)
        if spot.piece in self.sheets:
            return self.sheets[spot.piece].hold(place, spot.half)
        return self.near(self.bars[spot.piece], place)

    def near(self, bar: Laid, place: Vector) -> int:
        """Return the node of a bar that is nearest to a place."""
        return min(bar.chain.nodes, key=lambda n: dist(self.frame.places[n], place))

    def built(self, level: Level) -> Built:
        """Return the frame with its ends, joints and all that is uncertain at a level."""
        if self.work is None:
            raise ValueError("the work stands nowhere")
        structure, frame = self.structure, self.frame
        corners = tuple(self.node(corner) for corner in structure.corners)
        tip, nose = self.node(structure.tip), self.node(structure.nose)
        return Built(
            frame.build(level), tip, nose, self.work, dict(self.chains), corners,
            tuple(frame.slides), tuple(self.drives), self.ground, tuple(frame.loose),
        )  # fmt: skip
