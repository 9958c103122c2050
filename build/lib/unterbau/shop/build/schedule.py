"""When each step can be done: earliest dates, the critical path, what can be done today, what a new order breaks."""

from dataclasses import dataclass
from datetime import datetime, timedelta

import networkx

from unterbau.errors import InputError
from unterbau.shop.build.steps import Step

HOURS_A_DAY = 3.0
"""At the bench on an evening; common practice, no source."""
DAY = 24.0
"""What waits longer is begun first, so that it waits beside the rest, hours."""
START_OF_DAY = 18.0
"""o'clock."""


@dataclass(frozen=True, slots=True)
class Dated:
    """A step with its times."""

    step: Step
    start: datetime
    end: datetime
    """Of the work; what waits follows."""
    ready: datetime
    """What needs it can begin."""
    critical: bool
    """Whether the whole ends later when it does."""


@dataclass(frozen=True, slots=True)
class Schedule:
    """All steps in an order that holds."""

    rows: tuple[Dated, ...]

    @property
    def ready(self) -> datetime:
        """When all is done."""
        return max(one.ready for one in self.rows)


def network(steps: tuple[Step, ...]) -> networkx.DiGraph:
    """Return the steps as a network.

    Raises:
        InputError: A step needs one that is not there, or itself in the end.
    """
    net = networkx.DiGraph()
    known = {one.id for one in steps}
    for one in steps:
        net.add_node(one.id)
        for need in one.needs:
            if need not in known:
                raise InputError(one.id, f'needs "{need}", which is no step')
            net.add_edge(need, one.id)
    if not networkx.is_directed_acyclic_graph(net):
        ring = " → ".join(edge[0] for edge in networkx.find_cycle(net))
        raise InputError("steps", f"these need one another: {ring}")
    return net


def schedule(steps: tuple[Step, ...], start: datetime, hours_a_day: float = HOURS_A_DAY,
             done: frozenset[str] = frozenset(), order: tuple[str, ...] = ()) -> Schedule:  # fmt: skip
    """Return when each step is done, one pair of hands, evening by evening; what waits, waits beside.

    Args:
        steps: All of them.
        start: First evening.
        hours_a_day: At the bench.
        done: Steps that are done already.
        order: Which comes first where several could.

    Raises:
        InputError: The steps hold no order.
    """
    if not 0.25 <= hours_a_day <= 24.0:
        raise InputError("hours_a_day", f"expected a quarter of an hour to 24, got {hours_a_day:g}")
    net = network(steps)
    wish = {name: n for n, name in enumerate(order)}
    usual = {one.id: n for n, one in enumerate(steps)}
    by_id = {one.id: one for one in steps}
    critical = _critical(net, by_id, done)
    hands, ready, rows = start, dict.fromkeys(done, start), list[Dated]()
    left = [one.id for one in steps if one.id not in done]
    while left:
        free = [one for one in left if all(need in ready for need in by_id[one].needs)]
        can = {one: max([start, *(ready[need] for need in by_id[one].needs)]) for one in free}
        first = min(can.values())
        open_now = [one for one in free if can[one] <= max(hands, first)]
        chosen = min(open_now, key=lambda one: (wish.get(one, len(wish)), by_id[one].waits < DAY, usual[one]))
        begin = max(hands, can[chosen])
        end = _worked(begin, by_id[chosen].hours, hours_a_day)
        ready[chosen] = end + timedelta(hours=by_id[chosen].waits)
        rows.append(Dated(by_id[chosen], begin, end, ready[chosen], chosen in critical))
        hands = end
        left.remove(chosen)
    return Schedule(tuple(rows))


def _critical(net: networkx.DiGraph, by_id: dict[str, Step], done: frozenset[str]) -> frozenset[str]:
    """Return the longest path by hours and waits."""
    weighed = networkx.DiGraph()
    weighed.add_node("")
    for name in net.nodes:
        one = by_id[name]
        weight = 0.0 if name in done else one.hours + one.waits
        for need in one.needs or ("",):
            weighed.add_edge(need, name, weight=weight)
    return frozenset(networkx.dag_longest_path(weighed, weight="weight")) - {""} - done


def _worked(begin: datetime, hours: float, a_day: float) -> datetime:
    """Return when so many hours at the bench are done, so many a day from the same hour on."""
    left, now = hours, begin
    opened = begin.replace(hour=int(START_OF_DAY), minute=int(START_OF_DAY % 1 * 60), second=0, microsecond=0)
    if now < opened:
        now = opened
    while True:
        closes = opened + timedelta(hours=a_day)
        room = max(0.0, (closes - now).total_seconds() / 3600)
        if left <= room + 1e-9:
            return now + timedelta(hours=left)
        left -= room
        opened += timedelta(days=1)
        now = opened


def doable(steps: tuple[Step, ...], done: frozenset[str]) -> tuple[str, ...]:
    """Return the steps that can be begun now."""
    return tuple(one.id for one in steps if one.id not in done and all(need in done for need in one.needs))


def broken_by(steps: tuple[Step, ...], order: tuple[str, ...]) -> tuple[str, ...]:
    """Return what a wished order breaks, in words: steps that would come before what they need."""
    place = {name: n for n, name in enumerate(order)}
    by_id = {one.id: one for one in steps}
    return tuple(
        f"{by_id[one].words}: needs first: {by_id[need].words}"
        for one in order if one in by_id for need in by_id[one].needs
        if need in place and place[need] > place[one]
    )  # fmt: skip
