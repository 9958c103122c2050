"""What stays open in a mould, as it is typed: `pocket 50, 50: 220 × 350 × 50; core 30 × 200; insert M8 60, 60`."""

import re
from dataclasses import replace

from unterbau.catalogue.screws import screw_size
from unterbau.errors import InputError
from unterbau.shop.pour.base_mould import DEEP, THICK
from unterbau.shop.pour.mould import MOST, Core, Insert, Mould, Pocket
from unterbau.shop.typed_list import entries
from unterbau.units import Units, length_text, parse

SIZE = r"([^x×*]+)[x×*]"
POCKET = re.compile(rf"(pocket|sump)\s([^,]+),([^:]+):{SIZE}{SIZE}(.+)", re.IGNORECASE)
CORE = re.compile(rf"core\s{SIZE}(.+)", re.IGNORECASE)
INSERT = re.compile(r"insert\s+(M\d+)\s([^,]+),([^,]+?)(?:\sdeep\s(.+))?", re.IGNORECASE)
EXPECTED = (
    "expected a pocket or a sump by its corner and size, as pocket 50, 50: 220 × 350 × 50, a core as core 30 × 200, "
    "an insert as insert M8 60, 60"
)


def read_open(text: str, mould: Mould, units: Units) -> Mould:
    """Return a mould with what a text leaves open in it, measured from its lower left corner.

    Raises:
        InputError: Says which of it cannot be read.
    """
    pockets: list[Pocket] = []
    cores: list[Core] = []
    inserts: list[Insert] = []
    for part in entries(text, "open"):
        try:
            pocket, core, insert = (one.fullmatch(part) for one in (POCKET, CORE, INSERT))
            if pocket is not None:
                x, y, long, wide, deep = (parse(one, "length", units) for one in pocket.groups()[1:])
                pockets.append(Pocket(x, y, long, wide, deep, pocket[1].lower() == "sump"))
            elif core is not None:
                cores.append(Core(parse(core[1], "length", units), parse(core[2], "length", units)))
            elif insert is not None:
                inserts.append(_insert(insert, units))
            else:
                raise InputError("", "")
        except InputError:
            raise InputError("open", f'"{part[:60]}" cannot be read; {EXPECTED}') from None
    if max(len(pockets), len(cores), len(inserts)) > MOST:
        raise InputError("open", f"expected at most {MOST} of each")
    return replace(mould, pockets=tuple(pockets), cores=tuple(cores), inserts=tuple(inserts))


def _insert(told: re.Match[str], units: Units) -> Insert:
    d = screw_size(told[1].upper()).d
    deep = parse(told[4], "length", units) if told[4] else DEEP * d
    return Insert(told[1].upper(), parse(told[2], "length", units), parse(told[3], "length", units), deep, THICK * d)


def open_text(mould: Mould, units: Units) -> str:
    """Return what stays open in a mould as one types it."""

    def size(value: float) -> str:
        return length_text(value, units, with_unit=False)

    words = [
        f"{'sump' if one.above else 'pocket'} {size(one.x)}, {size(one.y)}: "
        f"{size(one.length)} × {size(one.width)} × {size(one.depth)}"
        for one in mould.pockets
    ]
    words += [f"core {size(one.diameter)} × {size(one.length)}" for one in mould.cores]
    words += [f"insert {one.thread} {size(one.x)}, {size(one.y)} deep {size(one.depth)}" for one in mould.inserts]
    return "; ".join(words)
