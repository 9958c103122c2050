"""Collects nodes and elements, then hands over a frame as arrays."""

import bisect
import itertools
import math
from collections.abc import Mapping
from dataclasses import dataclass, field, fields, replace
from typing import Any

import numpy as np

from unterbau.band import AtLevels, Level
from unterbau.mechanics.frame import BY_STRAIN, JOINT, Beams, Frame, Masses, Plate, Seats, Springs
from unterbau.model.member import BeamValues
from unterbau.structure.vectors import ZERO, Vector, minus, plus

SAME_PLACE = 1e-5
VALUES = tuple(one.name for one in fields(BeamValues))
K = tuple[float, ...] | AtLevels[tuple[float, ...]]
"""Six stiffnesses, along three axes and about them; where they are uncertain, at each level."""


@dataclass(frozen=True, slots=True)
class Chain:
    """A straight member as laid: its nodes and the beams between them."""

    nodes: tuple[int, ...]
    beams: tuple[int, ...]


@dataclass(frozen=True, slots=True)
class Slide:
    """A contact that moves along a chain, as laid: springs of a block, wherever it stands."""

    inside: bool
    """Whether it is a seat of the frame, else a spring at a node."""
    row: int
    """Among the frame's seats or springs."""
    chain: Chain


SPRINGS = 4
"""Where a row of springs has its stiffnesses; its last entry is what it stands for."""


@dataclass
class FrameBuilder:
    """A frame being put together."""

    measured: Mapping[str, AtLevels[float]] = field(default_factory=dict)
    """Of groups whose joints were measured: how stiff they are against their likely value."""
    places: list[Vector] = field(default_factory=list)
    names: list[str] = field(default_factory=list)
    groups: dict[str, int] = field(default_factory=dict)
    beams: list[tuple[Any, ...]] = field(default_factory=list)
    springs: list[tuple[Any, ...]] = field(default_factory=list)
    seats: list[tuple[Any, ...]] = field(default_factory=list)
    masses: list[tuple[object, ...]] = field(default_factory=list)
    slides: list[Slide] = field(default_factory=list)
    plates: list[Plate] = field(default_factory=list)
    loose: list[tuple[int, float]] = field(default_factory=list)
    """Rows of springs that turn freely at first, and how far about both axes across them, rad."""

    def node(self, name: str, place: Vector) -> int:
        """Add a node and return its number."""
        self.places.append(place)
        self.names.append(name)
        return len(self.places) - 1

    def group(self, name: str) -> int:
        """Return the number of a group, new or known."""
        return self.groups.setdefault(name, len(self.groups))

    def beam(
        self, group: str, i: int, j: int, values: BeamValues | AtLevels[BeamValues], up: Vector,
        offset_i: Vector = ZERO, offset_j: Vector = ZERO, cause: int = BY_STRAIN,
    ) -> int:  # fmt: skip
        """Add a beam and return its number."""
        self.beams.append((i, j, offset_i, offset_j, up, values, self.group(group), cause))
        return len(self.beams) - 1

    def chain(self, group: str, nodes: list[int], values: BeamValues | AtLevels[BeamValues], up: Vector) -> Chain:
        """Add beams from node to node along a straight member."""
        beams = [self.beam(group, i, j, values, up) for i, j in itertools.pairwise(nodes)]
        return Chain(tuple(nodes), tuple(beams))

    def axis(self, chain: Chain) -> list[Vector]:
        """Return where the beams of a chain begin, and the last ends; its nodes may stand beside."""
        rows = [self.beams[beam] for beam in chain.beams]
        return [*(plus(self.places[row[0]], row[2]) for row in rows), plus(self.places[rows[-1][1]], rows[-1][3])]

    def spring(self, group: str, i: int, j: int, k: K, x: Vector, up: Vector, zeta: float, cause: int = JOINT) -> None:
        """Add springs acting at node i; j = -1 is ground."""
        self.springs.append((i, j, x, up, k, zeta, self.group(group), cause))

    def seat(self, group: str, node: int, rail: Chain, k: K, x: Vector, up: Vector, zeta: float) -> None:
        """Add springs from a node to the nearest point of a member's axis, inside or at a node."""
        axis = self.axis(rail)
        start, line = axis[0], minus(axis[-1], axis[0])
        along = math.hypot(*line)

        def stop(place: Vector) -> float:
            away = minus(place, start)
            return (away[0] * line[0] + away[1] * line[1] + away[2] * line[2]) / along

        at, stops = stop(self.places[node]), [stop(one) for one in axis]
        nearest = min(range(len(stops)), key=lambda n: abs(at - stops[n]))
        place = bisect.bisect_left(stops, at) - 1
        if abs(at - stops[nearest]) < SAME_PLACE or not 0 <= place < len(rail.beams):
            self.slides.append(Slide(False, len(self.springs), rail))
            self.spring(group, node, rail.nodes[nearest], k, x, up, zeta)
            return
        station = (at - stops[place]) / (stops[place + 1] - stops[place])
        self.slides.append(Slide(True, len(self.seats), rail))
        self.seats.append((node, rail.beams[place], station, x, up, k, zeta, self.group(group)))

    def plate(self, group: str, plate: Plate) -> None:
        """Add a plate that belongs to a group."""
        self.plates.append(replace(plate, group=self.group(group)))

    def mass(self, node: int, m: float, offset: Vector = ZERO, inertia: Vector = ZERO, hung: float = 0.0) -> None:
        """Add a rigid body at a node; `hung` is a rope's force on it over gravity, kg."""
        self.masses.append((node, m, inertia, offset, hung))

    def spread(self, nodes: tuple[int, ...], m: float) -> None:
        """Spread a mass along a member's nodes, to each by the length that goes with it."""
        stretches = [math.dist(self.places[a], self.places[b]) for a, b in itertools.pairwise(nodes)]
        whole = sum(stretches)
        for before, node, after in zip([0.0, *stretches], nodes, [*stretches, 0.0], strict=True):
            self.mass(node, m * (before + after) / 2 / whole)

    def build(self, level: Level = "likely") -> Frame:
        """Return the frame with what is uncertain at a level; it has no supports, springs to ground hold it."""
        return Frame(
            np.array(self.places),
            self._beams(level),
            Springs(*_columns(self._leveled(self.springs, 4, 6, level), 8, (0, 1, 6, 7), (2, 3), six=4)),
            Seats(*_columns(self._leveled(self.seats, 5, 7, level), 8, (0, 1, 7), (3, 4), six=5)),
            Masses(*_columns(self.masses, 5, (0,), (2, 3))),
            np.zeros((len(self.places), 6), dtype=bool),
            tuple(self.groups),
            tuple(self.names),
            tuple(self.plates),
        )

    def _leveled(self, rows: list[tuple[Any, ...]], place: int, group: int, level: Level) -> list[tuple[object, ...]]:
        """Return rows with their stiffnesses, at a place of each, at a level; as measured where a joint was."""
        scales = {self.groups[name]: scale.at(level) for name, scale in self.measured.items() if name in self.groups}
        found = []
        for row in rows:
            k = _at(row[place], level)
            if row[group] in scales and (place != SPRINGS or row[-1] == JOINT):
                k = tuple(scales[row[group]] * one for one in _at(row[place], "likely"))
            found.append((*row[:place], k, *row[place + 1 :]))
        return found

    def _beams(self, level: Level) -> Beams:
        table: dict[BeamValues, int] = {}
        values = [table.setdefault(_at(row[5], level), len(table)) for row in self.beams]
        columns = np.array([[getattr(one, name) for one in table] for name in VALUES])[:, values]
        rows = _columns(self.beams, 8, (0, 1, 6, 7), (2, 3, 4), skipped=5)
        rows[5:6] = columns
        return Beams(*rows)


