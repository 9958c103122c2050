"""What the bench says of a part beside its fields: numbers, assumptions, sources."""

from unterbau.band import Band
from unterbau.catalogue.drives import ENDLESS, drive, motors
from unterbau.catalogue.guides import block, installed
from unterbau.catalogue.joints import BOLTS, BoltGroup
from unterbau.materials.material import material
from unterbau.model.bolted import SOURCE, each, limits
from unterbau.model.joining import joint_kind
from unterbau.model.member import member_values
from unterbau.sections.section import section
from unterbau.structure.parts import (
    FLUTED,
    Cutter,
    Drive,
    Guide,
    Joint,
    Member,
    Motor,
    Part,
    Plate,
    Sizes,
    Spindle,
    Stand,
)
from unterbau.units import number_text


def facts(key: str, part: Part) -> tuple[str, ...]:
    """Return a few short lines about a part; numbers first, then how it is modelled."""
    match part:
        case Member():
            return _member(part)
        case Plate():
            base = material(part.material)
            model = (
                "Modelled as a plate: bending with shear, stretch in its own plane, by finite elements; rigid under "
                "what is bolted to it. Ribs are plates too, held along their foot. Holes and pockets are left out."
            )
            return (f"E {base.E / 1e9:.3g} GPa, {base.rho:.0f} kg/m³", model)
        case Joint():
            return _joint(part)
        case Guide():
            size = block(part.block)
            band = size.light if part.preload == "light" else size.medium
            return (
                f"each block by itself: {_band(band)} N/µm off the rail and sideways",
                *((f"installed {_grounds()} of it, by what lies under the rail",) if size.profiled else ()),
                f"Source: {size.source}.",
            )
        case Stand():
            return _stand(part)
        case Sizes():
            return ("Everything else follows from these: lengths, plates, where blocks and screws sit.",)
        case _:
            return _bought(part)


def _core(EA: float) -> str:
    """Return how stiff a screw, belt or rack is in itself."""
    if ENDLESS.likely <= EA:
        return "as stiff wherever it stands; nut or pinion, bearing and motor give in series"
    metre = EA / 1e6
    return f"a metre of it stretches 1 µm under {metre:.3g} N; nut, bearing and motor give in series"


def _bought(part: Drive | Motor | Spindle | Cutter) -> tuple[str, ...]:
    match part:
        case Drive():
            kind = drive(part.kind)
            return (
                _core(kind.EA.likely),
                f"Source: {kind.source}.",
            )
        case Motor():
            one = motors()[part.kind]
            held = f"holds with {part.torque:g} N·m" if part.torque else "holds as is usual for its drive"
            return (
                f"{held}: 50 × that per radian of a stepper's rotor, × {_band(one.stiffer, 1.0)}",
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
                f"E {base.E / 1e9:.0f} GPa, {FLUTED:g} of its diameter along the flutes, whole along the shank",
                "A bar as stiff as fluted ones are measured to be: about 0.8 of the diameter; from memory.",
            )


def _grounds() -> str:
    return ", ".join(f"{band.likely:g} on {name}" for name, band in installed().items())


def _member(part: Member) -> tuple[str, ...]:
    values, p = member_values(part), section(part.section).properties
    text = (
        f"{values.mass_per_metre:.2f} kg/m; I {number_text(values.Iy * 1e8, 3)} and "
        f"{number_text(values.Iz * 1e8, 3)} cm⁴, "
        f"twist J {number_text(values.J * 1e8, 3)} cm⁴"
    )
    how = f"Section by {p.method}"
    if part.fill:
        how += "; fill counted as fully bonded (transformed section)"
    lines: tuple[str, ...] = (text, how + ".")
    if part.fill:
        lines += ("Caution: resin on skin sensitises and thick pours grow hot; gloves, thin lifts, the maker's sheet.",)
    return lines


def _stand(part: Stand) -> tuple[str, ...]:
    known = "Legs 12EI/h³ (welded) or 3EI/h³ (bolted) sideways, panels in shear G·t·w/h, in series with the feet."
    lines: tuple[str, ...] = (
        known,
        "Feet and casters: common practice, no source. A workbench sways at 5 to 20 Hz with what stands on it.",
    )
    if part.kind == "block":
        lines += ("Caution: lifting and tipping a block; two people or a hoist, and local codes.",)
    if part.kind == "welded":
        lines += ("Caution: fumes, zinc, UV and fire; screen, extraction, and a trained hand.",)
    return lines


def _bolts(bolts: BoltGroup) -> tuple[str, ...]:
    normal, shear = each(bolts)
    pulled, slip, _ = limits(bolts, 0.0)
    count = bolts.across * bolts.along
    stiff = f"each of {count}: {_band(normal)} N/µm off the face, {_band(shear)} along it (low / likely / high)"
    bears = f"preload {pulled / 1e3:.1f} kN each; the group slips at {slip / 1e3:.1f} kN, likely, and is softer beyond"
    how = "set out evenly over the face; moments by their distance"
    if bolts.overhang:
        how = (
            "on a base plate by finite elements, rigid under the part; bolts around it. Contact counts under the bolts "
            "only, on the safe side"
        )
    return (stiff, how, bears, f"Source: {SOURCE}.")


def _joint(part: Joint) -> tuple[str, ...]:
    lines = _joined_by(part)
    if part.gussets:
        lines += ("Gussets: triangles in plane stress by finite elements, held on both legs.",)
    return lines


def _joined_by(part: Joint) -> tuple[str, ...]:
    kind = joint_kind(part)
    if part.kind == BOLTS:
        return _bolts(part.group)
    if kind.rigid:
        caution = "Caution: fumes, zinc, UV and fire; screen, extraction, and a trained hand."
        return ("rigid", f"Source: {kind.source}.", caution)
    if kind.bond:
        normal, shear = kind.bond
        text = f"bond line: {_band(normal, 1e12)} MPa/µm across, {_band(shear, 1e12)} along, times the face"
    else:
        normal, _, _, bend, _ = kind.values
        text = f"each: {_band(normal)} N/µm, {_band(bend, 1e3)} kN·m/rad"
    return (text + " (low / likely / high)", f"Source: {kind.source}.")


def _band(band: Band, unit: float = 1e6) -> str:
    return " / ".join(f"{value / unit:.3g}" for value in (band.low, band.likely, band.high))
