"""Tests on the built machine, as they were read: pushes, taps, weighings. Saved with the project."""

from dataclasses import dataclass
from typing import Literal

from unterbau.errors import InputError
from unterbau.shop.shopping import check_date
from unterbau.strict import STRICT

MOST = 500
Sort = Literal["push", "tap", "weigh"]
AXES = ("X", "Y", "Z")


@dataclass(frozen=True, slots=True)
class Test:
    """One result with its doubt."""

    __pydantic_config__ = STRICT
    __test__ = False

    candidate: str
    sort: Sort
    value: float
    """Of a push N/m at the tool against the work, of a tap Hz, of a weighing kg."""
    doubt: float = 0.03
    """Standard uncertainty, as a share of the value."""
    axis: Literal["X", "Y", "Z"] = "X"
    """Of a push."""
    x: float = 0.5
    """Where the head stood, of each axis' travel."""
    y: float = 0.5
    z: float = 0.0
    play: float = 0.0
    """Of a push, m."""
    when: str = ""
    """Date."""
    note: str = ""


def check_tests(tests: tuple[Test, ...]) -> None:
    """Check tests.

    Raises:
        InputError: With the place of the first fault.
    """
    if len(tests) > MOST:
        raise InputError("tests", f"expected at most {MOST}, got {len(tests)}")
    for index, one in enumerate(tests):
        if not 0.0 < one.value < 1e13:
            raise InputError(f"tests[{index}].value", "expected more than 0")
        if not 1e-4 <= one.doubt <= 2.0:
            raise InputError(f"tests[{index}].doubt", "expected 0.01 to 200 %")
        if not all(0.0 <= share <= 1.0 for share in (one.x, one.y, one.z)):
            raise InputError(f"tests[{index}]", "expected the head's place as shares of the travel, 0 to 1")
        check_date(f"tests[{index}].when", one.when)
        if max(len(one.note), len(one.candidate)) > 1000:
            raise InputError(f"tests[{index}].note", "expected at most 1000 letters")
