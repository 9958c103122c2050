"""Offers of several shops for what is bought: price breaks, days, postage; the cheapest basket, or the soonest."""

from dataclasses import dataclass, replace
from itertools import chain, combinations
from typing import Literal, get_args

from unterbau.errors import InputError
from unterbau.shop.shopping import Row
from unterbau.strict import STRICT

Wish = Literal["cheapest", "soonest"]
WISHES: tuple[Wish, ...] = get_args(Wish)
MOST_SHOPS = 10
MOST_OFFERS = 2000
LONGEST = 120


@dataclass(frozen=True, slots=True)
class Offer:
    """What a shop asks for each piece of a line, from so many on."""

    __pydantic_config__ = STRICT

    item: str
    """Key of the line."""
    shop: str
    price: float
    """Each."""
    least: int = 1
    """From so many on."""
    days: int = 0
    """Until it is here."""


@dataclass(frozen=True, slots=True)
class Postage:
    """What a shop asks for sending, whatever is sent."""

    __pydantic_config__ = STRICT

    shop: str
    money: float


@dataclass(frozen=True, slots=True)
class Choice:
    """Where a line is bought."""

    row: Row
    offer: Offer | None
    """None where the price book's money stands."""

    @property
    def money(self) -> float:
        """Of all pieces that are still to be bought."""
        if self.offer is None:
            return self.row.money * self.wanted / self.row.count if self.row.count else 0.0
        return self.offer.price * max(self.wanted, self.offer.least)

    @property
    def wanted(self) -> int:
        """How many are still to be bought."""
        return max(0, self.row.missing)


@dataclass(frozen=True, slots=True)
class Chosen:
    """A basket: what is bought where."""

    choices: tuple[Choice, ...]
    postage: float
    shops: tuple[str, ...]

    @property
    def money(self) -> float:
        """With postage."""
        return sum(one.money for one in self.choices) + self.postage

    @property
    def days(self) -> int:
        """Until the last of what is offered is here."""
        return max((one.offer.days for one in self.choices if one.offer is not None), default=0)


def choose(
    rows: tuple[Row, ...], offers: tuple[Offer, ...], postage: tuple[Postage, ...], wish: Wish
) -> Chosen:  # fmt: skip
    """Return where each line that is still to be bought is bought best.

    Every set of shops is tried, each with the best offer of its shops for every line: with postage the cheapest is
    not the sum of the cheapest. A line that some shop offers is bought from a shop; nobody's line keeps the price
    book's money. Soonest: no later than it has to be for all, and the
    cheapest of what comes by then.

    Raises:
        InputError: More shops than can all be tried.
    """
    wanted = tuple(row for row in rows if row.count and row.missing > 0)
    keys = {row.item for row in wanted}
    usable = [one for one in offers if one.item in keys]
    if wish == "soonest" and usable:
        soonest: dict[str, int] = {}
        for one in usable:
            soonest[one.item] = min(soonest.get(one.item, one.days), one.days)
        usable = [one for one in usable if one.days <= max(soonest.values())]
    shops = sorted({one.shop for one in usable})
    if len(shops) > MOST_SHOPS:
        raise InputError("offers", f"expected at most {MOST_SHOPS} shops for one list, got {len(shops)}")
    costs = {one.shop: one.money for one in postage}
    best: Chosen | None = None
    for some in chain.from_iterable(combinations(shops, n) for n in range(len(shops) + 1)):
        found = _from(wanted, [one for one in usable if one.shop in some], {one.item for one in usable}, costs)
        if found is not None and (best is None or _worth(found) < _worth(best)):
            best = found
    return best or Chosen((), 0.0, ())


def _worth(one: Chosen) -> tuple[float, int, int]:
    return (round(one.money, 6), one.days, len(one.shops))


def _from(rows: tuple[Row, ...], offers: list[Offer], offered: set[str], costs: dict[str, float]) -> Chosen | None:
    choices = []
    for row in rows:
        mine = [Choice(row, one) for one in offers if one.item == row.item]
        if not mine and row.item in offered:
            return None
        mine.sort(key=lambda one: (one.money, one.offer.days if one.offer else 0))
        choices.append(mine[0] if mine else Choice(row, None))
    used = tuple(sorted({one.offer.shop for one in choices if one.offer is not None}))
    return Chosen(tuple(choices), sum(costs.get(shop, 0.0) for shop in used), used)


def with_offers(offers: tuple[Offer, ...], item: str, mine: tuple[Offer, ...]) -> tuple[Offer, ...]:
    """Return all offers with others for a line."""
    return (*(one for one in offers if one.item != item), *(replace(one, item=item) for one in mine))


def check_offers(offers: tuple[Offer, ...], postage: tuple[Postage, ...]) -> None:
    """Check offers.

    Raises:
        InputError: With the place of the first fault.
    """
    if len(offers) > MOST_OFFERS or len(postage) > MOST_OFFERS:
        raise InputError("offers", f"expected at most {MOST_OFFERS}, got {max(len(offers), len(postage))}")
    for index, one in enumerate(offers):
        if not 0.0 <= one.price <= 1e6 or not 1 <= one.least <= 100_000 or not 0 <= one.days <= 3650:
            raise InputError(f"offers[{index}]", "expected a price from 0, a count from 1, and up to 3650 days")
        if not one.shop.strip() or max(len(one.shop), len(one.item)) > 3 * LONGEST:
            raise InputError(f"offers[{index}].shop", "expected a shop's name")
    for index, sent in enumerate(postage):
        if not 0.0 <= sent.money <= 1e5 or not sent.shop.strip():
            raise InputError(f"postage[{index}]", "expected a shop's name and money from 0")
