"""The list of parts: what, how much, how heavy, how dear."""

from dataclasses import dataclass

from unterbau.catalogue.prices import WHOLE, Amount, PriceBook, prices_of, whole_machine
from unterbau.structure.line import Line

UNPRICED = PriceBook("", "", ())
"""For counting masses and lengths only."""
MACHINE = "machine"
"""Part of what is bought for the machine as a whole."""


@dataclass(frozen=True, slots=True)
class Item:
    """One kind of piece of a part."""

    part: str
    """Key of the link it belongs to, or `feet`."""
    text: str
    count: int
    length: float
    """Of each piece, m; 0 where there is none to state."""
    mass: float
    """All pieces, kg."""
    money: float
    """All pieces."""
    priced: bool = True
    """Whether the price book knew it; without a price it counts nothing."""
    invented: bool = False
    """Whether a price that was shipped to start from is in it."""
    price: str = ""
    """The item of the price book that a price of its own would go under."""
    width: float = 0.0
    """Of each plate, m."""


def priced(lines: tuple[Line, ...], book: PriceBook) -> tuple[Item, ...]:
    """Return lines with their money, and behind them what every machine costs."""
    items = []
    for line in lines:
        found = prices_of(book, line.names)  # without names its price is in that of its set
        amount = Amount(line.count, line.count * line.length, line.mass)
        money = sum(price.amount * amount.of(price.per) for price in found)
        invented = any(price.invented for price in found)
        items.append(
            Item(
                line.part,
                line.text,
                line.count,
                line.length,
                line.mass,
                money,
                bool(found) or not line.names,
                invented,
                line.names[0] if line.names else "",
                line.width,
            )
        )
    items += [
        Item(MACHINE, price.item.removeprefix(WHOLE), 1, 0.0, 0.0, price.amount, True, price.invented, price.item)
        for price in whole_machine(book)
    ]
    return tuple(items)


@dataclass(frozen=True, slots=True)
class Cost:
    """What some items cost together."""

    money: float
    invented: bool
    """Whether prices that were shipped to start from are in it."""
    unpriced: tuple[str, ...]
    """What the price book does not know; it counts nothing."""


def cost(items: tuple[Item, ...]) -> Cost:
    """Return the cost of items."""
    unpriced = tuple(item.text for item in items if not item.priced and item.count)
    return Cost(sum(item.money for item in items), any(item.invented for item in items), unpriced)


def total_mass(items: tuple[Item, ...]) -> float:
    """Return the mass of all items, kg."""
    return sum(item.mass for item in items)
