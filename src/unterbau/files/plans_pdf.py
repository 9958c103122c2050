"""Cut plans on A4: bars and sheets to scale with their pieces, then labels to cut out and stick on."""

from dataclasses import dataclass

from unterbau.catalogue import cautions
from unterbau.files.paper import MARGIN, Paper, paper
from unterbau.machine.item_words import text_words
from unterbau.materials.material import material
from unterbau.shop.bars import BarPlan, sawn_alike
from unterbau.shop.cut_plan import SawnBar
from unterbau.shop.pieces import ShopPiece
from unterbau.shop.sheets import PlatesPlan
from unterbau.units import Units, length_text

SIZE = (210.0, 297.0)
BAR = 9.0
"""Height of a drawn bar, mm."""
LABEL = (63.0, 33.0)
ACROSS, DOWN = 3, 8
"""Labels on a page."""
TOP = SIZE[1] - MARGIN


@dataclass(frozen=True, slots=True)
class Plans:
    """What is printed."""

    project: str
    candidate: str
    bars: tuple[BarPlan, ...]
    sheets: tuple[PlatesPlan, ...]
    pieces: tuple[ShopPiece, ...]
    units: Units


def plans_pdf(made: Plans) -> bytes:
    """Return bars, sheets and labels as a PDF."""
    book = paper(f"{made.project}: {made.candidate}, cut plan", SIZE)
    _bars(book, made)
    for one in made.sheets:
        _sheets(book, made, one)
    _labels(book, made)
    return book.data()


def _head(book: Paper, made: Plans, words: str) -> float:
    book.text(MARGIN, TOP - 5, words, 5.0, bold=True)
    book.text(MARGIN, TOP - 11, f"{made.project}: {made.candidate}", 3.0)
    book.text(MARGIN, 6, cautions.CUT_PLAN.text, 2.6)
    return TOP - 20


def _bars(book: Paper, made: Plans) -> None:
    y = _head(book, made, "Bars to saw")
    for plan in made.bars:
        rows = sawn_alike(plan)
        if y < 40 + len(rows[:3]) * (BAR + 4):
            book.page()
            y = _head(book, made, "Bars to saw, continued")
        stock = f"{text_words(plan.stock, made.units)}, {material(plan.material).label}"
        proven = plan.problem or ("no plan is cheaper" if plan.plan and plan.plan.proven else "not proven to be least")
        book.text(MARGIN, y, f"{stock}: {proven}", 3.2, bold=True)
        y -= 5
        longest = max((bar.stock.length for bar, _ in rows), default=1.0)
        for bar, count in rows:
            if y < 24:
                book.page()
                y = _head(book, made, "Bars to saw, continued")
            y -= BAR
            _bar(book, made, plan, bar, count, y, (SIZE[0] - 2 * MARGIN - 22) / longest)
            y -= 4
        y -= 3
    book.page()


def _bar(book: Paper, made: Plans, plan: BarPlan, bar: SawnBar, count: int, y: float, scale: float) -> None:
    left = MARGIN + 22
    often = f"{count} × " if count > 1 else ""
    book.text(left - 2, y + 3, f"{often}{length_text(bar.stock.length, made.units)}", 2.6, to="right")
    book.closed([
        (left, y), (left + bar.stock.length * scale, y), (left + bar.stock.length * scale, y + BAR), (left, y + BAR),
    ], 0.13)  # fmt: skip
    assert plan.plan is not None
    x = left + plan.plan.trim * scale
    for label in bar.pieces:
        piece = plan.piece(label)
        wide = piece.length * scale
        lean = [1.5 if end.angle else 0.0 for end in piece.ends] or [0.0, 0.0]
        book.closed([(x, y), (x + wide, y), (x + wide - lean[1], y + BAR), (x + lean[0], y + BAR)])
        words = f"{label} {length_text(piece.length, made.units, with_unit=False)}"
        fits = words if book.wide(words, 2.8) < wide - 1 else label
        book.text(x + wide / 2, y + 3, fits, 2.8, to="middle")
        x += wide + plan.plan.kerf * scale


def _sheets(book: Paper, made: Plans, plan: PlatesPlan) -> None:
    if plan.plan is None:
        return
    size = plan.plan.sheet
    scale = min((SIZE[0] - 2 * MARGIN) / size.length, 110.0 / size.width)
    tall = size.width * scale
    y = 0.0
    stock = f"{text_words(plan.stock, made.units)}, {material(plan.material).label}"
    for number, row in enumerate(plan.plan.sheets, 1):
        if y < 30 + tall:
            if number > 1:
                book.page()
            y = _head(book, made, f"Sheets: {stock}")
        y -= tall + 6
        book.closed([
            (MARGIN, y), (MARGIN + size.length * scale, y), (MARGIN + size.length * scale, y + tall),
            (MARGIN, y + tall),
        ], 0.13)  # fmt: skip
        book.text(MARGIN, y - 4, f"sheet {number}, {length_text(size.length, made.units)} × "
                  f"{length_text(size.width, made.units)}", 2.8)  # fmt: skip
        for one in row:
            x0, y0 = MARGIN + one.x * scale, y + one.y * scale
            a, b = one.length * scale, one.width * scale
            halved = plan.piece(one.name).halved
            corners = [(x0, y0), (x0 + a, y0), (x0 + a, y0 + b), (x0, y0 + b)]
            book.closed(corners[:2] + corners[3:] if halved else corners)
            book.text(x0 + a / 2, y0 + b / 2 - 1, one.name, 3.2, to="middle")
        y -= 6
    book.page()


def _labels(book: Paper, made: Plans) -> None:
    """Draw a label for every single piece."""
    every = [(piece, name) for piece in made.pieces for name in piece.names]
    left, top = (SIZE[0] - ACROSS * LABEL[0]) / 2, SIZE[1] - 16.0
    for start in range(0, len(every), ACROSS * DOWN):
        for number, (piece, name) in enumerate(every[start : start + ACROSS * DOWN]):
            x = left + (number % ACROSS) * LABEL[0]
            y = top - (number // ACROSS + 1) * LABEL[1]
            book.closed([(x, y), (x + LABEL[0], y), (x + LABEL[0], y + LABEL[1]), (x, y + LABEL[1])], 0.1)
            book.text(x + 3, y + LABEL[1] - 10, piece.label, 8.0, bold=True)
            size = length_text(piece.length, made.units)
            size += f" × {length_text(piece.width, made.units)}" if piece.width else ""
            book.text(x + 20, y + LABEL[1] - 9, size, 3.4, bold=True)
            for line, words in enumerate(book.wrapped(name, LABEL[0] - 6, 3.0)[:2]):
                book.text(x + 3, y + LABEL[1] - 17 - 4.2 * line, words, 3.0)
            stock = f"{text_words(piece.stock, made.units)}, {material(piece.material).label}"
            for line, words in enumerate(book.wrapped(stock, LABEL[0] - 6, 2.5)[:2]):
                book.text(x + 3, y + 6.5 - 3.4 * line, words, 2.5)
        book.page()
