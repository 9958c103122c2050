"""What a stiffness means for the work: the tool's movement under a cut, and the cut that an error allows."""

from dataclasses import dataclass
from functools import lru_cache
from math import isfinite, pi

from unterbau.band import Band
from unterbau.catalogue.cuts import OWN_CUT, Cut, Engagement, OwnCut, check_own_cut, cut, stuff_label
from unterbau.machine.machine import Machine
from unterbau.mechanics.milling import HELIX, milling_force, specific_force
from unterbau.structure.parts import FLUTED, FLUTES

EDGE = 0.006
"""Cutting edge of a turning tool, m; common practice, no source."""
STRENGTH = {"carbide": 1000e6, "steel": 500e6}
"""Bending stress that a tool bears at its root, by its kind of material, Pa: a third of what breaks it; from memory."""


@dataclass(frozen=True, slots=True)
class Bearable:
    """The deepest cut of a kind that keeps an error."""

    depth: float
    """m."""
    ends_by: str
    """What ends it, in words."""
    force: Band
    """N."""
    chip_rate: float
    """Material taken off, m³/s; 0 where the work turns."""
    usual: float
    """The customary depth, m."""


@lru_cache(maxsize=64)
def own_cut(own: OwnCut) -> Cut:
    """Return a cut of one's own with its forces.

    Raises:
        InputError: It is none.
    """
    check_own_cut(own)
    of = cut(own.material)
    kc11, mc, words = of.engagement.kc11, of.engagement.mc, stuff_label(own.material)
    depth, chip = own.depth * 1e3, own.chip * 1e3
    if own.turning:
        force = specific_force(kc11, mc, own.chip) * own.depth * own.chip
        e = Engagement(kc11, mc, own.depth, own.chip)
        return Cut(OWN_CUT, f"turning {words}, own", f"{depth:g}×{chip:g} mm", force, force, 0.0, of.source, e)
    helix = 0.0 if own.straight else HELIX
    found = milling_force(kc11, mc, own.depth, own.width, own.chip, own.diameter, own.teeth, own.turns, helix)
    e = Engagement(kc11, mc, own.depth, own.chip, own.width, own.diameter, own.teeth, own.turns, own.straight)
    many = "tooth" if own.teeth == 1 else "teeth"
    tool = f"⌀{own.diameter * 1e3:g}, {own.teeth} {many}, {own.width * 1e3:g}×{depth:g} mm"
    feed = own.chip * own.teeth * own.turns
    return Cut(OWN_CUT, f"{words}, own", tool, found.tangential, found.peak, feed, of.source, e)


def chosen_cut(name: str, own: OwnCut) -> Cut:
    """Return the cut of a name, or one's own."""
    return own_cut(own) if name == OWN_CUT else cut(name)


def moved_by(cut: Cut, compliance: float) -> Band:
    """Return how far the cut pushes the tool, m; the band is that of the force.

    Args:
        cut: The cut; its peak force counts.
        compliance: Of the tool against the work along the force, likely, m/N.
    """
    return cut.force.scaled(compliance)


def force_at(cut: Cut, depth: float) -> float:
    """Return the peak force of a cut at another depth, N; for turning the cutting force."""
    e = cut.engagement
    if not e.milling:
        return specific_force(e.kc11, e.mc, e.chip) * depth * e.chip
    helix = 0.0 if e.straight else HELIX
    return milling_force(e.kc11, e.mc, depth, e.width, e.chip, e.diameter, e.teeth, e.turns, helix).peak


@dataclass(frozen=True, slots=True)
class ToolLimits:
    """What ends a cut besides the error."""

    edge: float
    """Cutting length of the tool, m."""
    stick_out: float
    """m."""
    root: float
    """Diameter that bears the bending at the tool's root, m; 0 where it is not asked."""
    strength: float
    """Pa."""
    power: float
    """Of the spindle, W."""
    torque: float
    """N·m; 0 where power alone limits."""


def tool_limits(machine: Machine, cut: Cut) -> ToolLimits:
    """Return what ends a cut on a machine: its own cutter where it is of the cut's diameter, else a usual one."""
    e = cut.engagement
    spindle, cutter = machine.spindle, machine.cutter
    power, torque = spindle.power, spindle.torque
    if not e.milling:
        return ToolLimits(EDGE, EDGE, 0.0, STRENGTH["carbide"], power, torque)
    same, out = abs(cutter.diameter - e.diameter) < 1e-6, cutter.stick_out
    edge = cutter.fluted if same else min(FLUTES * e.diameter, out)
    strength = STRENGTH.get(cutter.material, STRENGTH["steel"])
    return ToolLimits(edge, out, FLUTED * e.diameter, strength, power, torque)


def _most(cut: Cut, tool: ToolLimits) -> list[tuple[float, str]]:
    """Return the depths at which a cut ends whatever the error, m, and by what."""
    e = cut.engagement
    if not e.milling:
        return [(tool.edge, "the cutting edge")]
    per_depth = force_at(cut, e.depth) / e.depth
    mean = cut.mean / e.depth  # along the cut, averaged
    speed = pi * e.diameter * e.turns
    ends = [(min(tool.edge, tool.stick_out), "the flutes' length")]
    if isfinite(tool.power):
        ends.append((tool.power / (mean * speed), "the spindle's power"))
    if tool.torque:
        ends.append((2 * tool.torque / (mean * e.diameter), "the spindle's torque"))
    bending = tool.strength * pi * tool.root**3 / 32
    ends.append((bending / (per_depth * tool.stick_out), "the tool's strength"))
    return ends


@lru_cache(maxsize=256)
def bearable(cut: Cut, compliance: float, error: float, tool: ToolLimits) -> Bearable:
    """Return the deepest cut that pushes the tool no further than an error, or that tool and spindle bear.

    Args:
        cut: Gives tool, width and chip; only the depth is changed.
        compliance: Of the tool against the work where the force pulls, m/N.
        error: Allowed, m.
        tool: What ends it besides.
    """
    allowed = error / compliance
    most, by = min(_most(cut, tool))
    low, high = 0.0, most
    if force_at(cut, high) > allowed:
        by = "the error"
        for _ in range(34):
            middle = (low + high) / 2
            low, high = (middle, high) if force_at(cut, middle) <= allowed else (low, middle)
    depth = low if by == "the error" else most
    e = cut.engagement
    scatter = cut.force.scaled(1.0 / cut.force.likely)
    rate = depth * e.width * e.chip * e.teeth * e.turns
    return Bearable(depth, by, scatter.scaled(force_at(cut, depth)), rate, e.depth)
