"""Offers as they are typed: `Iron yard 12.50 from 10 in 5 days; Screw shop 11.90`; postage: `Iron yard 9`."""

import re

from unterbau.errors import InputError
from unterbau.shop.offers import Chosen, Offer, Postage
from unterbau.shop.typed_list import typed_list, typed_number

OFFER = re.compile(
    r"(?P<shop>.*?\S)\s+(?P<price>\d+(?:[.,]\d+)?)(?:\s*[A-Z€$£]{1,3})?"
    r"(?:\s+from\s+(?P<least>\d+)(?:\s+in\s+(?P<days>\d+)\s+days?)?"
    r"|\s+in\s+(?P<soon>\d+)\s+days?(?:\s+from\s+(?P<many>\d+))?)?"
)
SWALLOWED = re.compile(r"\d\s+(?:in|from)\b")
"""A price within the name of a shop: what follows it was not understood."""
EXPECTED = "expected offers as Iron yard 12.50 from 10 in 5 days; Screw shop 11.90"
SENT = "expected postage as Iron yard 9; Screw shop 5.50"


def read_line_offers(text: str, item: str) -> tuple[Offer, ...]:
    """Return the offers that a text tells for a line of the list.

    Raises:
        InputError: Says which of them cannot be read.
    """
    found = []
    for told in typed_list(text, OFFER, "offers", "offer", EXPECTED):
        if SWALLOWED.search(told["shop"]):
            raise InputError("offers", f'"{told.group()}" is no offer; {EXPECTED}')
        price = typed_number(told["price"])
        found.append(
            Offer(
                item,
                told["shop"],
                price,
                int(told["least"] or told["many"] or 1),
                int(told["days"] or told["soon"] or 0),
            )
        )
    return tuple(found)


def line_offers_text(offers: tuple[Offer, ...]) -> str:
    """Return offers as one types them."""
    words = []
    for one in offers:
        text = f"{one.shop} {one.price:g}"
        text += f" from {one.least}" if one.least > 1 else ""
        text += f" in {one.days} day{'s' if one.days != 1 else ''}" if one.days else ""
        words.append(text)
    return "; ".join(words)


def read_postage(text: str) -> tuple[Postage, ...]:
    """Return the postage that a text tells.

    Raises:
        InputError: Says which of it cannot be read.
    """
    found = []
    for told in typed_list(text, OFFER, "postage", "postage", SENT):
        if any(told[name] for name in ("least", "days", "soon", "many")):
            raise InputError("postage", f'"{told.group()}" is no postage; {SENT}')
        found.append(Postage(told["shop"], typed_number(told["price"])))
    return tuple(found)


def postage_text(postage: tuple[Postage, ...]) -> str:
    """Return postage as one types it."""
    return "; ".join(f"{one.shop} {one.money:g}" for one in postage)


def chosen_words(chosen: Chosen, currency: str) -> str:
    """Return where a basket is bought, in a line; nothing where nobody offers anything."""
    if not chosen.shops:
        return ""
    parts = []
    for shop in chosen.shops:
        mine = [one for one in chosen.choices if one.offer is not None and one.offer.shop == shop]
        lines = f"{len(mine)} line{'s' if len(mine) != 1 else ''}"
        parts.append(f"{shop}: {lines} for {sum(one.money for one in mine):.2f}")
    text = f"{'; '.join(parts)}; postage {chosen.postage:.2f}, with the book's prices for the rest {chosen.money:.0f}"
    soon = f", all that is offered here in {chosen.days} days" if chosen.days else ""
    return f"{text} {currency}{soon}"
