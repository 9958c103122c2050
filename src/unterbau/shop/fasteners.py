"""Screws counted, with lengths that hold and do not bottom; washers, slot nuts and inserts with them."""

from collections import Counter
from dataclasses import dataclass

from unterbau.catalogue.screws import screw_lengths, screw_size
from unterbau.materials.material import material
from unterbau.shop.holes import Sort, into_bar
from unterbau.structure.piece import Bar, PlatePiece
from unterbau.structure.screws import Screw, screws_of
from unterbau.structure.structure import Structure
from unterbau.structure.weights import wall_of

ENGAGED = {"steel": 1.0, "iron": 1.5, "aluminium": 2.0}
"""Thread that holds, in diameters; common practice, no source."""
SOFT = 2.5
"""The same in what is softer."""
BLOCK_THREAD = 1.5
"""Depth of threads in guide blocks, in diameters; common practice, no source."""
IN_SLOT = 0.8
"""Of a slot nut's thread, in diameters."""
SPARE = 0.5
"""Of a bore beyond the thread that is needed, in diameters: a screw may reach so much further before it bottoms."""
SUNK = 1.1
"""How deep the head of a rail's screw lies in the rail, in diameters."""
ROUND = 1e-6


@dataclass(frozen=True, slots=True)
class Fastener:
    """Something that is bought by the hundred."""

    words: str
    count: int
    of: tuple[str, ...]
    """What they hold."""


@dataclass(frozen=True, slots=True)
class Length:
    """How long a screw has to be, m."""

    grip: float
    """What it goes through, with its washer."""
    engaged: float
    """Thread that has to hold it."""
    bottoms: float
    """At this length it meets the end of its thread."""
    washer: bool
    nut: Sort | None
    """What holds it where that is bought too: a slot nut or an insert."""

    def chosen(self) -> float | None:
        """Return the shortest length on sale that holds and does not bottom, or nothing where none does."""
        least = self.grip + self.engaged
        return next((one for one in screw_lengths() if least - ROUND <= one <= self.bottoms + ROUND), None)


def fasteners_of(structure: Structure) -> tuple[Fastener, ...]:
    """Return all screws that are set by the machine's own places, by size and length, then what goes with them."""
    counts: Counter[str] = Counter()
    of: dict[str, dict[str, None]] = {}

    def add(words: str, held: str) -> None:
        counts[words] += 1
        of.setdefault(words, {})[held.replace("_", " ")] = None

    for screw in screws_of(structure):
        need = length_of(structure, screw)
        length = need.chosen()
        long = f"× {length * 1e3:g}" if length is not None else f"cut to {(need.grip + need.engaged) * 1e3:.0f}"
        add(f"screw {screw.size} {long}", screw.of)
        if need.washer:
            add(f"washer {screw.size}", screw.of)
        if need.nut is not None:
            add(f"{need.nut} {screw.size}", screw.of)
    return tuple(Fastener(words, count, tuple(of[words])) for words, count in sorted(counts.items()))


def length_of(structure: Structure, screw: Screw) -> Length:
    """Return how long a screw has to be."""
    size = screw_size(screw.size)
    through, into = structure.pieces.get(screw.through), structure.pieces.get(screw.into)
    grip, washer = 0.0, False
    if isinstance(through, PlatePiece):
        grip, washer = through.height + size.washer, True
    elif isinstance(through, Bar):
        grip, washer = max(through.height, through.width) + size.washer, True
    elif screw.rail:
        grip = max(screw.rail - SUNK * size.d, 0.0)
    if isinstance(into, Bar):
        sort: Sort = into_bar(into, screw.size)
        if sort != "tapped":
            engaged = IN_SLOT * size.d
            return Length(grip, engaged, grip + engaged + SPARE * size.d + 4e-3, washer, sort)
        thread = _thread(into.part.material) * size.d
        hollow = into.part.section.startswith(("rhs", "shs", "chs"))
        if hollow:
            thread = min(thread, wall_of(into.part) + into.part.backing)
        return Length(grip, thread, grip + thread + (1.0 if hollow else SPARE * size.d), washer, None)
    if isinstance(into, PlatePiece):
        thread = min(_thread(into.material) * size.d, into.height)
        return Length(grip, thread, grip + max(into.height, thread), washer, None)
    thread = BLOCK_THREAD * size.d
    return Length(grip, 0.7 * thread, grip + thread + SPARE * size.d, washer, None)


def _thread(name: str) -> float:
    return ENGAGED.get(material(name).kind, SOFT)
