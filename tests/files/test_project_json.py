"""Project files: whole, strict, versioned, never half-written."""

import json
import os
from collections.abc import Callable
from dataclasses import replace
from importlib.resources import files
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.machines import router
from unterbau.catalogue.joints import OwnValues
from unterbau.catalogue.prices import shipped_prices
from unterbau.errors import InputError, UnterbauError
from unterbau.files.project_json import parse_project, project_text, read_project, schema, write_project
from unterbau.machine.kind import Kind
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import KINDS, kind_of, not_standing
from unterbau.project.edits import rename
from unterbau.project.project import Candidate, Project
from unterbau.structure.parts import Joint, Member, Plate, Stand
from unterbau.ui.shell.file_actions import DEMOS, demo_project

DEMO = (files("unterbau.demo") / "carving-router.unterbau").read_text(encoding="utf-8")
SAMPLE = Path(__file__).parent / "version-1.unterbau"


def test_the_demo_has_four_candidates_and_comes_back_equal() -> None:
    project = parse_project(DEMO)
    assert len(project.candidates) == 4
    assert parse_project(project_text(project)) == project


def test_the_sample_of_version_1_opens() -> None:
    opened = parse_project(SAMPLE.read_text(encoding="utf-8"))
    assert opened.benchmark == "first"
    assert opened.prices == shipped_prices()
    assert opened.cut == "hardwood"


def test_the_sample_of_version_2_opens() -> None:
    opened = parse_project(SAMPLE.with_name("version-2.unterbau").read_text(encoding="utf-8"))
    assert [price.amount for price in opened.prices.prices] == [2.4, 60.0, 45.0]
    assert router(opened.candidates[0].machine).beam_joint.own == OwnValues(120e6, 70e6, 15e3, 6e3, 3.0)
    assert opened.cut == "brass"


def test_the_sample_of_version_3_opens() -> None:
    opened = parse_project(SAMPLE.with_name("version-3.unterbau").read_text(encoding="utf-8"))
    assert [kind_of(c.machine).id for c in opened.candidates] == ["column-mill", "column-mill", "braced-mill"]
    assert opened.brief.cuts == ("brass", "steel-light")


def test_a_bench_of_version_4_was_firm_and_stays_so() -> None:
    opened = parse_project(SAMPLE.with_name("version-4.unterbau").read_text(encoding="utf-8"))
    again = parse_project(SAMPLE.with_name("version-5.unterbau").read_text(encoding="utf-8"))
    assert opened == again
    old = json.loads(SAMPLE.with_name("version-4.unterbau").read_text(encoding="utf-8"))
    benches = [one["machine"].get("stand", {}).get("kind", "bench") for one in old["candidates"]]
    now = [getattr(one.machine, "stand", None) for one in opened.candidates]
    assert "bench" in benches
    assert all(stand is None or stand.kind != "bench" for stand in now)
    sways = replace(router(MovingGantry()), stand=Stand("bench"))
    kept = parse_project(project_text(Project("p", "c", (Candidate("c", sways),))))
    assert router(kept.candidates[0].machine).stand.kind == "bench"


def test_changes_survive_saving_and_one_without_footing_too() -> None:
    text = SAMPLE.with_name("version-6.unterbau").read_text(encoding="utf-8")
    opened = parse_project(text)
    machine = opened.candidate("changed").machine
    assert [one.id for one in machine.changes] == ["brace_1", "panel_1", "weight_1", "left_out_1", "weight_2"]
    assert list(not_standing(machine)) == ["weight_2"]
    assert parse_project(project_text(opened)) == opened
    assert opened.candidate("plain").machine.changes == ()


