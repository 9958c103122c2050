"""A plate that stands on blocks with its edge: a foot plate lies between, the blocks screwed to it, it to the edge."""

from collections.abc import Sequence
from dataclasses import replace

from unterbau.catalogue.guides import Block
from unterbau.catalogue.joints import BOLTS, OWN, Face, joint
from unterbau.catalogue.screws import screw_size
from unterbau.machine.assemblies.pieces import Lay, join, lay_plate
from unterbau.machine.assemblies.rims import rim
from unterbau.model.bolted import EDGE
from unterbau.structure.keys import Key
from unterbau.structure.parts import Joint, Plate
from unterbau.structure.piece import PlatePiece
from unterbau.structure.spot import BOLT
from unterbau.structure.vectors import Vector, plus

OF = {"aluminium": "aluminium-5083", "steel": "steel-s235", "printed": "petg"}
"""Plates by what a joint says that its plate or bracket is made of."""
USUAL_EDGE = 0.009
"""The same where no size is told, m."""
GRIP = 0.03
"""How far up an edge its screws hold, m."""


def foot_thickness(size: Block, chosen: Joint) -> float:
    """Return how much a foot lifts what stands on blocks, m; none where these have no screws of their own."""
    return chosen.group.thickness if size.block_screws is not None else 0.0


def edge_foot(
    lay: Lay, key: Key, chosen: Joint, plate: PlatePiece, size: Block, ends: Sequence[float], up: Vector
) -> PlatePiece:
    """Lay a foot under a plate's first end, as wide as its blocks, and join it to the edge.

    Args:
        lay: The machine.
        key: The link.
        chosen: The joint: its screws at each block.
        plate: What stands there; it begins on the foot.
        size: Of the blocks.
        ends: Where the blocks are along the edge, from its middle, m.
        up: Off the blocks.
    """
    thick, along = chosen.group.thickness, plate.across
    middle = plus(plate.start, up, -thick / 2)
    made_of = plate.material if chosen.kind == "weld" else OF[chosen.group.bracket]
    corners = plus(middle, along, -plate.width / 2), plus(middle, along, plate.width / 2)
    wide = max(size.width + 2 * rim(size, made_of), plate.height)
    foot = lay_plate(lay, key, Plate(thick, made_of), f"foot of {plate.name}", *corners, wide, up)
    one, places, long = _rows(chosen, plate, size, sorted(ends))
    face = Face(long, plate.height)
    for place in places:
        root, low = plus(plate.start, along, place), plus(middle, along, place)
        under = BOLT if _points(chosen) else foot.half_of(along, long, plate.height)
        held = plate.hold(root, plate.half_of(along, long, GRIP)), foot.hold(low, under)
        join(lay, key, one, *held, face, up, along)
    return foot


def _points(chosen: Joint) -> bool:
    """Return whether a joint holds at its screws alone, not along all of the edge."""
    if chosen.kind == BOLTS:
        return not chosen.group.bonded
    return chosen.kind == OWN or bool(joint(chosen.kind).values)


def _rows(chosen: Joint, plate: PlatePiece, size: Block, ends: list[float]) -> tuple[Joint, tuple[float, ...], float]:
    """Return the joint of one place, where they are along the edge from its middle, and how long each is, m."""
    if chosen.kind == BOLTS:
        rows, one = chosen.group.along, replace(chosen, bolts=replace(chosen.group, along=1))
        edge = EDGE * screw_size(chosen.group.size).d
    elif chosen.kind == OWN or joint(chosen.kind).values:
        across = min(chosen.across or 1, chosen.count)
        rows, one = -(-chosen.count // across), replace(chosen, count=across, across=across)
        edge = chosen.edge or USUAL_EDGE
    else:
        return replace(chosen, count=1), (0.0,), plate.width
    bonded = not _points(chosen)
    first, last = ends[0] + size.length / 2 + edge, ends[-1] - size.length / 2 - edge
    if _free(size, plate.height) or last <= first:
        half = max(0.0, size.length / 2 - edge)
        places = tuple(end + off for end in ends for off in _even(rows, -half, half))
        return one, places, plate.width / len(places) if bonded else size.length / rows
    many = rows * len(ends)
    return one, _even(many, first, last), plate.width / many if bonded else (last - first) / many


def _free(size: Block, thickness: float) -> bool:
    """Return whether a block's screws go in beside what stands on it; else the edge's are between the blocks."""
    if size.block_screws is None:
        return False
    name, wide, _ = size.block_screws
    return thickness / 2 <= wide / 2 - screw_size(name).head / 2


def _even(count: int, low: float, high: float) -> tuple[float, ...]:
    if count == 1:
        return ((low + high) / 2,)
    return tuple(low + (high - low) * n / (count - 1) for n in range(count))
