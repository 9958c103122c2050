"""Drawings as files: measured in pixels, reopened, closed meshes against closed forms, tables there and back."""

import io
from dataclasses import replace
from pathlib import Path
from xml.etree import ElementTree

import numpy as np
import pypdfium2
import pytest
import trimesh
from ezdxf.filemanagement import read as read_dxf
from shapely import Polygon

from unterbau.errors import InputError, UnterbauError
from unterbau.files.drawings import Wanted, one_piece, write_all
from unterbau.files.machine_mesh import gltf, machine_scene, stl
from unterbau.files.piece_dxf import sheet_dxf
from unterbau.files.piece_svg import piece_svg
from unterbau.files.shopping_csv import read_shopping, write_shopping
from unterbau.files.shopping_ods import read_shopping_ods, write_shopping_ods
from unterbau.files.template_pdf import CHECK, EDGE, template_pdf
from unterbau.machine.kind import Kind
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import KINDS, bill_of, lay_out
from unterbau.sections.section import section
from unterbau.shop.pieces import pieces_of
from unterbau.shop.sheets import sheet_plans
from unterbau.shop.shopping import Dates, basket, with_state
from unterbau.shop.state import ShopState
from unterbau.structure.ends import sawn
from unterbau.structure.parts import Member, Place
from unterbau.structure.piece import Bar
from unterbau.structure.weights import member_rings

ROUTER = replace(MovingGantry(), gantry_beam=Member("rhs-120x80x5", "steel-s235"))
STRUCTURE = lay_out(ROUTER)
PIECES = pieces_of(STRUCTURE)
DOTS = 8.0  # pixels per mm


def dark(data: bytes, page: int = 0) -> np.ndarray:
    """Return which pixels of a page are dark, the first row at the bottom."""
    with pypdfium2.PdfDocument(data) as document:
        image = document[page].render(scale=DOTS * 25.4 / 72).to_pil().convert("L")
    return np.array(image)[::-1] < 128


def test_a_template_is_at_full_size() -> None:
    """The check length is 100 mm in the rendered page, and holes lie where they lie in the piece, to a pixel or two."""
    piece = next(one for one in PIECES if "X plate" in one.names)
    ink = dark(template_pdf(piece))
    row = ink[round(17 * DOTS)]
    run = np.flatnonzero(row[: round((EDGE + CHECK + 2) * DOTS)])
    assert (run[-1] - run[0]) / DOTS == pytest.approx(CHECK, abs=0.4)
    assert run[0] / DOTS == pytest.approx(EDGE, abs=0.3)
    for hole in piece.holes[:6]:
        x, y = (EDGE + hole.x * 1e3) * DOTS, (24.0 + hole.y * 1e3) * DOTS
        if x < (210 - EDGE) * DOTS:
            near = ink[round(y) - 2 : round(y) + 3, round(x) - 2 : round(x) + 3]
            assert near.any(), "the cross of a hole is not where the hole is"


def test_every_piece_has_a_sheet_and_all_files_are_written(tmp_path: Path) -> None:
    wanted = Wanted("p", "c", ROUTER, ShopState(), ("sheet-firm",), {"x_guides": 4e-5}, "mm", "2026-11-28")
    written = write_all(tmp_path / "all", wanted)
    names = {path.name for path in written}
    assert {"pieces.pdf", "cut-plan-and-labels.pdf", "quote.pdf", "machine.glb", "machine.stl"} <= names
    with pypdfium2.PdfDocument(tmp_path / "all" / "pieces.pdf") as document:
        text = "".join(page.get_textpage().get_text_bounded() for page in document)
    assert all(name in text for one in PIECES for name in one.names[:1])
    assert "within 0.04 mm" in text
    with pypdfium2.PdfDocument(tmp_path / "all" / "quote.pdf") as document:
        quoted = document[0].get_textpage().get_text_bounded()
    assert "does not matter: edges as cut will do" in quoted
    again = write_all(tmp_path / "again", wanted)
    assert all(a.read_bytes() == b.read_bytes() for a, b in zip(written, again, strict=True) if a.suffix == ".pdf")
    with pytest.raises(UnterbauError, match=r"expected \.pdf, \.svg"):
        one_piece(wanted, PIECES[0], "a.xyz")
    (tmp_path / "file").write_text("x")
    with pytest.raises(UnterbauError, match="cannot be made"):
        write_all(tmp_path / "file", wanted)


