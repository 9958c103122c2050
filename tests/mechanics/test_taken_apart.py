"""A frame taken apart at its moving contacts: nothing is lost, what a change leaves alone is kept."""

from dataclasses import replace
from typing import Any

import numpy as np
import pytest

from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import to_frame, with_part
from unterbau.mechanics.connected import connected
from unterbau.mechanics.frame import Frame
from unterbau.mechanics.statics import total_mass
from unterbau.mechanics.taken_apart import Alike, part_of
from unterbau.structure.parts import Member, Place
from unterbau.studies.reach import grid
from unterbau.studies.travel import Travel


def taken(machine: MovingGantry) -> tuple[Frame, np.ndarray[tuple[int], np.dtype[np.bool_]]]:
    """Return a machine's frame, and which of its springs are moving contacts."""
    built = to_frame(machine, Place(), "likely")
    moving = np.zeros(len(built.frame.springs), dtype=bool)
    moving[[one.row for one in built.slides if not one.inside]] = True
    moving[[drive.spring for drive in built.drives]] = True
    return built.frame, moving


def seen(machine: MovingGantry) -> set[int]:
    """Return the matrices by which a machine's parts are seen, as which objects they are."""
    answers: Any = Travel(machine).cut_for(grid((5, 5, 2)))
    return {id(one.of.between) for one in answers.__self__._groups}


def test_parts_make_up_the_whole() -> None:
    """Every node, beam, mass and plate belongs to one part; their masses are those of the frame."""
    frame, moving = taken(MovingGantry())
    label = connected(frame, ~moving, np.zeros(len(frame.seats), dtype=bool))
    parts = [part_of(frame, np.flatnonzero(label == c), ~moving) for c in range(label.max() + 1)]
    assert len(parts) >= 3
    for rows in ("nodes", "beams", "plates", "masses"):
        assert sum(len(getattr(one, rows)) for one in parts) == len(getattr(frame, rows)), rows
    assert sum(len(one.springs) for one in parts) == int((~moving).sum())
    assert sum(total_mass(one)[0] for one in parts) == pytest.approx(total_mass(frame)[0], rel=1e-12)


def test_names_do_not_count_and_stiffness_does() -> None:
    """Two frames that move alike are equal whatever their groups are called."""
    frame, moving = taken(MovingGantry())
    whole, touched = part_of(frame, np.arange(len(frame.nodes)), ~moving), np.arange(5)
    renamed = replace(whole, groups=tuple(f"{name} again" for name in whole.groups))
    softer = replace(whole, springs=replace(whole.springs, k=whole.springs.k * 0.99))
    assert Alike.of(whole, touched) == Alike.of(renamed, touched)
    assert hash(Alike.of(whole, touched)) == hash(Alike.of(renamed, touched))
    assert Alike.of(whole, touched) != Alike.of(softer, touched)
    assert Alike.of(whole, touched) != Alike.of(whole, np.arange(6))


def test_what_a_change_leaves_alone_is_kept() -> None:
    """Another beam in the gantry: the bed is not solved again, the gantry is."""
    first = seen(MovingGantry())
    again = seen(with_part(MovingGantry(), "gantry_beam", Member("rhs-100x60x4", "steel-s235")))
    assert seen(MovingGantry()) == first
    assert first & again, "what stands on the floor stays"
    assert again - first, "the gantry does not"
