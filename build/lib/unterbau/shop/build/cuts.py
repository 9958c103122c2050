"""First cuts on the built machine: what was wanted, what was read, how it looks. Saved with the project."""

from dataclasses import dataclass
from typing import Literal

from unterbau.errors import InputError
from unterbau.shop.shopping import check_date
from unterbau.strict import STRICT

MOST = 500
Finish = Literal["clean", "marks", "chatter", "torn"]
FINISHES: tuple[Finish, ...] = ("clean", "marks", "chatter", "torn")


@dataclass(frozen=True, slots=True)
class FirstCut:
    """One test piece."""

    __pydantic_config__ = STRICT

    candidate: str
    cut: str
    """Of the catalogue, or one's own."""
    depth: float
    """m."""
    wanted: float
    """Size of the piece as drawn, m."""
    read: float
    """Size as measured, m."""
    sides: int = 2
    """How many of the faces that the size is taken over were cut: the tool is pushed off each."""
    axis: Literal["X", "Y"] = "X"
    """Along which it was measured."""
    finish: Finish = "clean"
    settings: str = ""
    """Turns, feed, coolant: to be found again."""
    when: str = ""
    """Date."""
    doubt: float = 0.02e-3
    """Standard uncertainty of the reading, m."""


def check_cuts(cuts: tuple[FirstCut, ...]) -> None:
    """Check first cuts.

    Raises:
        InputError: With the place of the first fault.
    """
    if len(cuts) > MOST:
        raise InputError("cuts", f"expected at most {MOST}, got {len(cuts)}")
    for index, one in enumerate(cuts):
        where = f"cuts[{index}]"
        if not 1e-6 <= one.depth <= 0.2:
            raise InputError(f"{where}.depth", "expected a depth up to 200 mm")
        if not 1e-4 <= one.wanted <= 10.0:
            raise InputError(f"{where}.wanted", "expected a size of 0.1 mm to 10 m")
        if abs(one.read - one.wanted) > 0.01:
            raise InputError(f"{where}.read", "expected a size within 10 mm of the wanted one")
        if one.sides not in (1, 2):
            raise InputError(f"{where}.sides", f"expected 1 or 2, got {one.sides}")
        if not 1e-7 <= one.doubt <= 1e-3:
            raise InputError(f"{where}.doubt", "expected 0.1 µm to 1 mm")
        check_date(f"{where}.when", one.when)
        if max(len(one.candidate), len(one.cut), len(one.settings)) > 1000:
            raise InputError(f"{where}.settings", "expected at most 1000 letters")
