"""The list of parts as it is had: stock for what one makes, what others make, prints, all else bought; bars whole."""

from dataclasses import dataclass

from unterbau.parts_list.bill import Item
from unterbau.shop.bars import BarPlan
from unterbau.shop.making import How, MadeBy, how_of
from unterbau.shop.pieces import ShopPiece
from unterbau.shop.shopping import ORDER, Basket, item_key

CUT = ("bar", "slotted", "plate", "section")
"""Price names of what pieces are made from."""


def hows_of(
    items: tuple[Item, ...], pieces: tuple[ShopPiece, ...], candidate: str, told: tuple[MadeBy, ...],
    tools: tuple[str, ...],
) -> dict[str, How]:  # fmt: skip
    """Return how each item of a list is had, by its key: as the piece that is made of it, or bought."""
    by_part: dict[str, list[ShopPiece]] = {}
    for one in pieces:
        by_part.setdefault(one.part, []).append(one)
    found: dict[str, How] = {}
    for item in items:
        rows = by_part.get(item.part, []) if item.price.partition(":")[0] in CUT else []
        piece = min(rows, key=lambda one: abs(one.length - item.length) + abs(one.width - item.width), default=None)
        found[item_key(item)] = "buy" if piece is None else how_of(piece, candidate, told, tools)
    return found


@dataclass(frozen=True, slots=True)
class Group:
    """Lines that are had alike."""

    how: How
    lines: int
    money: float
    """Of all that is needed of it."""


def groups_of(basket: Basket) -> tuple[Group, ...]:
    """Return a list's groups, those that have lines, in order."""
    found = []
    for how in ORDER:
        rows = [row for row in basket.rows if row.how == how]
        if rows:
            found.append(Group(how, len(rows), sum(row.money for row in rows if row.count)))
    return tuple(found)


@dataclass(frozen=True, slots=True)
class Whole:
    """What bars cost that are bought whole."""

    pieces: float
    """Money of the pieces alone, as the list counts them."""
    bars: float
    """Money of the bars that have to be bought."""


def bought_whole(plans: tuple[BarPlan, ...], items: tuple[Item, ...]) -> Whole:
    """Return what the bars of plans cost against the share of them that the list counts.

    Bars with a price cost that; others as much a metre as the list takes for their pieces.
    """
    pieces = bars = 0.0
    for one in plans:
        if one.plan is None:
            continue
        keys = {piece.part for piece in one.pieces}
        listed = [item for item in items if item.part in keys and item.price.partition(":")[0] in CUT and item.length]
        mine = [item for item in listed if item.width == 0.0]
        money, long = sum(item.money for item in mine), sum(item.length * item.count for item in mine)
        bought = [bar.stock for bar in one.plan.bars if bar.stock.available is None]
        priced = any(stock.price for stock in bought)
        pieces += money
        if priced:
            bars += sum(stock.price for stock in bought)
        elif long:
            bars += money / long * sum(stock.length for stock in bought)
    return Whole(pieces, bars)
