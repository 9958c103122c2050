"""A structure with the changes that are wanted; those that have lost their footing are named, and left away."""

from collections.abc import Callable
from dataclasses import replace
from functools import partial

from unterbau.band import AtLevels
from unterbau.errors import InputError
from unterbau.machine.changes.bracing import brace_steps
from unterbau.machine.changes.chaining import chain_steps
from unterbau.machine.changes.change import (
    Added,
    Brace,
    Chain,
    Change,
    LeftOut,
    Measured,
    Panel,
    Weight,
    footings,
    name_of,
)
from unterbau.machine.changes.hanging import weight_steps
from unterbau.machine.changes.leaving_out import without
from unterbau.machine.changes.panelling import panel_steps
from unterbau.machine.changes.standing import Held, apart, held, mirrored, together
from unterbau.structure.ends import sawn
from unterbau.structure.join import Join
from unterbau.structure.lines import keys_of
from unterbau.structure.piece import Bar
from unterbau.structure.stand import REST
from unterbau.structure.structure import Single, Step, Structure, Turned
from unterbau.structure.vectors import dot, minus

OTHER = " mirrored"
NEAR = 1e-3
LEAST = 0.005
"""Of a brace between its neighbours, as sawn, m."""


def changed(structure: Structure, changes: tuple[Change, ...]) -> Structure:
    """Return a structure with changes, what is left out first, then what is added in order."""
    fallen: dict[str, str] = {}
    order = sorted(changes, key=lambda one: not isinstance(one, LeftOut))
    for one in order:
        try:
            structure = _changed(structure, one)
        except InputError as error:
            fallen[one.id] = error.problem
    return replace(structure, fallen=fallen) if fallen else structure


def _changed(structure: Structure, one: Change) -> Structure:
    if isinstance(one, LeftOut):
        return without(structure, one.what)
    if isinstance(one, Measured):
        if one.key not in keys_of(structure) | {REST}:
            raise InputError("key", f"there is no {one.key.replace('_', ' ')} on this machine")
        scale = AtLevels(one.factor / one.spread, one.factor, one.factor * one.spread)
        return replace(structure, measured={**structure.measured, one.key: scale})
    return _with(structure, one)


def _with(structure: Structure, one: Added) -> Structure:
    spots = tuple(held(structure, footing) for footing in footings(one))
    sets = [spots]
    if one.mirrored:
        sets.append(mirrored(structure, spots))
    for number, each in enumerate(sets):
        name = _free_name(structure, name_of(one) + (OTHER if number else ""))
        group = None if isinstance(one, Chain) else together(structure, each)
        if isinstance(one, Chain):
            apart(structure, each)
        structure = _put(structure, group, _stepped(one, name, each, structure)(), each)
        left = sawn(structure)[name].length if isinstance(one, Brace) else LEAST
        if left < LEAST:
            left_over = max(left, 0.0) * 1e3
            raise InputError("spots", f"its neighbours leave {left_over:.0f} mm of it; expected 5 mm or more")
    return structure


def _stepped(one: Added, name: str, spots: tuple[Held, ...], structure: Structure) -> Callable[[], tuple[Single, ...]]:
    match one:
        case Brace():
            return partial(brace_steps, one, name, *spots)
        case Panel():
            return partial(panel_steps, one, name, spots)
        case Weight():
            return partial(weight_steps, one, name, *spots)
        case Chain():
            return partial(chain_steps, one, name, spots, structure)


def _free_name(structure: Structure, name: str) -> str:
    while name in structure.pieces:
        name = f"added {name}"
    return name


def _put(structure: Structure, group: Turned | None, steps: tuple[Single, ...], spots: tuple[Held, ...]) -> Structure:
    places = [(one.host.name, one.at.place) for one in spots]
    places += [(one.b.piece, one.b.place) for one in steps if isinstance(one, Join) and one.b is not None]
    stops: dict[str, list[float]] = {}
    for name, place in places:
        host = structure.pieces[name]
        if isinstance(host, Bar):
            stops.setdefault(name, []).append(dot(minus(place, host.start), host.along))
    put = tuple(_stopped(step, stops) for step in structure.steps)
    if group is None:
        put = (*put, *steps)
    else:
        where = structure.steps.index(group)
        turned = put[where]
        assert isinstance(turned, Turned)
        put = (*put[:where], replace(turned, steps=(*turned.steps, *steps)), *put[where + 1 :])
    return replace(structure, steps=put)


def _stopped(step: Step, stops: dict[str, list[float]]) -> Step:
    """Return a step whose bars have nodes where something is fastened."""
    if isinstance(step, Turned):
        return replace(step, steps=tuple(_stopped(one, stops) for one in step.steps))
    if not isinstance(step, Bar) or step.name not in stops:
        return step
    new = [at for at in stops[step.name] if all(abs(at - old) > NEAR for old in step.stops)]
    return replace(step, stops=(*step.stops, *new)) if new else step
