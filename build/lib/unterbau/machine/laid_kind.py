"""A kind of machine whose machines are laid out by one function."""

from collections.abc import Callable, Mapping
from dataclasses import fields
from functools import lru_cache
from typing import Protocol, TypeVar

from unterbau.machine.assemblies.cast_base import stand_on_base
from unterbau.machine.assemblies.checks import check_parts, check_sizes, check_stances
from unterbau.machine.changes.applying import changed
from unterbau.machine.changes.change import Changes
from unterbau.machine.changes.checks import check_changes
from unterbau.machine.kind import HOLDERS, Kind, Link, More, Related, SizeField
from unterbau.structure.layout import Layout
from unterbau.structure.parts import Place, Sizes, Stand
from unterbau.structure.structure import LAID_OUT, Structure
from unterbau.structure.vectors import Vector


class Changed(Protocol):
    """A machine with its changes."""

    @property
    def changes(self) -> Changes:
        """What is added to it or left out."""
        ...


M = TypeVar("M", bound=Changed)
KEPT = 24


def sizes_of(machine: object) -> Sizes:
    """Return the sizes of a machine that one decides on."""
    found: Sizes = machine.dimensions  # type: ignore[attr-defined]
    return found


def travel_of(machine: object) -> tuple[float, float, float]:
    """Return the travel of a machine's head along x, y, z, m."""
    d = sizes_of(machine)
    return getattr(d, "travel_x", 0.0), getattr(d, "travel_y", 0.0), getattr(d, "travel_z", 0.0)


def even_way(machine: object, place: Place) -> Vector:
    """Return how far each axis has gone to a place, m, where it goes evenly over its travel."""
    x, y, z = travel_of(machine)
    return ((place.x - LAID_OUT.x) * x, (place.y - LAID_OUT.y) * y, (place.z - LAID_OUT.z) * z)


def _holders(model: type) -> dict[str, tuple[str, ...]]:
    return {"collet": HOLDERS} if "collet" in {one.name for one in fields(model)} else {}


def laid_kind(
    model: type[M], kind_id: str, label: str, good: str, bad: str, links: tuple[Link, ...],
    sizes: tuple[SizeField, ...],
    put_up: Callable[[Layout[M]], None], *, ends: Mapping[str, str], fitting: Mapping[str, tuple[str, ...]],
    related: Mapping[str, tuple[Related, ...]], more: More | None = None,
    most_drives: Mapping[str, int] | None = None, carrying: tuple[str, ...] = (),
    faces: tuple[str, str] | None = None, ribbed: tuple[str, ...] = (), gusseted: tuple[str, ...] = (),
    way: Callable[[M, Place], Vector] = even_way,
) -> Kind:  # fmt: skip
    """Return a kind whose structures come from one function that lays the machine out."""
    most = most_drives or {}

    @lru_cache(maxsize=KEPT)
    def lay_out(machine: M) -> Structure:
        check_sizes(sizes_of(machine), sizes)
        check_parts(machine, most, ribbed, gusseted)
        check_stances(machine, sizes_of(machine))
        check_changes(machine.changes)
        lay = Layout(machine)
        put_up(lay)
        stand: Stand | None = getattr(machine, "stand", None)
        if stand is not None and stand.kind == "base":
            stand_on_base(lay, stand)
        whole = lay.structure(stand, lambda place: way(machine, place))
        return changed(whole, machine.changes)

    return Kind(
        model, kind_id, label, good, bad, links, sizes, travel_of, lay_out, ends, {**fitting, **_holders(model)},
        related, more, most, carrying, faces, ribbed, gusseted,
    )  # fmt: skip
