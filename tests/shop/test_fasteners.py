"""Lengths of screws by hand: grip + washer + thread, the next on sale, never to the bottom; what goes with them."""

from dataclasses import replace

import pytest

from unterbau.catalogue.screws import screw_size
from unterbau.machine.kind import Kind
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import KINDS, lay_out
from unterbau.shop.by_eye import by_eye
from unterbau.shop.fasteners import Length, fasteners_of, length_of
from unterbau.shop.pieces import hole_words, pieces_of
from unterbau.solids.heads import heads_of
from unterbau.structure.parts import Member
from unterbau.structure.screws import screws_of


def test_lengths_by_hand() -> None:
    """20 mm of plate, washer .8, at least 4.2 mm of thread in a block with 6: an M4 × 25 holds and does not bottom."""
    structure = lay_out(MovingGantry())
    screw = next(one for one in screws_of(structure) if one.through == "X plate")
    need = length_of(structure, screw)
    assert (need.grip, need.engaged) == pytest.approx((0.0208, 0.0042))
    assert need.chosen() == 0.025
    assert Length(0.0208, 0.0042, 0.0245, True, None).chosen() is None


def test_thin_walls_take_inserts_slots_take_nuts_thick_walls_threads() -> None:
    words = {}
    for section in ("rhs-80x40x4", "tslot-40L-1x2", "rhs-120x80x5"):
        router = replace(MovingGantry(), cross_member=Member(section, "steel-s235"))
        structure = lay_out(router)
        found = next(one for one in pieces_of(structure) if "cross member 1" in one.names)
        words[section] = hole_words(next(hole for hole in found.holes if hole.of == "bed"))
        bought = {one.words for one in fasteners_of(structure) if "bed" in one.of}
        assert ("insert M8" in bought) == section.startswith("rhs")
        assert ("slot nut M8" in bought) == section.startswith("tslot")
    assert words["rhs-80x40x4"].startswith("M8 insert, drill ⌀")
    assert words["tslot-40L-1x2"] == "M8, nut in the slot"
    filled = replace(MovingGantry(), cross_member=Member("rhs-80x40x4", "steel-s235", fill="epoxy-granite-10"))
    piece = next(one for one in pieces_of(lay_out(filled)) if "cross member 1" in one.names)
    assert next(hole for hole in piece.holes if hole.of == "bed").sort == "tapped"


@pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.id)
def test_every_screw_is_counted_once_and_holds(kind: Kind) -> None:
    structure = lay_out(kind.model())
    screws = screws_of(structure)
    found = fasteners_of(structure)
    eye = by_eye(structure)
    counted = {sort: sum(one.count for one in found if one.words.startswith(sort)) for sort in ("screw ", "washer ")}
    by_hand = {sort: sum(one.count for one in eye if one.words.startswith(sort)) for sort in counted}
    assert counted["screw "] - by_hand["screw "] == len(screws)
    washers = counted["washer "] - by_hand["washer "]
    sunk = heads_of(structure).sunk
    assert washers == sum(bool(one.through) and one not in sunk for one in screws)
    for one in screws:
        need = length_of(structure, one)
        length = need.chosen()
        assert length is None or need.grip + need.engaged <= length + 1e-9 <= need.bottoms + 2e-6
        assert need.engaged >= 0.7 * screw_size(one.size).d
