"""What the items of a price book are called, and which items a book could hold."""

from unterbau.catalogue.drives import drives, motors
from unterbau.catalogue.guides import blocks
from unterbau.catalogue.joints import joints
from unterbau.catalogue.prices import SINGLES, words
from unterbau.errors import InputError
from unterbau.materials.material import materials
from unterbau.sections.section import section
from unterbau.sections.solved import OWN

FILLS = ("stone", "loose", "resin")
"""Kinds of material that a hollow is filled with."""


def item_label(item: str) -> str:
    """Return an item of the price book in words; one that is unknown is called by its own name."""
    kind, _, name = item.partition(":")
    found = name
    if kind in ("bar", "slotted", "plate", "fill"):
        found = materials()[name].label if name in materials() else name
    elif kind == "joint" and name in joints():
        found = joints()[name].label
    elif kind in ("block", "rail") and name in blocks():
        found = blocks()[name].label
    elif kind == "drive" and name in drives():
        found = drives()[name].label
    elif kind == "motor" and name in motors():
        found = motors()[name].label
    elif kind == "section":
        try:
            found = _own_label(name) if name.startswith(OWN) else section(name).label
        except InputError:
            found = name
    return words(item, found)


def _own_label(name: str) -> str:
    """Return what one of the builder's own sections is called: its name begins with that and ends with a number."""
    return name.removeprefix(OWN).rpartition("-")[0].replace("-", " ") or name


def known_items() -> tuple[str, ...]:
    """Return every item whose price the program can use, in the order of a shop's list."""
    cards = materials().values()
    names = tuple(dict.fromkeys([*(card.kind for card in cards), *(card.id for card in cards)]))
    return (
        *(f"bar:{name}" for name in names),
        "slotted:aluminium",
        *(f"plate:{name}" for name in names),
        *dict.fromkeys(f"fill:{card.kind}" for card in cards if card.kind in FILLS),
        *(f"fill:{card.id}" for card in cards if card.kind in FILLS),
        *(f"joint:{name}" for name in joints()),
        *(f"{sort}:{name}" for sort in ("rail", "block") for name in blocks()),
        *(f"drive:{name}" for name in drives()),
        *(f"motor:{name}" for name in motors()),
        *SINGLES,
    )
