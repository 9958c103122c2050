"""A process killed at any moment of saving leaves the old or the new file, whole."""

import json
import os
import subprocess
import sys
import time
from pathlib import Path

from tests.files.test_project_json import DEMO
from unterbau.files.atomic import write_atomically
from unterbau.files.project_json import parse_project, project_text, read_project, write_project

KILLS = 300
SAVER = """
import dataclasses, os, random, signal, sys, time
from pathlib import Path
from unterbau.files.project_json import read_project, write_project

path, kills = Path(sys.argv[1]), int(sys.argv[2])
project = read_project(path)
others = [dataclasses.replace(project, name=name) for name in ("one", "two" * 40)]
draw, seen = random.Random(7), []
for turn in range(kills):
    child = os.fork()
    if child == 0:
        while True:
            for other in (others if turn % 2 else others[::-1]):
                write_project(path, other)
    began = os.stat(path).st_mtime_ns
    while os.stat(path).st_mtime_ns == began:  # on a busy machine the first save takes its time
        time.sleep(0.0002)
    time.sleep(draw.uniform(0.0, 0.03))
    os.kill(child, signal.SIGKILL)
    os.waitpid(child, 0)
    seen.append(read_project(path).name)
print(sum(a != b for a, b in zip(seen, seen[1:])), len(set(seen)))
"""


def test_killed_hundreds_of_times_while_saving(tmp_path: Path) -> None:
    path = tmp_path / "lute.unterbau"
    project = parse_project(DEMO)
    write_project(path, project)
    done = subprocess.run(
        [sys.executable, "-c", SAVER, str(path), str(KILLS)], capture_output=True, text=True, timeout=120, check=False
    )
    assert done.returncode == 0, done.stderr
    changes, names = (int(word) for word in done.stdout.split())
    assert names >= 2, "the saver was never killed between two saves"
    assert changes > 20
    last = read_project(path)
    assert last.candidates == project.candidates
    assert path.read_text(encoding="utf-8") == project_text(last)


def test_what_a_killed_save_left_is_cleared_by_a_later_one(tmp_path: Path) -> None:
    path = tmp_path / "a[1].unterbau"
    old, young = tmp_path / ".a[1].unterbau.x1.part", tmp_path / ".a[1].unterbau.x2.part"
    for leftover in (old, young):
        leftover.write_text("half")
    os.utime(old, (time.time() - 7200,) * 2)
    write_atomically(path, "whole")
    assert sorted(p.name for p in tmp_path.iterdir()) == [young.name, path.name]


def test_a_file_keeps_its_mode_and_a_link_stays_a_link(tmp_path: Path) -> None:
    path, link = tmp_path / "p.json", tmp_path / "link.json"
    path.write_text("{}")
    path.chmod(0o640)
    link.symlink_to(path)
    write_atomically(link, json.dumps({"a": 1}))
    assert link.is_symlink()
    assert json.loads(path.read_text()) == {"a": 1}
    assert path.stat().st_mode & 0o777 == 0o640
