"""Work set aside: found again only when its process is no more."""

import os
import subprocess
import sys
from pathlib import Path

from tests.files.test_project_json import DEMO
from unterbau.files import recovery
from unterbau.files.project_json import parse_project

CRASH = """
import os, sys
from pathlib import Path
from unterbau.files.project_json import parse_project
from unterbau.files.recovery import keep
keep(Path(sys.argv[1]), parse_project(sys.stdin.read()), Path("/shop/lute.unterbau"), "2026-11-25T10:30+00:00")
os.kill(os.getpid(), 9)
"""


def test_work_of_a_killed_process_is_found(tmp_path: Path) -> None:
    folder = tmp_path / "state" / "recovery"
    done = subprocess.run([sys.executable, "-c", CRASH, str(folder)], input=DEMO, text=True, check=False)
    assert done.returncode == -9
    found = list(recovery.left_behind(folder))
    assert [(kept.origin, kept.when) for kept in found] == [(Path("/shop/lute.unterbau"), "2026-11-25T10:30+00:00")]
    assert found[0].project == parse_project(DEMO)
    recovery.throw_away(found[0])
    assert list(recovery.left_behind(folder)) == []


def test_work_of_a_living_process_is_its_own(tmp_path: Path) -> None:
    kept = recovery.keep(tmp_path, parse_project(DEMO), None, "now")
    assert kept.exists()
    assert list(recovery.left_behind(tmp_path)) == []
    recovery.forget(tmp_path)
    assert not kept.exists()
    recovery.forget(tmp_path)


def test_a_number_used_again_by_another_process_does_not_hide_work(tmp_path: Path) -> None:
    path = recovery.keep(tmp_path, parse_project(DEMO), None, "now")
    text = path.read_text(encoding="utf-8")
    started = recovery._started(os.getpid())
    assert started
    path.write_text(text.replace(f'"started": "{started}"', '"started": "1"'), encoding="utf-8")
    assert len(list(recovery.left_behind(tmp_path))) == 1


def test_damaged_files_are_passed_over(tmp_path: Path) -> None:
    empty = '{"format":"unterbau-recovery","origin":null,"when":"","started":"","project":"{}"}'
    for number, text in enumerate(("{", "[]", '{"format": "unterbau-recovery"}', empty)):
        (tmp_path / f"90000{number}.kept").write_text(text)
    (tmp_path / "other.kept").write_text("x")
    assert list(recovery.left_behind(tmp_path)) == []
    assert list(recovery.left_behind(tmp_path / "none")) == []
