"""The sizes one can buy, smallest first: what `[` and `]` step through.

Square and rectangular tube as customary ranges of EN 10219-2, flats of EN 10058, angles of
EN 10056-1, channels and I sections of the old and Euro-norm series; boxes and slotted
profiles are our own choice of round sizes.
"""

from functools import cache

from unterbau.sections import cache as stored
from unterbau.sections.built_up import OF, SHIPPED
from unterbau.sections.rolled import IPE, UPN

_SHS = (
    "30x2 30x3 40x2 40x3 40x4 50x3 50x4 50x5 60x3 60x4 60x5 70x4 70x5 80x3 80x4 80x5 90x4 90x5 "
    "100x4 100x5 100x6 120x4 120x5 120x6 140x5 140x6 150x5 150x6 160x6 180x6 200x6 200x8"
)
_RHS = (
    "40x20x2 50x30x3 60x40x3 60x40x4 80x40x3 80x40x4 80x60x4 100x50x3 100x50x4 100x60x4 100x60x5 "
    "120x60x4 120x60x5 120x80x4 120x80x5 140x80x5 150x100x5 160x80x5 160x80x6 180x100x5 200x100x5 "
    "200x100x6 200x120x6"
)
_CHS = "30x3 40x3 50x3 60x3 60x4 76x4 89x4 102x4 114x5 140x5"
_FLAT = "40x5 40x8 50x8 60x8 60x10 80x8 80x10 80x12 100x10 100x12 100x15 120x12 120x15 150x15 150x20"
_ROD = "10 12 16 20 25 30 40 50 60"
_ANGLE = "30x30x3 40x40x4 50x50x5 60x60x6 80x80x8 100x100x10"
_BOX = (
    "100x80x8 120x80x8 120x80x10 120x100x10 140x100x10 160x100x10 160x120x10 160x120x12 180x120x12 "
    "200x120x12 200x140x12 220x140x15 240x160x15"
)


def _square(sizes: str) -> tuple[str, ...]:
    rows = [size.split("x") for size in sizes.split()]
    return tuple(f"shs-{side}x{side}x{wall}" for side, wall in rows)


def _slotted() -> tuple[tuple[str, ...], ...]:
    """Profiles grouped by slot, so that stepping keeps to parts that fit each other."""
    found = stored.known()
    groups = {key: [n for n in found if n.startswith(f"tslot-{key}")] for key in ("20", "30", "40", "45")}
    return tuple(tuple(sorted(names, key=lambda n: stored.stored_properties(n).Iy)) for names in groups.values())


def _built_up() -> tuple[tuple[str, ...], ...]:
    """Built-up sections grouped by layout and sort of profile."""
    groups: dict[tuple[str, str], list[str]] = {}
    for name in SHIPPED:
        layout, profile = name.split(OF)
        groups.setdefault((layout, profile.split("-")[0]), []).append(name)
    return tuple(tuple(names) for names in groups.values())


@cache
def families() -> tuple[tuple[str, ...], ...]:
    """Return every family, sizes in stepping order."""
    return (
        _square(_SHS),
        tuple(f"rhs-{s}" for s in _RHS.split()),
        tuple(f"chs-{s}" for s in _CHS.split()),
        tuple(f"flat-{s}" for s in _FLAT.split()),
        tuple(f"rod-{s}" for s in _ROD.split()),
        tuple(f"angle-{s}" for s in _ANGLE.split()),
        tuple(f"upn-{n}" for n in UPN),
        tuple(f"ipe-{n}" for n in IPE),
        tuple(f"box-{s}" for s in _BOX.split()),
        *_slotted(),
        ("cprofile-40x80",),
        *_built_up(),
    )
