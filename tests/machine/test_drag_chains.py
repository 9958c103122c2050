"""Drag chains: as long as they have to be, half of their weight at each end, never outside the box that they fill."""

from dataclasses import replace
from math import pi

import numpy as np
import pytest

from unterbau.catalogue.prices import shipped_prices
from unterbau.errors import InputError
from unterbau.files.project_json import parse_project, project_text
from unterbau.machine.alternatives import alternatives
from unterbau.machine.changes.change import Chain, joint_key
from unterbau.machine.kinds.arm_mill import ArmMill
from unterbau.machine.kinds.column_mill import ColumnMill
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import (
    Machine,
    bill_of,
    bodies_of,
    lay_out,
    listed_mass,
    not_standing,
    part,
    to_frame,
    with_part,
)
from unterbau.mechanics.statics import total_mass
from unterbau.project.project import Candidate, Project
from unterbau.solids.solids import solids
from unterbau.structure.bodies import Prism
from unterbau.structure.drag_chain import ChainRun
from unterbau.structure.footing import Footing
from unterbau.structure.parts import DragChain, Joint, Place
from unterbau.structure.spots import stands
from unterbau.structure.weights import joint_mass
from unterbau.studies.answers import likely_answers
from unterbau.studies.clash import clashes

ALONG_X = Chain("chain_1", Footing("X plate", "back", 0.9), Footing("gantry beam", "top", 0.5))
ALONG_Y = Chain("chain_1", Footing("left side", "left", 0.0, 0.3), Footing("left side beam", "left", 0.5))
SADDLE = Chain("chain_1", Footing("saddle", "bottom", 0.0), Footing("base", "left", 0.5))
CASES: tuple[tuple[Machine, Chain, int], ...] = (
    (MovingGantry(), ALONG_X, 0), (MovingGantry(), ALONG_Y, 1), (ColumnMill(), SADDLE, 1),
)  # fmt: skip


def with_chain(machine: Machine, one: Chain) -> tuple[Machine, ChainRun]:
    chained = replace(machine, changes=(one,))
    assert not_standing(chained) == {}
    return chained, next(step for step in lay_out(chained).flat if isinstance(step, ChainRun))


@pytest.mark.parametrize(("machine", "one", "axis"), CASES)
def test_a_chain_is_as_long_as_its_farther_reach_and_half_a_turn(machine: Machine, one: Chain, axis: int) -> None:
    chained, run = with_chain(machine, one)
    structure = lay_out(machine)
    a, b = (stands(structure, spot).place[axis] for spot in (one.a, one.b))
    ends = [structure.way(Place(share, share, share))[axis] for share in (0.0, 1.0)]
    piece = structure.pieces[one.a.piece]
    way = getattr(piece.carrier, "xyz"[axis])
    reach = max(abs(a + way * end - b) for end in ends)
    assert run.length == pytest.approx(reach + pi * one.run.radius, rel=1e-12)
    line = next(item for item in bill_of(chained, shipped_prices()) if item.part == "chain_1")
    assert line.mass == pytest.approx(one.run.per_metre * run.length)
    assert line.length == pytest.approx(run.length)
    assert line.priced
    assert line.money == pytest.approx(14 * run.length)


@pytest.mark.parametrize(("machine", "one", "axis"), CASES)
def test_half_of_it_weighs_at_each_end(machine: Machine, one: Chain, axis: int) -> None:
    chained, run = with_chain(machine, one)
    (mass, centre), (more, moved) = (total_mass(to_frame(m, Place(), "likely").frame) for m in (machine, chained))
    fixing = joint_mass(Joint("bolted-plate"))
    assert more - mass == pytest.approx(run.mass + 2 * fixing)
    assert listed_mass(chained) - listed_mass(machine) == pytest.approx(more - mass, rel=1e-9)
    structure = lay_out(machine)
    way = structure.way(Place())
    places = []
    for spot, at in ((one.a, run.moving), (one.b, run.still)):
        carrier = structure.pieces[spot.piece].carrier
        face = carrier.moved(stands(structure, spot).place, way)
        places.append((np.array(face), np.array(carrier.moved(at, way))))
    by_hand = sum(fixing * face + run.mass / 2 * body for face, body in places)
    assert np.array(moved) * more - np.array(centre) * mass == pytest.approx(by_hand, abs=1e-9)


