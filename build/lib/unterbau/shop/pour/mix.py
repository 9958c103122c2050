"""Mixes by mass: epoxy granite, concrete and mortar, loose fills; batches that bucket, scale, time and arms allow."""

from dataclasses import dataclass
from math import ceil

from unterbau.errors import InputError
from unterbau.shop.pour.packing import Grain, Packing, pack
from unterbau.shop.pour.plan import PourPlan
from unterbau.shop.pour.resin import RESIN_RHO, STONE_RHO, Resin

WATER_RHO, CEMENT_RHO = 1000.0, 3100.0
AIR = 0.02
"""Of vibrated concrete; common practice, no source."""
LEAST_FINES = 0.05
"""Of the grains below 0.5 mm: with less there is nothing that fills the small voids; common practice, no source."""
FINE = 0.5e-3
WORKED = 0.7
"""Of the pot life that is left for mixing and placing, in a bulk that is warmer than the maker's cup."""
FILLS = {"concrete": "concrete-c30", "mortar": "uhpc", "sand": "sand", "shot": "steel-shot"}
"""Materials that the machine's frame counts for them."""
LOOSE = {"sand": 1600.0, "shot": 4600.0}
"""Bulk density of loose fills, kg/m³; common practice, no source."""
BOLOMEY = 0.55
"""Factor of gravel in Bolomey's formula; from memory."""


@dataclass(frozen=True, slots=True)
class Part:
    """One thing that is weighed."""

    name: str
    mass: float
    """kg, for the whole pour with its waste."""
    money: float


@dataclass(frozen=True, slots=True)
class Mix:
    """What goes into a pour."""

    parts: tuple[Part, ...]
    density: float
    """As placed, kg/m³."""
    volume: float
    """That is filled, m³."""
    resin: float
    """Share of resin with hardener by mass; 0 of others."""
    needed: float
    """Share of resin that fills the voids; 0 of others."""
    packing: Packing | None
    strength: float
    """Mean strength at 28 days, Pa; 0 of others."""
    batches: int
    batch: float
    """Mass of each, kg."""
    ends_by: str
    """What the batch's size ends by."""
    problems: tuple[str, ...]

    @property
    def mass(self) -> float:
        """All that is weighed, kg."""
        return sum(one.mass for one in self.parts)

    @property
    def money(self) -> float:
        """Of all that is weighed."""
        return sum(one.money for one in self.parts)


def fill_of(plan: PourPlan) -> str:
    """Return the material that stands in a machine's frame for what is poured."""
    if plan.sort != "epoxy granite":
        return FILLS[plan.sort]
    nearest = min((8, 10, 12), key=lambda share: abs(share - 100 * plan.resin_share))
    return f"epoxy-granite-{nearest}"


def resin_for(voids: float) -> float:
    """Return the share by mass of resin that fills a share of voids between stones."""
    return voids * RESIN_RHO / (voids * RESIN_RHO + (1.0 - voids) * STONE_RHO)


def density_of(resin: float, voids: float) -> float:
    """Return the density of epoxy granite with a share of resin and some air left in it, kg/m³."""
    return (1.0 - voids) / (resin / RESIN_RHO + (1.0 - resin) / STONE_RHO)


def mix_of(plan: PourPlan, volume: float) -> Mix:
    """Return what a volume takes.

    Raises:
        InputError: It cannot be mixed so.
    """
    if plan.sort == "epoxy granite":
        return _epoxy(plan, volume)
    if plan.sort in ("concrete", "mortar"):
        return _concrete(plan, volume)
    density = LOOSE[plan.sort]
    mass = density * volume * (1.0 + plan.waste)
    price = plan.loose_price
    return _batched(plan, (Part(plan.sort, mass, mass * price),), density, volume, ())


def _epoxy(plan: PourPlan, volume: float) -> Mix:
    packing, problems = pack(plan.grains, plan.power, plan.finest), list[str]()
    voids = plan.voids or packing.voids
    needed = resin_for(voids)
    density = density_of(plan.resin_share, plan.air)
    total = density * volume * (1.0 + plan.waste)
    resin = plan.resin_share * total
    stone = total - resin
    ratio = plan.resin.ratio
    parts = [
        Part("resin", resin / (1 + ratio), resin / (1 + ratio) * plan.resin.price),
        Part("hardener", resin * ratio / (1 + ratio), resin * ratio / (1 + ratio) * plan.resin.hardener_price),
    ]
    for grain, share in zip(plan.grains, packing.shares, strict=True):
        if share > 1e-6:
            parts.append(Part(grain.name, stone * share, stone * share * grain.price))
    if plan.resin_share < needed * 0.97:
        problems.append(
            f"{plan.resin_share:.1%} resin does not fill the voids of {voids:.0%}: {needed:.1%} would; it stays porous "
            "and weak, or add a finer fraction"
        )
    problems += _fines(plan.grains, packing)
    for grain in plan.grains:
        if grain.moisture > DRY:
            problems.append(
                f"{grain.name} holds {grain.moisture:.1%} water: oven-dry it, resin does not bond to wet stone"
            )
    problems += _old(plan.resin)
    return _batched(plan, tuple(parts), density, volume, tuple(problems), plan.resin_share, needed, packing)


