"""Static + six modes + shares on the demo's frame: ours, openseespy, and the bare LAPACK calls.

Every figure is a median of one run; only the ratios mean something. `./dev bench`.
"""

import sys
import time
from collections.abc import Callable
from importlib.resources import files
from statistics import median

import numpy as np

from tests.validation.opensees import OpenSeesFrame
from unterbau.files.frame_json import to_document
from unterbau.files.project_json import parse_project
from unterbau.machine.machine import to_frame
from unterbau.machine.parts import Place
from unterbau.mechanics import assembly, lapack
from unterbau.mechanics.factor import scale_band, unit_scale
from unterbau.mechanics.modes import solve_modes
from unterbau.mechanics.statics import energies, solve_statics
from unterbau.studies.answers import likely_answers
from unterbau.studies.loads import CASES, loads_of

TIMES = 15


def timed(work: Callable[[], object], times: int = TIMES) -> float:
    """Return the median duration of a call, s."""
    rows = []
    for _ in range(times):
        start = time.perf_counter()
        work()
        rows.append(time.perf_counter() - start)
    return median(rows)


def main() -> None:
    """Print the table."""
    project = parse_project((files("unterbau.demo") / "carving-router.unterbau").read_text(encoding="utf-8"))
    machine = project.candidates[1].machine
    built = to_frame(machine, Place(), "likely")
    loads = loads_of(built)
    system = assembly.assemble(built.frame)
    right = np.random.default_rng(1).standard_normal((len(system.numbering.order), len(CASES)))
    scaled = scale_band(system.band, unit_scale(system.band[0]))
    factor, _ = lapack.band_cholesky(scaled)
    blocks = 8  # solves of four columns that the six modes take

    def bare() -> None:
        lapack.band_cholesky(scaled)
        lapack.band_solve(factor, right)
        for _ in range(blocks):
            lapack.band_solve(factor, right[:, :4])
            lapack.band_multiply(scaled, right[:, :4])

    def own() -> None:
        solved = solve_statics(built.frame, loads)
        solve_modes(solved.system, 6)
        energies(solved)

    document = to_document(built.frame, loads, CASES, 6)

    def other() -> None:
        frame = OpenSeesFrame(document)
        for case in range(6):
            frame.displacements(case)
        frame.frequencies(6)

    n, width = len(system.numbering.order), system.numbering.half_bandwidth
    sys.stdout.write(f"demo frame: {len(built.frame.nodes)} nodes, {n} unknowns, half-bandwidth {width}\n")
    rows = {
        "bare LAPACK calls": timed(bare),
        "ours: statics, six modes, energies": timed(own),
        "openseespy: statics, six modes (no energies)": timed(other, 3),
        "machine to frame": timed(lambda: to_frame(machine, Place(), "likely")),
        "key to likely tip and shares (no drawing)": timed(lambda: likely_answers(machine, Place())),
    }
    ours = rows["ours: statics, six modes, energies"]
    for name, seconds in rows.items():
        sys.stdout.write(f"{name:48} {seconds * 1e3:8.1f} ms   ours × {seconds / ours:6.2f}\n")


if __name__ == "__main__":
    main()
