"""A section by its name; what the names mean stands in `names`."""

import re
from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache

from unterbau.errors import InputError
from unterbau.sections import cache, rolled, solids
from unterbau.sections.families import families
from unterbau.sections.outline import Loop, Outline, Point, circle, integrate, polygon, rounded, sampled
from unterbau.sections.properties import SectionProperties

SMALLEST, LARGEST = 1e-3, 2.0
_NUMBER = r"(\d+(?:\.\d+)?)"


@dataclass(frozen=True, slots=True)
class Section:
    """A cross-section: what it is called, looks like and does."""

    name: str
    label: str
    """In workshop words, for example `tube 80×40×4`."""
    properties: SectionProperties
    height: float
    width: float
    loops: tuple[tuple[Point, ...], ...]
    """Outline about the centroid as points (y, z), m; the first loop is the outside."""
    cavity: SectionProperties | None
    """The closed hollow inside, if there is one that can be filled."""


def _centred(outline: Outline) -> tuple[tuple[Point, ...], ...]:
    flat = integrate(outline)
    return tuple(tuple((y - flat.y, z - flat.z) for y, z in sampled(loop)) for loop in outline)


def _made(
    name: str,
    label: str,
    properties: SectionProperties,
    outline: Outline,
    cavity: SectionProperties | None = None,
) -> Section:
    loops = _centred(outline)
    ys, zs = zip(*loops[0], strict=True)
    return Section(name, label, properties, max(zs) - min(zs), max(ys) - min(ys), loops, cavity)


def _hollow(name: str, label: str, h: float, b: float, t: float, outer: float, inner: float) -> Section:
    properties = solids.hollow(h, b, t, outer, inner)
    iy, iz = b / 2 - t, h / 2 - t
    hole: Outline = (rounded([(-iy, -iz), (iy, -iz), (iy, iz), (-iy, iz)], [inner] * 4),)
    flat = integrate(hole)
    shear = solids.RECTANGLE_SHEAR * flat.A
    cavity = SectionProperties(flat.A, flat.Iy, flat.Iz, 0.0, solids.rectangle_torsion(2 * iy, 2 * iz), shear, shear)
    return _made(name, label, properties, solids.hollow_outline(h, b, t, outer, inner), cavity)


def _tube(name: str, h: float, b: float, t: float, hot: bool) -> Section:
    if hot:
        outer, inner = 1.5 * t, 1.0 * t
    else:
        factor = 2.0 if t <= 6e-3 else 2.5 if t <= 10e-3 else 3.0
        outer, inner = factor * t, (factor - 1) * t
    kind = "square tube" if h == b else "tube"
    return _hollow(name, f"{kind} {_mm(h)}×{_mm(b)}×{_mm(t)}{' hot' if hot else ''}", h, b, t, outer, inner)


def _mm(value: float) -> str:
    return f"{value * 1e3:g}"


def _rectangle(h: float, b: float) -> Loop:
    return polygon([(-b / 2, -h / 2), (b / 2, -h / 2), (b / 2, h / 2), (-b / 2, h / 2)])


def _shs(name: str, h: float, b: float, t: float) -> Section:
    if h != b:
        raise InputError("section", f'"{name}": a square tube has two equal sides; use rhs- for others')
    return _tube(name, h, b, t, name.endswith("-hot"))


def _rhs(name: str, h: float, b: float, t: float) -> Section:
    return _tube(name, h, b, t, name.endswith("-hot"))


def _chs(name: str, d: float, t: float) -> Section:
    hollow = SectionProperties(*_round_values(d - 2 * t)) if 2 * t < d else None
    label = f"round tube ⌀{_mm(d)}×{_mm(t)}"
    return _made(name, label, solids.tube(d, t), solids.tube_outline(d, t), hollow)


def _round_values(d: float) -> tuple[float, float, float, float, float, float, float]:
    r = solids.rod(d)
    return (r.A, r.Iy, r.Iz, r.Iyz, r.J, r.Asy, r.Asz)


def _flat(name: str, h: float, b: float) -> Section:
    return _made(name, f"flat {_mm(h)}×{_mm(b)}", solids.rectangle(b, h), (_rectangle(h, b),))


def _rod(name: str, d: float) -> Section:
    return _made(name, f"rod ⌀{_mm(d)}", solids.rod(d), (circle(d / 2),))


