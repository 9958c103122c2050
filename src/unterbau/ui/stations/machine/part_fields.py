"""Which fields each sort of part has on the bench, as data."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Any, Literal, get_args

from unterbau.catalogue.drives import drives, motors
from unterbau.catalogue.guides import blocks
from unterbau.catalogue.joints import BOLTS, OWN, Bracket, Into, Size, joints
from unterbau.errors import InputError
from unterbau.machine.assemblies.checks import (
    BED,
    LONGEST_RUN,
    MOST_ADDED,
    MOST_PLAY,
    MOST_RIBS,
    MOST_STRIPS,
    PLATE,
    SLAB,
    thickest,
)
from unterbau.machine.changes.checks import HEAVIEST
from unterbau.machine.kind import SINGLE
from unterbau.machine.kind import Kind as MachineKind
from unterbau.materials.material import materials
from unterbau.model.joining import joint_kind, likely_values
from unterbau.model.walls import has_walls
from unterbau.sections.families import families
from unterbau.sections.find import SUGGESTED, find, nearest
from unterbau.sections.section import section
from unterbau.sections.sold import sold_in
from unterbau.sections.solved import CustomSection, SectionRef, section_name
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
    Sizes,
    Spindle,
    Stand,
)
from unterbau.structure.stand import LABELS
from unterbau.structure.stock import as_sold
from unterbau.ui.widgets.choice_box import Choices
from unterbau.units import Kind

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
    hint: str = ""
    """What a narrow caption leaves out."""


def material_choices() -> Choices:
    """Return every material."""
    return tuple((one.id, one.label) for one in materials().values() if one.kind not in ("loose", "resin"))


def fill_choices() -> Choices:
    """Return what can be poured into a hollow."""
    kinds = ("stone", "loose", "resin")
    poured = tuple((one.id, one.label) for one in materials().values() if one.kind in kinds and one.id != "granite")
    return ((None, "empty"), *poured)


def section_choices() -> Choices:
    """Return every section of the families."""
    return tuple((name, section(name).label) for family in families() for name in family)


def cast_choices() -> Choices:
    """Return what a base can be cast of."""
    return tuple(one for one in fill_choices() if one[0] and materials()[str(one[0])].kind == "stone")


BASED = (
    Field("material", "cast of", "choice", cast_choices),
    Field("thickness", "slab", "quantity", low=0.02, high=SLAB),
    Field("beyond", "beyond the feet", "quantity", low=0.03, high=0.5, hint="how far it reaches beyond them all round"),
    Field(
        "ribs", "ribs each way", "count", low=0, high=MOST_RIBS, hint="on its underside, along and across; 0 is none"
    ),
    Field("rib_height", "ribs stand", "quantity", low=0.02, high=0.5),
    Field("rib_thickness", "ribs are thick", "quantity", low=0.01, high=0.3),
)
MOUNT = Field(
    "mount", "rails on", "choice",
    lambda: (
        ("front", "the front face"), ("front-edges", "front, over the side walls"), ("top-front", "top and front"),
        ("top-bottom", "top and bottom"),
    ),
)  # fmt: skip
FILLED = (Field("loose", "and it", "choice", lambda: ((False, "bonds to the walls"), (True, "lies loose"))),)
STAYS = (
    Field("capped", "ends", "choice", lambda: ((False, "open, as cut"), (True, "closed by plates"))),
    Field("diaphragms", "inner plates", "quantity", low=0.0, high=2.0, hint="a plate inside every so far; 0 is none"),
)
BACKING = Field(
    "backing", "rail strips", "quantity", low=0.0, high=0.03, hint="thickness of a strip under each rail; 0 is none"
)
LOWER = Field("under_thickness", "that layer", "quantity", low=0.001, high=PLATE, hint="part of the whole thickness")
STRIPS = Field(
    "strips", "T-slot plates", "count", low=0, high=MOST_STRIPS,
    hint="so many extruded plates with T-slots side by side; 0 is one plain plate",
)  # fmt: skip
SEALED = Field("sealed", "timber is", "choice", lambda: ((False, "bare"), (True, "sealed all round")))
RIBS = (
    Field("rib_height", "ribs stand", "quantity", low=0.01, high=0.2),
    Field("rib_thickness", "ribs are thick", "quantity", low=0.002, high=0.05),
)
GUSSETS = (
    Field("gusset_leg", "gusset legs", "quantity", low=0.02, high=0.4),
    Field("gusset_thickness", "gussets are thick", "quantity", low=0.002, high=0.05),
)
PLAY = Field("play", "play before it holds", "quantity", low=0.0, high=MOST_PLAY)
CAP = "cap"
SEAM = (
    Field("seam", "seams", "choice", lambda: (("screws", "screws"), ("bonded", "bonded"), ("welded", "welded"))),
    Field("pitch", "screws every", "quantity", low=0.02, high=1.0),
)


def joint_choices() -> Choices:
    """Return every kind of joint, and values of one's own."""
    return (*((one.id, one.label) for one in joints().values()), (BOLTS, "bolts, computed"), (OWN, "own values"))


