"""Small pieces of machine building: stops, builder, plates, facts."""

import numpy as np
import pytest

from unterbau.machine.facts import facts
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import ends, links, part, plate_widths, rest, with_part
from unterbau.model.frame_builder import FrameBuilder, merged, subdivided
from unterbau.model.member import round_values, strip_values
from unterbau.project.checks import check_part
from unterbau.structure.parts import Joint, Member, Plate
from unterbau.structure.vectors import X, Y, Z, minus
from unterbau.structure.weights import member_size


def test_stops_are_merged_and_divided() -> None:
    assert merged([0.3, 0.0, 0.3005, 1.0]) == [0.0, 0.3, 1.0]
    divided = subdivided([0.0, 1.0, 1.5], 5)
    assert len(divided) == 6
    assert divided == sorted(divided)
    assert {0.0, 1.0, 1.5} <= set(divided)
    assert minus((3, 2, 1), (1, 1, 1)) == (2, 1, 0)


def test_a_seat_on_a_node_becomes_a_spring_and_one_between_stays_a_seat() -> None:
    b = FrameBuilder()
    nodes = [b.node(f"n{k}", (0.5 * k, 0.0, 0.0)) for k in range(3)]
    rail = b.chain("rail", nodes, round_values(0.02, "steel-s235"), Z)
    for name, x in (("on", 0.5), ("between", 0.7), ("beyond", 1.4)):
        b.seat("block", b.node(name, (x, 0.0, 0.1)), rail, (0.0, 1e6, 1e6, 1e3, 1e3, 1e3), X, Z, 0.01)
    frame = b.build()
    assert frame.springs.j.tolist() == [1, 2]
    assert frame.seats.beam.tolist() == [1]
    assert frame.seats.station == pytest.approx([0.4])
    assert frame.groups == ("rail", "block")


def test_masses_are_spread_without_loss() -> None:
    b = FrameBuilder()
    b.spread(tuple(b.node(f"n{k}", (k, 0.0, 0.0)) for k in range(4)), 6.0)
    assert [row[1] for row in b.masses] == [1.0, 2.0, 2.0, 1.0]
    assert b.build().masses.m.sum() == pytest.approx(6.0)
    assert np.asarray(b.build().fixed).shape == (4, 6)


def test_strips_of_a_plate() -> None:
    """b·t³/12, t·b³/12; torsion of a thin strip, b·t³/3."""
    plate = Plate(0.02, "aluminium-5083")
    strip = strip_values(plate, 0.2)
    assert pytest.approx(0.2 * 0.02**3 / 12) == strip.Iy
    assert pytest.approx(0.02 * 0.2**3 / 12) == strip.Iz
    assert pytest.approx(0.2 * 0.02**3 / 3, rel=0.08) == strip.J
    assert strip_values(plate, 0.2, 0.0).rho == 0
    assert strip.mass_per_metre == pytest.approx(2660 * 0.004)


def test_sizes_follow_the_way_a_member_stands() -> None:
    assert member_size(Member("rhs-80x40x4", "steel-s235")) == pytest.approx((0.08, 0.04))
    assert member_size(Member("rhs-80x40x4", "steel-s235", turned=True)) == pytest.approx((0.04, 0.08))
    assert (X, Y, Z) == ((1, 0, 0), (0, 1, 0), (0, 0, 1))


def test_every_part_has_facts_and_passes_its_check() -> None:
    machine = MovingGantry()
    for link in links(machine):
        chosen = part(machine, link.key)
        check_part(chosen)
        lines = facts(link.key, chosen)
        assert lines
        assert all(line and "e+0" not in line for line in lines)
    assert set(ends(machine)) <= {link.key for link in links(machine)}
    assert set(plate_widths(machine)) == {"bed", "side", "side_foot", "x_plate", "z_plate"}
    assert rest(machine) == "feet"


def test_cautions_stand_where_the_step_is() -> None:
    filled = Member("shs-100x100x4", "steel-s235", "epoxy-granite-10")
    assert any("Caution" in line for line in facts("gantry_beam", filled))
    assert any("Caution" in line for line in facts("beam_joint", Joint("weld")))
    assert not any("Caution" in line for line in facts("gantry_beam", Member("shs-100x100x4", "steel-s235")))


def test_one_part_is_replaced() -> None:
    machine = MovingGantry()
    changed = with_part(machine, "beam_joint", Joint("weld", 2))
    assert changed.beam_joint == Joint("weld", 2)
    assert changed.bed is machine.bed
