"""Solid and hollow rectangles and rounds, in closed form."""

import math

from unterbau.errors import InputError
from unterbau.sections.outline import Outline, circle, integrate, rounded
from unterbau.sections.properties import SectionProperties

RECTANGLE_SHEAR = 5 / 6
ROUND_SHEAR = 6 / 7


def rectangle(width: float, height: float) -> SectionProperties:
    """Return a solid rectangle, width along y, height along z, m.

    Source:
        Torsion by the series of Timoshenko & Goodier, Theory of Elasticity, §109;
        shear factor 5/6 by the energy of the parabolic shear stress.
    """
    A = width * height
    shear = RECTANGLE_SHEAR * A
    return SectionProperties(
        A, width * height**3 / 12, height * width**3 / 12, 0.0, rectangle_torsion(width, height), shear, shear
    )


def rectangle_torsion(a: float, b: float) -> float:
    """Return the torsion constant of a solid rectangle of sides a and b, m⁴ (same series)."""
    t, h = min(a, b), max(a, b)
    total = sum(math.tanh(n * math.pi * h / (2 * t)) / n**5 for n in range(1, 40, 2))
    return h * t**3 / 3 * (1 - 192 * t / (math.pi**5 * h) * total)


def rod(diameter: float) -> SectionProperties:
    """Return a solid round; shear factor 6/7 (Cowper 1966, Poisson's ratio 0)."""
    A, inertia = math.pi * diameter**2 / 4, math.pi * diameter**4 / 64
    return SectionProperties(A, inertia, inertia, 0.0, 2 * inertia, ROUND_SHEAR * A, ROUND_SHEAR * A)


def tube(diameter: float, wall: float) -> SectionProperties:
    """Return a round tube.

    Source:
        Shear factor by Cowper (1966), J. Appl. Mech. 33, for Poisson's ratio 0.

    Raises:
        InputError: The wall does not fit.
    """
    if wall >= diameter / 2:
        raise InputError("wall", f"a wall of {wall * 1e3:g} mm does not fit into ⌀{diameter * 1e3:g} mm")
    inner = diameter - 2 * wall
    A = math.pi * (diameter**2 - inner**2) / 4
    inertia = math.pi * (diameter**4 - inner**4) / 64
    m = (inner / diameter) ** 2
    factor = 6 * (1 + m) ** 2 / (7 * (1 + m) ** 2 + 20 * m)
    return SectionProperties(A, inertia, inertia, 0.0, 2 * inertia, factor * A, factor * A)


def hollow_outline(height: float, width: float, wall: float, outer: float, inner: float) -> Outline:
    """Return a hollow rectangle with outer and inner corner radii."""
    y, z = width / 2, height / 2
    iy, iz = y - wall, z - wall
    return (
        rounded([(-y, -z), (y, -z), (y, z), (-y, z)], [outer] * 4),
        rounded([(-iy, -iz), (-iy, iz), (iy, iz), (iy, -iz)], [inner] * 4),
    )


def hollow(height: float, width: float, wall: float, outer: float, inner: float) -> SectionProperties:
    """Return a hollow rectangle with corner radii.

    Source:
        Torsion constant by EN 10219-2 / EN 10210-2 Annex B; shear areas by the energy of
        the thin-walled shear flow on the wall's middle line.

    Raises:
        InputError: Wall or corners do not fit.
    """
    if 2 * max(wall + inner, outer) > min(width, height):
        raise InputError("wall", f"a wall of {wall * 1e3:g} mm does not fit into {height * 1e3:g}×{width * 1e3:g} mm")
    flat = integrate(hollow_outline(height, width, wall, outer, inner))
    b, h = width - wall, height - wall
    mean = (outer + inner) / 2
    length = 2 * (b + h) - 2 * mean * (4 - math.pi)
    enclosed = b * h - mean**2 * (4 - math.pi)
    J = wall**3 * length / 3 + 4 * enclosed**2 * wall / length
    return SectionProperties(flat.A, flat.Iy, flat.Iz, 0.0, J, box_shear_area(h, b, wall), box_shear_area(b, h, wall))


def box_shear_area(b: float, h: float, wall: float) -> float:
    """Return the shear area along h of a thin box with middle lines b × h: I² / ∫(S²/t) ds."""
    inertia = wall * h**3 / 6 + wall * b * h**2 / 2
    flange = 4 * wall * (h / 2) ** 2 * (b / 2) ** 3 / 3
    # In a web the static moment is S = wall·(p − z²/2) with p = b·h/4 + h²/8, z from 0 to h/2.
    p, e = b * h / 4 + h**2 / 8, h / 2
    web = 4 * wall * (p**2 * e - p * e**3 / 3 + e**5 / 20)
    return inertia**2 / (flange + web)


def tube_outline(diameter: float, wall: float) -> Outline:
    """Return the two circles of a round tube."""
    return (circle(diameter / 2), circle(diameter / 2 - wall, hole=True))
