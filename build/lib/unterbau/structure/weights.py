"""What members look like from outside, and what they and their insides weigh."""

from dataclasses import dataclass
from math import pi

from unterbau.catalogue.guides import block
from unterbau.catalogue.joints import BOLTS, OWN, joint
from unterbau.catalogue.screws import screw_size
from unterbau.materials.material import material
from unterbau.sections.section import section
from unterbau.structure.bodies import Ring
from unterbau.structure.parts import FLUTED, Cutter, Joint, Member

BESIDE = 0.01
"""A strip under a rail is wider than it by this on both sides, m."""
SHORT = 1e-4
"""A shank shorter than this is none, m."""


def member_size(member: Member) -> tuple[float, float]:
    """Return height (along up) and width of a member as built, m."""
    shape = section(member.section)
    return (shape.width, shape.height) if member.turned else (shape.height, shape.width)


def member_rings(member: Member) -> tuple[Ring, ...]:
    """Return a member's outline as built, points (y, z) about the centroid, m; the outside first."""
    loops = section(member.section).loops
    if member.turned:
        return tuple(tuple((-z, y) for y, z in loop) for loop in loops)
    return loops


def bar_mass(member: Member) -> float:
    """Return the mass of a member without its fill, kg/m."""
    shape = section(member.section)
    return material(member.material).rho * shape.weight * shape.properties.A


def fill_mass(member: Member) -> float:
    """Return the mass of a member's fill, kg/m."""
    cavity = section(member.section).cavity
    return material(member.fill).rho * cavity.A if member.fill and cavity else 0.0


@dataclass(frozen=True, slots=True)
class InnerPlates:
    """Plates inside a hollow member."""

    count: int
    thickness: float
    mass: float
    """All of them, kg."""


def wall_of(member: Member) -> float:
    """Return how thick the walls of a hollow member are, all around the same, m."""
    shape = section(member.section)
    return shape.properties.A / (2 * (shape.height + shape.width))


def inner_plates(member: Member, length: float) -> InnerPlates:
    """Return the end plates and diaphragms of a member of a length; they are as thick as its wall."""
    shape = section(member.section)
    if shape.cavity is None:
        return InnerPlates(0, 0.0, 0.0)
    count = 2 * member.capped
    if member.diaphragms:
        count += max(1, round(length / member.diaphragms)) - 1
    wall = wall_of(member)
    return InnerPlates(count, wall, count * material(member.material).rho * wall * shape.cavity.A)


def backing_mass(member: Member, block_name: str, length: float) -> float:
    """Return the mass of the strip under a rail of a length, kg."""
    wide = block(block_name).rail_width + 2 * BESIDE
    return material(member.material).rho * member.backing * wide * length


def rod_mass(diameter: float, material_name: str, length: float) -> float:
    """Return the mass of a round bar, kg."""
    return material(material_name).rho * pi * diameter**2 / 4 * length


def cutter_mass(cutter: Cutter) -> float:
    """Return the mass of what sticks out of a cutter, kg."""
    shank = 0.0 if cutter.stick_out - cutter.fluted <= SHORT else cutter.stick_out - cutter.fluted
    thick = rod_mass(cutter.shank or cutter.diameter, cutter.material, shank)
    return thick + rod_mass(FLUTED * cutter.diameter, cutter.material, cutter.stick_out - shank)


def joint_mass(chosen: Joint) -> float:
    """Return what all pieces of a joint weigh, kg; one of the person's own values has none stated."""
    if chosen.kind == OWN:
        return 0.0
    if chosen.kind == BOLTS:
        return chosen.group.across * chosen.group.along * screw_mass(chosen.group.size)
    return joint(chosen.kind).mass * chosen.count


def screw_mass(size: str) -> float:
    """Return the mass of a steel screw three diameters long, with washer and nut, kg.

    Source:
        Proportions of socket heads, washers and nuts: 5.5 d³ of steel in all, from memory.
    """
    return 5.5 * screw_size(size).d ** 3 * material("steel-s235").rho
