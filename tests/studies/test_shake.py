"""Modes in words, receptance of whole machines, hurry, samples, the cut that an error allows."""

from dataclasses import replace

import numpy as np
import pytest

from unterbau.catalogue.cuts import cuts
from unterbau.machine.kind import Kind
from unterbau.machine.kinds.column_mill import ColumnMill
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import KINDS, lay_out, links
from unterbau.mechanics.statics import total_mass
from unterbau.progress import Cancelled, Silent
from unterbau.structure.ends import sawn
from unterbau.structure.parts import Joint, Member, Place, Plate, Stand
from unterbau.studies.compliance import solve, tip_compliance
from unterbau.studies.cutting import ToolLimits, bearable, force_at, moved_by, tool_limits
from unterbau.studies.hurry import hurry, moved_nodes
from unterbau.studies.shake import shaking, tapped
from unterbau.studies.spread import QUANTITIES, spread
from unterbau.studies.stability import chatter


@pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.id)
def test_every_kind_shakes_in_words(kind: Kind) -> None:
    found = shaking(kind.model(), Place())
    frequencies = [one.frequency for one in found.swings]
    assert frequencies == sorted(frequencies)
    known = {one.key for one in links(kind.model())} | {"feet"}
    for swing in found.swings:
        assert swing.strains in known
        assert 0.0 < swing.strained <= 1.0
        assert 0.0 < swing.zeta < 0.1
        assert np.abs(swing.shape[:, :3]).max() >= 1.0 - 1e-9
        assert any(word in swing.moves for word in ("sway", "bob", "nod", "rock", "swing", "bend"))
    assert found.tool[0].real == pytest.approx(tip_compliance(found.solved), rel=1e-9)


def test_the_side_plates_of_a_tall_gantry_let_it_sway() -> None:
    tall = replace(MovingGantry(), side=Plate(0.008, "aluminium-5083"), stand=Stand("firm"))
    swing = next(one for one in shaking(tall, Place()).swings if one.strains == "side")
    assert "gantry beam" in swing.moves
    assert "sway sideways" in swing.moves


def test_a_filled_beam_is_damped_more() -> None:
    """Modal strain energy: where the fill strains, its loss counts (this is where fill shows)."""
    light = replace(MovingGantry(), gantry_beam=Member("rhs-60x40x3", "steel-s235"), beam_joint=Joint("weld"))
    filled = replace(light, gantry_beam=Member("rhs-60x40x3", "steel-s235", "epoxy-granite-10"))
    bare, heavy = shaking(light, Place()), shaking(filled, Place())
    beams = [one.solved.built.frame for one in (bare, heavy)]
    of_beam = [frame.beams.zeta[frame.beams.group == frame.groups.index("gantry_beam")][0] for frame in beams]
    assert of_beam[1] > 5 * of_beam[0]


def test_chatter_is_worse_where_the_machine_is_softer() -> None:
    soft, stiff = shaking(MovingGantry(), Place()), shaking(ColumnMill(), Place())
    for name in ("hardwood", "aluminium"):
        a, b = chatter(soft, cuts()[name]), chatter(stiff, cuts()[name])
        assert a is not None
        assert b is not None
        assert a.floor < b.floor
        assert a.floor <= a.depth
        assert a.lobes.min() >= a.floor * (1 - 1e-6)
        assert a.turns == cuts()[name].engagement.turns
    assert chatter(soft, cuts()["turn-steel"]) is None


def test_tapping_a_node_meets_its_static_give() -> None:
    found = shaking(MovingGantry(), Place())
    node = found.solved.built.chains["gantry beam"][4]
    H = tapped(found, node)
    assert H.shape == (len(found.frequency), 3, 3)
    assert H[0].imag == pytest.approx(np.zeros((3, 3)), abs=1e-15)
    assert np.abs(H[:, 0, 0]).max() > 3 * H[0, 0, 0].real


@pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.id)
def test_what_an_axis_moves_is_what_the_list_of_parts_says(kind: Kind) -> None:
    """Mass of the nodes that hang on an axis by guides and drive alone, against the list's moving mass."""
    machine = kind.model()
    frame = solve(machine, Place(), "likely").built.frame
    for one in hurry(machine, Place()):
        moved = moved_nodes(frame, one.axis)
        keep = moved[frame.beams.i]
        light = replace(
            frame,
            beams=replace(frame.beams, rho=frame.beams.rho * keep),
            masses=replace(frame.masses, m=frame.masses.m * moved[frame.masses.node]),
            plates=tuple(plate for plate in frame.plates if moved[plate.patches[0]]),
        )
        mass, _ = total_mass(light)
        bars = sawn(lay_out(machine)).values()
        hidden = sum(bar.hidden for bar in bars if one.axis.upper() in bar.bar.carrier.axes)
        assert mass == pytest.approx(one.mass + hidden, rel=1e-9)
        assert one.left_behind.low < one.left_behind.likely < one.left_behind.high
        assert one.bearable(one.error(2.0).likely) == pytest.approx(2.0)


