"""A section by its name; what the names mean stands in `names`."""

import json
import re
from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import lru_cache
from importlib.resources import files

from unterbau.errors import InputError
from unterbau.sections import cache, rolled, solids
from unterbau.sections.built_up import OF, Piece, Seam, build, split_name, whole
from unterbau.sections.families import families
from unterbau.sections.outline import Loop, Outline, Point, circle, integrate, polygon, rounded, sampled
from unterbau.sections.properties import SectionProperties
from unterbau.sections.solved import FILE, MARK, OWN, CustomSection, SectionRef, SolvedSection, section_name

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
    material: str = ""
    """Where it is of several: the one that its values are expressed in."""
    weight: float = 1.0
    """Its mass against area times density."""
    pieces: tuple[Piece, ...] = ()
    """Profiles that it is built up of."""
    seams: tuple[Seam, ...] = ()


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
def section(of: SectionRef) -> Section:
    """Return the section of a name, or one of the builder's own.

    Raises:
        InputError: Unknown name, or sizes that make no section.
    """
    if not isinstance(of, str):
        return _solved(of.values, of.profile)
    name = of
    if name in cache.known():
        return _slotted(name)
    found = shipped_built_up().get(name)
    if found is not None:
        return _solved(found)
    if OF in name:
        pieces_of(name)
        raise InputError("section", f'"{name}" is not solved yet; Build up… on the bench solves it')
    if name.startswith(OWN):
        raise InputError("section", f'the values of "{name}" are missing; draw it again')
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


def pieces_of(
    name: str, profile: SolvedSection | None = None
) -> tuple[tuple[Piece, ...], tuple[tuple[Point, ...], ...], str]:
    """Return the pieces of a built-up section, the outline of one, and its label.

    Args:
        name: Of the built-up section.
        profile: The builder's own profile that it is built up of, if that is no standard one.

    Raises:
        InputError: No such layout or profile, or a layout that wants channels.
    """
    pieces, _, base = _layout(name, profile)
    return pieces, base.loops, base.label


def _layout(name: str, own: SolvedSection | None) -> tuple[tuple[Piece, ...], tuple[Seam, ...], Section]:
    found = split_name(name)
    if found is None:
        raise InputError("section", f'"{name}" is not a built-up section')
    layout, profile = found
    base = section(profile.partition(MARK)[0] if own is None else CustomSection(own))
    if base.pieces:
        raise InputError("section", f'"{name}": built-up sections are not built up again')
    if layout.channels and not profile.startswith(("upn", "cprofile")):
        raise InputError("section", f'"{name}": this layout takes channels, upn- or cprofile-')
    ys, zs = zip(*base.loops[0], strict=True)
    pieces, seams = build(layout, base.properties, (min(ys), max(ys), min(zs), max(zs)))
    return pieces, seams, base


def built_label(profile: str, name: str) -> str:
    """Return what a built-up section is called."""
    layout = split_name(name)
    return f"{layout[0].label}, {profile}" if layout else profile


@lru_cache(maxsize=1)
def shipped_built_up() -> dict[str, SolvedSection]:
    """Return the built-up sections that are solved beforehand."""
    rows = json.loads((files("unterbau.sections") / FILE).read_text(encoding="utf-8"))
    return {
        row["name"]: SolvedSection(
            **{**row, "outline": tuple(tuple((y, z) for y, z in ring) for ring in row["outline"])}
        )
        for row in rows
    }


def _solved(found: SolvedSection, profile: SolvedSection | None = None) -> Section:
    ys, zs = zip(*found.outline[0], strict=True)
    pieces, seams = _layout(found.name, profile)[:2] if OF in found.name else ((), ())
    p = found.properties
    if pieces:  # the outline that was meshed has hairlines and polygons for curves
        A, Iy, Iz, Iyz = whole(pieces)
        p = replace(p, A=A, Iy=Iy, Iz=Iz, Iyz=Iyz)
    return Section(
        found.name, found.label, p, max(zs) - min(zs), max(ys) - min(ys), found.outline, hollows(found.outline),
        found.material, found.weight, pieces, seams,
    )  # fmt: skip


def hollows(loops: tuple[tuple[Point, ...], ...]) -> SectionProperties | None:
    """Return all closed hollows of an outline together, about its centroid, if there are any.

    Source:
        Torsion of a filling by Saint-Venant's estimate for compact solids, A⁴/(40·Ip).
    """
    if len(loops) < 2:
        return None
    A = Iy = Iz = Iyz = J = 0.0
    for ring in loops[1:]:
        one = integrate((polygon(list(ring)),))
        area = abs(one.A)
        sign = 1.0 if one.A > 0 else -1.0
        own = (sign * one.Iy, sign * one.Iz, sign * one.Iyz)
        A += area
        Iy, Iz = Iy + own[0] + area * one.z**2, Iz + own[1] + area * one.y**2
        Iyz += own[2] + area * one.y * one.z
        J += area**4 / (40 * (own[0] + own[1]))
    shear = solids.RECTANGLE_SHEAR * A
    return SectionProperties(A, Iy, Iz, Iyz, J, shear, shear, "outline of the hollows")


def _slotted(name: str) -> Section:
    if name.startswith("tslot"):
        _, series, count = name.split("-")
        columns, rows = (int(c) for c in count.split("x"))
        size = int(series[:2])
        weight = {"L": " light", "H": " heavy"}.get(series[2:], "")
        label = f"profile {columns * size}×{rows * size}{weight}"
    else:
        label = "C profile 40×80"
    outline = cache.stored_outline(name)
    return _made(name, label, cache.stored_properties(name), outline, hollows(_centred(outline)))


def neighbours(of: SectionRef) -> tuple[str | None, str | None]:
    """Return the next smaller and next larger section of a section's family.

    A size of one's own is placed among its family by its stiffness.
    """
    name = section_name(of)
    for family in families():
        if name in family:
            place = family.index(name)
            return (
                family[place - 1] if place else None,
                family[place + 1] if place + 1 < len(family) else None,
            )
    kind = name.split("-")[0]
    own = section(of).properties.Iy
    for family in families():
        if family[0].split("-")[0] == kind:
            smaller = [n for n in family if section(n).properties.Iy < own]
            larger = [n for n in family if section(n).properties.Iy > own]
            return (smaller[-1] if smaller else None, larger[0] if larger else None)
    return (None, None)
