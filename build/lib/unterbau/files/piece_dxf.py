"""Pieces as DXF: plates with outline, holes and threads on layers; bars with the drilling of each face."""

import io
import re
from typing import Any

from unterbau.sections.section import section
from unterbau.shop.holes import Hole
from unterbau.shop.pieces import ShopPiece
from unterbau.shop.sheet_plan import Laid
from unterbau.shop.sheets import PlatesPlan
from unterbau.shop.views import EDGES

OUTLINE, HOLES, TAPS, SUNK, TEXT, SHEET = "OUTLINE", "HOLES", "TAPS", "COUNTERBORES", "TEXT", "SHEET"
COLOURS = {OUTLINE: 7, HOLES: 3, TAPS: 1, SUNK: 5, TEXT: 8, SHEET: 9}
"""Layers, and the colour numbers that drawings usually use."""
MM = 1e3
FACES = ("up", "down", "side", "other side")
PLAIN = re.compile(r"[^\w.-]+")


def plate_dxf(piece: ShopPiece) -> str:
    """Return a plate as the text of a DXF file, mm, its first corner at 0, 0."""
    drawing, space = _new()
    corners = [(0.0, 0.0), (piece.length, 0.0), (piece.length, piece.width), (0.0, piece.width)]
    if piece.halved:
        corners = [corners[0], corners[1], corners[3]]
    _outline(space, corners)
    for hole in piece.holes:
        if hole.face not in EDGES:
            _hole(space, hole, hole.x, hole.y)
    edges = [edge for edge in EDGES if any(hole.face == edge for hole in piece.holes)]
    if edges:
        _words(space, f"threads in the {' and the '.join(edges)}: see the sheet", (0.0, -0.01))
    _title(space, piece, piece.width)
    return _text(drawing)


def bar_dxf(piece: ShopPiece) -> str:
    """Return the drilling of a bar, its faces below one another, each with its first end at x 0."""
    drawing, space = _new()
    shape = section(piece.section) if piece.section else None
    tall = piece.thickness if shape is None else (shape.width if piece.turned else shape.height)
    wide = piece.thickness if shape is None else (shape.height if piece.turned else shape.width)
    down = 0.0
    for face in FACES:
        holes = [hole for hole in piece.holes if hole.face == face]
        if not holes:
            continue
        size = wide if face in ("up", "down") else tall
        low = -down - size
        _outline(space, [(0.0, low), (piece.length, low), (piece.length, low + size), (0.0, low + size)])
        for hole in holes:
            _hole(space, hole, hole.x, low + size / 2 + hole.y)
        _words(space, face, (0.0, low - 0.006))
        down += size + 0.02
    _title(space, piece, 0.0)
    return _text(drawing)


def sheet_dxf(plan: PlatesPlan, number: int) -> str:
    """Return a sheet with all that is cut from it, mm, on the same layers; its own outline on a layer of its own."""
    drawing, space = _new()
    assert plan.plan is not None
    size = plan.plan.sheet
    corners = [(0.0, 0.0), (size.length, 0.0), (size.length, size.width), (0.0, size.width)]
    space.add_lwpolyline([(x * MM, y * MM) for x, y in corners], close=True, dxfattribs={"layer": SHEET})
    for one in plan.plan.sheets[number]:
        piece = plan.piece(one.name)
        outline = [(0.0, 0.0), (piece.length, 0.0), (piece.length, piece.width), (0.0, piece.width)]
        if piece.halved:
            outline = [outline[0], outline[1], outline[3]]
        _outline(space, [_on_sheet(one, x, y) for x, y in outline])
        for hole in (each for each in piece.holes if each.face not in EDGES):
            _hole(space, hole, *_on_sheet(one, hole.x, hole.y))
        _words(space, one.name, _on_sheet(one, piece.length / 2, piece.width / 2))
    return _text(drawing)


def _on_sheet(one: Laid, x: float, y: float) -> tuple[float, float]:
    """Return a place of a plate on its sheet; turned plates lie a quarter against the clock."""
    return (one.x + one.length - y, one.y + x) if one.turned else (one.x + x, one.y + y)


def piece_dxf(piece: ShopPiece) -> str | None:
    """Return a plate, or the drilling of a bar; nothing of what has neither outline nor holes to show."""
    if piece.sort in ("plate", "extruded"):
        return plate_dxf(piece)
    drilled = any(hole.face in FACES for hole in piece.holes)
    return bar_dxf(piece) if piece.sort == "bar" and drilled else None


def file_name(piece: ShopPiece) -> str:
    """Return what a piece's file is called: letter, how many, first name."""
    return PLAIN.sub("-", f"{piece.label}-{piece.count}x-{piece.names[0]}").strip("-")


def _new() -> tuple[Any, Any]:
    from ezdxf.filemanagement import new

    drawing = new("R2010")
    drawing.header["$INSUNITS"] = 4
    for name, number in COLOURS.items():
        drawing.layers.add(name, color=number)
    return drawing, drawing.modelspace()


def _text(drawing: Any) -> str:
    held = io.StringIO()
    drawing.write(held)
    return held.getvalue()


def _outline(space: Any, corners: list[tuple[float, float]]) -> None:
    space.add_lwpolyline([(x * MM, y * MM) for x, y in corners], close=True, dxfattribs={"layer": OUTLINE})


def _hole(space: Any, hole: Hole, x: float, y: float) -> None:
    if hole.sort == "slot nut":
        _words(space, hole.screw, (x, y))
        return
    layer = HOLES if hole.sort == "clearance" else TAPS
    space.add_circle((x * MM, y * MM), hole.diameter / 2 * MM, dxfattribs={"layer": layer})
    if hole.sunk:
        space.add_circle((x * MM, y * MM), hole.bore / 2 * MM, dxfattribs={"layer": SUNK})
    if hole.sort == "tapped":
        _words(space, hole.screw, (x + hole.diameter, y))


def _words(space: Any, text: str, place: tuple[float, float]) -> None:
    words = space.add_text(text, dxfattribs={"layer": TEXT, "height": 4.0})
    words.set_placement((place[0] * MM, place[1] * MM))


def _title(space: Any, piece: ShopPiece, top: float) -> None:
    _words(space, f"{piece.label}  {piece.count} x {piece.stock}, {piece.material}", (0.0, top + 0.01))
