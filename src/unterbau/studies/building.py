"""The steps of a candidate's build with what the machine itself asks at each hold point."""

from dataclasses import replace
from datetime import date, datetime

from unterbau.brief.brief import Brief
from unterbau.errors import InputError
from unterbau.machine.machine import Machine, bill_of, lay_out
from unterbau.shop.build.done import Done
from unterbau.shop.build.hold_points import HoldReading, standing
from unterbau.shop.build.log import Entry
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
    return steps_of(
        structure,
        pieces,
        hows,
        rails_bear(machine),
        brief.lift or LIFT,
        pours,
        late,
        asks(machine, brief),
        brief.process,
    )


def build_schedule(steps: tuple[Step, ...], shop: ShopState, candidate: str, today: date) -> Schedule:
    """Return when the steps that are not done yet can be done, from this evening on.

    Raises:
        InputError: The steps hold no order.
    """
    known = {one.id for one in steps}
    done = standing(steps, shop.done, candidate)
    if done == known:
        raise InputError("steps", "all steps are done")
    start = datetime(today.year, today.month, today.day, int(START_OF_DAY))
    return schedule(steps, start, shop.hours_a_day, done, order_of(shop.orders, candidate))


def marked_done(
    shop: ShopState, candidate: str, step: Step, reading: HoldReading | None, against: tuple[str, ...], reason: str,
    today: date,
) -> ShopState:  # fmt: skip
    """Return the shop with a step marked as done; what stood against it goes into the log with the reason.

    Args:
        shop: As it is.
        candidate: Whose step it is.
        step: The step.
        reading: What was read at its hold point, if anything.
        against: Why its reading does not do by itself (`objections`).
        reason: Why it is done all the same; counts only where something stands against it.
        today: The date.
    """
    when = today.isoformat()
    one = Done(candidate, step.id, when, note=reason if against else "")
    if step.hold is not None:
        one = replace(one, within=step.hold.within)
    if reading is not None:
        one = replace(one, value=reading.value, uncertainty=reading.uncertainty, simulated=reading.simulated)
    rest = tuple(row for row in shop.done if (row.candidate, row.step) != (candidate, step.id))
    log = shop.log
    if against:
        log = (*log, Entry(candidate, when, f"{step.words}: {' '.join(against)} Done all the same: {reason}"))
    return replace(shop, done=(*rest, one), log=log)
