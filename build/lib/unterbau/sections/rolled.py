"""Rolled open sections: angles EN 10056-1, channels UPN, I sections IPE.

Areas and second moments are exact integrals of the outline with its fillets. Torsion
constants follow El Darwish & Johnston, Torsion of Structural Shapes (1965), as printed in
the UK steel section tables: thin rectangles plus the swelling at each junction.
"""

import math
from dataclasses import dataclass

from unterbau.sections.outline import Outline, integrate, rounded
from unterbau.sections.properties import SectionProperties


@dataclass(frozen=True, slots=True)
class Channel:
    """A channel with tapered flanges; tf at half the flange's width. Metres."""

    height: float
    width: float
    web: float
    flange: float
    root: float
    toe: float
    taper: float = 0.08


@dataclass(frozen=True, slots=True)
class ISection:
    """A doubly symmetric I section with parallel flanges. Metres."""

    height: float
    width: float
    web: float
    flange: float
    root: float


_UPN_MM = {
    80: (45, 6, 8, 8, 4),
    100: (50, 6, 8.5, 8.5, 4.5),
    120: (55, 7, 9, 9, 4.5),
    140: (60, 7, 10, 10, 5),
}
_IPE_MM = {80: (46, 3.8, 5.2, 5), 100: (55, 4.1, 5.7, 7), 120: (64, 4.4, 6.3, 7), 140: (73, 4.7, 6.9, 7)}
_ANGLE_ROOT_MM = {30: 5, 40: 6, 50: 7, 60: 8, 80: 10, 100: 12}

UPN = {n: Channel(n / 1e3, *(v / 1e3 for v in row)) for n, row in _UPN_MM.items()}
IPE = {n: ISection(n / 1e3, *(v / 1e3 for v in row)) for n, row in _IPE_MM.items()}


def angle_root_radius(leg: float) -> float:
    """Return the root radius of a leg width, EN 10056-1; in between by the nearest size, m."""
    nearest = min(_ANGLE_ROOT_MM, key=lambda size: abs(size - leg * 1e3))
    return _ANGLE_ROOT_MM[nearest] / 1e3


def angle_outline(height: float, width: float, wall: float) -> Outline:
    """Return an angle with its heel at the lower left, legs up and to the right."""
    root = angle_root_radius(max(height, width))
    corners = [(0.0, 0.0), (width, 0.0), (width, wall), (wall, wall), (wall, height), (0.0, height)]
    return (rounded(corners, [0.0, 0.0, root / 2, root, root / 2, 0.0]),)


def angle(height: float, width: float, wall: float) -> SectionProperties:
    """Return an angle; shear areas are 5/6 of each leg."""
    flat = integrate(angle_outline(height, width, wall))
    root = angle_root_radius(max(height, width))
    swelling, size = 0.0768 + 0.0479 * root / wall, _corner_circle(root, wall, wall)
    J = (width + height - wall) * wall**3 / 3 + swelling * size**4 - 0.21 * wall**4
    shear = (5 / 6 * width * wall, 5 / 6 * height * wall)
    # The shear forces of both legs meet where their middles cross.
    return SectionProperties(flat.A, flat.Iy, flat.Iz, flat.Iyz, J, *shear, ys=wall / 2 - flat.y, zs=wall / 2 - flat.z)


def channel_outline(c: Channel) -> Outline:
    """Return a channel with its back at the left, flanges to the right."""
    h = c.height / 2
    tip = h - (c.flange - c.taper * c.width / 2)
    heel = h - (c.flange + c.taper * (c.width / 2 - c.web))
    corners = [
        (0.0, -h), (c.width, -h), (c.width, -tip), (c.web, -heel),
        (c.web, heel), (c.width, tip), (c.width, h), (0.0, h),
    ]  # fmt: skip
    return (rounded(corners, [0.0, 0.0, c.toe, c.root, c.root, c.toe, 0.0, 0.0]),)