ENDS = Field(
    "ends", "screw ends", "choice",
    lambda: (
        ("floating", "one fixed, other floating"), ("free", "one fixed, other free"), ("held", "both only held"),
        ("fixed", "both fixed"),
    ),
)  # fmt: skip


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


def _bolt_sizes() -> Choices:
    return tuple((size, size) for size in get_args(Size))


def _brackets() -> Choices:
    return tuple((one, one) for one in get_args(Bracket))


def _surfaces() -> Choices:
    return (("ground", "ground, scraped"), ("milled", "milled"), ("extruded", "extruded, sawn"), ("painted", "painted"))


def _threads() -> Choices:
    words = (one.split("-") for one in get_args(Into)[1:])
    return (
        ("tapped", "tapped or through"),
        *(
            (f"{sort}-{size}", f"{'nut in slot' if sort == 'slot' else 'tapped in core'} {size}")
            for sort, size in words
        ),
    )


BOLT_GROUP = (
    Field("bolts.size", "bolts", "choice", _bolt_sizes),
    Field("bolts.across", "side by side", "count", low=1, high=12),
    Field("bolts.along", "one over another", "count", low=1, high=12),
    Field("bolts.thickness", "plate under heads", "quantity", low=0.001, high=0.1),
    Field("bolts.bracket", "of", "choice", _brackets),
    Field("bolts.surface", "faces", "choice", _surfaces),
    Field("bolts.into", "thread", "choice", _threads),
    Field("bolts.torque", "torque, 0 = usual", "quantity", kind="plain", unit="N·m", low=0.0, high=200.0),
    Field("bolts.edge", "in from the edge, 0 = usual", "quantity", low=0.0, high=0.3),
    Field("bolts.leg", "bracket leg, 0 = none", "quantity", low=0.0, high=0.3),
    Field("bolts.overhang", "base plate beyond, 0 = none", "quantity", low=0.0, high=0.3),
    Field("bolts.bonded", "and", "choice", lambda: ((False, "dry"), (True, "epoxied"))),
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
        Field("under", "glued under it", "choice", lambda: ((None, "nothing"), *material_choices())),
    ),
    Joint: (
        Field("kind", "joined by", "choice", joint_choices),
        Field("count", "at each end", "count", low=1, high=24),
        Field("across", "side by side, 0 = usual", "count", low=0, high=24),
        Field("edge", "in from the edge, 0 = usual", "quantity", low=0.0, high=0.3),
    ),
    Guide: (
        Field("block", "size", "choice", lambda: tuple((one.id, one.label) for one in blocks().values())),
        Field("preload", "preload", "choice", lambda: (("light", "light"), ("medium", "medium"))),
        Field("blocks", "blocks a rail", "count", low=1, high=6),
    ),
    Drive: (
        Field("kind", "drive", "choice", lambda: tuple((one.id, one.label) for one in drives().values())),
        Field("offset", "off centre", "quantity", low=-0.5, high=0.5),
        Field("free", "motor", "choice", lambda: ((False, "holds"), (True, "off, friction only"))),
    ),
    Motor: (
        Field("kind", "motor", "choice", lambda: tuple((one.id, one.label) for one in motors().values())),
        Field("torque", "holds, 0 = usual", "quantity", kind="plain", unit="N·m", low=0.0, high=100.0),
        Field(
            "on", "runs for, 0 = always", "quantity", kind="plain", unit="s", low=0.0, high=LONGEST_RUN,
            hint="how long it may run before it has to rest, by its plate; 0 where it may run without end",
        ),
    ),
    Spindle: (
        Field("mass", "mass", "quantity", kind="mass", low=0.05, high=500),
        Field("radial", "stiffness, sideways", "quantity", kind="plain", scale=1e6, unit="N/µm", low=1e4, high=1e12),
        Field("axial", "stiffness, along", "quantity", kind="plain", scale=1e6, unit="N/µm", low=1e4, high=1e12),
        Field("tilt", "against tilting", "quantity", kind="plain", scale=1e3, unit="kN·m/rad", low=10.0, high=1e9),
        Field("diameter", "body diameter", "quantity", low=0.01, high=0.5),
        Field("length", "body length", "quantity", low=0.02, high=1.5),
        Field("power", "power at the cut", "quantity", kind="plain", unit="W", low=1.0, high=1e6),
        Field("torque", "torque, 0 = by power", "quantity", kind="plain", unit="N·m", low=0.0, high=1e4),
    ),
    Stand: (
        Field("kind", "stands on", "choice", lambda: tuple(LABELS.items())),
        Field("height", "height", "quantity", low=0.05, high=1.5),
        Field("casters", "on", "choice", lambda: ((False, "levelling feet"), (True, "locked casters"))),
    ),
    Hung: (
        Field("mass", "mass", "quantity", kind="mass", low=0.001, high=HEAVIEST),
        Field("length", "along X", "quantity", low=0.002, high=2.0),
        Field("depth", "along Y", "quantity", low=0.002, high=2.0),
        Field("height", "along Z", "quantity", low=0.002, high=2.0),
    ),
    DragChain: (
        Field("width", "width", "quantity", low=0.005, high=0.3),
        Field("height", "height of a link", "quantity", low=0.005, high=0.2),
        Field("radius", "bent over", "quantity", low=0.01, high=0.5),
        Field("per_metre", "filled", "quantity", kind="plain", unit="kg/m", low=0.01, high=50.0),
    ),
    Cutter: (
        Field("diameter", "diameter", "quantity", low=0.0005, high=0.06),
        Field("stick_out", "stick-out", "quantity", low=0.002, high=0.3),
        Field("flute_length", "flutes", "quantity", low=0.0, high=0.3, hint="length of the flutes; 0 is the usual one"),
        Field("shank", "shank", "quantity", low=0.0, high=0.06, hint="diameter of the shank; 0 is the cutter's own"),
        Field("material", "material", "choice", material_choices),
    ),
}  # fmt: skip


