"""What is needed, ordered, here, fitted: the list of parts as a shopping list, and what no longer fits it."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import date
from typing import Literal, get_args

from unterbau.errors import InputError
from unterbau.parts_list.bill import Item
from unterbau.strict import STRICT

State = Literal["needed", "ordered", "here", "fitted"]
ORDER: tuple[Literal["make", "have made", "print", "buy"], ...] = ("make", "have made", "print", "buy")
"""Of lines that are had alike."""
STATES: tuple[State, ...] = get_args(State)
MOST = 2000
LONGEST = 300


@dataclass(frozen=True, slots=True)
class Bought:
    """What became of an item of a candidate's list."""

    __pydantic_config__ = STRICT

    candidate: str
    item: str
    """Which one: part, words and size."""
    words: str
    count: int
    """So many were needed then."""
    state: State = "ordered"
    paid: float = 0.0
    """For all of them; 0 where the plan's money stands."""
    on: str = ""
    """Date of its state, as 2026-03-01; empty where none was told."""
    due: str = ""
    """Date that it is to be here."""
    shop: str = ""
    """Where it is bought."""


@dataclass(frozen=True, slots=True)
class Row:
    """A line of the shopping list."""

    item: str
    part: str
    words: str
    count: int
    """Needed now; 0 of what is no longer."""
    money: float
    """By the price book."""
    state: State
    paid: float
    bought: int
    """So many were bought."""
    on: str = ""
    due: str = ""
    shop: str = ""
    how: str = "buy"
    """make (stock for it), have made, print, buy."""

    @property
    def missing(self) -> int:
        """How many more have to be bought."""
        return self.count - self.bought if self.state != "needed" else self.count

    @property
    def spent(self) -> float:
        """Money that is spent on it."""
        if self.state == "needed":
            return 0.0
        share = min(1.0, self.bought / self.count) if self.count else 1.0
        return self.paid or self.money * share


@dataclass(frozen=True, slots=True)
class Basket:
    """A candidate's shopping list with its money."""

    rows: tuple[Row, ...]

    @property
    def plan(self) -> float:
        """Money of all that is needed."""
        return sum(row.money for row in self.rows if row.count)

    @property
    def spent(self) -> float:
        """Money that is spent."""
        return sum(row.spent for row in self.rows)

    @property
    def to_come(self) -> float:
        """Money that is still to be spent."""
        return sum(row.money * max(0, row.missing) / row.count for row in self.rows if row.count)

    @property
    def wrong(self) -> tuple[Row, ...]:
        """What was bought and is no longer needed, or is too little now."""
        return tuple(row for row in self.rows if row.state != "needed" and row.missing != 0)


def item_key(item: Item) -> str:
    """Return what tells an item of a list from the others."""
    return f"{item.part}|{item.text}|{round(item.length, 5):g}|{round(item.width, 5):g}"


def basket(
    items: tuple[Item, ...], words: tuple[str, ...], bought: tuple[Bought, ...], candidate: str,
    hows: Mapping[str, str] | None = None,
) -> Basket:  # fmt: skip
    """Return a candidate's list with what became of each item; behind it what was bought and is needed no longer.

    What belongs to a set, as nut and motor to a drive, is no line of its own.

    Args:
        items: The list of parts with money.
        words: What each is called.
        bought: Of all candidates.
        candidate: Whose list it is.
        hows: How each item is had, by its key; its lines stand together. Nothing where that is not told.
    """
    known = {one.item: one for one in bought if one.candidate == candidate}
    rows = []
    for item, text in zip(items, words, strict=True):
        if not item.price:  # bought with its set
            continue
        key = item_key(item)
        one = known.pop(key, None)
        state: State = "needed" if one is None else one.state
        row = _row(key, item.part, text, item.count, item.money, state, one)
        rows.append(replace(row, how=(hows or {}).get(key, "buy")))
    order: dict[str, int] = {how: number for number, how in enumerate(ORDER)}
    rows.sort(key=lambda row: order.get(row.how, len(order)))
    gone = [_row(one.item, one.item.split("|")[0], one.words, 0, 0.0, one.state, one) for one in known.values()]
    return Basket((*rows, *gone))


