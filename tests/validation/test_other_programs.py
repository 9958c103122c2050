"""Whole frames against independent libraries: PyNiteFEA 3.2 and openseespy 3.7."""

from importlib.resources import files
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from Pynite import FEModel3D

from tests.frames import by_node, random_frame, read
from tests.validation.opensees import OpenSeesFrame
from unterbau.files.frame_json import solve_document, to_document
from unterbau.files.project_json import parse_project, read_project
from unterbau.machine.machine import KINDS
from unterbau.machine.parts import Place
from unterbau.project.project import Candidate
from unterbau.studies.loads import CASES, standard_loads

STATIC = 1e-6  # relative to the largest movement; both are exact, rounding is 1e-9
WELDED = 3e-5  # rigid directions are very stiff springs there
MODAL = 5e-3
DEMO = parse_project((files("unterbau.demo") / "carving-router.unterbau").read_text(encoding="utf-8"))


@pytest.mark.parametrize("seed", range(8))
def test_random_frames_against_openseespy(seed: int) -> None:
    """Shear, springs with their own axes, springs to ground, rigid offsets."""
    document = read(random_frame(seed))
    own = by_node(solve_document(document), 0, document)
    other = OpenSeesFrame(document).displacements(0)
    assert np.abs(own - other).max() < STATIC * np.abs(other).max()


SHIPPED = sorted(str(p) for p in files("unterbau.demo").iterdir() if p.name.endswith(".unterbau"))
FIRST = [read_project(Path(p)).candidates[0] for p in SHIPPED if "carving" not in p]
KIND_BY_KIND = [Candidate(kind.label, kind.model()) for kind in KINDS]


@pytest.mark.parametrize("candidate", [*DEMO.candidates, *FIRST, *KIND_BY_KIND], ids=lambda c: c.name)
def test_machines_against_openseespy(candidate: Candidate) -> None:
    """The exported frame: pulls at tip and nose, its weight, and six frequencies on beams in four pieces.

    Every kind of machine as it comes, and the first candidate of every demo.
    """
    frame, loads = standard_loads(candidate.machine, Place(0.4, 0.7, 0.3))
    document = to_document(frame, loads, CASES, modes=6)
    result = solve_document(document)
    rigid = any(k is None for spring in document.springs for k in spring.k)
    other = OpenSeesFrame(document)
    for case in range(len(CASES)):
        u, v = by_node(result, case, document), other.displacements(case)
        assert np.abs(u - v).max() < (WELDED if rigid else STATIC) * np.abs(v).max()
    own = [mode["frequency"] for mode in result["modes"]]
    assert own == pytest.approx(OpenSeesFrame(document, pieces=4).frequencies(6).tolist(), rel=MODAL)


def pynite_displacements(frame: dict[str, Any]) -> np.ndarray[Any, Any]:
    """Euler–Bernoulli in PyNiteFEA; its local y is our z where `up` is its vertical, Y."""
    model = FEModel3D()
    steel, section = frame["materials"][0], frame["sections"][0]
    model.add_material("steel", steel["E"], steel["G"], 0.3, steel["rho"])
    model.add_section("s", section["A"], section["Iz"], section["Iy"], section["J"])
    for node in frame["nodes"]:
        model.add_node(node["id"], *node["xyz"])
    for beam in frame["beams"]:
        model.add_member(beam["id"], beam["i"], beam["j"], "steel", "s")
    model.def_support("n0", *[True] * 6)
    for load in frame["cases"][0]["forces"]:
        for name, vector in (("F", load["force"]), ("M", load["moment"])):
            for axis, value in zip("XYZ", vector, strict=True):
                model.add_node_load(load["node"], f"{name}{axis}", value)
    model.analyze_linear()
    names = ("DX", "DY", "DZ", "RX", "RY", "RZ")
    return np.array([[getattr(model.nodes[n["id"]], d)["Combo 1"] for d in names] for n in frame["nodes"]])


@pytest.mark.filterwarnings("ignore")
@pytest.mark.parametrize("seed", range(20, 26))
def test_random_frames_against_pynite(seed: int) -> None:
    frame = random_frame(seed, springs=False, offsets=False)
    for beam in frame["beams"]:
        beam["up"] = [0.0, 1.0, 0.0]
    frame["sections"] = [{k: v for k, v in frame["sections"][0].items() if not k.startswith("As")}]
    document = read(frame)
    own, other = by_node(solve_document(document), 0, document), pynite_displacements(frame)
    assert np.abs(own - other).max() < STATIC * np.abs(other).max()
