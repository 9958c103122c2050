"""The price book: prices per metre, kilogram, piece, or once. Shipped figures are invented and say so."""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import lru_cache
from typing import Any, Literal

from unterbau.catalogue.tables import table
from unterbau.errors import InputError
from unterbau.hashed import Hashed, hashed_once
from unterbau.strict import STRICT

Per = Literal["metre", "kilogram", "piece", "fixed"]
PERS: tuple[Per, ...] = ("metre", "kilogram", "piece", "fixed")
WHOLE = "machine:"
"""Items of this prefix count once for every machine, whatever it is made of."""


@dataclass(frozen=True, slots=True)
class Price:
    """One line of the book."""

    __pydantic_config__ = STRICT

    item: str
    """What it is for: `bar:steel`, `joint:bracket`, `section:rhs-80x40x4`, `machine:words of one's own`."""
    per: Per
    amount: float
    invented: bool = False
    """Shipped to start from, not anybody's price."""


@hashed_once
@dataclass(frozen=True, slots=True)
class PriceBook(Hashed):
    """Prices in one currency at one date."""

    __pydantic_config__ = STRICT

    currency: str
    date: str
    prices: tuple[Price, ...]


@dataclass(frozen=True, slots=True)
class Amount:
    """What is bought of something, in every way it could be priced."""

    pieces: float = 0.0
    metres: float = 0.0
    mass: float = 0.0

    def of(self, per: Per) -> float:
        """Return the number of units that a price counts."""
        return {"metre": self.metres, "kilogram": self.mass, "piece": self.pieces, "fixed": 1.0}[per]


@lru_cache(maxsize=64)
def _by_item(book: PriceBook) -> dict[str, tuple[Price, ...]]:
    found: dict[str, tuple[Price, ...]] = {}
    for price in book.prices:
        found[price.item] = (*found.get(price.item, ()), price)
    return found


def prices_of(book: PriceBook, items: tuple[str, ...]) -> tuple[Price, ...]:
    """Return the lines that price something: those of the first of its names that the book knows."""
    known = _by_item(book)
    return next((known[item] for item in items if item in known), ())


def whole_machine(book: PriceBook) -> Iterable[Price]:
    """Return what every machine costs beside its parts."""
    return (price for price in book.prices if price.item.startswith(WHOLE))


def money_text(amount: float, book: PriceBook) -> str:
    """Return an amount for reading, in the book's currency."""
    return f"{amount:.0f} {book.currency}"


def check_prices(book: PriceBook) -> None:
    """Check that a book can be counted with.

    Raises:
        InputError: With the path of the first fault.
    """
    if not 1 <= len(book.currency.strip()) <= 8:
        raise InputError("currency", "expected a currency of 1 to 8 letters, such as EUR")
    if not 0 <= len(book.date) <= 40:
        raise InputError("date", "expected a date of at most 40 characters")
    seen: set[tuple[str, str]] = set()
    for index, price in enumerate(book.prices):
        where = f"prices[{index}]"
        kind, colon, name = price.item.partition(":")
        if price.item not in SINGLES and (not colon or kind not in KINDS or not name.strip() or len(name) > 120):
            raise InputError(f"{where}.item", f'"{price.item}" names nothing that can be priced')
        if not 0.0 <= price.amount <= 1e9:
            raise InputError(f"{where}.amount", f"expected 0 to 1e9, got {price.amount:g}")
        if (price.item, price.per) in seen:
            raise InputError(f"{where}.item", f'"{price.item}" has two prices per {price.per}')
        if kind == "machine" and price.per != "fixed":
            raise InputError(f"{where}.per", "what the whole machine needs is a fixed amount")
        seen.add((price.item, price.per))


KINDS = {
    "bar": "bar and tube, {}", "slotted": "slotted profile, {}", "plate": "plate, cut, {}", "fill": "fill, {}",
    "section": "{}", "joint": "joint: {}", "block": "guide block, {}", "rail": "rail, {}",
    "drive": "{}, with motor",
    "motor": "{}, more than a stepper",
    "machine": "{}",
}  # fmt: skip
"""Sorts of items and their words."""
SINGLES = {"spindle": "spindle", "cutter": "cutter", "foot": "levelling foot", "drag-chain": "drag chain"}


def words(item: str, name: str) -> str:
    """Return an item in words; `name` is what its second half is called."""
    return SINGLES.get(item) or KINDS[item.partition(":")[0]].format(name)


@lru_cache(maxsize=1)
def shipped_prices() -> PriceBook:
    """Return the price book to start from."""
    data: dict[str, Any] = table("prices")
    rows = tuple(Price(item, per, float(amount), True) for item, per, amount in data["prices"])
    return PriceBook(data["currency"], data["date"], rows)
