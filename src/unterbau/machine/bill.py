"""The list of parts: what, how much, how heavy, how dear."""

from dataclasses import dataclass


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


def total_money(items: tuple[Item, ...]) -> float:
    """Return the money of all items."""
    return sum(item.money for item in items)


def total_mass(items: tuple[Item, ...]) -> float:
    """Return the mass of all items, kg."""
    return sum(item.mass for item in items)
