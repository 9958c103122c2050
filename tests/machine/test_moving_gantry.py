"""The router's frame: masses, symmetry, places, refusals."""

from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from unterbau.errors import InputError
from unterbau.machine.kinds.moving_gantry import Dimensions, MovingGantry
from unterbau.machine.machine import bill_of, bodies_of, lengths, links, moving_masses, part, to_frame
from unterbau.machine.stepping import step
from unterbau.mechanics.statics import total_mass
from unterbau.model.member import member_values
from unterbau.parts_list.bill import total_mass as bill_mass
from unterbau.sections.section import section
from unterbau.structure.parts import Cutter, Drive, Guide, Joint, Member, Place, Plate, Spindle

SIZES = st.fixed_dictionaries(
    {"travel_x": st.floats(0.1, 3.0), "travel_y": st.floats(0.1, 3.0), "travel_z": st.floats(0.05, 0.4),
     "clearance": st.floats(0.05, 0.5), "x_stance": st.floats(0.08, 0.5), "cross_members": st.integers(2, 8)}
)  # fmt: skip
PLACES = st.builds(Place, st.floats(0, 1), st.floats(0, 1), st.floats(0, 1))


@given(SIZES, PLACES)
def test_the_bill_weighs_what_the_frame_weighs(sizes: dict[str, Any], place: Place) -> None:
    machine = MovingGantry(dimensions=Dimensions(**sizes))
    mass, _ = total_mass(to_frame(machine, place, "likely").frame)
    assert bill_mass(bill_of(machine)) == pytest.approx(mass, rel=1e-9)
    moving = moving_masses(machine)
    assert 0 < moving["Z"] < moving["X"] < moving["Y"] < mass


@given(SIZES, PLACES)
def test_same_machine_same_frame_to_the_bit(sizes: dict[str, Any], place: Place) -> None:
    machine = MovingGantry(dimensions=Dimensions(**sizes))
    one, two = (to_frame(machine, place, "low").frame for _ in range(2))
    assert one.nodes.tobytes() == two.nodes.tobytes()
    assert one.beams.A.tobytes() == two.beams.A.tobytes()
    assert one.node_names == two.node_names
    assert len(set(one.node_names)) == len(one.node_names)


def test_the_tool_stands_where_it_should() -> None:
    machine = MovingGantry()
    d = machine.dimensions
    low = to_frame(machine, Place(0, 1, 0), "likely")
    high = to_frame(machine, Place(0, 1, 1), "likely")
    assert low.frame.nodes[low.tip] == pytest.approx([-d.travel_x / 2, d.travel_y / 2, d.lowest_tip])
    assert high.frame.nodes[high.tip][2] - low.frame.nodes[low.tip][2] == pytest.approx(d.travel_z)
    assert low.work.place[:2] == pytest.approx([-d.travel_x / 2, d.travel_y / 2])


def test_guide_blocks_sit_between_nodes_of_their_rails() -> None:
    frame = to_frame(MovingGantry(), Place(0.3, 0.4, 0.2), "likely").frame
    groups = [frame.groups[g] for g in frame.seats.group]
    assert {name: groups.count(name) for name in set(groups)} == {"x_guides": 4, "y_guides": 4, "z_guides": 4}
    assert ((frame.seats.station > 0) & (frame.seats.station < 1)).all()


@given(PLACES)
def test_every_body_follows_nodes_of_the_frame(place: Place) -> None:
    machine = MovingGantry()
    built = to_frame(machine, place, "likely")
    keys = {link.key for link in links(machine)}
    for body in bodies_of(machine, place):
        assert body.key in keys
        name = getattr(body, "chain", None) or f"{getattr(body, 'name', '')} 0,0"
        assert name in built.chains


@pytest.mark.parametrize(
    ("change", "where"),
    [
        ({"travel_x": 0.01}, "dimensions.travel_x"), ({"travel_z": 3.0}, "dimensions.travel_z"),
        ({"cross_members": 1}, "dimensions.cross_members"), ({"clearance": -1.0}, "dimensions.clearance"),
    ],
)  # fmt: skip
def test_impossible_dimensions_are_named(change: dict[str, Any], where: str) -> None:
    with pytest.raises(InputError) as error:
        to_frame(MovingGantry(dimensions=replace(Dimensions(), **change)), Place(), "likely")
    assert error.value.where == where
    assert "expected" in error.value.problem


def test_filled_tube_is_the_sum_of_tube_and_fill() -> None:
    """SHS 100×100×3 with fill E 30: +52 %, mass ×3.2; common practice table, calculated."""
    empty, full = (
        Member("shs-100x100x3", "steel-s235"),
        Member("shs-100x100x3", "steel-s235", "epoxy-granite-10"),
    )
    a, b = member_values(empty), member_values(full)
    assert b.Iy / a.Iy == pytest.approx(1.52, abs=0.02)
    assert b.mass_per_metre / a.mass_per_metre == pytest.approx(3.2, abs=0.08)
    assert b.zeta > 5 * a.zeta


def test_turned_members_swap_their_axes() -> None:
    upright, lying = (member_values(Member("rhs-80x40x4", "steel-s235", turned=t)) for t in (False, True))
    assert (upright.Iy, upright.Asy) == (lying.Iz, lying.Asz)


@pytest.mark.parametrize(
    "chosen",
    [
        Member("rhs-80x40x4", "steel-s235"),
        Plate(0.02, "mdf"),
        Cutter(),
        Guide("15"),
        Drive("ballscrew-16"),
        Joint("bolt", 3),
    ],
)
def test_a_step_up_and_down_leads_back(chosen: Any) -> None:
    larger = step(chosen, up=True)
    assert larger is not None
    assert larger != chosen
    assert step(larger, up=False) == chosen


def test_steps_end_at_the_ends_of_a_family() -> None:
    assert step(Joint("bolt", 1), up=False) is None
    assert step(Guide("30"), up=True) is None
    assert step(Spindle(), up=True) is None
    assert step(Member("shs-63x63x4", "steel-s235"), up=True) is not None


def test_every_link_has_its_part_and_length() -> None:
    machine = MovingGantry()
    for link in links(machine):
        assert part(machine, link.key) is getattr(machine, link.key)
    assert lengths(machine)["gantry_beam"] == pytest.approx(0.65 + 0.17 + 0.06 + 0.02)
    assert section(machine.gantry_beam.section).height == pytest.approx(0.12)
