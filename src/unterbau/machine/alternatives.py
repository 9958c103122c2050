"""What one could put in a part's place: real sizes, materials, joints, stances."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Any

from unterbau.catalogue.drives import drive, drives, motors
from unterbau.catalogue.guides import block, blocks
from unterbau.catalogue.joints import BOLTS, joints
from unterbau.machine.assemblies.checks import BED
from unterbau.machine.changes.change import Change
from unterbau.machine.changes.proposals import proposals
from unterbau.machine.kind import SINGLE, USUAL_COUNT
from unterbau.machine.machine import Machine, ends, fitting, kind_of, lay_out, link, not_standing, part, with_part
from unterbau.machine.stepping import step
from unterbau.materials.material import material
from unterbau.model.walls import has_walls
from unterbau.sections.built_up import OF, SHIPPED
from unterbau.sections.families import families
from unterbau.sections.section import section
from unterbau.sections.solved import CustomSection
from unterbau.structure.parts import (
    Cutter,
    DragChain,
    Drive,
    Guide,
    Hung,
    Joint,
    Member,
    Motor,
    Mount,
    Part,
    Plate,
    Sizes,
    Spindle,
    Stand,
)
from unterbau.structure.stand import LABELS
from unterbau.structure.weights import member_size

FILL = "epoxy-granite-10"
TALLEST, LOWEST = 1.7, 0.6
"""A section of another family is offered within these multiples of the present height."""
STAYED, STRIP = 0.2, 0.008
"""Between plates inside a hollow member, and thickness of a strip under its rails, that are offered first, m."""
MOUNTS: tuple[tuple[Mount, str], ...] = (
    ("front", "rails on the front"), ("front-edges", "rails over the side walls"),
    ("top-front", "rails on top and front"), ("top-bottom", "rails on top and bottom"),
)  # fmt: skip
SEAMS = {"screws": "screwed", "bonded": "bonded", "welded": "welded"}
METALS = ("steel-s235", "aluminium-6060", "aluminium-5083")
PLATE_METALS = ("steel-s235", "aluminium-5083", "iron-gjl-250")
SOLD_AS = {
    "tslot": "aluminium-6060", "cprofile": "aluminium-6060", "shs": "steel-s235", "rhs": "steel-s235",
    "chs": "steel-s235", "angle": "steel-s235", "upn": "steel-s235", "ipe": "steel-s235",
}  # fmt: skip
"""What a family is made of in a shop; others come in several metals."""


@dataclass(frozen=True, slots=True)
class Alternative:
    """One change to a machine."""

    text: str
    """In workshop words."""
    changes: tuple[tuple[str, Part], ...]
    """Links and what would stand there."""
    added: Change | None = None
    """What is added to the machine."""

    def applied(self, machine: Machine) -> Machine:
        """Return the machine with the change."""
        for key, changed in self.changes:
            machine = with_part(machine, key, changed)
        return machine if self.added is None else replace(machine, changes=(*machine.changes, self.added))


def alternatives(machine: Machine, key: str) -> tuple[Alternative, ...]:
    """Return what could stand in a link's place; not all of it can be built.

    Args:
        machine: The machine.
        key: A link of its load path, or its sizes.
    """
    now = part(machine, key)
    own = (Alternative(text, ((key, changed),)) for text, changed in _of_part(machine, key, now))
    found = [
        *own,
        *_joints_at_its_ends(machine, key),
        *_rails_elsewhere(machine, key),
        *_sizes(machine, key),
        *_added(machine, key),
    ]
    seen = {machine}
    result = []
    for one in found:
        after = one.applied(machine)
        if after not in seen:
            seen.add(after)
            result.append(one)
    return tuple(result)


def every_section(now: Member) -> tuple[Member, ...]:
    """Return every section of one profile of about a member's height, in what it is sold in, as a member like it."""
    height, _ = member_size(now)
    found = []
    for family in families():
        sort = family[0].split("-")[0]
        if OF in family[0]:
            continue
        made_of = SOLD_AS.get(sort) or (now.material if material(now.material).kind != "timber" else "steel-s235")
        near = (name for name in family if LOWEST * height <= section(name).height <= TALLEST * height)
        found += [Member(name, made_of, turned=now.turned) for name in near]
    return tuple(found)