def section_from(text: str, now: SectionRef) -> SectionRef:
    """Return a section from what was typed: a name, a label, or bare sizes.

    Raises:
        InputError: Says what was expected.
    """
    if text.strip() in (section(now).label, section_name(now)):
        return now
    cleaned = text.strip().replace("×", "x").replace(" ", "")
    for name, words in section_choices():
        if isinstance(name, str) and words.replace("×", "x").replace(" ", "") == cleaned:
            return name
    if cleaned and cleaned[0].isdigit():
        cleaned = f"{section_name(now).split('-')[0]}-{cleaned}"
    try:
        return section(cleaned).name
    except InputError:
        found = find(text)
        if len(found) == 1:
            return found[0]
        near = ", ".join(section(name).label for name in (found or nearest(text))[:SUGGESTED])
        problem = f"several fit: {near}, …" if found else f"no such section; nearest: {near}"
        raise InputError("section", problem) from None


def _added(attribute: str, caption: str) -> Field:
    return Field(attribute, caption, "count", low=0, high=MOST_ADDED)


@lru_cache(maxsize=256)
def _materials(kinds: tuple[str, ...], now: str) -> Field:
    """Return the field of a member's material: what its section is sold in, and what it has."""

    def choices() -> Choices:
        every = materials()
        return tuple(
            one for one in material_choices() if not kinds or one[0] == now or every[str(one[0])].kind in kinds
        )

    return Field("material", "material", "choice", choices)


