"""Edits are pure functions from project to project."""

from dataclasses import replace

import pytest

from tests.machines import router_of
from unterbau.errors import InputError
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.project import edits
from unterbau.project.project import Candidate, Project
from unterbau.structure.parts import Member, Plate

START = Project("p", "a", (Candidate("a", MovingGantry()), Candidate("b", MovingGantry())))


def test_a_part_is_replaced_in_one_candidate_only() -> None:
    after = edits.set_part(START, "b", "gantry_beam", Member("shs-80x80x4", "steel-s235"))
    assert router_of(after, "b").gantry_beam.section == "shs-80x80x4"
    assert after.candidates[0] is START.candidates[0]
    assert edits.set_part(after, "b", "gantry_beam", router_of(after, "b").gantry_beam) is after


def test_a_part_that_cannot_be_is_refused() -> None:
    with pytest.raises(InputError, match="gantry_beam"):
        edits.set_part(START, "a", "gantry_beam", Member("nothing", "steel-s235"))
    with pytest.raises(InputError, match="thickness"):
        edits.set_part(START, "a", "side", Plate(9.0, "mdf"))


def test_copies_stand_behind_their_source_with_a_name_of_their_own() -> None:
    one, first = edits.duplicate(START, "a")
    two, second = edits.duplicate(one, "a")
    assert (first, second) == ("a 2", "a 3")
    assert [c.name for c in two.candidates] == ["a", "a 3", "a 2", "b"]
    assert two.candidates[1].machine is START.candidates[0].machine


def test_the_benchmark_follows_its_name_and_survives_its_deletion() -> None:
    assert edits.rename(START, "a", " new ").benchmark == "new"
    assert edits.delete(START, "a").benchmark == "b"
    assert edits.set_benchmark(START, "b").benchmark == "b"
    assert edits.rename(START, "a", "a") is START


@pytest.mark.parametrize("name", ["", "  ", "b", "x" * 200])
def test_bad_names_are_refused(name: str) -> None:
    with pytest.raises(InputError):
        edits.rename(START, "a", name)


def test_the_last_candidate_stays() -> None:
    with pytest.raises(InputError, match="at least one"):
        edits.delete(replace(START, candidates=START.candidates[:1]), "a")
    with pytest.raises(InputError, match="no candidate"):
        START.candidate("z")
    assert edits.rename_project(START, " q ").name == "q"
