"""Small frames for tests, written as documents and read as the program reads them."""

import json
from typing import Any

import numpy as np

from unterbau.files.frame_document import FrameDocument
from unterbau.files.frame_json import read_frame
from unterbau.mechanics.arrays import FloatArray

STEEL = {"id": "steel", "E": 2.1e11, "G": 8.1e10, "rho": 7850.0, "zeta": 0.002}
SECTION = {"id": "s", "A": 1e-3, "Iy": 1e-6, "Iz": 2e-6, "J": 5e-7, "Asy": 5e-4, "Asz": 4e-4}
ALL = [True] * 6


def data(nodes: list[list[float]], beams: list[dict[str, Any]], **more: Any) -> dict[str, Any]:
    """Return a frame file's data: nodes n0, n1, …; the first one fixed unless said otherwise."""
    rows = [{"id": f"b{k}", "material": "steel", "section": "s", **beam} for k, beam in enumerate(beams)]
    return {
        "format": "unterbau-frame",
        "version": 1,
        "materials": [dict(STEEL)],
        "sections": [dict(SECTION)],
        "nodes": [{"id": f"n{k}", "xyz": xyz} for k, xyz in enumerate(nodes)],
        "beams": rows,
        "supports": [{"node": "n0", "fixed": list(ALL)}],
        **more,
    }


def read(frame: dict[str, Any]) -> FrameDocument:
    """Return the document of a frame file's data."""
    return read_frame(json.dumps(frame))


def cantilever(pieces: int = 1, length: float = 1.0, **more: Any) -> dict[str, Any]:
    """Return a cantilever along x, fixed at n0."""
    nodes = [[length * k / pieces, 0.0, 0.0] for k in range(pieces + 1)]
    beams = [{"i": f"n{k}", "j": f"n{k + 1}", "group": "arm"} for k in range(pieces)]
    return data(nodes, beams, **more)


def random_frame(seed: int, springs: bool = True, offsets: bool = True, product: bool = False) -> dict[str, Any]:
    """Return a connected frame drawn at random, with loads on every node.

    Args:
        seed: Of the draw.
        springs: Join some nodes by springs with axes of their own.
        offsets: Give beams rigid offsets.
        product: Give sections an Iyz.
    """
    draw = np.random.default_rng(seed)
    n = int(draw.integers(5, 9))
    nodes = (draw.uniform(-1, 1, (n, 3)) + np.arange(n)[:, None] * [0.6, 0.3, 0.2]).round(3).tolist()
    pairs = [(k, k + 1) for k in range(n - 1)] + [(0, n - 1), (1, n - 2)]
    beams: list[dict[str, Any]] = []
    for a, b in pairs:
        row: dict[str, Any] = {
            "i": f"n{a}",
            "j": f"n{b}",
            "up": draw.uniform(0.2, 1, 3).round(3).tolist(),
            "group": f"g{a % 3}",
        }
        if offsets and a % 2:
            row |= {"offset_i": draw.uniform(-0.05, 0.05, 3).round(4).tolist(), "offset_j": [0.0, 0.02, 0.03]}
        beams.append(row)
    forces = [
        {
            "node": f"n{k}",
            "force": draw.uniform(-1e3, 1e3, 3).tolist(),
            "moment": draw.uniform(-100, 100, 3).tolist(),
        }
        for k in range(1, n)
    ]
    more: dict[str, Any] = {"cases": [{"id": "pull", "forces": forces}], "modes": 4}
    if springs:
        more["springs"] = [
            {
                "id": f"k{a}", "i": f"n{a}", "j": f"n{b}", "k": (10 ** draw.uniform(4, 8, 6)).tolist(),
                "x": draw.uniform(0.1, 1, 3).tolist(), "up": [0.0, 0.0, 1.0], "zeta": 0.03, "group": "joint",
            }
            for a, b in ((2, 0), (3, 1))
        ] + [{"id": "ground", "i": f"n{n - 1}", "k": [1e6, 2e6, 3e6, 1e3, 2e3, 3e3]}]  # fmt: skip
    frame = data(nodes, beams, **more)
    if product:
        frame["sections"] = [{**SECTION, "Iyz": 0.8e-6}]
    return frame


def by_node(result: dict[str, Any], case: int, document: FrameDocument) -> FloatArray:
    """Return a case's displacements as an array (n_nodes, 6)."""
    rows = result["cases"][case]["displacements"]
    return np.array([rows[node.id] for node in document.nodes])
