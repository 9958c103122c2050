"""Bolted joints: do they slip or open at the worst load?"""

from dataclasses import dataclass

import numpy as np

from unterbau.brief.brief import Brief
from unterbau.catalogue.joints import BOLTS
from unterbau.machine.machine import Machine, link, parts
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.statics import spring_loads
from unterbau.model.bolted import SOURCE, limits
from unterbau.structure.parts import Joint, Place
from unterbau.studies.compliance import solve
from unterbau.studies.loads import TIP, WEIGHT
from unterbau.studies.purchase.check import Check, judged
from unterbau.studies.purchase.wanted import about, cutting_force
from unterbau.units import Units, force_text

SLIPS, OPENS = 1.5, 1.2
"""Safety against slipping and against opening; common practice, no source."""


@dataclass(frozen=True, slots=True)
class Borne:
    """What the most loaded joint of a link bears."""

    shear: float
    """N."""
    pull: float
    """Off its face, N."""
    count: int
    """Of joints at this link."""


def borne(machine: Machine, keys: tuple[str, ...], force: float, place: Place) -> dict[str, Borne]:
    """Return what joints bear under weight and a pull either way along each axis at the tool.

    Raises:
        InputError: The machine cannot be built or solved.
    """
    solved = solve(machine, place, "likely")
    frame = solved.statics.system.elements.frame
    found = {}
    of_case = spring_loads(solved.statics)
    for key in keys:
        if key not in frame.groups:
            continue
        rows = np.flatnonzero(frame.springs.group == frame.groups.index(key))
        rows = rows[np.isfinite(frame.springs.k[rows, 0])]
        if not len(rows):
            continue
        shear, pull = 0.0, 0.0
        for along in of_case[TIP][:, rows]:
            for way in (-force, force):
                both: FloatArray = of_case[WEIGHT][rows] + way * along
                shear = max(shear, float(np.hypot(both[:, 1], both[:, 2]).max()))
                pull = max(pull, float(np.abs(both[:, 0]).max()))
        found[key] = Borne(shear, pull, len(rows))
    return found


def bolt_checks(machine: Machine, brief: Brief, units: Units) -> list[Check]:
    """Return whether joints that are computed from their bolts slip or open under the brief's hardest cut."""
    joints = {key: part for key, part in parts(machine) if isinstance(part, Joint) and part.kind == BOLTS}
    force = cutting_force(brief).likely
    found = []
    for key, loaded in borne(machine, tuple(joints), force, Place()).items():
        group = joints[key].group
        preload, slip, _ = limits(group, 0.0)
        count = group.across * group.along
        if group.overhang:  # each bolt has a spring of its own
            slip, count = slip / count, 1
        sliding, opening = SLIPS * loaded.shear / slip, OPENS * loaded.pull / (count * preload)
        share = max(sliding, opening)
        found.append(Check(
            key, f"{link(machine, key).label}, slip and opening",
            f"{force_text(loaded.shear, units)} along the face and {force_text(loaded.pull, units)} off it, at the "
            f"most loaded of {loaded.count}, {force_text(force, units)} of cut",
            f"slips at {force_text(slip, units)}, {SLIPS:g} times safe: {sliding:.2g}; opens at "
            f"{force_text(count * preload, units)}, {OPENS:g} times safe: {opening:.2g}",
            about(share), judged(share, 0.7), "" if share <= 0.7 else
            "more or larger bolts, tightened as told; dowels or bonding against slip",
            f"{SOURCE}; safeties common practice, no source",
        ))  # fmt: skip
    return found
