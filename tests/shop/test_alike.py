"""Pieces that are equal when turned over or round: against every corner of a body turned by matrices."""

from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from unterbau.machine.kinds.light_table import LightTable
from unterbau.machine.machine import lay_out
from unterbau.shop.alike import bar_turns, pattern_key, plate_turns
from unterbau.shop.holes import Hole
from unterbau.shop.pieces import pieces_of
from unterbau.structure.parts import Member

LONG, WIDE, TALL = 0.6, 0.08, 0.12
NORMALS = {"up": (0, 0, 1), "down": (0, 0, -1), "side": (0, 1, 0), "other side": (0, -1, 0), "first end": (-1, 0, 0),
           "last end": (1, 0, 0)}  # fmt: skip
"""Of a bar along X, its up Z, its side Y."""


def in_space(hole: Hole) -> tuple[tuple[float, ...], tuple[float, ...]]:
    """Return where a bar's hole is from the bar's middle, and which way it looks."""
    normal = NORMALS[hole.face]
    if hole.face.endswith(" end"):
        place = (normal[0] * LONG / 2, hole.x, hole.y)
    elif hole.face in ("up", "down"):
        place = (hole.x - LONG / 2, hole.y, normal[2] * TALL / 2)
    else:
        place = (hole.x - LONG / 2, normal[1] * WIDE / 2, hole.y)
    return tuple(round(float(v), 9) + 0.0 for v in place), normal


@st.composite
def holes(draw: st.DrawFn) -> tuple[Hole, ...]:
    found = []
    for _ in range(draw(st.integers(1, 4))):
        face = draw(st.sampled_from(sorted(NORMALS)))
        x = draw(st.integers(-30, 30)) * 1e-3 if face.endswith(" end") else draw(st.integers(5, 595)) * 1e-3
        found.append(Hole(face, x, draw(st.integers(-30, 30)) * 1e-3, "tapped", "M6", 0.005, 0.01, "it"))
    return tuple(found)


@given(holes())
def test_a_bar_turned_is_the_bar_turned(some: tuple[Hole, ...]) -> None:
    """The four turns are the rotations by half a turn about its three axes, told by matrices of the test's own."""
    turns = bar_turns(Member("rhs-120x80x5", "steel-s235"), LONG)
    assert len(turns) == 4
    matrices = (np.eye(3), np.diag([1, -1, -1]), np.diag([-1, -1, 1]), np.diag([-1, 1, -1]))
    for turn, matrix in zip(turns, matrices, strict=True):
        wanted = []
        for hole in some:
            place, normal = in_space(hole)
            wanted.append((tuple(np.round(matrix @ place, 9) + 0.0), tuple((matrix @ normal).astype(int))))
        assert sorted(in_space(turn(hole)) for hole in some) == sorted(wanted)
    key = pattern_key(some, turns)
    assert all(pattern_key(tuple(turn(hole) for hole in some), turns) == key for turn in turns)


def test_mirror_images_stay_two_and_what_has_no_twin_lies_one_way() -> None:
    """A left hand is no right hand however it is turned; an angle can only lie as it lies."""
    left = tuple(Hole(face, x, 0.01, "tapped", "M6", 0.005, 0.01, "it") for face, x in (("up", 0.1), ("side", 0.2)))
    right = (left[0], Hole("other side", 0.2, 0.01, "tapped", "M6", 0.005, 0.01, "it"))
    turns = bar_turns(Member("rhs-120x80x5", "steel-s235"), LONG)
    assert pattern_key(left, turns) != pattern_key(right, turns)
    assert len(bar_turns(Member("angle-60x40x5", "steel-s235"), LONG)) == 1


def test_a_plate_is_turned_about_both_of_its_middles() -> None:
    """Corners and edges by hand: a hole 10 mm from the first corner ends 10 mm from another."""
    turns = plate_turns(0.3, 0.2)
    hole = Hole("face", 0.01, 0.02, "clearance", "M6", 0.0066, 0.02, "it")
    assert [(turn(hole).face, round(turn(hole).x, 9), round(turn(hole).y, 9)) for turn in turns] == [
        ("face", 0.01, 0.02), ("back", 0.01, 0.18), ("back", 0.29, 0.02), ("face", 0.29, 0.18),
    ]  # fmt: skip
    edge = Hole("low edge", 0.05, 0.002, "tapped", "M6", 0.005, 0.02, "it")
    assert [(turn(edge).face, round(turn(edge).x, 9), turn(edge).y) for turn in turns] == [
        ("low edge", 0.05, 0.002), ("high edge", 0.05, -0.002), ("low edge", 0.25, -0.002), ("high edge", 0.25, 0.002),
    ]  # fmt: skip


def test_the_sides_of_a_light_table_are_one_sort() -> None:
    found = next(one for one in pieces_of(lay_out(LightTable())) if "left side" in one.names)
    assert found.names == ("left side", "right side")
    assert [one.label for one in pieces_of(lay_out(LightTable()))] == sorted(
        one.label for one in pieces_of(lay_out(LightTable()))
    )
    assert all(a != b for a, b in pairwise(found.names))
    with pytest.raises(KeyError):
        in_space(Hole("face", 0.0, 0.0, "tapped", "M6", 0.005, 0.01, "it"))
