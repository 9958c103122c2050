"""The contact check: a machine whose parts do not touch is refused, and the size to change is named."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import lru_cache
from math import ceil, floor
from typing import Any

from unterbau.errors import InputError
from unterbau.machine.kind import Kind, SizeField
from unterbau.structure.contact import Gap, gaps, repeated_names

STEP = 0.01
"""Share by which a size is changed to see whether a gap follows it."""
FOLLOWS = 0.1
"""A gap follows a size if it changes by at least this share of the size's change."""
BEYOND = 1.2
"""A size is tried this much further than the gap's slope says."""
HALVINGS = 16
ROUNDS = 4
"""Gaps that are closed one after the other."""
CLOSED = 1e-6
"""A gap that is left where a size is at its limit, m."""
SMALL = 0.02


class ContactError(InputError):
    """Parts of a machine do not touch where they are fastened."""


@lru_cache(maxsize=128)
def contact_problem(kind: Kind, machine: Any) -> tuple[str, str] | None:
    """Return where a machine's parts do not touch and what is expected instead, or nothing.

    Raises:
        InputError: The machine cannot be laid out.
    """
    twice = repeated_names(kind.lay_out(machine))
    if twice:
        return "changes", f'expected one part of each name, got several called "{twice[0]}"'
    machine = replace(machine, changes=())  # what is added finds its footing by itself, or is told to have lost it
    found = gaps(kind.lay_out(machine))
    if not found:
        return None
    gap = max(found, key=lambda one: one.distance)
    return _told(kind, machine, gap)


def check_contact(kind: Kind, machine: Any) -> None:
    """Check that all parts of a machine touch where they are fastened, within half a millimetre.

    Raises:
        ContactError: Names the size to change and its limit where a size closes the gap.
        InputError: The machine cannot be laid out.
    """
    problem = contact_problem(kind, machine)
    if problem is not None:
        raise ContactError(*problem)


def brought_together(kind: Kind, machine: Any, fixed: frozenset[str] = frozenset()) -> Any:
    """Return a machine with sizes changed just so far that its parts touch; the same where they do already.

    Args:
        kind: Its kind.
        machine: What is changed.
        fixed: Sizes that stay as they are.

    Raises:
        ContactError: No size of it closes a gap.
        InputError: The machine cannot be laid out.
    """
    for _ in range(ROUNDS):
        found = gaps(kind.lay_out(machine))
        if not found:
            return machine
        widest = max(found, key=lambda one: one.distance)
        limits = [one for one in _closing(kind, machine, widest) if one.size.attribute not in fixed]
        if not limits:
            break
        changed = {limits[0].size.attribute: limits[0].rounded / 1e3}
        machine = replace(machine, dimensions=replace(machine.dimensions, **changed))
    check_contact(kind, machine)
    return machine


def _told(kind: Kind, machine: Any, gap: Gap) -> tuple[str, str]:
    label = next((one.label for one in kind.links if one.key == gap.key), gap.key.replace("_", " "))
    fault = f"{gap.what} of the {label} is {gap.distance * 1e3:.0f} mm away from {gap.to}"
    limits = _closing(kind, machine, gap)
    if not limits:
        return gap.key, f"expected parts that touch: {fault}"
    (size, bound), *others = ((one.size, one.words) for one in limits)
    now = getattr(machine.dimensions, size.attribute)
    also = "".join(f"; or {other.words} {words}" for other, words in others[:1])
    return f"dimensions.{size.attribute}", f"expected {bound}, got {now * 1e3:g} mm: {fault}{also}"


@dataclass(frozen=True, slots=True)
class _Limit:
    """A size that closes a gap."""

    change: float
    """Of the size, as a share of it."""
    size: SizeField
    value: float
    least: bool
    """Whether the value is the least it may be."""

    @property
    def rounded(self) -> int:
        """The value to the millimetre, mm."""
        return ceil(self.value * 1e3 - SMALL) if self.least else floor(self.value * 1e3 + SMALL)

    @property
    def words(self) -> str:
        """The limit, as it is told."""
        return f"{'at least' if self.least else 'at most'} {self.rounded} mm"


def _closing(kind: Kind, machine: Any, gap: Gap) -> list[_Limit]:
    """Return the sizes that close a gap by themselves, the smallest change first."""
    found = []
    for size in kind.sizes:
        limit = None if size.count else _limit(kind, machine, gap, size)
        if limit is not None:
            found.append(limit)
    return sorted(found, key=lambda one: one.change)


def _limit(kind: Kind, machine: Any, gap: Gap, size: SizeField) -> _Limit | None:
    """Return how far a size has to be changed for a gap to close, or nothing where that does not close it."""
    left = _gap_by(kind, machine, gap, size)
    now = getattr(machine.dimensions, size.attribute)
    step = max(STEP * now, 1e-3)
    slope = (left(now + step) - left(now - step)) / (2 * step)
    if abs(slope) < FOLLOWS:
        return None
    closed = size.high if slope < 0.0 else size.low
    if left(closed) > CLOSED:
        closed = min(max(now - gap.distance / slope * BEYOND, size.low), size.high)
        if left(closed) > CLOSED:
            return None
    still_open = now
    for _ in range(HALVINGS):
        middle = (closed + still_open) / 2
        closed, still_open = (middle, still_open) if left(middle) <= CLOSED else (closed, middle)
    return _Limit(abs(closed - now) / max(now, 1e-3), size, closed, slope < 0.0)


def _gap_by(kind: Kind, machine: Any, gap: Gap, size: SizeField) -> Callable[[float], float]:
    """Return how wide the gap is with another value of a size; as wide as now where no machine comes of it."""

    def left(value: float) -> float:
        changed = replace(machine, dimensions=replace(machine.dimensions, **{size.attribute: value}))
        try:
            found = gaps(kind.lay_out(changed), CLOSED)
        except InputError:
            return gap.distance
        same = (one.distance for one in found if (one.key, one.what, one.to) == (gap.key, gap.what, gap.to))
        return max(same, default=0.0)

    return left
