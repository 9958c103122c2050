"""Plates between a frame file and arrays."""

import numpy as np

from unterbau.files import frame_document as doc
from unterbau.mechanics.arrays import FloatArray
from unterbau.mechanics.frame import Frame, Plate
from unterbau.mechanics.plate_element import PlateMaterial
from unterbau.mechanics.plate_spec import Patch, PlateSpec


def plate_arrays(document: doc.FrameDocument, place: dict[str, int], groups: dict[str, int]) -> tuple[Plate, ...]:
    """Return a document's plates as the solver takes them."""
    materials = {m.id: m for m in document.materials}
    found = []
    for row in document.plates:
        m = materials[row.material]
        x, up = np.array(row.x) / np.linalg.norm(row.x), np.array(row.up) / np.linalg.norm(row.up)
        spec = PlateSpec(
            row.xs, row.ys, row.thickness, PlateMaterial(m.E, m.G, row.nu, m.rho, row.along),
            tuple(Patch(p.x, p.y, p.half_x, p.half_y) for p in row.patches), tuple((p.x, p.y) for p in row.points),
            row.halved, row.slits,
        )  # fmt: skip
        patches = np.array([place[p.node] for p in row.patches], dtype=np.intp)
        points = np.array([place[p.node] for p in row.points], dtype=np.intp)
        group = groups[row.id if row.group is None else row.group]
        axes = np.array([x, np.cross(up, x), up])
        found.append(Plate(spec, axes, np.array(row.origin, dtype=float), patches, points, m.zeta, group))
    return tuple(found)


def plate_rows(frame: Frame, materials: dict[tuple[float, ...], str]) -> tuple[doc.Plate, ...]:
    """Return a frame's plates as rows of a document; adds to the materials by their values."""
    rows, names = [], frame.node_names
    for number, plate in enumerate(frame.plates, 1):
        spec, m = plate.spec, plate.spec.material
        values = (m.E * plate.stiff, m.G * plate.stiff, m.rho, plate.zeta)
        rows.append(
            doc.Plate(
                f"p{number}", materials.setdefault(values, f"m{len(materials) + 1}"), spec.thickness, m.nu,
                _vector(plate.origin), _vector(plate.axes[0]), _vector(plate.axes[2]), spec.xs, spec.ys,
                tuple(
                    doc.PlatePatch(names[node], p.x, p.y, p.half_x, p.half_y)
                    for node, p in zip(plate.patches, spec.patches, strict=True)
                ),
                tuple(
                    doc.PlatePoint(names[node], *point) for node, point in zip(plate.points, spec.points, strict=True)
                ),
                frame.groups[plate.group],
                spec.halved,
                m.along,
                spec.slits,
            )
        )  # fmt: skip
    return tuple(rows)


def _vector(values: FloatArray) -> doc.Vector:
    x, y, z = (float(v) for v in values)
    return (x, y, z)
