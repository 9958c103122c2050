"""What follows from a brief: force, stiffness, acceleration; each with its reasoning."""

from dataclasses import dataclass

from unterbau.band import Band
from unterbau.brief.brief import PROCESSES, Brief
from unterbau.catalogue.cuts import Cut, cut
from unterbau.units import (
    Units,
    force_text,
    forces_text,
    in_units,
    length_text,
    mass_text,
    movement_text,
    told,
    two_told,
)

DRAG = {"knife": Band(1.0, 4.0, 10.0)}
"""Force of a drag knife, N; common practice, no source."""
TOOL_MASS = {"laser": 2.0, "plasma": 2.0, "knife": 0.5, "carrying": 0.0}
"""What a light process carries at its head when the brief leaves it open, kg; common practice, no source."""
LIGHT_MODE = 25.0
"""First mode of a machine for light processes, Hz: 20 to 30 and more; common practice, no source."""
SHARES = {"open": 0.5, "rough": 0.5, "smooth": 1 / 3, "fine": 0.25}
"""Of the allowed error that the machine's give may take, by the finish wanted; the rest is for tools, drives,
setting up. Common practice, no source."""
WORDS = {"open": "half", "rough": "half", "smooth": "a third of", "fine": "a quarter of"}


@dataclass(frozen=True, slots=True)
class Class:
    """What machines of a class reach at the tip, N/m; common practice, no source."""

    label: str
    low: float
    high: float


RUN_UP = 0.005
"""Way in which a feed should be reached, m; common practice, no source."""
TOO_MUCH = "More is asked than such machines give: lighter cuts, or more error allowed."
CLASSES = {
    "softwood": Class("wood router", 0.5e6, 5e6), "hardwood-light": Class("wood router", 0.5e6, 5e6),
    "hardwood": Class("wood router", 0.5e6, 5e6), "mdf": Class("wood router", 0.5e6, 5e6),
    "acrylic": Class("wood router", 0.5e6, 5e6), "aluminium-light": Class("aluminium router", 3e6, 10e6),
    "aluminium": Class("aluminium router", 3e6, 10e6), "brass": Class("aluminium router", 3e6, 10e6),
    "steel-light": Class("hobby steel mill", 10e6, 30e6), "steel": Class("hobby steel mill", 10e6, 30e6),
    "stainless": Class("hobby steel mill", 10e6, 30e6),
    **dict.fromkeys(
        ("turn-aluminium", "turn-aluminium-heavy", "turn-steel-light", "turn-steel", "turn-steel-heavy"),
        Class("lathe", 10e6, 40e6),
    ),
}  # fmt: skip
TURNED = (0.4, 0.35, 1.0)
"""Feed, passive and cutting force as shares of the cutting force: 0.3 to 0.5, 0.2 to 0.5, 1; from memory."""
LIGHT = Class("light process", 0.1e6, 0.5e6)


@dataclass(frozen=True, slots=True)
class Targets:
    """What the machine needs."""

    force: Band
    """At the tool, N."""
    force_words: str
    stiffness: tuple[float, float, float]
    """Along X, Y and Z, for the likely force, N/m."""
    stiffness_words: str
    usual: Class
    """What machines of this class reach."""
    picky: bool
    """Whether the process asks much of the frame at all."""
    picky_words: str
    speed_words: str
    """Speed and acceleration that matter."""
    mode: float
    """Lowest natural mode that matters, Hz; 0 where the cut rules."""


def targets(brief: Brief, units: Units = "mm") -> Targets:
    """Return what follows from a brief, in words, in some units.

    Source:
        Stiffness by force over error, and half the error for the frame: common practice, no source.
    """
    if brief.process == "cutting":
        return _cutting(brief, units)
    return _light(brief, units)


