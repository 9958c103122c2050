"""What a stiffness means for the work: the tool's movement under a cut, and the cut that an error allows."""

from dataclasses import dataclass
from functools import lru_cache

from unterbau.band import Band
from unterbau.catalogue.cuts import OWN_CUT, Cut, Engagement, OwnCut, check_own_cut, cut, stuff_label
from unterbau.mechanics.milling import milling_force, specific_force

MOST = 0.1
"""No depth of cut beyond this is offered, m."""


@dataclass(frozen=True, slots=True)
class Bearable:
    """The deepest cut of a kind that keeps an error."""

    depth: float
    """m; the tool's own cutting length may end sooner."""
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
    found = milling_force(kc11, mc, own.depth, own.width, own.chip, own.diameter, own.teeth, own.turns)
    e = Engagement(kc11, mc, own.depth, own.chip, own.width, own.diameter, own.teeth, own.turns)
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
    return milling_force(e.kc11, e.mc, depth, e.width, e.chip, e.diameter, e.teeth, e.turns).peak


@lru_cache(maxsize=64)
def bearable(cut: Cut, compliance: float, error: float) -> Bearable:
    """Return the deepest cut that pushes the tool no further than an error.

    Args:
        cut: Gives tool, width and chip; only the depth is changed.
        compliance: Of the tool against the work where the force pulls, m/N.
        error: Allowed, m.
    """
    allowed = error / compliance
    low, high = 0.0, MOST
    if force_at(cut, high) > allowed:
        for _ in range(34):
            middle = (low + high) / 2
            low, high = (middle, high) if force_at(cut, middle) <= allowed else (low, middle)
    depth = low if low > 0.0 or force_at(cut, high) > allowed else high
    e = cut.engagement
    scatter = cut.force.scaled(1.0 / cut.force.likely)
    rate = depth * e.width * e.chip * e.teeth * e.turns
    return Bearable(depth, scatter.scaled(force_at(cut, depth)), rate, e.depth)
