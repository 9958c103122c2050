"""Cross-sections as a few lines of text.

# a comment
units mm
outline 0,0 40,0 40,4 4,4 4,80 0,80
hole    1,10 3,10 3,20 1,20
circle  20,20 5
hole circle 2,70 1
layer steel-s235
"""

import math

from unterbau.errors import InputError
from unterbau.sections.drawing import PER_UNIT, Drawing, Ring, check_extent, checked
from unterbau.sections.section import Section

CHORDS = 64
MOST = 1_000_000
"""Letters."""
EXPECTED = "units, outline, hole, circle, hole circle or layer"


def read_section_text(text: str) -> Drawing:
    """Return the drawing in a text.

    Raises:
        InputError: Names the line and says what was expected.
    """
    if len(text) > MOST:
        raise InputError("", f"expected a text of at most {MOST} letters, got {len(text)}")
    rings: list[tuple[str, Ring]] = []
    per, unit, layer = 1.0, "", "section"
    for number, line in enumerate(text.splitlines(), 1):
        words = line.split("#")[0].split()
        if not words:
            continue
        where = f"line {number}"
        match words:
            case ["units", name] if name in PER_UNIT:
                per, unit = PER_UNIT[name], name
            case ["units", *_]:
                raise InputError(where, f"expected units and one of {', '.join(PER_UNIT)}")
            case ["layer", name]:
                layer = name
            case ["circle", centre, radius] | ["hole", "circle", centre, radius]:
                rings.append((layer, _circle(where, centre, radius, per)))
            case [("outline" | "hole"), *points]:
                if len(points) < 3:
                    raise InputError(where, "expected at least three points such as 0,0 40,0 40,20")
                rings.append((layer, tuple(_point(where, point, per) for point in points)))
            case _:
                raise InputError(where, f"expected {EXPECTED}, got {words[0]}")
    away = [abs(v) for _, ring in rings for point in ring for v in point]
    check_extent(len(rings), len(away) // 2, max(away, default=0.0))
    drawing = Drawing(tuple(rings), (), (f"{len(rings)} outlines and holes",), (), unit)
    return checked(drawing) if unit else drawing


def outline_text(section: Section) -> str:
    """Return a section's outline as text, mm."""
    rings = tuple(("section", tuple((y * 1e3, z * 1e3) for y, z in loop)) for loop in section.loops)
    return section_text(Drawing(rings, (), (), (), "mm"))


def section_text(drawing: Drawing) -> str:
    """Return a drawing as text."""
    lines = ["units mm"]
    layer = "section"
    for of, ring in drawing.rings:
        if of != layer:
            layer = of
            lines.append(f"layer {layer}")
        lines.append("outline " + " ".join(f"{x:g},{y:g}" for x, y in ring))
    return "\n".join(lines) + "\n"


def _point(where: str, text: str, per: float) -> tuple[float, float]:
    try:
        x, y = (float(part) for part in text.split(","))
    except ValueError:
        raise InputError(where, f"expected a point such as 40,2.5, got {text}") from None
    if not (math.isfinite(x) and math.isfinite(y)):
        raise InputError(where, f"expected a point such as 40,2.5, got {text}")
    return x * per, y * per


def _circle(where: str, centre: str, radius: str, per: float) -> Ring:
    x, y = _point(where, centre, per)
    try:
        r = float(radius) * per
    except ValueError:
        r = 0.0
    if not 0.0 < r < math.inf:
        raise InputError(where, f"expected a radius of more than 0, got {radius}")
    # The polygon has the circle's area.
    r *= math.sqrt(2 * math.pi / (CHORDS * math.sin(2 * math.pi / CHORDS)))
    turn = (2 * math.pi * k / CHORDS for k in range(CHORDS))
    return tuple((x + r * math.cos(a), y + r * math.sin(a)) for a in turn)
