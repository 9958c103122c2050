"""Lines of the list of parts in words, with the part of the machine that each is of."""

import re

from unterbau.machine.machine import Machine, links
from unterbau.parts_list.bill import MACHINE, Item
from unterbau.structure.stand import REST
from unterbau.units import Units, length_text

SIZED = re.compile(r"(\d+(?:\.\d+)?) mm\b")
OTHERS = {REST: "feet", "stand": "stand", MACHINE: "whole machine"}


def whose(machine: Machine, item: Item) -> str:
    """Return the part of a machine that an item is of."""
    label = next((link.label for link in links(machine) if link.key == item.part), None)
    return label or OTHERS.get(item.part, item.part.replace("_", " "))


def size_words(item: Item, units: Units) -> str:
    """Return length, of plates by width, or nothing."""
    if not item.length:
        return ""
    if not item.width:
        return length_text(item.length, units)
    long, wide = (length_text(side, units, with_unit=False) for side in (item.length, item.width))
    return f"{long} × {wide} {'mm' if units == 'mm' else 'in'}"


def item_words(item: Item, units: Units) -> str:
    """Return how many of what, and how large."""
    size = size_words(item, units)
    return f"{item.count} × {text_words(item.text, units)}{', ' if size else ''}{size}"


def text_words(text: str, units: Units) -> str:
    """Return what a thing is called with its sizes as they are read; what is sold by a metric name keeps it."""
    return text if units == "mm" else SIZED.sub(lambda found: length_text(float(found[1]) * 1e-3, units), text)
