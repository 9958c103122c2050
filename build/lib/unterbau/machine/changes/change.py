"""Changes to a machine: a member or drag chain between two spots, a plate over several, a weight, a part left out."""

import re
from dataclasses import dataclass, field
from typing import Annotated, Literal

from unterbau.strict import STRICT, Tagged
from unterbau.structure.footing import Footing
from unterbau.structure.keys import ChangeKey
from unterbau.structure.parts import DragChain, Hung, Joint, Member, Part, Plate

JOINT = "_joint"
NAMED = re.compile(r"(brace|panel|weight|chain|left_out|measured)_[1-9][0-9]{0,3}")


@dataclass(frozen=True, slots=True)
class Brace:
    """A member between two spots."""

    __pydantic_config__ = STRICT

    id: str
    a: Footing
    b: Footing
    member: Member = field(default_factory=lambda: Member("flat-40x10", "steel-s235"))
    joint: Joint = field(default_factory=lambda: Joint("bolted-plate"))
    mirrored: bool = False
    """Once more on the other side, left and right exchanged."""
    sort: Literal["brace"] = "brace"


@dataclass(frozen=True, slots=True)
class Panel:
    """A rectangular plate over three or four spots, fastened there, and between two on one piece."""

    __pydantic_config__ = STRICT

    id: str
    corners: tuple[Footing, ...]
    plate: Plate = field(default_factory=lambda: Plate(0.006, "steel-s235"))
    joint: Joint = field(default_factory=lambda: Joint("bolt"))
    between: int = 2
    """Fasteners between the two corners on one piece that are furthest apart; between others as far from each other."""
    margin: float = 0.015
    """From its spots to its edges, m."""
    mirrored: bool = False
    sort: Literal["panel"] = "panel"


@dataclass(frozen=True, slots=True)
class Weight:
    """A body at a spot."""

    __pydantic_config__ = STRICT

    id: str
    at: Footing
    words: str = "weight"
    """What it is."""
    hung: Hung = field(default_factory=Hung)
    joint: Joint = field(default_factory=lambda: Joint("bolted-plate"))
    mirrored: bool = False
    sort: Literal["weight"] = "weight"


@dataclass(frozen=True, slots=True)
class Chain:
    """A drag chain from what moves to what stands."""

    __pydantic_config__ = STRICT

    id: str
    a: Footing
    """Its end that moves."""
    b: Footing
    """Its end that lies still, or moves less."""
    run: DragChain = field(default_factory=DragChain)
    joint: Joint = field(default_factory=lambda: Joint("bolted-plate"))
    mirrored: bool = False
    sort: Literal["chain"] = "chain"


@dataclass(frozen=True, slots=True)
class LeftOut:
    """A part that the builder does not want."""

    __pydantic_config__ = STRICT

    id: str
    what: str
    """A piece by name, or a link by key: all its pieces."""
    sort: Literal["left-out"] = "left-out"


@dataclass(frozen=True, slots=True)
class Measured:
    """What the built machine taught of a joint, guide, drive or foot: nothing is added, it is as stiff as it is."""

    __pydantic_config__ = STRICT

    id: str
    key: str
    """Link."""
    factor: float
    """Of its likely stiffness."""
    spread: float = 1.1
    """Low is that divided, high multiplied by it: nine of ten lie between."""
    sort: Literal["measured"] = "measured"


Added = Brace | Panel | Weight | Chain
Change = Brace | Panel | Weight | Chain | LeftOut | Measured
Partless = LeftOut | Measured
"""Changes that bring no part of their own."""
Changes = tuple[Annotated[Change, Tagged("sort")], ...]


def part_key(one: Added) -> ChangeKey:
    """Return the link of what was added."""
    return ChangeKey(one.id)


def joint_key(one: Added) -> ChangeKey:
    """Return the link of what joins it."""
    return ChangeKey(one.id + JOINT)


def name_of(one: Change) -> str:
    """Return what a change is called."""
    if isinstance(one, Weight):
        return f"{one.words} {one.id.rpartition('_')[2]}"
    if isinstance(one, Chain):
        return f"drag {one.id.replace('_', ' ')}"
    if isinstance(one, Measured):
        return f"{one.key.replace('_', ' ')} as built, {one.factor:.2g} times as stiff"
    return one.id.replace("_", " ")


def footings(one: Change) -> tuple[Footing, ...]:
    """Return the spots that a change stands on."""
    match one:
        case Brace() | Chain():
            return (one.a, one.b)
        case Panel():
            return one.corners
        case Weight():
            return (one.at,)
        case LeftOut() | Measured():
            return ()


def parts_of(one: Added) -> tuple[tuple[ChangeKey, Part], tuple[ChangeKey, Joint]]:
    """Return what was added and what joins it, by their links."""
    match one:
        case Brace():
            part: Part = one.member
        case Panel():
            part = one.plate
        case Weight():
            part = one.hung
        case Chain():
            part = one.run
    return (part_key(one), part), (joint_key(one), one.joint)
