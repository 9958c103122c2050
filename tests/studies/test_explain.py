"""Why is this so soft: by hand for single causes, sums exact, the bound holds."""

from importlib.resources import files

import pytest

from tests.machines import router
from unterbau.files.project_json import parse_project
from unterbau.machine.machine import links, with_part
from unterbau.structure.parts import Joint, Member, Place
from unterbau.studies.answers import likely_answers
from unterbau.studies.explain import ASIDE, explain

DEMO = parse_project((files("unterbau.demo") / "carving-router.unterbau").read_text(encoding="utf-8"))
BOLTED, TUBE = (router(candidate.machine) for candidate in DEMO.candidates[:2])


def test_the_cutter_bends_like_a_cantilever() -> None:
    """F·L³/3EI of a solid round bar, any strength-of-materials text."""
    _, solved = likely_answers(TUBE, Place())
    found = explain(TUBE, solved, "cutter", 0)
    c = TUBE.cutter
    EI = found.reasons[0].stiffness
    assert found.reasons[0].words == "it bends"
    assert found.reasons[0].compliance == pytest.approx(c.stick_out**3 / (3 * EI), rel=1e-9)
    assert found.reasons[0].load == pytest.approx(c.stick_out)


def test_two_joints_twist_side_by_side() -> None:
    """Each end carries half of the moment: give = 2·M²/k, M by statics from the lever."""
    _, solved = likely_answers(BOLTED, Place())
    found = explain(BOLTED, solved, "beam_joint", 1)
    first = found.reasons[0]
    assert first.words == "it is twisted in its face"
    lever = 4 * (0.02**2 + 0.02**2)  # four at the corners of 40 × 40
    assert first.stiffness == pytest.approx(4 * 4e3 + 120e6 * lever)
    assert first.compliance == pytest.approx(2 * first.load**2 / first.stiffness, rel=0.02)
    d = BOLTED.dimensions
    lever = d.clearance + 0.04 - d.lowest_tip
    assert first.load == pytest.approx(lever / 2, rel=0.05)


@pytest.mark.parametrize("axis", [0, 1, 2])
def test_links_sum_to_the_whole(axis: int) -> None:
    for machine in (BOLTED, TUBE):
        likely, solved = likely_answers(machine, Place(0.1, 0.9, 0.4))
        found = [explain(machine, solved, link.key, axis) for link in links(machine)]
        rest = likely.shares.compliance[axis, -1].sum()
        assert sum(one.compliance for one in found) + rest == pytest.approx(found[0].total, rel=1e-9)
        for one in found:
            told = sum(reason.compliance for reason in one.reasons)
            assert told <= one.compliance * (1 + 1e-9)
            assert told > 0.85 * one.compliance or one.cure == ASIDE
            assert one.cure
            assert one.facts


def test_a_rigid_link_gains_at_least_what_is_promised() -> None:
    _, solved = likely_answers(BOLTED, Place())
    promised = explain(BOLTED, solved, "beam_joint", 1).rigid
    welded, _ = likely_answers(with_part(BOLTED, "beam_joint", Joint("weld")), Place())
    assert 1 / welded.compliance[1, 1] >= promised * (1 - 1e-9)
    assert 1 / welded.compliance[1, 1] < 1.1 * promised


def test_the_cure_for_an_open_section_names_the_closed_one() -> None:
    slit = with_part(TUBE, "gantry_beam", Member("upn-120", "steel-s235"))
    _, solved = likely_answers(slit, Place())
    found = explain(slit, solved, "gantry_beam", 1)
    words = [reason.words for reason in found.reasons]
    assert words[0] == "it twists"
    assert "its wall dents under what is fastened to it" in words
    _, solved = likely_answers(TUBE, Place())
    assert explain(TUBE, solved, "x_drive", 1).cure == ASIDE
    assert not explain(TUBE, solved, "x_drive", 1).reasons
