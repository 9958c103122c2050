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
from typing import Any

import numpy as np
from Pynite import FEModel3D
from scipy.linalg.blas import dsbmv
from scipy.sparse import dia_array
from scipy.sparse.linalg import splu

from tests.frames import data, read
from tests.validation.opensees import OpenSeesFrame
from unterbau.catalogue.prices import PriceBook
from unterbau.files.frame_document import FrameDocument
from unterbau.files.frame_json import to_arrays, to_document
from unterbau.files.project_json import read_project
from unterbau.heap import keep
from unterbau.machine.changes.change import Brace
from unterbau.machine.machine import Machine, lay_out, to_frame
from unterbau.mechanics import assembly, lapack
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.assembly import System
from unterbau.mechanics.modes import BLOCK, solve_modes
from unterbau.mechanics.statics import energies, solve_statics
from unterbau.model.built import Built
from unterbau.shop.bars import bar_plans
from unterbau.shop.pieces import pieces_of
from unterbau.shop.sheets import sheet_plans
from unterbau.structure.footing import Footing
from unterbau.structure.parts import Place
from unterbau.studies.access import access
from unterbau.studies.advise import try_instead
from unterbau.studies.answers import answers, likely_answers
from unterbau.studies.clash import clashes_of
from unterbau.studies.compliance import solve
from unterbau.studies.loads import CASES, loads_of
from unterbau.studies.reach import grid, reach
from unterbau.studies.shake import shakes
from unterbau.studies.spread import spread
from unterbau.studies.sweep import catalogue, sweep_sections
from unterbau.studies.travel import Travel

