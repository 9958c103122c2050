"""What lies in the rack once a plan is sawn: own bars used up, what is left of each put back."""

from collections import Counter

from unterbau.shop.cut_plan import CutPlan
from unterbau.shop.state import BarOffer

KEPT = 0.1
"""Shorter ends go into the bin, m; common practice, no source."""
MM = 1e3


def after_sawing(bars: tuple[BarOffer, ...], plan: CutPlan, section: str, material: str) -> tuple[BarOffer, ...]:
    """Return the bars there are of a section when a plan is sawn: offers stay, the rack loses and gains.

    Lengths of what is put back are told in whole millimetres, rounded down.
    """
    used = Counter(round(bar.stock.length * MM, 3) for bar in plan.bars if bar.stock.available is not None)
    rack: Counter[float] = Counter()
    offers = []
    for one in bars:
        if not one.own:
            offers.append(one)
            continue
        length = round(one.length * MM, 3)
        taken = min(one.own, used[length])
        used[length] -= taken
        rack[length] += one.own - taken
    for bar in plan.bars:
        if bar.left >= KEPT:
            rack[float(int(bar.left * MM + 1e-6))] += 1
    back = [
        BarOffer(section, material, length / MM, 0.0, count) for length, count in sorted(rack.items(), reverse=True)
        if count
    ]  # fmt: skip
    return (*offers, *back)


def too_long(lengths: dict[str, float], carried: float) -> tuple[str, ...]:
    """Return the letters of pieces that do not fit into the car, whose longest piece is `carried` m; 0 carries all."""
    return tuple(name for name, length in lengths.items() if carried and length > carried)
