"""A cross-section as drawn: closed rings on layers, what was mended, what cannot be used and where."""

import hashlib
import re
from dataclasses import dataclass, replace
from math import floor
from typing import TYPE_CHECKING

from unterbau.errors import InputError
from unterbau.sections.solved import SolvedSection, Stuff, solve_mixed, solve_polygon

if TYPE_CHECKING:
    from shapely.geometry import Polygon

Point = tuple[float, float]
Ring = tuple[Point, ...]
TOLERANCE = 0.05
"""Ends of lines closer than this are taken as joined, mm."""
LEAST_AREA = 1e-6
"""Of an outline, mm²."""
SMALLEST, LARGEST = 1.0, 2000.0
"""Extent of a section, mm."""
MOST_RINGS, MOST_POINTS, MOST_LINES = 200, 20_000, 4_000
"""Closed outlines, points in all, and single lines of a section."""
FARTHEST = 1e5
"""Coordinate of any point, mm."""
PER_UNIT = {"mm": 1.0, "cm": 10.0, "m": 1000.0, "inch": 25.4}


@dataclass(frozen=True, slots=True)
class Fault:
    """What is wrong, and where."""

    text: str
    x: float
    """mm."""
    y: float


@dataclass(frozen=True, slots=True)
class Drawing:
    """What a file holds, mm."""

    rings: tuple[tuple[str, Ring], ...]
    """Layer and points of each closed ring."""
    open_lines: tuple[Ring, ...]
    report: tuple[str, ...]
    """What was read and what was mended, in sentences."""
    faults: tuple[Fault, ...]
    unit: str
    """Of the file; empty where it does not say."""

    def in_unit(self, unit: str) -> "Drawing":
        """Return a drawing that does not say its unit, taken in one."""
        if self.unit:
            return self
        f = PER_UNIT[unit]
        scaled = tuple((layer, tuple((x * f, y * f) for x, y in ring)) for layer, ring in self.rings)
        loose = tuple(tuple((x * f, y * f) for x, y in line) for line in self.open_lines)
        return checked(Drawing(scaled, loose, self.report, (), unit))


class _Ends:
    """Ends of lines in cells as wide as the tolerance, so that the next one is found without looking at all."""

    def __init__(self, lines: dict[int, list[Point]], tolerance: float) -> None:
        self._tolerance = tolerance
        self._cells: dict[tuple[int, int], list[tuple[int, int, Point]]] = {}
        for n, line in lines.items():
            for end in (0, -1):
                self._cells.setdefault(self._cell(line[end]), []).append((n, end, line[end]))

    def _cell(self, point: Point) -> tuple[int, int]:
        return floor(point[0] / self._tolerance), floor(point[1] / self._tolerance)

    def remove(self, n: int, line: list[Point]) -> None:
        """Take a line out that is used."""
        for end in (0, -1):
            cell = self._cells[self._cell(line[end])]
            cell[:] = [one for one in cell if one[0] != n]

    def nearest(self, point: Point) -> tuple[float, int, int] | None:
        """Return how far the nearest end within the tolerance is, of which line, and whether its first or last."""
        i, j = self._cell(point)
        near = (one for a in (i - 1, i, i + 1) for b in (j - 1, j, j + 1) for one in self._cells.get((a, b), ()))
        found = min(((_apart(point, place), n, end) for n, end, place in near), default=None)
        return found if found is not None and found[0] <= self._tolerance else None


def join_lines(lines: list[Ring], tolerance: float) -> tuple[list[Ring], list[Ring], float, int]:
    """Join open lines end to end.

    Returns:
        Closed rings, lines left open, the widest gap that was closed, and how many were.
    """
    rings: list[Ring] = []
    left = {n: list(line) for n, line in enumerate(lines) if len(line) > 1}
    ends = _Ends(left, tolerance)
    widest, mended = 0.0, 0
    done: list[Ring] = []
    while left:
        first = max(left)
        chain = left.pop(first)
        ends.remove(first, chain)
        grown = True
        while grown:
            grown = False
            gap = _apart(chain[0], chain[-1])
            if len(chain) > 2 and gap <= tolerance:
                break
            best = ends.nearest(chain[-1])
            if best is not None:
                gap, n, end = best
                other = left.pop(n)
                ends.remove(n, other)
                chain += (other if end == 0 else other[::-1])[1:]
                widest, mended, grown = max(widest, gap), mended + (gap > 1e-9), True
        gap = _apart(chain[0], chain[-1])
        if len(chain) > 2 and gap <= tolerance:
            widest, mended = max(widest, gap), mended + (gap > 1e-9)
            rings.append(tuple(chain[:-1]))
        else:
            done.append(tuple(chain))
    return rings, done, widest, mended


def checked(drawing: Drawing) -> Drawing:
    """Return a drawing with what is wrong about it."""
    from shapely.errors import GEOSException

    try:
        return _checked(drawing)
    except GEOSException as error:
        return replace(drawing, faults=(Fault(f"these outlines cannot be put together: {error}", 0.0, 0.0),))