@pytest.mark.parametrize(("machine", "one", "axis"), CASES)
def test_it_never_leaves_the_box_that_it_fills_and_is_always_as_long(machine: Machine, one: Chain, axis: int) -> None:
    """Runs, bend and all, at eleven places of the head, by their corners; its length summed from what is seen."""
    chained, run = with_chain(machine, one)
    for share in np.linspace(0.0, 1.0, 11):
        place = Place(share, share, share)
        body = next(solid for solid in solids(lay_out(chained), place) if solid.sort == "chain").body
        low, high = body.corners.min(axis=0) - 1e-9, body.corners.max(axis=0) + 1e-9
        seen = [b for b in bodies_of(chained, place) if isinstance(b, Prism) and b.chain == "drag chain 1"]
        lower, upper, bend = seen[:3]
        for prism in (lower, upper, bend):
            for end in (prism.start, prism.end):
                assert np.all(np.array(end) > low), share
                assert np.all(np.array(end) < high), share
        runs = abs(lower.end[axis] - lower.start[axis]) + abs(upper.end[axis] - upper.start[axis])
        assert runs + pi * one.run.radius == pytest.approx(run.length), "it neither stretches nor shrinks"
        assert lower.end[axis] >= lower.start[axis] - 1e-9
        assert upper.end[axis] >= upper.start[axis] - 1e-9


@pytest.mark.parametrize(
    ("machine", "one", "why"),
    [
        (MovingGantry(), Chain("chain_1", Footing("left side", "left"), Footing("gantry beam", "top")), "do not move"),
        (MovingGantry(), replace(ALONG_X, b=Footing("left side beam", "top")), "X and Y"),
        (MovingGantry(), replace(ALONG_X, b=Footing("left side", "left", 0.0)), "would have to reach"),
        (
            replace(ArmMill(), dimensions=replace(ArmMill().dimensions, turn=10)),
            Chain("chain_1", Footing("Z plate", "front"), Footing("head plate", "front")), "turned with its arm",
        ),
    ],
)  # fmt: skip
def test_a_chain_with_nothing_to_follow_says_why_and_stays(machine: Machine, one: Chain, why: str) -> None:
    chained = replace(machine, changes=(one,))
    assert why in not_standing(chained)["chain_1"]
    assert listed_mass(chained) == pytest.approx(listed_mass(machine))


def test_a_chain_in_the_way_is_found_and_found_gone_when_it_is_elsewhere() -> None:
    """Laid along the beam's front it fills the room that the X plate moves in."""
    blocked, _ = with_chain(MovingGantry(), replace(ALONG_X, b=Footing("gantry beam", "front", 0.5)))
    pieces = {name for one in clashes(blocked).found if "chain_1" in one.keys for name in (one.first, one.second)}
    assert {"drag chain 1", "X plate"} <= pieces
    behind, _ = with_chain(MovingGantry(), replace(ALONG_X, b=Footing("gantry beam", "back", 0.5)))
    assert "X plate" not in {
        name for one in clashes(behind).found if "chain_1" in one.keys for name in (one.first, one.second)
    }


def test_a_chain_is_a_part_like_any_and_is_kept_in_the_file() -> None:
    chained, run = with_chain(MovingGantry(), ALONG_X)
    assert part(chained, "chain_1") == ALONG_X.run
    bent = next(one for one in alternatives(chained, "chain_1") if "coolant" in one.text).applied(chained)
    large = next(step for step in lay_out(bent).flat if isinstance(step, ChainRun))
    assert large.mass > 2 * run.mass
    glued = with_part(chained, joint_key(ALONG_X), Joint("epoxied"))
    project = Project("one", candidates=(Candidate("a", glued),), benchmark="a")
    assert parse_project(project_text(project)) == project
    bare, full = (likely_answers(one, Place())[0].compliance for one in (MovingGantry(), chained))
    assert full == pytest.approx(bare, rel=2e-3, abs=1e-9)  # it weighs and stiffens nothing; the plate has a node more


@pytest.mark.parametrize(
    ("run", "where"),
    [
        (DragChain(width=0.001), "changes[0].run.width"), (DragChain(per_metre=0.0), "changes[0].run.per_metre"),
        (DragChain(height=0.1, radius=0.02), "changes[0].run.radius"),
        (DragChain(radius=float("nan")), "changes[0].run.radius"),
    ],
)  # fmt: skip
def test_an_impossible_chain_is_refused_with_its_place(run: DragChain, where: str) -> None:
    with pytest.raises(InputError) as found:
        lay_out(replace(MovingGantry(), changes=(replace(ALONG_X, run=run),)))
    assert found.value.where == where
