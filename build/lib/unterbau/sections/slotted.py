"""Slotted aluminium profiles: generic parametric geometry of our own, in millimetres.

Each square module has a core square with a bore, four diagonal webs, and an undercut
chamber with a lipped opening on every outer face; between modules the chambers run into
each other. Sizes are typical of the trade (common practice, no source), not a maker's.
"""

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from shapely.geometry import Polygon

BORE_CHORDS = 32


@dataclass(frozen=True, slots=True)
class Series:
    """One module, mm."""

    module: float
    slot: float
    lip: float
    chamber: float
    core: float
    bore: float
    web: float
    cavity: float
    cavity_cover: float
    corner: float


SERIES = {
    "20": Series(20, 6, 1.8, 11.5, 7.5, 4.2, 1.5, 0, 0, 1.5),
    "30L": Series(30, 8, 2, 16.5, 11, 6.8, 1.8, 0, 0, 2),
    "30H": Series(30, 8, 2.5, 16, 12, 6.8, 3, 0, 0, 2),
    "40L": Series(40, 8, 4.5, 20, 14, 6.8, 3, 6.5, 1.8, 3),
    "40H": Series(40, 8, 4.5, 20, 16, 6.8, 6, 0, 0, 3),
    "45L": Series(45, 10, 4.5, 20, 15.5, 10, 2.8, 9, 1.8, 3),
    "45H": Series(45, 10, 4.5, 20.5, 18, 10, 5, 6.5, 2.5, 3),
}

Cell = tuple[int, int]
SIDES: dict[str, Cell] = {"right": (1, 0), "top": (0, 1), "left": (-1, 0), "bottom": (0, -1)}


def grid(columns: int, rows: int) -> list[Cell]:
    """Return the modules of a rectangular profile."""
    return [(c, r) for c in range(columns) for r in range(rows)]


C_PROFILE: list[Cell] = [(0, 0), (0, 1), (0, 2), (0, 3), (1, 0), (1, 3)]


def polygon(series: Series, cells: list[Cell]) -> "Polygon":
    """Return the profile as a polygon with holes, mm, lower left module at the origin."""
    from shapely.geometry import Point, box
    from shapely.ops import unary_union

    a = series.module
    solid = unary_union([box(c * a, r * a, (c + 1) * a, (r + 1) * a) for c, r in cells])
    solid = solid.buffer(-series.corner).buffer(series.corner, quad_segs=8)
    cuts = []
    for cell in cells:
        middle = ((cell[0] + 0.5) * a, (cell[1] + 0.5) * a)
        cuts.append(Point(*middle).buffer(series.bore / 2, quad_segs=BORE_CHORDS // 4))
        joined = {n: (cell[0] + s[0], cell[1] + s[1]) in cells for n, s in SIDES.items()}
        for index, name in enumerate(SIDES):
            cuts += _chamber(series, middle, index, joined[name])
        if series.cavity:
            cuts += _cavities(series, middle, joined)
    result = solid.difference(unary_union(cuts))
    if result.geom_type != "Polygon":
        result = max(result.geoms, key=lambda part: part.area)
    return result


def _chamber(s: Series, middle: tuple[float, float], quarter: int, joined: bool) -> list["Polygon"]:
    from shapely.affinity import rotate, translate
    from shapely.geometry import Polygon, box

    q, half, w = s.web / math.sqrt(2), s.module / 2, s.chamber / 2
    outer = half if joined else half - s.lip
    shape = Polygon(
        [
            (outer, -w),
            (outer, w),
            (w + q, w),
            (s.core / 2, s.core / 2 - q),
            (s.core / 2, q - s.core / 2),
            (w + q, -w),
        ]
    )
    parts = [shape] if joined else [shape, box(half - s.lip - 1e-6, -s.slot / 2, half + 1, s.slot / 2)]
    return [translate(rotate(p, 90 * quarter, origin=(0, 0)), *middle) for p in parts]


def _cavities(s: Series, middle: tuple[float, float], joined: dict[str, bool]) -> list["Polygon"]:
    from shapely.geometry import box

    result = []
    for x, side in ((1, "right"), (-1, "left")):
        for y, end in ((1, "top"), (-1, "bottom")):
            px = s.module / 2 - (s.cavity_cover / 2 if joined[side] else s.cavity_cover)
            py = s.module / 2 - (s.cavity_cover / 2 if joined[end] else s.cavity_cover)
            xs = sorted((middle[0] + x * px, middle[0] + x * (px - s.cavity)))
            ys = sorted((middle[1] + y * py, middle[1] + y * (py - s.cavity)))
            result.append(box(xs[0], ys[0], xs[1], ys[1]))
    return result
