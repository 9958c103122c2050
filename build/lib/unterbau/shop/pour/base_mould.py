"""The mould of a machine's cast base, and the base that a mould casts: ribs are what stands between pockets."""

from dataclasses import replace
from itertools import pairwise
from statistics import mean

from unterbau.catalogue.screws import screw_size
from unterbau.shop.pour.mould import Insert, Mould, Pocket
from unterbau.structure.join import Foot, RibJoin
from unterbau.structure.parts import Stand
from unterbau.structure.piece import PlatePiece
from unterbau.structure.stand import BASE, BOLT
from unterbau.structure.structure import Structure
from unterbau.structure.vectors import dot, minus

DEEP = 5.0
"""An insert's depth, in diameters of its thread, and how thick it is; common practice, no source."""
THICK = 1.8
COVER = 0.01
"""Of a slab below an insert at the least, m."""


def mould_of(structure: Structure, like: Mould) -> Mould | None:
    """Return the mould of a machine's base, upside down in nothing but its pockets; none where it has no base.

    Args:
        structure: The machine.
        like: A mould whose boards and braces are kept.
    """
    slab = structure.pieces.get(BASE)
    if not isinstance(slab, PlatePiece):
        return None
    ribs = [step for step in structure.flat if isinstance(step, RibJoin) and step.plate == BASE]
    tall = ribs[0].rib.size[1] if ribs else 0.0
    x, y = (_bays([one for one in ribs if one.across == across], slab) for across in (True, False))
    pockets = tuple(
        Pocket(x_low, y_low, x_high - x_low, y_high - y_low, tall) for x_low, x_high in x for y_low, y_high in y
    )
    d = screw_size(BOLT).d
    deep = min(DEEP * d, slab.height - COVER)
    inserts = []
    for step in structure.flat:
        if isinstance(step, Foot) and step.base:
            px, py, pz = step.on.place
            away = minus((px + step.aside, py, pz), slab.corner)
            inserts.append(Insert(BOLT, dot(away, slab.along), dot(away, slab.across), deep, THICK * d))
    return replace(
        like, length=slab.length, width=slab.width, height=slab.height + tall, pockets=pockets, cores=(),
        inserts=tuple(inserts), draft=0.0,
    )  # fmt: skip


def _bays(ribs: list[RibJoin], slab: PlatePiece) -> list[tuple[float, float]]:
    """Return from where to where the slab is free between ribs that run one way, from its corner, m."""
    way = slab.along if ribs and ribs[0].across else slab.across
    edges = []
    for one in ribs:
        middle = dot(minus(one.foot, slab.corner), way)
        edges.append((middle - one.rib.height / 2, middle + one.rib.height / 2))
    edges.sort()
    return [(a[1], b[0]) for a, b in pairwise(edges)]


def stand_of(mould: Mould, made_of: str, like: Stand) -> Stand:
    """Return the base that a mould casts, as the frame counts it: an even grid of ribs as there are rows of pockets.

    Args:
        mould: With pockets of one depth from below, or none.
        made_of: Material.
        like: A stand whose feet are kept.
    """
    below = [one for one in mould.pockets if not one.above]
    if not below:
        return replace(like, kind="base", material=made_of, thickness=mould.height, ribs=0)
    deep = max(one.depth for one in below)
    rows = max(len({round(one.x, 4) for one in below}), len({round(one.y, 4) for one in below})) + 1
    webs = [
        (whole - sum(sizes.values())) / (len(sizes) + 1)
        for whole, sizes in (
            (mould.length, {round(one.x, 4): one.length for one in below}),
            (mould.width, {round(one.y, 4): one.width for one in below}),
        )
    ]
    return replace(
        like, kind="base", material=made_of, thickness=mould.height - deep, ribs=rows, rib_height=deep,
        rib_thickness=mean(webs),
    )  # fmt: skip
