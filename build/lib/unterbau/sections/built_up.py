"""Members built up of several equal profiles: side by side, stacked, back to back, as box, I or T.

Second moments follow from the parts by Steiner's theorem. Twist does not: bonded or welded, the whole cross-section
is solved by finite elements (closed cells count, open ones warp); dotted by screws, each profile twists for itself
and what ties them are the screws, which the frame knows.
"""

from dataclasses import dataclass, replace

from unterbau.errors import InputError
from unterbau.sections.properties import SectionProperties

OF = "-of-"


@dataclass(frozen=True, slots=True)
class Layout:
    """How profiles are put together."""

    id: str
    label: str
    count: int
    channels: bool
    """Whether it takes profiles that are open to one side."""


LAYOUTS = {
    one.id: one
    for one in (
        Layout("side2", "two side by side", 2, False),
        Layout("side3", "three side by side", 3, False),
        Layout("stack2", "two stacked", 2, False),
        Layout("stack3", "three stacked", 3, False),
        Layout("back2", "two back to back", 2, True),
        Layout("toe2", "two toe to toe", 2, True),
        Layout("box3", "box of three", 3, True),
        Layout("i3", "I of three", 3, False),
        Layout("t2", "T of two", 2, False),
    )
}

SLOTTED = "tslot-20-1x2 tslot-30L-1x2 tslot-40L-1x1 tslot-40L-1x2 tslot-40H-1x1 tslot-40H-1x2 tslot-45L-1x2"
SHIPPED = tuple(
    f"{layout}-of-{profile}"
    for layouts, profiles in (
        ("back2 toe2 box3 i3", "cprofile-40x80 upn-80 upn-100 upn-120"),
        ("side2 stack2", f"{SLOTTED} rhs-80x40x4 shs-60x60x4"),
        ("side3", "tslot-40L-1x2"),
        ("t2 i3", "flat-80x10 flat-100x10 flat-100x12 flat-120x12"),
    )
    for layout in layouts.split()
    for profile in profiles.split()
)
"""Built-up sections that are solved beforehand."""


@dataclass(frozen=True, slots=True)
class Piece:
    """One profile in a built-up section."""

    y: float
    """Its centroid from the whole's, m."""
    z: float
    quarters: int
    """Turned against the clock by so many quarters, after mirroring."""
    mirrored: bool
    """Left for right."""
    properties: SectionProperties
    """As it stands."""


@dataclass(frozen=True, slots=True)
class Seam:
    """Where two pieces touch."""

    first: int
    second: int
    y: float
    """Middle of the face, from the whole's centroid, m."""
    z: float
    upright: bool
    """Whether the face stands, its normal along y."""
    width: float
    """Of the face, m."""


def split_name(name: str) -> tuple[Layout, str] | None:
    """Return layout and profile of a built-up section's name, or nothing for other names.

    Raises:
        InputError: No such layout.
    """
    if OF not in name:
        return None
    kind, profile = name.split(OF, 1)
    if kind not in LAYOUTS:
        raise InputError("section", f'there is no layout "{kind}"; known are {", ".join(LAYOUTS)}')
    return LAYOUTS[kind], profile


def turned(p: SectionProperties, quarters: int, mirrored: bool) -> SectionProperties:
    """Return a profile's values mirrored left for right, then turned by quarters."""
    found = replace(p, Iyz=-p.Iyz, ys=-p.ys) if mirrored else p
    for _ in range(quarters % 4):
        found = found.turned()
    return found


Box = tuple[float, float, float, float]
"""Left, right, low, high about the centroid, m."""


def extent(box: Box, quarters: int, mirrored: bool) -> Box:
    """Return a profile's extent mirrored and turned."""
    left, right, low, high = box
    if mirrored:
        left, right = -right, -left
    for _ in range(quarters % 4):
        left, right, low, high = -high, -low, left, right
    return left, right, low, high


