"""The contact check: parts that do not touch are refused by name of the size; whatever has an answer touches."""

from collections.abc import Iterator
from dataclasses import replace
from importlib.resources import files
from typing import Any

import pytest

from unterbau.errors import InputError
from unterbau.files.project_json import parse_project, project_text
from unterbau.machine.contact import ContactError
from unterbau.machine.kind import Kind
from unterbau.machine.kinds.column_mill import ColumnMill
from unterbau.machine.kinds.lathe import Lathe
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import KINDS, brought_together, check_touching, lay_out, to_frame, with_part
from unterbau.project import edits
from unterbau.project.project import Candidate, Project
from unterbau.structure.contact import gaps
from unterbau.structure.parts import Member, Place
from unterbau.studies.answers import likely_answers


def demos() -> Iterator[Any]:
    for file in sorted(files("unterbau.demo").iterdir(), key=lambda one: one.name):
        if file.name.endswith(".unterbau"):
            for one in parse_project(file.read_text(encoding="utf-8")).candidates:
                yield pytest.param(one.machine, id=f"{file.name}: {one.name}")


def resized(machine: Any, **sizes: float) -> Any:
    return replace(machine, dimensions=replace(machine.dimensions, **sizes))


def refusal(machine: Any) -> InputError | None:
    try:
        check_touching(machine)
    except InputError as error:
        return error
    return None


@pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.id)
def test_machines_as_they_come_touch(kind: Kind) -> None:
    assert gaps(lay_out(kind.model())) == ()


@pytest.mark.parametrize("machine", list(demos()))
def test_demos_touch(machine: Any) -> None:
    assert gaps(lay_out(machine)) == ()


@pytest.mark.parametrize(
    ("machine", "size", "value", "limit"),
    [
        (ColumnMill(), "rail_spacing", 0.5, 240),  # the base is 240 mm wide
        (ColumnMill(), "z_rail_spacing", 0.3, 140),  # the column is 140 mm wide
        (MovingGantry(), "z_rail_spacing", 0.4, None),
        (Lathe(), "tool_ahead", 0.2, None),
        (ColumnMill(), "x_stance", 0.5, None),
    ],
)
def test_a_part_beside_its_host_is_refused_by_its_size(
    machine: Any, size: str, value: float, limit: int | None
) -> None:
    """Limits by hand: a rail's middle line lies on its host."""
    hanging = resized(machine, **{size: value})
    with pytest.raises(ContactError, match="away from") as refused:
        likely_answers(hanging, Place())
    assert size in refused.value.where or "; or stance of X blocks at most 310 mm" in refused.value.problem
    if size not in refused.value.where:
        return
    told = int(refused.value.problem.partition("at most ")[2].partition(" mm")[0])
    assert limit is None or told == limit
    assert machine.dimensions.__getattribute__(size) * 1e3 <= told < value * 1e3
    check_touching(resized(machine, **{size: told / 1e3}))
    assert gaps(lay_out(resized(machine, **{size: told / 1e3 + 0.004})))


def test_a_beam_too_narrow_for_its_rails_is_refused() -> None:
    narrow = with_part(ColumnMill(), "column", Member("rhs-160x80x6", "steel-s235"))
    with pytest.raises(ContactError, match="expected at most 80 mm, got 110 mm: a rail of the Z guides"):
        to_frame(narrow, Place())


@pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.id)
def test_over_the_range_of_every_size_what_is_answered_touches(kind: Kind) -> None:
    """Each size at nine values over its limits: refused by name, or all touches with the size's own neighbours."""
    machine = kind.model()
    refused = 0
    for size in kind.sizes:
        for n in range(9):
            value = size.low + (size.high - size.low) * n / 8
            changed = resized(machine, **{size.attribute: round(value) if size.count else value})
            problem = refusal(changed)
            refused += problem is not None
            assert problem is None or "expected" in problem.problem
            assert problem is not None or gaps(lay_out(changed)) == ()
    assert refused


def test_a_file_with_a_gap_opens_and_can_be_mended() -> None:
    hanging = resized(ColumnMill(), rail_spacing=0.5, z_rail_spacing=0.3)
    project = parse_project(project_text(Project("p", "a", (Candidate("a", hanging),))))
    with pytest.raises(ContactError):
        likely_answers(project.candidates[0].machine, Place())
    half = edits.set_machine(project, "a", resized(hanging, rail_spacing=0.16))
    whole = edits.set_machine(half, "a", ColumnMill())
    assert likely_answers(whole.candidates[0].machine, Place())
    with pytest.raises(ContactError):
        edits.set_machine(whole, "a", half.candidates[0].machine)
    with pytest.raises(ContactError):
        edits.add(whole, "b", hanging)


def test_rails_follow_a_smaller_base_where_they_are_brought_together() -> None:
    narrow = with_part(ColumnMill(), "base", Member("rhs-120x100x8", "steel-s235"))
    mended = brought_together(narrow)
    assert mended.dimensions.rail_spacing == pytest.approx(0.1)
    assert replace(mended.dimensions, rail_spacing=0.16) == narrow.dimensions
    assert brought_together(ColumnMill()) == ColumnMill()
    check_touching(mended)
