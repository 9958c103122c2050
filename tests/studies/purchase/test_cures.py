"""Cures of checks that can be done at once."""

from dataclasses import replace

from unterbau.brief.brief import Brief
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.structure.parts import Drive
from unterbau.studies.purchase.checks import checks
from unterbau.studies.purchase.cures import cure_of


def test_a_screw_that_whips_is_cured_by_the_smallest_that_does_not() -> None:
    router = MovingGantry(dimensions=replace(MovingGantry().dimensions, travel_x=1.4), x_drive=Drive("ballscrew-12"))
    brief = Brief()
    whips = next(one for one in checks(router, brief, only=("screws",)) if one.name == "X screw, whipping")
    assert whips.verdict in ("fail", "watch")
    cure = cure_of(router, brief, whips)
    assert cure is not None
    after = checks(cure.applied(router), brief, only=("screws",))
    now = next(one for one in after if one.name == whips.name)
    assert now.share < whips.share
    assert cure.text.startswith("X drive: ")


def test_what_passes_or_has_no_part_has_no_cure() -> None:
    router, brief = MovingGantry(), Brief()
    found = checks(router, brief, only=("screws", "warm day"))
    passes = next(one for one in found if one.verdict == "pass" and one.key)
    assert cure_of(router, brief, passes) is None
    whole = next(one for one in found if not one.key)
    assert cure_of(router, brief, whole) is None


def test_some_groups_are_checked_by_themselves() -> None:
    router, brief = MovingGantry(), Brief()
    every = {(one.key, one.name): one for one in checks(router, brief)}
    for one in checks(router, brief, only=("screws", "feet")):
        assert every[one.key, one.name] == one