def fields_of(kind: MachineKind, key: str, part: Part) -> tuple[Field, ...]:
    """Return the fields of a part that stands at a link of a machine of some kind."""
    if isinstance(part, Sizes):
        return size_fields(kind)
    fields = FIELDS[next(sort for sort in FIELDS if isinstance(part, sort))]
    if isinstance(part, Plate):
        ribbed = (_added("ribs", "ribs"), *(RIBS if part.ribs else ())) if key in kind.ribbed else ()
        timber = any(materials()[one].kind == "timber" for one in (part.material, part.under) if one)
        slots = key == BED and (part.strips or (materials()[part.material].kind == "aluminium" and part.under is None))
        more = (*((LOWER,) if part.under else ()), *((SEALED,) if timber else ()), *((STRIPS,) if slots else ()))
        return (replace(fields[0], high=thickest(key)), *fields[1:], *more, *ribbed)
    if isinstance(part, Member):
        fields = (fields[0], _materials(sold_in(part.section_name), part.material), *fields[2:])
        screws = SEAM if part.seam == "screws" else SEAM[:1]
        stays = STAYS if section(part.section).cavity is not None and has_walls(part) else ()
        backing = (BACKING,) if has_walls(part) and key in kind.carrying else ()
        seams = screws if section(part.section).pieces else ()
        return (*fields, *(FILLED if part.fill else ()), *stays, *backing, *seams)
    if isinstance(part, Joint) and key in SINGLE and part.kind not in (OWN, BOLTS):
        return fields[:1]
    if isinstance(part, Joint):
        more = OWN_JOINT if part.kind == OWN else ()
        own = (fields[0], *BOLT_GROUP) if part.kind == BOLTS else (*fields, *more)
        own = (*own, PLAY) if part.kind == CAP else own
        gussets = (_added("gussets", "gussets a corner"), *(GUSSETS if part.gussets else ()))
        return (*own, *(gussets if key in kind.gusseted else ()))
    if isinstance(part, Stand) and part.kind == "base":
        return (fields[0], *BASED[: 6 if part.ribs else 4], fields[2])
    if isinstance(part, Guide) and kind.faces is not None and key == kind.faces[0]:
        return (*fields, MOUNT)
    if isinstance(part, Drive):
        most = kind.most_drives.get(key, 1)
        many = (Field("count", "how many", "count", low=1, high=most),) if most > 1 else ()
        return (fields[0], *((ENDS,) if drives()[part.kind].is_screw else ()), *fields[1:], *many)
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
        own_values = likely_values(part) if value == OWN else None
        edge = (part.edge or joint_kind(part).edge) if value == OWN else 0.0
        bolts = part.group if value == BOLTS else None
        play = part.play if value == CAP else 0.0
        return replace(part, kind=str(value), own=own_values, bolts=bolts, edge=edge, play=play)
    if isinstance(part, Joint) and "." in attribute:
        inner, _, name = attribute.partition(".")
        within: dict[str, Any] = {name: value}
        return replace(part, **{inner: replace(getattr(part, inner), **within)})
    if isinstance(part, Member) and attribute == "section":
        of = value if isinstance(value, CustomSection) else str(value)
        return as_sold(replace(part, section=of))
    if isinstance(part, Plate) and attribute == "under":
        half = part.under_thickness if 0.001 <= part.under_thickness < part.thickness else part.thickness / 2
        return replace(part, under=str(value) if value else None, under_thickness=half if value else 0.0)
    if isinstance(part, Plate) and attribute == "material" and materials()[str(value)].kind != "aluminium":
        return replace(part, material=str(value), strips=0)
    return replace(part, **changed)
