"""Plates that somebody moves on their sheets: what stands in the way is told, what still fits the machine is kept."""

from collections import Counter
from dataclasses import dataclass, replace

from unterbau.errors import InputError
from unterbau.shop.sheet_plan import Laid, SheetPlan
from unterbau.strict import STRICT

NEAR = 1e-6
MOST = 2000


@dataclass(frozen=True, slots=True)
class HandPlate:
    """A plate where a hand laid it."""

    __pydantic_config__ = STRICT

    sheet: int
    length: float
    """Along the sheet, m."""
    width: float
    x: float
    y: float
    turned: bool


@dataclass(frozen=True, slots=True)
class HandLaid:
    """The sheets of one candidate, material and thickness as a hand laid them."""

    __pydantic_config__ = STRICT

    candidate: str
    material: str
    thickness: float
    plates: tuple[HandPlate, ...]


def in_the_way(plan: SheetPlan, sheet: int, moved: Laid, but: int) -> str:
    """Return what keeps a plate from lying on a sheet, or nothing.

    Args:
        plan: With its gap and border.
        sheet: Number of the sheet, from 0.
        moved: The plate where it is to lie.
        but: Number of the plate on that sheet that it is itself; -1 where it comes from another.
    """
    size, border = plan.sheet, plan.border
    if (
        moved.x < border - NEAR or moved.y < border - NEAR or moved.x + moved.length > size.length - border + NEAR
        or moved.y + moved.width > size.width - border + NEAR
    ):  # fmt: skip
        return f"{moved.name} would reach over the sheet's border"
    for number, one in enumerate(plan.sheets[sheet]):
        if number == but:
            continue
        apart_x = max(one.x - (moved.x + moved.length), moved.x - (one.x + one.length))
        apart_y = max(one.y - (moved.y + moved.width), moved.y - (one.y + one.width))
        if max(apart_x, apart_y) < plan.gap - NEAR:
            return f"{moved.name} would be closer to {one.name} than the gap of {plan.gap * 1e3:g} mm"
    return ""


def moved_plate(plan: SheetPlan, place: tuple[int, int], sheet: int, moved: Laid) -> SheetPlan:
    """Return a plan with one plate laid elsewhere.

    Args:
        plan: As it is.
        place: Sheet and number of the plate.
        sheet: Where it goes to.
        moved: The plate as it lies then.

    Raises:
        InputError: Something is in its way.
    """
    problem = in_the_way(plan, sheet, moved, place[1] if place[0] == sheet else -1)
    if problem:
        raise InputError("sheet", problem)
    rows = [list(row) for row in plan.sheets]
    if place[0] == sheet:
        rows[sheet][place[1]] = moved
    else:
        del rows[place[0]][place[1]]
        rows[sheet].append(moved)
    kept = tuple(tuple(row) for row in rows if row)
    return replace(plan, sheets=kept, used=plan.used * len(plan.sheets) / len(kept), by_hand=True)


def kept_by_hand(plan: SheetPlan, candidate: str, material: str, thickness: float) -> HandLaid:
    """Return a plan as it is kept."""
    plates = tuple(
        HandPlate(number, one.length, one.width, one.x, one.y, one.turned)
        for number, row in enumerate(plan.sheets) for one in row
    )  # fmt: skip
    return HandLaid(candidate, material, thickness, plates)


def laid_by_hand(plan: SheetPlan, kept: HandLaid | None) -> SheetPlan:
    """Return a plan as a hand laid it, where that still holds the same plates and fits the sheets; else as it is."""
    if kept is None:
        return plan
    mine: dict[tuple[int, int], list[str]] = {}
    for row in plan.sheets:
        for laid_now in row:
            mine.setdefault(_size(laid_now.length, laid_now.width), []).append(laid_now.name)
    if Counter({size: len(names) for size, names in mine.items()}) != Counter(
        _size(one.length, one.width) for one in kept.plates
    ):
        return plan
    count = max(one.sheet for one in kept.plates) + 1
    laid = SheetPlan(((),) * count, plan.sheet, plan.least, plan.used, plan.gap, plan.border, True)
    for one in kept.plates:
        name = mine[_size(one.length, one.width)].pop(0)
        plate = Laid(name, one.x, one.y, one.length, one.width, one.turned)
        if in_the_way(laid, one.sheet, plate, -1):
            return plan
        rows = [*laid.sheets]
        rows[one.sheet] = (*rows[one.sheet], plate)
        laid = replace(laid, sheets=tuple(rows))
    return replace(laid, used=plan.used * len(plan.sheets) / count)


def _size(length: float, width: float) -> tuple[int, int]:
    a, b = sorted((round(length * 1e5), round(width * 1e5)))
    return a, b


def with_hand(rows: tuple[HandLaid, ...], one: HandLaid) -> tuple[HandLaid, ...]:
    """Return all that hands laid, with other sheets for one candidate, material and thickness."""
    return (*(row for row in rows if not _same(row, one.candidate, one.material, one.thickness)), one)


def without_hand(rows: tuple[HandLaid, ...], candidate: str, material: str, thickness: float) -> tuple[HandLaid, ...]:
    """Return all that hands laid but one."""
    return tuple(row for row in rows if not _same(row, candidate, material, thickness))


def hand_of(rows: tuple[HandLaid, ...], candidate: str, material: str, thickness: float) -> HandLaid | None:
    """Return what a hand laid of a candidate, material and thickness."""
    return next((row for row in rows if _same(row, candidate, material, thickness)), None)


def _same(row: HandLaid, candidate: str, material: str, thickness: float) -> bool:
    return (row.candidate, row.material) == (candidate, material) and abs(row.thickness - thickness) < NEAR


def check_by_hand(rows: tuple[HandLaid, ...]) -> None:
    """Check what hands laid.

    Raises:
        InputError: With the place of the first fault.
    """
    if sum(len(row.plates) for row in rows) > MOST:
        raise InputError("by_hand", f"expected at most {MOST} plates")
    for index, row in enumerate(rows):
        for number, one in enumerate(row.plates):
            if not (0 <= one.sheet < MOST and 0 < one.length <= 20 and 0 < one.width <= 20):
                raise InputError(f"by_hand[{index}].plates[{number}]", "expected a sheet and a size up to 20 m")
