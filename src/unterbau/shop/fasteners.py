"""Screws counted, with lengths that hold and do not bottom; washers, slot nuts and inserts with them."""

from collections import Counter
from dataclasses import dataclass

from unterbau.catalogue.screws import screw_lengths, screw_size
from unterbau.materials.material import material
from unterbau.shop.by_eye import by_eye
from unterbau.shop.holes import OF_END, into_bar
from unterbau.shop.substrate import BOUGHT, Sort, seat
from unterbau.solids.heads import heads_of, sink
from unterbau.structure.piece import Bar, PlatePiece
from unterbau.structure.screws import Screw, hollow, straight_screws
from unterbau.structure.structure import Structure
from unterbau.structure.vectors import dot
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
    """Return all screws by size and length, with what goes with them; those that are set by eye say so."""
    counts: Counter[str] = Counter()
    of: dict[str, dict[str, None]] = {}
    plugs: dict[str, str] = {}

    def add(words: str, held: str, count: int = 1) -> None:
        counts[words] += count
        of.setdefault(words, {})[held.replace("_", " ")] = None

    for screw in straight_screws(structure):
        need = length_of(structure, screw)
        length = need.chosen()
        long = f"× {length * 1e3:g}" if length is not None else f"cut to {(need.grip + need.engaged) * 1e3:.0f}"
        kind = "wood screw" if need.nut == "wood screw" else "screw"
        add(f"{kind} {screw.size} {long}", screw.of)
        if need.washer:
            add(f"washer {screw.size}", screw.of)
        if need.nut == "plug":
            plugs.setdefault(screw.of, screw.size)
        elif need.nut in BOUGHT:
            add(f"{need.nut} {screw.size}", screw.of)
    for held, size in plugs.items():
        add(f"plug for a tube's end, tapped {size}", held)
    for one in by_eye(structure):
        add(one.words, one.of, one.count)
    return tuple(Fastener(words, count, tuple(of[words])) for words, count in sorted(counts.items()))


def length_of(structure: Structure, screw: Screw) -> Length:
    """Return how long a screw has to be."""
    grip, washer = _grip(structure, screw)
    into = structure.pieces.get(screw.into)
    if isinstance(into, Bar):
        return _into_end(into, screw, grip, washer) if _endways(into, screw) else _into_face(into, screw, grip, washer)
    size = screw_size(screw.size)
    if isinstance(into, PlatePiece):
        thread = _thread(into.material) * size.d
        endways = abs(dot(screw.out, into.up)) < 0.5  # into its edge
        held = seat(into.material, edge=endways)
        nut = None if held == "tapped" else held
        if endways:
            return Length(grip, thread, grip + OF_END * size.d, washer, nut)
        thread = min(thread, into.height)
        return Length(grip, thread, grip + max(into.height, thread), washer, nut)
    thread = BLOCK_THREAD * size.d
    return Length(grip, 0.7 * thread, grip + thread + SPARE * size.d, washer, None)


def _grip(structure: Structure, screw: Screw) -> tuple[float, bool]:
    """Return what a screw goes through with its washer, m, and whether it has one."""
    size, through = screw_size(screw.size), structure.pieces.get(screw.through)
    if isinstance(through, PlatePiece) and screw in heads_of(structure).sunk:
        return through.height - sink(screw), False
    if isinstance(through, PlatePiece):
        return through.height + size.washer, True
    if isinstance(through, Bar):
        return _deep(through, screw) + size.washer, True
    return (max(screw.rail - SUNK * size.d, 0.0), False) if screw.rail else (0.0, False)


def _endways(bar: Bar, screw: Screw) -> bool:
    return abs(dot(screw.out, bar.along)) > 0.5


def _into_end(bar: Bar, screw: Screw, grip: float, washer: bool) -> Length:
    d = screw_size(screw.size).d
    return Length(grip, _thread(bar.part.material) * d, grip + OF_END * d, washer, _end_held(bar))


def _end_held(bar: Bar) -> Sort | None:
    held = "plug" if hollow(bar) else seat(bar.part.material, edge=True)
    return None if held == "tapped" else held


def _into_face(bar: Bar, screw: Screw, grip: float, washer: bool) -> Length:
    d, sort = screw_size(screw.size).d, into_bar(bar, screw.size)
    if sort != "tapped":
        engaged = IN_SLOT * d
        return Length(grip, engaged, grip + engaged + SPARE * d + 4e-3, washer, sort)
    thread = _thread(bar.part.material) * d
    tube = bar.part.section_name.startswith(("rhs", "shs", "chs"))
    if tube:
        thread = min(thread, wall_of(bar.part) + bar.part.backing)
    return Length(grip, thread, grip + thread + (1.0 if tube else SPARE * d), washer, None)


def _deep(bar: Bar, screw: Screw) -> float:
    """Return how thick a bar is the way a screw goes, m."""
    return bar.height if abs(dot(bar.up, screw.out)) > 0.5 else bar.width


def _thread(name: str) -> float:
    return ENGAGED.get(material(name).kind, SOFT)
