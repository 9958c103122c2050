"""The links that changes put on the load path, and the parts behind them."""

from collections.abc import Iterable
from dataclasses import replace
from typing import TypeVar

from unterbau.machine.changes.change import (
    Added,
    Brace,
    Chain,
    Change,
    Panel,
    Partless,
    Weight,
    footings,
    joint_key,
    name_of,
    part_key,
    parts_of,
)
from unterbau.machine.kind import FRAME_JOINTS, Link
from unterbau.structure.parts import DragChain, Hung, Joint, Member, Part, Plate

PANEL_JOINTS = ("bolt", "wood-screw", "epoxied", "weld", "bolted-plate")
C = TypeVar("C", bound=Change)


def change_links(changes: tuple[Change, ...]) -> tuple[Link, ...]:
    """Return the links of what was added, whether it stands or not."""
    found = []
    for one in changes:
        if isinstance(one, Partless):
            continue
        name, pieces = name_of(one), " to ".join(dict.fromkeys(footing.piece for footing in footings(one)))
        both = ", and mirrored" if one.mirrored else ""
        joined = "ends" if isinstance(one, Brace | Chain) else "fixing"
        found.append(Link(part_key(one), name, "part", f"added: {pieces}{both}"))
        found.append(Link(joint_key(one), f"{name}, {joined}", "joint", f"{name} to {pieces}"))
    return tuple(found)


def changed_part(changes: tuple[Change, ...], key: str) -> Part | None:
    """Return the part behind a link of a change; nothing where it is none."""
    found = _found(changes, key)
    return None if found is None else next(part for link, part in parts_of(found) if link == key)


def with_changed_part(changes: tuple[Change, ...], key: str, part: Part) -> tuple[Change, ...] | None:
    """Return the changes with the part behind a link replaced; nothing where no change has this link."""
    found = _found(changes, key)
    if found is None:
        return None
    return with_change(changes, _replaced(found, key, part))


def with_change(changes: tuple[Change, ...], one: Change) -> tuple[Change, ...]:
    """Return the changes with one of the same id replaced, or added."""
    if any(other.id == one.id for other in changes):
        return tuple(one if other.id == one.id else other for other in changes)
    return (*changes, one)


def fitting_joints(changes: tuple[Change, ...], key: str) -> tuple[str, ...] | None:
    """Return the kinds of joint that fit at a link of a change; nothing where no change has this link."""
    found = _found(changes, key)
    if found is None:
        return None
    return PANEL_JOINTS if isinstance(found, Panel) else FRAME_JOINTS


def free_id(changes: Iterable[Change], sort: str) -> str:
    """Return an id that no change has."""
    taken, number = {one.id for one in changes}, 1
    while f"{sort}_{number}" in taken:
        number += 1
    return f"{sort}_{number}"


def change_of(changes: tuple[Change, ...], key: str) -> Added | None:
    """Return the change that a link is of."""
    return _found(changes, key)


def _found(changes: tuple[Change, ...], key: str) -> Added | None:
    for one in changes:
        if not isinstance(one, Partless) and key in (part_key(one), joint_key(one)):
            return one
    return None


def _replaced(one: Added, key: str, part: Part) -> Added:
    if key == joint_key(one) and isinstance(part, Joint):
        return replace(one, joint=part)
    if isinstance(one, Brace) and isinstance(part, Member):
        return replace(one, member=part)
    if isinstance(one, Panel) and isinstance(part, Plate):
        return replace(one, plate=part)
    if isinstance(one, Weight) and isinstance(part, Hung):
        return replace(one, hung=part)
    if isinstance(one, Chain) and isinstance(part, DragChain):
        return replace(one, run=part)
    raise TypeError(f"no {type(part).__name__} belongs at {key}")
