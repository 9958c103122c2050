"""What the bench says of a part beside its fields: numbers, assumptions, sources."""

from unterbau.band import Band
from unterbau.catalogue import cautions
from unterbau.catalogue.drives import ENDLESS, drive, motors
from unterbau.catalogue.guides import block, installed
from unterbau.catalogue.joints import BOLTS, BoltGroup
from unterbau.materials.layered import layered
from unterbau.materials.material import material
from unterbau.materials.slotted_plate import slotted_plate
from unterbau.model.bolted import SOURCE, each, limits
from unterbau.model.joining import joint_kind
from unterbau.model.member import member_values
from unterbau.sections.section import section
from unterbau.structure.parts import (
    FLUTED,
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
    ScrewEnds,
    Sizes,
    Spindle,
    Stand,
)
from unterbau.units import Units, force_text, in_units, told


def facts(key: str, part: Part, units: Units = "mm") -> tuple[str, ...]:
    """Return a few short lines about a part; numbers first, then how it is modelled."""
    match part:
        case Member():
            return _member(part, units)
        case Plate():
            return _plate(part, units)
        case Joint():
            return _joint(part, units)
        case Guide():
            size = block(part.block)
            band = size.light if part.preload == "light" else size.medium
            return (
                f"each block by itself: {_band(band, units)} off the rail and sideways",
                *((f"installed {_grounds()} of it, by what lies under the rail",) if size.profiled else ()),
                f"Source: {size.source}.",
            )
        case Stand():
            return _stand(part)
        case Sizes():
            return ("Everything else follows from these: lengths, plates, where blocks and screws sit.",)
        case DragChain():
            return (
                "Half of it weighs at each end; it is as long as the farther reach of its travel and half a turn.",
                "In clashes it counts as the box that it fills on the way.",
            )
        case Hung():
            return ("A body as heavy as this, rigid, its middle off the face by half its depth; it only weighs.",)
        case _:
            return _bought(part, units)


def _core(EA: float, units: Units) -> str:
    """Return how stiff a screw, belt or rack is in itself."""
    if ENDLESS.likely <= EA:
        return "as stiff wherever it stands; nut or pinion, bearing and motor give in series"
    alone = told(EA / 1e6, "N/µm", units, 3)
    return f"a metre of it alone is {alone}; nut, bearing and motor give in series"


def _plate(part: Plate, units: Units) -> tuple[str, ...]:
    base = material(part.material)
    if part.under is not None:
        base = layered(part.material, part.under, part.thickness, part.under_thickness)
    if part.strips:
        base = slotted_plate(part.material).material
    model = (
        "Modelled as a plate: bending with shear, stretch in its own plane, by finite elements; rigid under "
        "what is bolted to it. Ribs are plates too, held along their foot. Holes and pockets are left out."
    )
    if part.strips:
        model = (
            f"{part.strips} plates side by side, nothing holds them to one another; slots run across the "
            f"members: across the slots a plate is {slotted_plate(part.material).across:.0%} as stiff as "
            f"along them. {model}"
        )
    seal = (cautions.PAINTING.text,) if part.sealed else ()
    return (f"E {told(base.E / 1e9, 'GPa', units, 3)}, {told(base.rho, 'kg/m³', units, 3)}", model, *seal)


SCREW_ENDS: dict[ScrewEnds, str] = {
    "floating": "one end fixed, the other in a bearing that lets it grow: pull and push go to the fixed one",
    "free": "the far end stands free: it whips at a fifth of the speed of one that is held there",
    "held": "both ends only held across, one of them along: as stiff along, whips earlier than with a fixed end",
    "fixed": "both ends fixed: its far side pulls as well; it needs stretching, for it cannot grow when it is warm",
}


def _bought(part: Drive | Motor | Spindle | Cutter, units: Units) -> tuple[str, ...]:
    match part:
        case Drive():
            kind = drive(part.kind)
            return (
                _core(kind.EA.likely, units),
                *((SCREW_ENDS[part.ends],) if kind.is_screw else ()),
                f"Source: {kind.source}.",
            )
        case Motor():
            one = motors()[part.kind]
            held = f"holds with {told(part.torque, 'N·m', units)}" if part.torque else "holds as is usual for its drive"
            return (
                f"{held}: 50 × that per radian of a stepper's rotor, × {_plain(one.stiffer, 1.0)}",
                "Seen along the axis by the square of its way per radian; a self-locking screw does not ask the motor.",
                f"Source: {one.source}.",
            )
        case Spindle():
            return (
                "Stiffness of the bearings at the nose; low and high are ×0.6 and ×1.6.",
                "Common practice, no source.",
            )
        case Cutter():
            base = material(part.material)
            return (
                (
                    f"E {told(base.E / 1e9, 'GPa', units, 3)}, {FLUTED:g} of its diameter along the flutes, whole "
                    f"along the shank"
                ),
                "A bar as stiff as fluted ones are measured to be: about 0.8 of the diameter; from memory.",
            )


