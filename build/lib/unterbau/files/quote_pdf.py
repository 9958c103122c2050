"""A sheet for whoever makes pieces outside: what, how many, which tolerances matter to this machine, which do not."""

from unterbau.files.paper import MARGIN, Paper, paper
from unterbau.files.piece_pdf import Sheets
from unterbau.machine.item_words import text_words
from unterbau.materials.material import material
from unterbau.shop.making import does_not_matter, needs_of_piece
from unterbau.shop.pieces import ShopPiece, hole_words
from unterbau.units import length_text, mass_text, tolerance_text

SIZE = (210.0, 297.0)
ROOM = SIZE[0] - 2 * MARGIN


def quote_pdf(made: Sheets) -> bytes:
    """Return the sheet for the pieces given; they are those that somebody else makes."""
    book = paper(f"{made.project}: pieces to be made", SIZE)
    y = _head(book, made)
    for piece in made.pieces:
        lines = _lines(book, made, piece)
        if y - 5.0 * (len(lines) + 1) < 20:
            book.page()
            y = _head(book, made)
        size = length_text(piece.length, made.units)
        size += f" × {length_text(piece.width, made.units)}" if piece.width else ""
        stock = f"{text_words(piece.stock, made.units)}, {material(piece.material).label}"
        book.text(MARGIN, y, f"{piece.label}   {piece.count} × {stock}, {size}", 3.6, bold=True)
        book.text(SIZE[0] - MARGIN, y, f"{mass_text(piece.mass, made.units, 2)} each", 3.0, to="right")
        y -= 5.2
        for line in lines:
            book.text(MARGIN + 8, y, line, 3.0)
            y -= 4.6
        y -= 3.5
    if not made.pieces:
        book.text(MARGIN, y, "nothing is made outside", 3.4)
    book.page()
    return book.data()


def _head(book: Paper, made: Sheets) -> float:
    top = SIZE[1] - MARGIN
    book.text(MARGIN, top - 6, "Please quote", 6.0, bold=True)
    book.text(MARGIN, top - 13, f"{made.project}: {made.candidate}, {made.when}", 3.0)
    book.text(MARGIN, top - 19, "DXF and a dimensioned sheet of each piece come with this, named by its letter.", 3.0)
    book.text(MARGIN, top - 24, "Only what is written here has to be held.", 3.0)
    return top - 34


def _lines(book: Paper, made: Sheets, piece: ShopPiece) -> list[str]:
    needs = needs_of_piece(piece, made.needs)
    lines = []
    for one in needs:
        lines += book.wrapped(f"matters: {one.words} within {tolerance_text(one.within, made.units)}", ROOM - 10, 3.0)
    counted: dict[str, int] = {}
    for hole in piece.holes:
        counted[hole_words(hole)] = counted.get(hole_words(hole), 0) + 1
    if counted:
        words = ", ".join(f"{count} × {text}" for text, count in counted.items())
        lines += book.wrapped(f"holes: {words}", ROOM - 10, 3.0)
    return [*lines, *book.wrapped(f"does not matter: {does_not_matter(piece, needs, made.units)}", ROOM - 10, 3.0)]
