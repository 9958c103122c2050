"""A kind of machine whose machines are laid out by one function."""

from collections.abc import Callable, Mapping
from dataclasses import fields
from functools import lru_cache
from typing import Any

from unterbau.machine.assemblies.checks import check_parts, check_sizes
from unterbau.machine.assemblies.pieces import Lay
from unterbau.machine.kind import HOLDERS, Kind, Link, More, Related, SizeField
from unterbau.structure.parts import Place
from unterbau.structure.structure import LAID_OUT, Structure
from unterbau.structure.vectors import Vector

PutUp = Callable[[Lay], None]
Way = Callable[[Any, Place], Vector]
KEPT = 64


def travel_of(machine: Any) -> tuple[float, float, float]:
    """Return the travel of a machine's head along x, y, z, m."""
    d = machine.dimensions
    return getattr(d, "travel_x", 0.0), getattr(d, "travel_y", 0.0), getattr(d, "travel_z", 0.0)


def even_way(machine: Any, place: Place) -> Vector:
    """Return how far each axis has gone to a place, m, where it goes evenly over its travel."""
    x, y, z = travel_of(machine)
    return ((place.x - LAID_OUT.x) * x, (place.y - LAID_OUT.y) * y, (place.z - LAID_OUT.z) * z)


def _holders(model: type) -> dict[str, tuple[str, ...]]:
    return {"collet": HOLDERS} if "collet" in {one.name for one in fields(model)} else {}


def kind_of_kit(
    model: type, kind_id: str, label: str, good: str, bad: str, links: tuple[Link, ...], sizes: tuple[SizeField, ...],
    put_up: PutUp, *, ends: Mapping[str, str], fitting: Mapping[str, tuple[str, ...]],
    related: Mapping[str, tuple[Related, ...]], more: More | None = None,
    most_drives: Mapping[str, int] | None = None, carrying: tuple[str, ...] = (), way: Way = even_way,
) -> Kind:  # fmt: skip
    """Return a kind whose structures come from one function that lays the machine out."""
    most = most_drives or {}

    @lru_cache(maxsize=KEPT)
    def lay_out(machine: Any) -> Structure:
        check_sizes(machine.dimensions, sizes)
        check_parts(machine, most)
        lay = Lay(machine)
        put_up(lay)
        return lay.structure(getattr(machine, "stand", None), lambda place: way(machine, place))

    return Kind(
        model, kind_id, label, good, bad, links, sizes, travel_of, lay_out, ends, {**fitting, **_holders(model)},
        related, more, most, carrying,
    )  # fmt: skip
