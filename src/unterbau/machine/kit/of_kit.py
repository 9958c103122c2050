"""A kind of machine whose machines are put up from a kit, by one function."""

from collections.abc import Callable, Mapping
from dataclasses import fields
from functools import lru_cache
from typing import Any

from unterbau.band import Level
from unterbau.machine.bill import Line
from unterbau.machine.built import Built
from unterbau.machine.kind import HOLDERS, Kind, Link, More, Related, SizeField
from unterbau.machine.kit.checks import check_parts, check_sizes
from unterbau.machine.kit.kit import Kit
from unterbau.structure.bodies import Body
from unterbau.structure.dimension_line import DimensionLine
from unterbau.structure.parts import Place

PutUp = Callable[[Kit], None]


class _Works:
    """Puts machines of one kind up; the last few stand ready."""

    def __init__(self, sizes: tuple[SizeField, ...], put_up: PutUp, most_drives: Mapping[str, int]) -> None:
        self._sizes, self._put_up, self._most_drives = sizes, put_up, most_drives
        self.up = lru_cache(maxsize=64)(self._fresh)
        self.build = lru_cache(maxsize=64)(self._build)

    def _fresh(self, machine: Any, place: Place) -> Kit:
        check_sizes(machine.dimensions, self._sizes)
        check_parts(machine, self._most_drives)
        kit = Kit(machine, place)
        self._put_up(kit)
        kit.stand_up()
        return kit

    def _build(self, machine: Any, place: Place, level: Level) -> Built:
        return self.up(machine, place).built(level)

    def bodies(self, machine: Any, place: Place) -> tuple[Body, ...]:
        return tuple(self.up(machine, place).bodies)

    def lines(self, machine: Any) -> tuple[Line, ...]:
        return self.up(machine, Place()).lines

    def moving(self, machine: Any) -> dict[str, float]:
        return dict(self.up(machine, Place()).moving)

    def plate_widths(self, machine: Any) -> dict[str, float]:
        return dict(self.up(machine, Place()).widths)

    def dimension_lines(self, machine: Any, place: Place) -> tuple[DimensionLine, ...]:
        return tuple(self.up(machine, place).dimension_lines)


def _travel(machine: Any) -> tuple[float, float, float]:
    d = machine.dimensions
    return getattr(d, "travel_x", 0.0), getattr(d, "travel_y", 0.0), getattr(d, "travel_z", 0.0)


def _holders(model: type) -> dict[str, tuple[str, ...]]:
    return {"collet": HOLDERS} if "collet" in {one.name for one in fields(model)} else {}


def kind_of_kit(
    model: type, kind_id: str, label: str, good: str, bad: str, links: tuple[Link, ...], sizes: tuple[SizeField, ...],
    put_up: PutUp, *, ends: Mapping[str, str], fitting: Mapping[str, tuple[str, ...]],
    related: Mapping[str, tuple[Related, ...]], more: More | None = None,
    most_drives: Mapping[str, int] | None = None, carrying: tuple[str, ...] = (),
) -> Kind:  # fmt: skip
    """Return a kind whose frame, looks, parts and sizes come from one function that puts the machine up."""
    works = _Works(sizes, put_up, most_drives or {})
    return Kind(
        model, kind_id, label, good, bad, links, sizes, _travel, works.build, works.bodies, works.lines, works.moving,
        works.plate_widths, works.dimension_lines, ends, {**fitting, **_holders(model)}, related, more,
        most_drives or {}, carrying,
    )  # fmt: skip