DRY = 0.002
"""Moisture that resin bears; common practice, no source."""


def _fines(grains: tuple[Grain, ...], packing: Packing) -> list[str]:
    fine = sum(
        share * min(1.0, max(0.0, (FINE - one.low) / (one.high - one.low)))
        for one, share in zip(grains, packing.shares, strict=True)
    )
    if fine < LEAST_FINES:
        return [f"only {fine:.0%} is finer than 0.5 mm: there are no fines that fill the small voids"]
    return []


def _old(resin: Resin) -> list[str]:
    if resin.age > resin.keeps:
        words = (
            f"the resin is {resin.age:.0f} months old and keeps {resin.keeps:.0f}: it may foam, stay soft or not cure"
        )
        return [f"{words}; try a cup first, or buy fresh"]
    return []


def strength_of(water: float, cement_strength: float) -> float:
    """Return the mean strength of concrete at 28 days, Pa.

    Args:
        water: By mass of the cement.
        cement_strength: Of the cement's own mortar, Pa.

    Source:
        Bolomey, f = K·fc·(c/w − .5); from memory.
    """
    return max(0.0, BOLOMEY * cement_strength * (1.0 / water - 0.5))


def _concrete(plan: PourPlan, volume: float) -> Mix:
    packing = pack(plan.grains, plan.power, plan.finest)
    water = plan.water
    cement = water / plan.water_cement
    aggregate = (1.0 - AIR - water / WATER_RHO - cement / CEMENT_RHO) * STONE_RHO
    if aggregate <= 0.0:
        raise InputError("water", f"{water:g} kg of water and {cement:.0f} kg of cement a m³ leave no room for stone")
    density = water + cement + aggregate
    scale = volume * (1.0 + plan.waste)
    wet = sum(share * one.moisture for one, share in zip(plan.grains, packing.shares, strict=True)) * aggregate
    problems = _fines(plan.grains, packing)
    if wet > water:
        problems.append("the stone alone brings more water than the mix bears: dry it")
    parts = [Part("cement", cement * scale, cement * scale * plan.cement_price),
             Part("water", max(0.0, water - wet) * scale, 0.0)]  # fmt: skip
    for grain, share in zip(plan.grains, packing.shares, strict=True):
        if share > 1e-6:
            mass = aggregate * share * (1.0 + grain.moisture) * scale
            parts.append(Part(grain.name, mass, mass * grain.price))
    if not 0.3 <= plan.water_cement <= 0.65:
        problems.append(
            f"water to cement {plan.water_cement:.2f}: below .3 it cannot be placed, above .65 it is weak and porous"
        )
    strength = strength_of(plan.water_cement, plan.cement_strength)
    return _batched(plan, tuple(parts), density, volume, tuple(problems), 0.0, 0.0, packing, strength)


def _batched(
    plan: PourPlan, parts: tuple[Part, ...], density: float, volume: float, problems: tuple[str, ...],
    resin: float = 0.0, needed: float = 0.0, packing: Packing | None = None, strength: float = 0.0,
) -> Mix:  # fmt: skip
    total = sum(one.mass for one in parts)
    limits = {
        "what the bucket holds": plan.bucket * density * FILLED,
        "what the scale weighs": plan.scale or 1e9,
        "what one person carries": plan.carries or 1e9,
    }
    if plan.sort == "epoxy granite":
        limits["the pot life"] = WORKED * plan.resin.life_at(plan.shop) / 60 * plan.placed
    ends_by, most = min(limits.items(), key=lambda pair: pair[1])
    if most < LEAST_BATCH:
        problems = (*problems, f"a batch of {most:.1f} kg by {ends_by} is too small to be mixed: change that first")
    count = max(1, ceil(total / max(most, LEAST_BATCH) - 1e-9))
    return Mix(
        parts, density, volume, resin, needed, packing, strength, count, total / count, ends_by, problems
    )  # fmt: skip


FILLED = 0.7
"""Of a bucket that can be mixed without spilling; common practice, no source."""
LEAST_BATCH = 1.0
"""kg."""
