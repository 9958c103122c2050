"""A pour's dates as iCalendar (RFC 5545): lifts, stripping, loading, sealing."""

from datetime import timedelta

from unterbau.shop.pour.cure import Event

LONG = 70
"""Bytes of a line before it is folded; 75 are allowed."""


def calendar_text(name: str, events: tuple[Event, ...], stamp: str) -> str:
    """Return events as the text of an .ics file, in the time of the place.

    Args:
        name: Of the pour.
        events: What is to be done.
        stamp: When the file was made, as 20260606T100000Z.
    """
    lines = ["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//Unterbau//Pour//EN"]
    for number, one in enumerate(events):
        end = one.when + timedelta(hours=1)
        lines += [
            "BEGIN:VEVENT", f"UID:{stamp}-{number}@unterbau", f"DTSTAMP:{stamp}",
            f"DTSTART:{one.when:%Y%m%dT%H%M%S}", f"DTEND:{end:%Y%m%dT%H%M%S}",
            f"SUMMARY:{_plain(f'{name}: {one.words}')}", "END:VEVENT",
        ]  # fmt: skip
    lines.append("END:VCALENDAR")
    return "\r\n".join(part for line in lines for part in _folded(line)) + "\r\n"


def _plain(words: str) -> str:
    for mark in ("\\", ";", ","):
        words = words.replace(mark, f"\\{mark}")
    return words.replace("\n", "\\n")


def _folded(line: str) -> list[str]:
    parts, now = [], ""
    for letter in line:
        if len((now + letter).encode()) > LONG:
            parts.append(now)
            now = " "
        now += letter
    return [*parts, now]
