"""The numbers of a member: its section with its fill, turned as built."""

from dataclasses import dataclass, replace
from functools import lru_cache

from unterbau.errors import InputError
from unterbau.machine.bill import Line
from unterbau.machine.parts import Member, Plate
from unterbau.materials.material import material
from unterbau.sections.section import section
from unterbau.sections.solids import RECTANGLE_SHEAR, rectangle_torsion, rod


@dataclass(frozen=True, slots=True)
class BeamValues:
    """One row of beam data."""

    E: float
    G: float
    rho: float
    zeta: float
    A: float
    Iy: float
    Iz: float
    Iyz: float
    J: float
    Asy: float
    Asz: float

    @property
    def mass_per_metre(self) -> float:
        """kg/m."""
        return self.rho * self.A


@lru_cache(maxsize=1024)
def member_values(member: Member) -> BeamValues:
    """Return a member as one beam: a bonded fill by the transformed section.

    Source:
        Transformed section (any strength-of-materials text): EI = ΣEI, GJ = ΣGJ, EA = ΣEA,
        expressed in the tube's material; damping weighted by bending stiffness.

    Raises:
        InputError: Unknown names, or a fill without a closed hollow.
    """
    shape, base = section(member.section), material(member.material)
    p = shape.properties
    A, Iy, Iz, J, Asy, Asz, m, lost = p.A, p.Iy, p.Iz, p.J, p.Asy, p.Asz, base.rho * p.A, base.zeta * p.Iy
    if member.fill is not None:
        if shape.cavity is None:
            raise InputError("fill", f"{shape.label} has no closed hollow to fill")
        inside, c = material(member.fill), shape.cavity
        n, g = inside.E / base.E, inside.G / base.G
        A, Iy, Iz, J = A + n * c.A, Iy + n * c.Iy, Iz + n * c.Iz, J + g * c.J
        Asy, Asz = Asy + g * c.Asy, Asz + g * c.Asz
        m += inside.rho * c.A
        lost += inside.zeta * n * c.Iy
    Iyz = p.Iyz
    if member.turned:
        Iy, Iz, Asy, Asz, Iyz = Iz, Iy, Asz, Asy, -Iyz
    zeta = lost / (Iz if member.turned else Iy)
    return BeamValues(base.E, base.G, m / A, zeta, A, Iy, Iz, Iyz, J, Asy, Asz)


def member_size(member: Member) -> tuple[float, float]:
    """Return height (along up) and width of a member as built, m."""
    shape = section(member.section)
    return (shape.width, shape.height) if member.turned else (shape.height, shape.width)


def member_rings(member: Member) -> tuple[tuple[tuple[float, float], ...], ...]:
    """Return a member's outline as built, points (y, z) about the centroid, m; the outside first."""
    loops = section(member.section).loops
    if member.turned:
        return tuple(tuple((-z, y) for y, z in loop) for loop in loops)
    return loops


@lru_cache(maxsize=1024)
def strip_values(plate: Plate, width: float, mass_share: float = 1.0) -> BeamValues:
    """Return a strip of a plate as a beam; local z is across the plate's thickness.

    Where strips overlap, `mass_share` says how much of its mass this one carries.
    """
    base, t = material(plate.material), plate.thickness
    A = width * t
    return BeamValues(
        base.E, base.G, base.rho * mass_share, base.zeta, A, width * t**3 / 12, t * width**3 / 12, 0.0,
        rectangle_torsion(width, t), RECTANGLE_SHEAR * A, RECTANGLE_SHEAR * A,
    )  # fmt: skip


@lru_cache(maxsize=1024)
def grid_values(plate: Plate, width: float, carries_mass: bool) -> BeamValues:
    """Return a strip of a plate modelled as a grid of strips both ways.

    Source:
        Hambly, Bridge Deck Behaviour: for an isotropic slab each direction takes the torsion
        constant t³/6 per width. Only one direction carries the mass.
    """
    strip = strip_values(plate, width, 1.0 if carries_mass else 0.0)
    return replace(strip, J=width * plate.thickness**3 / 6)


@lru_cache(maxsize=1024)
def round_values(diameter: float, material_name: str) -> BeamValues:
    """Return a solid round bar as a beam."""
    base, p = material(material_name), rod(diameter)
    return BeamValues(base.E, base.G, base.rho, base.zeta, p.A, p.Iy, p.Iz, 0.0, p.J, p.Asy, p.Asz)


def member_lines(key: str, member: Member, count: int, length: float) -> tuple[Line, ...]:
    """Return a member's lines on the list of parts: itself, and its fill."""
    shape, base = section(member.section), material(member.material)
    total = member_values(member).mass_per_metre * length * count
    own = base.rho * shape.properties.A * length * count
    sort = "slotted" if member.section.startswith(("tslot", "cprofile")) else "bar"
    names = (f"section:{member.section}", f"{sort}:{base.id}", f"{sort}:{base.kind}", f"bar:{base.kind}")
    lines = [Line(key, f"{shape.label}, {base.label}", count, length, own, names)]
    if member.fill is not None:
        inside = material(member.fill)
        lines.append(
            Line(key, f"fill, {inside.label}", count, length, total - own, (f"fill:{inside.id}", f"fill:{inside.kind}"))
        )
    return tuple(lines)


def plate_line(key: str, plate: Plate, count: int, width: float, length: float) -> Line:
    """Return a plate's line on the list of parts."""
    base = material(plate.material)
    mass = base.rho * plate.thickness * width * length * count
    text = f"plate {plate.thickness * 1e3:g} mm, {base.label}"
    return Line(key, text, count, length, mass, (f"plate:{base.id}", f"plate:{base.kind}"))
