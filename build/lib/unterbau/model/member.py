"""The numbers of a member: its section with its fill, turned as built."""

from dataclasses import dataclass, replace
from functools import lru_cache

from unterbau.band import AtLevels
from unterbau.errors import InputError
from unterbau.materials.material import Material, material
from unterbau.sections.built_up import Piece, effective_torsion
from unterbau.sections.properties import SectionProperties
from unterbau.sections.section import section
from unterbau.sections.solids import RECTANGLE_SHEAR, rectangle_torsion, rod
from unterbau.structure.parts import FLUTED, Cutter, Member, Plate


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
    ys: float = 0.0
    zs: float = 0.0

    @property
    def mass_per_metre(self) -> float:
        """kg/m."""
        return self.rho * self.A


LOOSE_DAMPING = 0.01
"""Damping ratio that a loose fill adds where it is all of the weight; common practice, no source."""


def beam_values(p: SectionProperties, base: Material) -> BeamValues:
    """Return a section of one material as a beam."""
    return BeamValues(
        base.E, base.G, base.rho, base.zeta, p.A, p.Iy, p.Iz, p.Iyz, p.J, p.Asy, p.Asz, p.ys, p.zs
    )  # fmt: skip


@lru_cache(maxsize=1024)
def member_values(member: Member) -> BeamValues:
    """Return a member as one beam: a bonded fill by the transformed section; built-up profiles act as one.

    Source:
        Transformed section (any strength-of-materials text): EI = ΣEI, GJ = ΣGJ, EA = ΣEA,
        expressed in the tube's material; damping weighted by bending stiffness.

    Raises:
        InputError: Unknown names, or a fill without a closed hollow.
    """
    shape, base = section(member.section), material(member.material)
    p = shape.properties
    if shape.material and shape.material != member.material:
        expected = material(shape.material).label
        raise InputError("material", f"{shape.label} is of several materials, counted as {expected}; expected that")
    found = beam_values(p.turned() if member.turned else p, base)
    found = replace(found, rho=base.rho * shape.weight)
    if member.fill is None:
        return found
    if shape.cavity is None:
        raise InputError("fill", f"{shape.label} has no closed hollow to fill")
    try:
        inside = material(member.fill)
    except InputError as error:
        raise InputError("fill", error.problem) from None
    c = shape.cavity.turned() if member.turned else shape.cavity
    m = found.rho * p.A + inside.rho * c.A
    if member.loose or inside.kind == "loose":
        share = inside.rho * c.A / m
        return replace(found, rho=m / found.A, zeta=found.zeta + LOOSE_DAMPING * share)
    n, g = inside.E / base.E, inside.G / base.G
    lost = base.zeta * found.Iy + inside.zeta * n * c.Iy
    A, Iy = found.A + n * c.A, found.Iy + n * c.Iy
    return replace(
        found, rho=m / A, zeta=lost / Iy, A=A, Iy=Iy, Iz=found.Iz + n * c.Iz, Iyz=found.Iyz + n * c.Iyz,
        J=found.J + g * c.J, Asy=found.Asy + g * c.Asy, Asz=found.Asz + g * c.Asz,
    )  # fmt: skip


def warped(
    member: Member, values: BeamValues, length: float, within: bool = False
) -> BeamValues | AtLevels[BeamValues]:  # fmt: skip
    """Return an open section with its ends' hold on warping: low free, high held, likely between.

    Args:
        member: The member.
        values: Its values with free ends.
        length: From end to end, m.
        within: Whether it is twisted in between, as by a carriage: by symmetry it cannot warp there.

    Source:
        Vlasov's theory, see `effective_torsion`; likely is the geometric mean of free and held.
    """
    Iw = section(member.section).properties.Iw
    if Iw <= 0.0:
        return values
    # Half of a beam that is twisted in between is held at one end at least: as all of it, held at both.
    low = effective_torsion(values.J, Iw, values.G, values.E, length) if within else values.J
    high = effective_torsion(values.J, Iw, values.G, values.E, length / 2 if within else length)
    return AtLevels(*(replace(values, J=J) for J in (low, (low * high) ** 0.5, high)))


def tied_by_screws(member: Member) -> bool:
    """Return whether a member is several profiles with screws between them."""
    return member.seam == "screws" and bool(section(member.section).pieces)


def first_profile(member: Member) -> BeamValues:
    """Return the first profile of a built-up member as a beam."""
    return beam_values(turned_piece(section(member.section).pieces[0], member.turned).properties,
                       material(member.material))  # fmt: skip


def turned_piece(piece: Piece, turned: bool) -> Piece:
    """Return a profile of a built-up section with the whole turned by a quarter, or not."""
    return replace(piece, y=-piece.z, z=piece.y, properties=piece.properties.turned()) if turned else piece


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
def round_values(diameter: float, material_name: str) -> BeamValues:
    """Return a solid round bar as a beam."""
    base, p = material(material_name), rod(diameter)
    return BeamValues(base.E, base.G, base.rho, base.zeta, p.A, p.Iy, p.Iz, 0.0, p.J, p.Asy, p.Asz)


def fluted_values(cutter: Cutter) -> BeamValues:
    """Return the fluted part of a cutter as a beam: a bar of less than its diameter, with that bar's weight."""
    return round_values(FLUTED * cutter.diameter, cutter.material)
