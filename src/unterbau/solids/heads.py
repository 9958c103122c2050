"""Heads of screws as bodies: which stand in the way of what, which are sunk so that they do not."""

from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from unterbau.catalogue.screws import screw_size
from unterbau.solids.convex import BoolArray, Floats
from unterbau.solids.overlaps import LEAST
from unterbau.solids.solids import Solid, extruded, solids
from unterbau.solids.swept import box_of, meeting
from unterbau.structure.bodies import round_ring
from unterbau.structure.carrier import STILL
from unterbau.structure.parts import Place
from unterbau.structure.piece import PlatePiece
from unterbau.structure.screws import Screw, screws_of, straight_screws
from unterbau.structure.structure import LAID_OUT, Structure
from unterbau.structure.vectors import Y, Z, plus

CORNERS = 8
LEFT = 0.002
"""Of a plate under a sunk head, at the least, m; common practice, no source."""
ROOM = 5e-4
"""A head lies so much below the face it is sunk in, m."""
ON_BEDS = "bed"
"""What screws hold over which the work lies: they are sunk in any case."""


@dataclass(frozen=True, slots=True)
class Heads:
    """What becomes of the heads of a structure's screws."""

    sunk: frozenset[Screw]
    """That are sunk: something stands or passes where they would be."""
    raised: tuple[tuple[Screw, Solid], ...]
    """That stand out and are in the way of something, in a plate too thin to sink them."""


def sink(screw: Screw) -> float:
    """Return how deep a head is sunk, m."""
    return screw_size(screw.size).d + ROOM


def head_of(screw: Screw) -> Solid:
    """Return a screw's head as a body that stands out."""
    size = screw_size(screw.size)
    end, up = plus(screw.head, screw.out, size.d), Y if abs(screw.out[1]) < 0.5 else Z
    body = extruded(round_ring(size.head, CORNERS), screw.head, end, up)
    return Solid(f"screw of {screw.of}", screw.seen_with[0], "head", body, STILL, False, ways=screw.ways)


@lru_cache(maxsize=64)
def heads_of(structure: Structure) -> Heads:
    """Return which heads are sunk, and which are in the way and cannot be; rails have theirs in them anyway."""
    screws = [one for one in screws_of(structure) if not one.rail]
    bodies = solids(structure, LAID_OUT)
    start, end = (np.array(structure.way(Place(*([share] * 3)))) for share in (0.0, 1.0))
    low, high = np.minimum(start, end), np.maximum(start, end)
    meets = _near(screws, bodies, low, high)
    sunk, raised = set(), []
    for screw, near in zip(screws, meets, strict=True):
        plate = structure.pieces.get(screw.through)
        deep = plate.height if isinstance(plate, PlatePiece) else 0.0
        can = deep >= sink(screw) + LEFT
        if screw.of == ON_BEDS:
            if can:
                sunk.add(screw)
            continue
        others = [bodies[number] for number in np.flatnonzero(near) if bodies[number].name not in screw.on]
        if not others:
            continue
        head = head_of(screw)
        for other in others:
            if meeting(head, other, low, high, LEAST) is None:
                continue
            if can:
                sunk.add(screw)
                break
            raised.append((screw, other))
    twins = zip(screws_of(structure), straight_screws(structure), strict=True)
    return Heads(frozenset(sunk.union(straight for turned, straight in twins if turned in sunk)), tuple(raised))


def _near(screws: list[Screw], bodies: tuple[Solid, ...], low: Floats, high: Floats) -> BoolArray:
    """Return which bodies the box about each head ever comes to, shape (n_screws, n_bodies)."""
    if not screws:
        return np.zeros((0, len(bodies)), dtype=bool)
    place, out = np.array([one.head for one in screws]), np.array([one.out for one in screws])
    sizes = [screw_size(one.size) for one in screws]
    tip = place + out * np.array([one.d for one in sizes])[:, None]
    wide = np.array([one.head / 2 for one in sizes])[:, None] * np.sqrt(np.maximum(1.0 - out**2, 0.0))
    boxes = [box_of(one.body) for one in bodies]
    least, most = (np.array([box[side] for box in boxes]) for side in (0, 1))
    ways = [np.array([np.array(one.ways).T for one in some]) for some in (screws, bodies)]
    shift = ways[0][:, None] - ways[1][None]
    ends = np.stack([shift * low, shift * high])
    near, far = ends.min(axis=0).sum(axis=3), ends.max(axis=0).sum(axis=3)
    above = (np.maximum(place, tip) + wide)[:, None] + far >= least
    below = most >= (np.minimum(place, tip) - wide)[:, None] + near
    return np.asarray((above & below).all(axis=2))


def raised_heads(structure: Structure) -> tuple[Solid, ...]:
    """Return the heads that are in the way of something and cannot be sunk; one for each place of screws."""
    found: dict[str, Solid] = {}
    for screw, _ in heads_of(structure).raised:
        found.setdefault(screw.of, replace(head_of(screw), name=f"screws of {screw.of}"))
    return tuple(found.values())