def build(layout: Layout, p: SectionProperties, box: Box) -> tuple[tuple[Piece, ...], tuple[Seam, ...]]:
    """Return the pieces of a built-up section about its centroid, and where they touch.

    Args:
        layout: How they are put together.
        p: Of one profile.
        box: Extent of one profile about its centroid; channels are open to the right.
    """
    rows: list[tuple[float, float, int, bool]] = []
    seams: list[tuple[int, int, float, float, bool, float]] = []
    left, right, low, high = box
    wide, tall = right - left, high - low
    if layout.id.startswith("side"):
        rows = [(n * wide, 0.0, 0, False) for n in range(layout.count)]
        seams = [(n, n + 1, n * wide + right, (low + high) / 2, True, tall) for n in range(layout.count - 1)]
    elif layout.id.startswith("stack"):
        rows = [(0.0, n * tall, 0, False) for n in range(layout.count)]
        seams = [(n, n + 1, (left + right) / 2, n * tall + high, False, wide) for n in range(layout.count - 1)]
    elif layout.id == "back2":
        rows = [(left, 0.0, 0, True), (-left, 0.0, 0, False)]
        seams = [(0, 1, 0.0, (low + high) / 2, True, tall)]
    elif layout.id in ("toe2", "box3"):
        rows = [(-right, 0.0, 0, False), (right, 0.0, 0, True)]
        seams = [(0, 1, 0.0, low, True, 0.0), (0, 1, 0.0, high, True, 0.0)]
        if layout.id == "box3":
            top = extent(box, 1, False)
            rows.append((-(top[0] + top[1]) / 2, high - top[2], 1, False))
            half = min(wide, (top[1] - top[0]) / 2) / 2
            seams += [(0, 2, -half, high, False, 2 * half), (1, 2, half, high, False, 2 * half)]
    elif layout.id in ("i3", "t2"):
        top = extent(box, 1, False)
        middle = (left + right) / 2
        rows = [(0.0, 0.0, 0, False), (middle - (top[0] + top[1]) / 2, high - top[2], 1, False)]
        seams = [(0, 1, middle, high, False, wide)]
        if layout.id == "i3":
            bottom = extent(box, 3, False)
            rows.append((middle - (bottom[0] + bottom[1]) / 2, low - bottom[3], 3, False))
            seams.append((0, 2, middle, low, False, wide))
    y0, z0 = (sum(row[k] for row in rows) / len(rows) for k in (0, 1))
    pieces = tuple(Piece(y - y0, z - z0, q, m, turned(p, q, m)) for y, z, q, m in rows)
    return pieces, tuple(Seam(a, b, y - y0, z - z0, up, w) for a, b, y, z, up, w in seams)


def whole(pieces: tuple[Piece, ...]) -> tuple[float, float, float, float]:
    """Return A, Iy, Iz, Iyz of pieces that act as one, by Steiner's theorem."""
    A = sum(one.properties.A for one in pieces)
    Iy = sum(one.properties.Iy + one.properties.A * one.z**2 for one in pieces)
    Iz = sum(one.properties.Iz + one.properties.A * one.y**2 for one in pieces)
    Iyz = sum(one.properties.Iyz + one.properties.A * one.y * one.z for one in pieces)
    return A, Iy, Iz, Iyz


def placed(points: list[tuple[float, float]], piece: Piece) -> list[tuple[float, float]]:
    """Return points of a profile's outline, about its centroid, where a piece has them."""
    found = []
    for y, z in points:
        a, b = (-y, z) if piece.mirrored else (y, z)
        for _ in range(piece.quarters % 4):
            a, b = -b, a
        found.append((a + piece.y, b + piece.z))
    return found


def effective_torsion(J: float, Iw: float, G: float, E: float, length: float) -> float:
    """Return the torsion constant of an open section between ends that cannot warp, m⁴.

    Source:
        Vlasov's theory, both ends held: J/(1 − 2·tanh(λL/2)/(λL)), λ² = GJ/(E·Iw).
    """
    from math import sqrt, tanh

    if Iw <= 0.0:
        return J
    x = length * sqrt(G * J / (E * Iw))
    if x < 1e-2:
        return J * 12 / x**2
    return J / (1 - 2 * tanh(x / 2) / x)
