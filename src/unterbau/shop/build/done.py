"""Steps that are done, with their date and what was read at their hold points."""

from dataclasses import dataclass

from unterbau.errors import InputError
from unterbau.shop.shopping import check_date
from unterbau.strict import STRICT

MOST = 2000


@dataclass(frozen=True, slots=True)
class Done:
    """A step that is done."""

    __pydantic_config__ = STRICT

    candidate: str
    step: str
    when: str = ""
    """Date."""
    value: float = 0.0
    """What its hold point was measured at, m; 0 where nothing was told."""
    uncertainty: float = 0.0
    note: str = ""
    """Why it was marked done all the same, where its reading is outside the limit."""
    within: float = 0.0
    """Limit of its hold point when it was marked, m; 0 where it had none."""
    simulated: bool = False
    """Whether a simulated instrument read it."""


def check_done(done: tuple[Done, ...]) -> None:
    """Check what is done.

    Raises:
        InputError: With the place of the first fault.
    """
    if len(done) > MOST:
        raise InputError("done", f"expected at most {MOST}, got {len(done)}")
    seen = set()
    for index, one in enumerate(done):
        check_date(f"done[{index}].when", one.when)
        if not (abs(one.value) <= 1.0 and 0.0 <= one.uncertainty <= 1.0 and 0.0 <= one.within <= 1.0):
            raise InputError(f"done[{index}].value", "expected up to a metre")
        if max(len(one.note), len(one.step), len(one.candidate)) > 1000:
            raise InputError(f"done[{index}].note", "expected at most 1000 letters")
        if (one.candidate, one.step) in seen:
            raise InputError(f"done[{index}].step", f'"{one.step}" is done twice')
        seen.add((one.candidate, one.step))
