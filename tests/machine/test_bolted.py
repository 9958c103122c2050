"""Joints computed from their bolts, in machines, on the bench and in files."""

from dataclasses import replace

import pytest

from unterbau.band import LEVELS
from unterbau.catalogue.joints import BoltGroup, Face
from unterbau.errors import InputError
from unterbau.files.project_json import parse_project, project_text
from unterbau.machine.facts import facts
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import Machine, bill_of
from unterbau.model.bolted import bolted_springs, each, limits, places
from unterbau.model.joining import joint_springs
from unterbau.project.project import Candidate, Project
from unterbau.structure.parts import Joint, Place
from unterbau.studies.answers import likely_answers

FACE = Face(0.12, 0.08)


def stiffness(bolts: BoltGroup) -> float:
    machine: Machine = replace(MovingGantry(), beam_joint=Joint("bolts", bolts=bolts))
    return float(1 / likely_answers(machine, Place())[0].compliance[1, 1])


def test_more_bolts_further_apart_thicker_and_cleaner_are_stiffer() -> None:
    plain = BoltGroup(surface="extruded")
    base = bolted_springs(plain, "likely", FACE)
    for better in (
        replace(plain, along=3), replace(plain, surface="milled"),
        replace(plain, bonded=True),
    ):  # fmt: skip
        assert all(a >= b for a, b in zip(bolted_springs(better, "likely", FACE), base, strict=True))
    assert bolted_springs(replace(plain, size="M10"), "likely", FACE)[0] > base[0]
    assert bolted_springs(replace(plain, thickness=0.02), "likely", FACE)[1] > base[1]
    for worse in (replace(plain, into="slot-40"), replace(plain, leg=0.03), replace(plain, torque=5.0)):
        assert bolted_springs(worse, "likely", FACE)[0] < base[0]
    wider = bolted_springs(plain, "likely", Face(0.12, 0.2))
    assert wider[5] > 3 * base[5]
    low, likely, high = (bolted_springs(plain, level, FACE)[0] for level in LEVELS)
    assert low < likely < high


def test_a_printed_corner_is_softer_and_less_certain() -> None:
    """Printed bracket: 2/10/30 N/µm against 10/35/100 for a ribbed one of aluminium; common practice, no source."""
    cast = BoltGroup("M5", 1, 1, 0.008, "extruded", "slot-20", leg=0.012)
    printed = replace(cast, bracket="printed")
    soft, stiff = each(printed)[0], each(cast)[0]
    assert 1e6 < soft.low < soft.likely < soft.high < 30e6
    assert soft.likely < stiff.likely / 3
    assert soft.high / soft.low > stiff.high / stiff.low
    assert each(replace(cast, bracket="steel"))[0].likely > stiff.likely


def test_bolts_stand_inside_their_face() -> None:
    found = places(BoltGroup(across=3, along=2), FACE)
    assert len(found) == 6
    assert max(abs(y) for y, _ in found) == pytest.approx(0.04 - 0.012)
    assert max(abs(z) for _, z in found) == pytest.approx(0.06 - 0.012)
    assert places(BoltGroup(across=1, along=1), FACE) == [(0.0, 0.0)]


def test_a_slot_bracket_comes_out_as_customary() -> None:
    """Corner bracket of the 40 series, 1+1 M8: 10/35/100 N/µm each way; common practice, no source."""
    bracket = BoltGroup("M8", 1, 1, 0.006, "extruded", "slot-40", leg=0.02)
    normal, shear = each(bracket)
    assert 10e6 < normal.likely < 100e6
    assert 20e6 < shear.likely < 150e6
    assert normal.low < normal.likely < normal.high


def test_a_machine_is_stiffer_with_more_bolts() -> None:
    assert stiffness(BoltGroup(across=2, along=2)) < stiffness(BoltGroup(across=3, along=4))


def test_limits_and_words() -> None:
    bolts = BoltGroup("M8", 2, 2, torque=16.0)
    pulled, slip, opens = limits(bolts, 0.1)
    assert pulled == pytest.approx(10e3)
    assert slip == pytest.approx(8e3)
    assert opens == pytest.approx(4 * 10e3 * 0.1 / 6)
    told = " ".join(facts("beam_joint", Joint("bolts", bolts=bolts)))
    assert "preload 10.0 kN" in told
    assert "slips at 8.0 kN" in told
    assert "Rivin" in told


def test_bolts_are_bought_and_saved() -> None:
    machine = replace(MovingGantry(), beam_joint=Joint("bolts", bolts=BoltGroup("M10", 2, 3)))
    item = next(item for item in bill_of(machine) if item.part == "beam_joint")
    assert item.text == "bolt M10"
    assert item.count == 12
    project = Project("p", "a", (Candidate("a", machine),))
    assert parse_project(project_text(project)) == project


@pytest.mark.parametrize(
    ("bolts", "where"),
    [
        (BoltGroup(across=0), "bolts.across"), (BoltGroup(along=40), "bolts.along"),
        (BoltGroup(thickness=0.0), "bolts.thickness"), (BoltGroup(torque=-1.0), "bolts.torque"),
        (BoltGroup(leg=0.001), "bolts.leg"),
    ],
)  # fmt: skip
def test_impossible_bolts_are_refused(bolts: BoltGroup, where: str) -> None:
    with pytest.raises(InputError) as error:
        joint_springs(Joint("bolts", bolts=bolts), FACE)
    assert error.value.where == where
