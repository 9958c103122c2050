"""The steps of a build on A4: boxes to tick, dates, who lifts, hold points with room for what is read, cautions."""

from unterbau.files.paper import MARGIN, Paper, paper
from unterbau.shop.build.schedule import Dated
from unterbau.shop.build.steps import Step
from unterbau.units import Units, mass_text, tolerance_text

SIZE = (210.0, 297.0)
ROOM = SIZE[0] - 2 * MARGIN
BOX, LINE, WORDS = 3.6, 4.4, 3.2
"""mm."""
LEFT = 9.0


def steps_pdf(
    candidate: str, steps: tuple[Step, ...], dated: dict[str, Dated], done: frozenset[str], units: Units
) -> bytes:  # fmt: skip
    """Return the steps in an order, those that are done ticked."""
    book = paper(f"{candidate}: steps", SIZE)
    y = SIZE[1] - MARGIN - 6
    book.text(MARGIN, y, f"{candidate}: steps", 6.0, bold=True)
    book.text(MARGIN, y - 7, f"{len(done)} of {len(steps)} done", 3.4)
    y -= 18
    for one in steps:
        lines = _lines(book, one, dated.get(one.id), units)
        tall = LINE * len(lines) + 3.0
        if y - tall < MARGIN:
            book.page()
            y = SIZE[1] - MARGIN - 6
        _step(book, one, lines, y, one.id in done)
        y -= tall
    book.page()
    return book.data()


def _step(book: Paper, one: Step, lines: list[tuple[str, bool]], y: float, is_done: bool) -> None:
    low = y - 0.6
    book.closed([(MARGIN, low), (MARGIN + BOX, low), (MARGIN + BOX, low + BOX), (MARGIN, low + BOX)])
    if is_done:
        book.line(MARGIN + 0.6, low + 1.6, MARGIN + 1.5, low + 0.6, 0.5)
        book.line(MARGIN + 1.5, low + 0.6, MARGIN + 3.2, low + 3.2, 0.5)
    for number, (words, bold) in enumerate(lines):
        book.text(MARGIN + LEFT, y - LINE * number, words, WORDS, bold=bold)


def _lines(book: Paper, one: Step, row: Dated | None, units: Units) -> list[tuple[str, bool]]:
    room = ROOM - LEFT
    when = f"{row.start:%a %d %b}, " if row is not None else ""
    found = [(line, True) for line in book.wrapped(f"{when}{one.words}", room, WORDS)]
    told = [f"{one.hours:.1f} h"]
    told += [f"then {one.waits:.0f} h of waiting"] if one.waits else []
    told += [f"lifts {mass_text(one.lifted, units, 0)}: {one.people}"] if one.people else []
    told += ["no way back"] if not one.reversible else []
    found += [(line, False) for line in book.wrapped("; ".join(told), room, WORDS)]
    if one.hold is not None:
        hold = f"hold: {one.hold.words}, within {tolerance_text(one.hold.within, units)}.  read: ______________________"
        found += [(line, False) for line in book.wrapped(hold, room, WORDS)]
    if one.caution:
        found += [(line, False) for line in book.wrapped(one.caution, room, WORDS)]
    return found
