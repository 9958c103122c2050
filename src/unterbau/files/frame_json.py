"""Frames and their results as JSON, `unterbau-frame` version 3."""

import dataclasses
import json
from collections.abc import Sequence
from typing import Any

import numpy as np

from unterbau.errors import InputError
from unterbau.files import frame_document as doc
from unterbau.files.frame_checks import check
from unterbau.files.frame_plates import plate_arrays, plate_rows
from unterbau.files.json_places import as_far_as_read, told
from unterbau.files.plain_reader import read_plainly
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.errors import ConditionError, MechanismError
from unterbau.mechanics.frame import BY_STRAIN, CAUSES, Beams, Frame, Loads, Masses, Springs, no_seats
from unterbau.mechanics.modes import Modes, settled_modes
from unterbau.mechanics.seats import split
from unterbau.mechanics.statics import (
    Statics,
    beam_end_forces,
    energies,
    reactions,
    solve_statics,
    total_mass,
)


def read_frame(text: str | bytes) -> doc.FrameDocument:
    """Return the document in a frame file's text.

    Raises:
        InputError: With the path of the fault.
    """
    try:
        document = read_plainly(doc.FrameDocument, text)
        check(document)
    except InputError as error:
        raise told(error, as_far_as_read(text)) from None
    return document


def to_arrays(document: doc.FrameDocument) -> tuple[Frame, Loads]:
    """Return the frame and its load cases as arrays."""
    place = {node.id: index for index, node in enumerate(document.nodes)}
    groups = {name: index for index, name in enumerate(dict.fromkeys(_group_names(document)))}
    fixed = np.zeros((len(place), 6), dtype=bool)
    for support in document.supports:
        fixed[place[support.node]] |= np.array(support.fixed)
    frame = Frame(
        nodes=_rows([node.xyz for node in document.nodes], 3),
        beams=_beams(document, place, groups),
        springs=_springs(document, place, groups),
        seats=no_seats(),
        masses=Masses(
            np.array([place[m.node] for m in document.masses], dtype=np.intp),
            np.array([m.m for m in document.masses], dtype=float),
            _rows([m.inertia for m in document.masses], 3),
            _rows([m.offset for m in document.masses], 3),
            np.array([m.hung for m in document.masses], dtype=float),
        ),
        fixed=fixed,
        groups=tuple(groups),
        node_names=tuple(place),
        plates=plate_arrays(document, place, groups),
    )
    forces = np.zeros((len(document.cases), len(place), 6))
    for index, case in enumerate(document.cases):
        for load in case.forces:
            forces[index, place[load.node]] += (*load.force, *load.moment)
    return frame, Loads(forces, _rows([case.gravity for case in document.cases], 3))


def _group_names(document: doc.FrameDocument) -> list[str]:
    elements: list[doc.Beam | doc.Spring | doc.Plate] = [*document.beams, *document.springs, *document.plates]
    return [e.id if e.group is None else e.group for e in elements]


def _rows(values: list[Any], width: int) -> FloatArray:
    return np.array(values, dtype=float).reshape(len(values), width)


def _beams(document: doc.FrameDocument, place: dict[str, int], groups: dict[str, int]) -> Beams:
    materials = {m.id: m for m in document.materials}
    sections = {s.id: s for s in document.sections}
    rows = document.beams
    of_material = [materials[b.material] for b in rows]
    of_section = [sections[b.section] for b in rows]

    def column(items: Sequence[object], name: str) -> FloatArray:
        return np.array([getattr(item, name) for item in items], dtype=float)

    return Beams(
        i=np.array([place[b.i] for b in rows], dtype=np.intp),
        j=np.array([place[b.j] for b in rows], dtype=np.intp),
        offset_i=_rows([b.offset_i for b in rows], 3),
        offset_j=_rows([b.offset_j for b in rows], 3),
        up=_rows([b.up for b in rows], 3),
        **{name: column(of_material, name) for name in ("E", "G", "rho", "zeta")},
        **{name: column(of_section, name) for name in ("A", "Iy", "Iz", "Iyz", "J", "Asy", "Asz", "ys", "zs")},
        group=np.array([groups[b.id if b.group is None else b.group] for b in rows], dtype=np.intp),
        cause=np.array([BY_STRAIN if b.cause is None else CAUSES.index(b.cause) for b in rows], dtype=np.intp),
    )


