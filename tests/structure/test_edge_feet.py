"""Foot plates between blocks and the edge of what stands on them: their places, their screws, their give by hand."""

from dataclasses import replace
from math import prod

import numpy as np
import pytest

from unterbau.catalogue.guides import block
from unterbau.catalogue.joints import BoltGroup, OwnValues
from unterbau.catalogue.screws import screw_size
from unterbau.machine.kinds.light_table import LightTable
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.kinds.raised_sides import RaisedSides
from unterbau.machine.kinds.slab_router import SlabRouter
from unterbau.machine.machine import Machine, bill_of, lay_out
from unterbau.shop.pieces import pieces_of
from unterbau.structure.join import Join
from unterbau.structure.motion import Blocks
from unterbau.structure.parts import Guide, Joint, Place, Plate
from unterbau.structure.piece import PlatePiece
from unterbau.structure.screws import Screw, screws_of
from unterbau.structure.structure import Structure
from unterbau.studies.answers import likely_answers
from unterbau.studies.shares import shares

MIDDLE = Place(0.5, 0.5, 0.0)
STANDING = (MovingGantry(), RaisedSides(), SlabRouter(), LightTable())
each = pytest.mark.parametrize("machine", STANDING, ids=lambda machine: machine.kind)


def plates(structure: Structure, side: str = "left side") -> tuple[PlatePiece, PlatePiece]:
    foot, standing = structure.pieces[f"foot of {side}"], structure.pieces[side]
    assert isinstance(foot, PlatePiece)
    assert isinstance(standing, PlatePiece)
    return foot, standing


def edge_screws(structure: Structure) -> list[Screw]:
    return [one for one in screws_of(structure) if one.of == "left side on foot of left side"]


@each
def test_blocks_foot_and_edge_lie_on_one_another(machine: Machine) -> None:
    structure = lay_out(machine)
    foot, side = plates(structure)
    carried = next(one for one in structure.flat if isinstance(one, Blocks) and one.plate == foot.name)
    top = carried.seats[0][1][2] + block(machine.y_guides.block).height  # type: ignore[union-attr]
    assert foot.start[2] - foot.height / 2 == pytest.approx(top)
    assert side.start[2] == pytest.approx(top + foot.height)
    assert foot.size == pytest.approx((side.width, block(machine.y_guides.block).width), abs=0.02)  # type: ignore[union-attr]
    made = {name: one for one in pieces_of(structure) for name in one.names}
    assert made[foot.name].mass == pytest.approx(2660 * foot.height * prod(foot.size), rel=1e-9)


@each
def test_screws_go_through_the_foot_into_the_edge(machine: Machine) -> None:
    structure = lay_out(machine)
    foot, side = plates(structure)
    found = edge_screws(structure)
    assert len(found) == 4
    for one in found:
        assert one.out == pytest.approx((0.0, 0.0, -1.0)), "taken out downwards"
        assert one.head[2] == pytest.approx(foot.start[2] - foot.height / 2)
        assert abs(one.head[0] - side.start[0]) <= side.height / 2 - screw_size(one.size).d
        assert (one.through, one.into) == (foot.name, side.name)


def test_they_are_over_the_blocks_where_these_are_screwed_in_beside_the_plate_and_between_them_else() -> None:
    thin, thick = MovingGantry(), replace(MovingGantry(), side=Plate(0.04, "aluminium-5083"))
    for machine, over in ((thin, True), (thick, False)):
        structure = lay_out(machine)
        carried = next(one for one in structure.flat if isinstance(one, Blocks) and one.plate == "foot of left side")
        half = block("20").length / 2
        for one in edge_screws(structure):
            assert over == any(abs(one.head[1] - seat[1]) < half for _, seat in carried.seats)


def test_blocks_without_screws_of_their_own_have_no_foot() -> None:
    structure = lay_out(replace(LightTable(), y_guides=Guide("bearings-angle")))
    assert "foot of left side" not in structure.pieces
    assert any(isinstance(one, Blocks) and one.plate == "left side" for one in structure.flat)


def test_what_soft_screws_add_by_hand() -> None:
    """Two sides on four screws each: a pull along Z in the middle of the beam goes into eight springs alike, and its
    moment about X into those before and behind: 1/(8·k) + a²/(k·Σy²). All else is as stiff as it was."""
    soft, firm = 2e5, 2e8

    def give(k: float) -> float:
        own = OwnValues(normal=k, shear=firm, bend=1.0, twist=1.0, spread=2.0)
        machine = replace(MovingGantry(), side_foot=Joint("own", 2, own, across=1))
        return float(likely_answers(machine, MIDDLE)[0].compliance[2, 2])

    structure = lay_out(replace(MovingGantry(), side_foot=Joint("own", 2, OwnValues(), across=1)))
    joins = [one for one in structure.flat if isinstance(one, Join) and one.key == "side_foot"]
    assert len(joins) == 8
    _, side = plates(structure)
    lever = structure.tip.place[1] - side.start[1]
    arms = sum((one.a.place[1] - side.start[1]) ** 2 for one in joins)
    wanted = (1 / 8 + lever**2 / arms) * (1 / soft - 1 / firm)
    assert give(soft) - give(firm) == pytest.approx(wanted, rel=0.05)


def test_its_share_is_told_and_a_bond_takes_much_of_it() -> None:
    def share(chosen: Joint) -> float:
        machine = replace(MovingGantry(), side=Plate(0.04, "aluminium-5083"), side_foot=chosen)
        told = shares(machine, likely_answers(machine, MIDDLE)[1])
        return float(np.sum(told.compliance[2, told.keys.index("side_foot")]))

    dry = BoltGroup("M6", 1, 2, 0.015)
    screwed, glued = (share(Joint("bolts", bolts=one)) for one in (dry, replace(dry, bonded=True)))
    assert 0.0 < glued < 0.6 * screwed, "what is left is the foot itself, between blocks and screws"
    assert 0.0 < share(Joint("epoxied")) < 0.6 * screwed


def test_a_bond_along_the_edge_is_one_joint_with_its_screws() -> None:
    machine = replace(MovingGantry(), side_foot=Joint("epoxied"))
    (line,) = [one for one in bill_of(machine) if one.part == "side_foot" and "epoxied" in one.text]
    assert line.count == 2, "one to a side"
    found = edge_screws(lay_out(machine))
    _, side = plates(lay_out(machine))
    assert len(found) == round(side.width / 0.1) == 3
    assert max(abs(one.head[1] - side.start[1]) for one in found) < side.width / 2
