"""What a command writes replaces nothing that was not meant: inputs, projects, pipes, existing files."""

import os
from importlib.resources import files
from pathlib import Path

import pytest

from unterbau.cli.main import run, unterbau

DEMO = (files("unterbau.demo") / "greenhouse-camera.unterbau").read_text(encoding="utf-8")


@pytest.fixture
def project(tmp_path: Path) -> Path:
    path = tmp_path / "P.unterbau"
    path.write_text(DEMO, encoding="utf-8")
    return path


@pytest.mark.parametrize("command", ["cut-plan", "pieces", "steps", "checks", "clash"])
@pytest.mark.parametrize("force", [(), ("--force",)])
def test_the_project_is_never_replaced_by_an_answer(
    project: Path, command: str, force: tuple[str, ...], capsys: pytest.CaptureFixture[str]
) -> None:
    if command in ("checks", "clash") and not force:
        pytest.skip("slow, and the same way")
    assert run([command, str(project), "-o", str(project), *force]) == 2
    assert project.read_text(encoding="utf-8") == DEMO
    assert "left as it is" in capsys.readouterr().err


def test_an_existing_file_needs_force_and_other_things_are_refused(
    project: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    target, other, pipe = tmp_path / "plan.txt", tmp_path / "other.unterbau", tmp_path / "pipe"
    target.write_text("mine", encoding="utf-8")
    other.write_text(DEMO, encoding="utf-8")
    os.mkfifo(pipe)
    for path in (target, other, pipe, tmp_path, Path("/dev/null")):
        assert run(["cut-plan", str(project), "-o", str(path)]) == 2, path
    assert "--force" in capsys.readouterr().err
    assert target.read_text(encoding="utf-8") == "mine"
    assert run(["cut-plan", str(project), "-o", str(target), "--force"]) == 0
    assert target.read_text(encoding="utf-8") != "mine"
    for path in (other, pipe, Path("/dev/null")):
        assert run(["cut-plan", str(project), "-o", str(path), "--force"]) == 2, path
    assert other.read_text(encoding="utf-8") == DEMO
    assert pipe.is_fifo()
    link = tmp_path / "link.txt"
    link.symlink_to(project)
    assert run(["cut-plan", str(project), "-o", str(link), "--force"]) == 2
    assert project.read_text(encoding="utf-8") == DEMO


def test_every_command_that_writes_a_file_has_the_option() -> None:
    def commands(group: object) -> list[object]:
        inner = list(getattr(group, "commands", {}).values())
        return [one for command in inner for one in (commands(command) or [command])]

    for command in commands(unterbau):
        names = [one.name for one in command.params]  # type: ignore[attr-defined]
        assert ("force" in names) == bool({"target", "dxf", "svg"} & set(names)), command
