"""Holes near an edge: what the rule asks for, and that machines of all kinds keep it by themselves."""

from dataclasses import replace

import pytest

from unterbau.machine.kind import Kind
from unterbau.machine.kinds.arm_mill import ArmMill
from unterbau.machine.kinds.fixed_bridge import FixedBridge
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import KINDS, lay_out
from unterbau.materials.edge_distance import least_edge
from unterbau.shop.pieces import pieces_of
from unterbau.studies.purchase.edges import edge_checks

NEAR_BY_DEFAULT = {"lathe": "cross_slide"}
"""The lathe's tool post stands on the end of its slide; two of its bolts have to be seen to."""


@pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.id)
def test_plates_have_room_for_their_holes(kind: Kind) -> None:
    near = {check.key for check in edge_checks(kind.model(), "mm")}
    assert near == {key for name, key in NEAR_BY_DEFAULT.items() if name == kind.id}


def test_the_x_plate_reaches_beyond_the_screws_of_its_blocks() -> None:
    for made_of in ("aluminium-5083", "petg"):
        machine = MovingGantry()
        machine = replace(machine, x_plate=replace(machine.x_plate, material=made_of))
        plate = next(one for one in pieces_of(lay_out(machine)) if "X plate" in one.names)
        room = min(min(hole.x, plate.length - hole.x) for hole in plate.holes if hole.of == "X plate on x guides")
        assert room == pytest.approx(least_edge(made_of, 0.004))


def test_the_sides_of_a_bridge_reach_over_all_of_its_foot() -> None:
    side = next(one for one in pieces_of(lay_out(FixedBridge())) if "left side" in one.names)
    assert all(0.0 < hole.x < side.length and 0.0 < hole.y < side.width for hole in side.holes)


def test_a_hole_outside_its_plate_fails_and_says_so_in_inches_too() -> None:
    machine = next(kind for kind in KINDS if kind.id == "lathe").model()
    (check,) = edge_checks(machine, "mm")
    assert check.verdict == "fail"
    assert "outside its edge" in check.asked
    assert "in" in edge_checks(machine, "inch")[0].asked.split()


@pytest.mark.parametrize("turn", [-8, 5, 12])
def test_a_turned_arm_is_drilled_as_a_straight_one(turn: int) -> None:
    straight, turned = ArmMill(), ArmMill()
    turned = replace(turned, dimensions=replace(turned.dimensions, turn=turn))

    def holes(machine: ArmMill) -> list[tuple[object, ...]]:
        return sorted(
            (one.names, hole.face, round(hole.x, 6), round(hole.y, 6), hole.screw, hole.sort)
            for one in pieces_of(lay_out(machine))
            for hole in one.holes
            if any(word in name for name in one.names for word in ("head plate", "Z plate"))
        )

    assert holes(straight)
    assert holes(turned) == holes(straight)
