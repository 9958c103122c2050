"""Kinds start in the size that a brief asks for."""

import pytest

from unterbau.brief.brief import Brief
from unterbau.catalogue.prices import shipped_prices
from unterbau.machine.kind import Kind
from unterbau.machine.machine import KINDS, travel
from unterbau.project import edits
from unterbau.project.fresh import new_project, untouched
from unterbau.studies.budget import budget
from unterbau.studies.fitted import fitted

BOOK = shipped_prices()
WANTED = Brief(work_x=0.42, work_y=0.27, work_z=0.09, tool_length=0.05, lift=0.0)


@pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.id)
def test_a_start_takes_the_work(kind: Kind) -> None:
    found = fitted(kind, WANTED, BOOK)
    sizes = {one.attribute for one in kind.sizes}
    along = travel(found.machine)
    for axis, wanted in ((0, WANTED.work_x), (1, WANTED.work_y)):
        if f"travel_{'xy'[axis]}" in sizes:
            assert wanted < along[axis] <= wanted + 0.03
    conflicts = budget(found.machine, WANTED, BOOK).conflicts
    assert found.conflicts == conflicts
    assert not [one for one in conflicts if one.key.startswith("dimensions.travel_x")]
    assert "Started in the brief's size" in found.words()


def test_tall_work_raises_the_beam_and_lengthens_the_stroke() -> None:
    router = next(one for one in KINDS if one.id == "moving-gantry-router")
    found = fitted(router, Brief(work_z=0.24, tool_length=0.06), BOOK)
    assert found.machine.dimensions.clearance >= 0.25  # type: ignore[union-attr]
    assert found.machine.dimensions.travel_z > router.model().dimensions.travel_z  # type: ignore[union-attr]
    assert not found.conflicts


def test_what_cannot_be_is_said() -> None:
    mill = next(one for one in KINDS if one.id == "arm-mill")
    found = fitted(mill, Brief(work_x=2.6), BOOK)
    assert any("short" in one.words for one in found.conflicts)
    assert "Still against the brief" in found.words()


def test_an_empty_brief_leaves_a_kind_as_it_comes() -> None:
    for kind in KINDS:
        assert fitted(kind, Brief(lift=0.0), BOOK).machine == kind.model()


def test_a_project_nobody_touched_is_known() -> None:
    project = new_project()
    assert untouched(project)
    assert not untouched(edits.duplicate(project, "first candidate")[0])
