"""Screws: do they whip at the speed wanted, do they buckle under the push?"""

from math import pi, sqrt

from unterbau.catalogue.drives import ENDLESS, DriveKind, drive
from unterbau.studies.purchase.check import Check, judged
from unterbau.studies.purchase.wanted import Wanted, about
from unterbau.units import Units, force_text, length_text, told

STEEL, DENSITY = 210e9, 7850.0
"""Of screws, Pa and kg/m³."""
WHIRL, BUCKLING = 3.9266, 2.0457
"""Fixed at one end, held at the other: root of tan x = tanh x for bending, and its like for Euler's load over π²."""
SAFE_WHIRL, SAFE_BUCKLING = 0.8, 0.5
"""Of the critical speed and load that are used; common practice, no source."""
WATCH = 0.8


def is_screw(kind: DriveKind) -> bool:
    """Return whether a drive is a screw: it has a nut, and stretches along its length."""
    return kind.nut is not None and kind.EA.likely < ENDLESS.likely and kind.tension is None


def root_of(kind: DriveKind) -> float:
    """Return the diameter of a screw's core, m, from its stiffness against stretching."""
    return sqrt(4 * kind.EA.likely / (pi * STEEL))


def free_length(kind: DriveKind, length: float) -> float:
    """Return how long a screw is between its bearings, m."""
    return max(length - sum(kind.ends), 0.05)


def whirl(root: float, length: float) -> float:
    """Return the turning speed at which a screw whips, turns a minute; one end fixed, the other held.

    Source:
        First bending frequency of a shaft, (x²/2π)·√(EI/ρA)/L² with x = 3.9266 (fixed and pinned), at which turning
        meets bending.
    """
    per_second = WHIRL**2 / (2 * pi) * sqrt(STEEL / DENSITY) * (root / 4) / length**2
    return per_second * 60


def buckling(root: float, length: float) -> float:
    """Return the push under which a screw buckles, N; one end fixed, the other held.

    Source:
        Euler: 2.0457·π²EI/L².
    """
    return BUCKLING * pi**2 * STEEL * pi * root**4 / 64 / length**2


def screw_checks(one: Wanted, units: Units) -> list[Check]:
    """Return whether a screw whips or buckles; nothing of other drives."""
    kind = drive(one.train.drive.kind)
    if not is_screw(kind):
        return []
    root, length = root_of(kind), free_length(kind, one.train.length)
    lead = 2 * pi * kind.per_turn
    return [_whirl(one, kind, root, length, lead, units), _buckling(one, kind, root, length, units)]


def _whirl(one: Wanted, kind: DriveKind, root: float, length: float, lead: float, units: Units) -> Check:
    asked = one.rapid / lead * 60
    limit = SAFE_WHIRL * whirl(root, length)
    share = asked / limit
    longest = length / sqrt(share) if share > 0.0 else length
    quickest = limit * lead / 60
    cure = (
        f"no longer than {length_text(longest, units)} at that speed, no faster than "
        f"{told(quickest * 60, 'm/min', units)} at this "
        "length; a thicker screw or one of more lead, a nut that turns on a standing screw, rack or belt"
    )
    return Check(
        one.train.key, f"{one.axis.upper()} screw, whipping",
        f"{asked:.0f} turns a minute for {told(one.rapid * 60, 'm/min', units)} at {length_text(lead, units)} of lead",
        f"whips at {whirl(root, length):.0f} a minute: core {length_text(root, units)}, {length_text(length, units)} "
        f"between bearings, one end fixed, the other held; {SAFE_WHIRL:g} of it is {limit:.0f}",
        about(share), judged(share, WATCH), "" if share <= WATCH else cure,
        f"first bending frequency of a shaft; {kind.label}: core and lead from memory; {SAFE_WHIRL:g} common practice",
    )  # fmt: skip


def _buckling(one: Wanted, kind: DriveKind, root: float, length: float, units: Units) -> Check:
    push = (one.mass * one.acceleration + one.weight + one.cutting + one.friction) / one.shared
    limit = SAFE_BUCKLING * buckling(root, length)
    share = push / limit
    return Check(
        one.train.key, f"{one.axis.upper()} screw, buckling",
        f"{force_text(push, units)} along it: mass × acceleration, weight, cutting and friction",
        f"buckles at {force_text(buckling(root, length), units)}; {SAFE_BUCKLING:g} of it is "
        f"{force_text(limit, units)}",
        about(share), judged(share, WATCH), "" if share <= WATCH else "a thicker or shorter screw",
        f"Euler, one end fixed, the other held; {SAFE_BUCKLING:g} common practice, no source; {kind.label}",
    )  # fmt: skip
