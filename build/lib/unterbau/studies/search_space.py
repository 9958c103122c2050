"""What of a machine could vary in a search: each part's neighbours in what it is sold in, joints that fit, stances."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from unterbau.catalogue.joints import BOLTS, OWN
from unterbau.machine.machine import Machine, fitting, kind_of, links, part_at
from unterbau.machine.stepping import step
from unterbau.structure.parts import Drive, Guide, Joint, Member, Part, Plate
from unterbau.studies.designs import Free

AROUND = 2
"""Sizes smaller and larger than now that are offered."""
FACTORS = (0.8, 0.9, 1.0, 1.15, 1.3)
"""Of a stance or spacing as it is."""
SIZED = {Member: "section", Plate: "thickness", Guide: "block", Drive: "kind"}
WORDS = {"section": "section", "thickness": "thickness", "block": "size of blocks", "kind": "kind"}


@dataclass(frozen=True, slots=True)
class Offer:
    """One thing that may vary."""

    free: Free
    words: str
    """What it is, and how many values it has."""


def offered(machine: Machine) -> tuple[Offer, ...]:
    """Return what may vary, from tool to work, sizes last."""
    return (*_parts(machine), *_sizes(machine))


def _parts(machine: Machine) -> Iterator[Offer]:
    for link in links(machine):
        one = part_at(machine, link.key)
        field = next((name for sort, name in SIZED.items() if isinstance(one, sort)), "")
        if one is not None and field:
            values = _around(one, field)
            if len(values) > 1:
                yield _offer(link.key, field, values, f"{link.label}, {WORDS[field]}")
        elif isinstance(one, Joint):
            kinds = tuple(name for name in fitting(machine, link.key) if name not in (OWN, BOLTS))
            if len(kinds) > 1 and one.kind in kinds:
                yield _offer(link.key, "kind", kinds, f"{link.label}, how it is joined")


def _around(now: Part, field: str) -> tuple[Any, ...]:
    values = [getattr(now, field)]
    for up in (False, True):
        one: Part | None = now
        for _ in range(AROUND):
            one = step(one, up) if one is not None else None
            if one is not None:
                values.insert(len(values) if up else 0, getattr(one, field))
    return tuple(values)


def _sizes(machine: Machine) -> Iterator[Offer]:
    for one in kind_of(machine).sizes:
        if one.count or not one.attribute.endswith(("_stance", "_spacing")):
            continue
        now = getattr(machine.dimensions, one.attribute)
        values = tuple(sorted({round(now * factor, 4) for factor in FACTORS if one.low <= now * factor <= one.high}))
        if len(values) > 1:
            yield _offer("dimensions", one.attribute, values, one.words)


def _offer(key: str, field: str, values: tuple[Any, ...], words: str) -> Offer:
    return Offer(Free(key, field, values), f"{words}: {len(values)}")
