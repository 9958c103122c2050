"""The log of a build: dated lines with photos, money, hours, and what the machine was made of by then."""

from dataclasses import dataclass, replace

from unterbau.errors import InputError
from unterbau.shop.shopping import check_date
from unterbau.strict import STRICT

MOST, PHOTOS, LETTERS, PARTS = 2000, 20, 10_000, 300


@dataclass(frozen=True, slots=True)
class Entry:
    """One line of the log."""

    __pydantic_config__ = STRICT

    candidate: str
    when: str
    """Date."""
    text: str
    photos: tuple[str, ...] = ()
    """Names of files in the folder beside the project's file."""
    money: float = 0.0
    """Spent, in the project's currency."""
    hours: float = 0.0
    """Worked."""
    parts: tuple[str, ...] = ()
    """What the machine was made of, a line each; nothing where that is as it was at the entry before."""


def check_log(log: tuple[Entry, ...]) -> None:
    """Check a log.

    Raises:
        InputError: With the place of the first fault.
    """
    if len(log) > MOST:
        raise InputError("log", f"expected at most {MOST}, got {len(log)}")
    for index, one in enumerate(log):
        where = f"log[{index}]"
        check_date(f"{where}.when", one.when)
        if not one.when:
            raise InputError(f"{where}.when", "expected a date, as 2026-11-28")
        if not one.text.strip() and not one.photos:
            raise InputError(f"{where}.text", "expected a few words, or a photo")
        if max(len(one.text), len(one.candidate)) > LETTERS:
            raise InputError(f"{where}.text", f"expected at most {LETTERS} letters")
        if not (abs(one.money) <= 1e7 and 0.0 <= one.hours <= 1e4):
            raise InputError(f"{where}.hours", "expected up to 10 000 hours, and money up to 10 000 000")
        if len(one.photos) > PHOTOS or len(one.parts) > PARTS:
            raise InputError(f"{where}.photos", f"expected at most {PHOTOS} photos and {PARTS} parts")
        for name in one.photos:
            if not name or len(name) > 200 or name != name.strip() or set(name) & set("/\\\0:") or name[0] == ".":
                raise InputError(f"{where}.photos", f'expected the name of a file beside the project, got "{name}"')


def with_entry(log: tuple[Entry, ...], entry: Entry) -> tuple[Entry, ...]:
    """Return the log with an entry more, in the order of dates; parts that are as before are told once."""
    known = parts_before(log, entry.candidate, entry.when)
    kept = replace(entry, parts=()) if entry.parts == known else entry
    return tuple(sorted((*log, kept), key=lambda one: one.when))


def parts_before(log: tuple[Entry, ...], candidate: str, when: str = "9999") -> tuple[str, ...]:
    """Return what a candidate was last made of, up to a date."""
    told = [one.parts for one in log if one.candidate == candidate and one.parts and one.when <= when]
    return told[-1] if told else ()


def changed(log: tuple[Entry, ...], index: int) -> tuple[str, ...]:
    """Return what an entry's machine is made of that the one before was not, and the other way round, in words."""
    entry = log[index]
    before = parts_before(log[:index], entry.candidate)
    if not entry.parts or not before:
        return ()
    old, new = (dict(line.split(": ", 1) for line in rows if ": " in line) for rows in (before, entry.parts))
    rows = []
    for part in dict.fromkeys((*old, *new)):
        if old.get(part) == new.get(part):
            continue
        if part not in new:
            rows.append(f"without {part}")
        elif part not in old:
            rows.append(f"{part} added: {new[part]}")
        else:
            rows.append(f"{part}: {old[part]} → {new[part]}")
    return tuple(rows)


def found(log: tuple[Entry, ...], candidate: str, words: str) -> tuple[int, ...]:
    """Return the places of a candidate's entries in which all words stand, in any order, the newest first."""
    wanted = words.lower().split()
    rows = []
    for index, one in enumerate(log):
        text = " ".join((one.when, one.text, *one.photos, *one.parts)).lower()
        if one.candidate == candidate and all(word in text for word in wanted):
            rows.append(index)
    return tuple(reversed(rows))
