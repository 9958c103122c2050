"""A piece seen from its faces: closed outlines and numbered holes, for drawings on paper, templates and files."""

from dataclasses import dataclass
from math import radians, tan

from unterbau.shop.holes import Hole
from unterbau.shop.pieces import ShopPiece
from unterbau.structure.parts import Member
from unterbau.structure.weights import member_rings

Outline = tuple[tuple[float, float], ...]
FACES = ("up", "down", "side", "other side")
ENDS = ("first end", "last end")
EDGES = ("low edge", "high edge", "first edge", "last edge")
"""Of plates; the first two go along them."""


@dataclass(frozen=True, slots=True)
class Drilled:
    """A hole where it is seen."""

    number: int
    """In the piece's table of holes."""
    x: float
    """From the view's lower left corner, m."""
    y: float
    hole: Hole


@dataclass(frozen=True, slots=True)
class View:
    """A face of a piece, its lower left corner at 0, 0."""

    name: str
    outlines: tuple[Outline, ...]
    """Closed; the outside first."""
    holes: tuple[Drilled, ...]
    length: float
    """Across the picture, m."""
    height: float


def bar_size(piece: ShopPiece) -> tuple[float, float]:
    """Return how tall and how wide a bar or round is as it lies, m."""
    if not piece.section:
        return piece.thickness, piece.thickness
    ring = member_rings(Member(piece.section, piece.material, turned=piece.turned))[0]
    ys, zs = zip(*ring, strict=True)
    return max(zs) - min(zs), max(ys) - min(ys)


def views_of(piece: ShopPiece) -> tuple[View, ...]:
    """Return the views that a piece needs: of plates the face, of bars each face with holes, and its section."""
    numbers = {id(hole): number for number, hole in enumerate(piece.holes, 1)}
    if piece.sort in ("plate", "extruded"):
        corners: Outline = ((0.0, 0.0), (piece.length, 0.0), (piece.length, piece.width), (0.0, piece.width))
        if piece.halved:
            corners = (corners[0], corners[1], corners[3])
        drilled = tuple(Drilled(numbers[id(one)], one.x, one.y, one) for one in piece.holes if one.face not in EDGES)
        flat = View("face", (corners,), drilled, piece.length, piece.width)
        return (flat, *_edges(piece, numbers))
    tall, wide = bar_size(piece)
    faces = [face for face in FACES if any(hole.face == face for hole in piece.holes)]
    if any(end.angle for end in piece.ends) and not {"side", "other side"} & set(faces):
        faces.append("side")
    views = []
    for face in faces or ["side"]:
        size = wide if face in ("up", "down") else tall
        outline = _mitred(piece, size) if face in ("side", "other side") else _box(piece.length, size)
        drilled = tuple(
            Drilled(numbers[id(one)], one.x, size / 2 + one.y, one) for one in piece.holes if one.face == face
        )
        views.append(View(face, (outline,), drilled, piece.length, size))
    return (*views, *_from_the_end(piece, tall, wide, numbers))


def _edges(piece: ShopPiece, numbers: dict[int, int]) -> tuple[View, ...]:
    """Return the edges of a plate that are drilled."""
    found = []
    for edge in EDGES:
        drilled = tuple(
            Drilled(numbers[id(one)], one.x, piece.thickness / 2 + one.y, one) for one in piece.holes
            if one.face == edge
        )  # fmt: skip
        if drilled:
            long = piece.length if edge in EDGES[:2] else piece.width
            found.append(View(edge, (_box(long, piece.thickness),), drilled, long, piece.thickness))
    return tuple(found)


def _from_the_end(piece: ShopPiece, tall: float, wide: float, numbers: dict[int, int]) -> tuple[View, ...]:
    """Return a bar's section as it lies, once for each end that is drilled."""
    if not piece.section:
        return ()
    rings = member_rings(Member(piece.section, piece.material, turned=piece.turned))
    left, low = (min(point[k] for point in rings[0]) for k in (0, 1))
    moved = tuple(tuple((y - left, z - low) for y, z in ring) for ring in rings)
    found = []
    for end in ENDS:
        drilled = tuple(
            Drilled(numbers[id(one)], wide / 2 + one.x, tall / 2 + one.y, one) for one in piece.holes
            if one.face == end
        )  # fmt: skip
        if drilled:
            found.append(View(end, moved, drilled, wide, tall))
    return tuple(found) or (View("section", moved, (), wide, tall),)


def _box(length: float, height: float) -> Outline:
    return ((0.0, 0.0), (length, 0.0), (length, height), (0.0, height))


def _mitred(piece: ShopPiece, size: float) -> Outline:
    """Return a bar from the side with its mitres, the longer side below."""
    lean = [min(size * tan(radians(end.angle)), 0.45 * piece.length) for end in piece.ends] or [0.0, 0.0]
    return ((0.0, 0.0), (piece.length, 0.0), (piece.length - lean[1], size), (lean[0], size))
