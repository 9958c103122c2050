"""Searches against brute force, bounds held, what cannot be searched; proposals that meet a brief by a fresh solve."""

import json
from dataclasses import replace
from itertools import product
from pathlib import Path

import numpy as np
import pytest

from unterbau.brief.brief import Brief
from unterbau.brief.targets import targets
from unterbau.catalogue.prices import shipped_prices
from unterbau.cli.main import run
from unterbau.errors import InputError
from unterbau.files.project_json import write_project
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import cost_of, listed_mass, to_frame
from unterbau.progress import Cancelled, Silent
from unterbau.structure.parts import Place, Stand
from unterbau.studies.answers import answers
from unterbau.studies.budget import budget
from unterbau.studies.compliance import solve_tip
from unterbau.studies.designs import Bounds, Design, Free, _screened, changed_by, tried_alone, tried_together
from unterbau.studies.propose import propose, suitable
from unterbau.studies.search import search
from unterbau.ui.shell.file_actions import demo_project

MACHINE, BOOK = MovingGantry(), shipped_prices()
FREE = (
    Free("gantry_beam", "section", ("rhs-80x40x4", "shs-80x80x4", "rhs-120x80x5")),
    Free("x_plate", "thickness", (0.012, 0.02)),
    Free("dimensions", "x_stance", (0.1, 0.15, 5.0)),
)


def test_the_front_is_that_of_brute_force() -> None:
    found = search(MACHINE, FREE, Bounds(), "stiffest", BOOK, 120.0)
    assert found.whole
    assert found.tried == found.of == 18
    assert found.impossible == 6, "a stance of five metres"
    rows = []
    for choice in product(*(one.values for one in FREE)):
        if choice[2] == 5.0:
            continue
        machine = changed_by(MACHINE, FREE, choice)
        stiff = 1 / np.diag(solve_tip(to_frame(machine, Place(), "likely")))
        rows.append((choice, float(stiff.min()), listed_mass(machine), cost_of(machine, BOOK).money))
    front = {
        one[0] for one in rows
        if not any(b[1] >= one[1] and b[2] <= one[2] and b[3] <= one[3] and b[1:] != one[1:] for b in rows)
    }  # fmt: skip
    assert {one.design.choice for one in found.unbeaten} == front
    weakest = [one.design.weakest for one in found.unbeaten]
    assert weakest == sorted(weakest, reverse=True)
    first = found.unbeaten[0]
    fresh = answers(first.design.machine, Place())
    assert first.worst[1].likely == pytest.approx(fresh.worst[1].likely)
    assert all(5.0 not in one.design.choice for one in found.unbeaten)


def test_two_processes_find_what_one_finds_and_leave_nothing_behind() -> None:
    told: list[int] = []

    class Counting(Silent):
        def step(self, done: int, total: int, text: str) -> None:
            told.append(done)
            if len(told) == 3:
                raise Cancelled

    few, tried = FREE[:2], dict[tuple[int, ...], Design | None]()
    with pytest.raises(Cancelled):
        search(MACHINE, few, Bounds(), "stiffest", BOOK, 120.0, None, Counting(), tried, 2)
    assert len(tried) == 2
    found = search(MACHINE, few, Bounds(), "stiffest", BOOK, 120.0, tried=tried, processes=2)
    alone = search(MACHINE, few, Bounds(), "stiffest", BOOK, 120.0)
    assert found.whole
    assert [one.design.choice for one in found.unbeaten] == [one.design.choice for one in alone.unbeaten]
    assert found.unbeaten[0].design.stiffness == alone.unbeaten[0].design.stiffness


def test_bounds_and_goals_are_kept() -> None:
    few = (FREE[0],)
    light = search(MACHINE, few, Bounds(), "lightest", BOOK, 120.0).unbeaten[0].design
    bounded = search(MACHINE, few, Bounds(mass=light.mass + 1.0), "stiffest", BOOK, 120.0)
    assert all(one.design.mass <= light.mass + 1.0 for one in bounded.unbeaten)
    with pytest.raises(InputError, match="can be built within them"):
        search(MACHINE, FREE, Bounds(mass=1.0), "stiffest", BOOK, 120.0)
    for wrong, where in (
        (Free("nothing", "a", (1,)), "free.nothing"), (Free("x_plate", "colour", (1,)), "free.x_plate.colour"),
        (Free("x_plate", "thickness", ()), "free.x_plate.thickness"),
    ):  # fmt: skip
        with pytest.raises(InputError) as error:
            search(MACHINE, (wrong,), Bounds(), "stiffest", BOOK)
        assert error.value.where == where


