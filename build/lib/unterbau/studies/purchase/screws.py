"""Screws: do they whip at the speed wanted, do they buckle under the push?"""

from math import pi, sqrt

from unterbau.catalogue.drives import DriveKind, drive
from unterbau.structure.parts import ScrewEnds
from unterbau.studies.purchase.check import Check, judged
from unterbau.studies.purchase.wanted import Wanted, about
from unterbau.units import Units, force_text, length_text, told

STEEL, DENSITY = 210e9, 7850.0
"""Of screws, Pa and kg/m³."""
WHIRL: dict[ScrewEnds, float] = {"floating": 3.9266, "free": 1.8751, "held": pi, "fixed": 4.7300}
"""By how the ends are held: roots of the frequency equations of a bar fixed and pinned (tan x = tanh x), fixed and
free, pinned, fixed at both ends."""
BUCKLING: dict[ScrewEnds, float] = {"floating": 2.0457, "free": 0.25, "held": 1.0, "fixed": 4.0}
"""Euler's load over π²EI/L² of the same."""
ENDS: dict[ScrewEnds, str] = {
    "floating": "one end fixed, the other held", "free": "one end fixed, the other free",
    "held": "both ends held", "fixed": "both ends fixed",
}  # fmt: skip
"""In words."""
SAFE_WHIRL, SAFE_BUCKLING = 0.8, 0.5
"""Of the critical speed and load that are used; common practice, no source."""
WATCH = 0.8


def root_of(kind: DriveKind) -> float:
    """Return the diameter of a screw's core, m, from its stiffness against stretching."""
    return sqrt(4 * kind.EA.likely / (pi * STEEL))


def free_length(kind: DriveKind, length: float) -> float:
    """Return how long a screw is between its bearings, m."""
    return max(length - sum(kind.ends), 0.05)


def whirl(root: float, length: float, ends: ScrewEnds = "floating") -> float:
    """Return the turning speed at which a screw whips, turns a minute.

    Source:
        First bending frequency of a shaft, (x²/2π)·√(EI/ρA)/L² with x of its ends, at which turning meets bending.
    """
    per_second = WHIRL[ends] ** 2 / (2 * pi) * sqrt(STEEL / DENSITY) * (root / 4) / length**2
    return per_second * 60


def buckling(root: float, length: float, ends: ScrewEnds = "floating") -> float:
    """Return the push under which a screw buckles, N.

    Source:
        Euler: π²EI/L² times 2.0457, 0.25, 1 or 4 by its ends.
    """
    return BUCKLING[ends] * pi**2 * STEEL * pi * root**4 / 64 / length**2


def screw_checks(one: Wanted, units: Units) -> list[Check]:
    """Return whether a screw whips or buckles; nothing of other drives."""
    kind = drive(one.train.drive.kind)
    if not kind.is_screw:
        return []
    root, length = root_of(kind), free_length(kind, one.train.length)
    lead = 2 * pi * kind.per_turn
    return [_whirl(one, kind, root, length, lead, units), _buckling(one, kind, root, length, units)]


def _whirl(one: Wanted, kind: DriveKind, root: float, length: float, lead: float, units: Units) -> Check:
    asked, ends = one.rapid / lead * 60, one.train.drive.ends
    limit = SAFE_WHIRL * whirl(root, length, ends)
    share = asked / limit
    longest = length / sqrt(share) if share > 0.0 else length
    quickest = limit * lead / 60
    cure = (
        f"no longer than {length_text(longest, units)} at that speed, no faster than "
        f"{told(quickest * 60, 'm/min', units)} at this "
        f"length; {_better(ends)}a thicker screw or one of more lead, a nut that turns on a standing screw, rack "
        "or belt"
    )
    return Check(
        one.train.key, f"{one.axis.upper()} screw, whipping",
        f"{asked:.0f} turns a minute for {told(one.rapid * 60, 'm/min', units)} at {length_text(lead, units)} of lead",
        f"whips at {whirl(root, length, ends):.0f} a minute: core {length_text(root, units)}, "
        f"{length_text(length, units)} between bearings, {ENDS[ends]}; {SAFE_WHIRL:g} of it is {limit:.0f}",
        about(share), judged(share, WATCH), "" if share <= WATCH else cure,
        f"first bending frequency of a shaft; {kind.label}: core and lead from memory; {SAFE_WHIRL:g} common practice",
    )  # fmt: skip


def _better(ends: ScrewEnds) -> str:
    return {"fixed": "", "floating": "both ends fixed, "}.get(ends, "one end fixed and the other held, or both fixed, ")


def _buckling(one: Wanted, kind: DriveKind, root: float, length: float, units: Units) -> Check:
    push = (one.mass * one.acceleration + one.weight + one.cutting + one.friction) / one.shared
    ends = one.train.drive.ends
    limit = SAFE_BUCKLING * buckling(root, length, ends)
    share = push / limit
    return Check(
        one.train.key, f"{one.axis.upper()} screw, buckling",
        f"{force_text(push, units)} along it: mass × acceleration, weight, cutting and friction",
        f"buckles at {force_text(buckling(root, length, ends), units)}; {SAFE_BUCKLING:g} of it is "
        f"{force_text(limit, units)}",
        about(share), judged(share, WATCH), "" if share <= WATCH else f"{_better(ends)}a thicker or shorter screw",
        f"Euler, {ENDS[ends]}; {SAFE_BUCKLING:g} common practice, no source; {kind.label}",
    )  # fmt: skip
