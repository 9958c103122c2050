"""A piece as SVG at full size, mm: outline, holes and words in groups of their own."""

from xml.etree import ElementTree

from unterbau.shop.pieces import ShopPiece, hole_words
from unterbau.shop.views import View, views_of

MM = 1e3
APART = 15.0
"""Between views, mm."""
LINE = {"fill": "none", "stroke": "black", "stroke-width": "0.25"}


def piece_svg(piece: ShopPiece) -> str:
    """Return a piece's views below one another as the text of an SVG file."""
    views = views_of(piece)
    wide = max(view.length for view in views) * MM
    tall = sum(view.height * MM + APART for view in views)
    root = ElementTree.Element("svg", {
        "xmlns": "http" + "://www.w3.org/2000/svg", "width": f"{wide:g}mm", "height": f"{tall:g}mm",
        "viewBox": f"0 0 {wide:g} {tall:g}",
    })  # fmt: skip
    ElementTree.SubElement(root, "title").text = f"{piece.label}: {piece.count} x {piece.stock}, {piece.names[0]}"
    low = 0.0
    for view in views:
        low += view.height * MM
        _view(root, view, low)
        low += APART
    return ElementTree.tostring(root, encoding="unicode") + "\n"


def _view(root: ElementTree.Element, view: View, low: float) -> None:
    group = ElementTree.SubElement(root, "g", {"id": view.name.replace(" ", "-")})
    for ring in view.outlines:
        points = " ".join(f"{x * MM:.4f},{low - y * MM:.4f}" for x, y in ring)
        ElementTree.SubElement(group, "polygon", {"points": points, "class": "outline", **LINE})
    for one in view.holes:
        place = {"cx": f"{one.x * MM:.4f}", "cy": f"{low - one.y * MM:.4f}", "r": f"{one.hole.diameter / 2 * MM:g}"}
        circle = ElementTree.SubElement(group, "circle", {**place, "class": one.hole.sort.replace(" ", "-"), **LINE})
        if one.hole.sunk:
            round_it = {**place, "r": f"{one.hole.bore / 2 * MM:g}", "class": "sunk", **LINE}
            ElementTree.SubElement(group, "circle", round_it)
        ElementTree.SubElement(circle, "title").text = hole_words(one.hole)
