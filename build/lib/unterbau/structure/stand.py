"""What a machine's feet stand on, as pieces: legs, panels, a cast block."""

from typing import Final

from unterbau.materials.material import material
from unterbau.structure.bodies import Prism, box_ring
from unterbau.structure.line import Line
from unterbau.structure.parts import Member, Plate, Stand, StandKind
from unterbau.structure.vectors import Vector, Y
from unterbau.structure.wares import member_lines, plate_line
from unterbau.structure.weights import member_rings

REST: Final = "feet"
"""Group of what is off the path."""
KEY: Final = "stand"
LABELS: dict[StandKind, str] = {
    "firm": "something firm", "bench": "a workbench", "welded": "welded legs",
    "profile": "bolted legs of slotted profile",
    "plywood": "plywood box", "block": "cast block", "base": "cast base with ribs",
}  # fmt: skip
LEGS: dict[StandKind, tuple[Member, int]] = {
    "welded": (Member("shs-60x60x4", "steel-s235"), 12),
    "profile": (Member("tslot-40L-1x1", "aluminium-6060"), 3),
}
"""Legs, and the factor of EI/h³."""
PANEL = Plate(0.018, "birch-ply")
BLOCK = "concrete-c30"
BASE = "cast base"
"""Name of the slab that a machine's feet are bolted to."""
BOLT: Final = "M10"
"""Through each of these feet, into an insert."""
SOLE = 0.03
"""From the edges of a base to its own feet, and half of what they bear on, m."""
FOOT, CASTER = 0.15, 0.5
"""Each, kg; from memory."""
EDGE = 0.05  # of a block or box beyond the feet


def stand_lines(stand: Stand, places: list[Vector]) -> tuple[Line, ...]:
    """Return what a stand adds to the list of parts."""
    feet = Line(
        REST,
        "caster" if stand.casters else "levelling foot",
        len(places),
        0.0,
        len(places) * (CASTER if stand.casters else FOOT),
        ("foot",),
    )
    wide, deep = extent(places)
    if stand.kind in LEGS:
        member = LEGS[stand.kind][0]
        frame = 2 * (wide + deep)
        return (feet, *member_lines(KEY, member, len(places), stand.height), *member_lines(KEY, member, 1, frame))
    if stand.kind == "plywood":
        return (feet, plate_line(KEY, PANEL, 2, stand.height, wide), plate_line(KEY, PANEL, 2, stand.height, deep))
    if stand.kind == "block":
        base = material(BLOCK)
        mass = base.rho * wide * deep * stand.height
        return (feet, Line(KEY, f"block of {base.label}", 1, wide, mass, (f"fill:{base.id}", f"fill:{base.kind}")))
    return (feet,)


def stand_bodies(stand: Stand, places: list[Vector], chains: list[str]) -> list[Prism]:
    """Return what is drawn of a stand: legs below the feet, or one box under all."""
    if stand.kind in ("firm", "bench", "base") or not places:
        return []
    if stand.kind in LEGS:
        rings = member_rings(LEGS[stand.kind][0])
        return [
            Prism(KEY, chain, (x, y, z - stand.height), (x, y, z), Y, rings)
            for (x, y, z), chain in zip(places, chains, strict=True)
        ]
    wide, deep = extent(places)
    x, y = ((min(p[n] for p in places) + max(p[n] for p in places)) / 2 for n in (0, 1))
    z = min(p[2] for p in places)
    return [Prism(KEY, chains[0], (x, y, z - stand.height), (x, y, z), Y, (box_ring(wide, deep),))]


def extent(places: list[Vector], edge: float = EDGE) -> tuple[float, float]:
    """Return how far the feet stand apart along X and Y, with an edge around them, m."""
    wide, deep = (max(p[n] for p in places) - min(p[n] for p in places) + 2 * edge for n in (0, 1))
    return wide, deep
