"""A cut of one's own: the same formula as the customary ones, refused where there is no such cut, kept in the file."""

from dataclasses import replace
from typing import Any

import pytest

from unterbau.catalogue.cuts import OWN_CUT, STUFFS, OwnCut, check_own_cut, cut, cuts, stuff_label
from unterbau.errors import InputError
from unterbau.files.project_json import parse_project, project_text
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.project import edits
from unterbau.project.project import Candidate, Project
from unterbau.studies.cutting import ToolLimits, bearable, chosen_cut, own_cut

ENDLESS = ToolLimits(0.1, 0.1, 1.0, 1e12, 1e9, 0.0)
PROJECT = Project("p", "a", (Candidate("a", MovingGantry()),))


@pytest.mark.parametrize("name", cuts())
def test_a_customary_cut_set_out_by_hand_pulls_the_same(name: str) -> None:
    """The worked table (Kienzle; values from memory) again, through the fields a person fills in."""
    known = cut(name)
    e = known.engagement
    material = next(one for one in STUFFS if cut(one).engagement.kc11 == e.kc11)
    own = OwnCut(material, not e.milling, depth=e.depth, chip=e.chip)
    if e.milling:
        own = replace(own, diameter=e.diameter, teeth=e.teeth, width=e.width, turns=e.turns)
    found = own_cut(own)
    assert found.mean == pytest.approx(known.mean, rel=0.04)
    assert found.peak == pytest.approx(known.peak, rel=0.03)
    assert found.label.startswith("turning " if not e.milling else stuff_label(material))
    assert found.feed * 6e4 == pytest.approx(known.feed * 6e4 if e.milling else 0.0, rel=0.03)


def test_twice_the_depth_pulls_about_twice_and_is_borne_half_as_deep() -> None:
    shallow = own_cut(OwnCut("aluminium", diameter=8e-3, teeth=3, width=4e-3, depth=1e-3, chip=4e-5))
    deep = own_cut(OwnCut("aluminium", diameter=8e-3, teeth=3, width=4e-3, depth=2e-3, chip=4e-5))
    assert deep.mean == pytest.approx(2 * shallow.mean)
    one, two = (bearable(chosen, 1e-6, 5e-5, ENDLESS).depth for chosen in (shallow, deep))
    assert one == pytest.approx(two)
    assert bearable(shallow, 1e-12, 5e-5, ENDLESS).depth == ENDLESS.edge


def test_straight_flutes_pull_harder_in_a_light_cut() -> None:
    """No helix spreads a tooth's pull: in a light cut its peak doubles to triples."""
    helical = own_cut(OwnCut("aluminium", diameter=6e-3, teeth=2, width=0.6e-3, depth=6e-3, chip=3e-5))
    straight = own_cut(OwnCut("aluminium", diameter=6e-3, teeth=2, width=0.6e-3, depth=6e-3, chip=3e-5, straight=True))
    assert 2.0 < straight.peak / helical.peak < 4.0
    assert straight.mean == pytest.approx(helical.mean)


@pytest.mark.parametrize(
    ("change", "where"),
    [
        ({"material": "cheese"}, "material"), ({"width": 9e-3}, "width"), ({"teeth": 0}, "teeth"),
        ({"chip": 0.0}, "chip"), ({"turns": 0.1}, "turns"), ({"depth": -1e-3}, "depth"),
        ({"diameter": 1.0}, "diameter"),
    ],
)  # fmt: skip
def test_what_is_no_cut_is_refused(change: dict[str, Any], where: str) -> None:
    own = replace(OwnCut(), **change)
    with pytest.raises(InputError) as error:
        check_own_cut(own)
    assert error.value.where == where
    assert "expected" in error.value.problem
    with pytest.raises(InputError):
        edits.set_own_cut(PROJECT, own)
    with pytest.raises(InputError) as error:
        parse_project(project_text(replace(PROJECT, own_cut=own)))
    assert error.value.where == f"$.own_cut.{where}"


def test_it_is_kept_in_the_file_and_when_another_is_chosen() -> None:
    own = OwnCut("brass", diameter=3e-3, teeth=1)
    project = edits.set_own_cut(PROJECT, own)
    assert chosen_cut(project.cut, project.own_cut).id == OWN_CUT
    assert parse_project(project_text(project)) == project
    other = edits.set_cut(project, "steel")
    assert other.own_cut == own
    assert chosen_cut(other.cut, other.own_cut) == cut("steel")
    assert edits.set_cut(other, OWN_CUT) == project
