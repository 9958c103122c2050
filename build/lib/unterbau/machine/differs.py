"""What differs between two machines, part by part, in words."""

from unterbau.catalogue.drives import drive, motors
from unterbau.catalogue.guides import block
from unterbau.catalogue.joints import BOLTS, OWN, joint
from unterbau.machine.changes.change import Change, LeftOut, Measured, name_of
from unterbau.machine.machine import Machine, kind_of, links, part_at
from unterbau.materials.material import material
from unterbau.sections.section import section
from unterbau.structure.parts import (
    Cutter,
    DragChain,
    Drive,
    Guide,
    Hung,
    Joint,
    Member,
    Motor,
    Part,
    Plate,
    Spindle,
    Stand,
)
from unterbau.structure.stand import LABELS
from unterbau.units import Units, length_text, mass_text, number_text


def differences(before: Machine, after: Machine, units: Units = "mm") -> tuple[str, ...]:
    """Return what differs, the parts on the way from tool to work first, then sizes, then what was added."""
    if before.kind != after.kind:
        return (f"another kind: {kind_of(after).label} instead of {kind_of(before).label}",)
    labels = {one.key: one.label for one in (*links(before), *links(after))}
    rows = []
    for key, label in labels.items():
        first, second = part_at(before, key), part_at(after, key)
        if first is None or second is None or first == second:
            continue
        a, b = part_text(first, units), part_text(second, units)
        rows.append(f"{label}: {_arrow(a, b)}" if a != b else f"{label}: {details(first, second)}")
    for one in kind_of(before).sizes:
        old, new = (getattr(machine.dimensions, one.attribute) for machine in (before, after))
        if old != new:
            a, b = (str(v) if one.count else length_text(v, units) for v in (old, new))
            rows.append(f"{one.words} {a} → {b}")
    known, kept = ({one.id for one in machine.changes} for machine in (before, after))
    rows += [_change(one) for one in after.changes if one.id not in known]
    rows += [f"without {name_of(one)}" for one in before.changes if one.id not in kept]
    return tuple(rows)


def _arrow(before: str, after: str) -> str:
    """Return both without what they end alike with."""
    a, b = before.split(", "), after.split(", ")
    while len(a) > 1 and len(b) > 1 and a[-1] == b[-1]:
        a.pop()
        b.pop()
    return f"{', '.join(a)} → {', '.join(b)}"


def _change(one: Change) -> str:
    if isinstance(one, LeftOut):
        return f"left out: {one.what.replace('_', ' ')}"
    return name_of(one) if isinstance(one, Measured) else f"added: {name_of(one)}"


def details(before: Part, after: Part) -> str:
    """Return the names of the fields that differ, where the words of both are the same."""
    fields = getattr(type(before), "__dataclass_fields__", {})
    changed = [name.replace("_", " ") for name in fields if getattr(before, name) != getattr(after, name)]
    return f"another {', '.join(changed)}"


def part_text(one: Part, units: Units = "mm") -> str:
    """Return a part in a few words."""
    match one:
        case Member():
            return _member(one)
        case Plate():
            below = f" on {material(one.under).label}" if one.under else ""
            ribs = f", {one.ribs} ribs" if one.ribs else ""
            slots = f", {one.strips} T-slot plates" if one.strips else ""
            return f"{length_text(one.thickness, units)} {material(one.material).label}{below}{slots}{ribs}"
        case Joint():
            return _joint(one)
        case Guide():
            return f"{block(one.block).label}, {one.preload} preload, {one.blocks} blocks a rail"
        case _:
            return _bought(one, units)


def _bought(one: Part, units: Units) -> str:
    match one:
        case Drive():
            times = f"{one.count} × " if one.count > 1 else ""
            ends = f", ends {one.ends}" if one.ends != "floating" and drive(one.kind).is_screw else ""
            return f"{times}{drive(one.kind).label}{ends}{', motor off' if one.free else ''}"
        case Motor():
            rests = f", runs {one.on:g} s" if one.on else ""
            return motors()[one.kind].label + (f" {one.torque:g} N·m" if one.torque else "") + rests
        case Spindle():
            return f"{mass_text(one.mass, units)}, {number_text(one.radial / 1e6)} N/µm sideways"
        case Cutter():
            return f"⌀{length_text(one.diameter, units)}, {length_text(one.stick_out, units)} out"
        case Stand() if one.kind == "base":
            slab = length_text(one.thickness, units)
            return f"{LABELS[one.kind]}, {material(one.material).label}, slab {slab}, {one.ribs} ribs each way"
        case Stand():
            return LABELS[one.kind]
        case Hung():
            return mass_text(one.mass, units)
        case DragChain():
            return f"{length_text(one.width, units)} wide, bent over {length_text(one.radius, units)}"
        case _:
            return "sizes"


def _member(one: Member) -> str:
    lying = ", lying" if one.turned else ""
    fill = f", filled with {material(one.fill).label}" if one.fill else ""
    return f"{section(one.section).label}, {material(one.material).label}{lying}{fill}"


def _joint(one: Joint) -> str:
    if one.kind == BOLTS:
        return f"{one.group.across * one.group.along} {one.group.size}, computed"
    label = "own values" if one.kind == OWN else joint(one.kind).label
    gussets = f", {one.gussets} gussets a corner" if one.gussets else ""
    return f"{one.count} × {label}{gussets}"
