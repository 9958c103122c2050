"""A warm day and bolts: self-similar machines of one metal, a steel rail on aluminium by hand, slip by hand."""

from dataclasses import replace

import numpy as np
import pytest

from unterbau.brief.brief import Brief
from unterbau.catalogue.joints import BoltGroup
from unterbau.machine.kinds.braced_mill import BracedMill
from unterbau.machine.kinds.column_mill import ColumnMill
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import lay_out
from unterbau.model.bolted import limits
from unterbau.structure.parts import Joint, Place, Plate
from unterbau.studies.purchase.bolts import bolt_checks, borne
from unterbau.studies.purchase.warm import WARMER, warm_checks, warm_days


def test_a_mill_of_steel_grows_like_itself() -> None:
    """All steel: across it stays straight, along Z the tool goes by what lies between table and tool, α·ΔT·gap."""
    mill = BracedMill()
    warm = warm_days(mill, Place())[0]
    assert warm.words == "all of it"
    gap = mill.dimensions.lowest_tip
    assert abs(warm.moved[0]) < 1e-7
    assert abs(warm.moved[1]) < 1e-6
    assert abs(warm.moved[2]) < 12e-6 * WARMER * (gap + 0.1)
    assert warm.bow < 1e-6


def test_an_aluminium_slide_between_steel_rails_moves_the_tool_more_than_one_of_steel() -> None:
    router = MovingGantry()
    steel = replace(router, z_plate=Plate(0.02, "steel-s235"), x_plate=Plate(0.02, "steel-s235"))
    bowed, straight = (abs(warm_days(one, Place())[0].moved[1]) for one in (router, steel))
    assert bowed > 4 * straight


def test_a_plate_with_two_steel_rails_bows_as_a_hand_sum_says() -> None:
    """The Z plate with its rails as a bimetal strip: slope over what hangs below the blocks; of its size.

    N = Δα·ΔT/(1/EA_rails + 1/EA_plate + e²/EI), κ = N·e/EI; the tool hangs about κ·l²/2 below, l from the middle of
    the blocks down to the tip. Blocks that give and the spindle's clamp are left out.
    """
    router = MovingGantry()
    structure = lay_out(router)
    plate = structure.pieces["Z plate"]
    EA_r, EA_p = 2 * 207e9 * 0.015 * 0.6 * 0.024, 70.5e9 * plate.width * plate.height  # type: ignore[union-attr]
    EI = 70.5e9 * plate.width * plate.height**3 / 12  # type: ignore[union-attr]
    e = plate.height / 2 + 0.3 * 0.024  # type: ignore[union-attr]
    N = 11.5e-6 * WARMER / (1 / EA_r + 1 / EA_p + e**2 / EI)
    kappa = N * e / EI
    low, high = sorted((plate.start[2], plate.end[2]))  # type: ignore[union-attr]
    tip = structure.tip.place[2]
    below = (low + high) / 2 - tip
    moved = abs(warm_days(router, Place())[0].moved[1])
    assert moved == pytest.approx(kappa * below * (high - low) / 2, rel=0.6)


def test_checks_say_how_far_and_never_fail_a_day() -> None:
    found = warm_checks(MovingGantry(), Brief(), "mm")
    assert len(found) == 3
    assert all(one.verdict in ("pass", "watch") for one in found)
    assert "the tool moves against the work by X " in found[0].asked
    assert found[0].cure
    assert "°F" not in found[0].asked
    assert np.isfinite([one.share for one in found]).all()


def test_bolts_that_slip_by_hand() -> None:
    """A column on four M8 under 200 N at the tip: its shear is what the frame gives it."""
    mill = replace(ColumnMill(), column_joint=Joint("bolts", bolts=BoltGroup("M8", 2, 2)))
    found = bolt_checks(mill, Brief(cuts=("steel-light",)), "mm")
    assert [one.key for one in found] == ["column_joint"]
    force = 100.0
    loaded = borne(mill, ("column_joint",), force, Place())["column_joint"]
    assert loaded.count == 1
    weight = borne(mill, ("column_joint",), 0.0, Place())["column_joint"]
    assert loaded.shear == pytest.approx(force, rel=0.25), "the column carries the pull down, less what the drive takes"
    assert weight.pull > 0.0
    _, slip, _ = limits(BoltGroup("M8", 2, 2), 0.0)
    assert found[0].share < 1.0
    few = replace(mill, column_joint=Joint("bolts", bolts=BoltGroup("M4", 1, 1)))
    assert bolt_checks(few, Brief(cuts=("steel-light",)), "mm")[0].share > found[0].share
    assert slip > 0.0
