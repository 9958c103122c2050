"""Which fields each sort of part has on the bench, as data."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any, Literal

from unterbau.catalogue.drives import drives
from unterbau.catalogue.guides import blocks
from unterbau.catalogue.joints import OWN, joints
from unterbau.errors import InputError
from unterbau.machine.joining import likely_values
from unterbau.machine.kind import Kind as MachineKind
from unterbau.machine.kit.checks import PLATE, thickest
from unterbau.machine.parts import Cutter, Drive, Guide, Joint, Member, Part, Plate, Sizes, Spindle, Stand
from unterbau.machine.stand import LABELS
from unterbau.materials.material import materials
from unterbau.sections.families import families
from unterbau.sections.section import section
from unterbau.units import Kind

Choices = tuple[tuple[str | bool | None, str], ...]
"""Value and the words for it."""


@dataclass(frozen=True, slots=True)
class Field:
    """One field of a part."""

    attribute: str
    caption: str
    control: Literal["choice", "section", "quantity", "count"]
    choices: Callable[[], Choices] = tuple
    kind: Kind = "length"
    scale: float = 1.0
    """SI value per shown number, for plain quantities."""
    unit: str = ""
    low: float = 0.0
    high: float = 0.0


def material_choices() -> Choices:
    """Return every material."""
    return tuple((one.id, one.label) for one in materials().values())


def fill_choices() -> Choices:
    """Return what can be poured into a hollow."""
    poured = tuple((one.id, one.label) for one in materials().values() if one.kind == "stone" and one.id != "granite")
    return ((None, "empty"), *poured)


def section_choices() -> Choices:
    """Return every section of the families."""
    return tuple((name, section(name).label) for family in families() for name in family)


def joint_choices() -> Choices:
    """Return every kind of joint, and values of one's own."""
    return (*((one.id, one.label) for one in joints().values()), (OWN, "own values"))


def _own_joint(attribute: str, caption: str, scale: float, unit: str) -> Field:
    low, high = (1.0, 20.0) if attribute == "spread" else (1.0, 1e12)
    return Field(f"own.{attribute}", caption, "quantity", kind="plain", scale=scale, unit=unit, low=low, high=high)


OWN_JOINT = (
    _own_joint("normal", "each, pulled apart", 1e6, "N/µm"),
    _own_joint("shear", "each, sheared", 1e6, "N/µm"),
    _own_joint("bend", "each, bent open", 1e3, "kN·m/rad"),
    _own_joint("twist", "each, twisted", 1e3, "kN·m/rad"),
    _own_joint("spread", "low and high by ×", 1.0, ""),
)


def size_fields(kind: MachineKind) -> tuple[Field, ...]:
    """Return a field for each size of a kind of machine."""
    return tuple(
        Field(one.attribute, one.words, "count" if one.count else "quantity", low=one.low, high=one.high)
        for one in kind.sizes
    )


FIELDS: dict[type, tuple[Field, ...]] = {
    Member: (
        Field("section", "section", "section", section_choices),
        Field("material", "material", "choice", material_choices),
        Field("fill", "fill", "choice", fill_choices),
        Field("turned", "stands", "choice", lambda: ((False, "upright"), (True, "lying"))),
    ),
    Plate: (
        Field("thickness", "thickness", "quantity", low=0.002, high=PLATE),
        Field("material", "material", "choice", material_choices),
    ),
    Joint: (
        Field("kind", "joined by", "choice", joint_choices),
        Field("count", "at each end", "count", low=1, high=24),
    ),
    Guide: (
        Field("block", "size", "choice", lambda: tuple((one.id, one.label) for one in blocks().values())),
        Field("preload", "preload", "choice", lambda: (("light", "light"), ("medium", "medium"))),
    ),
    Drive: (Field("kind", "drive", "choice", lambda: tuple((one.id, one.label) for one in drives().values())),),
    Spindle: (
        Field("mass", "mass", "quantity", kind="mass", low=0.05, high=500),
        Field("radial", "stiffness, sideways", "quantity", kind="plain", scale=1e6, unit="N/µm", low=1e4, high=1e12),
        Field("axial", "stiffness, along", "quantity", kind="plain", scale=1e6, unit="N/µm", low=1e4, high=1e12),
        Field("tilt", "against tilting", "quantity", kind="plain", scale=1e3, unit="kN·m/rad", low=10.0, high=1e9),
        Field("diameter", "body diameter", "quantity", low=0.01, high=0.5),
        Field("length", "body length", "quantity", low=0.02, high=1.5),
    ),
    Stand: (
        Field("kind", "stands on", "choice", lambda: tuple(LABELS.items())),
        Field("height", "height", "quantity", low=0.05, high=1.5),
        Field("casters", "on", "choice", lambda: ((False, "levelling feet"), (True, "locked casters"))),
    ),
    Cutter: (
        Field("diameter", "diameter", "quantity", low=0.0005, high=0.06),
        Field("stick_out", "stick-out", "quantity", low=0.002, high=0.3),
        Field("material", "material", "choice", material_choices),
    ),
}  # fmt: skip


def section_from(text: str, now: str) -> str:
    """Return the name of a section from what was typed: a name, a label, or bare sizes.

    Raises:
        InputError: Says what was expected.
    """
    cleaned = text.strip().replace("×", "x").replace(" ", "")
    for name, words in section_choices():
        if isinstance(name, str) and words.replace("×", "x").replace(" ", "") == cleaned:
            return name
    if cleaned and cleaned[0].isdigit():
        cleaned = f"{now.split('-')[0]}-{cleaned}"
    try:
        return section(cleaned).name
    except InputError:
        kind = now.split("-")[0]
        raise InputError("section", f'expected sizes such as 80x40x4 or a name such as "{kind}-…"') from None


def fields_of(kind: MachineKind, key: str, part: Part) -> tuple[Field, ...]:
    """Return the fields of a part that stands at a link of a machine of some kind."""
    if isinstance(part, Sizes):
        return size_fields(kind)
    fields = FIELDS[next(sort for sort in FIELDS if isinstance(part, sort))]
    if isinstance(part, Plate):
        return (replace(fields[0], high=thickest(key)), *fields[1:])
    if isinstance(part, Joint) and part.kind == OWN:
        return (*fields, *OWN_JOINT)
    if isinstance(part, Drive) and kind.most_drives.get(key, 1) > 1:
        return (*fields, Field("count", "how many", "count", low=1, high=kind.most_drives[key]))
    return fields


def value_of(part: Part, field: Field) -> object:
    """Return a field's value."""
    found: object = part
    for name in field.attribute.split("."):
        found = getattr(found, name)
    return found


def with_value(part: Part, attribute: str, value: object) -> Part:
    """Return the part with one value changed; a joint taken into one's own hands starts from what it was."""
    changed: dict[str, Any] = {attribute: value}
    if isinstance(part, Joint) and attribute == "kind":
        return replace(part, kind=str(value), own=likely_values(part) if value == OWN else None)
    if isinstance(part, Joint) and attribute.startswith("own.") and part.own is not None:
        own: dict[str, Any] = {attribute.removeprefix("own."): value}
        return replace(part, own=replace(part.own, **own))
    return replace(part, **changed)