TIMES = 15
MODES = 6
OURS = "the job: statics, six modes, energies"
FLOOR = "    factor and seven cases (pbtrf, pbtrs)"
OTHER = "openseespy, one case"
REACH, PLACES = "reach map, 15 × 15 × 3 places", "1,000 places, machine put up"
SAMPLES, SECTIONS = "200-sample band", "1,000 sections tried in the gantry beam"
SOLVES = {REACH: 675, PLACES: 1000, SAMPLES: 200, SECTIONS: 1000}
"""How often a study would factor and solve one by one; a sample asks for its lowest mode besides."""
CORE = """
import sys
from pathlib import Path
from unterbau.files.project_json import read_project
from unterbau.structure.parts import Place
from unterbau.studies.answers import answers
for candidate in read_project(Path(sys.argv[1])).candidates:
    answers(candidate.machine, Place())
print(next(round(int(row.split()[1]) / 1024) for row in open("/proc/self/status") if row.startswith("VmHWM")))
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
    system, blocks = solved.system, blocks_of(solved.system)
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
            for column in right[:, :BLOCK].T:
                dsbmv(len(system.band) - 1, 1.0, system.band, column, lower=1)

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
        FLOOR: timed(lambda: lapack.band_solve(lapack.band_cholesky(system.band)[0], right)),
        "  modes": timed(lambda: solve_modes(system, MODES)),
        "  energies": timed(lambda: energies(solved)),
    }


def other_rows(built: Built) -> dict[str, float]:
    """Return what other libraries take, s."""
    document = to_document(built.frame, loads_of(built), CASES, MODES)

    def opensees(cases: int) -> None:
        for case in document.cases[:cases]:
            frame = OpenSeesFrame(replace(document, cases=(case,)))
            frame.displacements(0)
        frame.frequencies(MODES)

    model = pynite_frame(document)
    return {
        "openseespy as usually written": timed(partial(opensees, len(CASES)), 3),
        "openseespy, one case and six modes only": timed(partial(opensees, 1), 3),
        OTHER: timed(lambda: OpenSeesFrame(replace(document, cases=document.cases[:1])).displacements(0), 3),
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
    rows[REACH] = timed(lambda: reach(machine), 5)
    travel = Travel(machine)
    thousand = grid((20, 10, 5))
    rows[PLACES] = timed(lambda: travel.answers(thousand), 5)
    rows[SAMPLES] = timed(lambda: spread(machine, Place()), 1)
    values = [value for _, value in catalogue("steel-s235")]
    many = (values * (1000 // len(values) + 1))[:1000]
    solved = solve(machine, Place(), "likely")
    rows[SECTIONS] = timed(lambda: sweep_sections(machine, "gantry_beam", Place(), many, solved), 5)
    rows["shaking at three levels"] = timed(lambda: shakes(machine, Place()), 3)
    return rows


def shop_rows(machine: Machine) -> dict[str, float]:
    """Return clashes, access, pieces and plans of all demos, and the answer after a brace was added."""
    demos = [
        read_project(Path(str(path))).candidates[0].machine
        for path in files("unterbau.demo").iterdir() if path.name.endswith(".unterbau")
    ]  # fmt: skip
    structures = [lay_out(one) for one in demos]
    pieces = [pieces_of(one) for one in structures]
    beam = next(name for name in lay_out(machine).pieces if name == "gantry beam")
    brace = Brace("brace_1", Footing("left side", "back", 0.5), Footing(beam, "back", 0.25))
    turn = [0.2]

    def braced() -> None:
        turn[0] += 0.001
        moved = replace(brace, b=Footing(beam, "back", turn[0]))
        likely_answers(replace(machine, changes=(moved,)), Place())

    return {
        f"clashes of {len(demos)} demos, every pair over the whole travel": timed(
            lambda: [clashes_of(one) for one in structures], 3
        ),
        "screws reached, all demos": timed(lambda: [access(one) for one in demos], 3),
        "bars of all demos, proven": timed(lambda: [bar_plans(one, {}, 0.0025, 0.005) for one in pieces], 3),
        "sheets of all demos": timed(lambda: [sheet_plans(one, lambda *_: None, 0.005, 0.01) for one in pieces], 3),
        "likely answers after a brace was moved": timed(braced, 5),
    }


def growth_rows() -> list[tuple[int, float, float, float]]:
    """Return unknowns, our statics, SuperLU on the same matrix and openseespy, s, for larger and larger gratings."""
    found = []
    for side in (3, 6, 11, 20, 32, 41):
        document = grating(side)
        frame, loads = to_arrays(document)
        system = assembly.assemble(frame)
        n = len(system.numbering.order)
        lower = dia_array((system.band, -np.arange(len(system.band))), shape=(n, n)).tocsc()
        full = (lower + lower.T - dia_array((system.band[:1], [0]), shape=(n, n))).tocsc()
        times = 3 if n < 3000 else 1
        ours = timed(partial(solve_statics, frame, loads), times)
        floor = timed(partial(super_lu, full), times)
        other = timed(lambda: OpenSeesFrame(document).displacements(0), 1)  # noqa: B023
        found.append((n, ours, floor, other))
    return found


def super_lu(matrix: Any) -> None:
    """Factor and solve with SuperLU, symmetric ordering."""
    options = {"SymmetricMode": True}
    factor = splu(matrix, permc_spec="MMD_AT_PLUS_A", diag_pivot_thresh=0.0, options=options)
    factor.solve(np.ones(matrix.shape[0]))


def grating(side: int) -> FrameDocument:
    """Return a square grating of beams, held at its corners, side × side nodes."""
    nodes = [[0.1 * i, 0.1 * j, 0.0] for j in range(side) for i in range(side)]
    beams = [{"i": f"n{j * side + i}", "j": f"n{j * side + i + 1}"} for j in range(side) for i in range(side - 1)]
    beams += [{"i": f"n{j * side + i}", "j": f"n{(j + 1) * side + i}"} for j in range(side - 1) for i in range(side)]
    corners = (0, side - 1, side * (side - 1), side * side - 1)
    middle = f"n{side * side // 2}"
    return read(
        data(
            nodes, beams, supports=[{"node": f"n{c}", "fixed": [True] * 6} for c in corners],
            cases=[{"id": "p", "forces": [{"node": middle, "force": [0.0, 0.0, -100.0]}]}],
        )
    )  # fmt: skip


def main() -> None:
    """Print the table; memory is kept as in the program's processes."""
    keep()
    demo = str(files("unterbau.demo") / "carving-router.unterbau")
    project = read_project(Path(demo))
    machine = project.candidates[1].machine
    built = to_frame(machine, Place(), "likely")
    rows = own_rows(built) | other_rows(built) | study_rows(machine, project.prices) | shop_rows(machine)
    for name, seconds in rows.items():
        sys.stdout.write(f"{name:50} {seconds * 1e3:8.1f} ms   the job × {seconds / rows[OURS]:7.2f}\n")
    sys.stdout.write("studies against solving one by one: factor and seven cases each, openseespy with one case each\n")
    for name, count in SOLVES.items():
        floor, other = (count * rows[one] / rows[name] for one in (FLOOR, OTHER))
        sys.stdout.write(f"{name:50} LAPACK × {floor:8.1f}   openseespy × {other:10.0f}\n")
    sys.stdout.write("growth: unknowns, our statics, SuperLU on the same matrix, openseespy one case; ms\n")
    for n, ours, floor, other in growth_rows():
        sys.stdout.write(
            f"{n:8} {ours * 1e3:9.1f} {floor * 1e3:9.1f} {other * 1e3:9.1f}   ours / SuperLU {ours / floor:5.1f}, "
            f"openseespy / ours {other / ours:5.1f}\n"
        )
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
