"""Counterbores of all kinds: deep enough for the head, never through, drawn and counted once; shorter screws."""

import io

import pypdfium2
import pytest
from ezdxf.filemanagement import read as read_dxf

from unterbau.catalogue.screws import screw_size, screw_sizes
from unterbau.files.piece_dxf import SUNK, plate_dxf
from unterbau.files.piece_pdf import Sheets, pieces_pdf
from unterbau.machine.kind import Kind
from unterbau.machine.machine import KINDS, lay_out
from unterbau.shop.by_eye import by_eye
from unterbau.shop.fasteners import fasteners_of, length_of
from unterbau.shop.pieces import ShopPiece, pieces_of
from unterbau.solids.heads import LEFT, heads_of, sink
from unterbau.structure.piece import PlatePiece
from unterbau.structure.screws import screws_of

COUNTERBORES = {"M3": 6.5, "M4": 8, "M5": 10, "M6": 11, "M8": 15, "M10": 18, "M12": 20}
"""DIN 974-1, recalled without the document open, mm."""
each_kind = pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.id)


def test_counterbores_are_those_of_the_standard() -> None:
    assert {name: size.counterbore * 1e3 for name, size in screw_sizes().items()} == pytest.approx(COUNTERBORES)
    assert all(size.counterbore > size.head for size in screw_sizes().values())


@each_kind
def test_a_sunk_head_leaves_enough_of_its_plate(kind: Kind) -> None:
    structure = lay_out(kind.model())
    sunk = heads_of(structure).sunk
    for screw in sunk:
        plate = structure.pieces[screw.through]
        assert isinstance(plate, PlatePiece)
        assert plate.height - sink(screw) >= LEFT - 1e-12
        assert length_of(structure, screw).washer is False
    pieces = pieces_of(structure)
    holes = [hole for piece in pieces for _ in piece.names for hole in piece.holes if hole.sunk]
    assert len(holes) == len(sunk)
    assert all(hole.sort == "clearance" and hole.sunk > screw_size(hole.screw).d for hole in holes)
    washers = sum(one.count for one in fasteners_of(structure) if one.words.startswith("washer"))
    washers -= sum(one.count for one in by_eye(structure) if one.words.startswith("washer"))
    assert washers == sum(bool(one.through) and one not in sunk for one in screws_of(structure))


@each_kind
def test_nothing_of_the_usual_machines_is_in_the_way_of_a_head(kind: Kind) -> None:
    assert not heads_of(lay_out(kind.model())).raised


def with_sunk() -> ShopPiece:
    kind = next(one for one in KINDS if one.id == "column-mill")
    return next(one for one in pieces_of(lay_out(kind.model())) if any(hole.sunk for hole in one.holes))


def test_a_dxf_has_counterbores_on_a_layer_of_their_own() -> None:
    piece = with_sunk()
    space = read_dxf(io.StringIO(plate_dxf(piece))).modelspace()
    circles = [one for one in space.query("CIRCLE") if one.dxf.layer == SUNK]
    wanted = [hole for hole in piece.holes if hole.sunk]
    assert len(circles) == len(wanted)
    found = sorted((round(c.dxf.center.x, 3), round(c.dxf.center.y, 3), round(2 * c.dxf.radius, 3)) for c in circles)
    assert found == sorted((round(h.x * 1e3, 3), round(h.y * 1e3, 3), round(h.bore * 1e3, 3)) for h in wanted)


def test_a_drawing_says_where_heads_are_sunk() -> None:
    piece = with_sunk()
    book = pypdfium2.PdfDocument(pieces_pdf(Sheets("p", "c", (piece,), {}, "mm", "today")))
    try:
        words = "\n".join(page.get_textpage().get_text_bounded() for page in book)
    finally:
        book.close()
    hole = next(one for one in piece.holes if one.sunk)
    assert f"head sunk ⌀{hole.bore * 1e3:g}" in words
