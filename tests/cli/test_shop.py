"""`unterbau pieces` and `unterbau cut-plan`."""

import json
import subprocess
import sys
from importlib.resources import files
from pathlib import Path

import pytest

from unterbau.cli.main import run
from unterbau.files.project_json import read_project
from unterbau.machine.machine import lay_out
from unterbau.shop.pieces import pieces_of

DEMO = str(files("unterbau.demo") / "carving-router.unterbau")


def test_pieces_of_a_candidate(capsys: pytest.CaptureFixture[str]) -> None:
    opened = read_project(Path(DEMO))
    assert run(["pieces", DEMO, "--json"]) == 0
    data = json.loads(capsys.readouterr().out)
    wanted = pieces_of(lay_out(opened.candidate(opened.benchmark).machine))
    assert [row["label"] for row in data["pieces"]] == [one.label for one in wanted]
    assert [row["mass"] for row in data["pieces"]] == pytest.approx([one.mass for one in wanted])
    assert all(row["net_mass"] <= row["mass"] for row in data["pieces"])
    assert run(["pieces", DEMO, "--candidate", opened.candidates[1].name]) == 0
    assert capsys.readouterr().out.startswith(f"{opened.candidates[1].name}: ")


def test_a_plan_of_a_list(tmp_path: Path) -> None:
    """As another program calls it: nothing but JSON on standard output."""
    source = tmp_path / "pieces.csv"
    source.write_text("name,length,count\nA,1380,22\nB,1520,25\nC,1560,12\nD,1710,14\n", encoding="utf-8")
    done = subprocess.run(
        [sys.executable, "-m", "unterbau", "cut-plan", str(source), "--stock", "5600", "--json"],
        capture_output=True, text=True, timeout=120, check=True,
    )  # fmt: skip
    data = json.loads(done.stdout)
    assert data["bars"] == data["bound"] == 23
    assert data["proven"]
    assert sum(len(bar["pieces"]) for bar in data["plan"]) == 73


def test_a_plan_of_a_project_with_prices(capsys: pytest.CaptureFixture[str]) -> None:
    assert run(["cut-plan", DEMO, "--stock", "6000:42", "--stock", "3000:23", "--kerf", "2.5", "--json"]) == 0
    data = json.loads(capsys.readouterr().out)
    assert data["bars"] == sum(row["bars"] for row in data["sections"])
    assert all(row["cost"] >= row["cost_bound"] - 1e-9 for row in data["sections"])


@pytest.mark.parametrize(
    ("text", "stock", "where"),
    [
        ("A,1380,22", "1000", "A: 1380 mm is longer than every bar"),
        ("A,long,2", "6000", "line 1"),
        ("A,12", "6000", "line 1"),
        ("A,1380,2", "six metres", "--stock"),
    ],
)
def test_what_cannot_be_read_or_sawn_is_named(
    tmp_path: Path, capsys: pytest.CaptureFixture[str], text: str, stock: str, where: str
) -> None:
    source = tmp_path / "pieces.csv"
    source.write_text(text, encoding="utf-8")
    assert run(["cut-plan", str(source), "--stock", stock]) == 2
    assert where in capsys.readouterr().err