def _of_part(machine: Machine, key: str, now: Part) -> Iterator[tuple[str, Part]]:
    match now:
        case Member():
            yield from _members(now)
            yield from _backed(machine, key, now)
        case Plate():
            yield from _plates(machine, key, now)
        case Joint():
            yield from _joints(machine, key, now)
        case Guide():
            yield from _guides(now)
        case _:
            yield from _of_bought(machine, key, now)


def _of_bought(machine: Machine, key: str, now: Part) -> Iterator[tuple[str, Part]]:
    match now:
        case Drive():
            yield from _drives(machine, key, now)
        case Motor():
            yield from _motors(now)
        case Spindle():
            yield from _spindles(now)
        case Cutter():
            yield from _cutters(now)
        case Stand():
            yield from _stands(now)
        case Hung():
            yield from HUNG
        case DragChain():
            yield from CHAINS
        case _:
            return


HUNG: tuple[tuple[str, Hung], ...] = (
    ("motor of 57 mm", Hung(1.1, 0.057, 0.057, 0.076)),
    ("vice with jaws of 100 mm", Hung(9.0, 0.13, 0.33, 0.09)),
    ("dust hood with its hose", Hung(1.2, 0.12, 0.12, 0.1)),
    ("box with the electrics", Hung(6.0, 0.3, 0.2, 0.4)),
)
"""What people hang on machines; sizes and masses from memory, to be weighed."""

CHAINS: tuple[tuple[str, DragChain], ...] = (
    ("15 × 15, two cables", DragChain(0.015, 0.015, 0.028, 0.35)),
    ("30 × 23, cables of motors", DragChain()),
    ("45 × 35, with a hose", DragChain(0.045, 0.035, 0.063, 1.9)),
    ("65 × 40, spindle, coolant, air", DragChain(0.065, 0.04, 0.075, 3.0)),
)
"""Drag chains with what usually lies in them; sizes and masses from memory."""


def _steps(now: Part, up: int, down: int) -> Iterator[Part]:
    for count, direction in ((up, True), (down, False)):
        one: Part | None = now
        for _ in range(count):
            one = step(one, direction) if one is not None else None
            if one is not None:
                yield one


def _members(now: Member) -> Iterator[tuple[str, Part]]:
    for size in _steps(now, 3, 1):
        if isinstance(size, Member):
            yield section(size.section).label, size
    yield from _other_families(now)
    yield from _other_makes(now)
    yield from _built_up(now)


def _backed(machine: Machine, key: str, now: Member) -> Iterator[tuple[str, Part]]:
    if key in kind_of(machine).carrying and has_walls(now) and not now.backing:
        yield f"strips {STRIP * 1e3:g} mm under the rails", replace(now, backing=STRIP)


def _built_up(now: Member) -> Iterator[tuple[str, Part]]:
    """Yield several of the same profile tied together, and other ways to tie them."""
    profile = now.section_name.split(OF)[-1]
    for name in SHIPPED:
        if name.endswith(f"{OF}{profile}") and name != now.section_name:
            yield section(name).label, replace(now, section=name, fill=None)
    if OF in now.section_name:
        own = None if isinstance(now.section, str) else now.section.profile
        yield "one alone", replace(now, section=profile if own is None else CustomSection(own))
        seams = ["screws", "bonded"] + (["welded"] if material(now.material).kind == "steel" else [])
        for seam in seams:
            if seam != now.seam:
                yield f"its seams {SEAMS[seam]}", with_seam(now, seam)
        if now.seam == "screws":
            yield "twice as many screws", replace(now, pitch=now.pitch / 2)


def with_seam(now: Member, seam: str) -> Member:
    """Return a member tied another way."""
    changed: dict[str, Any] = {"seam": seam}
    return replace(now, **changed)


