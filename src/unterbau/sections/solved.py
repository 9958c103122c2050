"""Sections that finite elements solved: shipped, or the builder's own, which travel with the machine."""

import dataclasses
import hashlib
from dataclasses import dataclass
from typing import TYPE_CHECKING, Annotated

from typing_extensions import override

from unterbau.errors import InputError
from unterbau.hashed import Hashed, hashed_once
from unterbau.sections import meshed
from unterbau.sections.outline import integrate
from unterbau.sections.outline import polygon as loop
from unterbau.sections.properties import SectionProperties
from unterbau.strict import STRICT, Named

if TYPE_CHECKING:
    from shapely.geometry import Polygon

Ring = tuple[tuple[float, float], ...]
FILE = "built_up.json"
MARK = "~"
"""Before what tells sections of one name apart."""
OWN = "own-"
"""Begins the names of the builder's own sections."""
FINE = 800  # triangles are no larger than the area divided by this


@dataclass(frozen=True, slots=True)
class SolvedSection:
    """A cross-section with its values, as kept in files. SI units; outline about the centroid, m."""

    __pydantic_config__ = STRICT

    name: str
    label: str
    A: float
    Iy: float
    Iz: float
    Iyz: float
    J: float
    Asy: float
    Asz: float
    Iw: float
    ys: float
    zs: float
    outline: tuple[Ring, ...]
    """The outside first, then hollows."""
    material: str = ""
    """Where it is of several: the one that its values are expressed in."""
    weight: float = 1.0
    """Its mass against area times that one's density."""

    @property
    def properties(self) -> SectionProperties:
        """Values as a beam needs them."""
        return SectionProperties(
            self.A, self.Iy, self.Iz, self.Iyz, self.J, self.Asy, self.Asz, "finite elements over the cross-section",
            self.Iw, self.ys, self.zs,
        )  # fmt: skip


@hashed_once
@dataclass(frozen=True, slots=True)
class CustomSection(Hashed):
    """A solved section of the builder's own, as the members hold it that are made of it.

    It is compared by its content: two projects may call different sections by one name.
    """

    values: SolvedSection
    profile: SolvedSection | None = None
    """For a built-up one: the builder's own profile that it is built up of, if that is no standard one."""

    @property
    def name(self) -> str:
        """By which files call it."""
        return self.values.name

    @override
    def __str__(self) -> str:
        return self.name

    def told_apart(self) -> "CustomSection":
        """Return it by a name that stands for its values, for use beside another section of the same name."""
        content = repr((dataclasses.replace(self.values, name="", label=""), self.profile))
        mark = hashlib.sha256(content.encode()).hexdigest()[:8]
        name = f"{self.name.partition(MARK)[0]}{MARK}{mark}"
        return dataclasses.replace(self, values=dataclasses.replace(self.values, name=name))


SectionRef = Annotated[str | CustomSection, Named()]
"""The section of a member: the name of a standard one, or one of the builder's own with its values."""


def section_name(of: SectionRef) -> str:
    """Return the name of a member's section."""
    return of if isinstance(of, str) else of.name


@dataclass(frozen=True, slots=True)
class Stuff:
    """What a part of a mixed section is of."""

    id: str
    E: float
    rho: float


def check_solved(one: SolvedSection) -> None:
    """Check a section that came with a file.

    Raises:
        InputError: Values that no cross-section has.
    """
    for field in ("A", "Iy", "Iz", "J", "Asy", "Asz"):
        if not 0.0 < getattr(one, field) < 10.0:
            raise InputError(field, f"expected more than 0 and less than 10, got {getattr(one, field):g}")
    if one.Iy * one.Iz <= one.Iyz**2:
        raise InputError("Iyz", "Iy·Iz must be greater than Iyz²; no real section has this")
    if not 0.0 <= one.Iw < 1.0:
        raise InputError("Iw", f"expected 0 or more, got {one.Iw:g}")
    if not 0.0 < one.weight < 100.0:
        raise InputError("weight", f"expected more than 0 and less than 100, got {one.weight:g}")
    if not one.name.startswith(OWN) and "-of-" not in one.name:
        raise InputError("name", f'expected a name that begins with own-, got "{one.name}"')
    if not one.outline or any(len(ring) < 3 for ring in one.outline):
        raise InputError("outline", "expected closed rings of at least three points")


def solve_polygon(name: str, label: str, shape: "Polygon", mesh: float = FINE) -> SolvedSection:
    """Return a polygon in millimetres as a solved section; takes seconds."""
    centred = outline_of(shape)
    p = meshed.solve(shape, mesh)
    values = {f.name: getattr(p, f.name) for f in dataclasses.fields(p) if f.name != "method"}
    return SolvedSection(name, label, outline=centred, **values)


def solve_mixed(name: str, label: str, parts: list[tuple["Polygon", Stuff]], mesh: float = FINE) -> SolvedSection:
    """Return a section of several bonded materials as one of the first, by the ratios of E; takes seconds.

    Source:
        Transformed section; torsion by the warping function weighted with E, so G/E is taken as the first one's.
    """
    from sectionproperties.analysis import Section
    from sectionproperties.pre import Geometry
    from sectionproperties.pre import Material as Stuff
    from shapely.ops import unary_union

    base = parts[0][1]
    whole = None
    for shape, of in parts:
        stuff = Stuff(of.id, of.E / base.E, 0.0, 1.0, 1.0, "grey")
        one = Geometry(shape, stuff)
        whole = one if whole is None else whole + one
    assert whole is not None
    area = sum(shape.area for shape, _ in parts)
    whole.create_mesh(mesh_sizes=[area / mesh] * len(parts))
    section = Section(whole)
    section.calculate_geometric_properties()
    section.calculate_warping_properties()
    one = outline_of(unary_union([shape for shape, _ in parts]))
    ixx, iyy, ixy = section.get_eic(e_ref=1.0)
    cx, cy = section.get_c()
    x, y = section.get_sc()
    as_x, as_y = section.get_eas(e_ref=1.0)
    EA = section.get_ea(e_ref=1.0)
    mass = sum(shape.area * of.rho for shape, of in parts)
    mm2, mm4 = 1e-6, 1e-12
    flat = unary_union([shape for shape, _ in parts]).centroid
    moved = tuple(tuple((a + (flat.x - cx) * 1e-3, b + (flat.y - cy) * 1e-3) for a, b in ring) for ring in one)
    return SolvedSection(
        name, label, EA * mm2, ixx * mm4, iyy * mm4, ixy * mm4, section.get_ej(e_ref=1.0) * mm4, as_x * mm2, as_y * mm2,
        section.get_egamma(e_ref=1.0) * 1e-18, (x - cx) * 1e-3, (y - cy) * 1e-3, moved, base.id, mass / (base.rho * EA),
    )  # fmt: skip


def outline_of(shape: "Polygon") -> tuple[Ring, ...]:
    """Return a polygon's rings about its centroid, m, from millimetres."""
    rings = [list(shape.exterior.coords)[:-1], *(list(hole.coords)[:-1] for hole in shape.interiors)]
    oriented = [_oriented(ring, inside=bool(index)) for index, ring in enumerate(rings)]
    flat = integrate(tuple(loop(ring) for ring in oriented))
    return tuple(
        tuple((round((y - flat.y) * 1e-3, 7), round((z - flat.z) * 1e-3, 7)) for y, z in ring) for ring in oriented
    )


def _oriented(ring: list[tuple[float, float]], inside: bool) -> list[tuple[float, float]]:
    twice = sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(ring, [*ring[1:], ring[0]], strict=True))
    return ring[::-1] if (twice > 0) == inside else ring
