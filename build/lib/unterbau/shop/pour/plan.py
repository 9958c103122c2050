"""A pour as somebody plans it: what is filled, with what, in which lifts, when, in which shop."""

from dataclasses import dataclass, field
from datetime import datetime
from typing import Literal, get_args

from unterbau.errors import InputError
from unterbau.shop.pour.mould import Mould, check_mould
from unterbau.shop.pour.packing import Grain, check_grains
from unterbau.shop.pour.resin import Resin, check_resin
from unterbau.strict import STRICT

CementClass = Literal["32.5N", "32.5R", "42.5N", "42.5R", "52.5"]
CEMENTS: tuple[CementClass, ...] = get_args(CementClass)
Sort = Literal["epoxy granite", "concrete", "mortar", "sand", "shot"]
SORTS: tuple[Sort, ...] = get_args(Sort)
School = Literal["lean, rammed", "wet, vibrated", "in layers"]
SCHOOLS: tuple[School, ...] = get_args(School)
RESIN_SHARES: dict[School, float] = {"lean, rammed": 0.08, "wet, vibrated": 0.12, "in layers": 0.10}
MOULD = "mould"
"""Part of a cast piece that stands by itself."""
GRAINS = (
    Grain("quartz sand 0.1 to 0.5 mm", 0.1e-3, 0.5e-3, 0.4),
    Grain("basalt 0.5 to 2 mm", 0.5e-3, 2e-3, 0.35),
    Grain("basalt 2 to 8 mm", 2e-3, 8e-3, 0.3),
)
"""What one usually gets, washed and oven-dry; prices invented."""
LIMITS = {
    "resin_share": (0.03, 0.6), "voids": (0.0, 0.5), "air": (0.0, 0.2), "waste": (0.0, 0.5), "power": (0.2, 0.9),
    "finest": (0.0, 0.05), "water_cement": (0.2, 1.2), "water": (80.0, 350.0), "cement_strength": (20e6, 80e6),
    "cement_price": (0.0, 100.0), "loose_price": (0.0, 1000.0), "bucket": (0.5e-3, 1.0), "scale": (0.0, 1000.0),
    "carries": (0.0, 200.0), "placed": (0.05, 100.0), "shop": (-10.0, 45.0), "lift": (0.005, 1.0), "wait": (0.0, 720.0),
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class PourPlan:
    """One pour of a candidate."""

    __pydantic_config__ = STRICT

    candidate: str
    part: str
    """Link whose hollows are filled, or `mould`."""
    sort: Sort = "epoxy granite"
    school: School = "in layers"
    grains: tuple[Grain, ...] = GRAINS
    power: float = 0.45
    """Of the packing curve; .5 is Fuller's."""
    finest: float = 0.0
    """Grain that the curve begins at, m; 0 as at hand."""
    resin: Resin = field(default_factory=Resin)
    resin_share: float = 0.10
    """Resin with hardener, by mass."""
    voids: float = 0.0
    """Measured on a rammed sample; 0 where it is estimated."""
    air: float = 0.03
    """Left in what is placed."""
    waste: float = 0.05
    """Sticks to buckets and tools."""
    water_cement: float = 0.5
    water: float = 180.0
    """A m³, kg."""
    cement_class: CementClass = "42.5N"
    cement_strength: float = 50e6
    """Of the cement's own mortar at 28 days, Pa."""
    cement_price: float = 0.25
    """A kilogram."""
    loose_price: float = 0.2
    """A kilogram of sand or shot."""
    bucket: float = 0.012
    """m³."""
    scale: float = 30.0
    """Heaviest that is weighed, kg; 0 without an end."""
    carries: float = 25.0
    """Heaviest that one person carries, kg; 0 without an end."""
    placed: float = 1.0
    """Mixed and placed in a minute, kg."""
    shop: float = 20.0
    """°C."""
    lift: float = 0.1
    """Thickness of a lift, m."""
    wait: float = 0.0
    """Hours from one lift to the next; 0 as soon as the last has cooled."""
    start: str = "2026-06-06T10:00"
    """When the first lift is poured."""
    mould: Mould = field(default_factory=Mould)
    """Of a cast piece, and of what holds a fill where that needs a form."""


def check_pour(plan: PourPlan) -> None:
    """Check a pour.

    Raises:
        InputError: With the field at fault.
    """
    for name, (low, high) in LIMITS.items():
        value = getattr(plan, name)
        if not low <= value <= high:
            raise InputError(name, f"expected {low:g} to {high:g}, got {value:g}")
    try:
        datetime.fromisoformat(plan.start)
    except ValueError:
        raise InputError("start", f'expected a date and time as 2026-06-06T10:00, got "{plan.start}"') from None
    check_grains(plan.grains)
    check_resin(plan.resin)
    check_mould(plan.mould)