def check_extent(rings: int, points: int, farthest: float) -> None:
    """Check that a drawing is none that takes for ever.

    Raises:
        InputError: Too many outlines or points, or one too far away.
    """
    if rings > MOST_RINGS:
        raise InputError("", f"expected a cross-section of at most {MOST_RINGS} outlines, got {rings}")
    if points > MOST_POINTS:
        raise InputError("", f"expected a cross-section of at most {MOST_POINTS} points, got {points}")
    if not farthest <= FARTHEST:
        raise InputError("", f"expected points within {FARTHEST / 1e3:g} m of the origin, got {farthest / 1e3:.3g} m")


def _checked(drawing: Drawing) -> Drawing:
    from shapely.geometry import Polygon
    from shapely.validation import explain_validity

    faults = []
    for line in drawing.open_lines:
        faults += [Fault("this line ends in the open", *end) for end in (line[0], line[-1])]
    for _, ring in drawing.rings:
        if len(ring) < 3:  # a line there and back
            faults.append(Fault("this outline holds no area", *ring[0]))
            continue
        shape = Polygon(ring)
        if not shape.is_valid:
            place = re.search(r"\[(-?[\d.e+-]+) (-?[\d.e+-]+)\]", explain_validity(shape))
            x, y = (float(place[1]), float(place[2])) if place else ring[0]
            faults.append(Fault("this outline crosses itself", x, y))
        elif shape.area < LEAST_AREA:
            faults.append(Fault("this outline holds no area", *ring[0]))
    if not drawing.rings:
        faults.append(Fault("there is no closed outline", 0.0, 0.0))
    elif not faults:
        faults += _whole_faults(drawing)
    return replace(drawing, faults=tuple(faults))


def _whole_faults(drawing: Drawing) -> list[Fault]:
    points = [point for _, ring in drawing.rings for point in ring]
    xs, ys = zip(*points, strict=True)
    size = max(max(xs) - min(xs), max(ys) - min(ys))
    middle = ((max(xs) + min(xs)) / 2, (max(ys) + min(ys)) / 2)
    if not SMALLEST <= size <= LARGEST:
        return [Fault(f"expected {SMALLEST:g} to {LARGEST:g} mm across, got {size:g} mm: is the unit right?", *middle)]
    found = []
    for n, (_, ring) in enumerate(drawing.rings):
        for _, other in drawing.rings[n + 1 :]:
            crossing = _crossing(ring, other)
            if crossing:
                found.append(Fault("two outlines cross here", *crossing))
    if found:
        return found
    whole = union(drawing)
    if whole.is_empty:
        return [Fault("these outlines take each other away; nothing is left", *middle)]
    if whole.geom_type != "Polygon":
        first = whole.geoms[0].representative_point()
        return [Fault("these are pieces apart from each other; a section is one piece", first.x, first.y)]
    return []


def _crossing(a: Ring, b: Ring) -> Point | None:
    from shapely.geometry import LinearRing, Polygon

    first, second = Polygon(a), Polygon(b)
    if not first.overlaps(second):
        return None
    cut = LinearRing(a).intersection(LinearRing(b))
    place = cut.representative_point()
    return (float(place.x), float(place.y))


def polygons(drawing: Drawing) -> dict[str, "Polygon"]:
    """Return the area of each layer: rings inside rings are holes, in turn; what another layer fills is not a hole."""
    from shapely.geometry import Polygon
    from shapely.ops import unary_union

    found = {}
    for layer in dict.fromkeys(layer for layer, _ in drawing.rings):
        shapes = sorted((Polygon(ring) for of, ring in drawing.rings if of == layer), key=lambda s: -s.area)
        area = shapes[0]
        for shape in shapes[1:]:
            area = area.difference(shape) if area.contains(shape.representative_point()) else unary_union([area, shape])
        found[layer] = area
    return found


def union(drawing: Drawing) -> "Polygon":
    """Return the area of all layers together."""
    from shapely.ops import unary_union

    return unary_union(list(polygons(drawing).values()))


def name_of(drawing: Drawing, label: str) -> str:
    """Return the name of a drawn section; it stands for its content."""
    content = repr([(layer, [(round(x, 4), round(y, 4)) for x, y in ring]) for layer, ring in drawing.rings])
    slug = re.sub(r"[^a-z0-9]+", "-", label.lower()).strip("-") or "drawn"
    return f"own-{slug}-{hashlib.sha256(content.encode()).hexdigest()[:8]}"


def solve_drawing(drawing: Drawing, label: str, stuffs: dict[str, Stuff]) -> SolvedSection:
    """Return a drawn section with its values; takes seconds.

    Args:
        drawing: The drawing.
        label: What it is called.
        stuffs: Material of each layer, where it is of several; empty for one.

    Raises:
        InputError: The drawing has faults.
    """
    if drawing.faults:
        raise InputError("drawing", drawing.faults[0].text)
    words = label.strip() or "drawn section"
    name, areas = name_of(drawing, words), polygons(drawing)
    if stuffs:
        return solve_mixed(name, words, [(areas[layer], one) for layer, one in stuffs.items()])
    return solve_polygon(name, words, union(drawing))


def _apart(a: Point, b: Point) -> float:
    return float(((a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2) ** 0.5)
