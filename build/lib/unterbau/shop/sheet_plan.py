"""Plates on sheets: as few sheets as can be found, and how many no plan can do without."""

from dataclasses import dataclass
from math import ceil
from random import Random

from unterbau.errors import InputError
from unterbau.progress import Progress, Silent
from unterbau.shop.packing import Placed, Rect, fill_by_edges, fill_exactly, fill_sheet

TRIES = 60
"""Orders in which plates are laid, when the first ones leave hope for fewer sheets."""
EXACT = 14
"""Up to so many plates are tried on one sheet in every way."""
MOST = 400
NEAR = 1e-9
STEP = 1e-5
"""Sizes are counted in steps of it, m: what fits is then a question of whole numbers."""


@dataclass(frozen=True, slots=True)
class Board:
    """A plate that is wanted so many times."""

    name: str
    length: float
    width: float
    count: int
    turns: bool = True
    """Whether it may lie the other way: not where the grain has to run along it."""


@dataclass(frozen=True, slots=True)
class Sheet:
    """Sheets on offer, all of one size."""

    length: float
    width: float


@dataclass(frozen=True, slots=True)
class Laid:
    """A plate on a sheet; from the sheet's corner, m."""

    name: str
    x: float
    y: float
    length: float
    """Along the sheet."""
    width: float
    turned: bool


@dataclass(frozen=True, slots=True)
class SheetPlan:
    """All sheets."""

    sheets: tuple[tuple[Laid, ...], ...]
    sheet: Sheet
    least: int
    """No plan has fewer sheets."""
    used: float
    """Share of the sheets that is plates."""
    gap: float = 0.0
    border: float = 0.0
    by_hand: bool = False
    """Whether somebody moved plates; then nothing is proven."""

    @property
    def proven(self) -> bool:
        """Whether no plan has fewer sheets: laid freely, also where cuts go from edge to edge."""
        return len(self.sheets) <= self.least


def sheet_plan(
    boards: tuple[Board, ...], sheet: Sheet, gap: float = 0.0, border: float = 0.0, progress: Progress | None = None,
    by_edges: bool = False,
) -> SheetPlan:  # fmt: skip
    """Return plates laid on sheets, a gap between them and a border around: freely, or for cuts from edge to edge.

    Raises:
        InputError: A plate is larger than a sheet; named.
        Cancelled: The progress asked to stop.

    Source:
        Free rectangles, the best-fitting first (Jylänki 2010, from memory), over many orders; one sheet of few plates
        by trying every place from the lowest corner on. The bound is by area, and by plates of which no two fit beside.
    """
    report = progress or Silent()
    wide, tall = _room(sheet, gap, border)
    rects = _checked(boards, sheet, gap, border)
    if not rects:
        return SheetPlan((), sheet, 0, 0.0, gap, border)
    least = _bound(rects, wide, tall)
    best = _for_a_saw(rects, wide, tall, Random(5)) if by_edges else _laid_out(rects, wide, tall)
    if len(best) > 1 and least == 1 and len(rects) <= EXACT:
        whole, none = fill_exactly(rects, wide, tall)
        if whole is not None and (not by_edges or parts_by_edges(whole)):
            best = [whole]
        least = 2 if none else least
    draw = Random(11)
    order = sorted(rects, key=lambda one: -one.wide * one.tall)
    for number in range(TRIES):
        report.step(number, TRIES, "sheets")
        if len(best) <= least:
            break
        weights = {one: one.wide * one.tall * draw.uniform(0.6, 1.4) for one in order}
        drawn = sorted(order, key=weights.__getitem__, reverse=True)
        found = _for_a_saw(drawn, wide, tall, draw) if by_edges else _laid_out(drawn, wide, tall)
        best = found if len(found) < len(best) else best
    sheets = tuple(tuple(_told(one, gap, border) for one in sorted(row)) for row in best)
    used = sum(board.length * board.width * board.count for board in boards)
    return SheetPlan(sheets, sheet, least, used / (len(sheets) * sheet.length * sheet.width), gap, border)


