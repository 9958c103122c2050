"""Heads of screws: sunk where something would touch them, in the way where the plate is too thin."""

from dataclasses import replace
from math import pi

import pytest

from unterbau.catalogue.screws import screw_size
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import bodies_of, lay_out
from unterbau.materials.material import material
from unterbau.shop.fasteners import length_of
from unterbau.shop.pieces import hole_words, pieces_of
from unterbau.solids.heads import head_of, heads_of, sink
from unterbau.structure.parts import Place
from unterbau.structure.screws import screws_of
from unterbau.studies.clash import clashes

THIN = replace(MovingGantry(), x_plate=replace(MovingGantry().x_plate, thickness=0.006))


def test_a_head_that_something_would_touch_is_sunk_and_its_hole_says_so() -> None:
    structure = lay_out(MovingGantry())
    found = heads_of(structure)
    feet = {f"{side} side on foot of {side} side" for side in ("left", "right")}
    assert {one.of for one in found.sunk} == {"bed", "X plate on z guides", *feet}
    assert not found.raised
    holes = [hole for piece in pieces_of(structure) for hole in piece.holes * piece.count]
    assert sum(hole.sunk > 0.0 for hole in holes) == len(found.sunk)
    hole = next(one for one in holes if one.sunk and one.of != "bed")
    size = screw_size(hole.screw)
    assert hole.sunk > size.d
    assert hole.bore > size.head
    assert "head sunk" in hole_words(hole)
    screw = next(iter(found.sunk))
    plate = structure.pieces[screw.through]
    assert length_of(structure, screw).grip == pytest.approx(plate.height - sink(screw))  # type: ignore[union-attr]


def test_what_a_counterbore_takes_is_counted_once() -> None:
    piece = next(one for one in pieces_of(lay_out(MovingGantry())) if any(hole.sunk for hole in one.holes))
    bare = replace(piece, holes=tuple(replace(one, sunk=0.0) for one in piece.holes))
    rings = sum(pi / 4 * (one.bore**2 - one.diameter**2) * one.sunk for one in piece.holes if one.sunk)
    assert piece.drilled - bare.drilled == pytest.approx(rings * material(piece.material).rho)


def test_a_plate_too_thin_to_sink_them_has_its_heads_in_the_way() -> None:
    assert {screw.of for screw, _ in heads_of(lay_out(THIN)).raised} == {"X plate on z guides"}
    assert any(one.first.startswith("screws of") or one.second.startswith("screws of") for one in clashes(THIN).found)
    assert not any("screws of" in (one.first + one.second) for one in clashes(MovingGantry()).found)


def test_heads_are_drawn_where_they_are_wanted_and_as_large_as_they_are() -> None:
    structure = lay_out(MovingGantry())
    with_them, without = (len(bodies_of(MovingGantry(), Place(), screws=wanted)) for wanted in (True, False))
    assert with_them - without == len(screws_of(structure))
    screw = next(one for one in screws_of(structure) if not one.rail)
    size, corners = screw_size(screw.size), head_of(screw).body.corners
    assert sorted(corners.max(axis=0) - corners.min(axis=0))[0] == pytest.approx(size.d, rel=0.01)