def test_how_a_screw_is_held_and_how_long_a_motor_runs_survive_saving() -> None:
    opened = parse_project(SAMPLE.with_name("version-9.unterbau").read_text(encoding="utf-8"))
    now, before = router(opened.candidates[0].machine), SAMPLE.with_name("version-8.unterbau")
    assert (now.x_drive.ends, now.x_motor.on) == ("fixed", 90.0)
    shop, name = opened.shop, opened.candidates[0].name
    assert (shop.log[0].photos, shop.cuts[0].finish, shop.orders[0].steps[0]) == (
        ("rails-1a2b3c4d.png",), "marks", "dry-base"
    )  # fmt: skip
    moved = rename(opened, name, "other").shop
    assert {one.candidate for rows in (moved.log, moved.cuts, moved.orders) for one in rows} == {"other"}
    assert parse_project(project_text(opened)) == opened
    then = router(parse_project(before.read_text(encoding="utf-8")).candidates[0].machine)
    assert (then.x_drive.ends, then.x_motor.on) == ("floating", 0.0)
    assert then.side_foot == MovingGantry().side_foot, "sides that stood on their blocks get a foot"


def test_the_shop_survives_saving_and_its_faults_are_named() -> None:
    text = SAMPLE.with_name("version-7.unterbau").read_text(encoding="utf-8")
    opened = parse_project(text)
    shop, name = opened.shop, opened.candidates[0].name
    assert (shop.carried, shop.sawn, shop.wish, shop.pace.hole, shop.printing.walls) == (
        2.2,
        "guillotine",
        "soonest",
        3,
        5,
    )
    assert shop.bought[0].due == "2026-12-03"
    assert parse_project(project_text(opened)) == opened
    renamed = rename(opened, name, "other").shop
    assert {one.candidate for rows in (renamed.bought, renamed.made, renamed.by_hand) for one in rows} == {"other"}
    changes: tuple[tuple[Callable[[Any], object], str], ...] = (
        (lambda shop: shop["offers"][0].update(least=0), "$.shop.offers[0]"),
        (lambda shop: shop["bought"][0].update(due="soon"), "$.shop.bought[0].due"),
        (lambda shop: shop["pace"].update(hole=-1.0), "$.shop.hole"),
        (lambda shop: shop["printing"].update(infill=2.0), "$.shop.infill"),
        (lambda shop: shop.update(carried=99.0), "$.shop.carried"),
        (lambda shop: shop["made"].append(shop["made"][0]), "$.shop.made[1]"),
    )
    for change, where in changes:
        data = json.loads(text)
        change(data["shop"])
        with pytest.raises(InputError) as error:
            parse_project(json.dumps(data))
        assert error.value.where == where


@pytest.mark.parametrize(
    ("path", "value", "where", "problem"),
    [
        (("changes", 0, "sort"), "strut", "changes[0].sort", "got strut"),
        (("changes", 0, "member", "section"), "no-such", "changes[0].member.section", "no-such"),
        (("changes", 1, "corners", 2, "face"), "up", "changes[1].corners[2].face", "expected"),
        (("changes", 2, "hung", "mass"), -1.0, "changes[2].hung.mass", "more than 0"),
        (("changes", 2, "joint", "kind"), "glue", "changes[2].joint.kind", "glue"),
    ],
)
def test_a_fault_in_a_change_is_named(path: tuple[Any, ...], value: Any, where: str, problem: str) -> None:
    data = json.loads(SAMPLE.with_name("version-6.unterbau").read_text(encoding="utf-8"))
    at = data["candidates"][1]["machine"]
    for step in path[:-1]:
        at = at[step]
    at[path[-1]] = value
    with pytest.raises(InputError) as error:
        parse_project(json.dumps(data))
    assert error.value.where == f"$.candidates[1].machine.{where}"
    assert problem in error.value.problem


@pytest.mark.parametrize("name", DEMOS)
def test_every_demo_comes_back_equal(name: str) -> None:
    project = demo_project(name)
    assert parse_project(project_text(project)) == project
    assert len(project.candidates) > 2


