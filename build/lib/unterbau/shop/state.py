"""What a person's shop has and does: saw cuts, bars on offer and in the rack. Saved with the project."""

from dataclasses import dataclass, field, replace
from typing import Literal

from unterbau.errors import InputError
from unterbau.shop.build.cuts import FirstCut, check_cuts
from unterbau.shop.build.done import Done, check_done
from unterbau.shop.build.log import Entry, check_log
from unterbau.shop.build.order import Wished, check_orders
from unterbau.shop.build.tests import Test, check_tests
from unterbau.shop.by_hand import HandLaid, check_by_hand
from unterbau.shop.cut_plan import Stock
from unterbau.shop.hours import Pace, check_pace
from unterbau.shop.making import MadeBy, check_made
from unterbau.shop.offers import Offer, Postage, Wish, check_offers
from unterbau.shop.pour.plan import PourPlan, check_pour
from unterbau.shop.printed import Printing, check_printing
from unterbau.shop.sheet_plan import Sheet
from unterbau.shop.shopping import Bought, check_bought
from unterbau.strict import STRICT

MOST = 200
SAME = 1e-6
LOST = {"kerf": 0.05, "trim": 0.5, "gap": 0.1, "border": 0.2}
"""What sawing and cutting take away, m at the most."""


@dataclass(frozen=True, slots=True)
class BarOffer:
    """Bars of a section and material that can be had, or that lie in the rack."""

    __pydantic_config__ = STRICT

    section: str
    material: str
    length: float
    """m."""
    price: float = 0.0
    """Each."""
    own: int = 0
    """So many lie in the rack; 0 for bars on offer."""


@dataclass(frozen=True, slots=True)
class SheetOffer:
    """The sheets that plates of a thickness and material are cut from."""

    __pydantic_config__ = STRICT

    material: str
    thickness: float
    """m."""
    length: float
    width: float


@dataclass(frozen=True, slots=True)
class ShopState:
    """The shop's side of a project."""

    __pydantic_config__ = STRICT

    kerf: float = 0.0025
    """Of a saw cut, m: a cold saw's."""
    trim: float = 0.005
    """Cut off each end of a bar, m."""
    bars: tuple[BarOffer, ...] = ()
    gap: float = 0.005
    """Between plates on a sheet, m."""
    border: float = 0.01
    """Around a sheet, m."""
    sheets: tuple[SheetOffer, ...] = ()
    bought: tuple[Bought, ...] = ()
    """What became of the items of the candidates' lists."""
    carried: float = 0.0
    """Longest piece that fits into the car, m; 0 where all do."""
    sawn: Literal["free", "guillotine"] = "free"
    """How sheets are cut: any way, or by cuts from edge to edge."""
    offers: tuple[Offer, ...] = ()
    postage: tuple[Postage, ...] = ()
    wish: Wish = "cheapest"
    made: tuple[MadeBy, ...] = ()
    """Who makes pieces, where it is not as usual."""
    pace: Pace = field(default_factory=Pace)
    printing: Printing = field(default_factory=Printing)
    pours: tuple[PourPlan, ...] = ()
    """One of a candidate's part at the most."""
    tests: tuple[Test, ...] = ()
    """On the built machine."""
    done: tuple[Done, ...] = ()
    """Steps of the build."""
    hours_a_day: float = 3.0
    """At the bench."""
    log: tuple[Entry, ...] = ()
    """Of the build, by date."""
    cuts: tuple[FirstCut, ...] = ()
    """First ones on the built machine."""
    orders: tuple[Wished, ...] = ()
    """Of the steps, where they are not as usual."""
    by_hand: tuple[HandLaid, ...] = ()
    """Sheets on which plates were moved."""

    def pour(self, candidate: str, part: str) -> PourPlan:
        """Return how a candidate's part is poured: as told, or as usual."""
        for one in self.pours:
            if (one.candidate, one.part) == (candidate, part):
                return one
        return PourPlan(candidate, part)

    def with_pour(self, plan: PourPlan) -> "ShopState":
        """Return the shop with another pour of a candidate's part."""
        rest = tuple(one for one in self.pours if (one.candidate, one.part) != (plan.candidate, plan.part))
        return replace(self, pours=(*rest, plan))

    def stocks(self) -> dict[tuple[str, str], tuple[Stock, ...]]:
        """Return the bars there are for each section and material."""
        found: dict[tuple[str, str], tuple[Stock, ...]] = {}
        for one in self.bars:
            stock = Stock(one.length, 0.0 if one.own else one.price, one.own or None)
            found[one.section, one.material] = (*found.get((one.section, one.material), ()), stock)
        return found

    def of(self, section: str, material: str) -> tuple[BarOffer, ...]:
        """Return the bars told for a section and material."""
        return tuple(one for one in self.bars if (one.section, one.material) == (section, material))

    def with_bars(self, section: str, material: str, bars: tuple[BarOffer, ...]) -> "ShopState":
        """Return the shop with other bars for a section and material."""
        rest = tuple(one for one in self.bars if (one.section, one.material) != (section, material))
        return replace(self, bars=(*rest, *bars))

    def sheet(self, material: str, thickness: float) -> Sheet | None:
        """Return the sheets told for a material and thickness; None for the usual ones."""
        for one in self.sheets:
            if one.material == material and abs(one.thickness - thickness) < SAME:
                return Sheet(one.length, one.width)
        return None

    def with_sheet(self, material: str, thickness: float, sheet: Sheet | None) -> "ShopState":
        """Return the shop with other sheets for a material and thickness, or the usual ones."""
        rest = tuple(one for one in self.sheets if one.material != material or abs(one.thickness - thickness) >= SAME)
        mine = () if sheet is None else (SheetOffer(material, thickness, sheet.length, sheet.width),)
        return replace(self, sheets=(*rest, *mine))


