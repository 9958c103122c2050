"""A push with one's hand: against closed forms, and posts whose caps have play."""

from dataclasses import replace

import pytest

from unterbau.machine.kinds.braced_mill import BracedMill
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.model.joins import CAP
from unterbau.structure.parts import Joint, Member, Place, Stand
from unterbau.studies.compliance import solve
from unterbau.studies.push import places_of, pushed, softest_push

PLAY = 2e-5
ROUND = replace(
    BracedMill(), post=Member("rod-20", "steel-s235"), post_joint=Joint("cap", play=PLAY),
    tie_joint=Joint("cap", play=PLAY),
)  # fmt: skip


def mill(reach: float, joint: Joint) -> BracedMill:
    sizes = replace(ROUND.dimensions, brace_reach=reach)
    return replace(ROUND, dimensions=sizes, post_joint=joint, tie_joint=joint)


def test_a_post_of_round_rails_has_play_until_it_is_braced() -> None:
    """Common practice, no source: half a millimetre at half a metre, nothing felt once braced. The turn in a cap is
    its play over its depth; the second post helps only once it has taken up its own."""
    free = solve(mill(0.0, Joint("cap", play=PLAY)), Place(), "likely")
    found = softest_push(free, "post")
    assert found is not None
    foot = min(float(free.built.frame.nodes[n, 2]) for n in places_of(free, "post"))
    tilted = PLAY / CAP * (found.place[2] - foot)
    assert 0.8 * tilted < found.play[1] < 1.2 * tilted
    braced = softest_push(solve(mill(0.16, Joint("cap", play=PLAY)), Place(), "likely"), "post")
    assert braced is not None
    assert max(braced.play) < 0.05 * max(found.play)


def test_play_grows_with_the_clearance_and_is_a_gap_not_a_spring() -> None:
    one, two, none = (
        softest_push(solve(mill(0.0, Joint("cap", play=play)), Place(), "likely"), "post")
        for play in (PLAY, 2 * PLAY, 0.0)
    )
    assert one is not None
    assert two is not None
    assert none is not None
    assert two.play[1] == pytest.approx(2 * one.play[1], rel=0.02)
    assert none.play == (0.0, 0.0, 0.0)
    assert one.give == pytest.approx(none.give, rel=1e-9)


def test_a_push_sways_the_bench_and_a_firm_floor_hardly() -> None:
    """The rest is the machine's own and does not depend on what it stands on."""
    found = [
        softest_push(solve(replace(MovingGantry(), stand=Stand(kind)), Place(), "likely"), "gantry_beam")
        for kind in ("bench", "firm")
    ]
    assert found[0] is not None
    assert found[1] is not None
    assert found[0].stand[0] > 10 * found[1].stand[0]
    assert (found[0].give - found[0].stand)[0] == pytest.approx((found[1].give - found[1].stand)[0], rel=0.15)


def test_pushes_are_reciprocal_and_positive() -> None:
    solved = solve(MovingGantry(), Place(), "likely")
    for one in pushed(solved, places_of(solved, "side")):
        assert (one.give > 0.0).all()
        assert (one.stand <= one.give * (1 + 1e-9)).all()