def _springs(document: doc.FrameDocument, place: dict[str, int], groups: dict[str, int]) -> Springs:
    rows = document.springs
    return Springs(
        np.array([place[s.i] for s in rows], dtype=np.intp),
        np.array([-1 if s.j is None else place[s.j] for s in rows], dtype=np.intp),
        _rows([s.x for s in rows], 3),
        _rows([s.up for s in rows], 3),
        _rows([[np.inf if k is None else k for k in s.k] for s in rows], 6),
        np.array([s.zeta for s in rows], dtype=float),
        np.array([groups[s.id if s.group is None else s.group] for s in rows], dtype=np.intp),
        np.array([CAUSES.index(s.cause) for s in rows], dtype=np.intp),
    )


def solve_document(document: doc.FrameDocument) -> dict[str, Any]:
    """Return the result of a frame document as plain JSON data.

    Raises:
        InputError: The frame is a mechanism or cannot be solved; names what is free.
    """
    try:
        with np.errstate(over="raise", invalid="raise", divide="raise"):
            frame, loads = to_arrays(document)
            statics = solve_statics(frame, loads)
            modes = settled_modes(frame, document.modes) if document.modes else None
            found = result_data(document, statics, modes)
    except (MechanismError, ConditionError) as error:
        raise InputError("$", str(error)) from None
    except (np.linalg.LinAlgError, ValueError, ArithmeticError) as error:
        raise InputError("$", f"these numbers make no frame that can be solved ({error})") from None
    shapes = () if modes is None else (modes.frequency, modes.shape)
    if not all(np.isfinite(one).all() for one in (statics.u, *shapes)):
        raise InputError("$", "the answer is not finite; expected stiffnesses and masses that are less far apart")
    return found


def result_data(document: doc.FrameDocument, statics: Statics, modes: Modes | None) -> dict[str, Any]:
    """Return statics and modes as plain JSON data."""
    frame = statics.system.elements.frame
    mass, centre = total_mass(frame)
    support_forces = reactions(statics)
    energy = energies(statics)
    supported = frame.fixed.any(axis=1)
    names = frame.node_names
    cases = []
    for index, case in enumerate(document.cases):
        ends = beam_end_forces(statics, index)
        cases.append(
            {
                "id": case.id,
                "displacements": {n: u.tolist() for n, u in zip(names, statics.u[index], strict=True)},
                "reactions": {names[n]: support_forces[index, n].tolist() for n in np.flatnonzero(supported)},
                "beam_forces": {
                    b.id: {"i": f[0].tolist(), "j": f[1].tolist()} for b, f in zip(document.beams, ends, strict=True)
                },
                "energy": {
                    group: dict(zip(CAUSES, row.tolist(), strict=True))
                    for group, row in zip(frame.groups, energy[index], strict=True)
                },
            }
        )
    return {
        "format": "unterbau-frame-result",
        "version": 1,
        "mass": mass,
        "centre_of_mass": centre.tolist(),
        "cases": cases,
        "modes": _mode_rows(names, modes) if modes else [],
    }


def _mode_rows(names: tuple[str, ...], modes: Modes) -> list[dict[str, Any]]:
    rows = []
    for frequency, zeta, shape in zip(modes.frequency, modes.zeta, modes.shape, strict=True):
        moves = shape[:, :3].ravel()
        largest = moves[np.argmax(np.abs(moves))] if moves.any() else 1.0
        scaled = {name: (row / largest).tolist() for name, row in zip(names, shape, strict=True)}
        rows.append({"frequency": float(frequency), "zeta": float(zeta), "shape": scaled})
    return rows


