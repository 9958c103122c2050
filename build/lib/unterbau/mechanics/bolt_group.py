"""Stiffness of a preloaded bolt group from its geometry: contact under the bolts, bolt, plate, slot lips, bracket leg.

Source:
    Contact: δ = c·√p (Levina; Back, Burdekin and Cowley 1973; Rivin, Stiffness and Damping in Mechanical Design).
    Clamped parts: 30° frustum, Shigley, Mechanical Engineering Design. Group: sums over the bolts. All from memory.
"""

from dataclasses import dataclass
from math import log, pi, sqrt, tan

TAN30 = tan(pi / 6)
HOLE = 1.1
"""Clearance hole over the bolt's diameter."""
HEAD = 1.6
"""Bearing face of head or washer over the bolt's diameter."""
SHEARED = (0.3, 0.5, 0.8)
"""Contact stiffness along the face against that across it; up to 2(1 − ν)/(2 − ν), Mindlin."""
FRICTION = 0.2
"""For slip; 0.15 to 0.25, from memory."""


@dataclass(frozen=True, slots=True)
class Bolt:
    """One bolt and what it clamps; SI units."""

    diameter: float
    preload: float
    """N."""
    thickness: float
    """Of the part under its head, m."""
    E: float
    """Of the clamped parts, Pa; of two, the harmonic mean."""
    contact: float
    """c of δ = c·√p, m per √Pa."""
    sheared: float
    """Stiffness along the face against across it."""
    lips: float = 0.0
    """Stiffness of the slot lips that its nut pulls on, N/m; 0 where it sits in a tapped or through hole."""
    leg: float = 0.0
    """From the bolt to the heel of an unribbed bracket, m; 0 where there is none."""
    leg_width: float = 0.0
    E_leg: float = 0.0
    """Of the bracket, Pa; 0 where it is as the clamped parts are."""


@dataclass(frozen=True, slots=True)
class BoltStiffness:
    """Of one bolt with the face about it, N/m and N·m/rad."""

    normal: float
    shear: float
    own_tilt: float
    """Of its patch of face by itself."""


def preload(torque: float, diameter: float, friction: float = 0.2) -> float:
    """Return a bolt's preload, N: T/(K·d), K 0.2 dry; ±30 %."""
    return torque / (friction * diameter)


def clamped_stiffness(E: float, diameter: float, grip: float) -> float:
    """Return the stiffness of clamped parts by a 30° frustum, N/m (Shigley)."""
    d, g = diameter, grip
    return 0.5774 * pi * E * d / (2 * log(5 * (0.5774 * g + 0.5 * d) / (0.5774 * g + 2.5 * d)))


def cone(bolt: Bolt) -> tuple[float, float]:
    """Return diameter and area of the face pressed by a bolt, m, m²: dw + 2·t·tan 30°, less the hole."""
    wide = HEAD * bolt.diameter + 2 * bolt.thickness * TAN30
    return wide, pi / 4 * (wide**2 - (HOLE * bolt.diameter) ** 2)


def contact_stiffness(c: float, pressure: float) -> float:
    """Return dp/dδ of δ = c·√p, N/m³: 2·√p/c."""
    return 2 * sqrt(pressure) / c


def lip_stiffness(width: float, slot: float, lip: float, nut: float, E: float, G: float) -> float:
    """Return the stiffness of a pair of slot lips under a nut, N/m: bending and shear of two cantilevers.

    Args:
        width: Of the chamber, m.
        slot: Of the opening, m.
        lip: Its thickness, m.
        nut: Length of the nut, m.
        E: Pa.
        G: Pa.
    """
    a = (width - slot) / 2
    b = nut + 2 * a
    return 2 / (4 * a**3 / (E * b * lip**3) + 1.2 * a / (G * b * lip))


def bolt_stiffness(bolt: Bolt) -> BoltStiffness:
    """Return the stiffness of one bolt with its patch of face: contact and clamped parts, beside the bolt itself."""
    wide, area = cone(bolt)
    per_area = contact_stiffness(bolt.contact, bolt.preload / area)
    grip = 2 * bolt.thickness
    parts = clamped_stiffness(bolt.E, bolt.diameter, grip)
    shank = 210e9 * pi / 4 * (0.85 * bolt.diameter) ** 2 / (grip + bolt.diameter)
    normal = 1 / (1 / (per_area * area) + 1 / parts) + shank
    shear = bolt.sheared * per_area * area
    if bolt.lips:
        normal, shear = 1 / (1 / normal + 1 / bolt.lips), 1 / (1 / shear + 1 / bolt.lips)
    if bolt.leg:
        bending = 3 * (bolt.E_leg or bolt.E) * bolt.leg_width * bolt.thickness**3 / 12 / bolt.leg**3
        normal = 1 / (1 / normal + 1 / bending)
    return BoltStiffness(normal, shear, normal * wide**2 / 16)


def group_stiffness(places: list[tuple[float, float]], bolt: Bolt) -> tuple[float, float, float, float, float, float]:
    """Return normal, shear across, shear along up; twist, bend about across, bend about up: sums over the bolts.

    Args:
        places: Of the bolts from the group's middle, across and along up, m.
        bolt: Each of them.
    """
    one, n = bolt_stiffness(bolt), len(places)
    twist = sum(one.shear * (y * y + z * z) for y, z in places) + n * one.shear * cone(bolt)[0] ** 2 / 8
    about_across = sum(one.normal * z * z for _, z in places) + n * one.own_tilt
    about_up = sum(one.normal * y * y for y, _ in places) + n * one.own_tilt
    return n * one.normal, n * one.shear, n * one.shear, twist, about_across, about_up


def slips_at(bolt: Bolt, count: int) -> float:
    """Return the force along the face at which a group slips, N: µ·F·n."""
    return FRICTION * bolt.preload * count


def gaps_at(bolt: Bolt, count: int, height: float) -> float:
    """Return the moment at which an evenly pressed face begins to open, N·m: F·n·h/6."""
    return bolt.preload * count * height / 6
