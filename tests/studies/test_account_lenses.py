"""Accounts of the cut, of chatter, of the weakest place: what they say is what was computed."""

import pytest

from unterbau.catalogue.cuts import cut
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.structure.parts import Place
from unterbau.studies.account_lenses import chatter_account, cut_account, reach_account
from unterbau.studies.cutting import bearable, tool_limits
from unterbau.studies.reach import reach
from unterbau.studies.shake import shakes
from unterbau.studies.stability import limit
from unterbau.units import length_text, number_text

GIVE = 1e-6


def test_the_account_of_a_cut_multiplies_up() -> None:
    """1 µm/N: so many newtons, so many micrometres."""
    chosen = cut("hardwood")
    machine = MovingGantry()
    found = cut_account(machine, chosen, 1, GIVE, 5e-5, "mm")
    told = " ".join(found.lines)
    assert f"is {chosen.force.likely:.0f} N" in told
    assert f"moves {chosen.force.likely:.0f} µm" in told
    borne = bearable(chosen, GIVE, 5e-5, tool_limits(machine, chosen))
    assert length_text(borne.depth, "mm") in told
    assert f"ends by {borne.ends_by}" in told
    assert dict(found.rows)["chips at that depth"].endswith("cm³/min")
    assert "thou" in " ".join(cut_account(machine, chosen, 1, GIVE, 5e-5, "inch").lines)


def test_the_account_of_chatter_gives_back_its_depth() -> None:
    """The depth at the cut's own speed and the floor under all speeds, with the numbers as told."""
    machine = MovingGantry()
    found = shakes(machine, Place())
    chosen = cut("aluminium")
    told = chatter_account(machine, found, limit(found, chosen), chosen, "mm")
    assert told is not None
    known = limit(found, chosen)
    assert known is not None
    worst = known.likely
    for depth in (worst.depth, worst.floor, *known.depth.ends, *known.floor.ends):
        assert length_text(depth, "mm") in told.lines[1]
    assert worst.floor <= worst.depth
    assert len(told.rows) == 3
    assert chatter_account(machine, found, limit(found, cut("turn-steel")), cut("turn-steel"), "mm") is None


def test_the_account_of_the_travel_names_its_extremes() -> None:
    found = reach(MovingGantry())
    told = reach_account(found, 0, "mm")
    place, stiffness = found.weakest(0)
    assert number_text(stiffness * 1e-6) in told.lines[0]
    rows = dict(told.rows)
    for axis, name in enumerate("XYZ"):
        soft, stiff = (float(rows[f"along {name}, {end}"].split()[0]) for end in ("softest", "stiffest"))
        assert soft <= stiff
        assert soft == pytest.approx(found.stiffness[:, axis].min() * 1e-6, rel=0.05)
    assert place.z in (0.0, 0.5, 1.0)