def _other_families(now: Member) -> Iterator[tuple[str, Part]]:
    """Yield from each other family the section of like height that weighs most nearly the same."""
    height, _ = member_size(now)
    weight = section(now.section).properties.A * material(now.material).rho
    own = now.section_name.split("-")[0]
    for family in families():
        sort = family[0].split("-")[0]
        if OF in family[0] or (sort == own and now.section_name in family):
            continue
        near = [n for n in family if LOWEST * height <= section(n).height <= TALLEST * height]
        if not near:
            continue
        made_of = SOLD_AS.get(sort) or (now.material if material(now.material).kind != "timber" else "steel-s235")
        rho = material(made_of).rho
        best = min(near, key=lambda n: abs(section(n).properties.A * rho - weight))
        yield f"{section(best).label}, {material(made_of).kind}", Member(best, made_of)


def _other_makes(now: Member) -> Iterator[tuple[str, Part]]:
    """Yield the same section in other metals, filled, turned."""
    if now.section_name.split("-")[0] not in ("tslot", "cprofile", "upn", "ipe"):
        for metal in METALS:
            yield f"the same in {material(metal).label}", replace(now, material=metal)
    if section(now.section).cavity is not None and now.fill is None:
        yield f"fill, {material(FILL).label}", replace(now, fill=FILL)
    if now.fill is not None:
        yield "without the fill", replace(now, fill=None)
    if section(now.section).cavity is not None and has_walls(now):
        if not now.capped:
            yield "end plates", replace(now, capped=True)
        pitch = now.diaphragms / 2 if now.diaphragms else STAYED
        yield f"plates inside every {pitch * 1e3:g} mm", replace(now, diaphragms=pitch)
    shape = section(now.section)
    if shape.height != shape.width:
        yield ("stood upright" if now.turned else "laid flat"), replace(now, turned=not now.turned)


def _plates(machine: Machine, key: str, now: Plate) -> Iterator[tuple[str, Part]]:
    if key in kind_of(machine).ribbed and now.ribs == 0:
        tall = round(2 * now.thickness, 3)
        text = f"two ribs {tall * 1e3:g} mm tall, {now.thickness * 500:g} mm thick"
        yield text, replace(now, ribs=2, rib_height=tall, rib_thickness=now.thickness / 2)
    for size in _steps(now, 3, 1):
        if isinstance(size, Plate):
            yield f"{size.thickness * 1e3:g} mm thick", size
    if key == BED and now.under is None and not now.strips:
        metal = now.material if material(now.material).kind == "aluminium" else "aluminium-6060"
        yield "four plates with T-slots side by side", replace(now, material=metal, strips=4, sealed=False)
    elif now.strips:
        yield "one plain plate", replace(now, strips=0)
    for metal in PLATE_METALS:
        yield f"the same in {material(metal).label}", replace(now, material=metal)


def _joints(machine: Machine, key: str, now: Joint) -> Iterator[tuple[str, Part]]:
    kinds = joints()
    welded = all(_is_steel(machine, name) for name, end in ends(machine).items() if end == key)
    for name in fitting(machine, key):
        if name == "weld" and not welded:
            continue
        usual = 1 if key in SINGLE else USUAL_COUNT.get(name, 1)
        count = now.count if name == now.kind else usual
        yield f"{count} × {kinds[name].label}" if count > 1 else kinds[name].label, Joint(name, count)
    if now.kind in kinds and not (kinds[now.kind].bond or kinds[now.kind].rigid) and key not in SINGLE:
        for count in (now.count + 1, 2 * now.count):
            yield f"{count} × {kinds[now.kind].label}", replace(now, count=count)
    if now.kind == BOLTS and not now.group.overhang:
        yield f"{now.group.along + 1} rows of screws", replace(now, bolts=replace(now.group, along=now.group.along + 1))
        if not now.group.bonded:
            yield "epoxied besides its screws", replace(now, bolts=replace(now.group, bonded=True))
    if key in kind_of(machine).gusseted and now.gussets == 0:
        yield "two gussets in each corner", replace(now, gussets=2)


def _is_steel(machine: Machine, key: str) -> bool:
    held = part(machine, key)
    return not isinstance(held, Member | Plate) or material(held.material).kind == "steel"


def _guides(now: Guide) -> Iterator[tuple[str, Part]]:
    for size in _steps(now, 2, 1):
        if isinstance(size, Guide):
            yield block(size.block).label, size
            if now.preload == "light":
                yield f"{block(size.block).label}, medium preload", replace(size, preload="medium")
    if now.preload == "light":
        yield f"{block(now.block).label}, medium preload", replace(now, preload="medium")
    for name in ("15", "20"):
        if name in blocks():
            yield f"{block(name).label}, {now.preload} preload", replace(now, block=name)


