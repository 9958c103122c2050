"""The program ends as it should: signals, workers that do not answer, windows that are killed, jobs that finish."""

import os
import signal
import subprocess
import sys
import threading
import time
from collections.abc import Iterator
from pathlib import Path

import pytest
from PyQt6.QtCore import QObject
from pytestqt.qtbot import QtBot

from unterbau.files import recovery
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.progress import Cancelled, Silent
from unterbau.structure.parts import Place
from unterbau.studies.answers import first_figures
from unterbau.ui.jobs.helper import GRACE, Helper
from unterbau.ui.jobs.job import Job

WINDOW = """
import sys
from PyQt6.QtCore import QTimer
from unterbau.ui.shell import application
opened = application.open_window
def with_an_edit(arguments):
    window = opened(arguments)
    def edit():
        window.machine.choose_link("gantry_beam")
        window.machine._on_stepped(True)
        print("edited", window.document.modified, flush=True)
    QTimer.singleShot(1500, edit)
    return window
application.open_window = with_an_edit
sys.exit(application.start(["--demo"]))
"""
PARENT = """
import sys
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.progress import Silent
from unterbau.structure.parts import Place
from unterbau.studies.answers import first_figures
from unterbau.ui.jobs.helper import STANDS, Helper
STANDS.set()
helper = Helper()
helper.compute(first_figures, MovingGantry(), Place(), progress=Silent())
print(helper._process.pid, flush=True)
sys.stdin.read()
"""
SEARCH = """
import sys
from unterbau.studies.search_workers import tried_apart
from tests.ui.test_endings import slow
print("going", flush=True)
for pid in tried_apart(iter([(n,) for n in range(100)]), slow, 2, 1):
    print(pid, flush=True)
"""
ROOT = Path(__file__).parents[2]


def slow(picked: tuple[int, ...]) -> int:
    """Return whose work this is, after a while."""
    del picked
    time.sleep(0.3)
    return os.getpid()


def alive(process: int) -> bool:
    try:
        state = Path(f"/proc/{process}/stat").read_text(encoding="utf-8").rpartition(")")[2].split()[0]
    except OSError:
        return False
    return state != "Z"


def gone_within(processes: list[int], seconds: float) -> bool:
    until = time.monotonic() + seconds
    while any(alive(one) for one in processes) and time.monotonic() < until:
        time.sleep(0.1)
    return not any(alive(one) for one in processes)


@pytest.mark.parametrize("number", [signal.SIGTERM, signal.SIGINT])
def test_a_signal_sets_work_aside_and_ends_the_window(number: int, tmp_path: Path) -> None:
    with subprocess.Popen([sys.executable, "-c", WINDOW], stdout=subprocess.PIPE, text=True) as window:
        try:
            assert window.stdout is not None
            assert window.stdout.readline() == "edited True\n"
            window.send_signal(number)
            assert window.wait(timeout=20) == 128 + number
        finally:
            window.kill()
    (kept,) = recovery.left_behind(tmp_path / "state" / "unterbau" / "recovery")
    assert kept.project.name
    assert kept.file.stem == str(window.pid)


@pytest.mark.parametrize("number", [signal.SIGKILL, signal.SIGTERM])
def test_a_worker_ends_with_its_window(number: int) -> None:
    pipes = {"stdin": subprocess.PIPE, "stdout": subprocess.PIPE}
    with subprocess.Popen([sys.executable, "-c", PARENT], text=True, cwd=ROOT, **pipes) as parent:  # type: ignore[call-overload]
        worker = int(parent.stdout.readline())
        assert alive(worker)
        parent.send_signal(number)
        assert parent.wait(timeout=10) == -number
    assert gone_within([worker], 5.0)


@pytest.mark.parametrize("number", [signal.SIGKILL, signal.SIGTERM])
def test_workers_of_a_search_end_with_it(number: int) -> None:
    with subprocess.Popen([sys.executable, "-c", SEARCH], stdout=subprocess.PIPE, text=True, cwd=ROOT) as parent:
        assert parent.stdout is not None
        parent.stdout.readline()
        workers = list({int(parent.stdout.readline()) for _ in range(6)})
        parent.send_signal(number)
        assert parent.wait(timeout=10) == -number
    assert gone_within(workers, 5.0)


class Stopping(Silent):
    """A progress that asks to stop after a while."""

    def __init__(self, seconds: float) -> None:
        self._until = time.monotonic() + seconds

    def step(self, done: int, total: int, text: str) -> None:
        """Ask to stop."""
        if time.monotonic() > self._until:
            raise Cancelled


@pytest.fixture
def helper() -> Iterator[Helper]:
    found = Helper()
    yield found
    found._end()


def test_a_worker_that_is_stopped_is_left_and_replaced(helper: Helper) -> None:
    asked = (MovingGantry(), Place())
    before = helper.compute(first_figures, *asked, progress=Silent())
    assert helper._process is not None
    stopped = helper._process.pid
    os.kill(stopped, signal.SIGSTOP)
    began = time.monotonic()
    with pytest.raises(Cancelled):
        helper.compute(first_figures, *asked, progress=Stopping(0.3))
    assert time.monotonic() - began < GRACE + 2.0
    assert not alive(stopped)
    again = helper.compute(first_figures, *asked, progress=Silent())
    assert (again.compliance == before.compliance).all()


def test_a_job_outlives_its_own_last_signal(qtbot: QtBot) -> None:
    """The thread is still inside the signal when the window hears it; the job is deleted only afterwards."""
    owner, ended = QObject(), threading.Event()
    deleted: list[bool] = []
    for _ in range(50):
        job = Job(lambda progress: progress.step(1, 1, ""), owner)
        thread = job._runner
        job.destroyed.connect(lambda _=None, thread=thread: deleted.append(not thread.is_alive()))
        with qtbot.waitSignal(job.succeeded, timeout=5000):
            job.start()
    qtbot.waitUntil(lambda: len(deleted) == 50, timeout=5000)
    assert all(deleted)
    assert not ended.is_set()


def test_closing_does_not_wait_for_a_study_that_does_not_hear(qtbot: QtBot) -> None:
    from unterbau.ui.jobs.one_at_a_time import LONGEST, OneAtATime

    queue, let_go = OneAtATime(), threading.Event()
    queue.run("deaf", lambda _: let_go.wait(30.0))
    began = time.monotonic()
    queue.close()
    assert time.monotonic() - began < LONGEST + 1.0
    let_go.set()
    qtbot.waitUntil(lambda: not queue.busy, timeout=5000)
