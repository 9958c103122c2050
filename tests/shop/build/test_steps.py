"""Steps of a build: none before what it needs, whatever is wished; dates, critical path, hold points; the command."""

import json
from datetime import date, datetime
from itertools import pairwise
from pathlib import Path
from random import Random

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from unterbau.brief.brief import Brief
from unterbau.cli.main import run
from unterbau.errors import InputError
from unterbau.files.project_json import write_project
from unterbau.machine.kind import Kind
from unterbau.machine.machine import KINDS
from unterbau.shop.build.schedule import broken_by, doable, schedule
from unterbau.shop.build.steps import Step
from unterbau.shop.state import ShopState
from unterbau.studies.building import build_schedule, build_steps
from unterbau.ui.shell.file_actions import demo_project

EVENING = datetime(2026, 12, 1, 18)


@pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.id)
def test_every_kind_is_built_in_an_order_that_holds(kind: Kind) -> None:
    steps = build_steps(kind.model(), ShopState(), "a", Brief(tools=("sheet-firm",)), date(2026, 12, 1))
    rows = schedule(steps, EVENING).rows
    assert {one.step.id for one in rows} == {one.id for one in steps}
    ready = {one.step.id: one.ready for one in rows}
    for one in rows:
        assert all(ready[need] <= one.start for need in one.step.needs)
    ids = [one.step.id for one in rows]
    for key in ("x", "y", "z"):
        if f"master-{key}_guides" in ids and f"rail-{key}_guides-2" in ids:
            assert ids.index(f"master-{key}_guides") < ids.index(f"rail-{key}_guides-2")
    rails = [one.hold for one in steps if one.id.startswith("rail-")]
    assert all(hold is not None and 0.0 < hold.within <= 0.2e-3 for hold in rails)
    assert any(one.critical for one in rows)
    assert all("Caution" in one.caution for one in steps if one.id in ("wiring", "homing", "cuts"))


@given(st.integers(0, 5000))
@settings(max_examples=40)
def test_any_wish_and_any_progress_keep_the_order(seed: int) -> None:
    draw = Random(seed)
    steps = tuple(
        Step(str(n), f"step {n}", tuple(str(k) for k in range(n) if draw.random() < 0.25), draw.uniform(0.1, 9.0),
             draw.choice((0.0, 0.0, 30.0)))
        for n in range(10)
    )  # fmt: skip
    order = [one.id for one in steps]
    draw.shuffle(order)
    done: set[str] = set()
    for _ in range(draw.randint(0, 4)):
        can = doable(steps, frozenset(done))
        done |= {draw.choice(can)} if can else set()
    found = schedule(steps, EVENING, 3.0, frozenset(done), tuple(order))
    place = {one.step.id: n for n, one in enumerate(found.rows)}
    for row in found.rows:
        assert all(need in done or place[need] < place[row.step.id] for need in row.step.needs)
        assert row.start < row.end <= row.ready
    hands = sorted((row.start, row.end) for row in found.rows)
    assert all(a[1] <= b[0] for a, b in pairwise(hands)), "one pair of hands"
    wrong = sum(order.index(need) > order.index(one.id) for one in steps for need in one.needs)
    assert len(broken_by(steps, tuple(order))) == wrong


def test_evenings_and_the_critical_path_by_hand() -> None:
    """Three hours an evening: seven hours from the first end on the third; a cure of a day waits beside the rest."""
    steps = (Step("a", "glue", (), 1.0, 24.0), Step("b", "saw", (), 4.0), Step("c", "join", ("a", "b"), 1.0))
    found = {one.step.id: one for one in schedule(steps, EVENING).rows}
    assert found["a"].ready == datetime(2026, 12, 2, 19)
    assert found["b"].end == datetime(2026, 12, 2, 20)
    assert found["c"].start == datetime(2026, 12, 2, 20)
    assert [found[name].critical for name in "abc"] == [True, False, True]
    long = schedule((Step("a", "all", (), 7.0),), EVENING).rows[0]
    assert long.end == datetime(2026, 12, 3, 19)
    with pytest.raises(InputError, match="need one another"):
        schedule((Step("a", "a", ("b",), 1.0), Step("b", "b", ("a",), 1.0)), EVENING)
    with pytest.raises(InputError, match="which is no step"):
        schedule((Step("a", "a", ("z",), 1.0),), EVENING)


def test_the_command(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    path = tmp_path / "mill.unterbau"
    project = demo_project("clock-plate-mill")
    write_project(path, project)
    assert run(["steps", str(path), "--start", "2026-12-01", "--json"]) == 0
    told = json.loads(capsys.readouterr().out)
    by_id = {one["id"]: one for one in told["steps"]}
    assert by_id["pour-mould"]["waits"] > 24 * 5
    assert by_id["rail-y_guides-2"]["hold"]["within"] < 0.1e-3
    assert all(one["start"] >= "2026-12-01" for one in told["steps"])
    assert run(["steps", str(path), "--start", "2026-12-01"]) == 0
    assert "Caution" in capsys.readouterr().out
    steps = build_steps(project.candidates[0].machine, project.shop, project.benchmark, Brief(), date(2026, 12, 1))
    assert build_schedule(steps, project.shop, project.benchmark, date(2026, 12, 1)).ready > EVENING
