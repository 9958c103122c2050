"""Guides: the load on each block at the worst place, against its rating and for how many kilometres."""

from dataclasses import dataclass
from itertools import product
from math import nan

import numpy as np

from unterbau.brief.brief import Brief
from unterbau.catalogue.guides import Block, block
from unterbau.machine.machine import Machine, links, part, travel
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.statics import spring_loads
from unterbau.structure.parts import Guide, Place
from unterbau.studies.compliance import solve
from unterbau.studies.loads import TIP, WEIGHT
from unterbau.studies.purchase.check import Check, judged
from unterbau.studies.purchase.wanted import about, cutting_force, speeds
from unterbau.units import Units, force_text

PRELOAD = {"light": 0.02, "medium": 0.065}
"""Of the dynamic rating; from memory."""
BALLS = 0.6
"""Length of the row of balls as a share of the block's."""
RATED = 50.0
"""Kilometres that the dynamic rating is for; ratings of this list are taken as such, from memory."""
STATIC = 2.0
"""Static safety at the least; common practice, no source."""
HOURS, YEARS = 500.0, 10.0
"""That a machine runs a year, and for how many; common practice, no source."""


@dataclass(frozen=True, slots=True)
class Loaded:
    """The most loaded block of a guide."""

    load: float
    """Equivalent, N: off the rail and sideways together, and tilting as its share on the outer balls."""
    place: Place


def equivalent(forces: FloatArray, size: Block) -> FloatArray:
    """Return the equivalent load of blocks, N, for their forces (n, 6): along, sideways, off; roll, pitch, yaw.

    Source:
        Four rows of balls at 45° carry as much sideways as off the rail: the two add up. A tilting moment is taken as a
        load that grows evenly over the row of balls, with 6M/L² at its end; roll by the rows' distance. On the safe
        side.
    """
    row = BALLS * size.length
    tilting = 6 * (np.abs(forces[:, 4]) + np.abs(forces[:, 5])) / row + 2 * np.abs(forces[:, 3]) / size.rail_width
    return np.asarray(np.abs(forces[:, 1]) + np.abs(forces[:, 2]) + tilting)


def loads(machine: Machine, force: float) -> dict[str, Loaded]:
    """Return the most loaded block of each guide, over corners of the travel and pulls either way along each axis.

    Raises:
        InputError: The machine cannot be built or solved.
    """
    found: dict[str, Loaded] = {}
    keys = [one.key for one in links(machine) if isinstance(part(machine, one.key), Guide)]
    ends = [(0.0, 1.0) if way else (0.5,) for way in travel(machine)]
    for x, y, z in product(*ends):
        place = Place(x, y, z)
        solved = solve(machine, place, "likely")
        springs = solved.statics.system.elements.frame.springs
        of_case = spring_loads(solved.statics)
        names = solved.statics.system.elements.frame.groups
        for key in keys:
            rows = np.flatnonzero(springs.group == names.index(key)) if key in names else np.zeros(0, dtype=int)
            size = block(part(machine, key).block)  # type: ignore[union-attr]
            weight = of_case[WEIGHT][rows]
            for pull in of_case[TIP][:, rows]:
                for way in (-force, force):
                    most = float(equivalent(weight + way * pull, size).max(initial=0.0))
                    if key not in found or most > found[key].load:
                        found[key] = Loaded(most, place)
    return found


def guide_checks(machine: Machine, brief: Brief, units: Units) -> list[Check]:
    """Return whether blocks last and are not dented."""
    feed, rapid = speeds(brief)
    force = cutting_force(brief).likely
    rows: list[Check] = []
    far = (feed or rapid / 2) * 3.6 * HOURS * YEARS
    for key, loaded in loads(machine, force).items():
        guide = part(machine, key)
        assert isinstance(guide, Guide)
        size = block(guide.block)
        label = next(one.label for one in links(machine) if one.key == key)
        where = f"head at {loaded.place.x:.0%}, {loaded.place.y:.0%}, {loaded.place.z:.0%} of its travel"
        asked = f"{force_text(loaded.load, units)} on the most loaded block, {where}, {force_text(force, units)} of cut"
        if size.rating is None:
            rows.append(Check(key, f"{label}, life", asked, "wheels and bushings carry no rating", nan, "unknown",
                              "ask the maker what one carries", size.source))  # fmt: skip
            continue
        dynamic, static = size.rating
        bears = loaded.load + PRELOAD[guide.preload] * dynamic
        life = RATED * (dynamic / max(bears, 1.0)) ** 3
        shares = (far / life, STATIC * bears / static)
        share = max(shares)
        rows.append(Check(
            key, f"{label}, life", asked,
            f"L = ({force_text(dynamic, units)} ÷ {force_text(bears, units)} with preload)³ × {RATED:g} km = "
            f"{life:.3g} km; {far:.3g} km in {YEARS:g} years of {HOURS:g} h; static safety {static / bears:.2g}, "
            f"{STATIC:g} wanted",
            about(share), judged(share, 0.5), "" if share <= 0.5 else
            "larger blocks, blocks further apart, a lighter or shorter overhang of the head",
            f"ISO 14728-1 for life, rating for 50 km; {size.source}; hours, years and static safety common practice",
        ))  # fmt: skip
    return rows
