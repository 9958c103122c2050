"""Belts by hand; what creeps and what swells is watched, each once, behind what fails."""

import math
from dataclasses import replace

import pytest

from unterbau.brief.brief import Brief
from unterbau.catalogue.drives import drive
from unterbau.machine.kinds.light_table import LightTable
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.structure.parts import Drive, Joint, Plate
from unterbau.studies.purchase.belts import STRAIN, belt_checks
from unterbau.studies.purchase.check import WORST
from unterbau.studies.purchase.checks import checks
from unterbau.studies.purchase.lasting import lasting_checks
from unterbau.studies.purchase.wanted import wanted


def test_a_belts_pull_by_hand() -> None:
    """m·a + friction, or cutting and friction, over what two thousandths of stretch bear."""
    table = replace(LightTable(), x_drive=Drive("belt-15-glass"))
    brief = Brief(process="laser", acceleration=4.0)
    one = next(row for row in wanted(table, brief) if row.axis == "x")
    (check,) = belt_checks(one, "mm")
    by_hand = max(one.mass * 4.0 + one.friction, one.cutting + one.friction) / one.shared
    assert check.share == pytest.approx(by_hand / (STRAIN * drive("belt-15-glass").EA.likely), rel=6e-3)
    harder = next(row for row in wanted(table, replace(brief, acceleration=40.0)) if row.axis == "x")
    assert belt_checks(harder, "mm")[0].share > 2 * check.share
    screw = next(row for row in wanted(MovingGantry(), brief) if row.axis == "x")
    assert belt_checks(screw, "mm") == []


def test_what_creeps_or_swells_is_watched() -> None:
    router = replace(MovingGantry(), beam_joint=Joint("printed", 4), bed=Plate(0.018, "mdf"))
    found = {one.key: one for one in lasting_checks(router)}
    assert "gives about 3 times as much" in found["beam_joint"].working
    assert "3.0%" in found["bed"].working
    assert {one.verdict for one in found.values()} == {"watch"}
    metal = replace(MovingGantry(), bed=Plate(0.018, "aluminium-5083"))
    assert not lasting_checks(metal)


def test_checks_without_a_share_stand_in_order() -> None:
    router = replace(MovingGantry(), beam_joint=Joint("printed", 4))
    found = checks(router, Brief())
    places = [WORST.index(one.verdict) for one in found]
    assert places == sorted(places)
    assert any(math.isnan(one.share) and one.verdict == "watch" for one in found)
