"""First cuts: predicted by hand from force and give, and what is said where they are off."""

from dataclasses import replace

import pytest

from unterbau.catalogue.cuts import OwnCut, cut
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.shop.build.cuts import FirstCut
from unterbau.structure.parts import Place
from unterbau.studies.compliance import solve, tip_compliance
from unterbau.studies.cutting import force_at
from unterbau.studies.first_cuts import Judged, judged

ONE = FirstCut("a", "hardwood", 3e-3, 0.05, 0.05, doubt=1e-6)


def test_the_error_of_a_piece_is_force_times_give_for_each_face_that_was_cut() -> None:
    machine = MovingGantry()
    give = tip_compliance(solve(machine, Place(), "likely"))
    rows = judged(machine, (ONE, replace(ONE, sides=1, axis="Y", depth=1e-3), replace(ONE, cut="cheese")), OwnCut())
    assert rows[0].predicted.likely == pytest.approx(2 * force_at(cut("hardwood"), 3e-3) * give[0, 0], rel=1e-6)
    assert rows[1].predicted.likely == pytest.approx(force_at(cut("hardwood"), 1e-3) * give[1, 1], rel=1e-6)
    assert rows[0].predicted.low < rows[0].predicted.likely < rows[0].predicted.high
    assert rows[2].predicted.likely == 0.0
    assert judged(machine, (), OwnCut()) == ()
    assert rows[0].limit > 1e-4


def test_what_is_said_turns_with_reading_and_finish() -> None:
    (likely,) = judged(MovingGantry(), (ONE,), OwnCut())
    p = likely.predicted

    def off(error: float, **changes: object) -> Judged:
        return replace(likely, error=error, cut=replace(ONE, **changes))  # type: ignore[arg-type]

    assert off(p.likely).verdict == "as predicted"
    assert off(2 * p.high).verdict.startswith("more than predicted")
    assert off(0.5 * p.low).verdict.startswith("less than predicted")
    assert off(1.1 * p.high, doubt=p.high).verdict.startswith("the reading's doubt")
    shallow = replace(off(p.likely, finish="chatter"), limit=1.0)
    assert "should not" in shallow.verdict
    assert replace(off(p.likely), limit=1e-4).verdict.endswith("quieter than predicted")
