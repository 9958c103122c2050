"""All kinds of machine behind one set of functions."""

from typing import TypeAlias

from unterbau.band import Level
from unterbau.machine.bill import Item
from unterbau.machine.built import Built
from unterbau.machine.kinds.moving_gantry import bill, model
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


def rest(machine: Machine) -> str:
    """Return the group of what is off the path."""
    del machine
    return model.REST


def bill_of(machine: Machine) -> tuple[Item, ...]:
    """Return the list of parts with masses and money."""
    return bill.bill(machine)


def moving_masses(machine: Machine) -> dict[str, float]:
    """Return what each drive moves, kg, by axis X, Y, Z."""
    return bill.moving_masses(machine)


def part(machine: Machine, key: str) -> Part:
    """Return the part, joint, guide or drive behind a link."""
    found: Part = getattr(machine, key)
    return found
