"""A dimensioned sheet for each piece on A4: views to scale, size, holes in a table from one corner, what matters."""

from collections.abc import Sequence
from dataclasses import dataclass

from unterbau.files.paper import MARGIN, THIN, Paper, paper
from unterbau.machine.item_words import text_words
from unterbau.materials.material import material
from unterbau.shop.making import Need, does_not_matter, needs_of_piece
from unterbau.shop.pieces import ShopPiece, hole_words
from unterbau.shop.views import ENDS, Drilled, View, views_of
from unterbau.units import Units, length_text, mass_text, tolerance_text

SCALES = (5.0, 2.0, 1.0, 0.5, 0.2, 0.1, 0.05, 0.02, 0.01)
"""Of drawings, as is customary."""
DRAWN = (12.0, 44.0, 176.0, 196.0)
"""Left, low, right, top of the room for views, mm."""
TABLE = (190.0, 196.0)
"""Left and top of the table of holes, mm."""
ROW = 4.6
SMALL = (*ENDS, "section")
"""Views from an end, at a scale of their own."""
BLOCK = (178.0, MARGIN, 287.0, 48.0)
DRILLED_AWAY = 0.005
"""That holes take from a piece before it is told, kg."""
AROUND = 15.0
"""Room for dimensions beside a view, mm."""
MM = 1e3


@dataclass(frozen=True, slots=True)
class Sheets:
    """What piece drawings are made of."""

    project: str
    candidate: str
    pieces: tuple[ShopPiece, ...]
    needs: dict[str, tuple[Need, ...]]
    units: Units
    when: str
    """Date, in words."""


def pieces_pdf(made: Sheets) -> bytes:
    """Return a PDF with a sheet for each piece; a long table of holes goes on on the next page."""
    book = paper(f"{made.project}: {made.candidate}, pieces")
    for piece in made.pieces:
        _sheet(book, made, piece)
    if not made.pieces:
        book.text(MARGIN, 100, "no pieces")
        book.page()
    return book.data()


def scale_of(view: View, room: tuple[float, float]) -> float:
    """Return the largest customary scale at which a view fits into a room, mm across and up."""
    for scale in SCALES:
        if view.length * MM * scale <= room[0] and view.height * MM * scale <= room[1]:
            return scale
    return SCALES[-1]


def scales_of(views: tuple[View, ...]) -> tuple[float, ...]:
    """Return the scales of views that stand below one another: one for the faces, one for what is seen from an end."""
    wide = DRAWN[2] - DRAWN[0] - 2 * AROUND
    tall = (DRAWN[3] - DRAWN[1]) / len(views) - AROUND - 4
    faces = min(scale_of(one, (wide, tall)) for one in views if one.name not in SMALL) if len(views) > 1 else None
    return tuple(
        faces if faces and one.name not in SMALL else scale_of(one, (wide, min(tall, 45.0) if faces else tall))
        for one in views
    )


def scale_words(scale: float) -> str:
    """Return a scale as drawings say it."""
    return f"{scale:g} : 1" if scale >= 1 else f"1 : {1 / scale:g}"


def _sheet(book: Paper, made: Sheets, piece: ShopPiece) -> None:
    views = views_of(piece)
    scales = scales_of(views)
    y = DRAWN[3]
    for view, scale in zip(views, scales, strict=True):
        tall = view.height * MM * scale
        y -= tall + 4
        _view(book, view, (DRAWN[0] + AROUND, y), scale, made.units)
        y -= AROUND
    _block(book, made, piece, scales[0])
    _matters(book, piece, needs_of_piece(piece, made.needs), made.units)
    rows = [
        (str(number), _where(hole.face), *_place(hole_at, made.units), hole_words(hole))
        for number, hole in enumerate(piece.holes, 1)
        for view in views for hole_at in view.holes if hole_at.number == number
    ]  # fmt: skip
    room = int((TABLE[1] - BLOCK[3] - 12) / ROW)
    first, rest = rows[:room], rows[room:]
    _table(book, first, TABLE[1])
    book.page()
    while rest:
        now, rest = rest[: 2 * room], rest[2 * room :]
        book.text(MARGIN, 200, f"{piece.label}: holes, continued", 4.0, bold=True)
        _table(book, now[:room], 194.0, MARGIN + 2)
        _table(book, now[room:], 194.0)
        book.page()


def _where(face: str) -> str:
    return {"up": "top", "down": "underside"}.get(face, face)


def _place(at: Drilled, units: Units) -> tuple[str, str]:
    return length_text(at.x, units, with_unit=False), length_text(at.y, units, with_unit=False)


