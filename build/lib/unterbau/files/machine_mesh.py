"""The whole machine as closed meshes: glTF (one node a piece, by name) and STL. Metres in glTF, millimetres in STL."""

from typing import Any

import numpy as np

from unterbau.solids.solids import placed, solids_of
from unterbau.structure.ends import sawn
from unterbau.structure.parts import Place
from unterbau.structure.piece import Bar
from unterbau.structure.structure import Structure
from unterbau.structure.vectors import cross
from unterbau.structure.weights import member_rings

MM = 1e3
COLOURS = {
    "bar": (150, 156, 160), "plate": (196, 186, 160), "rail": (70, 78, 82), "block": (90, 100, 96),
    "screw": (120, 120, 120), "spindle": (60, 90, 80), "cutter": (40, 40, 40),
}  # fmt: skip
OTHER = (170, 160, 140)


def machine_scene(structure: Structure, place: Place) -> Any:
    """Return a trimesh scene of a machine with its head at a place: every piece a closed mesh under its name.

    Bars are hollow as their section is, cut as they are sawn; bought parts are their envelopes.
    """
    import trimesh

    scene = trimesh.Scene()
    for step, put in placed(structure, place):
        for one in solids_of(step, structure):
            mesh = _hollow(structure, step) if isinstance(step, Bar) else None
            if mesh is None:
                mesh = trimesh.convex.convex_hull(one.body.corners)
            mesh.vertices = np.array([put((x, y, z)) for x, y, z in mesh.vertices.tolist()])
            mesh.visual.face_colors = (*COLOURS.get(one.sort, OTHER), 255)
            scene.add_geometry(mesh, node_name=one.name, geom_name=one.name)
    return scene


def gltf(structure: Structure, place: Place) -> bytes:
    """Return a machine as a glTF file in one piece (.glb), Y upwards as glTF wants it."""
    scene = machine_scene(structure, place)
    upright = np.array([[1.0, 0, 0, 0], [0, 0, 1, 0], [0, -1, 0, 0], [0, 0, 0, 1]])
    scene.apply_transform(upright)
    return bytes(scene.export(file_type="glb"))


def stl(structure: Structure, place: Place) -> bytes:
    """Return a machine as a binary STL file in mm, Z upwards."""
    scene = machine_scene(structure, place)
    mesh = scene.to_geometry()
    mesh.apply_scale(MM)
    return bytes(mesh.export(file_type="stl"))


def _hollow(structure: Structure, bar: Bar) -> Any | None:
    """Return a bar with its hollows as it is laid out; None where its outline cannot be meshed."""
    import trimesh
    from shapely import Polygon, constrained_delaunay_triangles

    rings = member_rings(bar.part)[: 1 if bar.part.fill else None]
    area = Polygon(rings[0], rings[1:])
    if not area.is_valid:
        return None
    flat = np.array([point for ring in rings for point in ring])
    number = {tuple(np.round(point, 9)): n for n, point in enumerate(flat.tolist())}
    caps: list[list[int]] = []
    for triangle in constrained_delaunay_triangles(area).geoms:
        known = [number.get(tuple(np.round(point, 9))) for point in triangle.exterior.coords[:3]]
        corners = [one for one in known if one is not None]
        if len(corners) < len(known):
            return None
        caps.append(corners)
    faces = [*caps, *([a + len(flat) for a in reversed(row)] for row in caps)]
    start = 0
    for ring in rings:
        for k in range(len(ring)):
            a, b = start + k, start + (k + 1) % len(ring)
            faces += [[a, b, b + len(flat)], [a, b + len(flat), a + len(flat)]]
        start += len(ring)
    mesh = trimesh.Trimesh(np.vstack(_corners(structure, bar, flat)), np.array(faces), process=False)
    trimesh.repair.fix_normals(mesh)
    return mesh if mesh.is_watertight else None


def _corners(structure: Structure, bar: Bar, flat: Any) -> list[Any]:
    """Return a section's points (y, z) at both ends of a bar, on the planes that it is sawn along."""
    as_cut, along = sawn(structure)[bar.name], np.array(bar.along)
    off = flat @ np.array([cross(bar.up, bar.along), bar.up])
    laid = []
    for place, normal in ((as_cut.start, as_cut.first.normal), (as_cut.end, as_cut.last.normal)):
        lean = -(off @ np.array(normal)) / float(np.dot(along, normal))
        laid.append(np.array(place) + off + lean[:, None] * along)
    return laid
