"""Every kind of machine: its frame holds together, weighs what its list weighs, and its drawing follows."""

from dataclasses import fields, replace
from typing import Any

import numpy as np
import pytest

from unterbau.errors import InputError
from unterbau.machine.kind import Kind
from unterbau.machine.machine import (
    KINDS,
    bill_of,
    bodies_of,
    dimension_lines,
    lay_out,
    links,
    moving_masses,
    part,
    plate_widths,
    to_frame,
    travel,
)
from unterbau.mechanics.statics import total_mass
from unterbau.parts_list.bill import total_mass as bill_mass
from unterbau.structure.ends import sawn
from unterbau.structure.parts import Part, Place, Plate, Sizes
from unterbau.structure.stand import REST
from unterbau.studies.answers import likely_answers

PLACES = (Place(), Place(0.0, 0.0, 0.0), Place(1.0, 0.3, 1.0), Place(0.7, 1.0, 0.4))
each_kind = pytest.mark.parametrize("kind", KINDS, ids=lambda k: k.id)


@each_kind
def test_the_list_weighs_what_the_frame_weighs(kind: Kind) -> None:
    """But for what the axes of bars reach into their neighbours."""
    machine = kind.model()
    for place in PLACES:
        mass, _ = total_mass(to_frame(machine, place, "likely").frame)
        hidden = sum(bar.hidden for bar in sawn(lay_out(machine)).values())
        assert bill_mass(bill_of(machine)) + hidden == pytest.approx(mass, rel=1e-9)
    moving = moving_masses(machine)
    assert all(0 <= moving[axis] < mass for axis in "XYZ")


@each_kind
def test_every_part_is_a_link_and_every_group_is_known(kind: Kind) -> None:
    machine = kind.model()
    keys = [link.key for link in links(machine)]
    assert len(set(keys)) == len(keys)
    parts = {f.name for f in fields(machine) if isinstance(getattr(machine, f.name), Part)}
    assert set(keys) == parts - {"dimensions"}
    groups = set(to_frame(machine, Place(), "likely").frame.groups)
    assert groups <= {*keys, REST}
    for key in keys:
        if isinstance(part(machine, key), Plate):
            assert plate_widths(machine)[key] > 0
    for name in (*kind.ends, *kind.ends.values(), *kind.fitting, *kind.related, *kind.most_drives):
        assert name in keys
    assert kind.good
    assert kind.bad


@each_kind
@pytest.mark.parametrize("place", PLACES)
def test_the_loop_is_solved_everywhere(kind: Kind, place: Place) -> None:
    machine = kind.model()
    answers, solved = likely_answers(machine, place)
    stiffness = 1e-6 / np.diag(answers.compliance)
    assert np.all(stiffness > 0.005)
    assert np.all(stiffness < 100)
    shares = answers.shares.compliance.sum(axis=(1, 2))
    assert shares == pytest.approx(np.diag(answers.compliance), rel=1e-9)
    frame = solved.built.frame
    work = np.array(solved.built.work.place)
    near = 0.5 if kind.id == "lathe" else 2e-3  # its tool meets the work beside the spindle's axis
    assert work[:2] == pytest.approx(frame.nodes[solved.built.tip][:2], abs=near)
    assert len(set(frame.node_names)) == len(frame.node_names)


@each_kind
def test_what_is_drawn_follows_the_frame(kind: Kind) -> None:
    machine = kind.model()
    keys = {link.key for link in links(machine)}
    for place in PLACES:
        built = to_frame(machine, place, "likely")
        bodies = bodies_of(machine, place)
        assert {body.key for body in bodies} <= keys
        for body in bodies:
            assert (getattr(body, "chain", None) or f"{getattr(body, 'name', '')} 0,0") in built.chains


@each_kind
def test_every_dimension_line_is_as_long_as_its_size(kind: Kind) -> None:
    machine = kind.model()
    lines = dimension_lines(machine, Place(0.3, 0.6, 0.2))
    assert {one.attribute for one in kind.sizes if "travel" in one.attribute} <= {line.attribute for line in lines}
    for line in lines:
        value = getattr(machine.dimensions, line.attribute)
        assert np.hypot(*np.subtract(line.end, line.start)) == pytest.approx(value), line.attribute
        larger = resized(machine, **{line.attribute: value * 1.1})
        after = next(x for x in dimension_lines(larger, Place(0.3, 0.6, 0.2)) if x.attribute == line.attribute)
        grown = np.hypot(*np.subtract(after.end, after.start)) - value
        assert grown == pytest.approx(0.1 * value), line.attribute


def answered_or_refused(machine: Any) -> None:
    try:
        likely_answers(machine, Place(0.2, 0.8, 0.5))
    except InputError as error:
        where, problem = error.where, error.problem
    else:
        return
    assert where.startswith("dimensions.")
    assert "expected" in problem


def resized(machine: Any, **changes: Any) -> Any:
    return replace(machine, dimensions=replace(machine.dimensions, **changes))


@each_kind
def test_sizes_are_refused_by_name_and_others_build(kind: Kind) -> None:
    machine = kind.model()
    assert isinstance(machine.dimensions, Sizes)
    assert {one.attribute for one in kind.sizes} == {f.name for f in fields(machine.dimensions)}
    for number, one in enumerate(kind.sizes):
        for value in (one.low - 1, one.high + 1):
            wrong = resized(machine, **{one.attribute: int(value) if one.count else value})
            with pytest.raises(InputError) as error:
                to_frame(wrong, Place(), "likely")
            assert error.value.where == f"dimensions.{one.attribute}"
            assert "expected" in error.value.problem
        if not one.count:
            value = getattr(machine.dimensions, one.attribute) * (1.25 if number % 2 else 0.8)
            if one.low <= value <= one.high:
                answered_or_refused(resized(machine, **{one.attribute: value}))


@each_kind
def test_travel_moves_tool_against_work(kind: Kind) -> None:
    """The tool's tip against the work's plate shifts by the travel along each axis."""
    machine = kind.model()
    along = travel(machine)
    for axis in range(3):
        if along[axis] == 0:
            continue
        ends = [Place(*(end if n == axis else 0.5 for n in range(3))) for end in (0.0, 1.0)]
        places = []
        for place in ends:
            built = to_frame(machine, place, "likely")
            places.append(built.frame.nodes[built.tip] - middle_of_work(built))
        assert abs(places[1] - places[0])[axis] == pytest.approx(along[axis], rel=1e-6)


def middle_of_work(built: Any) -> Any:
    """Return the middle of the plate that the work stands on, or the origin where there is none."""
    on = set(built.work.nodes.tolist())
    crossings = [name for name, nodes in built.chains.items() if "," in name and nodes[0] in on]
    if not crossings:
        return np.zeros(3)
    stem = crossings[0].rsplit(" ", 1)[0]
    nodes = [nodes[0] for name, nodes in built.chains.items() if "," in name and name.startswith(f"{stem} ")]
    plate = built.frame.nodes[nodes]
    return (plate.min(axis=0) + plate.max(axis=0)) / 2