def _grounds() -> str:
    return ", ".join(f"{band.likely:g} on {name}" for name, band in installed().items())


def _member(part: Member, units: Units) -> tuple[str, ...]:
    values, p = member_values(part), section(part.section).properties
    text = (
        f"{told(values.mass_per_metre, 'kg/m', units, 3)}; I {told(values.Iy * 1e8, 'cm⁴', units, 3)} and "
        f"{told(values.Iz * 1e8, 'cm⁴', units, 3)}, twist J {told(values.J * 1e8, 'cm⁴', units, 3)}"
    )
    how = f"Section by {p.method}"
    if part.fill:
        how += "; fill counted as fully bonded (transformed section)"
    lines: tuple[str, ...] = (text, how + ".")
    if part.fill:
        lines += (cautions.RESIN.text,)
    return lines


def _stand(part: Stand) -> tuple[str, ...]:
    known = "Legs 12EI/h³ (welded) or 3EI/h³ (bolted) sideways, panels in shear G·t·w/h, in series with the feet."
    lines: tuple[str, ...] = (
        known,
        "Feet and casters: common practice, no source. A workbench sways at 5 to 20 Hz with what stands on it.",
    )
    if part.kind == "base":
        lines += (
            (
                "Slab and ribs as shells, where ribs cross as one; the machine's feet on one M10 each, rough faces. "
                "Inserts' own give, sumps and what a ribbed casting shrinks are left out."
            ),
        )
    if part.kind in ("block", "base"):
        lines += (cautions.BLOCK.text,)
    if part.kind == "welded":
        lines += (cautions.WELDING.text,)
    return lines


def _bolts(bolts: BoltGroup, units: Units) -> tuple[str, ...]:
    normal, shear = each(bolts)
    pulled, slip, _ = limits(bolts, 0.0)
    count = bolts.across * bolts.along
    stiff = (
        f"each of {count}: {_band(normal, units)} off the face, {_band(shear, units)} along it (low / likely / high)"
    )
    bears = (
        f"preload {_kilo(pulled, units)} each; the group slips at {_kilo(slip, units)}, likely, and is softer beyond"
    )
    how = "set out evenly over the face; moments by their distance"
    if bolts.overhang:
        how = (
            "on a base plate by finite elements, rigid under the part; bolts around it. Contact counts under the bolts "
            "only, on the safe side"
        )
    return (stiff, how, bears, f"Source: {SOURCE}.")


def _joint(part: Joint, units: Units) -> tuple[str, ...]:
    lines = _joined_by(part, units)
    if part.gussets:
        lines += ("Gussets: triangles in plane stress by finite elements, held on both legs.",)
    return lines


def _joined_by(part: Joint, units: Units) -> tuple[str, ...]:
    kind = joint_kind(part)
    if part.kind == BOLTS:
        return _bolts(part.group, units)
    if kind.rigid:
        return ("rigid", f"Source: {kind.source}.", cautions.WELDING.text)
    if kind.bond:
        normal, shear = kind.bond
        text = f"bond line: {_plain(normal, 1e12)} MPa/µm across, {_plain(shear, 1e12)} along, times the face"
    else:
        normal, _, _, bend, _ = kind.values
        text = f"each: {_band(normal, units)}, {_band(bend, units, 'kN·m/rad', 1e3)}"
    return (text + " (low / likely / high)", f"Source: {kind.source}.")


def _kilo(force: float, units: Units) -> str:
    return f"{force / 1e3:.1f} kN" if units == "mm" else force_text(force, units)


def _band(band: Band, units: Units, unit: str = "N/µm", per: float = 1e6) -> str:
    many, name = in_units(1.0, unit, units)
    return f"{_plain(band, per / many)} {name}"


def _plain(band: Band, unit: float) -> str:
    numbers = (value / unit for value in (band.low, band.likely, band.high))
    return " / ".join(f"{value:.3g}" if value < 1e3 else f"{value:.0f}" for value in numbers)