def _row(key: str, part: str, text: str, count: int, money: float, state: State, one: Bought | None) -> Row:
    if one is None:
        return Row(key, part, text, count, money, state, 0.0, 0)
    return Row(key, part, text, count, money, state, one.paid, one.count, one.on, one.due, one.shop)


@dataclass(frozen=True, slots=True)
class Dates:
    """When something was ordered or came, when it is due, and from whom."""

    on: str = ""
    due: str = ""
    shop: str = ""


def with_state(
    bought: tuple[Bought, ...], candidate: str, row: Row, state: State, paid: float | None = None,
    dates: Dates | None = None,
) -> tuple[Bought, ...]:  # fmt: skip
    """Return what was bought with a line in another state; what is needed again is bought no longer.

    Raises:
        InputError: A date is none.
    """
    rest = tuple(one for one in bought if (one.candidate, one.item) != (candidate, row.item))
    if state == "needed":
        return rest
    before = next((one for one in bought if (one.candidate, one.item) == (candidate, row.item)), None)
    # What was bought stays as many as it was; only what is bought now counts as needed now.
    count = before.count if before is not None else row.count
    money = row.paid if paid is None else paid
    kept = dates or (Dates() if before is None else Dates(before.on, before.due, before.shop))
    on, due = plain_date("on", kept.on), plain_date("due", kept.due)
    return (*rest, Bought(candidate, row.item, row.words, count, state, money, on, due, kept.shop))


def held_up(basket: Basket, today: str) -> tuple[Row, ...]:
    """Return what is not here yet, what comes last first: ordered lines by their date, then what nobody has ordered."""
    ordered = [row for row in basket.rows if row.count and row.state == "ordered"]
    late = sorted(ordered, key=lambda row: row.due or today, reverse=True)
    return (*late, *(row for row in basket.rows if row.count and row.state == "needed" and row.money))


def check_date(where: str, text: str) -> None:
    """Check a date that may be left open.

    Raises:
        InputError: It is none.
    """
    if not text:
        return
    try:
        date.fromisoformat(text)
    except ValueError:
        raise InputError(where, f'expected a date as 2026-03-01, got "{text}"') from None


def plain_date(where: str, text: str) -> str:
    """Return a date that may be left open in the one way of writing that sorts: 20260301 as 2026-03-01.

    Raises:
        InputError: It is none.
    """
    check_date(where, text)
    return date.fromisoformat(text).isoformat() if text else ""


def as_many_as_needed(bought: tuple[Bought, ...], candidate: str, row: Row) -> tuple[Bought, ...]:
    """Return what was bought with a line as it is needed now: the rest bought, or what is too much given away."""
    if not row.count:
        return with_state(bought, candidate, row, "needed")
    return tuple(
        replace(one, count=row.count) if (one.candidate, one.item) == (candidate, row.item) else one for one in bought
    )


def check_bought(bought: tuple[Bought, ...]) -> None:
    """Check what was bought.

    Raises:
        InputError: With the place of the first fault.
    """
    if len(bought) > MOST:
        raise InputError("bought", f"expected at most {MOST}, got {len(bought)}")
    seen = set()
    for index, one in enumerate(bought):
        if not 0 <= one.count <= 100_000 or not 0.0 <= one.paid <= 1e9:
            raise InputError(f"bought[{index}].count", "expected a count and money from 0")
        for name in ("on", "due"):
            check_date(f"bought[{index}].{name}", getattr(one, name))
        if max(len(one.words), len(one.item), len(one.candidate), len(one.shop)) > LONGEST:
            raise InputError(f"bought[{index}].words", f"expected at most {LONGEST} letters")
        if (one.candidate, one.item) in seen:
            raise InputError(f"bought[{index}].item", f'"{one.words}" is bought twice')
        seen.add((one.candidate, one.item))
