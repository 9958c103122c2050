"""What has to be lifted: pieces, what each axis moves as one, the whole; where it hangs in balance, who lifts it."""

from dataclasses import dataclass, replace

from unterbau.solids.solids import Solid, solids_of
from unterbau.structure.join import Counterweight
from unterbau.structure.lines import carried, step_mass
from unterbau.structure.structure import Structure
from unterbau.structure.vectors import Vector

HEAVIEST = 6
WHOLE = "the whole machine, without its stand"
GRAVITY = 9.80665
LAID_FLAT = 0.5
"""Of its weight that one bears who tips a body over its far edge; common practice, no source."""


@dataclass(frozen=True, slots=True)
class Balance:
    """How a load that stands by itself may tip."""

    edge: float
    """From its centre of gravity to the nearest edge that it would tip over, m."""
    up: float
    """From what it stands on to its centre, m."""
    push: float
    """At its top, that tips it over that edge, N; it is on the safe side only where it stands on its whole outline."""


@dataclass(frozen=True, slots=True)
class Load:
    """A thing that is lifted."""

    words: str
    mass: float
    """kg."""
    centre: Vector
    """Of gravity, with the head in the middle and lowest, m."""
    size: Vector
    """Of the box around it, m."""
    low: Vector = (0.0, 0.0, 0.0)
    """Its corner: front, left, below, m."""

    @property
    def balance(self) -> "Balance":
        """How it stands on the outline of the box around it."""
        edges = [(self.centre[k] - self.low[k], self.low[k] + self.size[k] - self.centre[k]) for k in (0, 1)]
        edge = max(0.0, min(min(pair) for pair in edges))
        height = max(self.size[2], 1e-3)
        return Balance(edge, self.centre[2] - self.low[2], self.mass * GRAVITY * edge / height)


def who_lifts(mass: float, lift: float) -> str:
    """Return who lifts a mass, where one person lifts so much, kg."""
    if mass <= lift:
        return "one person"
    if mass <= 2 * lift:
        return "two people"
    if mass * LAID_FLAT <= 2 * lift:
        return "hoist, or two tip it over its edge"
    return "hoist, or in parts"


def loads_of(structure: Structure) -> tuple[Load, ...]:
    """Return the heaviest pieces, then what moves as one with each set of axes, then the whole."""
    weighed = [(step, step_mass(structure, step), solids_of(step, structure)) for step in structure.flat]
    single = [
        _load(bodies[0].name, [(mass, bodies)])
        for _, mass, bodies in weighed if mass > 0.0 and len(bodies) == 1 and bodies[0].made
    ]  # fmt: skip
    heaviest = _alike(sorted(single, key=lambda one: -one.mass))[:HEAVIEST]
    groups: dict[str, list[tuple[float, tuple[Solid, ...]]]] = {}
    for step, mass, bodies in weighed:
        if (mass <= 0.0 and not bodies) or isinstance(step, Counterweight):  # it is hung by itself, last
            continue
        for axes in sorted({on.axes for _, on in carried(structure, step)} | {one.carrier.axes for one in bodies}):
            share = sum(line.mass for line, on in carried(structure, step) if on.axes == axes)
            groups.setdefault(axes, []).append((share, tuple(one for one in bodies if one.carrier.axes == axes)))
    together = [_load(moving(axes), rows) for axes, rows in sorted(groups.items(), key=lambda pair: -len(pair[0]))]
    apart = [
        _load("counterweight", [(mass, bodies)]) for step, mass, bodies in weighed if isinstance(step, Counterweight)
    ]
    whole = _load(WHOLE, [(mass, bodies) for _, mass, bodies in weighed if mass > 0.0 or bodies])
    return (*heaviest, *together, *apart, whole)


def moving(axes: str) -> str:
    """Return what moves with axes, in words."""
    if not axes:
        return "what stands still"
    first, last = ", ".join(axes[:-1]), axes[-1]
    return f"what moves along {first}{' and ' if first else ''}{last}"


def _alike(loads: list[Load]) -> list[Load]:
    """Return loads of one name but for its number, and of one mass, once, with how many there are."""
    found: dict[tuple[str, int], list[Load]] = {}
    for one in loads:
        found.setdefault((one.words.rstrip(" 0123456789"), round(one.mass * 1e3)), []).append(one)
    return [
        rows[0] if len(rows) == 1 else replace(rows[0], words=f"{name}, each of {len(rows)}")
        for (name, _), rows in found.items()
    ]


def _load(words: str, rows: list[tuple[float, tuple[Solid, ...]]]) -> Load:
    """Return masses as one load; what has no body of its own counts where the others' middle is."""
    total, placed, at = 0.0, 0.0, [0.0, 0.0, 0.0]
    low, high = [1e9] * 3, [-1e9] * 3
    for mass, bodies in rows:
        total += mass
        volume = sum(one.body.volume for one in bodies)
        for one in bodies:
            middle = one.body.corners.mean(axis=0)
            share = mass * one.body.volume / volume if volume else 0.0
            placed += share
            for k in range(3):
                at[k] += share * float(middle[k])
                low[k] = min(low[k], float(one.body.corners[:, k].min()))
                high[k] = max(high[k], float(one.body.corners[:, k].max()))
    x, y, z = (value / placed if placed else 0.0 for value in at)
    a, b, c = (max(0.0, high[k] - low[k]) for k in range(3))
    return Load(words, total, (x, y, z), (a, b, c), (low[0], low[1], low[2]))
