"""What the brief asks of drives and guides: speeds, accelerations, forces along each axis."""

from dataclasses import dataclass, replace

import numpy as np

from unterbau.band import Band
from unterbau.brief.brief import Brief
from unterbau.brief.targets import process_force, targets
from unterbau.catalogue.cuts import cut
from unterbau.catalogue.ropes import Rope
from unterbau.machine.machine import Machine, lay_out, moving_masses, travel
from unterbau.structure.carrier import AXES
from unterbau.structure.lines import counterweight_of
from unterbau.structure.motion import Blocks, DriveTrain
from unterbau.structure.structure import Structure
from unterbau.structure.vectors import dot
from unterbau.studies.loads import GRAVITY as ALONG_Z

GRAVITY = abs(ALONG_Z[2])
RAPID, QUICK = 0.05, 0.2
"""Way of the axes between cuts, m/s: 3 m/min where one cuts and for axes that lift, 12 m/min for level axes of light
processes; common practice, no source."""
LIFTS = 0.7
"""Share of an axis's direction along the plumb line from which its drive carries what it moves."""
DRAG = {"mini": 3.0, "other": 6.0}
"""Of each block's seals and preload, N: 1 to 5 of miniature ones, 3 to 10 of others; from memory."""
ROUNDED = 1e-9
"""Share of the moved mass below which a rest of weight is rounding."""
ROLLING = 0.003
"""Friction of rolling guides, 0.002 to 0.004; from memory."""


@dataclass(frozen=True, slots=True)
class Wanted:
    """What one drive is asked for."""

    train: DriveTrain
    axis: str
    feed: float
    """While it cuts, m/s."""
    rapid: float
    """Between cuts, m/s."""
    acceleration: float
    """m/s²."""
    mass: float
    """That all drives of the axis move together, kg."""
    weight: float
    """That they hold along the plumb line, less what a counterweight holds, N; 0 of level axes."""
    cutting: float
    """Along the axis, the likely peak, N."""
    friction: float
    """N."""
    way: float = 0.0
    """Its travel, m."""
    balanced: float = 0.0
    """Mass of a counterweight, which is moved too, kg; 0 where there is none."""
    upright: bool = False
    """Whether it moves along the plumb line."""
    rope: Rope | None = None
    """That a counterweight hangs on."""

    @property
    def shared(self) -> int:
        """How many drives share the axis."""
        return max(1, self.train.drive.count)


def speeds(brief: Brief) -> tuple[float, float]:
    """Return the quickest feed of a brief's cuts and the way between them, m/s."""
    feed = max((cut(name).feed for name in brief.cuts), default=0.0) if brief.process == "cutting" else 0.0
    return feed, max(feed, RAPID if brief.process == "cutting" else QUICK)


def cutting_force(brief: Brief) -> Band:
    """Return the force at the tool that the brief's hardest cut or its process brings, N."""
    return targets(brief).force


def wanted(machine: Machine, brief: Brief) -> tuple[Wanted, ...]:
    """Return what each drive of a machine is asked for; drives that share an axis once each."""
    structure = lay_out(machine)
    masses = moving_masses(machine)
    feed, rapid = speeds(brief)
    force = process_force(brief).likely  # inertia is counted by the moved mass
    ways = dict(zip(AXES, travel(machine), strict=True))
    rows = []
    for train in (one for one in structure.flat if isinstance(one, DriveTrain)):
        axis = train.key.split("_")[0]
        mass = masses.get(axis.upper(), 0.0)
        upright = abs(dot(train.along, (0.0, 0.0, 1.0))) > LIFTS
        counter = counterweight_of(structure, train.key)
        held_up = counter.mass if counter is not None else 0.0
        held = abs(mass - 2.0 * held_up)  # of the moved mass the counterweight is one part, and it holds up another
        weight = held * GRAVITY if upright and held > ROUNDED * mass else 0.0
        friction = _drag(structure, axis) + (0.0 if upright else ROLLING * mass * GRAVITY)
        quick = max(feed, RAPID) if upright else rapid
        way = ways.get(axis.upper(), 0.0)
        asked = Wanted(train, axis, feed, quick, brief.acceleration, mass, weight, force, friction, way)
        rope = counter.rope if counter is not None else None
        rows.append(replace(asked, balanced=held_up, upright=upright, rope=rope))
    return tuple(rows)


def _drag(structure: Structure, axis: str) -> float:
    drag = 0.0
    for one in structure.flat:
        if isinstance(one, Blocks) and one.key == f"{axis}_guides":
            drag += len(one.seats) * DRAG["mini" if one.guide.block.startswith("mini") else "other"]
    return drag


def about(value: float) -> float:
    """Return a number rounded to three digits, as it is shown in a working."""
    return float(f"{value:.3g}") if np.isfinite(value) else value
