"""A counterweight's rope: does it hold, and at what frequency does the weight bounce on it?"""

from math import pi, sqrt

from unterbau.catalogue import cautions
from unterbau.catalogue.ropes import SAFETY, Rope
from unterbau.studies.purchase.check import Check, judged
from unterbau.studies.purchase.wanted import GRAVITY, Wanted, about
from unterbau.units import Units, force_text, length_text

WATCH = 1.0


def bounce(rope: Rope, mass: float) -> float:
    """Return the natural frequency of a counterweight on its rope, Hz.

    Source:
        One mass on a spring, √(k/m)/2π.
    """
    return sqrt(rope.stiffness / mass) / (2 * pi)


def rope_checks(one: Wanted, units: Units) -> list[Check]:
    """Return whether a counterweight's rope holds; nothing where an axis has none."""
    rope = one.rope
    if rope is None:
        return []
    load = one.balanced * (GRAVITY + one.acceleration)
    share = SAFETY * load / rope.breaking
    return [Check(
        one.train.key, f"{one.axis.upper()} counterweight, rope",
        f"{force_text(load, units)} on a wire rope ⌀{length_text(rope.diameter, units)}, with the acceleration",
        f"breaks at {force_text(rope.breaking, units)}; {SAFETY:g} times the load wanted; the weight bounces on it at "
        f"about {bounce(rope, one.balanced):.0f} Hz",
        about(share), judged(share, WATCH), "" if share <= WATCH else "a thicker rope, two ropes, or a lighter head",
        "6 × 19 rope, 1770 N/mm²: metallic area and loss by stranding from memory; safety common practice, no source. "
        + cautions.ROPE.text,
    )]  # fmt: skip
