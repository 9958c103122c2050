"""Pieces by themselves: saw lengths, masses, screws, and what the structure says of them."""

from dataclasses import fields, replace

import pytest

from unterbau.catalogue.drives import drive
from unterbau.machine.kind import Kind
from unterbau.machine.kinds.arm_mill import ArmMill
from unterbau.machine.kinds.braced_mill import BracedMill
from unterbau.machine.kinds.column_mill import ColumnMill
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import KINDS, Machine, lay_out, part
from unterbau.materials.material import material
from unterbau.sections.section import section
from unterbau.structure.ends import is_square, sawn
from unterbau.structure.lines import step_mass
from unterbau.structure.motion import Blocks, DriveTrain, Rail
from unterbau.structure.parts import Drive, Guide, Joint, Motor, Place
from unterbau.structure.piece import Bar, PlatePiece
from unterbau.structure.structure import Structure
from unterbau.structure.vectors import Vector, dot, minus, plus

each_kind = pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.id)
PLACES = [Place(x, y, z) for x in (0.0, 1.0) for y in (0.0, 1.0) for z in (0.0, 1.0)]


def test_bars_are_sawn_at_their_neighbours_faces() -> None:
    """By hand: 117.5 mm of axis less half a plate of 30 and half one of 25; half a tube of 80√2 aside, and so on."""
    arm = sawn(lay_out(ColumnMill()))["head arm"]
    assert [arm.bar.length, arm.length] == pytest.approx([0.1175, 0.09])
    assert (arm.first.against, arm.last.against) == ("head plate", "mount plate")
    arm = sawn(lay_out(ArmMill()))["arm"]
    assert arm.length == pytest.approx(0.0895, abs=1e-4)
    assert is_square(arm.bar, arm.first)


def test_braces_are_mitred() -> None:
    bars = sawn(lay_out(BracedMill()))
    brace, post = bars["cross 1"], bars["left post"]
    assert not is_square(brace.bar, brace.first)
    lean = abs(dot(brace.bar.along, brace.first.normal))
    assert brace.first.trim == pytest.approx(post.bar.width / 2 / lean)
    assert brace.hidden > 0.0


@each_kind
def test_pieces_that_are_made_weigh_their_volume(kind: Kind) -> None:
    """Section's metal times saw length, thickness times outline; bought pieces weigh what is stated."""
    structure = lay_out(kind.model())
    for step in structure.flat:
        if isinstance(step, Bar):
            p = section(step.part.section)
            own = material(step.part.material).rho * p.properties.A * sawn(structure)[step.name].length
            inner = material(step.part.fill).rho * p.cavity.A if step.part.fill and p.cavity else 0.0
            expected = own + inner * sawn(structure)[step.name].length
            assert step_mass(structure, step) == pytest.approx(expected, rel=1e-9), step.name
        elif isinstance(step, PlatePiece):
            long, wide = step.size
            assert step_mass(structure, step) == pytest.approx(material(step.material).rho * step.height * long * wide)


def told_apart(machine: Machine) -> Machine:
    """Return a machine whose joints and motors all differ."""
    changed: dict[str, Joint | Motor] = {}
    for n, field in enumerate(fields(machine), 1):
        value = getattr(machine, field.name)
        if isinstance(value, Joint):
            changed[field.name] = replace(value, edge=1e-4 * n)
        elif isinstance(value, Motor):
            changed[field.name] = replace(value, torque=0.1 * n)
    return replace(machine, **changed)  # type: ignore[arg-type]


@each_kind
def test_every_step_takes_its_part_from_the_link_it_names(kind: Kind) -> None:
    machine = told_apart(kind.model())
    for step in lay_out(machine).flat:
        for field in fields(step):
            value = getattr(step, field.name)
            key = step.motor_key if field.name == "motor" and isinstance(step, DriveTrain) else getattr(step, "key", "")
            if field.name in ("mount", "collet"):
                key = {"mount": "spindle_mount"}.get(field.name, field.name)
            if key == "side_foot" and isinstance(value, Joint) and value.bolts is not None:
                value = replace(value, bolts=replace(value.bolts, along=2))  # each of its steps is one row of two
            if isinstance(value, Joint | Guide | Drive | Motor):
                assert value == part(machine, key), (key, field.name)


def places_of(structure: Structure, train: DriveTrain) -> list[float]:
    """Return how far the nut is from its bearing at the corners of the travel, m."""
    found = []
    for place in PLACES:
        way = structure.way(place)
        nut, bearing = (
            structure.pieces[spot.piece].carrier.moved(spot.place, way) for spot in (train.nut, train.bearing)
        )
        found.append(dot(minus(nut, bearing), train.along))
    return found


@each_kind
def test_a_screw_reaches_the_nut_wherever_the_head_stands(kind: Kind) -> None:
    """Length of screw or belt ≥ travel + nut + ends, the nut never passes its bearing."""
    structure = lay_out(kind.model())
    trains = [step for step in structure.flat if isinstance(step, DriveTrain)]
    assert trains
    for train in trains:
        kinds, away = drive(train.drive.kind), places_of(structure, train)
        travel = max(away) - min(away)
        assert train.length >= travel + kinds.nut_length + sum(kinds.ends) - 0.002, train.key
        assert train.length >= max(abs(one) for one in away) + kinds.nut_length / 2 + sum(kinds.ends) - 1e-9, train.key
        assert min(away) * max(away) > 0.0, train.key
        assert min(abs(one) for one in away) >= kinds.nut_length / 2, train.key


def on_rail(rail: Rail, way: Vector, at: Vector, along: Vector) -> bool:
    """Return whether a place lies on the seat of a rail."""
    ends = [minus(rail.carrier.moved(end, way), at) for end in (rail.start, rail.end)]
    low, high = sorted(dot(end, along) for end in ends)
    off = plus(ends[0], along, -dot(ends[0], along))
    return max(map(abs, off)) < 1e-6 and low <= 0.0 <= high


@each_kind
def test_blocks_stay_on_their_rails(kind: Kind) -> None:
    structure = lay_out(kind.model())
    rails = [step for step in structure.flat if isinstance(step, Rail)]
    for blocks in (step for step in structure.flat if isinstance(step, Blocks)):
        for way in map(structure.way, PLACES):
            for host, seat in blocks.seats:
                at = blocks.carrier.moved(seat, way)
                mine = (one for one in rails if (one.key, one.host) == (blocks.key, host))
                assert any(on_rail(rail, way, at, blocks.along) for rail in mine), (blocks.key, seat)


def test_a_structure_is_laid_once_and_knows_its_pieces() -> None:
    router: Machine = MovingGantry()
    structure = lay_out(router)
    assert lay_out(replace(router)) is structure
    names = [piece.name for piece in structure.pieces.values()]
    assert len(set(names)) == len(names)
    assert {"gantry beam", "left side", "bed", "X plate", "Z plate"} <= set(names)
