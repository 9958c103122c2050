"""What the types of a frame file cannot say: references, signs, directions."""

import math
from collections.abc import Iterable, Sequence
from typing import Protocol

from unterbau.errors import InputError
from unterbau.files.frame_document import READABLE, VERSION, Beam, FrameDocument, Vector
from unterbau.files.frame_plate_checks import check_plates

MOST_MODES = 200
PARALLEL = 1e-6  # sine of the smallest accepted angle between a direction and its `up`


class _Named(Protocol):
    @property
    def id(self) -> str: ...


def check(document: FrameDocument) -> None:
    """Check everything beyond types.

    Raises:
        InputError: The first fault found, with its path.
    """
    _version(document)
    if not document.nodes:
        raise InputError("$.nodes", "a frame needs at least one node")
    if not 0 <= document.modes <= MOST_MODES:
        raise InputError("$.modes", f"expected a whole number from 0 to {MOST_MODES}")
    for name in ("materials", "sections", "nodes", "beams", "springs", "plates", "masses", "cases"):
        _unique(f"$.{name}", getattr(document, name))
    _materials(document)
    _sections(document)
    _beams(document)
    _springs(document)
    check_plates(document)
    _masses_supports_cases(document)


def _version(document: FrameDocument) -> None:
    """Check that the file holds only what its version knows."""
    if document.version not in READABLE:
        newer = (
            "was written by a newer program; this one reads"
            if document.version > VERSION
            else "is not known; this program reads"
        )
        raise InputError("$.version", f"version {document.version} {newer} versions 1 to {VERSION}")
    if document.version == 1 and document.plates:
        raise InputError("$.plates", "plates come with version 2; this file says version 1")
    if document.version == 1:
        for index, section in enumerate(document.sections):
            if section.ys or section.zs:
                where = f"$.sections[{index}].{'ys' if section.ys else 'zs'}"
                raise InputError(where, "shear centres come with version 2; this file says version 1")
    if document.version < VERSION:
        _no_causes(document)


def _no_causes(document: FrameDocument) -> None:
    for name in ("beams", "springs"):
        for index, element in enumerate(getattr(document, name)):
            if element.cause not in (None, "joint"):
                where = f"$.{name}[{index}].cause"
                raise InputError(where, f"causes come with version 3; this file says version {document.version}")


def _unique(path: str, items: Sequence[_Named]) -> None:
    seen: dict[str, int] = {}
    for index, item in enumerate(items):
        if item.id in seen:
            raise InputError(f"{path}[{index}].id", f'"{item.id}" is already used by {path}[{seen[item.id]}]')
        seen[item.id] = index


def _positive(path: str, item: object, names: Iterable[str]) -> None:
    for name in names:
        if not getattr(item, name) > 0.0:
            raise InputError(f"{path}.{name}", f"expected more than 0, got {getattr(item, name):g}")


def _not_negative(path: str, item: object, names: Iterable[str]) -> None:
    for name in names:
        if getattr(item, name) < 0.0:
            raise InputError(f"{path}.{name}", f"expected 0 or more, got {getattr(item, name):g}")


def _materials(document: FrameDocument) -> None:
    for index, material in enumerate(document.materials):
        path = f"$.materials[{index}]"
        _positive(path, material, ("E", "G"))
        _not_negative(path, material, ("rho", "zeta"))


def _sections(document: FrameDocument) -> None:
    for index, section in enumerate(document.sections):
        path = f"$.sections[{index}]"
        _positive(path, section, ("A", "Iy", "Iz", "J"))
        _not_negative(path, section, ("Asy", "Asz"))
        if section.Iy * section.Iz <= section.Iyz * section.Iyz:
            raise InputError(f"{path}.Iyz", "Iy·Iz must be greater than Iyz²; no real section has this")


def _known(path: str, value: str, known: set[str], what: str) -> None:
    if value not in known:
        raise InputError(path, f'there is no {what} "{value}"')


def _beams(document: FrameDocument) -> None:
    nodes = {node.id: node.xyz for node in document.nodes}
    materials = {material.id for material in document.materials}
    sections = {section.id for section in document.sections}
    for index, beam in enumerate(document.beams):
        path = f"$.beams[{index}]"
        for end in ("i", "j"):
            _known(f"{path}.{end}", getattr(beam, end), set(nodes), "node")
        _known(f"{path}.material", beam.material, materials, "material")
        _known(f"{path}.section", beam.section, sections, "section")
        span = _span(beam, nodes)
        if math.hypot(*span) == 0.0:
            raise InputError(path, "this beam has no length")
        _direction(f"{path}.up", span, beam.up, "the beam")


def _span(beam: Beam, nodes: dict[str, Vector]) -> Vector:
    a, b = nodes[beam.i], nodes[beam.j]
    x, y, z = (b[d] + beam.offset_j[d] - a[d] - beam.offset_i[d] for d in range(3))
    return (x, y, z)


def _direction(path: str, x: Vector, up: Vector, what: str) -> None:
    size = math.hypot(*up)
    if size == 0.0:
        raise InputError(path, "expected a direction, got three zeros")
    cross = (x[1] * up[2] - x[2] * up[1], x[2] * up[0] - x[0] * up[2], x[0] * up[1] - x[1] * up[0])
    if math.hypot(*cross) <= PARALLEL * size * math.hypot(*x):
        raise InputError(path, f"`up` is parallel to {what}; choose another direction")


def _springs(document: FrameDocument) -> None:
    nodes = {node.id for node in document.nodes}
    for index, spring in enumerate(document.springs):
        path = f"$.springs[{index}]"
        _known(f"{path}.i", spring.i, nodes, "node")
        if spring.j is not None:
            _known(f"{path}.j", spring.j, nodes, "node")
        if spring.i == spring.j:
            raise InputError(f"{path}.j", "a spring needs two different nodes, or no `j` for ground")
        if math.hypot(*spring.x) == 0.0:
            raise InputError(f"{path}.x", "expected a direction, got three zeros")
        _direction(f"{path}.up", spring.x, spring.up, "the spring's x")
        for place, k in enumerate(spring.k):
            if k is not None and k < 0.0:
                raise InputError(f"{path}.k[{place}]", f"a stiffness cannot be negative, got {k:g}")
        _not_negative(path, spring, ("zeta",))


def _masses_supports_cases(document: FrameDocument) -> None:
    nodes = {node.id for node in document.nodes}
    for index, mass in enumerate(document.masses):
        path = f"$.masses[{index}]"
        _known(f"{path}.node", mass.node, nodes, "node")
        _not_negative(path, mass, ("m",))
        for place, value in enumerate(mass.inertia):
            if value < 0.0:
                raise InputError(f"{path}.inertia[{place}]", f"expected 0 or more, got {value:g}")
    for index, support in enumerate(document.supports):
        _known(f"$.supports[{index}].node", support.node, nodes, "node")
    for index, case in enumerate(document.cases):
        for place, load in enumerate(case.forces):
            _known(f"$.cases[{index}].forces[{place}].node", load.node, nodes, "node")
