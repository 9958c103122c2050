"""Belts: do they carry the pull, and how tight must they be?"""

from unterbau.catalogue import cautions
from unterbau.catalogue.drives import DriveKind, drive
from unterbau.studies.purchase.check import Check, judged
from unterbau.studies.purchase.wanted import Wanted, about
from unterbau.units import Units, force_text, mass_text, movement_text, told

STRAIN = 0.002
"""That a belt may be stretched by in work; from memory, makers' tables spread by half."""
TEETH = 6
"""In mesh that carry at the most; from memory."""
SLACK = 0.5
"""Tension at rest as a share of the largest pull, so that the slack side stays tight; common practice, no source."""
WATCH = 0.6


def is_belt(kind: DriveKind) -> bool:
    """Return whether a drive is a belt."""
    return kind.id.startswith("belt")


def belt_checks(one: Wanted, units: Units) -> list[Check]:
    """Return whether a drive's belt carries what it is asked for; nothing of other drives."""
    kind = drive(one.train.drive.kind)
    if not is_belt(kind):
        return []
    speeding = one.mass * one.acceleration + one.weight + one.friction
    pull = max(speeding, one.weight + one.cutting + one.friction) / one.shared
    bears = STRAIN * kind.EA.likely
    share = pull / bears
    stretch = pull * one.train.length / kind.EA.likely / 4
    tension = SLACK * pull
    return [Check(
        one.train.key, f"{one.axis.upper()} belt, pull",
        f"{force_text(pull, units)} on the belt{f', each of {one.shared}' if one.shared > 1 else ''}: "
        f"{mass_text(one.mass, units)} at {told(one.acceleration, 'm/s²', units)}, or {force_text(one.cutting, units)} "
        "of cut",
        f"bears {force_text(bears, units)} at {STRAIN:.1%} of stretch; gives {movement_text(stretch, units)} in the "
        f"middle; tension at rest {force_text(tension, units)} at the least; of a pulley's teeth {TEETH} carry",
        about(share), judged(share, WATCH), "" if share <= WATCH else
        "a wider belt or one with steel cords, two belts, less acceleration, or a screw",
        f"{kind.source}; stretch and tension from memory and common practice. {cautions.BELT.text}",
    )]  # fmt: skip
