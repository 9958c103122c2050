"""Payload and counterweight: what they load and what they relieve, against sums by hand."""

from dataclasses import replace
from math import pi, sqrt

import numpy as np
import pytest

from unterbau.brief.brief import Brief
from unterbau.catalogue.ropes import SAFETY, rope_for
from unterbau.files.frame_json import document_text, read_frame, to_arrays, to_document
from unterbau.files.project_json import parse_project, project_text
from unterbau.machine.kinds.arm_mill import ArmMill
from unterbau.machine.kinds.column_mill import ColumnMill
from unterbau.machine.kinds.light_table import LightTable
from unterbau.machine.kinds.wall_axis import WallAxis
from unterbau.machine.machine import KINDS, Machine, bodies_of, lay_out, listed_mass, moving_masses, to_frame
from unterbau.mechanics.statics import spring_loads, total_mass
from unterbau.progress import Silent
from unterbau.project import edits
from unterbau.project.project import Candidate, Project
from unterbau.shop.build.steps import steps_of
from unterbau.shop.lifting import loads_of
from unterbau.solids.solids import solids
from unterbau.structure.bodies import Prism
from unterbau.structure.parts import Place
from unterbau.studies.answers import answers
from unterbau.studies.compliance import solve
from unterbau.studies.loads import CASES, GRAVITY, WEIGHT, standard_loads
from unterbau.studies.purchase.check import Check
from unterbau.studies.purchase.checks import checks
from unterbau.studies.purchase.ropes import bounce

G = abs(GRAVITY[2])


def named(machine: Machine, brief: Brief, name: str) -> Check:
    return next(one for one in checks(machine, brief, "mm", Silent()) if one.name == name)


def carrying(mass: float) -> Brief:
    return Brief(process="carrying", payload=mass)


def balanced(machine: ColumnMill) -> ColumnMill:
    return replace(machine, dimensions=replace(machine.dimensions, counterweight=1))


@pytest.mark.parametrize("mass", [2.0, 80.0])
def test_the_payload_is_a_body_at_the_head(mass: float) -> None:
    empty, laden = WallAxis(), WallAxis(payload=mass)
    for axis, moved in moving_masses(empty).items():
        assert moving_masses(laden)[axis] == pytest.approx(moved + (mass if axis in "XZ" else 0.0))
    before, after = (total_mass(to_frame(one, Place()).frame)[0] for one in (empty, laden))
    assert after - before == pytest.approx(mass)
    assert listed_mass(laden) == pytest.approx(listed_mass(empty)), "it is not bought"
    less, more = answers(empty, Place()), answers(laden, Place())
    assert more.droop.likely > less.droop.likely
    assert more.modes[0].frequency.likely < less.modes[0].frequency.likely


def test_every_check_of_a_drive_counts_the_payload() -> None:
    """Weight by hand: the moved mass times g."""
    light, heavy = (named(WallAxis(payload=m), carrying(m), "Z without power") for m in (2.0, 80.0))
    z = moving_masses(WallAxis())["Z"]
    assert heavy.share / light.share == pytest.approx((z + 80.0) / (z + 2.0), rel=0.01)
    for name in ("Z motor, torque", "X motor, torque", "Z guides, life", "X guides, life"):
        assert named(WallAxis(payload=80.0), carrying(80.0), name).share > named(WallAxis(), carrying(0.0), name).share
    pulls = [named(WallAxis(payload=m), carrying(m), "wall anchors, each").asked for m in (2.0, 80.0)]
    assert pulls[0] != pulls[1]


def test_inertia_of_the_payload_is_counted_once() -> None:
    z = moving_masses(WallAxis(payload=10.0))["Z"]
    working = named(WallAxis(payload=10.0), carrying(10.0), "Z motor, torque").working
    assert working.startswith(f"({z:.1f} kg × 1.0 m/s² + weight {z * G:.0f} N + friction")


def test_a_table_tips_sooner_with_a_payload() -> None:
    empty, laden = LightTable(), LightTable(payload=15.0)
    first, second = (named(one, carrying(one.payload), "standing, a stop") for one in (empty, laden))
    assert second.asked != first.asked


def test_the_brief_sets_the_payload_of_every_candidate() -> None:
    project = Project("p", "a", (Candidate("a", WallAxis()), Candidate("b", LightTable())))
    laden = edits.set_brief(project, carrying(3.0))
    assert [one.machine.payload for one in laden.candidates] == [3.0, 3.0]
    added, name = edits.add(laden, "c", WallAxis())
    assert added.candidate(name).machine.payload == 3.0
    again = parse_project(project_text(laden).replace('"payload": 3.0', '"payload": 9.0', 1))
    assert [one.machine.payload for one in again.candidates] == [3.0, 3.0], "the brief decides"
    cutting = edits.set_brief(laden, replace(laden.brief, process="cutting"))
    assert [one.machine.payload for one in cutting.candidates] == [0.0, 0.0]


