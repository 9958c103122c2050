"""What every step of a structure adds to the list of parts."""

import itertools
from collections.abc import Iterator
from dataclasses import replace
from functools import lru_cache, singledispatch
from math import dist

from unterbau.catalogue.guides import block
from unterbau.catalogue.joints import BOLTS, OWN, joint, own_joint
from unterbau.materials.material import material
from unterbau.materials.slotted_plate import slotted_plate
from unterbau.structure.blocks import shelf_of
from unterbau.structure.carrier import AXES, STILL, Carrier
from unterbau.structure.drag_chain import ChainRun
from unterbau.structure.ends import sawn
from unterbau.structure.join import BasePlateJoin, Counterweight, EndJoin, Foot, GussetJoin, Join, Payload, RibJoin
from unterbau.structure.line import Line
from unterbau.structure.motion import Blocks, DriveTrain, Rail, SpindleUnit, Ware
from unterbau.structure.parts import Joint
from unterbau.structure.piece import Bar, PlatePiece, Rod
from unterbau.structure.stand import BOLT, KEY, stand_lines
from unterbau.structure.structure import Single, Step, Structure
from unterbau.structure.train import TrainPart, train_parts
from unterbau.structure.wares import member_lines, plate_names
from unterbau.structure.weights import (
    backing_mass,
    cutter_mass,
    inner_plates,
    joint_mass,
    member_size,
    rod_mass,
    screw_mass,
)

KEPT = 8
Found = Iterator[Line]
IN_THE_SET = "stepper"
"""Kind of motor that the price of a drive has in it."""


def lines_of(structure: Structure) -> tuple[Line, ...]:
    """Return the list of parts; equal lines add up."""
    return _added(line for line, _ in _all(structure))


def moving_masses(structure: Structure) -> dict[str, float]:
    """Return what each axis moves, kg, by axis X, Y, Z."""
    found = dict.fromkeys(AXES, 0.0)
    for line, carrier in _all(structure):
        for axis in carrier.axes:
            found[axis] += line.mass
    for load in payloads(structure):
        for axis in load.carrier.axes:
            found[axis] += load.mass
    return found


def payloads(structure: Structure) -> tuple[Payload, ...]:
    """Return what the head carries."""
    return tuple(step for step in structure.flat if isinstance(step, Payload))


def counterweight_of(structure: Structure, key: str) -> Counterweight | None:
    """Return the counterweight that relieves a drive, if there is one."""
    return next((step for step in structure.flat if isinstance(step, Counterweight) and step.key == key), None)


def carried_by_feet(structure: Structure) -> float:
    """Return the mass of all that stands on the feet, kg."""
    carried_loads = sum(load.mass for load in payloads(structure))
    return sum(line.mass for line, _ in _by_steps(structure)) + carried_loads


def keys_of(structure: Structure) -> frozenset[str]:
    """Return the links that a structure has pieces or joints of."""
    found = {key for step in structure.flat if (key := getattr(step, "key", None)) is not None}
    found |= {step.motor_key for step in structure.flat if isinstance(step, DriveTrain)}
    if any(isinstance(step, SpindleUnit) for step in structure.flat):
        found |= {"spindle", "spindle_mount", "cutter", "collet"}
    return frozenset(found)


def plate_widths(structure: Structure) -> dict[str, float]:
    """Return the width of each plate, m, by its link."""
    return {one.key: one.width for one in structure.flat if isinstance(one, PlatePiece)}


def step_mass(structure: Structure, step: Step) -> float:
    """Return what a step weighs, kg."""
    return sum(line.mass for line in _lines(step, structure))


def _added(lines: Iterator[Line]) -> tuple[Line, ...]:
    found: dict[tuple[str, str, float, float], Line] = {}
    for line in lines:
        key = (line.part, line.text, round(line.length, 6), round(line.width, 6))
        known = found.get(key)
        found[key] = line if known is None else replace(
            known, count=known.count + line.count, mass=known.mass + line.mass
        )  # fmt: skip
    return tuple(found.values())


def _all(structure: Structure) -> Iterator[tuple[Line, Carrier]]:
    yield from _by_steps(structure)
    if structure.feet and structure.stand is not None:
        for line in stand_lines(structure.stand, [place for _, place in structure.feet]):
            yield line, STILL


@lru_cache(maxsize=KEPT)
def _by_steps(structure: Structure) -> tuple[tuple[Line, Carrier], ...]:
    return tuple(itertools.chain.from_iterable(carried(structure, step) for step in structure.flat))


def carried(structure: Structure, step: Single) -> Iterator[tuple[Line, Carrier]]:
    """Yield a step's lines with what carries each."""
    if isinstance(step, DriveTrain):
        for part in train_parts(step, structure):
            yield _train_line(step, part), part.carrier
        return
    for line in _lines(step, structure):
        yield line, step.carrier


@singledispatch
def _lines(_step: object, _structure: Structure) -> Found:
    yield from ()


@_lines.register
def _bar(one: Bar, structure: Structure) -> Found:
    yield from member_lines(one.key, one.part, 1, sawn(structure)[one.name].length)
    plates = inner_plates(one.part, one.length)
    if plates.count:
        base = material(one.part.material)
        height, width = member_size(one.part)
        text = f"plate {plates.thickness * 1e3:g} mm inside {width * 1e3:g}×{height * 1e3:g}, {base.label}"
        yield Line(one.key, text, plates.count, 0.0, plates.mass, plate_names(base.id))