@pytest.mark.parametrize("kind", KINDS, ids=lambda k: k.id)
def test_every_kind_is_saved_and_a_fault_in_it_named(kind: Kind) -> None:
    project = Project("p", "c", (Candidate("c", kind.model()),))
    assert parse_project(project_text(project)) == project
    data = json.loads(project_text(project))
    data["candidates"][0]["machine"]["dimensions"]["stop"] = 9.0
    with pytest.raises(InputError) as error:
        parse_project(json.dumps(data))
    assert error.value.where == "$.candidates[0].machine.dimensions.stop"
    data["candidates"][0]["machine"]["colour"] = "red"
    with pytest.raises(InputError) as error:
        parse_project(json.dumps(data))
    assert error.value.where == "$.candidates[0].machine.colour"


def test_a_file_of_an_older_version_is_kept_before_it_is_overwritten(tmp_path: Path) -> None:
    path = tmp_path / "lute.unterbau"
    old = SAMPLE.read_text(encoding="utf-8")
    path.write_text(old, encoding="utf-8")
    copy = write_project(path, read_project(path))
    assert copy == tmp_path / "lute.version-1.unterbau"
    assert copy.read_text(encoding="utf-8") == old
    assert json.loads(path.read_text(encoding="utf-8"))["version"] == 10
    assert write_project(path, read_project(path)) is None
    path.write_text(old.replace("Sample", "Other"), encoding="utf-8")
    assert write_project(path, read_project(path)) == tmp_path / "lute.version-1-2.unterbau"
    assert copy.read_text(encoding="utf-8") == old


def test_a_version_1_file_knows_no_prices() -> None:
    data = json.loads(SAMPLE.read_text(encoding="utf-8"))
    with pytest.raises(InputError, match="unknown key in version 1"):
        parse_project(json.dumps({**data, "prices": {}}))


def test_a_version_3_file_knows_no_sections_of_its_own() -> None:
    data = json.loads(SAMPLE.with_name("version-3.unterbau").read_text(encoding="utf-8"))
    with pytest.raises(InputError, match="unknown key in version 3"):
        parse_project(json.dumps({**data, "sections": []}))


@given(
    st.sampled_from(["shs-60x60x4", "tslot-40L-1x2", "box-160x120x10"]),
    st.sampled_from(["steel-s235", "aluminium-6060"]),
    st.floats(0.004, 0.05),
    st.sampled_from(["weld", "epoxied", "bracket"]),
    st.integers(1, 8),
    st.text(min_size=1, max_size=30).filter(lambda t: bool(t.strip()) and t.isprintable()),
)
def test_any_project_comes_back_equal(section: str, material: str, t: float, kind: str, count: int, name: str) -> None:
    machine = MovingGantry(
        gantry_beam=Member(section, material), side=Plate(t, material), beam_joint=Joint(kind, count)
    )
    project = Project("p", name, (Candidate(name, machine),), "inch")
    assert parse_project(project_text(project)) == project


def changed(path: str, value: object) -> str:
    data = json.loads(DEMO)
    place: Any = data
    *parents, last = path.split("/")
    for part in parents:
        place = place[int(part) if part.isdigit() else part]
    if value == "drop":
        del place[last]
    else:
        place[last] = value
    return json.dumps(data)


