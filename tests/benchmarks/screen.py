"""Key to readout on the screen, start to first paint, memory of the application: under Xvfb, by `./dev bench`.

Figures of one run; the core's part is set against the whole so that the stages can be compared.
"""

import resource
import subprocess
import sys
import time
from pathlib import Path
from statistics import median

from PyQt6.QtCore import QThread
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from unterbau.machine.machine import to_frame
from unterbau.studies.answers import likely_answers
from unterbau.ui.jobs.helper import BEHIND, SOON, helper
from unterbau.ui.shell.application import end, open_window
from unterbau.ui.shell.main_window import MainWindow

START = """
import time
start = time.perf_counter()
from PyQt6.QtWidgets import QApplication
application = QApplication([])
from unterbau.ui.shell.application import open_window
imported = time.perf_counter()
window = open_window(["--demo"], 10.0)
window.show()
while not window.machine.view.isVisible():
    application.processEvents()
window.grab()
print(f"{(imported - start) * 1e3:.0f} {(time.perf_counter() - start) * 1e3:.0f}")
import os
os._exit(0)
"""
KEYS = ("]", "[") * 6
PREPARED = "the next size, solved ahead: painted"


def rest(application: QApplication, window: MainWindow) -> None:
    """Wait until nothing is computed or drawn any more."""
    quiet = time.perf_counter()
    while time.perf_counter() - quiet < 0.5:
        application.processEvents()
        QThread.msleep(1)
        if window.feed.busy or window.machine.advice.busy:
            quiet = time.perf_counter()


def stages(application: QApplication, window: MainWindow) -> dict[str, float]:
    """Return medians of the stages from a key to the changed readout, ms."""
    names = ("key handled, likely answers in", "readout and strip painted", "bands of the stiffness in", "all bands in")
    rows: dict[str, list[float]] = {name: [] for name in (*names, PREPARED)}
    early: list[float] = []
    window.feed.early_ready.connect(lambda _: early.append(time.perf_counter()))
    for key in KEYS:
        start = time.perf_counter()
        QTest.keyClick(window, key)  # type: ignore[call-overload]
        rows["key handled, likely answers in"].append(time.perf_counter() - start)
        window.machine.readout.repaint()
        window.machine.load_path.repaint()
        rows["readout and strip painted"].append(time.perf_counter() - start)
        asked = (window.feed.machine(), window.selection.place)
        early.clear()
        while asked not in window.feed._full:
            application.processEvents()
            QThread.msleep(1)  # a window that waits sleeps; one that spins would take the workers' turns
        rows["all bands in"].append(time.perf_counter() - start)
        rows["bands of the stiffness in"].append(early[0] - start if early else rows["all bands in"][-1])
        rest(application, window)
        start = time.perf_counter()
        QTest.keyClick(window, key)  # type: ignore[call-overload]
        window.machine.readout.repaint()
        window.machine.load_path.repaint()
        rows[PREPARED].append(time.perf_counter() - start)
        rest(application, window)
        window.document.stack.undo()
        rest(application, window)
        for store in (window.feed._solved, window.feed._prepared, window.feed._full):
            store.clear()
    place, machine = window.selection.place, window.feed.machine()
    core: list[float] = []
    frames: list[float] = []
    for _ in range(len(KEYS)):
        start = time.perf_counter()
        to_frame(machine, place, "likely")
        frames.append(time.perf_counter() - start)
        start = time.perf_counter()
        likely_answers(machine, place)
        core.append(time.perf_counter() - start)
    found = {"machine to frame": median(frames), "likely tip and shares": median(core)}
    return {name: seconds * 1e3 for name, seconds in (found | {n: median(r) for n, r in rows.items()}).items()}


def first_advice(application: QApplication, window: MainWindow) -> float:
    """Return the median time from choosing a part to the first row of what to try instead, ms."""
    found, told = [], list[float]()
    for signal in (window.machine.advice.told, window.machine.advice.ready):
        signal.connect(lambda *_: told.append(time.perf_counter()))
    for key in ("x_plate", "beam_joint", "z_guides", "gantry_beam", "side"):
        told.clear()
        start = time.perf_counter()
        window.machine.choose_link(key)
        while not told and time.perf_counter() - start < 20.0:
            application.processEvents()
            QThread.msleep(1)
        window.machine.bench.advice.repaint()
        found.append(time.perf_counter() - start)
        rest(application, window)
    return median(found) * 1e3


def main() -> None:
    """Print the table."""
    started = [
        subprocess.run([sys.executable, "-c", START], capture_output=True, text=True, check=True).stdout.split()[-2:]
        for _ in range(3)
    ]
    imported, painted = (median(float(row[column]) for row in started) for column in range(2))
    application = QApplication([])
    window = open_window(["--demo"], 10.0)
    window.resize(1280, 800)
    window.show()
    window.activateWindow()
    rest(application, window)
    window.machine.choose_link("gantry_beam")
    rest(application, window)
    found = stages(application, window)
    whole = found["readout and strip painted"]
    for name, milliseconds in found.items():
        sys.stdout.write(f"{name:40} {milliseconds:8.1f} ms   whole × {milliseconds / whole:5.2f}\n")
    sys.stdout.write(f"first advice on screen after {first_advice(application, window):.0f} ms\n")
    sys.stdout.write(f"start: libraries loaded after {imported:.0f} ms, first paint after {painted:.0f} ms\n")
    most = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    sys.stdout.write(f"peak memory of the application: {most:.0f} MB\n")
    beside = {what: helper(what)._process for what in (SOON, BEHIND)}
    for what, process in beside.items():
        rows = Path(f"/proc/{process.pid}/status").read_text().splitlines() if process is not None else []
        told = [
            round(int(row.split()[1]) / 1024) for name in ("VmRSS", "VmHWM") for row in rows if row.startswith(name)
        ]
        sys.stdout.write(f"memory of what computes beside it, {what}: {told} MB at most and now\n")
    window.document.stack.setClean()
    end(application, window)


if __name__ == "__main__":
    main()
