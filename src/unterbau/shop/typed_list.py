"""What is typed as a list, parted by semicolons."""

import re
from collections.abc import Iterator

from unterbau.errors import InputError


def typed_list(text: str, form: re.Pattern[str], where: str, noun: str, expected: str) -> Iterator[re.Match[str]]:
    """Yield each entry as its form reads it; empty entries are left out.

    Raises:
        InputError: Says which entry cannot be read, and what was expected.
    """
    for part in (one.strip() for one in text.split(";")):
        if not part:
            continue
        told = form.fullmatch(part)
        if told is None:
            raise InputError(where, f'"{part}" is no {noun}; {expected}')
        yield told


def typed_number(text: str | None) -> float:
    """Return a number with either decimal sign; 0 where there is none."""
    return float(text.replace(",", ".")) if text else 0.0