@_lines.register
def _plate(one: PlatePiece, _structure: Structure) -> Found:
    long, wide = one.size
    if one.strips:
        mass = slotted_plate(one.material).material.rho * one.height * long * wide
        text = f"plate with T-slots {one.height * 1e3:g} mm, {material(one.material).label}"
        yield Line(one.key, text, one.strips, wide, mass, plate_names(one.material), long / one.strips)
        return
    if one.cast:
        base, (long, wide) = material(one.material), one.size
        names = (f"fill:{base.id}", f"fill:{base.kind}")
        yield Line(one.key, one.text, 1, long, base.rho * one.height * long * wide, names, wide)
        return
    for made_of, thickness in one.layers:
        base = material(made_of)
        mass = base.rho * thickness * long * wide * (0.5 if one.halved else 1.0)
        text = one.text if one.lower is None else f"plate {thickness * 1e3:g} mm, {base.label}"
        yield Line(one.key, text, 1, long, mass, plate_names(made_of), wide)


@_lines.register
def _rod(one: Rod, _structure: Structure) -> Found:
    mass = rod_mass(one.diameter, one.material, one.length)
    yield Line(one.key, f"{one.name} ⌀{one.diameter * 1e3:g}", 1, one.length, mass, one.names)


def _joint(key: str, chosen: Joint) -> Line:
    if chosen.kind == BOLTS:
        group = chosen.group
        count = group.across * group.along
        return Line(key, f"bolt {group.size}", count, 0.0, joint_mass(chosen), (f"joint:{group.size}", "joint:bolt"))
    label = own_joint(chosen.own).label if chosen.kind == OWN and chosen.own else joint(chosen.kind).label
    return Line(key, label, chosen.count, 0.0, joint_mass(chosen), (f"joint:{chosen.kind}",))


@_lines.register
def _join(one: Join | EndJoin, _structure: Structure) -> Found:
    yield _joint(one.key, one.joint)


@_lines.register
def _base_plate(one: BasePlateJoin, structure: Structure) -> Found:
    yield from _plate(one.plate, structure)
    size = one.joint.group.size
    yield Line(
        one.key, f"bolt {size}", len(one.bolts), 0.0, len(one.bolts) * screw_mass(size), (f"joint:{size}", "joint:bolt")
    )


@_lines.register
def _foot(one: Foot, _structure: Structure) -> Found:
    if one.base:
        yield Line(KEY, f"bolt {BOLT} into an insert", 1, 0.0, screw_mass(BOLT), (f"joint:{BOLT}", "joint:bolt"))


@_lines.register
def _rib(one: RibJoin, structure: Structure) -> Found:
    yield from _plate(one.rib, structure)


@_lines.register
def _gusset(one: GussetJoin, structure: Structure) -> Found:
    yield from _plate(one.plate, structure)


@_lines.register
def _rail(one: Rail, structure: Structure) -> Found:
    size, length = block(one.guide.block), dist(one.start, one.end)
    host = structure.pieces[one.host]
    if isinstance(host, Bar) and one.backed:
        base = material(host.part.material)
        text = f"strip {host.part.backing * 1e3:g} mm under a rail, {base.label}"
        mass = backing_mass(host.part, one.guide.block, length)
        yield Line(host.key, text, 1, length, mass, plate_names(base.id))
    yield Line(one.key, f"rail {size.label}", 1, length, size.rail_mass * length, (f"rail:{one.guide.block}",))


@_lines.register
def _blocks(one: Blocks, structure: Structure) -> Found:
    size = block(one.guide.block)
    for _, seat in one.seats:
        shelf = shelf_of(structure, one, seat)
        if shelf is not None:
            yield shelf.line
        yield Line(one.key, f"block {size.label}", 1, 0.0, size.block_mass, (f"block:{one.guide.block}",))


@_lines.register
def _drive(one: DriveTrain, structure: Structure) -> Found:
    for part in train_parts(one, structure):
        yield _train_line(one, part)


def _train_line(one: DriveTrain, part: TrainPart) -> Line:
    """Return a drive's part; the price of the whole set stands with its screw, belt or rack."""
    if part.sort == "screw":
        return Line(one.key, f"{part.text} with motor", 1, one.length, part.mass, (f"drive:{one.drive.kind}",))
    names = (f"motor:{one.motor.kind}",) if part.sort == "motor" and one.motor.kind != IN_THE_SET else ()
    return Line(part.key, part.text, 1, 0.0, part.mass, names)


@_lines.register
def _spindle(one: SpindleUnit, _structure: Structure) -> Found:
    yield _joint("spindle_mount", one.mount)
    yield _joint("collet", one.collet)
    cutter = one.cutter
    yield Line("spindle", "spindle", 1, 0.0, one.spindle.mass, ("spindle",))
    text = f"cutter ⌀{cutter.diameter * 1e3:g}"
    yield Line("cutter", text, 1, cutter.stick_out, cutter_mass(cutter), ("cutter",))


@_lines.register
def _chain(one: ChainRun, _structure: Structure) -> Found:
    wide, tall = one.part.width * 1e3, one.part.height * 1e3
    yield Line(one.key, f"drag chain {wide:g}×{tall:g}, filled", 1, one.length, one.mass, ("drag-chain",))


@_lines.register
def _counterweight(one: Counterweight, _structure: Structure) -> Found:
    text = f"counterweight with pulleys and wire rope ⌀{one.rope.diameter * 1e3:g} mm"
    yield Line(one.key, text, 1, 0.0, one.mass, ("counterweight", "bar:iron"))


@_lines.register
def _ware(one: Ware, _structure: Structure) -> Found:
    yield Line(one.key, one.text, 1, 0.0, one.mass, one.names)