def check_shop(shop: ShopState) -> None:
    """Check that a shop can be worked with.

    Raises:
        InputError: With the field at fault.
    """
    for name, most in LOST.items():
        value = getattr(shop, name)
        if not 0.0 <= value <= most:
            raise InputError(name, f"expected 0 to {most * 1e3:g} mm, got {value * 1e3:g} mm")
    _check_stock(shop)
    check_bought(shop.bought)
    check_offers(shop.offers, shop.postage)
    check_made(shop.made)
    check_by_hand(shop.by_hand)
    _check_pours(shop.pours)
    check_tests(shop.tests)
    check_done(shop.done)
    check_log(shop.log)
    check_cuts(shop.cuts)
    check_orders(shop.orders)
    if not 0.25 <= shop.hours_a_day <= 24.0:
        raise InputError("hours_a_day", f"expected a quarter of an hour to 24, got {shop.hours_a_day:g}")
    check_pace(shop.pace)
    check_printing(shop.printing)
    if not 0.0 <= shop.carried <= 30.0:
        raise InputError("carried", f"expected up to 30 m, or 0 for any length, got {shop.carried:g} m")


def _check_stock(shop: ShopState) -> None:
    for index, sheet in enumerate(shop.sheets[:MOST]):
        if not (0.05 <= sheet.length <= 20.0 and 0.05 <= sheet.width <= 20.0):
            raise InputError(f"sheets[{index}]", "expected a sheet of 50 mm to 20 m")
    if len(shop.sheets) > MOST:
        raise InputError("sheets", f"expected at most {MOST}, got {len(shop.sheets)}")
    if len(shop.bars) > MOST:
        raise InputError("bars", f"expected at most {MOST}, got {len(shop.bars)}")
    for index, one in enumerate(shop.bars):
        if not 0.01 <= one.length <= 30.0:
            raise InputError(f"bars[{index}].length", f"expected 10 mm to 30 m, got {one.length * 1e3:g} mm")
        if not 0.0 <= one.price <= 1e6 or not 0 <= one.own <= 1000:
            raise InputError(f"bars[{index}].price", "expected a price from 0, and up to 1000 pieces")


def _check_pours(pours: tuple[PourPlan, ...]) -> None:
    if len(pours) > MOST:
        raise InputError("pours", f"expected at most {MOST}, got {len(pours)}")
    seen = set()
    for index, one in enumerate(pours):
        try:
            check_pour(one)
        except InputError as error:
            raise InputError(f"pours[{index}].{error.where}", error.problem) from None
        if (one.candidate, one.part) in seen:
            raise InputError(f"pours[{index}].part", f'"{one.part}" is poured twice')
        seen.add((one.candidate, one.part))
