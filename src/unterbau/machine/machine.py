"""All kinds of machine behind one set of functions."""

from dataclasses import replace
from functools import lru_cache
from typing import Any, TypeAlias

from unterbau.band import Level
from unterbau.catalogue.prices import PriceBook
from unterbau.machine.bill import UNPRICED, Cost, Item, cost
from unterbau.machine.bodies import Body
from unterbau.machine.built import Built
from unterbau.machine.dimension_line import DimensionLine
from unterbau.machine.kinds.moving_gantry import bill, bodies, model
from unterbau.machine.kinds.moving_gantry import dimension_lines as lines
from unterbau.machine.kinds.moving_gantry import to_frame as moving_gantry
from unterbau.machine.kinds.moving_gantry.model import Link, MovingGantry
from unterbau.machine.parts import Part, Place

Machine: TypeAlias = MovingGantry


def to_frame(machine: Machine, place: Place, level: Level) -> Built:
    """Return the frame of a machine with its head at a place.

    Raises:
        InputError: Dimensions or names that make no machine.
    """
    return moving_gantry.to_frame(machine, place, level)


def links(machine: Machine) -> tuple[Link, ...]:
    """Return the links of the load path from tool to work."""
    del machine
    return model.LINKS


def link(machine: Machine, key: str) -> Link:
    """Return a link of the load path, or the machine's sizes, by key."""
    return next(one for one in (*links(machine), model.SIZES) if one.key == key)


def rest(machine: Machine) -> str:
    """Return the group of what is off the path."""
    del machine
    return model.REST


def bill_of(machine: Machine, book: PriceBook = UNPRICED) -> tuple[Item, ...]:
    """Return the list of parts with masses and, by a price book, money."""
    return bill.bill(machine, book)


@lru_cache(maxsize=128)
def cost_of(machine: Machine, book: PriceBook) -> Cost:
    """Return what a machine costs by a price book."""
    return cost(bill_of(machine, book))


def moving_masses(machine: Machine) -> dict[str, float]:
    """Return what each drive moves, kg, by axis X, Y, Z."""
    return bill.moving_masses(machine)


def part(machine: Machine, key: str) -> Part:
    """Return the part, joint, guide or drive behind a link."""
    found: Part = getattr(machine, key)
    return found


def plate_widths(machine: Machine) -> dict[str, float]:
    """Return the width of each plate across its bending, m."""
    return bill.plate_widths(machine)


def with_part(machine: Machine, key: str, changed: Part) -> Machine:
    """Return the machine with one part replaced."""
    fields: dict[str, Any] = {key: changed}
    return replace(machine, **fields)


def travel(machine: Machine) -> tuple[float, float, float]:
    """Return the travel of the head along x, y, z, m."""
    d = machine.dimensions
    return d.travel_x, d.travel_y, d.travel_z


def bodies_of(machine: Machine, place: Place) -> tuple[Body, ...]:
    """Return what is drawn of a machine with its head at a place."""
    return bodies.bodies(machine, place)


def dimension_lines(machine: Machine, place: Place) -> tuple[DimensionLine, ...]:
    """Return the machine's sizes as dimension lines of its front and side view."""
    return lines.dimension_lines(machine, place)


def ends(machine: Machine) -> dict[str, str]:
    """Return for each part the joint at its ends."""
    del machine
    return model.ENDS


def lengths(machine: Machine) -> dict[str, float]:
    """Return the length of each part that is cut to length, m."""
    return bill.lengths(machine)
