"""Cross-sections from and to DXF: closed polylines, lines and arcs that meet, circles; layers as materials."""

import io
from pathlib import Path
from typing import Any

from unterbau.errors import InputError, UnterbauError
from unterbau.files.atomic import check_size, shown
from unterbau.sections.drawing import MOST_LINES, PER_UNIT, TOLERANCE, Drawing, Ring, check_extent, checked, join_lines
from unterbau.sections.section import Section

UNITS = {1: "inch", 4: "mm", 5: "cm", 6: "m"}
"""$INSUNITS by number."""
CURVE = 0.01
"""Largest distance of a chord from its curve, mm."""
DRAWN = {"LINE", "ARC", "CIRCLE", "ELLIPSE", "SPLINE", "LWPOLYLINE", "POLYLINE"}
SEGMENTS = 4
"""Chords of a curve at the least."""
MOST_BYTES = 10_000_000


def read_dxf(path: Path, tolerance: float = TOLERANCE) -> Drawing:
    """Return the drawing in a DXF file.

    Args:
        path: The file.
        tolerance: Ends closer than this are taken as joined, mm.

    Raises:
        InputError: The file cannot be read as DXF.
    """
    try:
        check_size(path, MOST_BYTES)
    except UnterbauError as error:
        raise InputError(str(path), str(error).removeprefix(f"{shown(path)} ")) from None
    document = _document(path)
    unit = UNITS.get(document.units, "")
    per = PER_UNIT.get(unit, 1.0)
    rings, open_lines, skipped = _entities(document.modelspace(), per, path)
    report = [f"{len(rings)} closed outlines, {sum(map(len, open_lines.values()))} single lines and arcs"]
    left: list[Ring] = []
    for layer, lines in open_lines.items():
        joined, loose, widest, mended = join_lines(lines, tolerance)
        rings += [(layer, ring) for ring in joined]
        left += loose
        if joined:
            report.append(f"joined to {len(joined)} outlines on layer {layer}")
        if mended:
            report.append(f"{mended} gaps of up to {widest:.3f} mm closed")
    if skipped:
        report.append("left out: " + ", ".join(f"{n} {kind}" for kind, n in sorted(skipped.items())))
    if not unit:
        report.append("the file does not say its unit")
    drawing = Drawing(tuple(rings), tuple(left), tuple(report), (), unit)
    return checked(drawing) if unit else drawing


def _document(path: Path) -> Any:
    from ezdxf import recover
    from ezdxf.lldxf.const import DXFError

    try:
        found = recover.readfile(path)[0]
        found.modelspace()
        return found
    except OSError as error:
        raise InputError(str(path), f"cannot be read: {error.strerror or error}") from None
    except (DXFError, ArithmeticError, AssertionError, AttributeError, LookupError, TypeError, ValueError):
        raise InputError(str(path), "is not a DXF drawing; expected one with closed outlines") from None


Found = tuple[list[tuple[str, Ring]], dict[str, list[Ring]], dict[str, int]]


def _entities(space: Any, per: float, path: Path) -> Found:
    """Return closed rings and open lines by layer, mm, and how many entities of other kinds were left out."""
    from ezdxf.path import make_path

    rings: list[tuple[str, Ring]] = []
    open_lines: dict[str, list[Ring]] = {}
    skipped: dict[str, int] = {}
    count = 0
    for entity in space:
        kind = entity.dxftype()
        if kind not in DRAWN:
            skipped[kind] = skipped.get(kind, 0) + 1
            continue
        layer = str(entity.dxf.layer)
        outline = make_path(entity)
        ends = [outline.start, *outline.control_vertices()]
        count += len(ends)
        farthest = max(max(abs(p.x), abs(p.y)) for p in ends) * per
        try:
            check_extent(len(rings), count, farthest)
            points = [(p.x * per, p.y * per) for p in outline.flattening(CURVE / per, SEGMENTS)]
            count += len(points) - len(ends)
            check_extent(len(rings), count, farthest)
        except InputError as error:
            raise InputError(str(path), error.problem) from None
        if len(points) > 3 and points[0] == points[-1]:
            rings.append((layer, tuple(points[:-1])))
        elif len(points) > 1:
            open_lines.setdefault(layer, []).append(tuple(points))
            if sum(map(len, open_lines.values())) > MOST_LINES:
                raise InputError(str(path), f"expected a cross-section of at most {MOST_LINES} lines")
    return rings, open_lines, skipped


def dxf_text(section: Section) -> str:
    """Return a section's outline as the text of a DXF drawing, mm."""
    from ezdxf.filemanagement import new

    document = new("R2010")
    document.header["$INSUNITS"] = 4
    space = document.modelspace()
    document.layers.add("section")
    for ring in section.loops:
        space.add_lwpolyline([(y * 1e3, z * 1e3) for y, z in ring], close=True, dxfattribs={"layer": "section"})
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue()


def svg_text(section: Section) -> str:
    """Return a section's outline as an SVG picture to scale, mm."""
    points = [(y * 1e3, z * 1e3) for y, z in section.loops[0]]
    xs, ys = zip(*points, strict=True)
    wide, tall = max(xs) - min(xs), max(ys) - min(ys)
    margin = 2.0
    path = " ".join(
        "M " + " L ".join(f"{y * 1e3 - min(xs) + margin:.3f} {max(ys) - z * 1e3 + margin:.3f}" for y, z in ring) + " Z"
        for ring in section.loops
    )
    width, height = wide + 2 * margin, tall + 2 * margin
    title = section.label.replace("&", "&amp;").replace("<", "&lt;")
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width:.3f}mm" height="{height:.3f}mm" '
        f'viewBox="0 0 {width:.3f} {height:.3f}">\n<title>{title}</title>\n'
        f'<path d="{path}" fill="lightgrey" stroke="black" stroke-width="0.2" fill-rule="evenodd"/>\n</svg>\n'
    )
