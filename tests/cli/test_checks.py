"""`unterbau checks` says what the lens says."""

import json
from pathlib import Path

import pytest

from unterbau.cli.main import run
from unterbau.files.project_json import read_project, write_project
from unterbau.studies.purchase.checks import checks
from unterbau.ui.shell.file_actions import demo_project


def test_checks_of_a_candidate_as_text_and_json(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    source = tmp_path / "mill.unterbau"
    write_project(source, demo_project("clock-plate-mill"))
    opened = read_project(source)
    assert run(["checks", str(source), "--json"]) == 0
    data = json.loads(capsys.readouterr().out)
    chosen = opened.candidate(opened.benchmark)
    found = checks(chosen.machine, opened.brief)
    assert data["candidate"] == chosen.name
    assert [row["name"] for row in data["checks"]] == [one.name for one in found]
    assert run(["checks", str(source), "--candidate", opened.candidates[-1].name]) == 0
    text = capsys.readouterr().out
    assert text.startswith(f"{opened.candidates[-1].name}, before buying\n")
    assert "asked: " in text
    assert run(["checks", str(source), "--candidate", "nobody"]) == 2
    assert "nobody" in capsys.readouterr().err