def test_a_counterweight_relieves_drive_and_motor() -> None:
    """By hand: the drive holds (head − counterweight)·g, and moves head and counterweight."""
    plain, held = ColumnMill(), balanced(ColumnMill())
    head = moving_masses(plain)["Z"]
    assert moving_masses(held)["Z"] == pytest.approx(2 * head)
    assert named(plain, Brief(), "Z without power").verdict == "fail"
    assert named(held, Brief(), "Z without power").share == pytest.approx(0.0)
    for name in ("Z motor, torque", "Z screw, buckling"):
        assert named(held, Brief(), name).share < named(plain, Brief(), name).share
    for machine, expected in ((plain, head * G), (held, 0.0)):
        statics = solve(machine, Place(), "likely").statics
        frame = statics.system.elements.frame
        rows = np.flatnonzero(frame.springs.group == frame.groups.index("z_drive"))
        force = abs(spring_loads(statics)[WEIGHT][rows, 0]).max()
        assert force == pytest.approx(expected, abs=12.0)  # the frame's axes reach into neighbours: 1 kg


def test_the_pulley_bears_twice_the_counterweight_and_the_ground_all_weight_once() -> None:
    frame = to_frame(balanced(ColumnMill()), Place()).frame
    assert frame.masses.hung.sum() == pytest.approx(0.0)
    head = moving_masses(ColumnMill())["Z"]
    assert sorted(frame.masses.hung)[0] == pytest.approx(-head)
    assert sorted(frame.masses.hung)[-1] == pytest.approx(head)
    plain = total_mass(to_frame(ColumnMill(), Place()).frame)[0]
    assert total_mass(frame)[0] == pytest.approx(plain + head)
    whole, loads = standard_loads(balanced(ColumnMill()))
    document = to_document(whole, loads, CASES, 0)
    again, _ = to_arrays(read_frame(document_text(document)))
    assert sorted(again.masses.hung)[0] == pytest.approx(-head)


def test_a_counterweight_has_a_body_that_goes_against_the_head_and_a_step_with_its_caution() -> None:
    held = balanced(ColumnMill())
    structure = lay_out(held)
    low, high = (
        next(one for one in solids(structure, Place(0.5, 0.5, z)) if one.name == "counterweight").body.corners
        for z in (0.0, 1.0)
    )
    assert (high - low)[:, 2] == pytest.approx(np.full(len(low), -held.dimensions.travel_z))
    volume = np.prod(np.ptp(low, axis=0))
    assert volume * 7200 == pytest.approx(moving_masses(ColumnMill())["Z"])
    loads = {one.words: one.mass for one in loads_of(structure)}
    assert loads["what moves along Z"] == pytest.approx(moving_masses(ColumnMill())["Z"])
    step = next(one for one in steps_of(structure, (), {}, {}, 25.0, (), {}) if one.id.startswith("counterweight"))
    assert "broken rope" in step.caution
    assert step.lifted == pytest.approx(moving_masses(ColumnMill())["Z"])


@pytest.mark.parametrize("machine", [WallAxis(payload=3.0), balanced(ColumnMill())])
def test_what_hangs_is_drawn_with_what_carries_it(machine: Machine) -> None:
    chains = to_frame(machine, Place()).chains
    for body in bodies_of(machine, Place()):
        if isinstance(body, Prism):
            assert body.chain in chains


def test_no_remedy_proposes_the_counterweight_that_is_there() -> None:
    heavy = balanced(ColumnMill(payload=0.0))
    assert "a counterweight" not in named(heavy, Brief(), "Z without power").cure
    assert "a counterweight" in named(ColumnMill(), Brief(), "Z without power").cure


def test_a_rope_by_hand() -> None:
    """⌀4 mm, 6 × 19, 1770 N/mm²: about 0.28·d²·grade = 8 kN; one mass on a spring bounces at √(k/m)/2π."""
    rope = rope_for(100.0, 2.0)
    assert rope.diameter == 0.004
    assert rope.breaking == pytest.approx(0.284 * 16e-6 * 1770e6, rel=0.01)
    assert rope.breaking >= SAFETY * 100.0 * G
    k = 60e9 * 0.42 * pi / 4 * 16e-6 / 2.0
    assert bounce(rope, 100.0) == pytest.approx(sqrt(k / 100.0) / (2 * pi))


@pytest.mark.parametrize("kind", [kind for kind in KINDS if kind.id != "lathe"], ids=lambda kind: kind.id)
def test_every_carriage_that_is_set_on_its_guide_weighs_something(kind: object) -> None:
    """An arm mill's head hangs in a group that is turned, on rails that move while its blocks stand still."""
    machine = kind.model()  # type: ignore[attr-defined]
    steps = steps_of(lay_out(machine), (), {}, {}, 25.0, (), {})
    carriages = [one for one in steps if one.id.startswith("carriage-")]
    assert carriages
    assert all(one.lifted > 0.5 for one in carriages)
    if isinstance(machine, ArmMill):
        head = next(one for one in carriages if one.id == "carriage-z_guides")
        assert head.lifted == pytest.approx(moving_masses(machine)["Z"], rel=0.05)
