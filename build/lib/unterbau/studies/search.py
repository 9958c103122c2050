"""A search over what may vary: every design within bounds, or as many as the time allows; the unbeaten ones."""

from collections.abc import Callable, Iterator
from contextlib import closing
from dataclasses import dataclass
from functools import partial
from itertools import product
from math import prod
from random import Random
from time import monotonic
from typing import Literal, get_args

from unterbau.band import Band
from unterbau.catalogue.prices import PriceBook
from unterbau.errors import InputError
from unterbau.machine.machine import Machine, links, part
from unterbau.progress import Progress, Silent
from unterbau.structure.parts import Place
from unterbau.studies.answers import answers
from unterbau.studies.designs import Bounds, Design, Free, Picked, joints_of, tried_together
from unterbau.studies.search_workers import CHUNK, tried_apart

Goal = Literal["stiffest", "lightest", "cheapest"]
GOALS: tuple[Goal, ...] = get_args(Goal)
MOST_CHOICES = 200
MOST_FREE = 40
FEW = 20_000
"""So many designs are all tried."""
AT_ONCE = 256
"""So many designs that differ in joints alone are put up together."""
NEAR = 1e-9
KEPT = 12
"""Unbeaten designs that are solved afresh with their bands."""


@dataclass(frozen=True, slots=True)
class Solved:
    """An unbeaten design, solved afresh."""

    design: Design
    worst: tuple[Band, Band, Band]
    """At the weakest places of its travel, N/m."""
    mode: float


@dataclass(frozen=True, slots=True)
class Found:
    """What a search found."""

    unbeaten: tuple[Solved, ...]
    """The best for the goal first."""
    tried: int
    of: int
    whole: bool
    """Whether all were tried."""
    impossible: int
    """Could not be built, or lay beyond the bounds."""
    shared: tuple[str, ...]
    """What all unbeaten ones have, in words."""


Tried = dict[Picked, Design | None]
"""Designs by the numbers of their values; None of those that cannot be built or lie beyond the bounds."""


def check_space(machine: Machine, free: tuple[Free, ...]) -> None:
    """Check what may vary.

    Raises:
        InputError: With the place of the first fault.
    """
    if not free or len(free) > MOST_FREE:
        raise InputError("free", f"expected 1 to {MOST_FREE} fields that may vary, got {len(free)}")
    known = {"dimensions", *(one.key for one in links(machine))}
    for one in free:
        where = f"free.{one.key}.{one.field}"
        if one.key not in known:
            raise InputError(f"free.{one.key}", f"is no part of this machine; there are {', '.join(sorted(known))}")
        now = part(machine, one.key)
        if not hasattr(now, one.field):
            fields = ", ".join(getattr(type(now), "__dataclass_fields__", {}))
            raise InputError(where, f"is no field of it; there are {fields}")
        if not 1 <= len(one.values) <= MOST_CHOICES:
            raise InputError(where, f"expected 1 to {MOST_CHOICES} values")


def search(
    machine: Machine, free: tuple[Free, ...], bounds: Bounds, goal: Goal, book: PriceBook, seconds: float = 60.0,
    place: Place | None = None, progress: Progress | None = None, tried: Tried | None = None, processes: int = 1,
) -> Found:  # fmt: skip
    """Return the unbeaten designs: none of the others is as stiff, as light and as cheap.

    All designs are tried where the time allows; else they are drawn at random, then about the unbeaten ones. What is
    found is told while it runs (`Progress.found`). Every reported design is solved afresh over its travel, with bands.
    Designs that differ in joints alone are put up and solved once for all (`screening`).
    A search that was stopped goes on where it was with the same `tried`, which is added to. Processes try side by side.

    Raises:
        InputError: The space is none, or holds no machine at all.
        Cancelled: The progress asked to stop.
    """
    check_space(machine, free)
    report, where, start = progress or Silent(), place or Place(), monotonic()
    count = prod(len(one.values) for one in free)
    tried = {} if tried is None else tried
    front: list[Design] = []
    for one in list(tried.values()):
        if one is not None:
            front[:] = _with(front, one)
    joints = joints_of(machine, free)
    wanted = _fresh(_order(free, joints, count, front, seconds, start), tried)
    work = partial(tried_together, machine, free, bounds, book, where)
    with closing(tried_apart(wanted, work, processes, 1 if joints else CHUNK)) as rows:
        for some in rows:
            _take(some, tried, front, report, count)
            if monotonic() - start > seconds:
                break
    if not front:
        raise InputError("bounds", f"none of {len(tried)} designs can be built within them")
    ranked = sorted(front, key=_rank(goal))
    solved = []
    for n, one in enumerate(ranked[:KEPT]):
        report.step(n, KEPT, "solved afresh")
        whole = answers(one.machine, where)
        mode = whole.headline
        solved.append(Solved(one, whole.worst, mode.frequency.likely if mode else 0.0))
    impossible = sum(one is None for one in tried.values())
    return Found(tuple(solved), len(tried), count, len(tried) == count, impossible, _shared(free, front))