def _at(value: Any, level: Level) -> Any:
    return value.at(level) if isinstance(value, AtLevels) else value


def _columns(
    rows: list[tuple[object, ...]],
    count: int,
    whole: tuple[int, ...],
    vectors: tuple[int, ...],
    six: int = -1,
    skipped: int = -1,
) -> list[Any]:
    result: list[Any] = []
    for column in range(count):
        if column == skipped:
            result.append(None)
            continue
        values = [row[column] for row in rows]
        array = np.array(values, dtype=np.intp if column in whole else float)
        width = 3 if column in vectors else 6 if column == six else 0
        result.append(array.reshape(len(rows), width) if width else array)
    return result


def merged(stops: list[float], closest: float = 1e-3) -> list[float]:
    """Return sorted stops without those closer than `closest` to their predecessor."""
    result: list[float] = []
    for stop in sorted(stops):
        if not result or stop - result[-1] > closest:
            result.append(stop)
    return result


def subdivided(stops: list[float], pieces: int) -> list[float]:
    """Return stops with the longest gaps halved until there are at least `pieces` gaps."""
    result = sorted(stops)
    while len(result) - 1 < pieces:
        gaps = [b - a for a, b in itertools.pairwise(result)]
        # Of equal gaps the first, whatever rounding makes of them: the mesh must not change with the place.
        place = next(n for n, gap in enumerate(gaps) if gap > max(gaps) - SAME_PLACE)
        result.insert(place + 1, (result[place] + result[place + 1]) / 2)
    return result
