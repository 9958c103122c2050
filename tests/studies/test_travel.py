"""The whole travel from one factorisation: the same as solving each place, and what follows from the map."""

from dataclasses import replace
from importlib.resources import files

import numpy as np
import pytest

from unterbau.band import LEVELS
from unterbau.catalogue.joints import BoltGroup
from unterbau.files.project_json import parse_project
from unterbau.machine.kind import Kind
from unterbau.machine.kinds.arm_mill import ArmMill
from unterbau.machine.kinds.column_mill import ColumnMill
from unterbau.machine.kinds.lathe import Lathe
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import KINDS
from unterbau.mechanics.arrays import FloatArray
from unterbau.structure.parts import Drive, Guide, Joint, Member, Place
from unterbau.studies.answers import answers
from unterbau.studies.compliance import droop, solve, tip_compliance
from unterbau.studies.reach import counts_of, grid, reach, weakest
from unterbau.studies.travel import Travel

DEMO = parse_project((files("unterbau.demo") / "carving-router.unterbau").read_text(encoding="utf-8"))
REL = 2e-7  # substructures invert matrices whose entries lie ten powers apart
ODD = np.array([[0.5, 0.5, 0.0], [0.031, 0.87, 0.42], [1.0, 0.0, 1.0], [0.613, 0.25, 0.71]])
"""Blocks at nodes of their rails, inside beams, at the ends."""


def assert_same_as_each(machine: object, places: FloatArray = ODD) -> None:
    travel = Travel(machine)  # type: ignore[arg-type]
    for level in LEVELS:
        found = travel.answers(places, level)
        for place, C, sunk in zip(places.tolist(), found.compliance, found.sinking, strict=True):
            alone = solve(machine, Place(*place), level)  # type: ignore[arg-type]
            T = tip_compliance(alone)
            assert np.abs(C - T).max() < REL * np.abs(T).max()
            assert sunk[2] == pytest.approx(droop(alone), rel=1e-6, abs=1e-13)


@pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.id)
def test_every_kind_is_the_same_as_solved_place_by_place(kind: Kind) -> None:
    assert_same_as_each(kind.model())


@pytest.mark.parametrize("at", [Place(0.3, 0.6, 0.4), Place(0.05, 0.5, 0.5)])
def test_so_is_a_lathe_whose_carriage_stays_at_the_end_of_short_work(at: Place) -> None:
    """Wherever it is put up: beyond the work's end the axis goes no further."""
    lathe = Lathe()
    alone = replace(lathe.dimensions, tailstock=0)
    short = replace(lathe, dimensions=alone, work=replace(lathe.work, stick_out=0.07))
    assert_same_as_each(short)
    places = np.array([[0.0, 0.0, 0.0], [0.2, 0.4, 0.5], [0.6, 0.0, 0.0], [1.0, 1.0, 1.0]])
    for place, C in zip(places.tolist(), Travel(short, at).answers(places).compliance, strict=True):
        T = tip_compliance(solve(short, Place(*place), "likely"))
        assert np.abs(C - T).max() < REL * np.abs(T).max()


def test_so_are_a_single_drive_and_a_turned_arm() -> None:
    assert_same_as_each(replace(MovingGantry(), y_drive=Drive("ballscrew-16", 1)))
    mill = ArmMill()
    assert_same_as_each(replace(mill, dimensions=replace(mill.dimensions, turn=10)))


def test_so_are_ribs_gussets_base_plates_free_shafts_and_built_up_beams() -> None:
    router = MovingGantry()
    sides = replace(router.side, ribs=2)
    feet = replace(router.dimensions, feet=3)
    assert_same_as_each(replace(router, side=sides, beam_joint=Joint("epoxied", gussets=1), dimensions=feet))
    bolts = Joint("bolts", bolts=BoltGroup(overhang=0.03))
    beam = Member("i3-of-upn-80", "steel-s235")
    assert_same_as_each(replace(router, beam_joint=bolts, gantry_beam=beam, y_guides=Guide("free-shaft-25")))
    assert_same_as_each(replace(ColumnMill(), column_joint=Joint("flange", 2, gussets=2)))


def test_the_map_names_its_weakest_place() -> None:
    machine = MovingGantry()
    found = reach(machine, counts=(5, 5, 2))
    place, stiffness = found.weakest(1)
    assert stiffness == pytest.approx(1 / tip_compliance(solve(machine, place, "likely"))[1, 1], rel=REL)
    assert stiffness == found.stiffness[:, 1].min()
    assert found.layer(found.droop, 0).shape == (5, 5)
    assert found.layer(found.droop, 0)[4, 0] == found.droop[[p == [0.0, 1.0, 0.0] for p in found.places.tolist()]]


@pytest.mark.parametrize("number", [0, 3])
def test_the_softest_places_are_found_without_asking_everywhere(number: int) -> None:
    """Within half a hundredth of the whole map's; of the filled tube every other place missed 5 % once."""
    machine = DEMO.candidates[number].machine
    _, give, _ = weakest(machine, ODD)
    every = Travel(machine).answers(grid(counts_of(machine))).compliance
    assert give == pytest.approx(np.diagonal(every, axis1=1, axis2=2).max(axis=0), rel=5e-3)


def test_a_bed_surfaced_by_its_own_machine_hides_the_droop_at_that_height() -> None:
    found = reach(MovingGantry(), counts=(4, 3, 3))
    left = found.layer(found.droops(surfaced=True), 0)
    assert not left.any()
    assert found.sag(surfaced=True) < found.sag()
    higher = found.layer(found.droops(), 2) - found.layer(found.droops(), 0)
    assert np.allclose(found.layer(found.droops(surfaced=True), 2), higher)


def test_an_axis_without_travel_has_one_place() -> None:
    axis = next(kind for kind in KINDS if kind.id == "wall-axis").model()
    assert counts_of(axis) == (15, 1, 3)
    assert grid((15, 1, 3))[0].tolist() == [0.0, 0.5, 0.0]


def test_targets_are_judged_at_the_weakest_place() -> None:
    found = answers(MovingGantry(), Place())
    for axis in range(3):
        at = found.worst_places[axis]
        assert found.worst[axis].likely <= found.stiffness[axis].likely * (1 + REL)
        alone = tip_compliance(solve(MovingGantry(), at, "likely"))[axis, axis]
        assert found.worst[axis].likely == pytest.approx(1 / alone, rel=REL)
