"""A recipe card on A4: what is weighed for each batch, the lifts with their times, what to mind."""

from unterbau.files.paper import MARGIN, paper
from unterbau.shop.pour.cure import Cure
from unterbau.shop.pour.mix import Mix
from unterbau.shop.pour.plan import PourPlan
from unterbau.units import Units, length_text, mass_text

SIZE = (210.0, 297.0)
ROOM = SIZE[0] - 2 * MARGIN


def pour_pdf(plan: PourPlan, mix: Mix, cure: Cure, problems: tuple[str, ...], caution: str, units: Units) -> bytes:
    """Return a pour's recipe card."""
    book = paper(f"{plan.candidate}: {plan.sort}", SIZE)
    top = SIZE[1] - MARGIN
    what = "cast piece" if plan.part == "mould" else plan.part.replace("_", " ")
    book.text(MARGIN, top - 6, f"{plan.sort}, {what}", 6.0, bold=True)
    book.text(MARGIN, top - 13, f"{plan.candidate}; {mix.volume * 1e3:.1f} litres, {mass_text(mix.mass, units)}", 3.4)
    y = top - 24
    book.text(MARGIN, y, f"{mix.batches} batches of {mass_text(mix.batch, units)}, by {mix.ends_by}", 4.0, bold=True)
    y -= 7
    book.text(MARGIN + 90, y, "a batch", 3.0, to="right")
    book.text(MARGIN + 125, y, "in all", 3.0, to="right")
    for one in mix.parts:
        y -= 6
        book.text(MARGIN, y, one.name, 3.6)
        book.text(MARGIN + 90, y, mass_text(one.mass / mix.batches, units, 2), 3.6, to="right", bold=True)
        book.text(MARGIN + 125, y, mass_text(one.mass, units, 2), 3.6, to="right")
    y -= 12
    for lift in cure.lifts:
        book.text(
            MARGIN, y, f"lift {lift.number + 1}: {length_text(lift.thickness, units)}, peak {lift.peak:.0f} °C", 3.2
        )
        y -= 5
        if y < 70:
            break
    y -= 4
    for event in cure.events:
        if y < 50:
            break
        book.text(MARGIN, y, f"{event.when:%a %d %b %H:%M}   {event.words}", 3.2)
        y -= 5
    for words in (*problems, caution):
        for line in book.wrapped(words, ROOM, 3.0):
            if y > 10:
                book.text(MARGIN, y, line, 3.0)
                y -= 4.4
        y -= 2
    book.page()
    return book.data()