def to_document(frame: Frame, loads: Loads, case_names: tuple[str, ...], modes: int) -> doc.FrameDocument:
    """Return a frame as a document; rails are split where a block stands inside a beam."""
    parts = split(frame)
    whole, beams, springs = parts.frame, parts.frame.beams, parts.frame.springs
    names = whole.node_names
    materials: dict[tuple[float, ...], str] = {}
    plates = plate_rows(whole, materials)
    sections: dict[tuple[float, ...], str] = {}
    rows = []
    for b in range(len(beams)):
        material = tuple(float(getattr(beams, n)[b]) for n in ("E", "G", "rho", "zeta"))
        section = tuple(float(getattr(beams, n)[b]) for n in ("A", "Iy", "Iz", "J", "Asy", "Asz", "Iyz", "ys", "zs"))
        rows.append(
            doc.Beam(
                f"b{b + 1}",
                names[beams.i[b]],
                names[beams.j[b]],
                materials.setdefault(material, f"m{len(materials) + 1}"),
                sections.setdefault(section, f"s{len(sections) + 1}"),
                _vector(beams.up[b]),
                _vector(beams.offset_i[b]),
                _vector(beams.offset_j[b]),
                whole.groups[beams.group[b]],
                CAUSES[beams.cause[b]] if beams.cause[b] != BY_STRAIN else None,  # type: ignore[arg-type]
            )
        )
    return doc.FrameDocument(
        format="unterbau-frame",
        version=doc.VERSION,
        materials=tuple(doc.Material(name, *values) for values, name in materials.items()),
        sections=tuple(doc.Section(name, *values) for values, name in sections.items()),
        nodes=tuple(doc.Node(name, _vector(xyz)) for name, xyz in zip(names, whole.nodes, strict=True)),
        beams=tuple(rows),
        supports=tuple(
            doc.Support(names[n], tuple(whole.fixed[n].tolist())) for n in np.flatnonzero(whole.fixed.any(axis=1))
        ),
        springs=tuple(_spring_row(whole, springs, s) for s in range(len(springs))),
        masses=tuple(
            doc.Mass(f"w{m + 1}", names[node], float(whole.masses.m[m]), _vector(whole.masses.inertia[m]),
                     _vector(whole.masses.offset[m]), float(whole.masses.hung[m]))
            for m, node in enumerate(whole.masses.node)
        ),
        cases=tuple(_case_row(loads, c, name, names) for c, name in enumerate(case_names)),
        modes=modes,
        plates=plates,
    )  # fmt: skip


def _spring_row(frame: Frame, springs: Springs, s: int) -> doc.Spring:
    k = tuple(None if np.isinf(value) else float(value) for value in springs.k[s])
    return doc.Spring(
        f"k{s + 1}",
        frame.node_names[springs.i[s]],
        k,  # type: ignore[arg-type]
        None if springs.j[s] < 0 else frame.node_names[springs.j[s]],
        _vector(springs.x[s]),
        _vector(springs.up[s]),
        float(springs.zeta[s]),
        frame.groups[springs.group[s]],
        CAUSES[springs.cause[s]],  # type: ignore[arg-type]
    )


def _case_row(loads: Loads, case: int, name: str, names: tuple[str, ...]) -> doc.Case:
    rows = loads.forces[case]
    forces = tuple(
        doc.NodeLoad(names[n], _vector(rows[n, :3]), _vector(rows[n, 3:])) for n in np.flatnonzero(rows.any(axis=1))
    )
    return doc.Case(name, forces, _vector(loads.gravity[case]))


def _vector(values: FloatArray) -> doc.Vector:
    x, y, z = (float(v) for v in values)
    return (x, y, z)


def document_text(document: doc.FrameDocument) -> str:
    """Return a document as JSON text; absent `j` is left out."""
    data = dataclasses.asdict(document)
    for spring in data["springs"]:
        if spring["j"] is None:
            del spring["j"]
        if spring["cause"] == "joint":
            del spring["cause"]
    for member in data["beams"]:
        if member["cause"] is None:
            del member["cause"]
    return json.dumps(data, indent=1) + "\n"