def _cutting(brief: Brief, units: Units) -> Targets:
    hardest = max((cut(name) for name in brief.cuts), key=lambda one: one.peak, default=cut("hardwood"))
    needed = hardest.force.likely / (SHARES[brief.finish] * brief.accuracy)
    turning = hardest.id.startswith("turn")
    shares = TURNED if turning else (1.0, 1.0, 1 / 3)
    how = (
        "feed force along X about 0.4 of it, passive force along Y 0.35, cutting force along Z all of it."
        if turning
        else "the cut pulls any way in the plane, so X and Y alike; along the tool about a third of it, drilling apart."
    )
    words = f"{force_text(hardest.force.likely, units)} ÷ {_half(brief, units)}: {how}"
    usual = CLASSES[hardest.id]
    picky = usual.low >= 3e6 or needed > usual.low
    along = (needed * shares[0], needed * shares[1], needed * shares[2])
    return Targets(
        hardest.force, _force_words(hardest, units), along, words, usual, picky,
        f"{usual.label.capitalize()}s reach {_range(usual, units)} at the tip (common "
        f"practice, no source). {'' if needed <= usual.high else TOO_MUCH}".strip(),
        _feed_words(brief, units), 0.0,
    )  # fmt: skip


def _feed_words(brief: Brief, units: Units) -> str:
    """Return how fast the quickest cut feeds, and what reaching it within a short way takes: v²/2s."""
    quickest = max((cut(name) for name in brief.cuts), key=lambda one: one.feed, default=cut("hardwood"))
    needed = quickest.feed**2 / (2 * RUN_UP)
    way = length_text(RUN_UP, units)
    return (
        f"{quickest.label} feeds at {told(quickest.feed * 60, 'm/min', units)} (tooth feed × teeth × turns); "
        f"reached within {way} "
        f"that takes v²/2s = {told(needed, 'm/s²', units)}."
    )


def _range(usual: Class, units: Units) -> str:
    scale, unit = in_units(1e-6, "N/µm", units)
    return f"{usual.low * scale:.3g} to {usual.high * scale:.3g} {unit}"


def _force_words(hardest: Cut, units: Units) -> str:
    force = hardest.force
    peak = f"{force_text(force.likely, units)} at its peak ({forces_text(force.low, force.high, units)})"
    return f"{hardest.label} with {hardest.tool}: {peak}. {hardest.source[0].upper()}{hardest.source[1:]}."


def _half(brief: Brief, units: Units) -> str:
    half, whole = movement_text(SHARES[brief.finish] * brief.accuracy, units), movement_text(brief.accuracy, units)
    ending = {"smooth": ", for a smooth finish", "fine": ", for a fine finish"}.get(brief.finish, "")
    return f"{half}, {WORDS[brief.finish]} the error of {whole}{ending}"


def _light(brief: Brief, units: Units) -> Targets:
    mass = brief.payload or TOOL_MASS[brief.process]
    inertia = mass * brief.acceleration
    drag = DRAG.get(brief.process, Band(0.0, 0.0, 0.0))
    force = Band(drag.low + inertia, drag.likely + inertia, drag.high + inertia)
    needed = force.likely / (SHARES[brief.finish] * brief.accuracy)
    words = (
        f"{PROCESSES[brief.process]}: no cutting force; {mass_text(mass, units)} × "
        f"{told(brief.acceleration, 'm/s²', units)} = {force_text(inertia, units)} "
        f"when the head speeds up or brakes{f', and {force_text(drag.likely, units)} of drag' if drag.likely else ''}."
    )
    return Targets(
        force, words, (needed, needed, needed / 3), f"{force_text(force.likely, units)} ÷ "
        f"{_half(brief, units)}.", LIGHT,
        needed > LIGHT.high,
        f"Not picky about the frame: {_range(LIGHT, units)} do. What counts is that it does "
        f"not ring: a first mode above {LIGHT_MODE:.0f} Hz (common practice, no source).",
        f"Acceleration matters more than speed: {told(brief.acceleration, 'm/s²', units)} is what loads this "
        f"frame.", LIGHT_MODE,
    )  # fmt: skip


def process_force(brief: Brief) -> Band:
    """Return the force of the process at the tool without the inertia of what the head carries, N."""
    if brief.process == "cutting":
        return targets(brief).force
    return DRAG.get(brief.process, Band(0.0, 0.0, 0.0))


def met(target: float, reached: Band, units: Units = "mm") -> tuple[bool, str]:
    """Return whether a target is likely met, and in words how surely."""
    if reached.low >= target:
        return True, "met, even at the low end"
    if reached.likely >= target:
        return True, "likely met, not at the low end"
    scale = in_units(1e-6, "N/µm", units)[0]
    needed = two_told(reached.likely * scale, target * scale)[1]
    return False, f"of {needed} missed{', though not at the high end' if reached.high >= target else ''}"
