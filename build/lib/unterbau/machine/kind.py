"""What a kind of machine is: its links, its sizes, and how it is put up."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Any, Literal

from unterbau.structure.structure import Structure

FRAME_JOINTS = ("bracket", "gusset", "end-tapped", "anchor", "bolted-plate", "flange", "epoxied", "weld", "printed")
BED_JOINTS = ("bolt", "wood-screw", "epoxied")
CLAMPS = ("clamp", "flange", "printed")
HOLDERS = ("collet", "collet-large", "holder")
SINGLE = ("spindle_mount", "collet")
"""Joints that stand alone, whatever their kind."""
USUAL_COUNT = {"bracket": 4, "gusset": 2, "end-tapped": 4, "anchor": 4, "printed": 4}
"""How many of a kind of joint one puts at an end to start with; one of all others."""


@dataclass(frozen=True, slots=True)
class Link:
    """One link of the load path."""

    key: str
    """Field of the machine that it comes from; also the frame's group."""
    label: str
    kind: Literal["part", "joint", "guide", "drive"]
    place: str
    """Where it sits, in words."""


@dataclass(frozen=True, slots=True)
class Related:
    """A size of the machine whose change cures a link."""

    attribute: str
    factor: float
    words: str


@dataclass(frozen=True, slots=True)
class SizeField:
    """A size of the machine that one decides on."""

    attribute: str
    words: str
    low: float
    """m, or pieces."""
    high: float
    count: bool = False


@dataclass(frozen=True, slots=True)
class More:
    """Pieces one can add to a machine, and the links they help."""

    attribute: str
    words: str
    """One piece, in words."""
    keys: tuple[str, ...]


@dataclass(frozen=True, eq=False)
class Kind:
    """A kind of machine: data, and functions of a machine of this kind."""

    model: type
    id: str
    label: str
    good: str
    """What it is good at, in one line."""
    bad: str
    links: tuple[Link, ...]
    """From tool to work."""
    sizes: tuple[SizeField, ...]
    travel: Callable[[Any], tuple[float, float, float]]
    lay_out: Callable[[Any], Structure]
    """A machine as pieces; the last few are kept."""
    ends: Mapping[str, str] = field(default_factory=dict)
    """The joint that holds a part's ends."""
    fitting: Mapping[str, tuple[str, ...]] = field(default_factory=dict)
    """Kinds of joint that make sense at each place."""
    related: Mapping[str, tuple[Related, ...]] = field(default_factory=dict)
    """Sizes of the machine that each link answers to."""
    more: More | None = None
    most_drives: Mapping[str, int] = field(default_factory=dict)
    """Axes that can have more than one drive."""
    carrying: tuple[str, ...] = ()
    """Members that rails are screwed to."""
    faces: tuple[str, str] | None = None
    """A guide whose rails can lie on other faces of a member, and that member."""
    ribbed: tuple[str, ...] = ()
    """Plates with a face free for ribs."""
    gusseted: tuple[str, ...] = ()
    """Joints with a corner free for gussets."""

    @property
    def size_link(self) -> Link:
        """Not a link of the load path, but worked on like one."""
        return Link("dimensions", "sizes of the machine", "part", "travel, heights, stances")

    def words(self, attribute: str) -> str:
        """Return a size in words."""
        return next(one.words for one in self.sizes if one.attribute == attribute)

    def limits(self, attribute: str) -> tuple[float, float]:
        """Return the smallest and largest value of a size."""
        return next((one.low, one.high) for one in self.sizes if one.attribute == attribute)


STAND_LINK = Link("stand", "stand", "part", "under the feet; off the path, but it shakes")
