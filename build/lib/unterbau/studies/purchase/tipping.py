"""Feet: does the machine tip when an axis stops, or when somebody pulls at its top?"""

from math import inf

from unterbau.brief.brief import Brief
from unterbau.machine.machine import Machine, lay_out, moving_masses, to_frame
from unterbau.mechanics.statics import total_mass
from unterbau.structure.parts import Place
from unterbau.studies.purchase.check import Check, judged
from unterbau.studies.purchase.wanted import GRAVITY, about
from unterbau.units import Units, force_text, mass_text, told

HAND = 200.0
"""Pull of a person at the top of a machine, N; common practice, no source."""
WATCH = 0.5


def tipping_checks(machine: Machine, brief: Brief, units: Units) -> list[Check]:
    """Return whether a machine on feet stands; nothing of those that hang or have none.

    Source:
        Moments about the line through the two feet on the side it would tip over.
    """
    structure = lay_out(machine)
    feet = [place for _, place in structure.feet]
    if len(feet) < 3:
        return []
    built = to_frame(machine, Place(0.5, 0.5, 1.0), "likely")
    mass, centre = total_mass(built.frame)
    floor = min(place[2] for place in feet)
    reach = min(
        min(max(p[axis] for p in feet) - centre[axis], centre[axis] - min(p[axis] for p in feet)) for axis in (0, 1)
    )
    top = float(built.frame.nodes[:, 2].max()) - floor
    holds = mass * GRAVITY * reach
    moved = max(moving_masses(machine).values(), default=0.0)
    stop = moved * brief.acceleration * top  # on the safe side: what stops is hardly higher than that
    words = f"{mass_text(mass, units)} with its centre {told(reach * 1e2, 'cm', units)} inside the nearest line of feet"
    rows = []
    for name, moment, asked in (
        (
            "standing, a stop",
            stop,
            f"{mass_text(moved, units)} stopped with {told(brief.acceleration, 'm/s²', units)} at its top",
        ),
        ("standing, a pull at its top", HAND * top, f"{force_text(HAND, units)} at {told(top, 'm', units)}"),
    ):
        share = moment / holds if holds > 0.0 else inf
        rows.append(Check(
            "", name, f"{asked}: {told(moment, 'N·m', units)}", f"{words}: {told(holds, 'N·m', units)} hold it",
            about(share), judged(share, WATCH), "" if share <= WATCH else
            "feet further apart, more weight below, or anchors: a licensed person decides about those",
            "moments about the line of feet; the pull common practice, no source",
        ))  # fmt: skip
    return rows