def _view(book: Paper, view: View, corner: tuple[float, float], scale: float, units: Units) -> None:
    x0, y0 = corner
    k = MM * scale
    for ring in view.outlines:
        book.closed([(x0 + x * k, y0 + y * k) for x, y in ring])
    book.text(x0, y0 + view.height * k + 1.5, f"{_where(view.name)}, {scale_words(scale)}", 2.6)
    book.dimension(x0, y0 - 7, x0 + view.length * k, y0 - 7, length_text(view.length, units))
    for x in (x0, x0 + view.length * k):
        book.line(x, y0 - 1, x, y0 - 8)
    book.dimension(x0 - 7, y0, x0 - 7, y0 + view.height * k, length_text(view.height, units, with_unit=False))
    for y in (y0, y0 + view.height * k):
        book.line(x0 - 1, y, x0 - 8, y)
    for one in view.holes:
        x, y = x0 + one.x * k, y0 + one.y * k
        radius = max(one.hole.diameter / 2 * k, 0.4)
        book.circle(x, y, radius)
        if one.hole.sunk:
            radius = one.hole.bore / 2 * k
            book.circle(x, y, radius, THIN, dash=one.hole.face == "back")
        if one.hole.sort == "tapped":
            book.circle(x, y, radius * 1.25, THIN, dash=True)
        book.line(x - radius - 1, y, x + radius + 1, y)
        book.line(x, y - radius - 1, x, y + radius + 1)
        book.text(x + radius + 0.5, y + 0.6, str(one.number), 2.0)
    if view.holes:
        book.circle(x0, y0, 0.8, 0.3)
        book.text(x0 - 4, y0 - 3, "0", 2.2)


def _block(book: Paper, made: Sheets, piece: ShopPiece, scale: float) -> None:
    left, low, right, top = BLOCK
    book.closed([(left, low), (right, low), (right, top), (left, top)])
    for y in (low + 8, low + 22):
        book.line(left, y, right, y)
    book.text(left + 2, top - 6.5, f"{piece.label}   {piece.count} ×", 5.0, bold=True)
    stock = f"{text_words(piece.stock, made.units)}, {material(piece.material).label}"
    book.text(left + 26, top - 6.0, _short(book, stock, right - left - 28, 3.4), 3.4, bold=True)
    names = ", ".join(piece.names)
    book.text(left + 2, top - 13, _short(book, names, right - left - 4, 2.8), 2.8)
    size = length_text(piece.length, made.units)
    size += f" × {length_text(piece.width, made.units)}" if piece.width else ""
    angles = ", ".join(f"mitre {end.angle:g}°" for end in piece.ends if end.angle)
    book.text(left + 2, low + 16.5, f"{size}{', ' if angles else ''}{angles}", 3.0)
    mass = f"{mass_text(piece.mass, made.units, 2)} each"
    if piece.drilled > DRILLED_AWAY:
        mass += f", {mass_text(piece.mass - piece.drilled, made.units, 2)} drilled"
    book.text(left + 2, low + 11, mass, 2.8)
    book.text(right - 2, low + 11, f"scale {scale_words(scale)}", 3.2, to="right")
    book.text(left + 2, low + 2.8, _short(book, f"{made.project}: {made.candidate}", right - left - 40, 2.6), 2.6)
    book.text(right - 2, low + 2.8, made.when, 2.6, to="right")


def _matters(book: Paper, piece: ShopPiece, needs: tuple[Need, ...], units: Units) -> None:
    left, y = MARGIN + 2, 38.0
    for one in needs[:3]:
        for line in book.wrapped(f"{one.words} within {tolerance_text(one.within, units)}: {one.why}", 160, 2.8):
            book.text(left, y, line, 2.8)
            y -= 4.2
    for line in book.wrapped(f"Does not matter: {does_not_matter(piece, needs, units)}.", 160, 2.8):
        book.text(left, y, line, 2.8)
        y -= 4.2
    book.text(left, y, "Deburr all edges. Sizes before finishing; holes from the corner marked 0.", 2.4)


def _table(book: Paper, rows: Sequence[tuple[str, ...]], top: float, left: float = TABLE[0]) -> None:
    if not rows:
        return
    columns = (0.0, 9.0, 28.0, 44.0, 58.0)
    for words, x in zip(("hole", "face", "along", "across", "what"), columns, strict=True):
        book.text(left + x, top, words, 2.6, bold=True)
    book.line(left, top - 1.4, left + 97, top - 1.4)
    for number, row in enumerate(rows, 1):
        for words, x in zip(row, columns, strict=True):
            book.text(left + x, top - number * ROW, words, 2.5)


def _short(book: Paper, words: str, room: float, size: float) -> str:
    """Return words, cut with dots where they do not fit."""
    if book.wide(words, size) <= room:
        return words
    while words and book.wide(words + "…", size) > room:
        words = words[:-1]
    return words + "…"
