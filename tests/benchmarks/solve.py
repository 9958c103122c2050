"""Static + six modes + shares on the demo's frame: ours, openseespy, PyNiteFEA, and the bare LAPACK calls.

Every figure is a median of one run; only the ratios mean something. `./dev bench`.
"""

import subprocess
import sys
import time
from collections.abc import Callable
from dataclasses import replace
from functools import partial
from importlib.resources import files
from pathlib import Path
from statistics import median

import numpy as np
from Pynite import FEModel3D

from tests.validation.opensees import OpenSeesFrame
from unterbau.catalogue.prices import PriceBook
from unterbau.files.frame_document import FrameDocument
from unterbau.files.frame_json import to_document
from unterbau.files.project_json import read_project
from unterbau.machine.built import Built
from unterbau.machine.machine import Machine, to_frame
from unterbau.machine.parts import Place
from unterbau.mechanics import assembly, lapack
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.assembly import System
from unterbau.mechanics.modes import BLOCK, mass_band, solve_modes
from unterbau.mechanics.statics import energies, solve_statics
from unterbau.studies.advise import try_instead
from unterbau.studies.answers import answers, likely_answers
from unterbau.studies.loads import CASES, loads_of

TIMES = 15
MODES = 6
OURS = "the job: statics, six modes, energies"
CORE = """
import resource
import sys
from pathlib import Path
from unterbau.files.project_json import read_project
from unterbau.machine.parts import Place
from unterbau.studies.answers import answers
for candidate in read_project(Path(sys.argv[1])).candidates:
    answers(candidate.machine, Place())
print(round(resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024))
"""


def timed(work: Callable[[], object], times: int = TIMES) -> float:
    """Return the median duration of a call, s."""
    rows = []
    for _ in range(times):
        start = time.perf_counter()
        work()
        rows.append(time.perf_counter() - start)
    return median(rows)


def pynite_frame(document: FrameDocument) -> FEModel3D:
    """Return the demo's nodes and beams in PyNiteFEA, which has no springs in six directions.

    Small springs to ground hold every node instead; the work is that of the same unknowns.
    """
    model = FEModel3D()
    for material in document.materials:
        model.add_material(material.id, material.E, material.G, 0.3, material.rho)
    for section in document.sections:
        model.add_section(section.id, section.A, section.Iz, section.Iy, section.J)
    for node in document.nodes:
        model.add_node(node.id, *node.xyz)
        for direction in ("DX", "DY", "DZ", "RX", "RY", "RZ"):
            model.def_support_spring(node.id, direction, 1e4)
    for beam in document.beams:
        model.add_member(beam.id, beam.i, beam.j, beam.material, beam.section)
    model.add_node_load(document.nodes[0].id, "FX", 1.0)
    return model


def own_rows(built: Built) -> dict[str, float]:
    """Return what our own job takes, whole and by stages, and the bare calls inside, s."""
    loads = loads_of(built)
    solved = solve_statics(built.frame, loads)
    system, blocks, mass = solved.system, blocks_of(solved.system), mass_band(solved.system)
    n = len(system.numbering.order)
    factor, _ = lapack.band_cholesky(system.band)
    right = np.random.default_rng(1).standard_normal((n, len(CASES)))
    sys.stdout.write(
        f"{len(built.frame.nodes)} nodes, {n} unknowns, half-bandwidth {system.numbering.half_bandwidth}\n"
    )
    sys.stdout.write(f"six modes take {blocks} blocks of {BLOCK}\n")

    def bare() -> None:
        lapack.band_cholesky(system.band)
        lapack.band_solve(factor, right)
        for _ in range(blocks):
            lapack.band_solve(factor, right[:, :BLOCK])
            lapack.band_multiply(mass, right[:, :BLOCK])

    def own() -> None:
        one = solve_statics(built.frame, loads)
        solve_modes(one.system, MODES)
        energies(one)

    return {
        OURS: timed(own),
        "  bare LAPACK and BLAS calls": timed(bare),
        "  statics": timed(lambda: solve_statics(built.frame, loads)),
        "    elements and assembly, factor": timed(lambda: assembly.assemble(built.frame)),
        "    factor alone (pbtrf)": timed(lambda: lapack.band_cholesky(system.band)),
        "  modes": timed(lambda: solve_modes(system, MODES)),
        "  energies": timed(lambda: energies(solved)),
    }


def other_rows(built: Built) -> dict[str, float]:
    """Return what other libraries take, s."""
    document = to_document(built.frame, loads_of(built), CASES, MODES)

    def opensees(cases: int) -> None:
        frame = OpenSeesFrame(document)
        for case in range(cases):
            frame.displacements(case)
        frame.frequencies(MODES)

    model = pynite_frame(document)
    return {
        "openseespy as usually written": timed(partial(opensees, len(CASES)), 3),
        "openseespy, one case and six modes only": timed(partial(opensees, 1), 3),
        "PyNiteFEA, same nodes and beams, one case": timed(lambda: model.analyze_linear(log=False), 1),
    }


def study_rows(machine: Machine, book: PriceBook) -> dict[str, float]:
    """Return what the screen waits for, s."""
    rows = {
        "machine to frame": timed(lambda: to_frame(machine, Place(), "likely")),
        "likely tip and shares": timed(lambda: likely_answers(machine, Place())),
        "bands, droop, modes at all levels": timed(lambda: answers(machine, Place()), 5),
    }
    for key in ("z_plate", "beam_joint", "gantry_beam"):
        alternatives = len(try_instead(machine, key, Place(), book))
        seconds = timed(partial(try_instead, machine, key, Place(), book), 3)
        rows[f"try instead of {key}, {alternatives} alternatives"] = seconds
    return rows


def main() -> None:
    """Print the table."""
    demo = str(files("unterbau.demo") / "carving-router.unterbau")
    project = read_project(Path(demo))
    machine = project.candidates[1].machine
    built = to_frame(machine, Place(), "likely")
    rows = own_rows(built) | other_rows(built) | study_rows(machine, project.prices)
    for name, seconds in rows.items():
        sys.stdout.write(f"{name:50} {seconds * 1e3:8.1f} ms   the job × {seconds / rows[OURS]:7.2f}\n")
    core = subprocess.run([sys.executable, "-c", CORE, demo], capture_output=True, text=True, check=True)
    sys.stdout.write(f"peak memory of the core alone, all candidates with bands: {core.stdout.strip()} MB\n")


def blocks_of(system: System) -> int:
    """Return how many block solves six modes take here."""
    count = 0
    solve = system.factor.solve

    def counted(right: FloatArray) -> FloatArray:
        nonlocal count
        count += 1
        return solve(right)

    solve_modes(replace(system, factor=replace(system.factor, solve=counted)), MODES)
    return count


if __name__ == "__main__":
    main()