def parts_by_edges(placed: list[Placed]) -> bool:
    """Return whether cuts from edge to edge alone part rectangles from one another."""
    if len(placed) < 2:
        return True
    for along in (False, True):
        ends = sorted((one.x, one.x + one.wide) if along else (one.y, one.y + one.tall) for one in placed)
        reach = ends[0][1]
        for start, end in ends[1:]:
            if start >= reach:
                low = [one for one in placed if (one.x if along else one.y) < start]
                return parts_by_edges(low) and parts_by_edges([one for one in placed if one not in low])
            reach = max(reach, end)
    return False


def _room(sheet: Sheet, gap: float, border: float) -> tuple[int, int]:
    if not (0.0 < sheet.length <= 20.0 and 0.0 < sheet.width <= 20.0):
        raise InputError("sheet", f"expected up to 20 m, got {sheet.length:g} × {sheet.width:g} m")
    if not (0.0 <= gap <= 0.1 and 0.0 <= border <= 0.2):
        raise InputError("gap", "expected a gap of 0 to 100 mm and a border of 0 to 200 mm")
    return round((sheet.length - 2 * border + gap) / STEP), round((sheet.width - 2 * border + gap) / STEP)


def _checked(boards: tuple[Board, ...], sheet: Sheet, gap: float, border: float) -> list[Rect]:
    wide, tall = _room(sheet, gap, border)
    if sum(max(0, one.count) for one in boards) > MOST:
        raise InputError("plates", f"expected at most {MOST} plates at once")
    found = []
    for one in boards:
        if one.length <= 0 or one.width <= 0 or one.count < 0:
            raise InputError(one.name, "expected a length, a width and a count")
        a, b = round((one.length + gap) / STEP), round((one.width + gap) / STEP)
        if not ((a <= wide and b <= tall) or (one.turns and b <= wide and a <= tall)):
            raise InputError(
                one.name, f"{one.length * 1e3:g} × {one.width * 1e3:g} mm is larger than a sheet of "
                f"{sheet.length * 1e3:g} × {sheet.width * 1e3:g} mm with its border",
            )  # fmt: skip
        found += [Rect(one.name, number, a, b, one.turns) for number in range(one.count)]
    return sorted(found, key=lambda one: -max(one.wide, one.tall))


def _area(rects: list[Rect]) -> int:
    return sum(one.wide * one.tall for one in rects)


def _bound(rects: list[Rect], wide: int, tall: int) -> int:
    """Return how many sheets there are at the least: by area, and by plates that share none with another such."""

    def large(one: Rect) -> bool:
        halves = 2 * one.wide > wide and 2 * one.tall > tall
        return 2 * min(one.wide, one.tall) > max(wide, tall) or (halves and not one.turns)

    return max(ceil(_area(rects) / (wide * tall) - NEAR), sum(map(large, rects)), 1)


def _laid_out(rects: list[Rect], wide: int, tall: int) -> list[list[Placed]]:
    """Return sheets filled one after the other, each with as much as it takes."""
    left, sheets = list(rects), []
    while left:
        placed, left = fill_sheet(left, wide, tall)
        sheets.append(placed)
    return sheets


def _for_a_saw(rects: list[Rect], wide: int, tall: int, draw: Random) -> list[list[Placed]]:
    """Return sheets that cuts from edge to edge part, each with as much as it takes."""
    left, sheets = list(rects), []
    while left:
        placed, left = fill_by_edges(left, wide, tall, [draw.random() < 0.5 for _ in left])
        sheets.append(placed)
    return sheets


def _told(one: Placed, gap: float, border: float) -> Laid:
    return Laid(
        one.rect.name, one.x * STEP + border, one.y * STEP + border, one.wide * STEP - gap, one.tall * STEP - gap,
        (one.wide, one.tall) != (one.rect.wide, one.rect.tall),
    )  # fmt: skip
