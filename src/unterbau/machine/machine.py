"""All kinds of machine behind one set of functions."""

from collections.abc import Mapping
from dataclasses import fields, replace
from functools import lru_cache
from typing import Any, TypeAlias, TypeVar

from unterbau.band import Level
from unterbau.catalogue.prices import PriceBook
from unterbau.machine.changes.change import LeftOut, Partless, joint_key, part_key, parts_of
from unterbau.machine.changes.linked import change_links, changed_part, fitting_joints, with_changed_part
from unterbau.machine.contact import brought_together as closed_gaps
from unterbau.machine.contact import check_contact
from unterbau.machine.kind import Kind, Link
from unterbau.machine.kinds import (
    arm_mill,
    braced_mill,
    column_mill,
    fixed_bridge,
    lathe,
    light_table,
    moving_gantry,
    raised_sides,
    slab_router,
    wall_axis,
)
from unterbau.machine.kinds.arm_mill import ArmMill
from unterbau.machine.kinds.braced_mill import BracedMill
from unterbau.machine.kinds.column_mill import ColumnMill
from unterbau.machine.kinds.fixed_bridge import FixedBridge
from unterbau.machine.kinds.lathe import Lathe
from unterbau.machine.kinds.light_table import LightTable
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.kinds.raised_sides import RaisedSides
from unterbau.machine.kinds.slab_router import SlabRouter
from unterbau.machine.kinds.wall_axis import WallAxis
from unterbau.model.built import Built
from unterbau.model.standing import Standing
from unterbau.model.to_frame import standing as standing_of
from unterbau.model.to_frame import standing_built as standing_built_of
from unterbau.model.to_frame import to_frame as frame_of
from unterbau.parts_list.bill import UNPRICED, Cost, Item, cost, priced
from unterbau.solids.heads import heads_of
from unterbau.structure.bodies import Body
from unterbau.structure.dimension_line import DimensionLine
from unterbau.structure.line import Line
from unterbau.structure.lines import keys_of, lines_of
from unterbau.structure.lines import moving_masses as masses_moved
from unterbau.structure.lines import plate_widths as widths_of
from unterbau.structure.looks import looks
from unterbau.structure.parts import Part, Place
from unterbau.structure.stand import REST
from unterbau.structure.structure import Structure

Router: TypeAlias = MovingGantry | RaisedSides | FixedBridge | LightTable | SlabRouter
Mill: TypeAlias = ColumnMill | ArmMill | BracedMill
Machine: TypeAlias = Router | Mill | Lathe | WallAxis
M = TypeVar("M", bound=Machine)
KINDS: tuple[Kind, ...] = (
    moving_gantry.KIND,
    raised_sides.KIND,
    fixed_bridge.KIND,
    column_mill.KIND,
    arm_mill.KIND,
    braced_mill.KIND,
    lathe.KIND,
    wall_axis.KIND,
    light_table.KIND,
    slab_router.KIND,
)
"""In the order in which they are offered."""
_BY_MODEL = {kind.model: kind for kind in KINDS}


def kind_of(machine: Machine) -> Kind:
    """Return what is known of a machine's kind."""
    return _BY_MODEL[type(machine)]


def lay_out(machine: Machine) -> Structure:
    """Return the pieces of a machine.

    Raises:
        InputError: Dimensions or names that make no machine.
    """
    return kind_of(machine).lay_out(machine)


def check_touching(machine: Machine) -> None:
    """Check that a machine's parts touch where they are fastened.

    Raises:
        ContactError: Names the size to change.
        InputError: Dimensions or names that make no machine.
    """
    check_contact(kind_of(machine), machine)


def brought_together(machine: M, fixed: frozenset[str] = frozenset()) -> M:
    """Return a machine with sizes, but for fixed ones, changed just so far that its parts touch.

    Raises:
        ContactError: No size closes a gap.
        InputError: Dimensions or names that make no machine.
    """
    touching: M = closed_gaps(kind_of(machine), machine, fixed)
    return touching


def to_frame(machine: Machine, place: Place, level: Level = "likely") -> Built:
    """Return the frame of a machine with its head at a place.

    Raises:
        InputError: Dimensions or names that make no machine, or parts that do not touch.
    """
    check_contact(kind_of(machine), machine)
    return frame_of(lay_out(machine), place, level)


def standing(machine: Machine, place: Place) -> Standing:
    """Return where what moves stands with the head at a place.

    Raises:
        InputError: Dimensions or names that make no machine, or parts that do not touch.
    """
    check_contact(kind_of(machine), machine)
    return standing_of(lay_out(machine), place)


def standing_built(machine: Machine, place: Place) -> Standing:
    """Return the same for a place that the frame is built at anyway.

    Raises:
        InputError: Dimensions or names that make no machine.
    """
    return standing_built_of(lay_out(machine), place)


