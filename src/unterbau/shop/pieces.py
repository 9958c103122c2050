"""Every piece of a machine as it is cut, bought or made: sizes, ends, holes, mass; equal ones counted together."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from math import acos, degrees, pi, tan

from unterbau.catalogue.screws import screw_size
from unterbau.materials.material import material
from unterbau.materials.slotted_plate import slotted_plate
from unterbau.sections.section import section
from unterbau.sections.solved import SectionRef
from unterbau.shop.alike import Turn, as_it_lies, bar_turns, pattern_key, plate_turns
from unterbau.shop.holes import Hole, bar_holes, plate_holes
from unterbau.solids.heads import heads_of
from unterbau.structure.ends import Cut, Sawn, is_square, sawn
from unterbau.structure.join import BasePlateJoin, GussetJoin, RibJoin
from unterbau.structure.parts import Member
from unterbau.structure.piece import Bar, PlatePiece, Rod
from unterbau.structure.screws import straight_screws
from unterbau.structure.structure import Structure
from unterbau.structure.vectors import cross, dot
from unterbau.structure.weights import bar_mass, fill_mass, rod_mass

SAME = 1e-5
"""Lengths within this are one, m."""
STEEP = 1e-3


@dataclass(frozen=True, slots=True)
class End:
    """How a bar ends."""

    angle: float
    """Between the cut and a square one, degrees."""
    joined: str
    """What it stands against, in words; nothing where it is free."""


@dataclass(frozen=True, slots=True)
class ShopPiece:
    """A piece, or several that are equal."""

    label: str
    """A letter or two."""
    names: tuple[str, ...]
    """Of all that are equal, as the machine calls them."""
    part: str
    """Link that it is of."""
    sort: str
    """`bar`, `plate`, `round`, or `extruded`: a plate with T-slots, bought to length."""
    stock: str
    """Section or thickness, in words."""
    material: str
    """Id."""
    length: float
    """Along its longer side where it is mitred, m."""
    width: float
    """Of plates, m; 0 of others."""
    thickness: float
    """Of plates, m."""
    ends: tuple[End, ...]
    holes: tuple[Hole, ...]
    mass: float
    """Of one before drilling, kg."""
    section: SectionRef = ""
    """Of bars, by name."""
    turned: bool = False
    halved: bool = False
    """Whether it is a triangle, half the rectangle."""

    @property
    def count(self) -> int:
        """How many there are."""
        return len(self.names)

    @property
    def drilled(self) -> float:
        """What the holes take away of one, kg."""
        rho = material(self.material).rho
        return sum(
            rho * pi / 4 * (one.diameter**2 * one.depth + max(one.bore**2 - one.diameter**2, 0.0) * one.sunk)
            for one in self.holes
        )


def pieces_of(structure: Structure) -> tuple[ShopPiece, ...]:
    """Return all pieces that are cut from bars and plates, the heaviest sort first, labelled; equal ones as one."""
    groups: dict[tuple[object, ...], ShopPiece] = {}
    for one in _all(structure):
        key = (
            one.sort, one.stock, one.material, round(one.length / SAME), round(one.width / SAME),
            tuple(round(end.angle, 2) for end in one.ends), pattern_key(one.holes, _turns(one)), one.halved,
        )  # fmt: skip
        found = groups.get(key)
        groups[key] = one if found is None else replace(found, names=(*found.names, *one.names))
    rows = sorted(groups.values(), key=lambda one: (one.sort, -one.mass * one.count, one.names))
    return tuple(replace(one, label=_letters(number)) for number, one in enumerate(rows))


def _turns(one: ShopPiece) -> tuple[Turn, ...]:
    """Return the ways in which a piece can lie and be the same; mitred and halved ones lie in one."""
    if one.halved or any(end.angle for end in one.ends):
        return (as_it_lies,)
    if one.sort == "plate":
        return plate_turns(one.length, one.width)
    if one.sort == "bar":
        return bar_turns(Member(one.section, one.material, turned=one.turned), one.length)
    return (as_it_lies,)


def _letters(number: int) -> str:
    text = ""
    number += 1
    while number:
        number, rest = divmod(number - 1, 26)
        text = chr(ord("A") + rest) + text
    return text


def _all(structure: Structure) -> Iterator[ShopPiece]:
    screws, sunk = straight_screws(structure), heads_of(structure).sunk
    cuts = sawn(structure)
    for step in structure.flat:
        if isinstance(step, Bar):
            yield _bar(structure, step, cuts[step.name])
        elif isinstance(step, Rod):
            mass = rod_mass(step.diameter, step.material, step.length)
            yield ShopPiece(
                "", (step.name,), step.key, "round", f"round ⌀{step.diameter * 1e3:g}", step.material, step.length, 0.0,
                step.diameter, (), (), mass,
            )  # fmt: skip
        elif isinstance(step, PlatePiece) and not step.cast:
            yield from _plate(step, plate_holes(step, screws, sunk))
        elif isinstance(step, BasePlateJoin):
            yield from _plate(step.plate, plate_holes(step.plate, screws, sunk))
        elif isinstance(step, RibJoin) and not step.rib.cast:
            yield from _plate(step.rib, ())
        elif isinstance(step, GussetJoin):
            yield from _plate(step.plate, ())


def _plate(one: PlatePiece, holes: tuple[Hole, ...]) -> Iterator[ShopPiece]:
    """Yield a plate, or both of its layers: they are drilled together, right through."""
    long, wide = one.size
    if one.strips:
        yield from _strips(one, holes)
        return
    for number, (made_of, thickness) in enumerate(one.layers):
        base = material(made_of)
        mass = base.rho * thickness * long * wide * (0.5 if one.halved else 1.0)
        words, name = f"plate {thickness * 1e3:g} mm", one.name if not number else f"{one.name}, lower layer"
        deep = tuple(replace(hole, depth=min(hole.depth, thickness)) for hole in holes) if one.lower else holes
        yield ShopPiece(
            "", (name,), one.key, "plate", words, made_of, long, wide, thickness, (), deep, mass, halved=one.halved
        )


def _strips(one: PlatePiece, holes: tuple[Hole, ...]) -> Iterator[ShopPiece]:
    """Yield plates with T-slots that lie side by side along a plate; each as long as that is wide."""
    long, wide = one.size
    each = long / one.strips
    mass = slotted_plate(one.material).material.rho * one.height * each * wide
    for n in range(one.strips):
        left, right = n * each, (n + 1) * each
        last = n == one.strips - 1
        inside = (hole for hole in holes if left <= hole.x and (hole.x < right or last))
        mine = tuple(replace(hole, x=hole.y, y=right - hole.x) for hole in inside)
        stock = f"plate with T-slots {one.height * 1e3:g} mm"
        yield ShopPiece(
            "", (f"{one.name} {n + 1}",), one.key, "extruded", stock, one.material, wide, each, one.height, (), mine,
            mass,
        )  # fmt: skip


def _bar(structure: Structure, one: Bar, cut: Sawn) -> ShopPiece:
    member: Member = one.part
    ends = tuple(End(_angle(one, end), end.against) for end in (cut.first, cut.last))
    longer = cut.length + sum(_beyond(one, end) for end in (cut.first, cut.last))
    mass = (bar_mass(member) + fill_mass(member)) * cut.length
    return ShopPiece(
        "", (one.name,), one.key, "bar", section(member.section).label, member.material, longer, 0.0, 0.0, ends,
        bar_holes(one, cut, straight_screws(structure)), mass, member.section, member.turned,
    )  # fmt: skip


def _angle(bar: Bar, cut: Cut) -> float:
    if is_square(bar, cut):
        return 0.0
    return round(degrees(acos(min(1.0, abs(dot(cut.normal, bar.along))))), 3)


def _beyond(bar: Bar, cut: Cut) -> float:
    """Return how far a mitred end reaches beyond where its cut crosses the axis, on the longer side, m."""
    if is_square(bar, cut):
        return 0.0
    side = cross(bar.up, bar.along)
    across, tall = (abs(dot(cut.normal, way)) for way in (side, bar.up))
    size = (across**2 + tall**2) ** 0.5
    if size < STEEP:
        return 0.0
    half = (across * bar.width + tall * bar.height) / (2 * size)
    return float(half * tan(acos(min(1.0, abs(dot(cut.normal, bar.along))))))


def hole_words(hole: Hole) -> str:
    """Return a hole as a drawing says it."""
    size = screw_size(hole.screw)
    if hole.sort == "clearance":
        words = f"⌀{size.clearance * 1e3:g} through for {hole.screw}"
        behind = " from the back" if hole.face == "back" else ""
        return f"{words}, head sunk ⌀{hole.bore * 1e3:g} × {hole.sunk * 1e3:g}{behind}" if hole.sunk else words
    if hole.sort == "slot nut":
        return f"{hole.screw}, nut in the slot"
    if hole.sort in ("insert", "bonded insert", "heat-set insert", "T-nut"):
        return f"{hole.screw} {hole.sort}, drill ⌀{size.insert * 1e3:g}"
    if hole.sort == "plug":
        return f"{hole.screw} in a plug glued into the end, drill ⌀{size.tap * 1e3:g}"
    if hole.sort == "wood screw":
        return f"wood screw {hole.screw.removeprefix('M')} mm, pilot hole ⌀{hole.diameter * 1e3:.1f}"
    return f"{hole.screw}, drill ⌀{size.tap * 1e3:g}"