FAULTS = [
    ("version", 11, "$.version", "newer Unterbau"),
    ("format", "something", "$.format", "no Unterbau project"),
    ("benchmark", "none", "$.benchmark", "no candidate"),
    ("candidates", [], "$.candidates", "at least one"),
    ("units", "yard", "$.units", "expected"),
    ("candidates/1/name", "bolted slotted profile", "$.candidates[1].name", "twice"),
    ("candidates/1/name", " ", "$.candidates[1].name", "expected a name"),
    ("candidates/0/machine/kind", "boat", "$.candidates[0].machine.kind", "expected"),
    (
        "candidates/0/machine/gantry_beam/section",
        "shs-1",
        "$.candidates[0].machine.gantry_beam.section",
        "no section",
    ),
    (
        "candidates/0/machine/gantry_beam/material",
        "x",
        "$.candidates[0].machine.gantry_beam.material",
        "no material",
    ),
    (
        "candidates/0/machine/gantry_beam/fill",
        "kapok",
        "$.candidates[0].machine.gantry_beam.fill",
        "no material",
    ),
    (
        "candidates/0/machine/side/thickness",
        5.0,
        "$.candidates[0].machine.side.thickness",
        "expected 2 to 120 mm",
    ),
    ("candidates/0/machine/side/thickness", "5", "$.candidates[0].machine.side.thickness", "number"),
    ("candidates/0/machine/side/colour", 5, "$.candidates[0].machine.side.colour", "unknown key"),
    (
        "candidates/0/machine/beam_joint/kind",
        "chewing gum",
        "$.candidates[0].machine.beam_joint.kind",
        "no joint",
    ),
    ("candidates/0/machine/x_guides/block", "99", "$.candidates[0].machine.x_guides.block", "no guide"),
    ("candidates/0/machine/x_guides/preload", "big", "$.candidates[0].machine.x_guides.preload", "expected"),
    ("candidates/0/machine/x_drive/kind", "rope", "$.candidates[0].machine.x_drive.kind", "no drive"),
    (
        "candidates/0/machine/dimensions/travel_x",
        99.0,
        "$.candidates[0].machine.dimensions.travel_x",
        "50 to 6000 mm",
    ),
    ("cut", "cheese", "$.cut", "no cut"),
    ("brief/accuracy", 5.0, "$.brief.accuracy", "expected 0.001 to 10 mm"),
    ("brief/cuts", ["cheese"], "$.brief.cuts", "no cut"),
    ("brief/process", "baking", "$.brief.process", "expected"),
    ("prices/currency", "", "$.prices.currency", "1 to 8 letters"),
    ("prices/prices/0/amount", -1.0, "$.prices.prices[0].amount", "expected 0"),
    (
        "candidates/0/machine/beam_joint",
        {"kind": "own", "count": 1, "own": None},
        "$.candidates[0].machine.beam_joint.own",
        "needs its values",
    ),
    ("candidates/0/machine/spindle/mass", 0.0, "$.candidates[0].machine.spindle.mass", "more than 0"),
]


@pytest.mark.parametrize(("path", "value", "where", "words"), FAULTS)
def test_faults_name_their_place(path: str, value: object, where: str, words: str) -> None:
    with pytest.raises(InputError) as error:
        parse_project(changed(path, value))
    assert error.value.where == where
    assert words in error.value.problem


@pytest.mark.parametrize("cut", [0, 1, 100, 1000, -2])
def test_a_cut_off_file_is_refused_in_a_sentence(cut: int) -> None:
    with pytest.raises(InputError, match="damaged"):
        parse_project(DEMO[:cut])


def test_errors_name_the_file(tmp_path: Path) -> None:
    path = tmp_path / "broken.unterbau"
    path.write_text("{}")
    with pytest.raises(InputError, match=r"broken\.unterbau"):
        read_project(path)
    with pytest.raises(UnterbauError, match="could not be read"):
        read_project(tmp_path / "missing.unterbau")
    path.write_bytes(b"\xff\xfe\x00")
    with pytest.raises(UnterbauError, match="text file"):
        read_project(path)


def test_a_failed_save_leaves_the_old_file(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    path = tmp_path / "p.unterbau"
    project = parse_project(DEMO)
    write_project(path, project)
    before = path.read_text()

    def full(descriptor: int) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(os, "fsync", full)
    with pytest.raises(UnterbauError, match="No space left"):
        write_project(path, replace(project, name="other"))
    assert path.read_text() == before
    assert [p.name for p in tmp_path.iterdir()] == ["p.unterbau"]


def test_a_folder_that_is_not_there_is_said(tmp_path: Path) -> None:
    with pytest.raises(UnterbauError, match="was not written"):
        write_project(tmp_path / "no" / "p.unterbau", parse_project(DEMO))


def test_the_published_schema_is_current() -> None:
    published = Path(__file__).parents[2] / "docs" / "schema" / "project.schema.json"
    assert json.loads(published.read_text(encoding="utf-8")) == schema()
