"""Whole frames against independent libraries: PyNiteFEA 3.2 and openseespy 3.7."""

import json
from dataclasses import fields, replace
from importlib.resources import files
from typing import Any

import numpy as np
import pytest
from Pynite import FEModel3D

from tests.frames import by_node, random_frame, read
from tests.validation.opensees import OpenSeesFrame
from unterbau.catalogue.joints import BoltGroup
from unterbau.files.frame_document import FrameDocument, Spring
from unterbau.files.frame_json import document_text, solve_document, to_arrays, to_document
from unterbau.files.project_json import parse_project
from unterbau.machine.kind import Kind
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import KINDS, Machine
from unterbau.mechanics.statics import solve_statics
from unterbau.mechanics.thermal import Heat, warmed
from unterbau.project.project import Candidate
from unterbau.structure.parts import Joint, Place, Plate
from unterbau.studies.loads import CASES, standard_loads

STATIC = 1e-6  # relative to the largest movement; both are exact, rounding is 1e-9
WELDED = 6e-5  # rigid directions are very stiff springs there
TIMBER = ("birch-ply", "mdf", "beech")
DEMO = parse_project((files("unterbau.demo") / "carving-router.unterbau").read_text(encoding="utf-8"))


@pytest.mark.parametrize("seed", range(8))
def test_random_frames_against_openseespy(seed: int) -> None:
    """Shear, springs with their own axes, springs to ground, rigid offsets."""
    document = read(random_frame(seed))
    own = by_node(solve_document(document), 0, document)
    other = OpenSeesFrame(document).displacements(0)
    assert np.abs(own - other).max() < STATIC * np.abs(other).max()


KIND_BY_KIND = [Candidate(kind.label, kind.model()) for kind in KINDS]


SHELLS = 0.02  # two kinds of four-node shell on one mesh; membranes with and without in-plane bending modes
SHELL_MODES = 0.015


def in_metal(machine: Machine) -> Machine:
    """Return a machine without timber: openseespy's shells take G from E and ν."""
    plates = {
        one.name: replace(getattr(machine, one.name), material="aluminium-5083")
        for one in fields(machine)
        if isinstance(getattr(machine, one.name), Plate) and getattr(machine, one.name).material in TIMBER
    }
    return replace(machine, **plates)


RIBBED = replace(
    MovingGantry(), side=Plate(0.012, "steel-s235", 2), z_plate=Plate(0.015, "aluminium-5083", 2, 0.03),
    beam_joint=Joint("bolts", bolts=BoltGroup("M8", 2, 2, 0.012, overhang=0.03)),
)  # fmt: skip
TO_COMPARE = [DEMO.candidates[0], DEMO.candidates[3], Candidate("ribs and base plates", RIBBED), *KIND_BY_KIND]


@pytest.mark.parametrize("candidate", TO_COMPARE, ids=lambda c: c.name)
def test_machines_against_openseespy(candidate: Candidate) -> None:
    """The exported frame, plates meshed with its shells: pulls at tip and nose, weight, four frequencies.

    Every kind of machine as it comes, and two candidates of the router's demo. Compared are the movements of
    all nodes of beams, springs and masses.
    """
    frame, loads = standard_loads(in_metal(candidate.machine), Place(0.4, 0.7, 0.3))
    document = read(to_dict(to_document(frame, loads, CASES, modes=4)))
    result = solve_document(document)
    points = {point.node for plate in document.plates for point in plate.points}
    kept = [n for n, node in enumerate(document.nodes) if node.id not in points]
    other = OpenSeesFrame(document)
    for case in range(len(CASES)):
        u, v = by_node(result, case, document)[kept, :3], other.displacements(case)[kept, :3]
        assert np.abs(u - v).max() < SHELLS * np.abs(v).max()
    own = [mode["frequency"] for mode in result["modes"]]
    assert own == pytest.approx(OpenSeesFrame(document, pieces=4).frequencies(4).tolist(), rel=SHELL_MODES)


@pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.id)
def test_what_is_not_plates_agrees_to_the_last_digits(kind: Kind) -> None:
    """Plates replaced by stiff springs between what they carry: beams, joints, blocks, offsets alone."""
    frame, loads = standard_loads(kind.model(), Place(0.4, 0.7, 0.3))
    document = read(to_dict(without_plates(to_document(frame, loads, CASES, modes=0))))
    result = solve_document(document)
    other = OpenSeesFrame(document)
    for case in range(len(CASES)):
        u, v = by_node(result, case, document), other.displacements(case)
        assert np.abs(u - v).max() < WELDED * np.abs(v).max()


def without_plates(document: FrameDocument) -> FrameDocument:
    """Return a document with each plate as springs from its first patch to all other nodes of it."""
    springs = list(document.springs)
    for plate in document.plates:
        hub, *rest = [patch.node for patch in plate.patches] + [point.node for point in plate.points]
        springs += [
            Spring(f"{plate.id} {n}", node, (1e9, 1e9, 1e9, 1e6, 1e6, 1e6), hub, group=plate.group)
            for n, node in enumerate(rest)
        ]
    return replace(document, springs=tuple(springs), plates=())


def to_dict(document: FrameDocument) -> dict[str, Any]:
    """Return a document's data as a file has it."""
    data: dict[str, Any] = json.loads(document_text(document))
    return data


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


@pytest.mark.parametrize("seed", [3, 5])
def test_warmth_is_an_initial_strain_for_openseespy_too(seed: int) -> None:
    """Beams that expand differently, springs and rigid arms that do not: forces E·A·α·ΔT by hand, solved there."""
    raw = random_frame(seed)
    alpha = {"g0": 12e-6, "g1": 23e-6, "g2": 5e-6}
    warm = 15.0
    A, E = raw["sections"][0]["A"], raw["materials"][0]["E"]
    places = {node["id"]: np.array(node["xyz"]) for node in raw["nodes"]}
    loads = {name: np.zeros(6) for name in places}
    for row in raw["beams"]:
        off = [np.array(row.get(end, (0.0, 0.0, 0.0))) for end in ("offset_i", "offset_j")]
        ends = [places[row["i"]] + off[0], places[row["j"]] + off[1]]
        axis = (ends[1] - ends[0]) / np.linalg.norm(ends[1] - ends[0])
        for name, arm, way in ((row["i"], off[0], -1.0), (row["j"], off[1], 1.0)):
            force = way * E * A * alpha[row["group"]] * warm * axis
            loads[name] += np.concatenate([force, np.cross(arm, force)])
    forces = [
        {"node": name, "force": six[:3].tolist(), "moment": six[3:].tolist()}
        for name, six in loads.items() if name != "n0"
    ]  # fmt: skip
    raw["cases"] = [{"id": "warm", "forces": forces}]
    document = read(raw)
    frame, cases = to_arrays(document)
    statics = solve_statics(frame, cases)
    of_beams = np.array([alpha[row["group"]] for row in raw["beams"]])
    mine = warmed(statics, of_beams, np.zeros(0), 0.0, (Heat(warm, np.zeros(3), np.zeros(3)),))[0]
    theirs = OpenSeesFrame(document).displacements(0)
    assert np.abs(theirs).max() > 1e-5
    assert np.abs(mine - theirs).max() < STATIC * np.abs(theirs).max()
