"""Which pieces reach into each other, and which of that is meant: bores, laps, inlets."""

import itertools
from dataclasses import dataclass
from typing import Literal

from unterbau.solids.convex import depth
from unterbau.solids.solids import Solid, solids
from unterbau.structure.parts import Place
from unterbau.structure.structure import Structure

Meant = Literal["bore", "lap", "inlet", "recess", "cut", "seat", "cast"]
LEAST = 1e-4
"""Less than this counts as touching, m."""
MEANT: tuple[tuple[frozenset[str], frozenset[str], Meant], ...] = (
    (frozenset({"x_drive", "x_motor"}), frozenset({"side"}), "bore"),
    (frozenset({"shaft"}), frozenset({"headstock", "tailstock"}), "bore"),
    (frozenset({"brace"}), frozenset({"brace"}), "lap"),
    (frozenset({"x_guides"}), frozenset({"tailstock", "headstock"}), "inlet"),
    (frozenset({"z_drive"}), frozenset({"x_plate", "z_plate", "head_plate"}), "recess"),
    (frozenset({"spindle"}), frozenset({"shaft", "headstock", "chuck", "work"}), "bore"),
    (frozenset({"cutter"}), frozenset({"work"}), "cut"),
    (frozenset({"stand"}), frozenset({"stand"}), "cast"),
)
"""Links whose pieces may reach into each other: a screw's end goes through the side that holds it, a shaft sits in its
bearings and carries its chuck, braces that cross are lapped, a stock is let in over the rails, a thick screw between
plates in a groove, a cutter cuts, a base is poured in one with its ribs. A screw runs through its nut, bearings and
coupling."""


@dataclass(frozen=True, slots=True)
class Overlap:
    """Two pieces that reach into each other."""

    first: str
    second: str
    depth: float
    """m."""
    meant: Meant | None
    """What is made of it in the shop; nothing where it is a fault."""


def overlaps(structure: Structure, place: Place) -> tuple[Overlap, ...]:
    """Return all pairs of pieces that reach into each other with the head at a place."""
    found = []
    for a, b in itertools.combinations(solids(structure, place), 2):
        deep = depth(a.body, b.body)
        if deep > LEAST:
            found.append(Overlap(a.name, b.name, deep, meant(a, b)))
    return tuple(found)


def meant(a: Solid, b: Solid) -> Meant | None:
    """Return what is made of two pieces that reach into each other, or nothing where they must not."""
    if a.drive and a.drive == b.drive:
        return "seat"
    for first, second, word in MEANT:
        for one, other in ((a, b), (b, a)):
            if one.key in first and other.key in second and (word != "inlet" or one.sort == "rail"):
                return word
    return None