def channel(c: Channel) -> SectionProperties:
    """Return a channel; shear areas are the web between flange centres and 5/6 of the flanges."""
    flat = integrate(channel_outline(c))
    at_web = c.flange + c.taper * (c.width / 2 - c.web)
    swelling = (
        -0.0908 + 0.2621 * c.web / at_web + 0.1231 * c.root / at_web
        - 0.0752 * c.web * c.root / at_web**2 - 0.0945 * (c.web / at_web) ** 2
    )  # fmt: skip
    size = _corner_circle(c.root, c.web, at_web)
    flanges = 2 / 3 * c.width * (c.flange**3 + c.flange * (c.taper * c.width / 2) ** 2)
    J = flanges + (c.height - 2 * at_web) * c.web**3 / 3 + 2 * swelling * size**4 - 0.42 * c.flange**4
    return SectionProperties(
        flat.A, flat.Iy, flat.Iz, flat.Iyz, J,
        5 / 6 * 2 * c.width * c.flange, (c.height - c.flange) * c.web, Iw=_channel_warping(c),
        ys=_behind_web(c) - flat.y,
    )  # fmt: skip


def _channel_warping(c: Channel) -> float:
    """Return the warping constant of a channel with flanges of even thickness, m⁶.

    Source:
        Thin walls, Vlasov; Roark, Formulas for Stress and Strain: tf·b³·h²/12 · (3·b·tf + 2·h·tw)/(6·b·tf + h·tw).
    """
    b, h = c.width - c.web / 2, c.height - c.flange
    flange, web = b * c.flange, h * c.web
    return flange * b**2 * h**2 / 12 * (3 * flange + 2 * web) / (6 * flange + web)


def _behind_web(c: Channel) -> float:
    """Return the shear centre of a channel, m from its back, less than nothing outside.

    Source:
        Thin walls, Timoshenko, Strength of Materials II: 3·b²·tf/(6·b·tf + h·tw) behind the web's middle.
    """
    b, h = c.width - c.web / 2, c.height - c.flange
    return c.web / 2 - 3 * b**2 * c.flange / (6 * b * c.flange + h * c.web)


def i_outline(s: ISection) -> Outline:
    """Return an I section about its centre."""
    h, b, w, f = s.height / 2, s.width / 2, s.web / 2, s.height / 2 - s.flange
    corners = [
        (-b, -h), (b, -h), (b, -f), (w, -f), (w, f), (b, f),
        (b, h), (-b, h), (-b, f), (-w, f), (-w, -f), (-b, -f),
    ]  # fmt: skip
    r = s.root
    return (rounded(corners, [0, 0, 0, r, r, 0, 0, 0, 0, r, r, 0]),)


def i_section(s: ISection) -> SectionProperties:
    """Return an I section; shear areas are the web between flange centres and 5/6 of the flanges."""
    flat = integrate(i_outline(s))
    swelling = (
        -0.042 + 0.2204 * s.web / s.flange + 0.1355 * s.root / s.flange
        - 0.0865 * s.web * s.root / s.flange**2 - 0.0725 * (s.web / s.flange) ** 2
    )  # fmt: skip
    size = ((s.flange + s.root) ** 2 + s.web * (s.root + s.web / 4)) / (2 * s.root + s.flange)
    J = (
        2 / 3 * s.width * s.flange**3 + (s.height - 2 * s.flange) * s.web**3 / 3
        + 2 * swelling * size**4 - 0.42 * s.flange**4
    )  # fmt: skip
    return SectionProperties(
        flat.A, flat.Iy, flat.Iz, 0.0, J,
        5 / 6 * 2 * s.width * s.flange, (s.height - s.flange) * s.web,
        Iw=flat.Iz * (s.height - s.flange) ** 2 / 4,
    )  # fmt: skip


def _corner_circle(root: float, web: float, flange: float) -> float:
    """Return the diameter of the circle inscribed at a corner junction, m."""
    return 2 * (3 * root + web + flange - math.sqrt(2 * (2 * root + web) * (2 * root + flange)))
