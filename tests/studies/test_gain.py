"""What a fill gains: the table of filled tubes, before and after on machines, hollows by hand; the command."""

import json
from pathlib import Path

import pytest

from unterbau.catalogue.cuts import cut
from unterbau.catalogue.prices import shipped_prices
from unterbau.cli.main import run
from unterbau.errors import InputError
from unterbau.files.project_json import write_project
from unterbau.machine.kind import Kind
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import KINDS, bill_of, lay_out, with_part
from unterbau.materials.material import material
from unterbau.sections.section import section
from unterbau.shop.pour.cavity import cavities_of
from unterbau.shop.pour.listed import with_pours
from unterbau.shop.pour.plan import PourPlan
from unterbau.structure.ends import sawn
from unterbau.structure.parts import Member
from unterbau.studies.gain import gain
from unterbau.ui.shell.file_actions import demo_project

TUBE = with_part(MovingGantry(), "gantry_beam", Member("rhs-120x80x5", "steel-s235"))


@pytest.mark.parametrize(("wall", "stiffer", "heavier"), [(2, 0.82, 4.4), (3, 0.52, 3.2), (5, 0.29, 2.3)])
def test_filled_tubes_by_the_table(wall: float, stiffer: float, heavier: float) -> None:
    """SHS 100×100, fill E 30, ρ 2250 (data §7, [calc], sharp corners: within their difference)."""
    shape = section(f"shs-100x100x{wall}")
    assert shape.cavity is not None
    gained = 30e9 * shape.cavity.Iy / (210e9 * shape.properties.Iy)
    assert gained == pytest.approx(stiffer, abs=0.04)
    mass = 1 + 2250 * shape.cavity.A / (7850 * shape.properties.A)
    assert mass == pytest.approx(heavier, rel=0.06)


@pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.id)
def test_hollows_by_hand(kind: Kind) -> None:
    structure = lay_out(kind.model())
    for one in cavities_of(structure):
        hollow = section(structure.pieces[one.names[0]].part.section).cavity  # type: ignore[union-attr]
        assert hollow is not None
        whole = sum(hollow.A * sawn(structure)[name].length for name in one.names)
        assert 0.9 * whole < one.volume + one.screws <= whole * (1 + 1e-9)
        assert one.screws < 0.05 * whole


def test_before_and_after() -> None:
    found = gain(TUBE, "gantry_beam", "epoxy-granite-10", shipped_prices(), cut("hardwood"))
    hollow = next(one for one in cavities_of(lay_out(TUBE)) if one.part == "gantry_beam")
    added = (hollow.volume + hollow.screws) * material("epoxy-granite-10").rho
    assert found.after.mass - found.before.mass == pytest.approx(added, rel=1e-6)
    assert min(found.after.stiffness) > min(found.before.stiffness)
    assert found.after.money > found.before.money
    assert found.larger is not None
    assert found.larger.mass <= found.after.mass - found.before.mass + 1e-9
    again = gain(with_part(TUBE, "gantry_beam", Member("rhs-120x80x5", "steel-s235", fill="sand", loose=True)),
                 "gantry_beam", "epoxy-granite-10", shipped_prices(), cut("hardwood"))  # fmt: skip
    assert again.before == found.before
    sand = gain(TUBE, "gantry_beam", "sand", shipped_prices(), cut("hardwood"))
    assert "hardly helps" in sand.words
    with pytest.raises(InputError, match="no closed hollow"):
        gain(TUBE, "x_plate", "sand", shipped_prices(), cut("hardwood"))


def test_the_command(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    path = tmp_path / "router.unterbau"
    write_project(path, demo_project("carving-router"))
    name = "tube, epoxy granite fill"
    assert run(["pour", str(path), "--candidate", name, "--no-gain", "--json"]) == 0
    told = json.loads(capsys.readouterr().out)
    assert told["part"] == "side_beam"
    assert sum(one["mass"] for one in told["mix"]["parts"]) == pytest.approx(told["mix"]["mass"])
    assert told["batches"]["count"] * told["batches"]["mass"] == pytest.approx(told["mix"]["mass"])
    assert all(one["peak"] > 20.0 for one in told["lifts"])
    assert told["gain"] is None
    assert "local rules" in told["caution"].lower()
    assert run(["pour", str(path), "--part", "mould", "--no-gain"]) == 0
    assert "strip the form" in capsys.readouterr().out
    assert run(["pour", str(path), "--part", "x_plate"]) == 2
    assert "has no closed hollow to fill; there are" in capsys.readouterr().err


def test_the_shopping_list_knows_the_pour() -> None:
    """What is weighed stands in place of the fill and of the base that the list counts; nothing is there twice."""
    project = demo_project("clock-plate-mill")
    machine, name = project.candidate(project.benchmark).machine, project.benchmark
    items, structure = bill_of(machine, project.prices), lay_out(machine)
    pours = tuple(one for one in project.shop.pours if one.candidate == name)
    listed = with_pours(items, structure, pours)
    poured = [one for one in listed if one.part == "pour mould"]
    assert [one.text for one in poured][:2] == ["resin", "hardener"]
    assert sum(one.mass for one in poured) == pytest.approx(92.6, abs=0.1)
    assert any(one.text.startswith("cast slab") for one in items)
    assert not any(one.part == "stand" and one.text.startswith(("cast slab", "rib")) for one in listed)
    filled = with_part(TUBE, "gantry_beam", Member("rhs-120x80x5", "steel-s235", fill="epoxy-granite-10"))
    told = with_pours(bill_of(filled), lay_out(filled), (PourPlan("a", "gantry_beam"),))
    assert not any(one.part == "gantry_beam" and one.text.startswith("fill,") for one in told)
    gone = with_pours(bill_of(filled), lay_out(filled), (PourPlan("a", "x_plate"),))
    assert gone == bill_of(filled)
