"""What is typed as a list, parted by semicolons: its entries, none of them longer than anybody types."""

import re
from collections.abc import Iterator

from unterbau.errors import InputError

LONGEST, MOST = 160, 400
"""Letters of an entry; entries. A form may try every way to part what it is given, so that is kept short."""


def entries(text: str, where: str) -> Iterator[str]:
    """Yield what stands between semicolons; empty entries are left out.

    Raises:
        InputError: There are too many, or one is too long.
    """
    found = [part for one in text.split(";") if (part := one.strip())]
    if len(found) > MOST:
        raise InputError(where, f"expected at most {MOST} entries, parted by semicolons")
    for part in found:
        if len(part) > LONGEST:
            raise InputError(where, f'"{part[:40]} …" is too long; expected at most {LONGEST} letters')
        yield part


def typed_list(text: str, form: re.Pattern[str], where: str, noun: str, expected: str) -> Iterator[re.Match[str]]:
    """Yield each entry as its form reads it.

    Raises:
        InputError: Says which entry cannot be read, and what was expected.
    """
    for part in entries(text, where):
        told = form.fullmatch(part)
        if told is None:
            raise InputError(where, f'"{part}" is no {noun}; {expected}')
        yield told


def typed_number(text: str | None) -> float:
    """Return a number with either decimal sign; 0 where there is none."""
    return float(text.replace(",", ".")) if text else 0.0
