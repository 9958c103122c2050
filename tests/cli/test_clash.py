"""`unterbau clash` says what the lens says."""

import json
from pathlib import Path

import pytest

from unterbau.cli.main import run
from unterbau.files.project_json import read_project, write_project
from unterbau.studies.clash import clashes
from unterbau.ui.shell.file_actions import demo_project


def test_clashes_of_a_candidate_as_text_and_json(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    source = tmp_path / "lathe.unterbau"
    write_project(source, demo_project("telescope-lathe"))
    opened = read_project(source)
    assert run(["clash", str(source), "--json"]) == 0
    data = json.loads(capsys.readouterr().out)
    found = clashes(opened.candidate(opened.benchmark).machine)
    assert [(row["first"], row["second"]) for row in data["clashes"]] == [(o.first, o.second) for o in found.found]
    assert data["clashes"][0]["axes"]["X"]["lost"] == pytest.approx(found.found[0].lost(0))
    assert all(row["free"] + row["sometimes"] + row["never"] > 0 for row in data["screws"])
    assert run(["clash", str(source), "--candidate", opened.candidates[-1].name]) == 0
    text = capsys.readouterr().out
    assert text.startswith(f"{opened.candidates[-1].name}: 1 pair collides")
    assert "helps: " in text
    assert run(["clash", str(source), "--candidate", "nobody"]) == 2
    assert "nobody" in capsys.readouterr().err
