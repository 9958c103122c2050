"""Drilling templates at full size over A4 pages, with marks to join them and a length to check the printer by."""

from math import ceil

from unterbau.files.paper import Paper, paper
from unterbau.shop.pieces import ShopPiece
from unterbau.shop.views import View, views_of

SIZE = (210.0, 297.0)
EDGE, FOOT = 12.0, 24.0
"""Around what is drawn, and below it, mm: printers leave some 5 free."""
LAP = 10.0
"""That pages share, mm."""
CHECK = 100.0
"""Length that is to be measured before drilling, mm."""
MM = 1e3
MOST_PAGES = 60


def template_views(piece: ShopPiece) -> tuple[View, ...]:
    """Return the faces that have holes."""
    return tuple(view for view in views_of(piece) if view.holes)


def pages_of(view: View) -> tuple[int, int]:
    """Return over how many pages a face goes, across and up."""
    wide, tall = SIZE[0] - 2 * EDGE, SIZE[1] - EDGE - FOOT
    across = max(1, ceil((view.length * MM - LAP) / (wide - LAP)))
    return across, max(1, ceil((view.height * MM - LAP) / (tall - LAP)))


def template_pdf(piece: ShopPiece) -> bytes:
    """Return the templates of a piece, a set of pages for each face with holes."""
    book = paper(f"{piece.label}: {piece.names[0]}, full size", SIZE)
    for view in template_views(piece):
        _face(book, piece, view)
    if not book.pages:
        book.text(EDGE, 150, f"{piece.label} has no holes")
        book.page()
    return book.data()


def _face(book: Paper, piece: ShopPiece, view: View) -> None:
    across, up = pages_of(view)
    if across * up > MOST_PAGES:
        book.text(EDGE, 150, f"{piece.label}, {view.name}: larger than {MOST_PAGES} pages; use its DXF", 3.2)
        book.page()
        return
    step = SIZE[0] - 2 * EDGE - LAP, SIZE[1] - EDGE - FOOT - LAP
    for row in range(up):
        for column in range(across):
            _page(book, piece, view, (column * step[0], row * step[1]), f"{row + 1}.{column + 1} of {up} × {across}")


def _page(book: Paper, piece: ShopPiece, view: View, off: tuple[float, float], number: str) -> None:
    wide, tall = SIZE[0] - 2 * EDGE, SIZE[1] - EDGE - FOOT
    book.text(EDGE, 9, f"{piece.label}, {view.name}: {piece.names[0]}, page {number}", 3.0, bold=True)
    book.line(EDGE, 17, EDGE + CHECK, 17, 0.3)
    for x in (EDGE, EDGE + CHECK):
        book.line(x, 15, x, 19, 0.3)
    book.text(EDGE + CHECK + 3, 16, "must be 100 mm long: print at 100 %, measure, then drill", 2.8)
    for x in (EDGE, EDGE + wide):
        for y in (FOOT, FOOT + tall):
            book.line(x - 4, y, x + 4, y)
            book.line(x, y - 4, x, y + 4)
    for x in (EDGE + LAP, EDGE + wide - LAP):
        book.line(x, FOOT, x, FOOT + tall, dash=True)
    canvas = book.canvas
    canvas.saveState()
    points = 72.0 / 25.4
    path = canvas.beginPath()
    path.rect(EDGE * points, FOOT * points, wide * points, tall * points)
    canvas.clipPath(path, stroke=0)
    x0, y0 = EDGE - off[0], FOOT - off[1]
    for ring in view.outlines:
        book.closed([(x0 + x * MM, y0 + y * MM) for x, y in ring], 0.25)
    for one in view.holes:
        x, y, radius = x0 + one.x * MM, y0 + one.y * MM, one.hole.diameter / 2 * MM
        if radius:
            book.circle(x, y, radius, 0.2)
        book.line(x - 6, y, x + 6, y)
        book.line(x, y - 6, x, y + 6)
        book.text(x + max(radius, 1.5) + 0.5, y + 1.2, str(one.number), 2.4, bold=True)
        drill = f"⌀{one.hole.diameter * MM:g}" if radius else "nut"
        book.text(x + max(radius, 1.5) + 0.5, y - 3.2, f"{drill} {one.hole.screw}", 2.0)
    canvas.restoreState()
    book.page()
