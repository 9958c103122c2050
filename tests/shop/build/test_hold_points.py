"""Hold points that hold: needs come first, readings outside a limit need a reason and stay marked."""

from dataclasses import replace
from datetime import date

import pytest

from unterbau.brief.brief import Brief
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.shop.build.done import Done
from unterbau.shop.build.hold_points import HoldReading, left_outside, objections, standing, still_needed
from unterbau.shop.build.steps import Step
from unterbau.shop.state import ShopState
from unterbau.studies.building import build_schedule, build_steps, marked_done

TODAY = date(2026, 12, 2)
STEPS = build_steps(MovingGantry(), ShopState(), "A", Brief(), TODAY)
HOLD = next(one for one in STEPS if one.hold is not None)
assert HOLD.hold is not None
LIMIT = HOLD.hold.within
GOOD, BAD, UNSURE = HoldReading(LIMIT / 4, LIMIT / 8), HoldReading(1.5e-3, 1e-5), HoldReading(LIMIT, LIMIT / 8)


def all_before(step: Step) -> ShopState:
    """Return a shop in which everything before a step is done as it should be."""
    shop = ShopState()
    for one in STEPS:
        if one.id == step.id:
            break
        if not still_needed(one, STEPS, standing(STEPS, shop.done, "A")):
            good = HoldReading(0.0, one.hold.within / 10) if one.hold is not None else None
            shop = marked_done(shop, "A", one, good, (), "", TODAY)
    return shop


def test_nothing_is_done_before_what_it_needs() -> None:
    assert still_needed(HOLD, STEPS, frozenset())
    alone = (Done("A", HOLD.id, "2026-12-01", 1e-6, 1e-6),)
    assert standing(STEPS, alone, "A") == frozenset()
    rows = build_schedule(STEPS, ShopState(done=alone), "A", TODAY).rows
    order = [row.step.id for row in rows]
    assert HOLD.id in order, "it comes again, after what it needs"
    assert all(order.index(need) < order.index(HOLD.id) for need in HOLD.needs)
    shop = all_before(HOLD)
    assert not still_needed(HOLD, STEPS, standing(STEPS, shop.done, "A"))


@pytest.mark.parametrize(
    ("reading", "words"),
    [
        (BAD, "outside the limit"), (UNSURE, "cannot tell"), (None, "No reading was taken"),
        (replace(GOOD, simulated=True), "simulated"), (HoldReading(-1.5e-3, 1e-5), "outside the limit"),
    ],
)  # fmt: skip
def test_a_reading_that_does_not_do_needs_a_reason_and_stays_marked(reading: HoldReading | None, words: str) -> None:
    shop = all_before(HOLD)
    against = objections(HOLD, STEPS, shop.done, "A", reading)
    assert words in against[0]
    after = marked_done(shop, "A", HOLD, reading, against, "the plate is planed later", TODAY)
    one = after.done[-1]
    assert left_outside(one)
    assert one.note == "the plate is planed later"
    assert after.log[-1].candidate == "A"
    assert words in after.log[-1].text
    assert "the plate is planed later" in after.log[-1].text
    following = [one for one in STEPS if HOLD.id in one.needs]
    assert following
    for step in following:
        asked = objections(step, STEPS, after.done, "A", HoldReading(0.0, 1e-7))
        assert any("Measure it again" in line for line in asked)
    mended = marked_done(after, "A", HOLD, GOOD, (), "", TODAY)
    assert [one.step for one in mended.done].count(HOLD.id) == 1
    for step in following:
        assert not objections(step, STEPS, mended.done, "A", HoldReading(0.0, 1e-7) if step.hold else None)


def test_a_reading_within_the_limit_does_by_itself() -> None:
    shop = all_before(HOLD)
    assert objections(HOLD, STEPS, shop.done, "A", GOOD) == ()
    after = marked_done(shop, "A", HOLD, GOOD, (), "not asked for", TODAY)
    assert not left_outside(after.done[-1])
    assert after.log == ()
    assert after.done[-1].note == ""


def test_another_candidates_steps_do_not_count() -> None:
    shop = all_before(HOLD)
    theirs = tuple(replace(one, candidate="B") for one in shop.done)
    assert standing(STEPS, theirs, "A") == frozenset()


def test_steps_without_a_hold_point_are_done_as_ever() -> None:
    first = next(one for one in STEPS if not one.needs)
    assert objections(first, STEPS, (), "A", None) == ()
