"""Anchors: a group by hand, equilibrium of the whole, and never a pass."""

from dataclasses import replace
from math import hypot

import numpy as np
import pytest

from unterbau.brief.brief import Brief
from unterbau.catalogue.joints import Face
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.kinds.wall_axis import WallAxis
from unterbau.structure.parts import Joint
from unterbau.studies.purchase.anchors import anchor_checks, shared


def test_a_group_of_four_by_hand() -> None:
    """Four in a square of 60 mm: a pull by four, a moment over pairs 60 mm apart, a twist along the diagonal."""
    four, face = Joint("bolt", 4, across=2, edge=0.02), Face(0.1, 0.1)
    assert shared(np.array([400.0, 0, 0, 0, 0, 0]), four, face) == pytest.approx((100.0, 0.0))
    assert shared(np.array([0, 0, 0, 0, 12.0, 0]), four, face)[0] == pytest.approx(12.0 / 0.06 / 2)
    assert shared(np.array([0, 0, 0, 0, 0, 12.0]), four, face)[0] == pytest.approx(12.0 / 0.06 / 2)
    arm = hypot(0.03, 0.03)
    assert shared(np.array([0, 0, 0, 12.0, 0, 0]), four, face)[1] == pytest.approx(12.0 / (4 * arm))
    assert shared(np.array([0, 300.0, 400.0, 0, 0, 0]), four, face)[1] == pytest.approx(125.0)


def test_what_hangs_on_a_wall_says_what_each_anchor_bears_and_leaves_the_rest_to_others() -> None:
    (one,) = anchor_checks(WallAxis(), Brief(), "mm")
    assert (one.key, one.verdict) == ("anchor", "unknown")
    assert "licensed" in one.cure
    fewer = replace(WallAxis(), anchor=Joint("bolt", 2))
    pull, half = (float(words.asked.split()[2]) for words in (one, anchor_checks(fewer, Brief(), "mm")[0]))
    assert half > pull > 0.0
    assert anchor_checks(MovingGantry(), Brief(), "mm") == []
