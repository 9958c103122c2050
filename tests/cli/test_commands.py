"""The command line as a person calls it."""

import json
import subprocess
import sys
from importlib.resources import files
from pathlib import Path

import pytest

from tests.frames import cantilever
from unterbau.__main__ import SUBCOMMANDS
from unterbau.cli.main import run, unterbau

DEMO = str(files("unterbau.demo") / "carving-router.unterbau")


def test_a_frame_is_solved_to_a_file_and_to_standard_output(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    source, target = tmp_path / "in.json", tmp_path / "out.json"
    source.write_text(json.dumps(cantilever(1, cases=[{"id": "p", "forces": [{"node": "n1", "force": [0, 0, 1]}]}])))
    assert run(["frame", "solve", str(source), "-o", str(target)]) == 0
    assert run(["frame", "solve", str(source), "-o", "-"]) == 0
    assert json.loads(target.read_text()) == json.loads(capsys.readouterr().out)


def test_a_bad_frame_is_refused_with_status_2_and_nothing_written(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    source, target = tmp_path / "in.json", tmp_path / "out.json"
    frame = cantilever(1)
    frame["beams"][0]["j"] = "gone"
    source.write_text(json.dumps(frame))
    assert run(["frame", "solve", str(source), "-o", str(target)]) == 2
    assert capsys.readouterr().err == (
        'unterbau: beam “b0”, j: there is no node "gone" (in the file at $.beams[0].j)\n'
    )
    assert not target.exists()
    assert run(["frame", "solve", str(tmp_path / "missing"), "-o", str(target)]) == 2
    assert "could not be read" in capsys.readouterr().err
    frame = cantilever(1, supports=[])
    source.write_text(json.dumps(frame))
    assert run(["frame", "solve", str(source), "-o", str(target)]) == 2
    assert "n1 uz" in capsys.readouterr().err
    assert not target.exists()


def test_an_exported_frame_gives_the_answers_of_the_window(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    frame, result = tmp_path / "m.frame.json", tmp_path / "r.json"
    name = "steel tube, epoxied sides"
    assert run(["frame", "export", DEMO, "--candidate", name, "-o", str(frame)]) == 0
    assert run(["frame", "solve", str(frame), "-o", str(result)]) == 0
    assert run(["answers", DEMO, "--candidate", name, "--json"]) == 0
    answers = json.loads(capsys.readouterr().out)
    solved = json.loads(result.read_text())
    for axis, case in zip("xyz", solved["cases"], strict=False):
        energy = {group: 2 * sum(row.values()) for group, row in case["energy"].items()}
        path = {row["link"]: row["compliance"] for row in answers["load_path"][axis]}
        assert sum(energy.values()) == pytest.approx(1 / answers["stiffness"][axis]["likely"], rel=1e-9)
        assert energy["gantry_beam"] == pytest.approx(path["gantry_beam"], rel=1e-9)
    assert solved["mass"] == pytest.approx(answers["mass"], rel=1e-9)


def test_candidates_and_sections_are_found_by_name(capsys: pytest.CaptureFixture[str]) -> None:
    assert run(["answers", DEMO]) == 0
    assert "bolted slotted profile" in capsys.readouterr().out
    assert run(["answers", DEMO, "--candidate", "none"]) == 2
    assert "there is no candidate" in capsys.readouterr().err
    assert run(["section", "rhs-80x40x4", "--json"]) == 0
    assert json.loads(capsys.readouterr().out)["Iy"] == pytest.approx(64.8e-8, rel=2e-3)
    assert run(["section", "chs-50x3"]) == 0
    assert "round tube" in capsys.readouterr().out
    assert run(["section"]) == 2
    assert run(["section", "chs-50x40"]) == 2
    assert run(["nonsense"]) == 2
    assert run(["--help"]) == 0


@pytest.mark.parametrize("heavy", ["pint", "sectionproperties", "vtkmodules", "PyQt6", "matplotlib", "scipy.sparse"])
def test_solving_a_frame_loads_nothing_heavy(heavy: str, tmp_path: Path) -> None:
    source = tmp_path / "in.json"
    source.write_text(json.dumps(cantilever(2, modes=2)))
    code = (
        "import sys; from unterbau.cli.main import run; "
        f"status = run(['frame', 'solve', {str(source)!r}, '-o', {str(tmp_path / 'out.json')!r}]); "
        f"sys.exit(status or {heavy!r} in sys.modules)"
    )
    assert subprocess.run([sys.executable, "-c", code], check=False).returncode == 0


def test_every_command_is_taken_for_one_and_needs_no_display() -> None:
    """What the program starts without a window is what the command line knows."""
    assert set(unterbau.commands) | {"--help", "--version"} == SUBCOMMANDS
