"""A kind of machine whose machines are put up from a kit, by one function."""

from collections.abc import Callable, Mapping
from functools import lru_cache
from typing import Any

from unterbau.band import Level
from unterbau.machine.bill import Line
from unterbau.machine.bodies import Body
from unterbau.machine.built import Built
from unterbau.machine.dimension_line import DimensionLine
from unterbau.machine.kind import Kind, Link, More, Related, SizeField
from unterbau.machine.kit.checks import check_parts, check_sizes
from unterbau.machine.kit.kit import Kit
from unterbau.machine.parts import Place

PutUp = Callable[[Kit], None]


def kind_of_kit(
    model: type, kind_id: str, label: str, good: str, bad: str, links: tuple[Link, ...], sizes: tuple[SizeField, ...],
    put_up: PutUp, *, ends: Mapping[str, str], fitting: Mapping[str, tuple[str, ...]],
    related: Mapping[str, tuple[Related, ...]], more: More | None = None,
    most_drives: Mapping[str, int] | None = None,
) -> Kind:  # fmt: skip
    """Return a kind whose frame, looks, parts and sizes come from one function that puts the machine up."""

    def check(machine: Any) -> None:
        check_sizes(machine.dimensions, sizes)
        check_parts(machine)

    def fresh(machine: Any, place: Place, level: Level) -> Kit:
        check(machine)
        kit = Kit(machine, place, level)
        put_up(kit)
        return kit

    @lru_cache(maxsize=64)
    def likely(machine: Any, place: Place) -> Kit:
        return fresh(machine, place, "likely")

    def build(machine: Any, place: Place, level: Level) -> Built:
        return (likely(machine, place) if level == "likely" else fresh(machine, place, level)).built()

    def bodies(machine: Any, place: Place) -> tuple[Body, ...]:
        return tuple(likely(machine, place).bodies)

    def lines(machine: Any) -> tuple[Line, ...]:
        return likely(machine, Place()).lines

    def moving(machine: Any) -> dict[str, float]:
        return dict(likely(machine, Place()).moving)

    def plate_widths(machine: Any) -> dict[str, float]:
        return dict(likely(machine, Place()).widths)

    def dimension_lines(machine: Any, place: Place) -> tuple[DimensionLine, ...]:
        return tuple(likely(machine, place).dimension_lines)

    def travel(machine: Any) -> tuple[float, float, float]:
        d = machine.dimensions
        return d.travel_x, d.travel_y, d.travel_z

    return Kind(
        model, kind_id, label, good, bad, links, sizes, travel, build, bodies, lines, moving, plate_widths,
        dimension_lines, ends, fitting, related, more, most_drives or {},
    )  # fmt: skip
