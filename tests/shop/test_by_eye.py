"""What is counted without a place: brackets' screws by hand, dowels."""

from dataclasses import replace

import pytest

from unterbau.catalogue.screws import screw_size
from unterbau.machine.kind import Kind
from unterbau.machine.kinds.column_mill import ColumnMill
from unterbau.machine.kinds.light_table import LightTable
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.kinds.raised_sides import RaisedSides
from unterbau.machine.machine import KINDS, lay_out
from unterbau.shop.by_eye import DOWEL, by_eye, unsettled
from unterbau.shop.fasteners import fasteners_of, length_of
from unterbau.shop.pieces import hole_words, pieces_of
from unterbau.shop.substrate import BOUGHT
from unterbau.structure.join import EndJoin
from unterbau.structure.parts import Joint
from unterbau.structure.screws import screws_of

each_kind = pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.id)


def test_brackets_screws_by_hand() -> None:
    """Six ends of three cross members, two brackets each, two screws a bracket: 24, and a nut in a slot for each."""
    table = LightTable()
    structure = lay_out(table)
    ends = [one for one in structure.flat if isinstance(one, EndJoin) and one.key == "cross_joint"]
    count = sum(2 * one.joint.count for one in ends)
    assert count == 24
    found = {one.words: one.count for one in fasteners_of(structure) if "cross joint" in one.of}
    assert found["screw M8 × 20, set by eye"] == count
    rows = [one for one in by_eye(structure) if one.words == "slot nut M8"]
    assert sum(one.count for one in rows) == count
    assert any("cross joint: 24 × screw M8 × 20" in text for text in unsettled(structure))


def test_flanges_keep_their_place_by_dowels() -> None:
    found = fasteners_of(lay_out(ColumnMill()))
    (dowels,) = [one for one in found if one.words == DOWEL]
    assert dowels.count == 2
    assert "column joint" in dowels.of[0]


def test_glued_ends_are_screwed_into_plugs_and_walls_into_their_edges() -> None:
    router = MovingGantry()
    pieces = {name: one for one in pieces_of(lay_out(router)) for name in one.names}
    plugs = [hole for hole in pieces["gantry beam"].holes if hole.sort == "plug"]
    assert len(plugs) == 8
    assert hole_words(plugs[0]) == "M8 in a plug glued into the end, drill ⌀6.8"
    size = screw_size("M8")
    inside = (0.04 - 0.005 - size.d, 0.06 - 0.005 - size.d)  # half the tube less its wall and half a head's room
    assert all(abs(hole.x) <= inside[0] and abs(hole.y) <= inside[1] for hole in plugs)
    assert len(pieces["left side"].holes) >= 4
    bought = {one.words: one.count for one in fasteners_of(lay_out(router))}
    assert bought["plug for a tube's end, tapped M8"] == 2
    walls = {name: one for one in pieces_of(lay_out(RaisedSides())) for name in one.names}
    edges = [hole for hole in walls["left wall"].holes if hole.face == "low edge"]
    assert len(edges) == sum(hole.of == "left wall on left side beam" for hole in walls["left side beam"].holes) > 10
    assert {hole.sort for hole in edges} == {"tapped"}


def test_what_is_welded_has_no_screws() -> None:
    welded = replace(RaisedSides(), wall_joint=Joint("weld"))
    assert not any("wall on" in one.of for one in screws_of(lay_out(welded)))
    assert any("wall on" in one.of for one in screws_of(lay_out(RaisedSides())))


@each_kind
def test_screws_into_ends_and_edges_hold_and_do_not_bottom(kind: Kind) -> None:
    structure = lay_out(kind.model())
    for one in screws_of(structure):
        need = length_of(structure, one)
        assert need.engaged <= need.bottoms - need.grip + 1e-9
        assert need.nut is None or need.nut in BOUGHT
    assert all(text for text in unsettled(structure))


def test_rails_on_a_walls_edge_are_screwed_into_it() -> None:
    structure = lay_out(RaisedSides())
    wall = next(one for one in pieces_of(structure) if "left wall" in one.names)
    rails = [hole for hole in wall.holes if hole.face == "high edge"]
    assert {hole.of for hole in rails} == {"y_guides rail 1"}
    assert len(rails) == sum(one.of == "y_guides rail 1" for one in screws_of(structure))
    assert all(abs(hole.y) < 1e-9 for hole in rails), "in the middle of its thickness"
