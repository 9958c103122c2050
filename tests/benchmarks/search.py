"""How many designs a minute a search tries on two processes, how that grows, and sections screened; `./dev bench`.

Rates are of one run each, counted from the first design told to the last; only their ratios mean something.
"""

import sys
import time
from contextlib import suppress
from importlib.resources import files
from pathlib import Path
from statistics import median

from tests.validation.opensees import OpenSeesFrame
from unterbau.catalogue.prices import PriceBook
from unterbau.files.frame_json import to_document
from unterbau.files.project_json import read_project
from unterbau.machine.machine import Machine, to_frame
from unterbau.progress import Cancelled, Silent
from unterbau.structure.parts import Place
from unterbau.studies.compliance import solve
from unterbau.studies.designs import Bounds, Free
from unterbau.studies.loads import CASES, loads_of
from unterbau.studies.search import search
from unterbau.studies.search_space import offered
from unterbau.studies.search_workers import SIDE_BY_SIDE
from unterbau.studies.sweep import catalogue, sweep_sections

SECONDS = 20.0
JOINTS = (
    Free("beam_joint", "kind", ("epoxied", "bolted-plate", "flange", "gusset", "bracket")),
    Free("beam_joint", "count", (1, 2, 3, 4)),
    Free("cross_joint", "kind", ("epoxied", "bolted-plate", "bracket", "end-tapped")),
    Free("cross_joint", "count", (1, 2)),
    Free("spindle_mount", "kind", ("clamp", "flange", "printed")),
    Free("bed_fixing", "kind", ("bolt", "epoxied")),
)
SIZES = (("gantry_beam", "section"), ("side", "thickness"), ("x_plate", "thickness"), ("dimensions", "x_stance"))
"""Varied as the drawer of Compare offers it: some sizes up and down."""
FINE = (
    Free("gantry_beam", "section", tuple(f"rhs-{one}" for one in ("80x40x4", "100x50x4", "120x80x5", "100x60x4"))),
    Free("side", "thickness", tuple(n / 1e3 for n in range(15, 41))),
    Free("x_plate", "thickness", tuple(n / 1e3 for n in range(12, 31))),
    Free("dimensions", "x_stance", tuple(n / 1e3 for n in range(120, 241, 5))),
)
"""The same in millimetres: hardly a plate occurs twice."""


class Clocked(Silent):
    """Counts designs from the first that is told, and stops after so long."""

    def __init__(self) -> None:
        self.first, self.last, self.began, self.done = 0.0, 0.0, 0, 0

    def step(self, done: int, total: int, text: str) -> None:
        if text != "designs":
            raise Cancelled
        self.last, self.done = time.perf_counter(), done
        if not self.first:
            self.first, self.began = self.last, done
        if self.last - self.first > SECONDS:
            raise Cancelled


def rate(machine: Machine, free: tuple[Free, ...], book: PriceBook, processes: int = SIDE_BY_SIDE) -> float:
    """Return designs a minute: from the first told on two processes, which have to start; from the beginning on one."""
    clock = Clocked()
    if processes == 1:
        clock.first = time.perf_counter()
    with suppress(Cancelled):
        search(machine, free, Bounds(), "stiffest", book, 4 * SECONDS, None, clock, None, processes)
    return 60.0 * (clock.done - clock.began) / max(clock.last - clock.first, 1e-9)


def main() -> None:
    """Print the table."""
    project = read_project(Path(str(files("unterbau.demo") / "carving-router.unterbau")))
    machine, book = project.candidates[1].machine, project.prices
    built = to_frame(machine, Place(), "likely")
    document = to_document(built.frame, loads_of(built), CASES[:1], 1)
    others = []
    for _ in range(3):
        start = time.perf_counter()
        OpenSeesFrame(document).displacements(0)
        others.append(time.perf_counter() - start)
    other = 60.0 / median(others)
    sizes = tuple(one.free for one in offered(machine) if (one.free.key, one.free.field) in SIZES)
    rows = {
        "joints changed": rate(machine, JOINTS, book), "sizes changed, as offered": rate(machine, sizes, book),
        "sizes changed, by the millimetre": rate(machine, FINE, book),
        "sizes and joints changed": rate(machine, (*sizes, *JOINTS), book),
    }  # fmt: skip
    values = [one for _, one in catalogue("steel-s235")]
    solved = solve(machine, Place(), "likely")
    start = time.perf_counter()
    sweep_sections(machine, "gantry_beam", Place(), values, solved)
    rows["sections screened, one process"] = 60.0 * len(values) / (time.perf_counter() - start)
    for name, many in rows.items():
        sys.stdout.write(f"{name:40} {many:9.0f} a minute   openseespy re-solving each × {many / other:7.1f}\n")
    sys.stdout.write("growth with the number of joints searched: fields, designs a minute on one process\n")
    for count in range(1, len(JOINTS) + 1):
        sys.stdout.write(f"{count:8} {rate(machine, JOINTS[:count], book, 1):9.0f}\n")


if __name__ == "__main__":
    main()
