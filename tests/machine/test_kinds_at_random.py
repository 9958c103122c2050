"""Machines of every kind with sizes, parts and places drawn at random: built and solved, or refused with a reason."""

from dataclasses import fields, replace
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from unterbau.catalogue.joints import BoltGroup
from unterbau.errors import InputError
from unterbau.machine.kind import Kind
from unterbau.machine.machine import KINDS, bill_of, bodies_of, lay_out, moving_masses, to_frame
from unterbau.mechanics.statics import total_mass
from unterbau.parts_list.bill import total_mass as bill_mass
from unterbau.structure.ends import sawn
from unterbau.structure.parts import Guide, Joint, Member, Place, Plate, Stand
from unterbau.structure.stand import LABELS
from unterbau.studies.answers import likely_answers
from unterbau.studies.compliance import solve, tip_compliance

SECTIONS = st.sampled_from(
    ["shs-60x60x4", "rhs-120x80x5", "tslot-40L-1x2", "box-160x120x10", "flat-80x30", "chs-60.3x4"]
)
MATERIALS = st.sampled_from(["steel-s235", "aluminium-6082", "iron-gjl-250"])
JOINTS = st.sampled_from(["weld", "bracket", "epoxied", "flange", "bolt", "end-tapped"])
BLOCKS = st.sampled_from(["mini-9", "mini-15", "15", "20", "30"])
PLACES = st.builds(Place, st.floats(0, 1), st.floats(0, 1), st.floats(0, 1))


@st.composite
def machines(draw: Any, kind: Kind) -> Any:
    """Draw a machine: three sizes and three parts of another kind than it comes with."""
    machine = kind.model()
    sizes: dict[str, Any] = {}
    for one in draw(st.lists(st.sampled_from(kind.sizes), min_size=1, max_size=3, unique=True)):
        now = getattr(machine.dimensions, one.attribute)
        factor = draw(st.floats(0.6, 1.7))
        sizes[one.attribute] = draw(st.integers(int(one.low), int(one.high))) if one.count else now * factor
    machine = replace(machine, dimensions=replace(machine.dimensions, **sizes))
    names = [f.name for f in fields(machine)]
    for name in draw(st.lists(st.sampled_from(names), min_size=1, max_size=3, unique=True)):
        part = getattr(machine, name)
        match part:
            case Member():
                part = Member(draw(SECTIONS), draw(MATERIALS), turned=draw(st.booleans()))
            case Plate():
                ribs = draw(st.integers(0, 3)) if name in kind.ribbed else 0
                part = Plate(draw(st.floats(0.004, 0.06)), draw(MATERIALS), ribs, draw(st.floats(0.01, 0.1)))
            case Joint():
                gussets = draw(st.integers(0, 2)) if name in kind.gusseted else 0
                bolts = draw(st.none() | st.builds(BoltGroup, overhang=st.sampled_from([0.0, 0.03, 0.06])))
                part = Joint(
                    draw(JOINTS) if bolts is None else "bolts", draw(st.integers(1, 6)), None, bolts, gussets=gussets
                )
            case Guide():
                part = Guide(draw(BLOCKS), draw(st.sampled_from(["light", "medium"])))
            case Stand():
                part = Stand(draw(st.sampled_from(list(LABELS))), draw(st.floats(0.1, 1.2)), draw(st.booleans()))
            case _:
                continue
        machine = replace(machine, **{name: part})
    return machine


def refusal(machine: Any, place: Place) -> InputError | None:
    """Return why a machine cannot be built, or nothing."""
    try:
        to_frame(machine, place, "likely")
    except InputError as error:
        return error
    return None


@pytest.mark.parametrize("kind", KINDS, ids=lambda k: k.id)
@settings(max_examples=15)
@given(st.data())
def test_answered_or_refused(kind: Kind, data: Any) -> None:
    machine, place = data.draw(machines(kind)), data.draw(PLACES)
    problem = refusal(machine, place)
    if problem is not None:
        assert problem.where.startswith("dimensions.") or problem.where.endswith((".gusset_leg", ".overhang"))
        assert "expected" in problem.problem
        return
    mass, centre = total_mass(to_frame(machine, place, "likely").frame)
    hidden = sum(bar.hidden for bar in sawn(lay_out(machine)).values())
    assert bill_mass(bill_of(machine)) + hidden == pytest.approx(mass, rel=1e-9)
    assert np.isfinite(centre).all()
    moving = moving_masses(machine)
    assert all(0 <= moving[axis] < mass for axis in "XYZ")
    answers, solved = likely_answers(machine, place)
    stiffness = 1 / np.diag(answers.compliance)
    assert np.all(stiffness > 0)
    assert np.all(np.linalg.eigvalsh(answers.compliance) > 0)
    assert answers.shares.compliance.sum(axis=(1, 2)) == pytest.approx(1 / stiffness, rel=1e-6)
    assert np.all(answers.shares.compliance > -1e-6 / stiffness.min())
    for body in bodies_of(machine, place):
        name = getattr(body, "chain", None) or f"{getattr(body, 'name', '')} 0,0"
        assert name in solved.built.chains


@pytest.mark.parametrize("kind", KINDS, ids=lambda k: k.id)
@settings(max_examples=8)
@given(PLACES)
def test_same_machine_same_frame_to_the_bit(kind: Kind, place: Place) -> None:
    one, two = (to_frame(kind.model(), place, "low").frame for _ in range(2))
    assert one.nodes.tobytes() == two.nodes.tobytes()
    assert one.beams.A.tobytes() == two.beams.A.tobytes()
    assert one.springs.k.tobytes() == two.springs.k.tobytes()
    assert one.node_names == two.node_names


@pytest.mark.parametrize("kind", KINDS, ids=lambda k: k.id)
def test_soft_joints_are_softer_than_stiff_ones(kind: Kind) -> None:
    """Low, likely, high: the compliance of each level lies below that of the level before, as a matrix."""
    low, likely, high = (tip_compliance(solve(kind.model(), Place(), level)) for level in ("low", "likely", "high"))
    for softer, stiffer in ((low, likely), (likely, high)):
        assert np.linalg.eigvalsh(softer - stiffer).min() > 0
