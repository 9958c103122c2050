"""Bars on offer as they are typed: `6000 at 42; 3000 at 23; own 2 × 1300`."""

import re

from unterbau.errors import InputError
from unterbau.shop.sheet_plan import Sheet
from unterbau.shop.state import BarOffer
from unterbau.shop.typed_list import LONGEST, entries
from unterbau.units import Units, length_text, parse

OWN = re.compile(r"own\s+(?:(\d+)\s*[x×*]\s*)?(.+)", re.IGNORECASE)
PRICE = re.compile(r"(.+?)\s+at\s+(\S.*)")
SEVERAL = re.compile(r"\d+\s*[x×*]\s*\d.*")
EXPECTED = "expected bars as 6000 at 42; 3000 at 23; own 2 × 1300"


def read_offers(text: str, section: str, material: str, units: Units) -> tuple[BarOffer, ...]:
    """Return the bars that a text tells.

    Raises:
        InputError: Says which of them cannot be read.
    """
    found = []
    for part in entries(text, "bars"):
        own, priced = OWN.fullmatch(part), PRICE.fullmatch(part)
        try:
            if own is not None:
                length = parse(own[2], "length", units)
                found.append(BarOffer(section, material, length, 0.0, int(own[1] or 1)))
            else:
                told = priced[1] if priced else part
                if SEVERAL.fullmatch(told):
                    raise InputError("bars", f'"{part}" tells how many; expected one length on offer, or own {told}')
                price = parse(priced[2], "money") if priced else 0.0
                found.append(BarOffer(section, material, parse(told, "length", units), price))
        except (InputError, ValueError) as error:
            if isinstance(error, InputError) and error.where == "bars":
                raise
            raise InputError("bars", f'"{part}" is no bar; {EXPECTED}') from None
        if not 0.01 <= found[-1].length <= 30.0:
            raise InputError("bars", f'"{part}" is no bar: expected 10 mm to 30 m')
    return tuple(found)


UNIT = re.compile(r"[a-zA-Zµμ\"″'′]+\s*$")
"""Behind the second length it counts for both."""
SHEET = re.compile(r"(.+?)\s*[x×*]\s*(.+)")


def read_sheet(text: str, units: Units) -> Sheet | None:
    """Return the sheet that a text tells, as 2000 × 1000; nothing of an empty one.

    Raises:
        InputError: It tells none.
    """
    if not text.strip():
        return None
    found = SHEET.fullmatch(text.strip()) if len(text.strip()) <= LONGEST else None
    try:
        if found is None:
            raise InputError("", "")
        unit = UNIT.search(found[2])
        first = found[1] if UNIT.search(found[1]) or unit is None else f"{found[1]} {unit[0]}"
        return Sheet(parse(first, "length", units), parse(found[2], "length", units))
    except InputError:
        raise InputError("sheet", f'"{text.strip()[:LONGEST]}" is no sheet; expected its size as 2000 × 1000') from None


def sheet_text(sheet: Sheet, units: Units) -> str:
    """Return a sheet as one types it."""
    return f"{length_text(sheet.length, units, with_unit=False)} × {length_text(sheet.width, units)}"


def offers_text(bars: tuple[BarOffer, ...], units: Units) -> str:
    """Return bars as one types them."""
    words = []
    for one in bars:
        length = length_text(one.length, units)
        if one.own:
            words.append(f"own {one.own} × {length}")
        else:
            words.append(f"{length} at {one.price:g}" if one.price else length)
    return "; ".join(words)
