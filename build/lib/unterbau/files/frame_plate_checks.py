"""What the types of a frame file cannot say of plates: order of lines, places on them, nodes in their places."""

import itertools

from unterbau.errors import InputError
from unterbau.files.frame_document import FrameDocument, Plate, Vector

NEAR = 1e-6
MOST = 40_000
"""Crossings of one plate's mesh."""


def check_plates(document: FrameDocument) -> None:
    """Check all plates.

    Raises:
        InputError: The first fault found, with its path.
    """
    nodes = {node.id: node.xyz for node in document.nodes}
    materials = {material.id for material in document.materials}
    joined = {end for beam in document.beams for end in (beam.i, beam.j)}
    joined |= {end for spring in document.springs for end in (spring.i, spring.j) if end is not None}
    joined |= {mass.node for mass in document.masses} | {support.node for support in document.supports}
    for index, plate in enumerate(document.plates):
        path = f"$.plates[{index}]"
        if plate.material not in materials:
            raise InputError(f"{path}.material", f'there is no material "{plate.material}"')
        if not plate.thickness > 0.0:
            raise InputError(f"{path}.thickness", f"expected more than 0, got {plate.thickness:g}")
        if not 0.0 <= plate.nu < 0.5:
            raise InputError(f"{path}.nu", f"expected 0 or more and less than 0.5, got {plate.nu:g}")
        if not 1e-3 <= plate.along <= 1e3:
            raise InputError(f"{path}.along", f"expected 0.001 to 1000, got {plate.along:g}")
        _mesh(path, plate)
        for place, one in enumerate(plate.slits):
            if min(abs(one - line) for line in plate.xs[:-1]) > NEAR or (plate.halved and plate.slits):
                raise InputError(f"{path}.slits[{place}]", "expected a mesh line of xs but the last, of a whole plate")
        axes = _axes(path, plate)
        _held(path, plate, nodes, axes)
        for place, point in enumerate(plate.points):
            if point.node in joined:
                raise InputError(
                    f"{path}.points[{place}].node", f'"{point.node}" only follows the plate; join things to a patch'
                )


def _mesh(path: str, plate: Plate) -> None:
    for name in ("xs", "ys"):
        lines = getattr(plate, name)
        if len(lines) < 2 or lines[0] != 0.0 or any(b - a < NEAR for a, b in itertools.pairwise(lines)):
            raise InputError(f"{path}.{name}", "expected mesh lines from 0 upwards, at least two, each beyond the last")
    if len(plate.xs) * len(plate.ys) > MOST:
        raise InputError(path, f"expected at most {MOST} crossings of mesh lines")


def _axes(path: str, plate: Plate) -> tuple[Vector, Vector]:
    x, up = plate.x, plate.up
    sizes = [sum(a * a for a in v) ** 0.5 for v in (x, up)]
    if min(sizes) == 0.0 or abs(sum(a * b for a, b in zip(x, up, strict=True))) > NEAR * sizes[0] * sizes[1]:
        raise InputError(f"{path}.up", "expected a direction square to the plate's x")
    ex, n = tuple(a / sizes[0] for a in x), tuple(a / sizes[1] for a in up)
    ey = (n[1] * ex[2] - n[2] * ex[1], n[2] * ex[0] - n[0] * ex[2], n[0] * ex[1] - n[1] * ex[0])
    return (ex[0], ex[1], ex[2]), ey


def _held(path: str, plate: Plate, nodes: dict[str, Vector], axes: tuple[Vector, Vector]) -> None:
    if not plate.patches:
        raise InputError(f"{path}.patches", "a plate needs something to hold it")
    used: set[str] = set()
    for name in ("patches", "points"):
        for place, one in enumerate(getattr(plate, name)):
            where = f"{path}.{name}[{place}]"
            if one.node not in nodes:
                raise InputError(f"{where}.node", f'there is no node "{one.node}"')
            if one.node in used:
                raise InputError(f"{where}.node", f'"{one.node}" is used twice in this plate')
            used.add(one.node)
            expected = [o + one.x * a + one.y * b for o, a, b in zip(plate.origin, *axes, strict=True)]
            if max(abs(a - b) for a, b in zip(expected, nodes[one.node], strict=True)) > NEAR:
                raise InputError(f"{where}.node", f'"{one.node}" does not stand at x {one.x:g}, y {one.y:g} of it')
            half = (getattr(one, "half_x", 0.0), getattr(one, "half_y", 0.0))
            if min(half) < 0.0:
                raise InputError(where, "expected half_x and half_y of 0 or more")
            inside = [
                any(abs(line - middle) < reach + NEAR for line in lines)
                for lines, middle, reach in ((plate.xs, one.x, half[0]), (plate.ys, one.y, half[1]))
            ]
            if not all(inside):
                raise InputError(where, "expected a crossing of mesh lines here")
