"""One part of a frame as a frame of its own."""

from collections.abc import Hashable
from dataclasses import dataclass, fields, replace
from hashlib import blake2b

import numpy as np

from unterbau.mechanics.arrays import BoolArray, IntArray
from unterbau.mechanics.frame import Frame, Masses, Plate, Springs, no_seats

NAMES = {"group", "cause"}
"""Columns that say whose a row is, not what it does."""


def part_of(frame: Frame, nodes: IntArray, springs: BoolArray) -> Frame:
    """Return some nodes of a frame and what joins them, in their order.

    Args:
        frame: The frame.
        nodes: Its nodes that hang together, ascending.
        springs: Which springs count; seats do not.
    """
    place = np.full(len(frame.nodes) + 1, -1)
    place[nodes] = np.arange(len(nodes))
    beams = frame.beams.take(place[frame.beams.i] >= 0)
    kept = np.flatnonzero(springs & (place[frame.springs.i] >= 0))
    held = Springs(*(getattr(frame.springs, name)[kept] for name in Springs.__slots__))
    carried = np.flatnonzero(place[frame.masses.node] >= 0)
    masses = Masses(*(getattr(frame.masses, name)[carried] for name in Masses.__slots__))
    plates = (replace(one, patches=place[one.patches], points=place[one.points]) for one in frame.plates
              if place[one.patches[0]] >= 0)  # fmt: skip
    return replace(
        frame,
        nodes=frame.nodes[nodes],
        beams=replace(beams, i=place[beams.i], j=place[beams.j]),
        springs=replace(held, i=place[held.i], j=place[held.j]),
        seats=no_seats(),
        masses=replace(masses, node=place[masses.node]),
        fixed=frame.fixed[nodes],
        node_names=tuple(frame.node_names[n] for n in nodes.tolist()) if frame.node_names else (),
        plates=tuple(plates),
    )


@dataclass(frozen=True, eq=False, slots=True)
class Alike:
    """A frame and nodes of it, equal to any other that moves alike: names do not count."""

    frame: Frame
    touched: IntArray
    content: Hashable

    @classmethod
    def of(cls, frame: Frame, touched: IntArray) -> "Alike":
        """Return it with its content, the arrays as a digest."""
        digest = blake2b(digest_size=20)
        arrays = [frame.nodes, frame.fixed, touched]
        for rows in (frame.beams, frame.springs, frame.masses):
            arrays += [getattr(rows, field.name) for field in fields(rows) if field.name not in NAMES]
        for plate in frame.plates:
            arrays += [plate.axes, plate.origin, plate.patches, plate.points]
        for array in arrays:
            digest.update(str(array.shape).encode() + np.ascontiguousarray(array).tobytes())
        return cls(frame, touched, (digest.digest(), *(_own(plate) for plate in frame.plates)))

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Alike) and self.content == other.content

    def __hash__(self) -> int:
        return hash(self.content)


def _own(plate: Plate) -> Hashable:
    return plate.spec, plate.stiff