def _take(
    some: tuple[tuple[Picked, Design | None], ...], tried: Tried, front: list[Design], report: Progress, count: int
) -> None:
    """Take designs in, and tell of them."""
    better = False
    for picked, one in some:
        report.step(len(tried), min(count, 10**9), "designs")
        tried[picked] = one
        if one is not None:
            grown = _with(front, one)
            better = better or grown is not front
            front[:] = grown
    if better:
        report.found(tuple(front))


def _order(
    free: tuple[Free, ...], joints: tuple[int, ...], count: int, front: list[Design], seconds: float, start: float
) -> Iterator[tuple[Picked, ...]]:
    """Yield picks that differ in joints alone: all where they are few, else at random and about what is unbeaten."""
    sizes = [len(one.values) for one in free]
    draw = Random(13)
    if count <= FEW:
        firm = [range(1) if n in joints else range(size) for n, size in enumerate(sizes)]
        every = list(product(*firm))
        draw.shuffle(every)
        for one in every:
            yield from _batches(list(_with_joints(one, sizes, joints)))
        return
    while monotonic() - start <= seconds:
        if front and draw.random() < 0.7:
            base = draw.choice(front)
            picked = [one.values.index(value) for one, value in zip(free, base.choice, strict=True)]
            for _ in range(draw.choice((1, 1, 2))):
                n = draw.randrange(len(free))
                picked[n] = draw.randrange(sizes[n])
        else:
            picked = [draw.randrange(n) for n in sizes]
        if prod(sizes[n] for n in joints) <= AT_ONCE:
            yield tuple(_with_joints(tuple(picked), sizes, joints))
            continue
        some = {tuple(picked)}
        for _ in range(AT_ONCE):
            some.add(tuple(draw.randrange(size) if n in joints else picked[n] for n, size in enumerate(sizes)))
        yield tuple(sorted(some))


def _with_joints(picked: Picked, sizes: list[int], joints: tuple[int, ...]) -> Iterator[Picked]:
    """Yield a pick with every choice of joints."""
    yield from product(*(range(size) if n in joints else (picked[n],) for n, size in enumerate(sizes)))


def _batches(every: list[Picked]) -> Iterator[tuple[Picked, ...]]:
    for start in range(0, len(every), AT_ONCE):
        yield tuple(every[start : start + AT_ONCE])


def _fresh(wanted: Iterator[tuple[Picked, ...]], tried: Tried) -> Iterator[tuple[Picked, ...]]:
    """Yield the picks that were neither tried before nor are on their way."""
    asked: set[Picked] = set()
    for some in wanted:
        new = tuple(one for one in some if one not in tried and one not in asked)
        asked.update(new)
        if new:
            yield new


def _with(front: list[Design], one: Design) -> list[Design]:
    if any(_beats(other, one) for other in front):
        return front
    return [*(other for other in front if not _beats(one, other)), one]


def _beats(a: Design, b: Design) -> bool:
    """Return whether one is as stiff, light and cheap as another, and better in one of them."""
    no_worse = a.weakest >= b.weakest * (1 - NEAR) and a.mass <= b.mass * (1 + NEAR) and a.money <= b.money * (1 + NEAR)
    better = a.weakest > b.weakest * (1 + NEAR) or a.mass < b.mass * (1 - NEAR) or a.money < b.money * (1 - NEAR)
    return no_worse and better


def _rank(goal: Goal) -> Callable[[Design], tuple[float, float]]:
    if goal == "lightest":
        return lambda one: (one.mass, -one.weakest)
    if goal == "cheapest":
        return lambda one: (one.money, -one.weakest)
    return lambda one: (-one.weakest, one.money)


def _shared(free: tuple[Free, ...], front: list[Design]) -> tuple[str, ...]:
    """Return what all unbeaten designs have though they could have something else."""
    words = []
    for n, one in enumerate(free):
        values = {repr(design.choice[n]) for design in front}
        if len(one.values) > 1 and len(values) == 1:
            words.append(f"all unbeaten ones have {one.key.replace('_', ' ')}, {one.field}: {front[0].choice[n]}")
    return tuple(words)