def test_hurrying_leaves_the_tool_behind() -> None:
    """At least m·a over the drive's own stiffness; the tool goes against the acceleration."""
    x = hurry(MovingGantry(), Place())[0]
    assert x.axis == "x"
    assert x.direction[0] < -0.9
    assert x.force(3.0) == pytest.approx(3.0 * x.mass)


def test_samples_lie_within_all_low_and_all_high() -> None:
    found = spread(MovingGantry(), Place(), samples=60)
    ends = [tip_compliance(solve(MovingGantry(), Place(), level)) for level in ("low", "high")]
    for axis, name in enumerate("xyz"):
        band = found.band(name)
        assert 1 / ends[0][axis, axis] < band.low < band.likely < band.high < 1 / ends[1][axis, axis] * 1.02
        keys = [key for key, _ in found.most(name)]
        assert len(keys) == 3
    assert found.values.shape == (60, len(QUANTITIES))
    assert (
        spread(MovingGantry(), Place(), samples=5).values.tolist()
        == spread(MovingGantry(), Place(), samples=5).values.tolist()
    )


def test_what_is_certain_does_not_scatter() -> None:
    """A welded, heavy machine on one loose joint: that joint explains the spread."""
    loose = replace(MovingGantry(), beam_joint=Joint("bracket"), cross_joint=Joint("weld"))
    found = spread(loose, Place(), samples=80)
    assert found.most("x", 1)[0][0] == "beam_joint"


def test_samples_can_be_stopped() -> None:
    class Stop(Silent):
        def step(self, done: int, total: int, text: str) -> None:
            if done == 2:
                raise Cancelled

    with pytest.raises(Cancelled):
        spread(MovingGantry(), Place(), progress=Stop())


@pytest.mark.parametrize("name", ["hardwood", "aluminium", "turn-steel"])
def test_the_cut_that_an_error_allows_makes_that_error(name: str) -> None:
    cut, compliance = cuts()[name], 1 / 2e6
    found = bearable(cut, compliance, 5e-5, ENDLESS)
    assert found.ends_by == "the error"
    assert force_at(cut, found.depth) * compliance == pytest.approx(5e-5, rel=1e-6)
    assert found.force.likely == pytest.approx(100.0)
    assert force_at(cut, found.usual) == pytest.approx(cut.peak, rel=0.02)
    assert moved_by(cut, compliance).likely == pytest.approx(cut.peak / 2e6)
    assert bearable(cut, compliance, 1.0, ENDLESS).depth == pytest.approx(0.1)


ENDLESS = ToolLimits(0.1, 0.1, 1.0, 1e12, 1e9, 0.0)


def test_a_cut_ends_by_flutes_power_torque_or_strength_whichever_is_first() -> None:
    """Aluminium, ⌀8: each limit by hand; the depth is never more than the tool's edge."""
    machine, cut = MovingGantry(), cuts()["aluminium"]
    e, stiff = cut.engagement, 1e-12
    tool = tool_limits(machine, cut)
    assert tool.edge == pytest.approx(min(3.5 * e.diameter, machine.cutter.stick_out))
    assert bearable(cut, stiff, 1e-3, replace(tool, power=1e9, strength=1e12)).ends_by == "the flutes' length"
    weak = bearable(cut, stiff, 1e-3, replace(tool, power=100.0, strength=1e12))
    assert weak.ends_by == "the spindle's power"
    assert weak.depth * cut.mean / e.depth * np.pi * e.diameter * e.turns == pytest.approx(100.0)
    limp = bearable(cut, stiff, 1e-3, replace(tool, power=1e9, torque=0.1, strength=1e12))
    assert limp.ends_by == "the spindle's torque"
    assert limp.depth * cut.mean / e.depth * e.diameter / 2 == pytest.approx(0.1)
    brittle = bearable(cut, stiff, 1e-3, replace(tool, power=1e9, strength=2e8))
    assert brittle.ends_by == "the tool's strength"
    stress = force_at(cut, e.depth) / e.depth * brittle.depth * tool.stick_out / (np.pi * tool.root**3 / 32)
    assert stress == pytest.approx(2e8)
