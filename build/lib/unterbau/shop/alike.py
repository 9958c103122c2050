"""Pieces that are equal when one is turned over or end for end: the left one and the right one of a pair."""

from collections.abc import Callable
from dataclasses import replace

from unterbau.shop.holes import Hole
from unterbau.structure.parts import Member
from unterbau.structure.weights import member_rings

Turn = Callable[[Hole], Hole]
ROUND = 6
"""Decimals of a metre that a section's corners are compared by."""
OVER = {"up": "down", "down": "up", "side": "other side", "other side": "side"}
ROUNDED = {"side": "other side", "other side": "side", "first end": "last end", "last end": "first end"}
ACROSS = {"low edge": "high edge", "high edge": "low edge"}
LENGTHWISE = {"first edge": "last edge", "last edge": "first edge"}
BACK = {"face": "back", "back": "face"}


def as_it_lies(hole: Hole) -> Hole:
    """Return the hole as it is."""
    return hole


def bar_turns(member: Member, length: float) -> tuple[Turn, ...]:
    """Return the ways in which a bar of a section can lie and be the same: as it lies, over, round, both."""
    ring = {(round(y, ROUND), round(z, ROUND)) for y, z in member_rings(member)[0]}
    if any((-y, z) not in ring or (y, -z) not in ring for y, z in ring):
        return (as_it_lies,)

    def over(hole: Hole) -> Hole:
        """About its own axis."""
        flipped = -hole.x if hole.face.endswith(" end") else hole.x
        return replace(hole, face=OVER.get(hole.face, hole.face), x=flipped, y=-hole.y)

    def rounded(hole: Hole) -> Hole:
        """End for end, what is up stays up."""
        if hole.face.endswith(" end"):
            return replace(hole, face=ROUNDED[hole.face], x=-hole.x)
        across = -hole.y if hole.face in ("up", "down") else hole.y
        return replace(hole, face=ROUNDED.get(hole.face, hole.face), x=length - hole.x, y=across)

    return as_it_lies, over, rounded, lambda hole: rounded(over(hole))


def plate_turns(length: float, width: float) -> tuple[Turn, ...]:
    """Return the ways in which a rectangular plate can lie: as it lies, over lengthwise, over across, both."""

    def lengthwise(hole: Hole) -> Hole:
        """About its length: the low edge becomes the high one, the face the back."""
        if hole.face in LENGTHWISE:
            return replace(hole, x=width - hole.x, y=-hole.y)
        if hole.face in ACROSS:
            return replace(hole, face=ACROSS[hole.face], y=-hole.y)
        return replace(hole, face=BACK.get(hole.face, hole.face), y=width - hole.y)

    def across(hole: Hole) -> Hole:
        if hole.face in ACROSS:
            return replace(hole, x=length - hole.x, y=-hole.y)
        if hole.face in LENGTHWISE:
            return replace(hole, face=LENGTHWISE[hole.face], y=-hole.y)
        return replace(hole, face=BACK.get(hole.face, hole.face), x=length - hole.x)

    return as_it_lies, lengthwise, across, lambda hole: across(lengthwise(hole))


def pattern_key(holes: tuple[Hole, ...], turns: tuple[Turn, ...]) -> tuple[object, ...]:
    """Return what makes the holes of two pieces alike, however they are turned."""
    return min(tuple(sorted((turn(hole).key() for hole in holes), key=repr)) for turn in turns)
