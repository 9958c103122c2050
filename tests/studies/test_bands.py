"""Bands from one solution against full samples of the same scatter, and what they must not do."""

import json
from importlib.resources import files
from pathlib import Path

import numpy as np
import pytest

from unterbau.files.project_json import parse_project
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.materials.material import material
from unterbau.materials.scatter import scatter
from unterbau.structure.parts import Joint, Place
from unterbau.studies.answers import answers
from unterbau.studies.bands import components, pieces
from unterbau.studies.compliance import droop, solve, tip_compliance
from unterbau.studies.loads import TIP, WEIGHT
from unterbau.studies.spread import spread

DEMO = parse_project((files("unterbau.demo") / "carving-router.unterbau").read_text(encoding="utf-8"))
SAMPLED = {"bolted slotted profile": 200, "steel tube, epoxied sides": 200}
ENDS = 0.1
STORED = json.loads((Path(__file__).with_name("sampled_bands.json")).read_text(encoding="utf-8"))


@pytest.mark.parametrize("name", SAMPLED)
def test_ends_lie_where_full_samples_end(name: str) -> None:
    """5 % and 95 % of 200 machines solved afresh, every joint, guide, drive, material drawn on its own; within 10 %."""
    machine = next(one.machine for one in DEMO.candidates if one.name == name)
    found, full = answers(machine, Place()), spread(machine, Place(), SAMPLED[name])
    for axis, letter in enumerate("xyz"):
        ours, theirs = found.stiffness[axis], full.band(letter)
        assert ours.low == pytest.approx(theirs.low, rel=ENDS)
        assert ours.high == pytest.approx(theirs.high, rel=ENDS)
    first, sampled = found.modes[0].frequency, full.band("mode")
    assert (first.low, first.high) == pytest.approx((sampled.low, sampled.high), rel=ENDS)


@pytest.mark.parametrize("name", STORED["bands"])
def test_ends_lie_where_the_stored_samples_of_every_demo_end(name: str) -> None:
    """`./dev bands`: some hundred machines each, solved afresh; within 10 %, and the scatter of such samples."""
    demo, _, candidate = name.partition("|")
    project = parse_project((files("unterbau.demo") / demo).read_text(encoding="utf-8"))
    machine = next(one.machine for one in project.candidates if one.name == candidate)
    found = answers(machine, Place())
    theirs = STORED["bands"][name]
    for axis, letter in enumerate("xyz"):
        assert (found.stiffness[axis].low, found.stiffness[axis].high) == pytest.approx(theirs[letter], rel=ENDS)
    first = found.modes[0].frequency
    assert (first.low, first.high) == pytest.approx(theirs["mode"], rel=ENDS)
    assert 0.0 < found.droop.low <= found.droop.likely <= found.droop.high


def test_parts_sum_to_what_is_spread() -> None:
    """Twice the mutual energy of two movements is the one's loads along the other: unit-load theorem."""
    machine = MovingGantry()
    solved = solve(machine, Place(), "likely")
    u = solved.statics.u
    assert components(solved, u[TIP], u[TIP]).sum(axis=(1, 2)) == pytest.approx(
        np.diag(tip_compliance(solved)), rel=1e-9
    )
    sinks = components(solved, u[2:3], u[WEIGHT : WEIGHT + 1]).sum()
    assert sinks == pytest.approx(droop(solved), rel=0.02)  # beams sag between their nodes besides


def test_what_is_certain_does_not_widen_the_band() -> None:
    loose, tight = (
        answers(MovingGantry(beam_joint=Joint(kind), cross_joint=Joint(kind)), Place()) for kind in ("bracket", "weld")
    )
    widths = [one.stiffness[1].high / one.stiffness[1].low for one in (loose, tight)]
    assert widths[0] > 1.1 * widths[1]


def test_the_same_draws_serve_every_candidate() -> None:
    one, two = (pieces(MovingGantry(), place) for place in (Place(), Place(0.2, 0.8, 0.4)))
    same = np.isclose(one.flexibility, two.flexibility, rtol=1e-9, atol=0.0).all(axis=2)
    assert same.mean() > 0.95  # drives scatter by where their nut stands


def test_materials_scatter_by_kind() -> None:
    """Metals a few per cent, timber 15 %, a mix tamped by hand 15 to 25 GPa of 30 (from memory)."""
    assert scatter(material("steel-s235")).high == pytest.approx(1.03)
    assert scatter(material("birch-ply")).low == pytest.approx(0.85)
    tamped = scatter(material("epoxy-granite-10"))
    assert 15 <= 30 * tamped.low <= 25
    assert 28 <= 30 * tamped.high <= 33
