"""Designs of a search: a machine with values in place of what may vary, alone or all that differ in joints at once."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import partial
from typing import Any

import numpy as np

from unterbau.catalogue.joints import joints
from unterbau.catalogue.prices import PriceBook
from unterbau.machine.machine import Machine, cost_of, listed_mass, part, to_frame, with_part
from unterbau.mechanics.arrays import FloatArray, IntArray
from unterbau.structure.parts import Joint, Place, Sizes
from unterbau.studies.budget import heaviest
from unterbau.studies.compliance import solve_tip
from unterbau.studies.screening import IMPOSSIBLE, screen

Picked = tuple[int, ...]
"""Numbers of the values, in the order of what is free."""
WORTH = 1.5
"""So many times as many designs as values of joints, and these are put up once for all."""


@dataclass(frozen=True, slots=True)
class Free:
    """A field that may vary."""

    key: str
    """Link, or `dimensions`."""
    field: str
    values: tuple[Any, ...]


@dataclass(frozen=True, slots=True)
class Bounds:
    """What no design may go beyond; 0 leaves open."""

    mass: float = 0.0
    money: float = 0.0
    lift: float = 0.0
    """Heaviest piece, kg."""


@dataclass(frozen=True, slots=True)
class Design:
    """One point of the search."""

    machine: Machine
    choice: tuple[Any, ...]
    """Values, in the order of what is free."""
    stiffness: tuple[float, float, float]
    """At one place, likely, N/m."""
    mass: float
    money: float

    @property
    def weakest(self) -> float:
        """The least of its stiffnesses."""
        return min(self.stiffness)


def tried_alone(
    machine: Machine, free: tuple[Free, ...], bounds: Bounds, book: PriceBook, place: Place, picked: Picked
) -> Design | None:
    """Return a design; nothing where it cannot be built or lies beyond the bounds."""
    choice = _choice(free, picked)
    try:
        changed = changed_by(machine, free, choice)
        mass, money = listed_mass(changed), cost_of(changed, book).money
        if not _within(changed, bounds, mass, money):
            return None
        x, y, z = (1.0 / np.diag(solve_tip(to_frame(changed, place, "likely")))).tolist()
    except IMPOSSIBLE:
        return None
    return Design(changed, choice, (x, y, z), mass, money)


def tried_together(
    machine: Machine, free: tuple[Free, ...], bounds: Bounds, book: PriceBook, place: Place, wanted: tuple[Picked, ...]
) -> tuple[tuple[Picked, Design | None], ...]:
    """Return designs that differ in joints alone: put up once for all where that is worth it and the same to 1e-8.

    Args:
        machine: What they are designs of.
        free: What may vary.
        bounds: What none may go beyond.
        book: Prices.
        place: Where the head stands.
        wanted: Picks that are alike in all that is no joint.
    """
    found = _screened(machine, free, bounds, book, place, wanted)
    if found is None:
        return tuple((one, tried_alone(machine, free, bounds, book, place, one)) for one in wanted)
    return found


def joints_of(machine: Machine, free: tuple[Free, ...]) -> tuple[int, ...]:
    """Return the numbers of the fields that are of joints."""
    return tuple(n for n, one in enumerate(free) if isinstance(part(machine, one.key), Joint))


def _screened(
    machine: Machine, free: tuple[Free, ...], bounds: Bounds, book: PriceBook, place: Place, wanted: tuple[Picked, ...]
) -> tuple[tuple[Picked, Design | None], ...] | None:
    options = _options(machine, free, wanted)
    if len(wanted) < WORTH * sum(len(one) for one in options.values()):
        return None
    put_up = partial(_put_up, machine, free, options, wanted[0])
    first = _softest(free, options, put_up)
    base = put_up(first)
    if base is None:
        return None
    varied = tuple(
        tuple(put_up((*first[:n], one, *first[n + 1 :])) for one in rows) for n, rows in enumerate(options.values())
    )
    try:
        screened = screen(varied, base, place)
    except IMPOSSIBLE:
        return None
    if screened is None:
        return None
    numbers = np.array([
        [rows.index(tuple(one[n] for n in fields)) for fields, rows in options.items()] for one in wanted
    ])  # fmt: skip
    stiff = 1.0 / np.diagonal(screened.compliances(numbers), axis1=1, axis2=2)
    weighs = _added(listed_mass, base, varied, numbers)
    costs = _added(lambda one: cost_of(one, book).money, base, varied, numbers)
    found = []
    for picked, (x, y, z), mass, money in zip(wanted, stiff.tolist(), weighs.tolist(), costs.tolist(), strict=True):
        choice = _choice(free, picked)
        built = np.isfinite(mass) and _within(base, bounds, mass, money)
        made = Design(changed_by(machine, free, choice), choice, (x, y, z), mass, money) if built else None
        found.append((picked, made))
    return tuple(found)


Options = dict[tuple[int, ...], list[Picked]]
"""For each joint, by the numbers of its fields, the values of these that are wanted."""


def _options(machine: Machine, free: tuple[Free, ...], wanted: tuple[Picked, ...]) -> Options:
    of_key: dict[str, list[int]] = {}
    for n in joints_of(machine, free):
        of_key.setdefault(free[n].key, []).append(n)
    return {tuple(fields): sorted({tuple(one[n] for n in fields) for one in wanted}) for fields in of_key.values()}


def _put_up(
    machine: Machine, free: tuple[Free, ...], options: Options, like: Picked, told: tuple[Picked, ...]
) -> Machine | None:
    """Return the machine with values of its joints, one for each of the options; nothing where it cannot be built."""
    picked = list(like)
    for fields, values in zip(options, told, strict=True):
        for n, value in zip(fields, values, strict=True):
            picked[n] = value
    try:
        changed = changed_by(machine, free, _choice(free, tuple(picked)))
        listed_mass(changed)
    except IMPOSSIBLE:
        return None
    return changed


def _softest(
    free: tuple[Free, ...], options: Options, put_up: Callable[[tuple[Picked, ...]], Machine | None]
) -> tuple[Picked, ...]:
    """Return values with which no joint is rigid, as far as there are such."""
    first = tuple(rows[0] for rows in options.values())
    for n, (fields, rows) in enumerate(options.items()):
        told = ((*first[:n], one, *first[n + 1 :]) for one in rows)
        first = next((one for one in told if _gives(put_up(one), free[fields[0]].key)), first)
    return first


def _added(
    measure: Callable[[Machine], float],
    base: Machine,
    varied: tuple[tuple[Machine | None, ...], ...],
    numbers: IntArray,
) -> FloatArray:
    """Return what each design weighs or costs: what each joint adds by itself; not finite where it cannot be built."""
    now = measure(base)
    total = np.full(len(numbers), now)
    for n, machines in enumerate(varied):
        total += np.array([np.nan if one is None else measure(one) - now for one in machines])[numbers[:, n]]
    return total


def _gives(machine: Machine | None, key: str) -> bool:
    """Return whether a machine can be built and its joint at a link gives."""
    chosen = None if machine is None else part(machine, key)
    return isinstance(chosen, Joint) and not (chosen.kind in joints() and joints()[chosen.kind].rigid)


def _within(machine: Machine, bounds: Bounds, mass: float, money: float) -> bool:
    if (bounds.mass and mass > bounds.mass) or (bounds.money and money > bounds.money):
        return False
    line = heaviest(machine) if bounds.lift else None
    return line is None or line.mass / max(line.count, 1) <= bounds.lift


def _choice(free: tuple[Free, ...], picked: Picked) -> tuple[Any, ...]:
    return tuple(one.values[n] for one, n in zip(free, picked, strict=True))


def changed_by(machine: Machine, free: tuple[Free, ...], choice: tuple[Any, ...]) -> Machine:
    """Return a machine with values in place of what may vary."""
    parts: dict[str, dict[str, Any]] = {}
    for one, value in zip(free, choice, strict=True):
        parts.setdefault(one.key, {})[one.field] = value
    for key, values in parts.items():
        now = part(machine, key)
        changed: Any = replace(now, **values)
        if isinstance(now, Sizes) and now == changed:
            continue
        machine = with_part(machine, key, changed)
    return machine