def _drives(machine: Machine, key: str, now: Drive) -> Iterator[tuple[str, Part]]:
    for name, one in drives().items():
        if one.tension is not None and not lay_out(machine).corners:
            continue  # crossed belts run round a frame
        yield drive(name).label, replace(now, kind=name)
    if drive(now.kind).is_screw:
        for ends in ("floating", "fixed"):
            held: dict[str, Any] = {"ends": ends}
            yield (
                f"{drive(now.kind).label}, {'both ends fixed' if ends == 'fixed' else 'one end floating'}",
                replace(now, **held),
            )
    for count in range(1, kind_of(machine).most_drives.get(key, 1) + 1):
        yield f"{count} × {drive(now.kind).label}", replace(now, count=count)


def _motors(now: Motor) -> Iterator[tuple[str, Part]]:
    for one in motors().values():
        changed: dict[str, Any] = {"kind": one.id}
        yield one.label, replace(now, **changed)


def _spindles(now: Spindle) -> Iterator[tuple[str, Part]]:
    for factor, words in ((1.5, "1.5 times as stiff"), (2.0, "twice as stiff")):
        stiffer: dict[str, Any] = {name: getattr(now, name) * factor for name in ("radial", "axial", "tilt")}
        yield f"bearings {words}", replace(now, **stiffer)


def _stands(now: Stand) -> Iterator[tuple[str, Part]]:
    for kind, words in LABELS.items():
        yield words, replace(now, kind=kind)
    yield "levelling feet instead of casters", replace(now, casters=False)


def _cutters(now: Cutter) -> Iterator[tuple[str, Part]]:
    for size in _steps(now, 2, 1):
        if isinstance(size, Cutter):
            yield f"⌀{size.diameter * 1e3:g} mm", size
    for factor in (0.8, 0.6):
        stick_out = round(now.stick_out * factor, 4)
        yield f"{stick_out * 1e3:g} mm out of the chuck", replace(now, stick_out=stick_out)
    for name in ("carbide", "steel-s235"):
        yield f"the same in {material(name).label}", replace(now, material=name)


def _joints_at_its_ends(machine: Machine, key: str) -> Iterator[Alternative]:
    end = ends(machine).get(key)
    held = part(machine, end) if end else None
    if end and isinstance(held, Joint):
        for text, changed in _joints(machine, end, held):
            yield Alternative(f"{link(machine, end).label}: {text}", ((end, changed),))


def _rails_elsewhere(machine: Machine, key: str) -> Iterator[Alternative]:
    """Yield the other faces of a gantry beam that its rails could lie on."""
    faces = kind_of(machine).faces
    guide = part(machine, faces[0]) if faces is not None and key in faces else None
    if faces is None or not isinstance(guide, Guide):
        return
    for mount, words in MOUNTS:
        yield Alternative(words, ((faces[0], replace(guide, mount=mount)),))


def _sizes(machine: Machine, key: str) -> Iterator[Alternative]:
    sizes, kind = machine.dimensions, kind_of(machine)
    for one in kind.related.get(key, ()):
        value = round(getattr(sizes, one.attribute) * one.factor, 3)
        yield _sized(sizes, one.words, one.attribute, value)
    if kind.more is not None and key in kind.more.keys:
        now = getattr(sizes, kind.more.attribute)
        for more, words in ((1, "one more"), (2, "two more")):
            text = f"{words} {kind.more.words}{'s' if more > 1 else ''}"
            yield _sized(sizes, text, kind.more.attribute, now + more)


def _added(machine: Machine, key: str) -> Iterator[Alternative]:
    """Yield what could be added to a part's pieces, and stands."""
    for one in proposals(lay_out(machine), machine.changes, key):
        found = Alternative(one.text, (), one.change)
        if one.change.id not in not_standing(found.applied(machine)):
            yield found


def _sized(sizes: Sizes, words: str, attribute: str, value: float) -> Alternative:
    changed: dict[str, Any] = {attribute: value}
    return Alternative(words, (("dimensions", replace(sizes, **changed)),))