def test_the_command_reads_a_space(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    path, space = tmp_path / "a.unterbau", tmp_path / "space.json"
    write_project(path, demo_project("carving-router"))
    told = {"free": {"x_plate": {"thickness": {"from": 0.012, "to": 0.02, "steps": 2}}}, "goal": "cheapest"}
    space.write_text(json.dumps(told), encoding="utf-8")
    assert run(["search", str(path), str(space), "--seconds", "20", "--json"]) == 0
    data = json.loads(capsys.readouterr().out)
    assert data["tried"] == data["of"] == 2
    assert "x_plate.thickness" in data["unbeaten"][0]["values"]
    for wrong, where in (
        ("{", "expected JSON"), ('{"free": []}', "$.free"), ('{"free": {}, "goal": "nice"}', "$.goal"),
        ('{"free": {"a": {"b": {"from": 1}}}}', "$.free.a.b"), ('{"free": {}, "more": 1}', "$.more"),
        ('{"free": {}, "bounds": {"mass": -1}}', "$.bounds.mass"),
    ):  # fmt: skip
        space.write_text(wrong, encoding="utf-8")
        assert run(["search", str(path), str(space)]) == 2
        assert where in capsys.readouterr().err


def test_proposals_meet_an_easy_brief_by_a_fresh_solve() -> None:
    brief = Brief(cuts=("softwood",), accuracy=3e-4, work_x=0.5, work_y=0.4, work_z=0.05, lift=40.0, tools=("weld",))
    found = propose(brief, BOOK, 4.0, None, ("slab-router", "moving-gantry-router", "arm-mill"))
    assert found.met
    assert len(found.proposals) == 3
    assert len({one.kind.id for one in found.proposals}) == len(found.proposals)
    wanted = targets(brief).stiffness
    for one in found.proposals:
        fresh = answers(one.machine, Place())
        reaches = min(band.likely / target for band, target in zip(fresh.worst, wanted, strict=True) if target)
        assert one.reaches == pytest.approx(reaches)
        conflicts = budget(one.machine, brief, BOOK).conflicts
        assert one.meets == (reaches >= 1.0 and not conflicts)
        assert one.hours > 5.0
        assert len(one.reasons) == 3


def test_a_brief_that_cannot_be_met_says_what_it_would_take(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    brief = Brief(cuts=("hardwood",), accuracy=2e-6, work_x=1.5, work_y=1.0, money=300.0)
    found = propose(brief, BOOK, 2.0, None, ("slab-router",))
    assert not found.met
    assert any("costs most" in words and "would do" in words for words in found.instead)
    assert any(words.startswith("the money:") for words in found.instead)
    assert [kind.id for kind in suitable(Brief(cuts=("turn-steel-fine",)))] in ([], ["lathe"])
    project = replace(demo_project("carving-router"), brief=brief)
    write_project(tmp_path / "a.unterbau", project)
    assert run(["propose", str(tmp_path / "a.unterbau"), "--seconds", "1", "--kind", "slab-router", "--json"]) == 0
    data = json.loads(capsys.readouterr().out)
    assert data["met"] is False
    assert data["instead"]
    assert data["proposals"][0]["machine"]["kind"]


JOINTS = (
    Free("gantry_beam", "section", ("rhs-80x40x4", "rhs-120x80x5")),
    Free("beam_joint", "kind", ("epoxied", "weld", "gusset", "bolted-plate")),
    Free("beam_joint", "count", (1, 2)),
    Free("cross_joint", "kind", ("epoxied", "bracket", "weld")),
    Free("spindle_mount", "kind", ("clamp", "printed")),
)
PICKS = tuple(product((1,), *(range(len(one.values)) for one in JOINTS[1:])))


@pytest.mark.parametrize("machine", [MACHINE, replace(MACHINE, stand=Stand("firm"))], ids=["bench", "firm"])
def test_designs_that_differ_in_joints_are_what_they_are_alone(machine: MovingGantry) -> None:
    """All 48 from one solve, rigid ones among them: stiffness to 1e-8, mass and money exactly."""
    asked = (machine, JOINTS, Bounds(), BOOK, Place())
    told = _screened(*asked, PICKS)
    assert told is not None, "these differ in springs alone"
    assert [one for one, _ in told] == list(PICKS)
    for picked, one in told[::7]:
        alone = tried_alone(*asked, picked)
        assert one is not None
        assert alone is not None
        assert (one.machine, one.choice) == (alone.machine, alone.choice)
        assert one.stiffness == pytest.approx(alone.stiffness, rel=1e-8)
        assert (one.mass, one.money) == pytest.approx((alone.mass, alone.money), rel=1e-12)


def test_bounds_hold_for_them_too_and_what_is_more_than_springs_is_tried_alone() -> None:
    asked = (MACHINE, JOINTS, Bounds(), BOOK, Place())
    masses = sorted(one.mass for _, one in tried_together(*asked, PICKS) if one is not None)
    bound = (masses[0] + masses[-1]) / 2
    held = dict(tried_together(MACHINE, JOINTS, Bounds(mass=bound), BOOK, Place(), PICKS))
    assert sum(one is not None for one in held.values()) == sum(mass <= bound for mass in masses)
    other = Free("beam_joint", "gussets", (0, 1, 2))  # these are plates of their own
    more = tuple((n,) for n in range(3))
    assert _screened(MACHINE, (other,), Bounds(), BOOK, Place(), more * 2) is None
    assert all(one is not None for _, one in tried_together(MACHINE, (other,), Bounds(), BOOK, Place(), more))


def test_a_search_with_joints_finds_what_brute_force_finds() -> None:
    free = (*JOINTS[:2], JOINTS[4])
    found = search(MACHINE, free, Bounds(), "stiffest", BOOK, 120.0)
    assert (found.whole, found.tried, found.impossible) == (True, 16, 0)
    every = [tried_alone(MACHINE, free, Bounds(), BOOK, Place(), one) for one in product(range(2), range(4), range(2))]
    rows = [(one.weakest, one.mass, one.money, one.choice) for one in every if one is not None]
    front = {
        one[3] for one in rows
        if not any(b[0] >= one[0] * (1 + 1e-7) and b[1] <= one[1] and b[2] <= one[2] for b in rows)
    }  # fmt: skip
    assert {one.design.choice for one in found.unbeaten} <= front
    assert max(one[0] for one in rows) == pytest.approx(found.unbeaten[0].design.weakest, rel=1e-8)