def _angle(name: str, h: float, b: float, t: float) -> Section:
    if t >= min(h, b) / 2:
        raise InputError("section", f'"{name}": the wall does not fit into the legs')
    label = f"angle {_mm(h)}×{_mm(b)}×{_mm(t)}"
    return _made(name, label, rolled.angle(h, b, t), rolled.angle_outline(h, b, t))


def _upn(name: str, h: float) -> Section:
    shape = rolled.UPN.get(round(h * 1e3))
    if shape is None:
        raise InputError("section", f'"{name}": known channels are {", ".join(f"upn-{n}" for n in rolled.UPN)}')
    return _made(name, f"channel U{_mm(h)}", rolled.channel(shape), rolled.channel_outline(shape))


def _ipe(name: str, h: float) -> Section:
    shape = rolled.IPE.get(round(h * 1e3))
    if shape is None:
        raise InputError("section", f'"{name}": known I sections are {", ".join(f"ipe-{n}" for n in rolled.IPE)}')
    return _made(name, f"I section {_mm(h)}", rolled.i_section(shape), rolled.i_outline(shape))


def _box(name: str, h: float, b: float, t: float) -> Section:
    return _hollow(name, f"box {_mm(h)}×{_mm(b)}×{_mm(t)}", h, b, t, 0.0, 0.0)


_PATTERNS: tuple[tuple[str, Callable[..., Section]], ...] = (
    (rf"shs-{_NUMBER}x{_NUMBER}x{_NUMBER}(?:-hot)?", _shs),
    (rf"rhs-{_NUMBER}x{_NUMBER}x{_NUMBER}(?:-hot)?", _rhs),
    (rf"chs-{_NUMBER}x{_NUMBER}", _chs),
    (rf"flat-{_NUMBER}x{_NUMBER}", _flat),
    (rf"rod-{_NUMBER}", _rod),
    (rf"angle-{_NUMBER}x{_NUMBER}x{_NUMBER}", _angle),
    (rf"upn-{_NUMBER}", _upn),
    (rf"ipe-{_NUMBER}", _ipe),
    (rf"box-{_NUMBER}x{_NUMBER}x{_NUMBER}", _box),
)


@lru_cache(maxsize=4096)
def section(name: str) -> Section:
    """Return the section of a name.

    Raises:
        InputError: Unknown name, or sizes that make no section.
    """
    if name in cache.known():
        return _slotted(name)
    for pattern, make in _PATTERNS:
        match = re.fullmatch(pattern, name)
        if match:
            sizes = [float(group) / 1e3 for group in match.groups()]
            for size in sizes:
                if not SMALLEST * 0.2 <= size <= LARGEST:
                    raise InputError("section", f'"{name}": sizes lie between 0.2 mm and 2 m')
            return make(name, *sizes)
    known = "shs-, rhs-, chs-, flat-, rod-, angle-, upn-, ipe-, box-, tslot-, cprofile-"
    raise InputError("section", f'there is no section "{name}"; names look like shs-60x60x4 ({known})')


def _slotted(name: str) -> Section:
    if name.startswith("tslot"):
        _, series, count = name.split("-")
        columns, rows = (int(c) for c in count.split("x"))
        size = int(series[:2])
        weight = {"L": " light", "H": " heavy"}.get(series[2:], "")
        label = f"slotted {columns * size}×{rows * size}{weight}"
    else:
        label = "slotted C 40×80"
    return _made(name, label, cache.stored_properties(name), cache.stored_outline(name))


def neighbours(name: str) -> tuple[str | None, str | None]:
    """Return the next smaller and next larger section of a section's family.

    A size of one's own is placed among its family by its stiffness.
    """
    for family in families():
        if name in family:
            place = family.index(name)
            return (
                family[place - 1] if place else None,
                family[place + 1] if place + 1 < len(family) else None,
            )
    kind = name.split("-")[0]
    own = section(name).properties.Iy
    for family in families():
        if family[0].split("-")[0] == kind:
            smaller = [n for n in family if section(n).properties.Iy < own]
            larger = [n for n in family if section(n).properties.Iy > own]
            return (smaller[-1] if smaller else None, larger[0] if larger else None)
    return (None, None)
