"""Designs that differ in joints alone: the machine is put up and solved once for all of them.

On a workbench what joints weigh changes how stiff its feet are: in proportion, for all joints together.
"""

from dataclasses import dataclass, fields

import numpy as np

from unterbau.errors import InputError
from unterbau.machine.machine import Machine, to_frame
from unterbau.mechanics.arrays import FloatArray, IntArray
from unterbau.mechanics.frame import Frame, Springs
from unterbau.mechanics.spring_changes import SpringChanges, spring_changes
from unterbau.structure.parts import Place
from unterbau.studies.compliance import solve, tip_compliance
from unterbau.studies.loads import TIP

IMPOSSIBLE = (InputError, TypeError, ValueError)
"""What is raised by values that make no machine."""
KEPT = ("i", "j", "x", "up", "group", "cause")
"""What of springs has to be the same."""


def only_springs(one: Frame, other: Frame) -> bool:
    """Return whether two frames differ in nothing but their springs' stiffness, damping and masses."""
    if one.nodes.shape != other.nodes.shape or not np.array_equal(one.nodes, other.nodes):
        return False
    if one.groups != other.groups or len(one.springs) != len(other.springs) or len(one.plates) != len(other.plates):
        return False
    if not all(_equal(a, b) for a, b in zip(one.plates, other.plates, strict=True)):
        return False
    same = all(np.array_equal(getattr(one.springs, name), getattr(other.springs, name)) for name in KEPT)
    return same and _equal(one.beams, other.beams) and _equal(one.seats, other.seats)


def _equal(one: object, other: object) -> bool:
    return all(np.array_equal(getattr(one, field.name), getattr(other, field.name)) for field in fields(one))  # type: ignore[arg-type]


@dataclass(frozen=True, slots=True)
class Screen:
    """Choices of joints for one machine, each as the stiffness of the directions that any of them changes."""

    changes: SpringChanges
    values: tuple[FloatArray, ...]
    """For each field that may vary, what each of its values makes of all directions less what they are, (n_values, n);
    not finite where rigid."""

    def compliances(self, picks: IntArray) -> FloatArray:
        """Return the tip's compliance for choices by number, shape (m, n_fields); m/N, shape (m, 3, 3)."""
        k = np.tile(self.changes.k, (len(picks), 1))
        for n, told in enumerate(self.values):
            k += told[picks[:, n]]
        return self.changes.compliances(k)


def screen(varied: tuple[tuple[Machine | None, ...], ...], base: Machine, place: Place) -> Screen | None:
    """Return what joints make of a machine; nothing where one of them changes more than springs, or another's.

    Args:
        varied: For each field, the machine with each of its values alone; None where it cannot be built.
        base: Without a change; none of its joints that vary are rigid.
        place: Where the head stands.

    Raises:
        InputError: The base cannot be solved.
    """
    solved = solve(base, place, "likely")
    frame = solved.built.frame
    tables: list[list[Springs | None]] = []
    for machines in varied:
        table: list[Springs | None] = []
        for one in machines:
            changed = None if one is None else _frame_of(one, place)
            if changed is not None and not only_springs(frame, changed):
                return None
            table.append(None if changed is None else changed.springs)
        tables.append(table)
    touched = np.zeros(frame.springs.k.shape, dtype=bool)
    for springs in (one for table in tables for one in table if one is not None):
        touched |= springs.k != frame.springs.k
    if np.isinf(frame.springs.k[touched]).any():
        return None
    rows, ways = np.nonzero(touched)
    now = frame.springs.k[rows, ways]
    values = tuple(
        np.array([np.zeros(len(now)) if one is None else one.k[rows, ways] - now for one in table]) for table in tables
    )
    joined = frame.springs.j[rows] >= 0
    if any(
        ((a != 0).any(axis=0) & (b != 0).any(axis=0))[joined].any() for n, a in enumerate(values) for b in values[:n]
    ):
        return None
    return Screen(spring_changes(solved.statics, TIP, tip_compliance(solved), (rows, ways)), values)


def _frame_of(machine: Machine, place: Place) -> Frame | None:
    try:
        return to_frame(machine, place, "likely").frame
    except IMPOSSIBLE:
        return None