def test_svg_is_as_large_as_the_piece() -> None:
    piece = next(one for one in PIECES if "bed" in one.names)
    root = ElementTree.fromstring(piece_svg(piece))
    assert float(root.attrib["width"].removesuffix("mm")) == pytest.approx(piece.length * 1e3, rel=1e-5)
    circles = [one for one in root.iter() if one.tag.endswith("circle")]
    assert len(circles) == len(piece.holes) + sum(hole.sunk > 0.0 for hole in piece.holes)
    assert float(circles[0].attrib["cx"]) == pytest.approx(piece.holes[0].x * 1e3, abs=1e-3)


def test_a_sheet_as_dxf_has_every_hole_where_its_plate_lies() -> None:
    plans = sheet_plans(PIECES, lambda *_: None, 0.005, 0.01)
    for plan in plans:
        assert plan.plan is not None
        space = read_dxf(io.StringIO(sheet_dxf(plan, 0))).modelspace()
        outlines = [one for one in space.query("LWPOLYLINE") if one.dxf.layer == "OUTLINE"]
        assert len(outlines) == len(plan.plan.sheets[0])
        boxes = []
        for laid, outline in zip(plan.plan.sheets[0], outlines, strict=True):
            points = np.array([point[:2] for point in outline.get_points()])  # type: ignore[attr-defined]
            box = [laid.x * 1e3, laid.y * 1e3, (laid.x + laid.length) * 1e3, (laid.y + laid.width) * 1e3]
            assert [*points.min(axis=0), *points.max(axis=0)] == pytest.approx(box)
            boxes.append(box)
        for circle in space.query("CIRCLE"):
            x, y = circle.dxf.center.x, circle.dxf.center.y
            assert any(a < x < c and b < y < d for a, b, c, d in boxes)


@pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.id)
def test_meshes_are_closed_and_as_large_as_their_pieces(kind: Kind) -> None:
    """A bar's volume is its outline's area times its length to 1e-9; arcs as chords take up to 2 % from its section."""
    structure = lay_out(kind.model())
    scene = machine_scene(structure, Place(0.3, 0.6, 0.2))
    assert all(mesh.is_watertight for mesh in scene.geometry.values())
    for piece in structure.pieces.values():
        if isinstance(piece, Bar) and piece.part.fill is None:
            outside, *hollows = member_rings(piece.part)
            area, length = Polygon(outside, hollows).area, sawn(structure)[piece.name].length
            assert scene.geometry[piece.name].volume == pytest.approx(area * length, rel=1e-9)
            assert area == pytest.approx(section(piece.part.section).properties.A, rel=0.02)


def test_meshes_are_read_again() -> None:
    back = trimesh.load(io.BytesIO(gltf(STRUCTURE, Place())), file_type="glb")
    mesh = trimesh.load(io.BytesIO(stl(STRUCTURE, Place())), file_type="stl")
    wide = back.bounds[1] - back.bounds[0]
    assert (mesh.bounds[1] - mesh.bounds[0]) / 1e3 == pytest.approx([wide[0], wide[2], wide[1]], rel=1e-5)
    assert "gantry beam" in back.graph.nodes_geometry or "gantry beam" in back.geometry


@pytest.mark.parametrize("ending", ["csv", "ods"])
def test_a_shopping_list_goes_out_and_comes_back(tmp_path: Path, ending: str) -> None:
    items = tuple(one for one in bill_of(ROUTER) if one.mass or one.money)
    words = tuple(f"={one.text}; <b>" for one in items)
    empty = basket(items, words, (), "a")
    bought = with_state((), "a", empty.rows[2], "ordered", 12.5, Dates("2026-11-28", "2026-12-03", "Iron & yard"))
    told = basket(items, words, bought, "a")
    path = tmp_path / f"list.{ending}"
    (write_shopping_ods if ending == "ods" else write_shopping)(path, told)
    read = read_shopping_ods if ending == "ods" else read_shopping
    assert read(path, empty, (), "a") == bought
    path.write_bytes(path.read_bytes()[:-30])
    if ending == "ods":
        with pytest.raises(InputError, match="expected an OpenDocument table"):
            read_shopping_ods(path, empty, (), "a")


def test_what_is_no_table_is_refused(tmp_path: Path) -> None:
    path = tmp_path / "a.ods"
    path.write_bytes(b"PK\x03\x04 nonsense")
    with pytest.raises(InputError, match="expected an OpenDocument table"):
        read_shopping_ods(path, basket((), (), (), "a"), (), "a")
