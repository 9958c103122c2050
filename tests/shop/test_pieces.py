"""Pieces: masses against the list, mated holes in one line, mitres by hand, equal ones counted together."""

from dataclasses import replace
from math import tan

import numpy as np
import pytest

from unterbau.machine.changes.change import Brace, Panel
from unterbau.machine.kind import Kind
from unterbau.machine.kinds.braced_mill import BracedMill
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import KINDS, bill_of, lay_out
from unterbau.shop.bars import bar_plans
from unterbau.shop.cut_plan import Stock
from unterbau.shop.holes import bar_holes, place_of, plate_holes
from unterbau.shop.pieces import hole_words, pieces_of
from unterbau.structure.ends import sawn
from unterbau.structure.footing import Footing
from unterbau.structure.parts import Member
from unterbau.structure.piece import Bar, PlatePiece, Rod
from unterbau.structure.screws import screws_of

each_kind = pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.id)


@each_kind
def test_pieces_weigh_what_the_list_says_and_none_is_missing(kind: Kind) -> None:
    structure = lay_out(kind.model())
    found = pieces_of(structure)
    names = [name for one in found for name in one.names]
    assert len(set(names)) == len(names)
    wanted = {one.name for one in structure.pieces.values() if isinstance(one, Bar | PlatePiece | Rod)}
    assert set(names) == wanted
    made = ("tube", "profile", "box", "plate", "rib", "gusset", "base", "fill", "flat", "angle", "round", "⌀")
    listed = sum(
        item.mass for item in bill_of(kind.model())
        if item.length and item.part not in ("cutter",) and not item.text.startswith(("rail", "shelf"))
        and any(word in item.text for word in made) and "with motor" not in item.text
    )  # fmt: skip
    total = sum(one.mass * one.count for one in found if "cutter" not in one.names)
    if kind.id not in ("light-table", "wall-axis", "lathe"):  # their lists name other bought things with these words
        assert total == pytest.approx(listed, rel=1e-9)
    assert all(0.0 <= one.drilled < one.mass for one in found)


@each_kind
def test_mated_holes_lie_in_one_line(kind: Kind) -> None:
    """Each hole's place, taken back into the machine, lies on the axis of the screw that it is for, to 1e-9."""
    structure = lay_out(kind.model())
    screws, cuts = screws_of(structure), sawn(structure)
    met = 0
    for piece in structure.pieces.values():
        if isinstance(piece, PlatePiece):
            holes, cut = plate_holes(piece, screws), None
        elif isinstance(piece, Bar):
            holes, cut = bar_holes(piece, cuts[piece.name], screws), cuts[piece.name]
        else:
            continue
        own = [one for one in screws if piece.name in (one.through, one.into)]
        for hole in holes:
            place = np.array(place_of(piece, cut, hole))
            away = [np.linalg.norm(np.cross(place - np.array(one.head), np.array(one.out))) for one in own]
            assert min(away) < 1e-9
            met += 1
    assert met > 10


def test_a_bolt_that_joins_two_pieces_gives_each_a_hole() -> None:
    router = MovingGantry()
    structure = lay_out(router)
    found = {name: one for one in pieces_of(structure) for name in one.names}
    bed = found["bed"]
    beams = [found[f"cross member {n}"] for n in (1, 2, 3, 4)]
    below = sum(hole.of == "bed" for beam in beams for hole in beam.holes)
    assert len(bed.holes) == below == len([one for one in screws_of(structure) if one.of == "bed"])
    assert {hole.sort for hole in bed.holes} == {"clearance"}
    assert hole_words(bed.holes[0]) == "⌀9 through for M8, head sunk ⌀15 × 8.5"
    into = next(hole for hole in beams[0].holes if hole.of == "bed")
    assert hole_words(into).startswith("M8 insert, drill ⌀")
    slotted = replace(router, cross_member=Member("tslot-40L-1x2", "aluminium-6060"))
    nuts = {name: one for one in pieces_of(lay_out(slotted)) for name in one.names}["cross member 1"]
    assert hole_words(next(hole for hole in nuts.holes if hole.of == "bed")) == "M8, nut in the slot"


def test_equal_pieces_are_one_sort_and_letters_go_on() -> None:
    found = pieces_of(lay_out(MovingGantry()))
    assert [one.label for one in found] == [chr(ord("A") + n) for n in range(len(found))]
    sides = next(one for one in found if "left side beam" in one.names)
    assert set(sides.names) == {"left side beam", "right side beam"}


def test_a_mitre_counts_its_longer_side() -> None:
    """A flat between two posts at an angle: both ends are cut along the posts' faces; half its height × tan(angle)."""
    mill = BracedMill()
    found = {name: one for one in pieces_of(lay_out(mill)) for name in one.names}
    cross = found["cross 1"]
    cut = sawn(lay_out(mill))["cross 1"]
    angles = [end.angle for end in cross.ends]
    assert angles[0] > 5.0
    assert angles[0] == pytest.approx(angles[1], abs=0.01)
    bar = cut.bar
    along = np.array(bar.along)
    tilt = np.arccos(abs(float(along @ np.array(cut.first.normal))))
    side = np.cross(np.array(bar.up), along)
    tilted_over = bar.width if abs(np.array(cut.first.normal) @ side) > 0.1 else bar.height
    assert cross.length == pytest.approx(cut.length + tilted_over * tan(tilt), rel=1e-6)


def test_what_was_added_becomes_pieces_too() -> None:
    router = MovingGantry()
    brace = Brace("brace_1", Footing("left side", "right", 0.5, 1.0), Footing("gantry beam", "back", 0.25))
    panel = Panel(
        "panel_1", tuple(Footing("gantry beam", "back", a, c) for a, c in ((0.1, 0.1), (0.9, 0.1), (0.9, 0.9)))
    )
    found = {name: one for one in pieces_of(lay_out(replace(router, changes=(brace, panel)))) for name in one.names}
    assert found["brace 1"].stock.startswith("flat")
    assert len(found["panel 1"].holes) > 3
    assert len(found["gantry beam"].holes) > len(
        next(one for one in pieces_of(lay_out(router)) if "gantry beam" in one.names).holes
    )


def test_bars_are_planned_by_section_and_material() -> None:
    pieces = pieces_of(lay_out(MovingGantry()))
    plans = bar_plans(pieces, {}, 0.0025, 0.005)
    assert {(one.section, one.material) for one in plans} == {
        (one.section, one.material) for one in pieces if one.sort == "bar"
    }
    for one in plans:
        assert one.plan is not None
        assert one.plan.proven
        sawn_names = [name for bar in one.plan.bars for name in bar.pieces]
        for piece in one.pieces:
            assert sawn_names.count(piece.label) == piece.count
    short = bar_plans(pieces, {("rhs-120x80x5", "steel-s235"): (Stock(0.5),)}, 0.0, 0.0)
    failed = next(one for one in short if one.section == "rhs-120x80x5")
    assert failed.plan is None
    assert "longer than every bar" in failed.problem