def links(machine: Machine) -> tuple[Link, ...]:
    """Return the links of the load path from tool to work, what was added behind them, without what is left out."""
    kind = kind_of(machine)
    if not machine.changes:
        return kind.links
    gone = _left_out(machine)
    return (*(one for one in kind.links if one.key not in gone), *change_links(machine.changes))


@lru_cache(maxsize=64)
def _left_out(machine: Machine) -> frozenset[str]:
    """Return the links that have no pieces left."""
    if not any(isinstance(one, LeftOut) for one in machine.changes):
        return frozenset()
    whole: Machine = replace(machine, changes=())
    return keys_of(lay_out(whole)) - keys_of(lay_out(machine))


def link(machine: Machine, key: str) -> Link:
    """Return a link of the load path, or the machine's sizes, by key."""
    return next(one for one in (*links(machine), kind_of(machine).size_link) if one.key == key)


def rest(machine: Machine) -> str:
    """Return the group of what is off the path."""
    del machine
    return REST


@lru_cache(maxsize=128)
def lines(machine: Machine) -> tuple[Line, ...]:
    """Return the list of parts."""
    return lines_of(lay_out(machine))


def bill_of(machine: Machine, book: PriceBook = UNPRICED) -> tuple[Item, ...]:
    """Return the list of parts with masses and, by a price book, money."""
    return priced(lines(machine), book)


@lru_cache(maxsize=128)
def cost_of(machine: Machine, book: PriceBook) -> Cost:
    """Return what a machine costs by a price book."""
    return cost(bill_of(machine, book))


def moving_masses(machine: Machine) -> dict[str, float]:
    """Return what each drive moves, kg, by axis X, Y, Z."""
    return dict(_masses_moved(machine))


@lru_cache(maxsize=128)
def _masses_moved(machine: Machine) -> dict[str, float]:
    return masses_moved(lay_out(machine))


def listed_mass(machine: Machine) -> float:
    """Return the mass of all pieces of a machine as they are sawn and bought, kg."""
    return sum(line.mass for line in lines(machine))


def part(machine: Machine, key: str) -> Part:
    """Return the part, joint, guide or drive behind a link."""
    added = changed_part(machine.changes, key)
    if added is not None:
        return added
    found: Part = getattr(machine, key)
    return found


def part_at(machine: Machine, key: str) -> Part | None:
    """Return the part behind a link, or nothing where there is none."""
    return changed_part(machine.changes, key) or getattr(machine, key, None)


def parts(machine: Machine) -> tuple[tuple[str, Part], ...]:
    """Return all parts of a machine with their keys: of its kind, then what was added."""
    own = tuple((one.name, getattr(machine, one.name)) for one in fields(machine))
    added = tuple(pair for one in machine.changes if not isinstance(one, Partless) for pair in parts_of(one))
    return (*((key, found) for key, found in own if isinstance(found, Part)), *added)


def fitting(machine: Machine, key: str) -> tuple[str, ...]:
    """Return the kinds of joint that make sense at a link."""
    own = fitting_joints(machine.changes, key)
    return kind_of(machine).fitting.get(key, ()) if own is None else own


def not_standing(machine: Machine) -> Mapping[str, str]:
    """Return the changes that have lost their footing, and why."""
    return lay_out(machine).fallen


def plate_widths(machine: Machine) -> dict[str, float]:
    """Return the width of each plate across its bending, m."""
    return widths_of(lay_out(machine))


def with_part(machine: M, key: str, changed: Part) -> M:
    """Return the machine with one part replaced."""
    added = with_changed_part(machine.changes, key, changed)
    if added is not None:
        return replace(machine, changes=added)
    own: dict[str, Any] = {key: changed}
    return replace(machine, **own)


def travel(machine: Machine) -> tuple[float, float, float]:
    """Return the travel of the head along x, y, z, m."""
    return kind_of(machine).travel(machine)


def bodies_of(machine: Machine, place: Place, screws: bool = False) -> tuple[Body, ...]:
    """Return what is drawn of a machine with its head at a place."""
    structure = lay_out(machine)
    return looks(structure, place, screws, heads_of(structure).sunk if screws else frozenset())


def dimension_lines(machine: Machine, place: Place) -> tuple[DimensionLine, ...]:
    """Return the machine's sizes as dimension lines of its front and side view."""
    structure = lay_out(machine)
    way = structure.way(place)
    return tuple(one.at(way) for one in structure.sizes)


def ends(machine: Machine) -> dict[str, str]:
    """Return for each part the joint at its ends."""
    added: dict[str, str] = {part_key(one): joint_key(one) for one in machine.changes if not isinstance(one, Partless)}
    return {**kind_of(machine).ends, **added}


def lengths(machine: Machine) -> dict[str, float]:
    """Return the length of each part that is cut to length, m."""
    return {line.part: line.length for line in reversed(lines(machine)) if line.length}
