"""What holds in a pour and what it does to what it is poured into: inserts, bond, shrinkage, cores, aluminium."""

from dataclasses import dataclass
from math import pi

from unterbau.catalogue import cautions
from unterbau.materials.material import material
from unterbau.shop.pour.formwork import lift_of
from unterbau.shop.pour.mould import Mould
from unterbau.shop.pour.plan import PourPlan

BOND = {"epoxy granite": (4e6, 12e6), "concrete": (0.5e6, 2.5e6), "mortar": (1e6, 4e6)}
"""Shear that bond to clean, rough steel bears, Pa; from memory, wide."""
TENSION = {"epoxy granite": (8e6, 15e6), "concrete": (1.5e6, 3e6), "mortar": (4e6, 8e6)}
"""Tension of the cast stuff, Pa; from memory, wide."""
BOW_TOLD = 0.02e-3
"""A bow that is worth a word, m."""
SHRINKS = {"epoxy granite": (1e-4, 5e-4), "concrete": (3e-4, 6e-4), "mortar": (4e-4, 1e-3)}
"""From cured or set to dry; common practice and from memory."""
SAME = 1e-9
DEEP, EDGE = 5.0, 5.0
"""Least embedment and distance from an edge, in diameters; common practice, no source."""


@dataclass(frozen=True, slots=True)
class PullOut:
    """What pulls an insert out."""

    thread: str
    bond: tuple[float, float]
    """By bond around it, N: low, high."""
    cone: tuple[float, float]
    """By a cone of the cast stuff, N."""
    problem: str


def pull_outs(plan: PourPlan) -> tuple[PullOut, ...]:
    """Return what pulls each sort of insert of a mould out: the weaker of both is what it bears, orders of size.

    Source:
        Bond over its skin; a cone of 45 degrees whose flank bears tension across its base, σ·π·h·(h + d).
    """
    if plan.sort not in BOND:
        return ()
    found: dict[tuple[str, float, float], PullOut] = {}
    for one in plan.mould.inserts:
        skin, cone = pi * one.diameter * one.depth, pi * one.depth * (one.depth + one.diameter)
        problem = ""
        if one.depth < DEEP * float(one.thread[1:]) * 1e-3 - SAME:
            problem = f"{one.thread} sits {one.depth * 1e3:.0f} mm deep: {DEEP:.0f} diameters are wanted"
        edge = min(one.x, one.y, plan.mould.length - one.x, plan.mould.width - one.y)
        if edge < EDGE * float(one.thread[1:]) * 1e-3 - SAME:
            problem = f"{one.thread} is {edge * 1e3:.0f} mm from an edge: {EDGE:.0f} diameters are wanted"
        low, high = BOND[plan.sort]
        weak, strong = TENSION[plan.sort]
        key = (one.thread, one.depth, one.diameter)
        if key not in found or (problem and not found[key].problem):
            found[key] = PullOut(one.thread, (low * skin, high * skin), (weak * cone, strong * cone), problem)
    return tuple(found.values())


def shrink_bow(plan: PourPlan, length: float, wall: float, depth: float, metal: str) -> tuple[float, float]:
    """Return how far a thin wall bows when what is bonded to one side of it shrinks, m: low, high.

    Args:
        plan: What shrinks.
        length: Of the wall, m.
        wall: Its thickness, m.
        depth: Of the fill that is bonded to it, m.
        metal: Of the wall.

    Source:
        Two bonded strips, as a bimetal (Timoshenko 1925, from memory): κ = 6·ε·(1+m)²/(h·(3(1+m)² + (1+mn)(m²+1/mn))),
        m = t1/t2, n = E1/E2; bow κ·L²/8. A closed tube is filled on all sides and bows far less.
    """
    if plan.sort not in SHRINKS:
        return (0.0, 0.0)
    m, n = wall / depth, material(metal).E / E_POURED[plan.sort]
    h = wall + depth
    factor = 6 * (1 + m) ** 2 / (h * (3 * (1 + m) ** 2 + (1 + m * n) * (m**2 + 1 / (m * n))))
    low, high = (strain * factor * length**2 / 8 for strain in SHRINKS[plan.sort])
    return low, high


def shrink_words(plan: PourPlan, length: float, wall: float, depth: float, metal: str) -> str:
    """Return what shrinking does to a wall of a hollow that is filled, by order of size; nothing where it is little."""
    low, high = shrink_bow(plan, length, wall, depth, metal)
    if high < BOW_TOLD:
        return ""
    return (
        f"by order of size, a wall with the fill on one side only would bow by {low * 1e3:.2g} to {high * 1e3:.2g} mm "
        f"over {length:.2g} m as it shrinks; filled all round it bows far less: machine and shim after the cure"
    )


E_POURED = {"epoxy granite": 30e9, "concrete": 32.8e9, "mortar": 45e9}


def core_words(mould: Mould, density: float) -> str:
    """Return what holds cores down, in words; nothing without cores."""
    volume = sum(pi * one.diameter**2 / 4 * one.length for one in mould.cores)
    volume += sum(one.length * one.width * one.depth for one in mould.pockets if not one.above)
    if not volume:
        return ""
    force = lift_of(volume, density)
    return f"cores and boxes float with {force:.0f} N ({force / 9.81:.0f} kg): tie them down before pouring"


def metal_words(plan: PourPlan, metal: str) -> str:
    """Return what a mix does to a metal, in words, or nothing."""
    if plan.sort in ("concrete", "mortar") and material(metal).kind == "aluminium":
        return "fresh cement attacks aluminium and sets hydrogen free: a barrier coat first, open to the air, no flame"
    return ""


CAUTIONS = {
    "epoxy granite": cautions.EPOXY_GRANITE.text, "concrete": cautions.CONCRETE.text, "mortar": cautions.MORTAR.text,
    "sand": cautions.SAND.text, "shot": cautions.SHOT.text,
}  # fmt: skip
"""By what is poured."""
