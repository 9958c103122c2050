"""What a person's shop has and does: saw cuts, bars on offer and in the rack. Saved with the project."""

from dataclasses import dataclass

from unterbau.errors import InputError
from unterbau.shop.cut_plan import Stock
from unterbau.strict import STRICT

MOST = 200


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
class ShopState:
    """The shop's side of a project."""

    __pydantic_config__ = STRICT

    kerf: float = 0.0025
    """Of a saw cut, m: a cold saw's."""
    trim: float = 0.005
    """Cut off each end of a bar, m."""
    bars: tuple[BarOffer, ...] = ()

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
        return ShopState(self.kerf, self.trim, (*rest, *bars))


def check_shop(shop: ShopState) -> None:
    """Check that a shop can be worked with.

    Raises:
        InputError: With the field at fault.
    """
    if not 0.0 <= shop.kerf <= 0.05:
        raise InputError("kerf", f"expected a saw cut of 0 to 50 mm, got {shop.kerf * 1e3:g} mm")
    if not 0.0 <= shop.trim <= 0.5:
        raise InputError("trim", f"expected 0 to 500 mm, got {shop.trim * 1e3:g} mm")
    if len(shop.bars) > MOST:
        raise InputError("bars", f"expected at most {MOST}, got {len(shop.bars)}")
    for index, one in enumerate(shop.bars):
        if not 0.01 <= one.length <= 30.0:
            raise InputError(f"bars[{index}].length", f"expected 10 mm to 30 m, got {one.length * 1e3:g} mm")
        if not 0.0 <= one.price <= 1e6 or not 0 <= one.own <= 1000:
            raise InputError(f"bars[{index}].price", "expected a price from 0, and up to 1000 pieces")
