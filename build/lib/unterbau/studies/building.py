"""The steps of a candidate's build with what the machine itself asks at each hold point."""

from datetime import date, datetime

from unterbau.brief.brief import Brief
from unterbau.errors import InputError
from unterbau.machine.machine import Machine, bill_of, lay_out
from unterbau.shop.build.order import order_of
from unterbau.shop.build.schedule import START_OF_DAY, Schedule, schedule
from unterbau.shop.build.steps import Step, steps_of
from unterbau.shop.making import how_of
from unterbau.shop.pieces import pieces_of
from unterbau.shop.shopping import item_key
from unterbau.shop.state import ShopState
from unterbau.studies.rail_tolerance import rails_bear
from unterbau.studies.setting_up import asks

LIFT = 25.0
"""One person lifts where the brief does not say it, kg."""


def build_steps(
    machine: Machine, shop: ShopState, candidate: str, brief: Brief, today: date
) -> tuple[Step, ...]:  # fmt: skip
    """Return the steps of a candidate's build.

    Args:
        machine: The candidate's.
        shop: With pours, who makes what, dates of what is ordered.
        candidate: Its name.
        brief: Says what one person lifts, which tools there are, what error is allowed.
        today: From which what is ordered is awaited.
    """
    structure = lay_out(machine)
    pieces = pieces_of(structure)
    hows = {one.label: how_of(one, candidate, shop.made, brief.tools) for one in pieces}
    parts = {item_key(one): one.part for one in bill_of(machine)}
    late: dict[str, float] = {}
    for bought in shop.bought:
        if bought.candidate == candidate and bought.state == "ordered" and bought.due and bought.item in parts:
            days = (date.fromisoformat(bought.due) - today).days
            late[parts[bought.item]] = max(late.get(parts[bought.item], 0.0), float(max(days, 0)))
    pours = tuple(one for one in shop.pours if one.candidate == candidate)
    return steps_of(structure, pieces, hows, rails_bear(machine), brief.lift or LIFT, pours, late, asks(machine, brief))


def build_schedule(steps: tuple[Step, ...], shop: ShopState, candidate: str, today: date) -> Schedule:
    """Return when the steps that are not done yet can be done, from this evening on.

    Raises:
        InputError: The steps hold no order.
    """
    known = {one.id for one in steps}
    done = frozenset(one.step for one in shop.done if one.candidate == candidate and one.step in known)
    if done == known:
        raise InputError("steps", "all steps are done")
    start = datetime(today.year, today.month, today.day, int(START_OF_DAY))
    return schedule(steps, start, shop.hours_a_day, done, order_of(shop.orders, candidate))
