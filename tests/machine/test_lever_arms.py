"""Joints of several pieces are groups; drives are held by motors; shafts by their supports; bonds by their metal."""

from dataclasses import replace

import numpy as np
import pytest

from unterbau.catalogue.drives import drive, motor_stiffness, motors
from unterbau.catalogue.joints import BoltGroup, Face, joint, pattern
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import to_frame
from unterbau.model.bolted import bolted_springs
from unterbau.structure.parts import Drive, Guide, Joint, Member, Motor, Place
from unterbau.studies.answers import likely_answers
from unterbau.studies.push import pushed, softest_push

FACE = Face(0.08, 0.08)


def test_four_end_tapped_screws_hold_by_their_distance() -> None:
    """At the corners of 40 × 40 mm: 48 + 4·120e3·.02² = 240 and 16 + 4·120e3·2·.02² = 400 kN·m/rad, by hand."""
    k = joint("end-tapped").springs("likely", 4, FACE)
    assert k[4] / 1e3 == pytest.approx(240)
    assert k[5] / 1e3 == pytest.approx(240)
    assert k[3] / 1e3 == pytest.approx(400)
    assert joint("end-tapped").springs("likely", 1, FACE) == (120e6, 120e6, 120e6, 4e3, 12e3, 12e3)


def test_the_same_joint_from_the_table_and_from_its_bolts_agree_within_their_bands() -> None:
    """Four M8 in the cores of an extruded end, torqued as usual: each value's bands overlap."""
    bolts = BoltGroup("M8", 2, 2, 0.012, "extruded", "core-40", edge=0.02)
    for n in range(6):
        table = [joint("end-tapped").springs(level, 4, FACE)[n] for level in ("low", "high")]
        made = [bolted_springs(bolts, level, FACE)[n] for level in ("low", "high")]
        assert max(table[0], made[0]) < min(table[1], made[1]), n


def test_pieces_stand_where_the_pattern_says() -> None:
    assert pattern(1, FACE, 1, 0.02) == ((0.0, 0.0),)
    assert pattern(4, FACE, 2, 0.02) == ((-0.02, -0.02), (0.02, -0.02), (-0.02, 0.02), (0.02, 0.02))
    assert pattern(3, FACE, 2, 0.02)[2] == (0.0, 0.02)
    assert np.allclose(pattern(2, Face(0.08, 0.04), 1, 0.02), ((0.0, -0.02), (0.0, 0.02)))
    wider = joint("bracket").springs("likely", 4, FACE, across=4)
    assert wider[5] > joint("bracket").springs("likely", 4, FACE, across=1)[5]


def test_a_tube_end_is_bonded_on_its_ring() -> None:
    """1,836 mm² of EN 10219 metal, not 120 × 80; a plate in its end makes it whole again."""

    def bond(member: Member) -> float:
        frame = to_frame(replace(MovingGantry(), gantry_beam=member), Place(), "likely").frame
        row = int(np.flatnonzero(frame.springs.group == frame.groups.index("beam_joint"))[0])
        return float(frame.springs.k[row, 0])

    tube = Member("rhs-120x80x5", "steel-s235")
    kn = joint("epoxied").bond
    assert kn is not None
    assert bond(tube) == pytest.approx(kn[0].likely * 1836e-6, rel=0.005)
    assert bond(replace(tube, capped=True)) == pytest.approx(kn[0].likely * 0.12 * 0.08)


def test_a_stepper_holds_like_a_spring() -> None:
    """50·.5 N·m over (20 teeth of 3 mm / 2π)²: .27 N/µm; a servo holds several times stiffer."""
    stepper = motor_stiffness(drive("belt-15-glass"), motors()["stepper"], 0.5, "likely")
    assert stepper / 1e6 == pytest.approx(0.27, abs=0.01)
    for kind in ("closed-loop", "servo"):
        low, high = (motor_stiffness(drive("belt-15-glass"), motors()[kind], 0.5, level) for level in ("low", "high"))
        assert 5 * stepper <= low < high <= 20 * stepper * (1 + 1e-9)
    assert motor_stiffness(drive("trapezoidal-12"), motors()["stepper"], 0.5, "likely") == np.inf
    belt = MovingGantry(x_drive=Drive("belt-15-glass"))
    likely = likely_answers(belt, Place())[0].shares
    of_motor = likely.compliance[0][likely.keys.index("x_motor")].sum()
    assert of_motor == pytest.approx(
        1 / motor_stiffness(drive("belt-15-glass"), motors()["stepper"], 0.0, "likely"), rel=0.1
    )
    servo = likely_answers(replace(belt, x_motor=Motor("servo")), Place())[0]
    assert servo.compliance[0, 0] < likely.compliance[0].sum() - 0.8 * of_motor


def test_a_free_shaft_lies_between_pinned_and_clamped() -> None:
    machine = MovingGantry(x_guides=Guide("free-shaft-20"))
    give = [float(likely_answers(machine, Place())[0].compliance[2, 2])]
    kits = {level: to_frame(machine, Place(), level).frame.springs.k for level in ("low", "likely", "high")}
    turned = {level: k[np.isinf(kits["high"]).all(axis=1)][:, 4].min() for level, k in kits.items()}
    assert turned["low"] == 0.0 < turned["likely"] < turned["high"] == np.inf
    assert give[0] > 0.0


def test_both_profiles_of_a_pair_are_held() -> None:
    pair = MovingGantry(
        gantry_beam=Member("stack2-of-tslot-40H-1x1", "aluminium-6060"), beam_joint=Joint("end-tapped", 4)
    )
    frame = to_frame(pair, Place(), "likely").frame
    held = frame.springs.group == frame.groups.index("beam_joint")
    assert held.sum() == 4  # two profiles, two ends
    assert len(set(frame.springs.i[held].tolist())) == 4


def test_a_push_with_the_hand_is_answered_anywhere() -> None:
    """At the tool it is the tip's own give, and that of what the work stands on besides."""
    _, solved = likely_answers(MovingGantry(), Place())
    found = softest_push(solved, "side")
    assert found is not None
    assert (found.give > 0.0).all()
    tip = pushed(solved, (solved.built.tip,))[0]
    assert tip.give[0] > 0.5 * float(
        np.sum(solved.statics.loads.forces[0] * solved.statics.u[0, : len(solved.built.frame.nodes)])
    )
    assert softest_push(solved, "no such part") is None
